"""Edges of outlines, lines and arcs, and where the lines and circles that they lie on meet."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex, arc_of
from wingboard.core.quantity import TOUCH

Point = tuple[float, float]


class Edge(NamedTuple):
    """A line from ``start`` to ``end``, or an arc about ``centre`` with its signed sweep (radians)."""

    start: Point
    end: Point
    centre: Point | None
    radius: float
    sweep: float

    def at(self, share: float) -> Point:
        """The point at a share of its length."""
        if self.centre is None:
            return tuple(a + (b - a) * share for a, b in zip(self.start, self.end, strict=True))  # type: ignore[return-value]
        angle = self._angle(self.start) + self.sweep * share
        return self.centre[0] + self.radius * math.cos(angle), self.centre[1] + self.radius * math.sin(angle)

    def share(self, point: Point) -> float:
        """The share of its length at which a point of its line or circle lies; outside 0 to 1 where it is not on it."""
        if self.centre is None:
            (x0, y0), (x1, y1) = self.start, self.end
            return ((point[0] - x0) * (x1 - x0) + (point[1] - y0) * (y1 - y0)) / math.dist(self.start, self.end) ** 2
        turned = self._angle(point) - self._angle(self.start)
        share = (turned if self.sweep > 0 else -turned) % math.tau / abs(self.sweep)
        return share - math.tau / abs(self.sweep) if share > (1 + math.tau / abs(self.sweep)) / 2 else share

    def piece(self, a: float, b: float) -> Vertex:
        """Its piece between two shares, as the corner that it leaves with its bulge."""
        return Vertex(*self.at(a), math.tan(self.sweep * (b - a) / 4) if self.centre else 0.0)

    def meets(self, other: Edge) -> list[Point]:
        """Where its line or circle meets another's; nothing for parallel lines and circles about one centre."""
        if self.centre is None and other.centre is None:
            (x1, y1), (x2, y2), (x3, y3), (x4, y4) = self.start, self.end, other.start, other.end
            parallel = abs((x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3)) < 1e-12
            return [] if parallel else lines(self, other)
        if self.centre is None:
            return line_and_circle(self, other)
        if other.centre is None:
            return line_and_circle(other, self)
        return [] if math.dist(self.centre, other.centre) < TOUCH else circles(self, other)

    def _angle(self, point: Point) -> float:
        assert self.centre is not None
        return math.atan2(point[1] - self.centre[1], point[0] - self.centre[0])


def edges_of(loop: Loop) -> list[Edge]:
    """The edges of a loop, those without a length left out."""
    made = []
    for a, b in zip(loop, loop[1:] + loop[:1], strict=True):
        if math.hypot(b.x - a.x, b.y - a.y) > TOUCH:
            arc = arc_of(a, b)
            centre, radius, sweep = (arc[:2], arc[2], arc[4]) if arc else (None, 0.0, 0.0)
            made.append(Edge((a.x, a.y), (b.x, b.y), centre, radius, sweep))
    return made


def lines(a: Edge, b: Edge) -> list[Point]:
    """Where two lines meet; of parallel ones, half way between the end of one and the start of the other."""
    (x1, y1), (x2, y2), (x3, y3), (x4, y4) = a.start, a.end, b.start, b.end
    cross = (x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3)
    if abs(cross) < 1e-12:
        return [((x2 + x3) / 2, (y2 + y3) / 2)]
    t = ((x3 - x1) * (y4 - y3) - (y3 - y1) * (x4 - x3)) / cross
    return [(x1 + t * (x2 - x1), y1 + t * (y2 - y1))]


def line_and_circle(line: Edge, arc: Edge) -> list[Point]:
    """Where a line meets a circle: at two points, or none."""
    (x1, y1), (x2, y2), (cx, cy) = line.start, line.end, arc.centre or (0.0, 0.0)
    length = math.hypot(x2 - x1, y2 - y1)
    ux, uy = (x2 - x1) / length, (y2 - y1) / length
    along = (cx - x1) * ux + (cy - y1) * uy
    off = arc.radius**2 - (cx - x1 - along * ux) ** 2 - (cy - y1 - along * uy) ** 2
    if off < -TOUCH:
        return []
    half = math.sqrt(max(0.0, off))
    return [(x1 + t * ux, y1 + t * uy) for t in (along - half, along + half)]


def circles(a: Edge, b: Edge) -> list[Point]:
    """Where two circles meet: at two points, or none; of circles about one centre, where the first ends."""
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
