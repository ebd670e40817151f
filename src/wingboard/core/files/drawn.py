"""Outlines out of drawings made elsewhere: edges joined into closed loops, with a clear word on what is wrong."""

from __future__ import annotations

import math
from collections import deque
from collections.abc import Iterable, Sequence
from typing import Literal, NamedTuple

from shapely.validation import explain_validity

from wingboard.core.geometry.outline import Loop, Vertex, area_of, moved
from wingboard.core.quantity import LONGEST
from wingboard.core.record.errors import DesignError

JOIN = 0.05
"""Ends nearer than this (mm) are taken to meet."""
MOST_EDGES = 20_000
Unit = Literal["mm", "cm", "m", "in", "as drawn"]
SCALE: dict[Unit, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4}
Point = tuple[float, float]


class NotAnOutline(DesignError):
    """A drawing holds no outline that can be used; the message says why and where."""

    title = "This drawing gives no outline"


class Edge(NamedTuple):
    """A straight edge or an arc from start to end (mm, y up), as points with a bulge."""

    start: Point
    end: Point
    bulge: float = 0.0


class DrawnOutline(NamedTuple):
    """A closed outline found in a drawing, its lower left at the origin, and where that was (mm)."""

    loop: Loop
    x: float
    y: float
    width: float
    height: float


class Import(NamedTuple):
    """What a drawing holds: closed outlines, largest first, the unit they were taken in, and what was left aside."""

    outlines: tuple[DrawnOutline, ...]
    unit: str
    notes: tuple[str, ...]


def outlines_of(loops: Iterable[Sequence[Edge]], loose: Iterable[Edge], unit: str, notes: Sequence[str]) -> Import:
    """Outlines from closed loops and from loose edges joined end to end.

    :raises NotAnOutline: nothing closed, too many edges, an outline that crosses itself, or one out of all bounds.
    """
    closed = [list(edges) for edges in loops if edges]
    chains = _joined(list(loose))
    said = list(notes)
    ends = [c for c in chains if math.dist(c[0].start, c[-1].end) > JOIN]
    closed += [c for c in chains if math.dist(c[0].start, c[-1].end) <= JOIN]
    if not closed:
        raise NotAnOutline(_why_open(ends))
    if ends:
        (x, y), many = ends[0][-1].end, len(ends)
        said.append(f"{many} open line{'s' if many > 1 else ''} left aside, the first ends at {x:.1f}, {y:.1f}")
    found = sorted((_drawn(edges) for edges in closed), key=lambda d: -area_of(d.loop).area)
    return Import(tuple(found), unit, tuple(said))


def _why_open(ends: Sequence[Sequence[Edge]]) -> str:
    if not ends:
        return "It holds no lines, arcs or outlines at all"
    gap = min(ends, key=lambda c: math.dist(c[0].start, c[-1].end))
    (x0, y0), (x1, y1) = gap[-1].end, gap[0].start
    wide = math.dist(gap[0].start, gap[-1].end)
    return (
        f"No line closes: the nearest to closing ends at {x0:.2f}, {y0:.2f} and began at {x1:.2f}, {y1:.2f}, "
        f"{wide:.2f} mm apart. Join its ends, then import again"
    )


def _joined(loose: list[Edge]) -> list[list[Edge]]:
    if not all(math.isfinite(v) for edge in loose for v in (*edge.start, *edge.end, edge.bulge)):
        raise NotAnOutline("A corner of it lies nowhere: a coordinate is not a number")
    if len(loose) > MOST_EDGES:
        raise NotAnOutline(f"It holds {len(loose)} edges; more than {MOST_EDGES} are not read. Keep only the outline")
    near: dict[tuple[int, int], deque[int]] = {}
    for n, edge in enumerate(loose):
        for end in (edge.start, edge.end):
            near.setdefault(_cell(end), deque()).append(n)
    left, chains = set(range(len(loose))), []
    for first in range(len(loose)):
        if first in left:
            left.discard(first)
            chains.append(_chain(loose[first], loose, near, left))
    return chains


