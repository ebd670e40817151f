"""Where placed parts come to stand when they are put in order. Pure arithmetic over centres and covered widths (mm)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.changes.commands.arrange import Arrange
from wingboard.core.record.errors import NotPossible


class ArrangedPart(NamedTuple):
    """A part: its centre, its turn, how far what covers the face reaches from the centre each way, and the room (mm)
    that a hand wants between two of its kind.
    """

    id: str
    x: float
    y: float
    turn: float
    left: float
    right: float
    down: float
    up: float
    room: float = 0.0


Bounds = tuple[float, float, float, float]
EVERYWHERE: Bounds = (-math.inf, -math.inf, math.inf, math.inf)


def arranged(spots: Sequence[ArrangedPart], asked: Arrange, plate: Bounds = EVERYWHERE) -> tuple[ArrangedPart, ...]:
    """The parts at their new places, in the order given.

    :param plate: least x and y, greatest x and y (mm) of their module: a row, a column and a grid stay on it where
        they fit, if need be by growing the other way.
    :raises NotPossible: fewer than two parts (three to distribute), or an arc without a radius.
    """
    if len(spots) < 2 and asked.how != "mirror":
        raise NotPossible("Select two or more placed parts", "functions")
    if asked.how in ("row", "column") and not asked.pitch and asked.order == "place":
        return _kept_on(_between(spots, asked.how), plate)
    if asked.how in ("row", "column", "grid"):
        return _kept_on(_grid(spots, asked), plate)
    if asked.how in ("arc", "ring"):
        return _arc(spots, asked)
    if asked.how.startswith("align"):
        return _aligned(spots, asked.how)
    if asked.how == "mirror":
        return mirrored(spots)
    return _spread(spots, asked.how)


def _grid(spots: Sequence[ArrangedPart], asked: Arrange) -> tuple[ArrangedPart, ...]:
    lead = spots[0]
    columns = {"row": len(spots), "column": 1}.get(asked.how, asked.columns)
    pitch_x = asked.pitch or _usual(spots, 0)
    pitch_y = asked.pitch_y or asked.pitch or _usual(spots, 1)
    return tuple(
        s._replace(x=lead.x + n % columns * pitch_x, y=lead.y - n // columns * pitch_y) for n, s in enumerate(spots)
    )


def _between(spots: Sequence[ArrangedPart], how: str) -> tuple[ArrangedPart, ...]:
    """In a line as they stand, level with the leader: the first stays, and the last where there is room enough.

    Between two neighbours there is what their kinds want, and an equal share of what is left over.
    """
    across = how == "row"
    ordered = sorted(spots, key=lambda s: s.x if across else -s.y)
    reach = [(s.left, s.right) if across else (s.up, s.down) for s in ordered]
    rooms = [max(a.room, b.room) for a, b in pairwise(ordered)]
    steps = [a[1] + room + b[0] for (a, b), room in zip(pairwise(reach), rooms, strict=True)]
    far = ordered[-1].x - ordered[0].x if across else ordered[0].y - ordered[-1].y
    spare = max(far - sum(steps), 0.0) / len(steps)
    ways = {s.id: sum(steps[:n]) + n * spare for n, s in enumerate(ordered)}
    first, lead = ordered[0], spots[0]
    if across:
        return tuple(s._replace(x=first.x + ways[s.id], y=lead.y) for s in spots)
    return tuple(s._replace(x=lead.x, y=first.y - ways[s.id]) for s in spots)


def _usual(spots: Sequence[ArrangedPart], axis: int) -> float:
    """A pitch that keeps the room each two neighbours want between what covers the face, whichever wants more."""
    reach = [(s.left, s.right) if axis == 0 else (s.up, s.down) for s in spots]
    beside = zip(spots, reach, spots[1:], reach[1:], strict=False)
    return math.ceil(max(max(a.room, b.room) + at[1] + to[0] for a, at, b, to in beside))


def _kept_on(spots: Sequence[ArrangedPart], plate: Bounds) -> tuple[ArrangedPart, ...]:
    """The parts together moved back onto the plate, as far as they fit on it; else where they are."""
    left, right = min(s.x - s.left for s in spots), max(s.x + s.right for s in spots)
    low, high = min(s.y - s.down for s in spots), max(s.y + s.up for s in spots)
    dx = _shift(left, right, plate[0], plate[2])
    dy = _shift(low, high, plate[1], plate[3])
    return tuple(s._replace(x=s.x + dx, y=s.y + dy) for s in spots)


def _shift(least: float, most: float, begin: float, end: float) -> float:
    """How far something from ``least`` to ``most`` has to go to lie between ``begin`` and ``end``; 0 if it cannot."""
    if most - least > end - begin:
        return 0.0
    return max(begin - least, 0.0) or min(end - most, 0.0)


def _arc(spots: Sequence[ArrangedPart], asked: Arrange) -> tuple[ArrangedPart, ...]:
    if asked.radius <= 0:
        raise NotPossible("An arc needs a radius", "radius")
    cx, cy = _middle(spots)
    if asked.how == "ring":
        step, start = -360 / len(spots), 90.0
    else:
        step, start = (asked.end - asked.start) / (len(spots) - 1), asked.start
        cy -= asked.radius
    return tuple(
        s._replace(
            x=cx + asked.radius * math.cos(math.radians(start + n * step)),
            y=cy + asked.radius * math.sin(math.radians(start + n * step)),
        )
        for n, s in enumerate(spots)
    )


def _middle(spots: Sequence[ArrangedPart]) -> tuple[float, float]:
    xs, ys = [s.x for s in spots], [s.y for s in spots]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


def _aligned(spots: Sequence[ArrangedPart], how: str) -> tuple[ArrangedPart, ...]:
    lead = spots[0]
    if how == "align-x":
        return tuple(s._replace(x=lead.x) for s in spots)
    if how == "align-y":
        return tuple(s._replace(y=lead.y) for s in spots)
    if how in ("align-left", "align-right"):
        side = -1 if how == "align-left" else 1
        edge = lead.x + side * (lead.left if side < 0 else lead.right)
        return tuple(s._replace(x=edge - side * (s.left if side < 0 else s.right)) for s in spots)
    side = -1 if how == "align-bottom" else 1
    edge = lead.y + side * (lead.down if side < 0 else lead.up)
    return tuple(s._replace(y=edge - side * (s.down if side < 0 else s.up)) for s in spots)


def _spread(spots: Sequence[ArrangedPart], how: str) -> tuple[ArrangedPart, ...]:
    """Between the outermost two, which stay: equal centre distances, or equal gaps between what covers the face."""
    if len(spots) < 3:
        raise NotPossible("Select three or more: the outer two stay, the others are spread", "functions")
    across = how.endswith("x")
    ordered = sorted(spots, key=lambda s: s.x if across else s.y)
    places: dict[str, float] = {}
    first, last = ordered[0], ordered[-1]
    begin, finish = (first.x, last.x) if across else (first.y, last.y)
    if how.startswith("pitch"):
        step = (finish - begin) / (len(ordered) - 1)
        places = {s.id: begin + n * step for n, s in enumerate(ordered)}
    else:
        reach = [(s.left, s.right) if across else (s.down, s.up) for s in ordered]
        taken = reach[0][1] + reach[-1][0] + sum(a + b for a, b in reach[1:-1])
        gap = (finish - begin - taken) / (len(ordered) - 1)
        at = begin
        for n, s in enumerate(ordered):
            at = begin if n == 0 else at + reach[n - 1][1] + gap + reach[n][0]
            places[s.id] = at
    return tuple(s._replace(x=places[s.id]) if across else s._replace(y=places[s.id]) for s in spots)


def mirrored(spots: Sequence[ArrangedPart]) -> tuple[ArrangedPart, ...]:
    """Left for right about the middle of the centres; a turn becomes its opposite. Twice is itself."""
    cx, _ = _middle(spots)
    return tuple(s._replace(x=2 * cx - s.x, turn=(-s.turn) % 360) for s in spots)


def swapped(first: Sequence[ArrangedPart], second: Sequence[ArrangedPart]) -> tuple[ArrangedPart, ...]:
    """Both sets moved so that the middle of each comes to the middle of the other. Twice is itself."""
    (ax, ay), (bx, by) = _middle(first), _middle(second)
    moved = [s._replace(x=s.x + bx - ax, y=s.y + by - ay) for s in first]
    return (*moved, *(s._replace(x=s.x + ax - bx, y=s.y + ay - by) for s in second))
