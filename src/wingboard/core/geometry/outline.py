"""Closed outlines whose edges are lines or arcs, written as points with bulges.

The bulge of an edge is the tangent of a quarter of its arc's angle, positive when the arc turns
counter-clockwise from its start to its end (DXF Reference, LWPOLYLINE, group code 42). A half circle has bulge 1.
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from shapely import Polygon

from wingboard.core.quantity import short

SAG = 0.002
"""How far (mm) a chord may stand off its arc where an arc has to become straight pieces."""


class Vertex(NamedTuple):
    """A corner (mm) and the bulge of the edge that leaves it."""

    x: float
    y: float
    bulge: float = 0.0


Loop = tuple[Vertex, ...]
Circular = tuple[float, float, float, float, float]
"""Centre x, centre y, radius (mm), start angle and signed sweep (radians) of an arc."""


def arc_of(start: Vertex, end: Vertex) -> Circular | None:
    """The arc that leaves ``start`` for ``end``.

    :returns: centre x, centre y, radius (mm), start angle and signed sweep (radians), or None for a straight edge.
    """
    chord = math.hypot(end.x - start.x, end.y - start.y)
    if abs(start.bulge) < 1e-9 or chord < 1e-12:
        return None
    b = start.bulge
    radius = chord * (1 + b * b) / (4 * abs(b))
    offset = chord * (1 - b * b) / (4 * b)
    nx, ny = -(end.y - start.y) / chord, (end.x - start.x) / chord
    cx, cy = (start.x + end.x) / 2 + nx * offset, (start.y + end.y) / 2 + ny * offset
    return cx, cy, radius, math.atan2(start.y - cy, start.x - cx), 4 * math.atan(b)


def flattened(loop: Loop, sag: float = SAG) -> list[tuple[float, float]]:
    """The loop as straight pieces no further than ``sag`` mm from it; not closed (no repeated first point)."""
    points: list[tuple[float, float]] = []
    for start, end in zip(loop, loop[1:] + loop[:1], strict=True):
        points.append((start.x, start.y))
        arc = arc_of(start, end) if start.bulge else None
        if arc is None:
            continue
        cx, cy, radius, _, sweep = arc
        step = 2 * math.acos(max(-1.0, 1 - sag / radius)) if radius > sag else math.pi / 4
        pieces = max(1, math.ceil(abs(sweep) / step))
        # The arm from the centre is turned on, piece by piece: two products for each instead of two angles.
        x, y, c, s = start.x - cx, start.y - cy, math.cos(sweep / pieces), math.sin(sweep / pieces)
        for _ in range(1, pieces):
            x, y = x * c - y * s, x * s + y * c
            points.append((cx + x, cy + y))
    return points


def area_of(loop: Loop) -> Polygon:
    """The region a loop encloses, as a shapely polygon within :data:`SAG` of the truth."""
    return Polygon(flattened(loop))


LONGEST_WAY = 100_000.0
"""No outline is longer all round than this (mm): enough for twenty times the longest side."""
LEAST_AREA = 1e-4
"""An outline that encloses less than this (mm²) encloses nothing."""


def way_round(loop: Loop) -> float:
    """The length (mm) of a loop's edges together."""
    edges = zip(loop, loop[1:] + loop[:1], strict=True)
    arcs = ((start, end, arc_of(start, end)) for start, end in edges)
    return math.fsum(
        abs(arc[2] * arc[4]) if arc else math.hypot(end.x - start.x, end.y - start.y) for start, end, arc in arcs
    )


def reversed_loop(loop: Loop) -> Loop:
    """The same outline walked the other way, from the same corner; twice is itself."""
    corners = (loop[0], *reversed(loop[1:]))
    bulges = [-v.bulge for v in reversed(loop)]
    return tuple(Vertex(v.x, v.y, bulge) for v, bulge in zip(corners, bulges, strict=True))


def simple_loop(loop: Loop) -> Loop:
    """The loop walked counter-clockwise, when it is an outline: it encloses something and does not cross itself.

    :raises ValueError: it is none, in words for the builder.
    """
    if not way_round(loop) <= LONGEST_WAY:
        raise ValueError(f"This outline is longer than {LONGEST_WAY / 1000:.0f} m all round")
    area = area_of(loop)
    if not area.is_valid:
        raise ValueError("This outline crosses or touches itself")
    if area.area < LEAST_AREA:
        raise ValueError("This outline encloses nothing")
    return loop if area.exterior.is_ccw else reversed_loop(loop)


def at_origin(loop: Loop) -> Loop:
    """The loop with its lower left corner at the origin, where it is not there already (to a micrometre)."""
    left, low, _, _ = area_of(loop).bounds
    return loop if max(abs(left), abs(low)) <= 1e-3 else moved(loop, -left, -low)


def rounded_rectangle(width: float, height: float, radius: float, x: float = 0.0, y: float = 0.0) -> Loop:
    """A rectangle with its lower left corner at (x, y), counter-clockwise, with circular corners (mm)."""
    r = min(radius, width / 2, height / 2)
    if r <= 0:
        return (Vertex(x, y), Vertex(x + width, y), Vertex(x + width, y + height), Vertex(x, y + height))
    q = math.tan(math.pi / 8)
    corners = (
        Vertex(x + r, y),
        Vertex(x + width - r, y, q),
        Vertex(x + width, y + r),
        Vertex(x + width, y + height - r, q),
        Vertex(x + width - r, y + height),
        Vertex(x + r, y + height, q),
        Vertex(x, y + height - r),
        Vertex(x, y + r, q),
    )
    return tuple(
        v
        for v, nxt in zip(corners, corners[1:] + corners[:1], strict=True)
        if v.bulge or math.hypot(nxt.x - v.x, nxt.y - v.y) > 1e-9
    )


def moved(loop: Loop, dx: float, dy: float) -> Loop:
    """The loop shifted by (dx, dy) mm."""
    return tuple(Vertex(v.x + dx, v.y + dy, v.bulge) for v in loop)


def turned(loop: Loop, degrees: float) -> Loop:
    """The loop turned counter-clockwise about the origin."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return tuple(Vertex(v.x * c - v.y * s, v.x * s + v.y * c, v.bulge) for v in loop)


def mirrored(loop: Loop, width: float) -> Loop:
    """The loop as seen from behind a module ``width`` mm wide; applying it twice gives the loop again."""
    flipped = [Vertex(width - v.x, v.y, 0.0) for v in reversed(loop)]
    bulges = [v.bulge for v in reversed(loop)]
    return tuple(Vertex(v.x, v.y, bulges[(i + 1) % len(bulges)]) for i, v in enumerate(flipped))


def svg_path(loop: Loop) -> str:
    """The loop as SVG path data in its own millimetres, y still upwards."""
    return f"{svg_way((*loop, loop[0]))}Z"


def svg_way(points: Loop) -> str:
    """The way from the first point to the last with its arcs, as SVG path data, not closed."""
    out = [f"M{short(points[0].x)} {short(points[0].y)}"]
    for start, end in pairwise(points):
        arc = arc_of(start, end) if start.bulge else None
        if arc:
            radius, large, counter = short(arc[2]), int(abs(arc[4]) > math.pi), int(arc[4] > 0)
            out.append(f"A{radius} {radius} 0 {large} {counter} {short(end.x)} {short(end.y)}")
        else:
            out.append(f"L{short(end.x)} {short(end.y)}")
    return "".join(out)


def svg_line(points: Loop) -> str:
    """Straight pieces from the first point to the last, as SVG path data, not closed; bulges are ignored."""
    return "M" + "L".join(f"{short(v.x)} {short(v.y)}" for v in points)
