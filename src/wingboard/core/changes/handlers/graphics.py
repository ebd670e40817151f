"""What is drawn on the face and belongs to no single function."""

from __future__ import annotations

from wingboard.core.changes.commands.graphics import AddGraphic, EditGraphic, RemoveGraphic
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_function,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.legends import Graphic

NULLABLE = ("symbol", "cap")


def _whole(design: Design, graphic: Graphic) -> Graphic:
    """The graphic, when it can be drawn. :raises NotPossible, UnknownThing: what it lacks."""
    find_module(design, graphic.module, "module")
    for ident in graphic.functions:
        find_function(design, ident, "functions")
    if graphic.kind == "bracket" and not graphic.functions and graphic.width <= 0:
        raise NotPossible("A bracket spans functions, or has a width", "functions")
    if graphic.kind == "box" and (graphic.width <= 0 or graphic.height <= 0):
        raise NotPossible("A box has a width and a height", "width")
    if graphic.kind in ("text", "placard") and not graphic.text:
        raise NotPossible("Say what it reads", "text")
    if graphic.kind == "symbol" and graphic.symbol is None:
        raise NotPossible("Say which symbol", "symbol")
    return graphic


@carry_out.register
def handle_add_graphic(command: AddGraphic, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (g.id for g in design.graphics), f"{command.kind}-")
    made = Graphic.model_validate({**changes_in(command), "id": ident})
    return with_changes(design, graphics=(*design.graphics, _whole(design, made)))


@carry_out.register
def handle_edit_graphic(command: EditGraphic, design: Design, catalogue: Catalogue) -> Design:
    graphic = found(design.graphics, command.graphic, "graphic", "graphic")
    changed = edited(graphic, changes_in(command, "graphic", nullable=NULLABLE))
    return with_changes(design, graphics=replaced(design.graphics, _whole(design, changed)))


@carry_out.register
def handle_remove_graphic(command: RemoveGraphic, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, graphics=without(design.graphics, command.graphic, "graphic", "graphic"))
