"""Putting several parts in order, mirrored pairs, locks and copies."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from wingboard.core.changes.arranging import ArrangedPart, arranged, swapped
from wingboard.core.changes.commands.arrange import Arrange, CopyItems, LockItems, PairMirrored, SwapGroups, UnpairItems
from wingboard.core.changes.handlers.places import moved_graphic, moved_place, placed_functions
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    find_function,
    find_module,
    found,
    free_ident,
    with_changes,
    with_functions,
)
from wingboard.core.geometry.outline import area_of
from wingboard.core.quantity import LONGEST
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Function, Place, emergency
from wingboard.core.record.legends import Graphic
from wingboard.core.record.limits import LIMITS
from wingboard.core.record.part import Part


def _spots(design: Design, idents: Sequence[str]) -> list[ArrangedPart]:
    parts = {p.id: p for p in design.parts}
    found = []
    for function, place in placed_functions(design, idents):
        x0, y0, x1, y1 = parts[function.part or ""].covered().turned(place.turn).bounds
        room = _room(design, function, parts[function.part or ""])
        found.append(ArrangedPart(function.id, place.x, place.y, place.turn, -x0, x1, -y0, y1, room))
    if len({f.place.module for f in design.functions if f.place and f.id in set(idents)}) > 1:
        raise NotPossible(
            "These parts are on different modules; put one module's parts in order at a time", "functions"
        )
    return found


def _room(design: Design, function: Function, part: Part) -> float:
    """What a hand wants beside a control of this kind (mm, the design's limits); untouched things count as buttons."""
    kind = part.hand.kind if part.hand else "button"
    own = {choice.limit: choice.value for choice in design.limits}

    def limit(name: str) -> float:
        return own.get(name, LIMITS[name].value)

    if emergency(function, part):
        usual = "button" if kind == "emergency" else kind
        return limit(f"{usual}-spacing") * limit("emergency-factor")
    return limit(f"{kind}-spacing")


def _at(design: Design, spots: Iterable[ArrangedPart]) -> Design:
    by_id = {f.id: f for f in design.functions}
    changed = {}
    for spot in spots:
        place = by_id[spot.id].place
        if place is None:
            continue
        if max(abs(spot.x), abs(spot.y)) > LONGEST:
            raise NotPossible(f"That would be further than {LONGEST:.0f} mm from the module's corner", "functions")
        turned = {"x": round(spot.x, 4), "y": round(spot.y, 4), "turn": round(spot.turn % 360, 4)}
        changed[spot.id] = by_id[spot.id].model_copy(update={"place": place.model_copy(update=turned)})
    return with_functions(design, changed)


@carry_out.register
def handle_arrange(command: Arrange, design: Design, catalogue: Catalogue) -> Design:
    spots = _spots(design, command.functions)
    first = next(f for f in design.functions if f.id == spots[0].id)
    plate = area_of(find_module(design, first.place.module).outline.loop()).bounds if first.place else (0, 0, 0, 0)
    return _at(design, arranged(spots, command, plate))


@carry_out.register
def handle_swap_groups(command: SwapGroups, design: Design, catalogue: Catalogue) -> Design:
    if set(command.first) & set(command.second):
        raise NotPossible("A part cannot be in both groups", "second")
    spots = _spots(design, (*command.first, *command.second))
    first = set(command.first)
    return _at(design, swapped([s for s in spots if s.id in first], [s for s in spots if s.id not in first]))


def mirror_place(design: Design, function: Function) -> Place:
    """The mirror image of a function's place about the middle of its module.

    :raises NotPossible: it is not placed.
    """
    place = function.place
    if place is None:
        raise NotPossible(f"“{function.name}” is not placed yet", "first")
    x0, _, x1, _ = area_of(find_module(design, place.module).outline.loop()).bounds
    turned = round((-place.turn) % 360, 4)
    return place.model_copy(update={"x": round(x0 + x1 - place.x, 4), "turn": turned})


@carry_out.register
def handle_pair_mirrored(command: PairMirrored, design: Design, catalogue: Catalogue) -> Design:
    if command.first == command.second:
        raise NotPossible("A pair is two functions", "second")
    first, second = find_function(design, command.first, "first"), find_function(design, command.second, "second")
    if second.part is None:
        raise NotPossible(f"Choose a part for “{second.name}” first", "second")
    if second.locked:
        raise NotPossible(f"“{second.name}” is locked where it is", "second")
    paired = {"place": mirror_place(design, first), "pair": first.id}
    return with_functions(design, {second.id: second.model_copy(update=paired)})


@carry_out.register
def handle_unpair_items(command: UnpairItems, design: Design, catalogue: Catalogue) -> Design:
    found = [find_function(design, ident, "functions") for ident in command.functions]
    return with_functions(design, {f.id: f.model_copy(update={"pair": None}) for f in found})


@carry_out.register
def handle_lock_items(command: LockItems, design: Design, catalogue: Catalogue) -> Design:
    found = placed_functions(design, command.functions, even_locked=True)
    return with_functions(design, {f.id: f.model_copy(update={"locked": command.locked}) for f, _ in found})


@carry_out.register
def handle_copy_items(command: CopyItems, design: Design, catalogue: Catalogue) -> Design:
    if not command.functions and not command.graphics:
        raise NotPossible("Say what is to be copied", "functions")
    made: list[Function] = []
    for function, place in placed_functions(design, command.functions, even_locked=True):
        taken = [f.id for f in (*design.functions, *made)]
        names = {f.name for f in (*design.functions, *made)}
        changes = {
            "id": free_ident(taken, "f"),
            "name": _next_name(function.name, names),
            "place": moved_place(place, command.dx, command.dy, 0),
            "locked": False,
            "pair": None,
        }
        made.append(function.model_copy(update=changes))
    drawn = _copied_graphics(design, command)
    return with_changes(design, functions=(*design.functions, *made), graphics=(*design.graphics, *drawn))


def _copied_graphics(design: Design, command: CopyItems) -> list[Graphic]:
    made: list[Graphic] = []
    for ident in dict.fromkeys(command.graphics):
        graphic = found(design.graphics, ident, "graphic", "graphics")
        taken = [g.id for g in (*design.graphics, *made)]
        new = free_ident(taken, f"{graphic.kind}-")
        made.append(moved_graphic(graphic, command.dx, command.dy).model_copy(update={"id": new}))
    return made


def _next_name(name: str, taken: set[str]) -> str:
    n = 2
    while f"{name[:110]} {n}" in taken:
        n += 1
    return f"{name[:110]} {n}"
