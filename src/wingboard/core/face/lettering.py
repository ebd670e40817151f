"""Words as outlines, from the font that ships with the core. Cap height is the height of a capital H, not of the font.

What is returned is path data and closed loops: nothing downstream needs a font.
"""

from __future__ import annotations

import math
from functools import cache, lru_cache
from importlib import resources
from typing import Any, NamedTuple

from fontTools.pens.basePen import BasePen
from fontTools.pens.boundsPen import BoundsPen
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.ttLib import TTFont

Contour = tuple[tuple[float, float], ...]

FONT = "BarlowSemiCondensed-Medium.ttf"
SPACING = 0.04
"""Extra room between letters, in cap heights: engraved strokes read better slightly apart (common practice)."""


class Run(NamedTuple):
    """A line of text with its origin at the left end of the baseline, y up, in mm."""

    text: str
    cap: float
    width: float
    bounds: tuple[float, float, float, float]
    path: str
    missing: str
    """The characters the font does not have; they are left out."""


@cache
def _font() -> tuple[TTFont, Any, dict[int, str], float]:
    file = resources.files("wingboard.core.face") / "fonts" / FONT
    with file.open("rb") as stream:
        font = TTFont(stream, lazy=False)
    glyphs = font.getGlyphSet()
    pen = BoundsPen(glyphs)
    glyphs["H"].draw(pen)
    return font, glyphs, font.getBestCmap(), float(pen.bounds[3])


@lru_cache(maxsize=8192)
def run(text: str, cap: float) -> Run:
    """Set a line of text.

    :param cap: height (mm) of a capital H.
    :returns: its outlines; empty text or text without a single known character gives an empty path of no width.
    """
    _, glyphs, cmap, cap_units = _font()
    scale = cap / cap_units
    svg, bounds = SVGPathPen(glyphs, ntos=_short), BoundsPen(glyphs)
    x, missing, last = 0.0, "", 0.0
    for character in text:
        name = cmap.get(ord(character))
        if name is None:
            missing += character
            continue
        for pen in (svg, bounds):
            glyphs[name].draw(TransformPen(pen, (scale, 0, 0, scale, x, 0)))
        last = x + glyphs[name].width * scale
        x = last + SPACING * cap
    box = tuple(float(v) for v in bounds.bounds) if bounds.bounds else (0.0, 0.0, 0.0, 0.0)
    return Run(text, cap, last, (box[0], box[1], box[2], box[3]), svg.getCommands(), missing)


def contours(line: Run, sag: float = 0.01) -> tuple[Contour, ...]:
    """The outlines of a run as closed polygons no further than ``sag`` mm from the curves, in its own coordinates."""
    _, glyphs, cmap, cap_units = _font()
    scale, x = line.cap / cap_units, 0.0
    flat = _FlatPen(glyphs, sag)
    for character in line.text:
        name = cmap.get(ord(character))
        if name is None:
            continue
        glyphs[name].draw(TransformPen(flat, (scale, 0, 0, scale, x, 0)))
        x += glyphs[name].width * scale + SPACING * line.cap
    return tuple(tuple(c) for c in flat.closed if len(c) > 2)


def _short(value: float) -> str:
    return f"{value:.3f}".rstrip("0").rstrip(".")


class _FlatPen(BasePen):  # type: ignore[misc]
    """Collects contours with their curves cut into chords."""

    def __init__(self, glyphs: Any, sag: float) -> None:
        super().__init__(glyphs)
        self.sag = sag
        self.closed: list[list[tuple[float, float]]] = []

    def _moveTo(self, pt: tuple[float, float]) -> None:
        self.closed.append([pt])

    def _lineTo(self, pt: tuple[float, float]) -> None:
        self.closed[-1].append(pt)

    def _curveToOne(self, a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> None:
        start = self._getCurrentPoint()
        bend = max(math.dist(start, a), math.dist(a, b), math.dist(b, c))
        pieces = max(2, math.ceil(math.sqrt(bend / self.sag) * 0.6))
        for k in range(1, pieces + 1):
            t = k / pieces
            weights = ((1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3)
            self.closed[-1].append(
                (
                    sum(w * p[0] for w, p in zip(weights, (start, a, b, c), strict=True)),
                    sum(w * p[1] for w, p in zip(weights, (start, a, b, c), strict=True)),
                )
            )

    def _closePath(self) -> None:
        contour = self.closed[-1]
        if len(contour) > 1 and contour[0] == contour[-1]:
            contour.pop()
