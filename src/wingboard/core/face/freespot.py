"""Where the next part of the tray is put down: in the row of its group, in the first place where no rule is broken."""

from __future__ import annotations

import itertools
import math
from typing import NamedTuple

from wingboard.core.face.settle import Mover
from wingboard.core.quantity import TOUCH
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

STEP = 5.0
"""Places are tried so far apart (mm) at the least."""
TRIES = 220
"""Places that are tried all over the plate; a plate too large for that in steps of :data:`STEP` is tried coarsely."""
COLUMNS = 8
"""So many columns of a group are continued in a row of their own."""


Place = tuple[float, float]
Box = tuple[float, float, float, float]


class Spot(NamedTuple):
    """A place on a module (mm), and whether every rule holds there."""

    x: float
    y: float
    free: bool


def free_spot(r: Resolved, placed: Placed) -> Spot:
    """The place for a part that breaks no rule: in the row of the last of its group, else in a row beneath or above it
    in the columns of the group, else the nearest to it (or, for the first, to the plate's middle).

    :param placed: the part, wherever it stands on the module that it shall be on; what it stands on now does not count.
    :returns: where no such place is found, the one that breaks rules by the least.
    """
    module = r.modules[placed.place.module]
    x0, y0, x1, y1 = module.area.bounds
    mates = [p for p in module.placed if p.number != placed.number and p.function.group == placed.function.group]
    anchor = (mates[-1].place.x, mates[-1].place.y) if mates else ((x0 + x1) / 2, (y0 + y1) / 2)
    coarse = max(STEP, math.sqrt((x1 - x0) * (y1 - y0) / TRIES))
    mover = Mover(r, placed)
    best, worst = _first_free(mover, placed, _in_line((x0, y0, x1, y1), mates)) if mates else (anchor, math.inf)
    if worst > TOUCH:
        found = _first_free(mover, placed, _places((x0, y0, x1, y1), anchor, coarse))
        best, worst = min((best, worst), found, key=lambda f: f[1])
    if worst > TOUCH and coarse > STEP:
        x, y = best
        around = (max(x0, x - coarse), max(y0, y - coarse), min(x1, x + coarse), min(y1, y + coarse))
        finer, left = _first_free(mover, placed, _places(around, best, STEP))
        best, worst = (finer, left) if left < worst else (best, worst)
    return Spot(*best, free=worst <= TOUCH)


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


def _in_line(box: Box, mates: list[Placed]) -> list[Place]:
    """Places in the row of the last of a group, the nearest first, then in new rows under its columns."""
    x0, y0, x1, y1 = box
    last, first = mates[-1].place, mates[0].place
    row = sorted(((x, last.y) for x in _steps(x0, x1, last.x, STEP)), key=lambda s: (abs(s[0] - last.x), -s[0]))
    columns = list(dict.fromkeys(p.place.x for p in (mates[0], *reversed(mates))))[:COLUMNS]
    columns.sort(key=lambda x: abs(x - first.x))
    heights = sorted(_steps(y0, y1, last.y, STEP), key=lambda y: (abs(y - last.y), y))
    return [*row, *((x, y) for y in heights for x in columns)]


def _places(box: Box, anchor: Place, step: float) -> list[Place]:
    """The places of a grid through the anchor, inside a box, the nearest to the anchor first."""
    x0, y0, x1, y1 = box
    found = itertools.product(_steps(x0, x1, anchor[0], step), _steps(y0, y1, anchor[1], step))
    return sorted(found, key=lambda spot: (math.dist(spot, anchor), spot)) or [anchor]


def _steps(low: float, high: float, at: float, step: float) -> list[float]:
    """Coordinates in whole steps from ``at``, inside the two."""
    first, last = math.ceil((low - at) / step), math.floor((high - at) / step)
    return [round(at + n * step, 1) for n in range(first, last + 1)]
