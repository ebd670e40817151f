"""Where the screws of a module are: at the corners of its outline, moved in far enough, and where a hand put them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

import shapely
import shapely.ops

from wingboard.core.geometry.outline import Circular, Loop, Vertex, arc_of
from wingboard.core.record.modules import Fixings

SCREW_HOLE = {"M2": 2.4, "M2.5": 2.9, "M3": 3.4, "M4": 4.5, "M5": 5.5, "M6": 6.6}
"""Clearance holes, medium series (mm): ISO 273."""
SCREW_HEAD = {"M2": 4.0, "M2.5": 5.0, "M3": 6.0, "M4": 8.0, "M5": 10.0, "M6": 12.0}
"""Pan heads (mm), rounded up: ISO 7045, from memory. The nut behind is no wider across its corners, within 0.5 mm."""


class Fixing(NamedTuple):
    """A screw through every layer (mm)."""

    name: str
    x: float
    y: float
    hole: float
    head: float
    by_hand: str | None = None
    """Its id when a hand placed it; None for one of a corner."""


CORNER = 30.0
"""An outline that turns by at least so much (degrees) at a point has a corner there; less is part of a bend."""
SAME = 0.5
"""Two spots nearer than this (mm) are one."""
_DIAGONALS = ((-1, -1), (1, -1), (1, 1), (-1, 1))
_SECTORS = ("right", "upper right", "top", "upper left", "left", "lower left", "bottom", "lower right")
Spot = tuple[float, float]


def screws_of(wanted: Fixings | None, loop: Loop, area: shapely.Polygon) -> tuple[Fixing, ...]:
    """The screws of a plate: those at its corners unless they are not wanted, then those placed by hand.

    :param loop: the plate's outline, counter-clockwise; ``area`` is the same as a polygon.
    """
    if wanted is None:
        return ()
    hole, head = SCREW_HOLE[wanted.screw], SCREW_HEAD[wanted.screw]
    spots = corner_spots(loop, area, wanted.inset) if wanted.corners else ()
    made = [Fixing(name, x, y, hole, head) for name, (x, y) in zip(_names(spots, area), spots, strict=True)]
    return (*made, *(Fixing(f"screw {s.id}", s.x, s.y, hole, head, s.id) for s in wanted.by_hand))


def corner_spots(loop: Loop, area: shapely.Polygon, inset: float) -> tuple[Spot, ...]:
    """Where a screw goes in each corner of an outline, its middle ``inset`` mm from the edge all round.

    Of all places that far from the edge, the outermost ones along the four diagonals (so that a disc, or a plate
    rounded all round, has four) and those in the outline's own sharp corners (so that a triangle has three).
    """
    room = area.buffer(-inset + 1e-9)
    if room.is_empty:  # too small a plate: where they would be, so that they are found to cut the edge
        left, low, right, high = area.bounds
        xs, ys = {-1: left + inset, 1: right - inset}, {-1: low + inset, 1: high - inset}
        return tuple((xs[dx], ys[dy]) for dx, dy in _DIAGONALS)
    points = shapely.get_coordinates(room)
    wanted = [shapely.Point(points[(points @ diagonal).argmax()]) for diagonal in _DIAGONALS]
    wanted += [shapely.ops.nearest_points(room, shapely.Point(*corner))[0] for corner in sharp_corners(loop)]
    spots: list[Spot] = []
    for point in wanted:
        spot = (round(point.x, 3), round(point.y, 3))
        if all(math.dist(spot, other) > SAME for other in spots):
            spots.append(spot)
    return tuple(spots)


def sharp_corners(loop: Loop) -> tuple[Spot, ...]:
    """The points at which a counter-clockwise outline turns left by :data:`CORNER` or more."""
    edges = [(a, b, arc_of(a, b)) for a, b in pairwise((*loop, loop[0]))]
    found = []
    for before, after in zip((edges[-1], *edges), edges, strict=False):
        turn = math.degrees(_heading(after, at_end=False) - _heading(before, at_end=True))
        if (turn + 180) % 360 - 180 >= CORNER:
            found.append((after[0].x, after[0].y))
    return tuple(found)


def _heading(edge: tuple[Vertex, Vertex, Circular | None], at_end: bool) -> float:
    """The direction (radians) in which an edge leaves its start, or comes to its end: half its sweep off the chord."""
    a, b, arc = edge
    chord = math.atan2(b.y - a.y, b.x - a.x)
    half = arc[4] / 2 if arc else 0.0
    return chord + half if at_end else chord - half


def _names(spots: Sequence[Spot], area: shapely.Polygon) -> list[str]:
    """What a person calls the screws: by where they are on the plate, counted where two are in one place."""
    x0, y0, x1, y1 = area.bounds
    named: list[str] = []
    for x, y in spots:
        across, up = (2 * x - x0 - x1) / (x1 - x0), (2 * y - y0 - y1) / (y1 - y0)
        where = _SECTORS[round(math.degrees(math.atan2(up, across)) / 45) % 8]
        again = sum(name.startswith(f"{where} screw") for name in named)
        named.append(f"{where} screw {again + 1}" if again else f"{where} screw")
    return named
