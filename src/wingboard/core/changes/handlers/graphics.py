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
from wingboard.core.geometry.frame import Frame
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.legends import Graphic

NULLABLE = ("symbol", "cap")
USUAL = 80.0, 40.0
"""Size (mm) of a bracket or box that goes round nothing yet."""
AROUND = 8.0
"""Left between a box and what it goes round (mm); above and below there is room for a legend as well."""


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
    return with_changes(design, graphics=(*design.graphics, _whole(design, _sized(design, made))))


def _sized(design: Design, graphic: Graphic) -> Graphic:
    """A bracket or box that says no size gets one: of what it goes round, or a usual one about its place."""
    if graphic.kind == "bracket" and graphic.functions:
        return graphic.model_copy(update={"y": 0.0})
    if graphic.kind == "bracket" and graphic.width <= 0:
        return graphic.model_copy(update={"x": graphic.x - USUAL[0] / 2, "width": USUAL[0]})
    if graphic.kind != "box" or (graphic.width > 0 and graphic.height > 0):
        return graphic
    parts = {p.id: p for p in design.parts}
    ids = set(graphic.functions)
    boxes = [
        Frame(f.place.x, f.place.y, f.place.turn).shape(parts[f.part or ""].covered()).bounds
        for f in design.functions
        if f.id in ids and f.place and f.place.module == graphic.module
    ]
    if not boxes:
        width, height = USUAL
        at = {"x": graphic.x - width / 2, "y": graphic.y - height / 2, "width": width, "height": height}
        return graphic.model_copy(update={**at, "functions": ()})
    legend = design.style.name_cap + AROUND
    x, y = min(b[0] for b in boxes) - AROUND, min(b[1] for b in boxes) - legend
    right, top = max(b[2] for b in boxes) + AROUND, max(b[3] for b in boxes) + legend
    at = {"x": round(x, 1), "y": round(y, 1), "width": round(right - x, 1), "height": round(top - y, 1)}
    return graphic.model_copy(update={**at, "functions": ()})


@carry_out.register
def handle_edit_graphic(command: EditGraphic, design: Design, catalogue: Catalogue) -> Design:
    graphic = found(design.graphics, command.graphic, "graphic", "graphic")
    changed = edited(graphic, changes_in(command, "graphic", nullable=NULLABLE))
    return with_changes(design, graphics=replaced(design.graphics, _whole(design, changed)))


@carry_out.register
def handle_remove_graphic(command: RemoveGraphic, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, graphics=without(design.graphics, command.graphic, "graphic", "graphic"))
