"""Chains of holes inside large openings, to be sawn through and filed to the line: common practice. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

import numpy as np
import shapely
from shapely import LinearRing, LineString, Polygon

from wingboard.core.cut.beside import across, polygons, region_of
from wingboard.core.files.scene import CirclePath, Item

BITS = (5.0, 4.0, 3.0)
"""Diameters of the holes of a chain: the first that goes up one side of the opening and down the other."""
WITHIN = 1.0
"""They stay so far inside the line, which is filed to."""
SKIN = 1.0
"""Left between two of them, to be broken or sawn through."""
CORNER = math.radians(30)
"""A turn by more than this is a corner, which has a hole of its own …"""
ROUNDED = 0.1
"""… even where it is rounded, but by less than this (mm)."""


def chain(item: Item) -> tuple[CirclePath, ...]:
    """Holes along the inside of an opening, to be sawn through and filed to its line; none where it is too narrow.

    One in each corner, the others evenly between; none so near to another that the bit would run into it. A slot has
    one row along its middle.
    """
    opening = region_of([item])
    for bit in BITS:
        inner = opening.buffer(-(WITHIN + bit / 2), quad_segs=32)
        if not inner.is_empty and all(across(part) >= bit + SKIN / 2 for part in polygons(inner)):
            runs = [run for part in polygons(inner) for run in _between_corners(part.exterior)]
            return _holes(runs, bit, closed=True)
    for bit in BITS:
        inner = opening.buffer(-(WITHIN + bit / 2), quad_segs=32)
        if not inner.is_empty:
            return _holes([_middle(part) for part in polygons(inner)], bit, closed=False)
    return ()


def _holes(runs: list[LineString], bit: float, closed: bool) -> tuple[CirclePath, ...]:
    """Holes along runs, one at the start of each; at the ends of open ones as well."""
    kept: list[tuple[float, float]] = []
    for run in runs:
        many = max(1, math.floor(run.length / (bit + SKIN)))
        for k in range(many + (not closed)):
            spot = run.interpolate(run.length * k / many)
            if all(math.dist((spot.x, spot.y), other) >= bit + SKIN / 2 for other in kept):
                kept.append((spot.x, spot.y))
    return tuple(CirclePath(x, y, bit) for x, y in kept)


def _middle(part: Polygon) -> LineString:
    """The line along the middle of a narrow shape."""
    around = shapely.minimum_rotated_rectangle(part)
    if not isinstance(around, Polygon):
        spots = shapely.get_coordinates(around)
        return LineString([spots[0], spots[-1] + 1e-9])
    a, b, c, d = shapely.get_coordinates(around.exterior)[:4]
    if math.dist(a, b) > math.dist(b, c):
        a, b, c, d = b, c, d, a
    return LineString([(a + b) / 2, (c + d) / 2])


def _between_corners(ring: LinearRing) -> Iterator[LineString]:
    """A ring in the runs between its corners, whole where it has none."""
    points = np.array(ring.simplify(ROUNDED).coords)[:-1]
    ahead, behind = np.roll(points, -1, axis=0) - points, points - np.roll(points, 1, axis=0)
    turn = np.arctan2(behind[:, 0] * ahead[:, 1] - behind[:, 1] * ahead[:, 0], (ahead * behind).sum(axis=1))
    corners = np.flatnonzero(np.abs(turn) > CORNER).tolist() or [0]
    for start, end in pairwise([*corners, corners[0] + len(points)]):
        yield LineString([points[n % len(points)] for n in range(start, end + 1)])
