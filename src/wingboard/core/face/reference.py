"""A photograph or scan under a module: scaled by a known length, or squared by points whose places are known.

The projective map is found by the direct linear transform with normalised points (Hartley and Zisserman, from memory);
a circle through three or more points by least squares (Kåsa's method, from memory).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from wingboard.core.record.pictures import KnownLength, PicturePoint, Reference
from wingboard.core.resolved.design import Resolved

Matrix = npt.NDArray[np.float64]
Point = tuple[float, float]


class Fit(NamedTuple):
    """How a picture lies on its module.

    ``matrix``: 3 × 3, from pixels (x right, y down) to mm (y up); ``residual`` and ``worst``: how far (mm) the known
    points miss their places; ``one_pixel``: what an error of one pixel makes (mm) over the picture's width;
    ``check``: measured less known of the second length (mm).
    """

    matrix: Matrix
    squared: bool
    residual: float
    worst: float
    one_pixel: float
    check: float | None


class Round(NamedTuple):
    """A circle through points: centre, diameter, and how far (mm) the points lie off it."""

    x: float
    y: float
    diameter: float
    residual: float


class TracedHole(NamedTuple):
    """A traced circle on the module, and how far the hole of its function lies from it (mm), when it has one."""

    id: str
    function: str | None
    circle: Round
    off_centre: float | None
    wider: float | None


def fit(reference: Reference) -> Fit | None:
    """Where the picture lies; None when neither four points nor a length are known, or they make no sense."""
    matrix = _squared(reference) if len(reference.points) >= 4 else _scaled(reference)
    if matrix is None or not np.all(np.isfinite(matrix)):
        return None
    misses = [math.dist(_map(matrix, reference, p), (p.at_x, p.at_y)) for p in reference.points]
    squared = len(reference.points) >= 4
    residual = math.sqrt(sum(m * m for m in misses) / len(misses)) if squared and misses else 0.0
    check = _length(matrix, reference, reference.check) - reference.check.length if reference.check else None
    worst = max(misses, default=0.0) if squared else 0.0
    return Fit(matrix, squared, residual, worst, _one_pixel(matrix, reference), check)


def laid_in(reference: Reference, width: float, height: float) -> Fit:
    """Where a picture lies until it is scaled or squared: fitted into a plate of that size (mm), worth nothing yet."""
    k = min(width / reference.width, height / reference.height)
    matrix = np.array([[k, 0.0, 0.0], [0.0, -k, k * reference.height], [0.0, 0.0, 1.0]])
    return Fit(matrix, False, 0.0, 0.0, 0.0, None)


def _upright(reference: Reference, point: PicturePoint) -> Point:
    return (reference.width - point.x if reference.mirrored else point.x), point.y


def to_module(matrix: Matrix, x: float, y: float) -> Point:
    """A pixel (already turned the right way round) on the module (mm)."""
    px, py, w = matrix @ np.array([x, y, 1.0])
    return float(px / w), float(py / w)


def _map(matrix: Matrix, reference: Reference, point: PicturePoint) -> Point:
    return to_module(matrix, *_upright(reference, point))


def _length(matrix: Matrix, reference: Reference, known: KnownLength) -> float:
    return math.dist(_map(matrix, reference, known.start), _map(matrix, reference, known.end))


def _scaled(reference: Reference) -> Matrix | None:
    known = reference.scale
    if known is None:
        return None
    pixels = math.hypot(known.end.x - known.start.x, known.end.y - known.start.y)
    if pixels < 1:
        return None
    k = known.length / pixels
    return np.array([[k, 0.0, reference.x], [0.0, -k, reference.y + k * reference.height], [0.0, 0.0, 1.0]])


def _squared(reference: Reference) -> Matrix | None:
    source = np.array([_upright(reference, p) for p in reference.points])
    target = np.array([(p.at_x, p.at_y) for p in reference.points])
    if any(_in_line(three) for points in (source, target) for three in _threes(points)):
        return None
    s, t = _normaliser(source), _normaliser(target)
    rows = []
    for (x, y), (u, v) in zip(_apply(s, source), _apply(t, target), strict=True):
        rows += [[-x, -y, -1, 0, 0, 0, u * x, u * y, u], [0, 0, 0, -x, -y, -1, v * x, v * y, v]]
    h = np.linalg.svd(np.array(rows))[2][-1].reshape(3, 3)
    matrix: Matrix = np.linalg.inv(t) @ h @ s
    return matrix / matrix[2, 2] if abs(matrix[2, 2]) > 1e-12 else None


STRAIGHT = 0.02
"""Three points whose triangle is flatter than this lie in a line: a picture cannot be squared by them."""


def _threes(points: Matrix) -> list[Matrix]:
    """The points three by three where there are four; all of them together where there are more."""
    return [np.delete(points, n, axis=0) for n in range(4)] if len(points) == 4 else [points]


def _in_line(points: Matrix) -> bool:
    spread = np.linalg.svd(points - points.mean(axis=0), compute_uv=False)
    return bool(spread[1] < STRAIGHT * max(float(spread[0]), 1e-9))


def _normaliser(points: Matrix) -> Matrix:
    centre = points.mean(axis=0)
    spread = float(np.sqrt(((points - centre) ** 2).sum(axis=1)).mean()) or 1.0
    k = math.sqrt(2) / spread
    return np.array([[k, 0, -k * centre[0]], [0, k, -k * centre[1]], [0, 0, 1.0]])


def _apply(matrix: Matrix, points: Matrix) -> Matrix:
    found: Matrix = (np.column_stack([points, np.ones(len(points))]) @ matrix.T)[:, :2]
    return found


def _one_pixel(matrix: Matrix, reference: Reference) -> float:
    """Of the known length's ends, or near the middle: what one pixel more or less makes over the whole width."""
    if reference.scale and len(reference.points) < 4:
        pixels = math.hypot(
            reference.scale.end.x - reference.scale.start.x, reference.scale.end.y - reference.scale.start.y
        )
        return reference.scale.length / pixels / pixels * reference.width
    x, y = reference.width / 2, reference.height / 2
    return math.dist(to_module(matrix, x, y), to_module(matrix, x + 1, y))


