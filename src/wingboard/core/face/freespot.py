"""Where the next part of the tray is put down: in rows, as one writes, where no rule is broken."""

from __future__ import annotations

import itertools
import math
from typing import NamedTuple

from wingboard.core.face.mover import Mover
from wingboard.core.quantity import TOUCH
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

STEP = 5.0
"""Places are tried so far apart (mm) at the least."""
TRIES = 220
"""Places that are tried all over the plate; a plate too large for that in steps of :data:`STEP` is tried coarsely."""
COLUMNS = 8
"""A new row is free under so many parts of the row before it."""
NEAR = 40.0
"""A place is near a part up to this far right or left, up or down (mm)."""
MARGIN = 15.0
"""The first row begins so far from the edges (mm), or a tenth of the height where that is more."""


Place = tuple[float, float]
Box = tuple[float, float, float, float]


class Spot(NamedTuple):
    """A place on a module (mm), and whether every rule holds there."""

    x: float
    y: float
    free: bool


def free_spot(r: Resolved, placed: Placed) -> Spot:
    """The place for a part that breaks no rule: right of the last of its group, left of it, else in a new row beneath
    the group, or above it. A new group begins a row beneath what there is, the first of all a row at the upper left,
    or where nothing waits after it, the middle. Where rows have no room, the nearest place that has.

    :param placed: the part, wherever it stands on the module that it shall be on; what it stands on now does not count.
    :returns: where no such place is found, the one that breaks rules by the least.
    """
    module = r.modules[placed.place.module]
    box = module.area.bounds
    others = [p for p in module.placed if p.number != placed.number]
    mates = [p for p in others if p.function.group == placed.function.group]
    mover = Mover(r, placed)
    best, worst = _middle(box), math.inf
    if others or any(f.place is None and f.part is not None for f in r.design.functions):
        best, worst = _in_rows(mover, placed, box, mates, others)
    if worst > TOUCH:
        x0, y0, x1, y1 = box
        anchor = (mates[-1].place.x, mates[-1].place.y) if mates else _middle(box)
        coarse = max(STEP, math.sqrt((x1 - x0) * (y1 - y0) / TRIES))
        found = _first_free(mover, placed, _places(box, anchor, coarse))
        best, worst = min((best, worst), found, key=lambda f: f[1])
        if worst > TOUCH and coarse > STEP:
            x, y = best
            around = (max(x0, x - coarse), max(y0, y - coarse), min(x1, x + coarse), min(y1, y + coarse))
            finer, left = _first_free(mover, placed, _places(around, best, STEP))
            best, worst = (finer, left) if left < worst else (best, worst)
    return Spot(*best, free=worst <= TOUCH)


def nearest_free(mover: Mover) -> Place | None:
    """The nearest place where every rule holds, in steps of :data:`STEP` from where a part stands or in line with one.

    :returns: none where there is no such place no further away than :data:`NEAR`, right or left, up or down.
    """
    at = mover.placed.place
    x0, y0, x1, y1 = mover.module.area.bounds
    others = [p.place for p in mover.module.placed if p.number != mover.placed.number]
    near = [p for p in others if abs(p.x - at.x) <= NEAR and abs(p.y - at.y) <= NEAR]
    xs = {*_steps(max(x0, at.x - NEAR), min(x1, at.x + NEAR), at.x, STEP), *(p.x for p in near)}
    ys = {*_steps(max(y0, at.y - NEAR), min(y1, at.y + NEAR), at.y, STEP), *(p.y for p in near)}
    places = sorted(itertools.product(xs, ys), key=lambda spot: (math.dist(spot, (at.x, at.y)), spot))
    place, missing = _first_free(mover, mover.placed, places) if places else ((at.x, at.y), math.inf)
    return place if missing <= TOUCH else None


def _in_rows(mover: Mover, placed: Placed, box: Box, mates: list[Placed], others: list[Placed]) -> tuple[Place, float]:
    """The first free place in the row of the last mate, else in a new row; and by how much rules are broken (mm)."""
    x0, y0, x1, y1 = box
    margin = max(MARGIN, (y1 - y0) / 10)
    found = _first_free(mover, placed, _beside(mates[-1], x0, x1)) if mates else (_middle(box), math.inf)
    if found[1] <= TOUCH:
        return found
    if not others:
        starts = itertools.product(
            _steps(y0, y1 - margin, y1 - margin, STEP)[::-1], _steps(x0 + margin, x1, x0 + margin, STEP)[:COLUMNS]
        )
        return _first_free(mover, placed, [(x, y) for y, x in starts])
    near = mates or others
    left = min(p.place.x for p in near)
    lowest, highest = min(p.place.y for p in near), max(p.place.y for p in near)
    last = mates[-1].place.y if mates else lowest
    columns = sorted({p.place.x for p in near if abs(p.place.y - last) < STEP} | {left})[:COLUMNS]
    beneath = [y for y in _steps(y0, y1, lowest, STEP) if y < lowest][::-1]
    above = [y for y in _steps(y0, y1, highest, STEP) if y > highest]
    spare = found
    for y in (*beneath, *above):
        spot = _first_free(mover, placed, [(left, y)])
        if spot[1] <= TOUCH and all(_first_free(mover, placed, [(x, y)])[1] <= TOUCH for x in columns):
            return spot
        spare = spot if spot[1] <= TOUCH < spare[1] else spare
    return spare


def _middle(box: Box) -> Place:
    return (box[0] + box[2]) / 2, (box[1] + box[3]) / 2


def _first_free(mover: Mover, placed: Placed, places: list[Place]) -> tuple[Place, float]:
    """The first place at which no rule is broken, or the one where they are by the least; and by how much (mm)."""
    best, worst = places[0], math.inf
    for x, y in places:
        missing = max(mover.shortfalls(x - placed.place.x, y - placed.place.y))
        if missing < worst:
            best, worst = (x, y), missing
        if missing <= TOUCH:
            break
    return best, worst


def _beside(last: Placed, x0: float, x1: float) -> list[Place]:
    """Places in the row of a part, those to its right first, the nearest before the others."""
    x, y = last.place.x, last.place.y
    steps = _steps(x0, x1, x, STEP)
    return [(s, y) for s in (*(s for s in steps if s > x), *reversed([s for s in steps if s < x]))]


def _places(box: Box, anchor: Place, step: float) -> list[Place]:
    """The places of a grid through the anchor, inside a box, the nearest to the anchor first."""
    x0, y0, x1, y1 = box
    found = itertools.product(_steps(x0, x1, anchor[0], step), _steps(y0, y1, anchor[1], step))
    return sorted(found, key=lambda spot: (math.dist(spot, anchor), spot)) or [anchor]


def _steps(low: float, high: float, at: float, step: float) -> list[float]:
    """Coordinates in whole steps from ``at``, inside the two."""
    first, last = math.ceil((low - at) / step), math.floor((high - at) / step)
    return [round(at + n * step, 1) for n in range(first, last + 1)]
