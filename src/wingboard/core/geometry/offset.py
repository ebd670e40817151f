"""Outlines made smaller all round, and cut at upright lines, their arcs staying arcs."""

from __future__ import annotations

import math
from itertools import pairwise

from wingboard.core.geometry.edges import Edge, Point, circles, line_and_circle, lines
from wingboard.core.geometry.outline import Loop, Vertex, arc_of
from wingboard.core.quantity import TOUCH


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


def _moved_in(a: Vertex, b: Vertex, by: float) -> Edge:
    arc = arc_of(a, b)
    if arc is None:
        length = math.hypot(b.x - a.x, b.y - a.y)
        nx, ny = -(b.y - a.y) / length * by, (b.x - a.x) / length * by
        return Edge((a.x + nx, a.y + ny), (b.x + nx, b.y + ny), None, 0.0, 0.0)
    cx, cy, radius, angle, sweep = arc
    smaller = radius - by if sweep > 0 else radius + by
    if smaller <= TOUCH:
        raise ValueError(f"an arc of radius {radius:.1f} mm vanishes {by:g} mm further in")
    ends = [(cx + smaller * math.cos(t), cy + smaller * math.sin(t)) for t in (angle, angle + sweep)]
    return Edge(ends[0], ends[1], (cx, cy), smaller, sweep)


def _meeting(first: Edge, second: Edge) -> Point:
    """Where two neighbours meet, nearest to where the first ended."""
    if math.dist(first.end, second.start) < 1e-7:
        return first.end
    if first.centre is None and second.centre is None:
        found = lines(first, second)
    elif first.centre is None:
        found = line_and_circle(first, second)
    elif second.centre is None:
        found = line_and_circle(second, first)
    else:
        found = circles(first, second)
    if not found:
        raise ValueError("two edges of this outline no longer meet that far in")
    return min(found, key=lambda p: math.dist(p, first.end) + math.dist(p, second.start))


def _reversed(edge: Edge, start: Point, end: Point) -> bool:
    """Whether the shortened edge runs the other way than the edge did."""
    if edge.centre is not None:
        return False
    (x1, y1), (x2, y2) = edge.start, edge.end
    return (end[0] - start[0]) * (x2 - x1) + (end[1] - start[1]) * (y2 - y1) <= 0


def _bulge(edge: Edge, start: Point, end: Point) -> float:
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
