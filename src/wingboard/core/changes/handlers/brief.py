"""The space, what is in the way, and the workshop."""

from __future__ import annotations

from typing import Any

from wingboard.core.changes.commands.brief import (
    LogHours,
    RemoveFromWorkshop,
    RemoveKeepOut,
    Rename,
    SetBrief,
    SetKeepOut,
    SetMachine,
    SetOnHand,
    SetStock,
    SetSupply,
    SplitOpening,
)
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, free_ident, given, with_changes, with_functions
from wingboard.core.changes.splitting import split
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.workshop import Hours, OnHand

NULLABLE = ("process", "eye_distance", "seat", "bought_price")


@carry_out.register
def handle_rename(command: Rename, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, name=command.name)


@carry_out.register
def handle_set_brief(command: SetBrief, design: Design, catalogue: Catalogue) -> Design:
    names = [n for n in SetBrief.model_fields if n != "do"]
    changes = given(command, *names) | {n: getattr(command, n) for n in NULLABLE if n in command.model_fields_set}
    if command.opening is not None and area_of(command.opening.loop()).is_valid is False:
        raise NotPossible("This outline crosses itself", "opening")
    return with_changes(design, brief=design.brief.model_copy(update=changes))


@carry_out.register
def handle_set_keep_out(command: SetKeepOut, design: Design, catalogue: Catalogue) -> Design:
    kept = list(design.brief.keepouts)
    at = next((i for i, k in enumerate(kept) if k.id == command.keepout.id), len(kept))
    kept[at : at + 1] = [command.keepout]
    return with_changes(design, brief=design.brief.model_copy(update={"keepouts": tuple(kept)}))


@carry_out.register
def handle_remove_keep_out(command: RemoveKeepOut, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(k for k in design.brief.keepouts if k.id != command.keepout)
    if len(kept) == len(design.brief.keepouts):
        raise UnknownThing(f"There is no keep-out “{command.keepout}”", "keepout")
    return with_changes(design, brief=design.brief.model_copy(update={"keepouts": kept}))


@carry_out.register
def handle_split_opening(command: SplitOpening, design: Design, catalogue: Catalogue) -> Design:
    modules = split(design.brief, command.names, command.shares, command.seam)
    freed = {f.id: f.model_copy(update={"place": None}) for f in design.functions if f.place}
    return with_changes(with_functions(design, freed), modules=modules, graphics=(), references=())


def _with_shelf(design: Design, kind: str, entry: Any) -> Design:
    """The workshop with an entry added, or replacing the one of its id."""
    entries = list(getattr(design.workshop, kind))
    at = next((i for i, e in enumerate(entries) if e.id == entry.id), len(entries))
    entries[at : at + 1] = [entry]
    return with_changes(design, workshop=design.workshop.model_copy(update={kind: tuple(entries)}))


@carry_out.register
def handle_set_machine(command: SetMachine, design: Design, catalogue: Catalogue) -> Design:
    return _with_shelf(design, "machines", command.machine)


@carry_out.register
def handle_set_stock(command: SetStock, design: Design, catalogue: Catalogue) -> Design:
    return _with_shelf(design, "stock", command.stock)


@carry_out.register
def handle_set_supply(command: SetSupply, design: Design, catalogue: Catalogue) -> Design:
    return _with_shelf(design, "supplies", command.supply)


@carry_out.register
def handle_log_hours(command: LogHours, design: Design, catalogue: Catalogue) -> Design:
    ident = free_ident((h.id for h in design.workshop.hours), "h")
    return _with_shelf(design, "hours", Hours(id=ident, **command.model_dump(exclude={"do"})))


@carry_out.register
def handle_remove_from_workshop(command: RemoveFromWorkshop, design: Design, catalogue: Catalogue) -> Design:
    entries = getattr(design.workshop, command.kind)
    kept = tuple(e for e in entries if e.id != command.id)
    if len(kept) == len(entries):
        raise UnknownThing(f"There is no “{command.id}” among the {command.kind} of this workshop", "id")
    return with_changes(design, workshop=design.workshop.model_copy(update={command.kind: kept}))


@carry_out.register
def handle_set_on_hand(command: SetOnHand, design: Design, catalogue: Catalogue) -> Design:
    if command.part not in catalogue and all(p.id != command.part for p in design.parts):
        raise UnknownThing(f"There is no part “{command.part}” in the catalogue or in this design", "part")
    kept = tuple(p for p in design.workshop.parts if p.part != command.part)
    added = (OnHand(part=command.part, count=command.count),) if command.count else ()
    return with_changes(design, workshop=design.workshop.model_copy(update={"parts": (*kept, *added)}))