def circle_through(points: Sequence[Point]) -> Round | None:
    """The circle nearest to three or more points (mm); None when they lie in a line."""
    xy = np.array(points)
    centre = xy.mean(axis=0)
    moved = xy - centre
    rows = np.column_stack([2 * moved, np.ones(len(moved))])
    if np.linalg.matrix_rank(rows, tol=1e-9) < 3:
        return None
    (a, b, c), *_ = np.linalg.lstsq(rows, (moved**2).sum(axis=1), rcond=None)
    radius = math.sqrt(max(0.0, float(c + a * a + b * b)))
    off = np.hypot(moved[:, 0] - a, moved[:, 1] - b) - radius
    residual = float(np.sqrt((off**2).mean()))
    return Round(float(a + centre[0]), float(b + centre[1]), 2 * radius, residual)


def traced_holes(r: Resolved, reference: Reference) -> tuple[TracedHole, ...]:
    """Every traced circle of a picture on its module, with the deviation of the hole that it shows."""
    lies = fit(reference)
    if lies is None:
        return ()
    placed = {p.function.id: p for p in r.placed if p.place.module == reference.module}
    found = []
    for traced in reference.circles:
        circle = circle_through([_map(lies.matrix, reference, p) for p in traced.points])
        if circle is None:
            continue
        there = placed.get(traced.function or "")
        off = math.hypot(there.place.x - circle.x, there.place.y - circle.y) if there else None
        wider = there.part.hole.span[0] - circle.diameter if there else None
        found.append(TracedHole(traced.id, traced.function, circle, off, wider))
    return tuple(found)
