"""Outlines made smaller all round, and cut at upright lines, their arcs staying arcs."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex, arc_of
from wingboard.core.quantity import TOUCH

Point = tuple[float, float]


class _Edge(NamedTuple):
    """A line from ``start`` to ``end``, or an arc about ``centre`` with its signed sweep (radians)."""

    start: Point
    end: Point
    centre: Point | None
    radius: float
    sweep: float


def inset(loop: Loop, by: float) -> Loop:
    """The counter-clockwise loop ``by`` mm smaller all round; every edge stays parallel to itself.

    :raises ValueError: it leaves nothing, or two edges no longer meet.
    """
    edges = [_moved_in(a, b, by) for a, b in zip(loop, loop[1:] + loop[:1], strict=True) if _long(a, b)]
    corners = [_meeting(edges[i - 1], edges[i]) for i in range(len(edges))]
    made = []
    for i, edge in enumerate(edges):
        start, end = corners[i], corners[(i + 1) % len(corners)]
        if _reversed(edge, start, end):
            raise ValueError(f"nothing is left of this outline {by:g} mm further in")
        made.append(Vertex(start[0], start[1], _bulge(edge, start, end)))
    return tuple(made)


def _long(a: Vertex, b: Vertex) -> bool:
    return math.hypot(b.x - a.x, b.y - a.y) > TOUCH


def _moved_in(a: Vertex, b: Vertex, by: float) -> _Edge:
    arc = arc_of(a, b)
    if arc is None:
        length = math.hypot(b.x - a.x, b.y - a.y)
        nx, ny = -(b.y - a.y) / length * by, (b.x - a.x) / length * by
        return _Edge((a.x + nx, a.y + ny), (b.x + nx, b.y + ny), None, 0.0, 0.0)
    cx, cy, radius, angle, sweep = arc
    smaller = radius - by if sweep > 0 else radius + by
    if smaller <= TOUCH:
        raise ValueError(f"an arc of radius {radius:.1f} mm vanishes {by:g} mm further in")
    ends = [(cx + smaller * math.cos(t), cy + smaller * math.sin(t)) for t in (angle, angle + sweep)]
    return _Edge(ends[0], ends[1], (cx, cy), smaller, sweep)


def _meeting(first: _Edge, second: _Edge) -> Point:
    """Where two neighbours meet, nearest to where the first ended."""
    if math.dist(first.end, second.start) < 1e-7:
        return first.end
    if first.centre is None and second.centre is None:
        found = _lines(first, second)
    elif first.centre is None:
        found = _line_circle(first, second)
    elif second.centre is None:
        found = _line_circle(second, first)
    else:
        found = _circles(first, second)
    if not found:
        raise ValueError("two edges of this outline no longer meet that far in")
    return min(found, key=lambda p: math.dist(p, first.end) + math.dist(p, second.start))


def _lines(a: _Edge, b: _Edge) -> list[Point]:
    (x1, y1), (x2, y2), (x3, y3), (x4, y4) = a.start, a.end, b.start, b.end
    cross = (x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3)
    if abs(cross) < 1e-12:
        return [((x2 + x3) / 2, (y2 + y3) / 2)]
    t = ((x3 - x1) * (y4 - y3) - (y3 - y1) * (x4 - x3)) / cross
    return [(x1 + t * (x2 - x1), y1 + t * (y2 - y1))]


def _line_circle(line: _Edge, arc: _Edge) -> list[Point]:
    (x1, y1), (x2, y2), (cx, cy) = line.start, line.end, arc.centre or (0.0, 0.0)
    length = math.hypot(x2 - x1, y2 - y1)
    ux, uy = (x2 - x1) / length, (y2 - y1) / length
    along = (cx - x1) * ux + (cy - y1) * uy
    off = arc.radius**2 - (cx - x1 - along * ux) ** 2 - (cy - y1 - along * uy) ** 2
    if off < -TOUCH:
        return []
    half = math.sqrt(max(0.0, off))
    return [(x1 + t * ux, y1 + t * uy) for t in (along - half, along + half)]


def _circles(a: _Edge, b: _Edge) -> list[Point]:
    (ax, ay), (bx, by) = a.centre or (0.0, 0.0), b.centre or (0.0, 0.0)
    apart = math.hypot(bx - ax, by - ay)
    if apart < TOUCH:
        return [a.end]
    along = (apart**2 + a.radius**2 - b.radius**2) / (2 * apart)
    off = a.radius**2 - along**2
    if off < -TOUCH:
        return []
    half, ux, uy = math.sqrt(max(0.0, off)), (bx - ax) / apart, (by - ay) / apart
    return [(ax + along * ux - s * half * uy, ay + along * uy + s * half * ux) for s in (1, -1)]


def _reversed(edge: _Edge, start: Point, end: Point) -> bool:
    """Whether the shortened edge runs the other way than the edge did."""
    if edge.centre is not None:
        return False
    (x1, y1), (x2, y2) = edge.start, edge.end
    return (end[0] - start[0]) * (x2 - x1) + (end[1] - start[1]) * (y2 - y1) <= 0


def _bulge(edge: _Edge, start: Point, end: Point) -> float:
    if edge.centre is None:
        return 0.0
    cx, cy = edge.centre
    a, b = math.atan2(start[1] - cy, start[0] - cx), math.atan2(end[1] - cy, end[0] - cx)
    sweep = (b - a) % (2 * math.pi) if edge.sweep > 0 else -((a - b) % (2 * math.pi))
    return math.tan(sweep / 4)


def strip(loop: Loop, x0: float, x1: float) -> Loop:
    """What of the loop lies between two upright lines; its arcs stay arcs.

    :raises ValueError: nothing does.
    """
    left = _right_of(loop, x0)
    kept = _turned_over(_right_of(_turned_over(left), -x1)) if left else ()
    if len(kept) < 3:
        raise ValueError(f"nothing of the outline lies between {x0:.1f} and {x1:.1f} mm")
    return kept


def _turned_over(loop: Loop) -> Loop:
    """Mirrored at x = 0; running backwards, it is counter-clockwise again."""
    bulges = [v.bulge for v in loop]
    return tuple(Vertex(-v.x, v.y, bulges[i - 1]) for i, v in reversed(list(enumerate(loop))))


def _right_of(loop: Loop, x: float) -> Loop:
    """What lies right of an upright line; where that parts two kept pieces, a straight edge along it joins them."""
    kept = [
        (start, end)
        for a, b in zip(loop, loop[1:] + loop[:1], strict=True)
        for start, end in _pieces(a, b, x)
        if _middle_x(start, end) > x
    ]
    made: list[Vertex] = []
    for (start, end), (following, _) in zip(kept, kept[1:] + kept[:1], strict=True):
        made.append(start)
        if math.hypot(end.x - following.x, end.y - following.y) > TOUCH:
            made.append(Vertex(end.x, end.y))
    return tuple(made)


def _middle_x(a: Vertex, b: Vertex) -> float:
    arc = arc_of(a, b)
    if arc is None:
        return (a.x + b.x) / 2
    cx, _, radius, angle, sweep = arc
    return cx + radius * math.cos(angle + sweep / 2)


def _pieces(a: Vertex, b: Vertex, x: float) -> list[tuple[Vertex, Vertex]]:
    """The edge cut where it crosses the upright line at ``x``."""
    arc = arc_of(a, b)
    if arc is None:
        if (a.x - x) * (b.x - x) >= 0:
            return [(a, b)]
        t = (x - a.x) / (b.x - a.x)
        cut = Vertex(x, a.y + t * (b.y - a.y))
        return [(a, cut), (cut, b)]
    cx, _, radius, angle, sweep = arc
    if abs(x - cx) >= radius:
        return [(a, b)]
    turns = []
    for t in (math.acos((x - cx) / radius), -math.acos((x - cx) / radius)):
        share = ((t - angle) % (2 * math.pi)) if sweep > 0 else -((angle - t) % (2 * math.pi))
        if 1e-9 < abs(share) < abs(sweep) - 1e-9:
            turns.append(share)
    return _cut_arc(a, b, arc, sorted(turns, key=abs))


def _cut_arc(
    a: Vertex, b: Vertex, arc: tuple[float, float, float, float, float], turns: list[float]
) -> list[tuple[Vertex, Vertex]]:
    cx, cy, radius, angle, sweep = arc
    corners = [Vertex(cx + radius * math.cos(angle + t), cy + radius * math.sin(angle + t)) for t in turns]
    stops, points = [0.0, *turns, sweep], [a, *corners, b]
    return [
        (start._replace(bulge=math.tan((u - t) / 4)), end)
        for (t, u), (start, end) in zip(pairwise(stops), pairwise(points), strict=True)
    ]