def _cell(p: Point) -> tuple[int, int]:
    return round(p[0] / (2 * JOIN)), round(p[1] / (2 * JOIN))


def _chain(first: Edge, loose: list[Edge], near: dict[tuple[int, int], deque[int]], left: set[int]) -> list[Edge]:
    chain = deque([first])
    while math.dist(chain[0].start, chain[-1].end) > JOIN:
        follower = _next(chain[-1].end, loose, near, left)
        if follower is None:
            break
        chain.append(follower)
    while math.dist(chain[0].start, chain[-1].end) > JOIN:
        before = _next(chain[0].start, loose, near, left)
        if before is None:
            break
        chain.appendleft(Edge(before.end, before.start, -before.bulge))
    return list(chain)


def _next(at: Point, loose: list[Edge], near: dict[tuple[int, int], deque[int]], left: set[int]) -> Edge | None:
    cx, cy = _cell(at)
    for cell in ((cx + i, cy + j) for i in (0, -1, 1) for j in (0, -1, 1)):
        edges = near.get(cell)
        while edges and edges[0] not in left:  # those used up are not looked at again
            edges.popleft()
        for n in edges or ():
            if n not in left:
                continue
            if math.dist(loose[n].start, at) <= JOIN:
                left.discard(n)
                return loose[n]
            if math.dist(loose[n].end, at) <= JOIN:
                left.discard(n)
                return Edge(loose[n].end, loose[n].start, -loose[n].bulge)
    return None


def _drawn(edges: Sequence[Edge]) -> DrawnOutline:
    loop = tuple(Vertex(e.start[0], e.start[1], e.bulge) for e in edges if math.dist(e.start, e.end) > 1e-6)
    if not all(math.isfinite(v) for corner in loop for v in corner):
        raise NotAnOutline("A corner of it lies nowhere: a coordinate is not a number")
    if len(loop) < 2 or (len(loop) == 2 and not any(v.bulge for v in loop)):
        raise NotAnOutline("An outline of it has no width: it runs back on itself")
    loop = _corners(loop)
    area = area_of(loop)
    if not area.is_valid:
        raise NotAnOutline(f"An outline crosses itself: {explain_validity(area).lower()}. Part the lines there")
    x0, y0, x1, y1 = area.bounds
    if max(x1 - x0, y1 - y0) > LONGEST:
        raise NotAnOutline(
            f"It is {x1 - x0:.0f} × {y1 - y0:.0f} mm; nothing here is longer than {LONGEST:.0f}. Is the unit right?"
        )
    if min(x1 - x0, y1 - y0) < 0.1:
        raise NotAnOutline(f"It is {x1 - x0:.3f} × {y1 - y0:.3f} mm, smaller than anything cut. Is the unit right?")
    if not area.exterior.is_ccw:
        loop = _backwards(loop)
    return DrawnOutline(moved(loop, -x0, -y0), x0, y0, x1 - x0, y1 - y0)


def _backwards(loop: Loop) -> Loop:
    turned = [(v.x, v.y) for v in reversed(loop)]
    bulges = [-v.bulge for v in reversed(loop)]
    return tuple(Vertex(x, y, bulges[(n + 1) % len(loop)]) for n, (x, y) in enumerate(turned))


def _corners(loop: Loop) -> Loop:
    """At least three corners: two half circles become four quarters."""
    if len(loop) > 2:
        return loop
    made: list[Vertex] = []
    for a, b in zip(loop, loop[1:] + loop[:1], strict=True):
        half = math.tan(math.atan(a.bulge) / 2)
        mx, my = (a.x + b.x) / 2, (a.y + b.y) / 2
        made += [
            Vertex(a.x, a.y, half),
            Vertex(mx + a.bulge * (b.y - a.y) / 2, my - a.bulge * (b.x - a.x) / 2, half),
        ]
    return tuple(made)
