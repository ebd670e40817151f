"""Tool paths: what a tool does, step by step. Lengths in mm, z up, 0 the upper face of the sheet; feeds in mm/min.

A cut begins over its first point, comes down there, and goes through its steps; between two cuts the tool is up (a
laser: off). Arcs are kept: the bulge of a step is that of the arc that leads to it from where the tool was (DXF
Reference: tangent of a quarter of its angle, counter-clockwise more than 0).
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex, arc_of

RAMP = math.tan(math.radians(3))
"""How steep a mill goes down along its path (common practice: 3°)."""


class Step(NamedTuple):
    """A straight move or an arc to a point; ``on``: a laser's beam burns on the way."""

    x: float
    y: float
    z: float = 0.0
    bulge: float = 0.0
    feed: float = 0.0
    on: bool = True


class Cut(NamedTuple):
    """One engagement of the tool: whose it is, where it comes down, its steps."""

    label: str
    x: float
    y: float
    steps: tuple[Step, ...]

    @property
    def end(self) -> tuple[float, float]:
        """Where the tool leaves the sheet."""
        return (self.steps[-1].x, self.steps[-1].y) if self.steps else (self.x, self.y)


class Edge(NamedTuple):
    """A piece of a path: from, to, its bulge, its length (mm)."""

    x0: float
    y0: float
    x1: float
    y1: float
    bulge: float
    length: float

    def part(self, start: float, end: float) -> Edge:
        """The part between two shares of its length."""
        if self.bulge == 0.0:
            dx, dy = self.x1 - self.x0, self.y1 - self.y0
            return Edge(
                self.x0 + start * dx, self.y0 + start * dy, self.x0 + end * dx, self.y0 + end * dy, 0.0,
                self.length * (end - start),
            )  # fmt: skip
        arc = arc_of(Vertex(self.x0, self.y0, self.bulge), Vertex(self.x1, self.y1))
        assert arc is not None
        cx, cy, radius, angle, sweep = arc
        a, b = angle + sweep * start, angle + sweep * end
        return Edge(
            cx + radius * math.cos(a), cy + radius * math.sin(a), cx + radius * math.cos(b), cy + radius * math.sin(b),
            math.tan(sweep * (end - start) / 4), self.length * (end - start),
        )  # fmt: skip


def edge_length(x0: float, y0: float, x1: float, y1: float, bulge: float) -> float:
    """Length (mm) of a straight move or an arc: chord · (angle / 2) / sin(angle / 2)."""
    chord = math.hypot(x1 - x0, y1 - y0)
    half = 2 * math.atan(abs(bulge))
    return chord * half / math.sin(half) if half > 1e-9 else chord


def edges_of(points: Sequence[Vertex], closed: bool) -> list[Edge]:
    """The edges of a path, those of no length left out."""
    following = [*points[1:], points[0]] if closed else points[1:]
    return [
        Edge(a.x, a.y, b.x, b.y, a.bulge if abs(a.bulge) > 1e-9 else 0.0, length)
        for a, b in zip(points, following, strict=False)
        if (length := edge_length(a.x, a.y, b.x, b.y, a.bulge)) > 1e-6
    ]


def started_near(loop: Loop, x: float, y: float) -> Loop:
    """The closed loop beginning at its corner nearest to a point."""
    n = min(range(len(loop)), key=lambda k: (loop[k].x - x) ** 2 + (loop[k].y - y) ** 2)
    return loop[n:] + loop[:n]


def circle_loop(x: float, y: float, radius: float, towards: tuple[float, float] = (0.0, 0.0)) -> Loop:
    """A circle as a counter-clockwise loop of two arcs, beginning where it is nearest to a point."""
    angle = math.atan2(towards[1] - y, towards[0] - x)
    dx, dy = radius * math.cos(angle), radius * math.sin(angle)
    return Vertex(x + dx, y + dy, 1.0), Vertex(x - dx, y - dy, 1.0)


def burnt(
    loop: Loop, closed: bool, feed: float, passes: int = 1, gaps: Sequence[tuple[float, float]] = ()
) -> list[Step]:
    """A laser's way along a path, so many times; between two distances (mm) of a gap its beam is off."""
    if closed and passes == 1 and not gaps:
        return [Step(b.x, b.y, 0.0, a.bulge, feed) for a, b in zip(loop, loop[1:] + loop[:1], strict=True)]
    edges = edges_of(loop, closed)
    steps = []
    for n in range(passes):
        run = edges if closed or n % 2 == 0 else _backwards(edges)
        for edge, at in _walked(run, [d for gap in gaps for d in gap]):
            middle = at + edge.length / 2
            on = not any(a < middle < b for a, b in gaps)
            steps.append(Step(edge.x1, edge.y1, 0.0, edge.bulge, feed, on))
    return steps


def _backwards(edges: Sequence[Edge]) -> list[Edge]:
    return [Edge(e.x1, e.y1, e.x0, e.y0, -e.bulge, e.length) for e in reversed(edges)]


