"""What a written program really takes away, and whether that is what it should: the file is read and its tool swept.

Everything is in the sheet's coordinates (mm), seen from the side that is up; nothing of the planner is trusted.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import NamedTuple

import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import polygons
from wingboard.core.files.read_gcode import Moved
from wingboard.core.geometry.outline import Vertex, arc_of

STAYS = 0.02
"""Nothing that must stay is cut by more than this (mm)."""
GOES = 0.05
"""Nothing that must go is left wider than this (mm), but for tabs and what a round tool leaves in corners."""
ARC = 0.003
"""How far (mm) an arc may stand off the straight pieces it is swept by."""


class Swept(NamedTuple):
    """What the runs of some operations take away at and below a depth, and where a tab was left."""

    area: BaseGeometry
    tabs: BaseGeometry


def way_of(move: Moved) -> list[tuple[float, float, float]]:
    """A move as points, its arc in pieces; z falls evenly along it."""
    arc = arc_of(Vertex(move.x0, move.y0, move.bulge), Vertex(move.x1, move.y1))
    start, end = (move.x0, move.y0, move.z0), (move.x1, move.y1, move.z1)
    if arc is None:
        return [start, end]
    cx, cy, radius, angle, sweep = arc
    many = max(2, math.ceil(abs(sweep) / (2 * math.acos(max(-1.0, 1 - ARC / max(radius, ARC))))))
    points = [
        (
            cx + radius * math.cos(angle + sweep * k / many),
            cy + radius * math.sin(angle + sweep * k / many),
            move.z0 + (move.z1 - move.z0) * k / many,
        )
        for k in range(many + 1)
    ]
    points[0], points[-1] = start, end
    return points


def swept(moves: Iterable[Moved], width: float, below: float, laser: bool) -> Swept:
    """What a tool so wide takes away at a depth (``below``: z) or deeper; a laser wherever it burns.

    Tabs are where the tool goes on above that depth between two places where it was below, or the beam is off.
    """
    lines: list[list[tuple[float, float]]] = []
    tabs: list[list[tuple[float, float]]] = []
    line: list[tuple[float, float]] = []

    def end() -> None:
        nonlocal line
        if line:
            lines.append(line)
        line = []

    for move in moves:
        if move.rapid:
            end()
            continue
        points = way_of(move)
        if laser:
            if move.power > 0:
                line = line or [points[0][:2]]
                line += [p[:2] for p in points[1:]]
            else:
                end()
                tabs.append([p[:2] for p in points])
            continue
        for a, b in pairwise(points):
            part = _below(a, b, below)
            if part is None:
                end()
                if (a[0], a[1]) != (b[0], b[1]) and max(a[2], b[2]) <= 1e-9 and abs(a[2] - b[2]) < 1e-6:
                    tabs.append([a[:2], b[:2]])
                continue
            if not line or math.dist(line[-1], part[0]) > 1e-6:
                end()
                line = [part[0]]
            if math.dist(part[0], part[1]) > 1e-9:
                line.append(part[1])
    end()
    return Swept(_buffered(lines, width), _buffered(tabs, width))


def _below(
    a: tuple[float, float, float], b: tuple[float, float, float], z: float
) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """The part of a straight move that is at a depth or deeper."""
    deep_a, deep_b = a[2] <= z + 1e-6, b[2] <= z + 1e-6
    if deep_a and deep_b:
        return a[:2], b[:2]
    if not deep_a and not deep_b:
        return None
    t = (a[2] - z) / (a[2] - b[2])
    at = a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])
    return (a[:2], at) if deep_a else (at, b[:2])


def _buffered(lines: Sequence[Sequence[tuple[float, float]]], width: float) -> BaseGeometry:
    if not lines:
        return shapely.Polygon()
    shapes = [shapely.LineString(p) if len(p) > 1 else shapely.Point(p[0]) for p in lines]
    return shapely.union_all(shapely.buffer(shapes, width / 2, quad_segs=12))


class Fault(NamedTuple):
    """Where a program takes too much, or leaves something: by how much (mm), and where."""

    what: str
    by: float
    x: float
    y: float


def too_much(taken: BaseGeometry, stays: BaseGeometry) -> Fault | None:
    """The place at which what must stay is cut deepest, where that is deeper than :data:`STAYS`."""
    hurt = taken.intersection(stays)
    if hurt.is_empty or taken.intersection(stays.buffer(-STAYS)).area < 1e-6:
        return None
    low, high = STAYS, 64.0
    while high - low > 0.005:
        middle = (low + high) / 2
        if taken.intersection(stays.buffer(-middle)).area > 1e-6:
            low = middle
        else:
            high = middle
    at = taken.intersection(stays.buffer(-low)).representative_point()
    return Fault("cuts what must stay", high, at.x, at.y)


def left_over(sheet: BaseGeometry, taken: Swept, stays: BaseGeometry, reach: BaseGeometry) -> Fault | None:
    """What still hangs on a piece that was cut free, and should not: wider than :data:`GOES`.

    :param reach: the piece with what a round tool cannot reach in its corners.
    """
    rest = sheet.difference(taken.area).difference(taken.tabs.buffer(GOES))
    inner = stays.representative_point()
    mine = [p for p in polygons(rest) if p.distance(inner) < 1e-9]
    if not mine:
        return Fault("nothing of it is left", 0.0, inner.x, inner.y)
    extra = mine[0].difference(reach.buffer(GOES / 2, join_style="mitre"))
    extra = extra.buffer(-GOES / 4).buffer(GOES / 4)
    parts = polygons(extra)
    if not parts:
        return None
    worst = max(parts, key=lambda p: p.area)
    at = worst.representative_point()
    x0, y0, x1, y1 = worst.bounds
    return Fault("is still joined to what must go", min(x1 - x0, y1 - y0), at.x, at.y)
