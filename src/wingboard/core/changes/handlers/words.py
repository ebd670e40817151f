"""Style, graphics, procedures and reference pictures."""

from __future__ import annotations

from typing import Any

from wingboard.core.changes.commands.words import (
    RemoveGraphic,
    RemoveProcedure,
    RemoveReference,
    SetGraphic,
    SetProcedure,
    SetReference,
    SetStyle,
)
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, find_function, find_module, given, with_changes
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing


def _set(design: Design, kind: str, entry: Any) -> Design:
    entries = list(getattr(design, kind))
    at = next((i for i, e in enumerate(entries) if e.id == entry.id), len(entries))
    entries[at : at + 1] = [entry]
    return with_changes(design, **{kind: tuple(entries)})


def _without(design: Design, kind: str, ident: str, what: str) -> Design:
    entries = getattr(design, kind)
    kept = tuple(e for e in entries if e.id != ident)
    if len(kept) == len(entries):
        raise UnknownThing(f"There is no {what} “{ident}” in this design", what)
    return with_changes(design, **{kind: kept})


@carry_out.register
def handle_set_style(command: SetStyle, design: Design, catalogue: Catalogue) -> Design:
    changes = given(command, "font", "panel_cap", "name_cap", "position_cap", "upper")
    return with_changes(design, style=design.style.model_copy(update=changes))


@carry_out.register
def handle_set_graphic(command: SetGraphic, design: Design, catalogue: Catalogue) -> Design:
    graphic = command.graphic
    find_module(design, graphic.module, "graphic.module")
    for ident in graphic.functions:
        find_function(design, ident, "graphic.functions")
    if graphic.kind == "bracket" and not graphic.functions and graphic.width <= 0:
        raise NotPossible("A bracket spans functions, or has a width", "graphic.functions")
    if graphic.kind == "box" and (graphic.width <= 0 or graphic.height <= 0):
        raise NotPossible("A box has a width and a height", "graphic.width")
    if graphic.kind in ("text", "placard") and not graphic.text:
        raise NotPossible("Say what it reads", "graphic.text")
    if graphic.kind == "symbol" and graphic.symbol is None:
        raise NotPossible("Say which symbol", "graphic.symbol")
    return _set(design, "graphics", graphic)


@carry_out.register
def handle_remove_graphic(command: RemoveGraphic, design: Design, catalogue: Catalogue) -> Design:
    return _without(design, "graphics", command.graphic, "graphic")


@carry_out.register
def handle_set_procedure(command: SetProcedure, design: Design, catalogue: Catalogue) -> Design:
    for ident in command.procedure.steps:
        find_function(design, ident, "procedure.steps")
    return _set(design, "procedures", command.procedure)


@carry_out.register
def handle_remove_procedure(command: RemoveProcedure, design: Design, catalogue: Catalogue) -> Design:
    return _without(design, "procedures", command.procedure, "procedure")


@carry_out.register
def handle_set_reference(command: SetReference, design: Design, catalogue: Catalogue) -> Design:
    find_module(design, command.reference.module, "reference.module")
    return _set(design, "references", command.reference)


@carry_out.register
def handle_remove_reference(command: RemoveReference, design: Design, catalogue: Catalogue) -> Design:
    return _without(design, "references", command.reference, "reference")
