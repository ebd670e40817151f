"""Where the next part of the tray is put down: beside its group, in the first place where no rule is broken."""

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


Place = tuple[float, float]


class Spot(NamedTuple):
    """A place on a module (mm), and whether every rule holds there."""

    x: float
    y: float
    free: bool


def free_spot(r: Resolved, placed: Placed) -> Spot:
    """The place for a part that is nearest to the last of its group (or to the plate's middle) and breaks no rule.

    :param placed: the part, wherever it stands on the module that it shall be on; what it stands on now does not count.
    :returns: where no such place is found, the one that breaks rules by the least.
    """
    module = r.modules[placed.place.module]
    x0, y0, x1, y1 = module.area.bounds
    mates = [p for p in module.placed if p.number != placed.number and p.function.group == placed.function.group != ""]
    anchor = (mates[-1].place.x, mates[-1].place.y) if mates else ((x0 + x1) / 2, (y0 + y1) / 2)
    coarse = max(STEP, math.sqrt((x1 - x0) * (y1 - y0) / TRIES))
    mover = Mover(r, placed)
    best, worst = _first_free(mover, placed, _places((x0, y0, x1, y1), anchor, coarse))
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


def _places(box: tuple[float, float, float, float], anchor: Place, step: float) -> list[Place]:
    """The places of a grid through the anchor, inside a box, the nearest to the anchor first."""
    x0, y0, x1, y1 = box
    found = itertools.product(_steps(x0, x1, anchor[0], step), _steps(y0, y1, anchor[1], step))
    return sorted(found, key=lambda spot: (math.dist(spot, anchor), spot)) or [anchor]


def _steps(low: float, high: float, at: float, step: float) -> list[float]:
    """Coordinates in whole steps from ``at``, inside the two."""
    first, last = math.ceil((low - at) / step), math.floor((high - at) / step)
    return [round(at + n * step, 1) for n in range(first, last + 1)]
