"""Where parts stand on the face."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from wingboard.core.changes.commands.places import MoveItems, PlacePart, RemoveItems, SetPocket, TurnItems
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    find_function,
    find_module,
    found,
    with_changes,
    with_functions,
)
from wingboard.core.quantity import LONGEST
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Function, Place
from wingboard.core.record.legends import Graphic, Legend, written


@carry_out.register
def handle_place_part(command: PlacePart, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    find_module(design, command.module)
    if function.part is None:
        raise NotPossible(f"Choose a part for “{function.name}” first, then place it", "function")
    if function.locked and function.place is not None:
        raise NotPossible(f"“{function.name}” is locked where it is; unlock it first", "function")
    place = Place(module=command.module, x=command.x, y=command.y, turn=command.turn)
    changes: dict[str, Any] = {"place": place}
    if function.place is None and function.legend is None:
        part = next(p for p in design.parts if p.id == function.part)
        side: Literal["above", "inside"] = "inside" if part.family == "caption" else "above"
        silent = part.family in ("fixing", "vent", "speaker", "blank", "placard")
        text = written(function.name, design.style.upper)
        changes["legend"] = Legend(text="" if silent else text, side=side, hidden=silent)
    return with_functions(design, {function.id: function.model_copy(update=changes)})


def placed_functions(design: Design, idents: Sequence[str], even_locked: bool = False) -> list[tuple[Function, Place]]:
    """The functions of these ids with their places, each once.

    :raises NotPossible: one is not placed, or is locked there (unless ``even_locked``).
    """
    by_id = {f.id: f for f in design.functions}
    found = []
    for ident in dict.fromkeys(idents):
        function = by_id.get(ident) or find_function(design, ident, "functions")
        if function.place is None:
            raise NotPossible(f"“{function.name}” is not placed yet", "functions")
        if function.locked and not even_locked:
            raise NotPossible(f"“{function.name}” is locked where it is; unlock it first", "functions")
        found.append((function, function.place))
    return found


def moved_place(place: Place, dx: float, dy: float, by: float) -> Place:
    """The place shifted by (dx, dy) mm and turned by degrees. :raises NotPossible: out of all bounds."""
    x, y = round(place.x + dx, 4), round(place.y + dy, 4)
    if max(abs(x), abs(y)) > LONGEST:
        raise NotPossible(f"That would be further than {LONGEST:.0f} mm from the module's corner", "dx")
    return place.model_copy(update={"x": x, "y": y, "turn": round((place.turn + by) % 360, 4)})


@carry_out.register
def handle_move_items(command: MoveItems, design: Design, catalogue: Catalogue) -> Design:
    if not command.functions and not command.graphics:
        raise NotPossible("Say what is to be moved", "functions")
    placed = placed_functions(design, command.functions)
    changed = {
        f.id: f.model_copy(update={"place": moved_place(place, command.dx, command.dy, 0)}) for f, place in placed
    }
    return with_moved_graphics(with_functions(design, changed), command.graphics, command.dx, command.dy)


def with_moved_graphics(design: Design, idents: Sequence[str], dx: float, dy: float) -> Design:
    """The design with graphics shifted by (dx, dy) mm; one that follows functions is only shifted up and down."""
    if not idents:
        return design
    moved = []
    for ident in dict.fromkeys(idents):
        graphic = found(design.graphics, ident, "graphic", "graphics")
        moved.append(moved_graphic(graphic, dx, dy))
    by_id = {g.id: g for g in moved}
    return with_changes(design, graphics=tuple(by_id.get(g.id, g) for g in design.graphics))


def moved_graphic(graphic: Graphic, dx: float, dy: float) -> Graphic:
    """A graphic shifted by (dx, dy) mm. :raises NotPossible: out of all bounds."""
    follows = graphic.kind == "bracket" and graphic.functions
    x, y = graphic.x if follows else round(graphic.x + dx, 4), round(graphic.y + dy, 4)
    if max(abs(x), abs(y)) > LONGEST:
        raise NotPossible(f"That would be further than {LONGEST:.0f} mm from the module's corner", "dx")
    return graphic.model_copy(update={"x": x, "y": y})


@carry_out.register
def handle_turn_items(command: TurnItems, design: Design, catalogue: Catalogue) -> Design:
    placed = placed_functions(design, command.functions)
    changed = {f.id: f.model_copy(update={"place": moved_place(place, 0, 0, command.by)}) for f, place in placed}
    return with_functions(design, changed)


@carry_out.register
def handle_remove_items(command: RemoveItems, design: Design, catalogue: Catalogue) -> Design:
    placed = placed_functions(design, command.functions)
    return with_functions(design, {f.id: f.model_copy(update={"place": None}) for f, _ in placed})


@carry_out.register
def handle_set_pocket(command: SetPocket, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return with_functions(design, {function.id: function.model_copy(update={"pocket": command.depth})})
