"""Words as paths, from the fonts that ship with the core. Cap height is the height of a capital H, not of the font.

What is returned is path data, closed loops and open strokes: nothing downstream needs a font. A line may run straight
from its origin, or along an arc about its origin.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

from fontTools.pens.boundsPen import BoundsPen

from wingboard.core.face.fonts import Affine, Stroke, glyph_set, is_stroke, outlines, strokes
from wingboard.core.face.glyphs import Box, steps, upright_bounds, upright_loops, upright_steps
from wingboard.core.geometry.outline import Loop, moved, turned
from wingboard.core.quantity import short
from wingboard.core.record.legends import FontName

FONT: FontName = "barlow-semi-condensed"
SPACING = 0.04
"""Extra room between letters, in cap heights: engraved strokes read better slightly apart (common practice)."""
WIDTH = 1 / 8
"""Width of an engraved single stroke in cap heights: 1/6 to 1/8 (common practice)."""


class Arc(NamedTuple):
    """A circle about the origin that the baseline follows, clockwise; ``middle`` is where the line's middle stands."""

    radius: float
    middle: float


class Run(NamedTuple):
    """A line of text, y up, in mm: its origin at the left end of the baseline, or at the centre of its arc."""

    text: str
    cap: float
    font: FontName
    width: float
    bounds: tuple[float, float, float, float]
    path: str
    missing: str
    """The characters the font does not have; they are left out."""
    arc: Arc | None = None

    @property
    def stroke(self) -> float | None:
        """Width (mm) of the stroke to engrave along the path; None for outlines, which are filled."""
        return round(self.cap * WIDTH, 3) if is_stroke(self.font) else None


@lru_cache(maxsize=8192)
def run(text: str, cap: float, font: FontName = FONT, arc: Arc | None = None) -> Run:
    """Set a line of text.

    :param cap: height (mm) of a capital H.
    :returns: its paths; empty text or text without a single known character gives an empty path of no width.
    """
    missing = "".join(ch for ch in text if not _known(ch, font))
    width = _width(text, cap, font)
    if is_stroke(font):
        lines = _stroke_lines(text, cap, font, width, arc)
        path = "".join("M" + "L".join(f"{short(x)} {short(y)}" for x, y in line) for line in lines)
        box = _box([p for line in lines for p in line], cap * WIDTH / 2)
        return Run(text, cap, font, width, box, path, missing, arc)
    path, box = _outlined(text, cap, font, width, arc)
    return Run(text, cap, font, width, box, path, missing, arc)


def _outlined(text: str, cap: float, font: FontName, width: float, arc: Arc | None) -> tuple[str, Box]:
    """Path data and bounds of a line in an outline font."""
    path: list[str] = []
    boxes: list[Box] = []
    for character, affine in _placed(text, cap, font, width, arc):
        x, y = affine[4], affine[5]
        if arc is None:
            drawn, found = upright_steps(font, character, affine[0]), upright_bounds(font, character)
            box = found and tuple(v * affine[0] + (x if n % 2 == 0 else y) for n, v in enumerate(found))
        else:
            drawn = steps(font, character, (*affine[:4], 0.0, 0.0))
            pen = BoundsPen(glyph_set(font))
            outlines(font).draw(character, pen, affine)
            box = pen.bounds
        if drawn:
            path.append(f"M{short(x)} {short(y)}{drawn}")
        if box:
            boxes.append((box[0], box[1], box[2], box[3]))
    whole = (
        min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes),
    ) if boxes else (0.0, 0.0, 0.0, 0.0)  # fmt: skip
    return "".join(path), whole


@lru_cache(maxsize=4096)
def loops(line: Run) -> tuple[Loop, ...]:
    """The outlines of a run, their curves as arcs (:data:`~wingboard.core.face.glyphs.TOLERANCE`); none for strokes."""
    if is_stroke(line.font):
        return ()
    found: list[Loop] = []
    for character, (a, b, _, _, x, y) in _placed(line.text, line.cap, line.font, line.width, line.arc):
        upright = upright_loops(line.font, character, math.hypot(a, b) if b else a)
        turn = math.degrees(math.atan2(b, a))
        found += [moved(turned(loop, turn) if b else loop, x, y) for loop in upright]
    return tuple(found)


def stroke_lines(line: Run) -> tuple[Stroke, ...]:
    """The strokes of a single-stroke run as open lines; none for outline fonts."""
    if not is_stroke(line.font):
        return ()
    return _stroke_lines(line.text, line.cap, line.font, line.width, line.arc)


def _known(character: str, font: FontName) -> bool:
    return character in strokes().characters if is_stroke(font) else outlines(font).known(character)


def _advance(character: str, cap: float, font: FontName) -> float:
    if is_stroke(font):
        return strokes().characters[character][0] * cap / strokes().cap
    return outlines(font).advance(character) * cap / outlines(font).cap


def _width(text: str, cap: float, font: FontName) -> float:
    known = [ch for ch in text if _known(ch, font)]
    return math.fsum(_advance(ch, cap, font) for ch in known) + SPACING * cap * max(0, len(known) - 1)


def _placed(text: str, cap: float, font: FontName, width: float, arc: Arc | None) -> Iterator[tuple[str, Affine]]:
    """Each character that the font has, and the transform from its units to mm."""
    scale = cap / (strokes().cap if is_stroke(font) else outlines(font).cap)
    x = 0.0
    for character in text:
        if not _known(character, font):
            continue
        advance = _advance(character, cap, font)
        if arc is None:
            yield character, (scale, 0.0, 0.0, scale, x, 0.0)
        else:
            yield character, _round(arc, scale, x + advance / 2 - width / 2, advance)
        x += advance + SPACING * cap


def _round(arc: Arc, scale: float, along: float, advance: float) -> Affine:
    """The character whose middle lies ``along`` mm from the line's middle, upright to the circle."""
    direction = math.radians(arc.middle) - along / arc.radius
    turn = direction - math.pi / 2
    c, s = math.cos(turn), math.sin(turn)
    x = arc.radius * math.cos(direction) - advance / 2 * c
    y = arc.radius * math.sin(direction) - advance / 2 * s
    return scale * c, scale * s, -scale * s, scale * c, x, y


def _stroke_lines(text: str, cap: float, font: FontName, width: float, arc: Arc | None) -> tuple[Stroke, ...]:
    made = []
    for character, (a, b, c, d, e, f) in _placed(text, cap, font, width, arc):
        for line in strokes().characters[character][1]:
            made.append(tuple((a * x + c * y + e, b * x + d * y + f) for x, y in line))
    return tuple(made)


def _box(points: list[tuple[float, float]], room: float) -> tuple[float, float, float, float]:
    if not points:
        return 0.0, 0.0, 0.0, 0.0
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs) - room, min(ys) - room, max(xs) + room, max(ys) + room