def _walked(edges: Sequence[Edge], stops: Sequence[float]) -> Iterator[tuple[Edge, float]]:
    """Edges cut at distances along them, each with the distance at which it begins."""
    at = 0.0
    for edge in edges:
        shares = sorted({(d - at) / edge.length for d in stops if at + 1e-6 < d < at + edge.length - 1e-6})
        for start, end in pairwise([0.0, *shares, 1.0]):
            yield (edge if not shares else edge.part(start, end)), at + start * edge.length
        at += edge.length


class Levels(NamedTuple):
    """How deep a mill goes: to ``bottom`` (z, below 0) in passes of at most ``step``; ``turn`` at least a way round."""

    bottom: float
    step: float
    turn: float = 0.0

    def each(self) -> list[float]:
        """The depths (z) of the passes, equal ones."""
        many = max(1, math.ceil(-self.bottom / self.step - 1e-9))
        return [self.bottom * (n + 1) / many for n in range(many)]


def milled_loop(
    loop: Loop, levels: Levels, feed: float, plunge: float, tabs: Sequence[tuple[float, float]] = (), tab: float = 0.0
) -> list[Step]:
    """A mill's way round a closed path: down along it, no steeper than :data:`RAMP`, then once round, pass by pass.

    :param tabs: from where to where (mm along the loop) it rises to leave tabs standing.
    :param tab: how high (z) it rises there.
    """
    edges = edges_of(loop, closed=True)
    total = sum(e.length for e in edges)
    if total < 1e-6:
        return []
    steps = [Step(loop[0].x, loop[0].y, 0.0, 0.0, plunge)]
    z, begin = 0.0, 0.0
    slope = max(RAMP, levels.turn / total)
    for level in levels.each():
        begin = _ramp(steps, edges, total, begin, z, level, slope, feed, plunge, tabs, tab)
        _round(steps, edges, total, begin, level, feed, plunge, tabs, tab)
        z = level
    return steps


def _ramp(
    steps: list[Step], edges: Sequence[Edge], total: float, begin: float, z: float, level: float, slope: float,
    feed: float, plunge: float, tabs: Sequence[tuple[float, float]], tab: float,
) -> float:  # fmt: skip
    """Go down from a depth to the next along the path; gives where on the path that ends. Over a tab it stays up."""
    run = (z - level) / slope
    gone = 0.0
    while gone < run - 1e-9:
        part = min(total, run - gone)
        for edge, at in _from(edges, total, begin, part, tabs):
            above, down = z - (gone + at) * slope, max(level, z - (gone + at + edge.length) * slope)
            if down < tab and _over(tabs, (begin + at + edge.length / 2) % total):
                above = down = tab
            if abs(steps[-1].z - above) > 1e-6:
                steps.append(Step(edge.x0, edge.y0, above, 0.0, plunge))
            steps.append(Step(edge.x1, edge.y1, down, edge.bulge, feed))
        gone += part
        begin = (begin + part) % total
    return begin


def _round(
    steps: list[Step], edges: Sequence[Edge], total: float, begin: float, level: float, feed: float, plunge: float,
    tabs: Sequence[tuple[float, float]], tab: float,
) -> None:  # fmt: skip
    z = level
    for edge, at in _from(edges, total, begin, total, tabs):
        wanted = tab if level < tab and _over(tabs, (begin + at + edge.length / 2) % total) else level
        if wanted != z or (steps and steps[-1].z != wanted):
            steps.append(Step(edge.x0, edge.y0, wanted, 0.0, plunge))
            z = wanted
        steps.append(Step(edge.x1, edge.y1, wanted, edge.bulge, feed))


def _over(tabs: Sequence[tuple[float, float]], at: float) -> bool:
    return any(a < at < b for a, b in tabs)


def _from(
    edges: Sequence[Edge], total: float, begin: float, length: float, tabs: Sequence[tuple[float, float]]
) -> Iterator[tuple[Edge, float]]:
    """A length of the closed path from a distance on, cut at the tabs' ends; each with how far it is from there."""
    stops = [begin, (begin + length) % total, *(d for tab in tabs for d in tab)]
    walked = list(_walked(edges, stops))
    after = [(e, at - begin) for e, at in walked if at >= begin - 1e-6]
    before = [(e, at - begin + total) for e, at in walked if at < begin - 1e-6]
    for edge, at in after + before:
        if at < length - 1e-6:
            yield edge, max(0.0, at)


def milled_line(points: Sequence[Vertex], levels: Levels, feed: float, plunge: float) -> list[Step]:
    """A mill's way along an open path, forth and back, a pass deeper each time."""
    steps: list[Step] = []
    edges = edges_of(points, closed=False)
    for n, level in enumerate(levels.each()):
        run = edges if n % 2 == 0 else _backwards(edges)
        if run:
            steps.append(Step(run[0].x0, run[0].y0, level, 0.0, plunge))
            steps += [Step(e.x1, e.y1, level, e.bulge, feed) for e in run]
    return steps


def drilled(x: float, y: float, levels: Levels, plunge: float, clear: float = 0.5) -> list[Step]:
    """A drill's pecks: a step down, up out of the hole, and a step deeper."""
    steps: list[Step] = []
    for level in levels.each():
        steps += [Step(x, y, level, 0.0, plunge), Step(x, y, clear, 0.0, plunge * 4)]
    return steps
