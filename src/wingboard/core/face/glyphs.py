"""The letters of the outline fonts as path data, as loops of arcs and as bounds, each worked out once.

A letter is written as one absolute point, its origin, and relative steps from there: the same steps serve wherever on a
line it stands. Steps are taken between rounded places, so that their rounding does not add up.
"""

from __future__ import annotations

from functools import lru_cache
from itertools import groupby
from typing import Any

from fontTools.pens.basePen import BasePen
from fontTools.pens.boundsPen import BoundsPen

from wingboard.core.face.fonts import Affine, glyph_set, outlines
from wingboard.core.geometry.biarcs import Quadratic, arcs_along
from wingboard.core.geometry.outline import Loop, Vertex, reversed_loop
from wingboard.core.quantity import short
from wingboard.core.record.legends import FontName

TOLERANCE = 0.01
"""How far (mm) the arcs of a letter may stand off its curves: a tenth of what a laser's beam is wide."""
Box = tuple[float, float, float, float]
Point = tuple[float, float]


@lru_cache(maxsize=4096)
def upright_steps(font: FontName, character: str, scale: float) -> str:
    """The relative steps of an upright letter from its origin, ``scale`` mm to a unit of its font."""
    return steps(font, character, (scale, 0.0, 0.0, scale, 0.0, 0.0))


def steps(font: FontName, character: str, affine: Affine) -> str:
    """The relative steps of a letter from the origin, after a transform without a shift."""
    pen = _StepPen(glyph_set(font))
    outlines(font).draw(character, pen, affine)
    return "".join(pen.commands)


@lru_cache(maxsize=4096)
def upright_loops(font: FontName, character: str, scale: float) -> tuple[Loop, ...]:
    """The outlines of an upright letter about its origin, its curves as arcs within :data:`TOLERANCE` of them.

    The outside is walked counter-clockwise, a counter clockwise: filled where the winding is not zero.
    """
    pen = _LoopPen(glyph_set(font))
    outlines(font).draw(character, pen, (scale, 0.0, 0.0, scale, 0.0, 0.0))
    # Fonts walk the outside of a letter clockwise; here it is counter-clockwise, as everything that is filled.
    return tuple(reversed_loop(loop) for loop in map(_loop, pen.contours) if len(loop) > 1)


def _loop(edges: list[Point | Quadratic]) -> Loop:
    """A contour of straight edges (where each begins) and curves, as one closed loop."""
    made: list[Vertex] = []
    for curved, piece in groupby(edges, lambda edge: isinstance(edge, Quadratic)):
        if curved:
            made += arcs_along([edge for edge in piece if isinstance(edge, Quadratic)], TOLERANCE)
        else:
            made += [Vertex(edge[0], edge[1]) for edge in piece if not isinstance(edge, Quadratic)]
    return tuple(made)


@lru_cache(maxsize=4096)
def upright_bounds(font: FontName, character: str) -> Box | None:
    """Least and greatest x and y of a letter in the units of its font; None for a space."""
    pen = BoundsPen(glyph_set(font))
    outlines(font).draw(character, pen, (1.0, 0.0, 0.0, 1.0, 0.0, 0.0))
    return None if pen.bounds is None else (pen.bounds[0], pen.bounds[1], pen.bounds[2], pen.bounds[3])


class _LoopPen(BasePen):  # type: ignore[misc]
    """Collects each contour's edges: a straight one as the point it begins at, a curve whole."""

    def __init__(self, glyphs: Any) -> None:
        super().__init__(glyphs)
        self.contours: list[list[Point | Quadratic]] = []
        self._start: Point = (0.0, 0.0)

    def _moveTo(self, pt: Point) -> None:
        self.contours.append([])
        self._start = pt

    def _lineTo(self, pt: Point) -> None:
        if pt != self._getCurrentPoint():
            self.contours[-1].append(self._getCurrentPoint())

    def _qCurveToOne(self, pt1: Point, pt2: Point) -> None:
        self.contours[-1].append(Quadratic(self._getCurrentPoint(), pt1, pt2))

    def _closePath(self) -> None:
        self._lineTo(self._start)


class _StepPen(BasePen):  # type: ignore[misc]
    """Writes contours as relative SVG path commands (SVG 1.1, W3C Recommendation, paths)."""

    def __init__(self, glyphs: Any) -> None:
        super().__init__(glyphs)
        self.commands: list[str] = []
        self._at = self._start = (0.0, 0.0)

    def _step(self, letter: str, *points: Point) -> None:
        rounded = [(round(x, 3), round(y, 3)) for x, y in points]
        x0, y0 = self._at
        self.commands.append(letter + " ".join(f"{short(x - x0)} {short(y - y0)}" for x, y in rounded))
        self._at = rounded[-1]

    def _moveTo(self, pt: Point) -> None:
        self._step("m", pt)
        self._start = self._at

    def _lineTo(self, pt: Point) -> None:
        self._step("l", pt)

    def _qCurveToOne(self, pt1: Point, pt2: Point) -> None:
        self._step("q", pt1, pt2)

    def _curveToOne(self, pt1: Point, pt2: Point, pt3: Point) -> None:
        self._step("c", pt1, pt2, pt3)

    def _closePath(self) -> None:
        self.commands.append("Z")
        self._at = self._start
