"""The fonts that ship: outline fonts as files (SIL Open Font License), and one of single strokes for engraving."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache, lru_cache
from importlib import resources
from typing import Any, NamedTuple, Protocol

from fontTools.pens.boundsPen import BoundsPen
from fontTools.pens.transformPen import TransformPen

from wingboard.core.record.legends import FontName

FILES: dict[str, str] = {
    "barlow-semi-condensed": "BarlowSemiCondensed-Medium.ttf",
    "barlow-condensed": "BarlowCondensed-Medium.ttf",
    "overpass": "Overpass-SemiBold.ttf",
}
Affine = tuple[float, float, float, float, float, float]
"""x' = a·x + c·y + e, y' = b·x + d·y + f."""
Stroke = tuple[tuple[float, float], ...]


class Pen(Protocol):
    """What an outline is drawn with (fontTools' segment pens)."""

    def moveTo(self, pt: tuple[float, float]) -> None:
        """Begin a contour."""


class Outlines(NamedTuple):
    """An outline font: units of a capital H, and how to draw and measure a character."""

    cap: float
    known: Callable[[str], bool]
    advance: Callable[[str], float]
    draw: Callable[[str, Any, Affine], None]


class Strokes(NamedTuple):
    """A single-stroke font: units of a capital H; each character's advance and its strokes, y up from the baseline."""

    cap: float
    characters: dict[str, tuple[float, tuple[Stroke, ...]]]


@cache
def outlines(name: str) -> Outlines:
    """An outline font by its name. :raises KeyError: no such font (a programming error)."""
    font = _opened(name)
    glyphs, cmap = font.getGlyphSet(), font.getBestCmap()
    pen = BoundsPen(glyphs)
    glyphs["H"].draw(pen)

    def draw(character: str, to: Any, affine: Affine) -> None:
        glyphs[cmap[ord(character)]].draw(TransformPen(to, affine))

    return Outlines(
        cap=float(pen.bounds[3]),
        known=lambda character: ord(character) in cmap,
        advance=lru_cache(maxsize=4096)(lambda character: float(glyphs[cmap[ord(character)]].width)),
        draw=draw,
    )


@cache
def glyph_set(name: str) -> Any:
    """fontTools' glyph set of an outline font, for pens that want one."""
    return _opened(name).getGlyphSet()


def _opened(name: str) -> Any:
    from fontTools.ttLib import TTFont  # takes a while to load, and is not needed at the start

    with (resources.files(__name__) / FILES[name]).open("rb") as stream:
        return TTFont(stream, lazy=False)


@cache
def strokes() -> Strokes:
    """The single-stroke font: Hershey's simplex, 21 units from baseline to the top of a capital."""
    from HersheyFonts import HersheyFonts  # likewise

    font = HersheyFonts()
    font.load_default_font("futural")
    characters: dict[str, tuple[float, tuple[Stroke, ...]]] = {}
    for code in range(32, 127):
        (glyph,) = list(font.glyphs_for_text(chr(code))) or [None]
        if glyph is None:
            continue
        lines = tuple(
            tuple((float(x - glyph.left_offset), float(glyph.base_line - y)) for x, y in line)
            for line in glyph.strokes
            if line
        )
        characters[chr(code)] = (float(glyph.char_width), lines)
    cap = max(y for line in characters["H"][1] for _, y in line)
    return Strokes(cap, characters)


def is_stroke(name: FontName) -> bool:
    """Whether the font is engraved along its lines instead of filled."""
    return name == "single-stroke"
