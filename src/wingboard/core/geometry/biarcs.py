"""Quadratic Bézier curves as circular arcs, two at a time, which every machine can follow.

A biarc joins two points with given directions by two arcs that share their direction where they meet
(K. M. Bolton, "Biarc curves", Computer-Aided Design 7, 1975; from memory). A run of curves without a corner becomes as
few biarcs as stay within a tolerance of it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.geometry.outline import Circular, Loop, Vertex, arc_of

Point = tuple[float, float]
SMOOTH = math.cos(math.radians(8.0))
"""Two curves whose directions differ by less than this run on into each other: letters sit on a grid of whole units."""
SAMPLES = 8
"""Places on each curve at which its distance from the arcs is measured."""
FLAT = 0.02
"""An arc that stands off its chord by less than this part of the tolerance is a straight line."""


class Quadratic(NamedTuple):
    """A quadratic Bézier curve: its ends, and the point at which its end tangents meet."""

    start: Point
    handle: Point
    end: Point

    def at(self, t: float) -> Point:
        """The point at parameter ``t`` from 0 to 1."""
        u, v, w = (1 - t) ** 2, 2 * t * (1 - t), t * t
        return (
            u * self.start[0] + v * self.handle[0] + w * self.end[0],
            u * self.start[1] + v * self.handle[1] + w * self.end[1],
        )

    def halves(self) -> tuple[Quadratic, Quadratic]:
        """The two curves that it is made of (de Casteljau)."""
        left, right, middle = _between(self.start, self.handle), _between(self.handle, self.end), self.at(0.5)
        return Quadratic(self.start, left, middle), Quadratic(middle, right, self.end)

    def directions(self) -> tuple[Point, Point]:
        """Unit vectors along the curve at its start and at its end."""
        whole = _unit(self.start, self.end)
        return _unit(self.start, self.handle) or whole or (1.0, 0.0), _unit(self.handle, self.end) or whole or (
            1.0,
            0.0,
        )


def arcs_along(curves: Sequence[Quadratic], tolerance: float) -> Iterator[Vertex]:
    """Where each arc along a connected run of curves begins, with its bulge; the run's last point is not among them.

    :param tolerance: how far (mm) the arcs may stand off the curves.
    """
    for run in _smooth_runs(curves):
        yield from _fitted(run, tolerance)


def _smooth_runs(curves: Sequence[Quadratic]) -> Iterator[list[Quadratic]]:
    run: list[Quadratic] = []
    for curve in curves:
        if run and _dot(run[-1].directions()[1], curve.directions()[0]) < SMOOTH:
            yield run
            run = []
        run.append(curve)
    if run:
        yield run


def _fitted(run: list[Quadratic], tolerance: float) -> Iterator[Vertex]:
    """The longest stretch from the start that one biarc follows, then the rest; a single curve is halved."""
    while run:
        taken, found = 0, None
        for many in range(1, len(run) + 1):
            better = _biarc(run[:many], tolerance)
            if better is None:
                break
            taken, found = many, better
        if found is None:
            run = [*run[0].halves(), *run[1:]]
            continue
        yield from found
        run = run[taken:]


def _biarc(run: Sequence[Quadratic], tolerance: float) -> Loop | None:
    """One or two arcs along the run, or None where they would stand off it by more than the tolerance."""
    end = Vertex(*run[-1].end)
    if all(math.dist(run[0].start, p) < tolerance for p in _samples(run)):
        return (Vertex(*run[0].start),)
    pair = _two_arcs(run, end)
    if pair is None or not _near(run, (*pair, end), tolerance):
        return None
    one = Vertex(*run[0].start, math.tan(math.fsum(math.atan(v.bulge) for v in pair)))
    found = (one,) if abs(one.bulge) <= 1 and _near(run, (one, end), tolerance) else pair
    following = (*found[1:], end)
    return tuple(_straightened(v, to, tolerance) for v, to in zip(found, following, strict=True))


def _two_arcs(run: Sequence[Quadratic], end: Vertex) -> Loop | None:
    """The biarc whose two arms are equally long, or None where no such arcs of at most a half turn are."""
    start, out, into = run[0].start, run[0].directions()[0], run[-1].directions()[1]
    chord = _from(start, end)
    along, spread = _dot(chord, (out[0] + into[0], out[1] + into[1])), 2 * (1 - _dot(out, into))
    if spread > 1e-9:
        arm = (math.sqrt(along * along + spread * _dot(chord, chord)) - along) / spread
    elif along > 0:
        arm = _dot(chord, chord) / (2 * along)
    else:
        return None
    joint = Vertex(
        (start[0] + end.x + arm * (out[0] - into[0])) / 2,
        (start[1] + end.y + arm * (out[1] - into[1])) / 2,
    )
    pair = (
        Vertex(*start, _bulge(out, _from(start, joint))),
        Vertex(joint.x, joint.y, -_bulge(into, _from(joint, end))),
    )
    return pair if max(abs(v.bulge) for v in pair) <= 1 else None


def _bulge(direction: Point, chord: Point) -> float:
    """The bulge of the arc that leaves in a direction and ends a chord away: the tangent of half the angle between."""
    room = math.hypot(*chord) + _dot(direction, chord)
    return (direction[0] * chord[1] - direction[1] * chord[0]) / room if room > 0 else math.inf


def _near(run: Sequence[Quadratic], path: Loop, tolerance: float) -> bool:
    pieces = [(a, b, arc_of(a, b)) for a, b in pairwise(path)]
    return all(min(_distance(p, *piece) for piece in pieces) <= tolerance for p in _samples(run))


def _samples(run: Sequence[Quadratic]) -> Iterator[Point]:
    return (curve.at(k / SAMPLES) for curve in run for k in range(1, SAMPLES + 1))


def _distance(point: Point, start: Vertex, end: Vertex, arc: Circular | None) -> float:
    """From a point to an arc or to a straight edge."""
    if arc is None:
        return _from_line(point, start, end)
    x, y, radius, angle, sweep = arc
    turned = math.atan2(point[1] - y, point[0] - x) - angle
    if (turned if sweep > 0 else -turned) % (2 * math.pi) <= abs(sweep):
        return abs(math.hypot(point[0] - x, point[1] - y) - radius)
    return min(math.hypot(*_from(point, start)), math.hypot(*_from(point, end)))


def _from_line(point: Point, start: Vertex, end: Vertex) -> float:
    chord, reach = _from(start, end), _from(start, point)
    square = _dot(chord, chord)
    t = min(1.0, max(0.0, _dot(chord, reach) / square)) if square else 0.0
    return math.hypot(reach[0] - t * chord[0], reach[1] - t * chord[1])


def _straightened(start: Vertex, end: Vertex, tolerance: float) -> Vertex:
    rise = abs(start.bulge) * math.hypot(*_from(start, end)) / 2
    return start._replace(bulge=0.0) if rise < FLAT * tolerance else start


def _from(a: Sequence[float], b: Sequence[float]) -> Point:
    return b[0] - a[0], b[1] - a[1]


def _dot(a: Point, b: Point) -> float:
    return a[0] * b[0] + a[1] * b[1]


def _unit(a: Point, b: Point) -> Point | None:
    length = math.dist(a, b)
    return ((b[0] - a[0]) / length, (b[1] - a[1]) / length) if length else None


def _between(a: Point, b: Point) -> Point:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
