"""Finding the smallest move that settles a clash without making another of any kind."""

from __future__ import annotations

import math
from collections.abc import Iterator

from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.face.freespot import nearest_free
from wingboard.core.face.mover import Mover, Shortfalls
from wingboard.core.findings.finding import Fix
from wingboard.core.quantity import TOUCH
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

FARTHEST = 60.0
"""No fix moves a part further than this (mm)."""
_WAYS = {"right": (1, 0), "left": (-1, 0), "up": (0, 1), "down": (0, -1)}


def move_to_settle(r: Resolved, candidates: list[Placed], *kinds: str) -> Iterator[Fix]:
    """Moves right, left, up or down of one of the candidates after which these kinds of rule hold.

    Those along the row or column that a part stands in come first, then the shortest; last, for a part that stands in
    neither, the nearest place where every rule holds.

    :param kinds: fields of :class:`~wingboard.core.face.mover.Shortfalls`.
    :returns: none where every such move would run into something else, or further than :data:`FARTHEST`.
    """
    found: list[tuple[bool, float, Fix]] = []
    movable = [c for c in reversed(candidates) if not c.function.locked]
    for placed in movable:
        mover = Mover(r, placed)
        before = mover.shortfalls(0, 0)
        level, upright = lines_of(r, placed)
        for way, (sx, sy) in _WAYS.items():
            distance = _shortest(mover, before, kinds, sx, sy, FARTHEST)
            if distance is not None:
                leaves = (level and sy != 0) or (upright and sx != 0)
                found.append((leaves, distance, _moved(placed, distance, way)))
    yield from (fix for _, _, fix in sorted(found, key=lambda option: option[:2])[:MOST_MOVES])
    for placed in movable:
        if lines_of(r, placed) == (False, False):
            there = nearest_free(Mover(r, placed))
            if there is not None:
                yield _put(placed, there)


MOST_MOVES = 4
"""So many moves are proposed at most."""
IN_LINE = 0.05
"""Parts whose centres differ by no more (mm) stand in one row, or one column; three make one."""


def lines_of(r: Resolved, placed: Placed) -> tuple[bool, bool]:
    """Whether a part stands in a row, and in a column, with two others of its module at least."""
    others = [p.place for p in r.modules[placed.place.module].placed if p.number != placed.number]
    row = sum(abs(p.y - placed.place.y) <= IN_LINE for p in others)
    column = sum(abs(p.x - placed.place.x) <= IN_LINE for p in others)
    return row >= 2, column >= 2


def _put(placed: Placed, there: tuple[float, float]) -> Fix:
    x, y = there
    command = MoveItems(
        functions=(placed.function.id,), dx=round(x - placed.place.x, 2), dy=round(y - placed.place.y, 2)
    )
    return Fix(label=f"Move {placed.function.name} to x {x:.1f}, y {y:.1f}", commands=(command,))


def _moved(placed: Placed, distance: float, way: str) -> Fix:
    sx, sy = _WAYS[way]
    command = MoveItems(functions=(placed.function.id,), dx=round(sx * distance, 2), dy=round(sy * distance, 2))
    return Fix(label=f"Move {placed.function.name} {distance:.1f} mm {way}", commands=(command,))


def _shortest(
    mover: Mover, before: Shortfalls, kinds: tuple[str, ...], sx: int, sy: int, farthest: float
) -> float | None:
    distance = max(0.1, *(_up(getattr(before, kind)) for kind in kinds))
    for _ in range(8):
        if distance > farthest:
            return None
        after = mover.shortfalls(sx * distance, sy * distance)
        left = max(getattr(after, kind) for kind in kinds)
        if left <= TOUCH:
            return distance if after.no_worse_than(before) else None
        distance = round(distance + max(0.1, _up(left)), 2)
    return None


def _up(value: float) -> float:
    return math.ceil(round(min(max(value, 0.0), 1e4) * 10, 6)) / 10
