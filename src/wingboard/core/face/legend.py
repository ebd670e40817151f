"""Words placed by rule: the name beside its control, a word at each position, a mark at each detent, symbols.

Sizes are the design's style, 5 : 4 : 3 unless changed (common practice).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from shapely import MultiPoint, Polygon

from wingboard.core.face.fonts import Stroke
from wingboard.core.face.lettering import Arc, Run, loops, run, stroke_lines
from wingboard.core.face.symbols import SYMBOLS, symbol
from wingboard.core.geometry.outline import Loop, flattened
from wingboard.core.geometry.rounded import Rounded, slab
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.functions import UNUSED
from wingboard.core.record.legends import Legend, Style
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Circle, Path, Rect, Shape
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

GAP = 1.6
"""Between words and what they belong to (mm)."""
MARK_LENGTH, MARK_WIDTH = 2.2, 0.6
"""A detent's mark (mm)."""
LINES = 1.5
"""From one line of a name to the next, in cap heights (common practice)."""
LENS_MARGIN = 1.0
"""Between the words on a lens, or its symbol, and its edge (mm)."""


class Word(NamedTuple):
    """A line of words or a symbol, its origin relative to the part's centre, not turned."""

    role: str
    run: Run
    x: float
    y: float
    box: Rounded
    symbol: str | None = None

    def loops(self) -> tuple[Loop, ...]:
        """Closed outlines about its own origin."""
        return symbol(self.symbol, self.run.cap).loops if self.symbol else loops(self.run)

    def strokes(self) -> tuple[Stroke, ...]:
        """Open strokes about its own origin, for a single-stroke font."""
        return () if self.symbol else stroke_lines(self.run)


class Mark(NamedTuple):
    """A stroke at a detent, or a dot: its middle relative to the part's centre, and its direction in degrees."""

    x: float
    y: float
    turn: float
    dot: bool = False


class Lettering(NamedTuple):
    """Everything engraved, or printed on its lens, for one function."""

    words: tuple[Word, ...]
    marks: tuple[Mark, ...]
    inside: bool


NOTHING = Lettering((), (), False)


def lettering(placed: Placed, style: Style) -> Lettering:
    """The words and marks of a placed part, relative to its centre."""
    function, part = placed.function, placed.part
    legend = function.legend
    if legend is None or legend.hidden:
        return NOTHING
    words = tuple("" if word == UNUSED else word for word in function.positions[: part.ways])
    angles = part.angles(len(words), legend.step)
    return _lettering(legend, words, angles, _frame(legend, part), part.detents is not None, placed.place.turn, style)


class Around(NamedTuple):
    """What words stand round, or in: a shape, its middle (x, y) from the middle of the part's hole."""

    shape: Shape
    x: float = 0.0
    y: float = 0.0


def _frame(legend: Legend, part: Part) -> Around:
    return Around(part.hole) if legend.side == "inside" else Around(part.cover, part.cover_x, part.cover_y)


def letterings(r: Resolved) -> dict[int, Lettering]:
    """The words and marks of every placed part, by its number."""
    return r.once("letterings", lambda: {p.number: lettering(p, r.design.style) for p in r.placed})


@lru_cache(maxsize=8192)
def _lettering(
    legend: Legend,
    words: tuple[str, ...],
    angles: tuple[float, ...],
    cover: Around,
    detents: bool,
    turn: float,
    style: Style,
) -> Lettering:
    placed: list[Word] = []
    marks: list[Mark] = []
    for text, angle in zip(words, angles, strict=True):
        direction = angle + turn
        reach = legend.radius or _support(cover, angle) + GAP
        if detents and legend.marks != "none":
            marks.append(_mark(direction, reach + MARK_LENGTH / 2 - GAP / 2, legend.marks == "dots"))
            reach += MARK_LENGTH
        if text:
            line = run(_cased(text, style), style.position_cap, style.font)
            placed.append(_radial("position", line, direction, reach))
    placed += _name(legend, cover, turn, placed, style)
    return Lettering(tuple(placed), tuple(marks), legend.side == "inside")


def _cased(text: str, style: Style) -> str:
    return text.upper() if style.upper else text


def _support(around: Around, angle: float) -> float:
    """How far the shape reaches from the middle of the hole in a direction (degrees)."""
    towards = around.x * math.cos(math.radians(angle)) + around.y * math.sin(math.radians(angle))
    return towards + _reach(around.shape, angle)


def _reach(shape: Shape, angle: float) -> float:
    if isinstance(shape, Circle):
        return shape.diameter / 2
    if isinstance(shape, Path):
        shape = Rect(width=shape.span[0], height=shape.span[1])
    c, s = abs(math.cos(math.radians(angle))), abs(math.sin(math.radians(angle)))
    radius = min(shape.radius, shape.width / 2, shape.height / 2)
    return (shape.width / 2 - radius) * c + (shape.height / 2 - radius) * s + radius


def _mark(direction: float, reach: float, dot: bool) -> Mark:
    a = math.radians(direction)
    return Mark(reach * math.cos(a), reach * math.sin(a), direction, dot)


def boxed(role: str, line: Run, cx: float, cy: float) -> Word:
    """A word whose outlines are centred on (cx, cy)."""
    x0, y0, x1, y1 = line.bounds
    x, y = cx - (x0 + x1) / 2, cy - (y0 + y1) / 2
    box = slab(max(x1 - x0, 0.1), max(y1 - y0, 0.1)).moved(cx, cy)
    return Word(role, line, round(x, 4), round(y, 4), box)


def drawn_symbol(name: str, size: float, x: float, y: float) -> Word:
    """A symbol as a word, its middle at (x, y); an unknown one becomes the warning sign."""
    known = name if name in SYMBOLS else "warning"
    picture = symbol(known, size)
    line = Run(known, size, "barlow-semi-condensed", size, (-size / 2, -size / 2, size / 2, size / 2), picture.path, "")
    return Word("symbol", line, x, y, slab(size, size).moved(x, y), known)


def _radial(role: str, line: Run, direction: float, reach: float) -> Word:
    x0, _, x1, _ = line.bounds
    c, s = math.cos(math.radians(direction)), math.sin(math.radians(direction))
    out = reach + abs(c) * (x1 - x0) / 2 + abs(s) * line.cap / 2
    return boxed(role, line, out * c, out * s)


def _name(legend: Legend, cover: Around, turn: float, others: list[Word], style: Style) -> list[Word]:
    if legend.symbol:
        return [_symbol(legend, cover, turn, others, style)]
    if not legend.text:
        return []
    if legend.side == "inside":
        return _on_lens(legend, cover.shape, style)
    cap = legend.cap or style.name_cap
    if legend.curved and legend.side == "above":
        return [_curved(_cased(legend.text.replace("|", " "), style), cap, cover, turn, others, style)]
    lines = [run(_cased(t.strip(), style), cap, style.font) for t in legend.text.split("|")]
    if legend.side in ("left", "right"):
        return _beside(legend, lines, cap, cover, turn, others)
    return _stacked(legend, lines, cap, cover, turn, others)


def _stacked(
    legend: Legend, lines: list[Run], cap: float, cover: Around, turn: float, others: list[Word]
) -> list[Word]:
    half = max(line.bounds[2] - line.bounds[0] for line in lines) / 2
    pitch = cap * LINES
    if legend.side == "above":
        y = max([_support(cover, 90 - turn), *(_edge(w, half, 3) for w in others)]) + GAP + pitch * (len(lines) - 1)
    else:
        y = min([-_support(cover, 270 - turn), *(_edge(w, half, 1) for w in others)]) - GAP - cap
    made = []
    for n, line in enumerate(lines):
        middle = (line.bounds[1] + line.bounds[3]) / 2
        made.append(boxed("name", line, legend.dx, y - n * pitch + legend.dy + middle))
    return made


def _beside(legend: Legend, lines: list[Run], cap: float, cover: Around, turn: float, others: list[Word]) -> list[Word]:
    side = 1 if legend.side == "right" else -1
    reach = (
        max(
            [
                _support(cover, (0 if side > 0 else 180) - turn),
                *(side * w.box.bounds[2 if side > 0 else 0] for w in others),
            ]
        )
        + GAP
    )
    top = cap * LINES * (len(lines) - 1) / 2
    made = []
    for n, line in enumerate(lines):
        wide = line.bounds[2] - line.bounds[0]
        made.append(boxed("name", line, side * (reach + wide / 2) + legend.dx, top - n * cap * LINES + legend.dy))
    return made


def _curved(text: str, cap: float, cover: Around, turn: float, others: list[Word], style: Style) -> Word:
    """The name round the control, outside its position words."""
    reach = max([_support(cover, 90), *(math.hypot(x, y) for w in others for x, y in _corners(w.box))]) + GAP
    line = run(text, cap, style.font, Arc(round(reach, 3), 90.0))
    drawn = (*(flattened(loop, 0.2) for loop in loops(line)), *stroke_lines(line))
    hull = MultiPoint([p for points in drawn for p in points] or [(0.0, reach)]).convex_hull
    core = hull if isinstance(hull, Polygon) else slab(0.1, 0.1).moved(0, reach).core
    return Word("name", line, 0.0, 0.0, Rounded(core, 0.0))


def _corners(box: Rounded) -> tuple[tuple[float, float], ...]:
    x0, y0, x1, y1 = box.bounds
    return (x0, y0), (x1, y0), (x1, y1), (x0, y1)


def _edge(word: Word, half: float, side: int) -> float:
    """The word's upper (3) or lower (1) edge where it lies over a centred name of that half width, else 0."""
    x0, _, x1, _ = word.box.bounds
    return word.box.bounds[side] if x0 < half + GAP and x1 > -half - GAP else 0.0


def _on_lens(legend: Legend, lens: Shape, style: Style) -> list[Word]:
    texts = [_cased(t.strip(), style) for t in legend.text.split("|")]
    cap = min(_fitting_cap(t, legend.cap or style.position_cap, lens, len(texts), style) for t in texts)
    top = cap * LINES * (len(texts) - 1) / 2
    return [
        boxed("name", run(t, cap, style.font), legend.dx, legend.dy + top - n * cap * LINES)
        for n, t in enumerate(texts)
    ]


def _fitting_cap(text: str, cap: float, lens: Shape, lines: int, style: Style) -> float:
    wide, high = (side - 2 * LENS_MARGIN for side in lens.span)
    line = run(text, cap, style.font)
    width = max(line.bounds[2] - line.bounds[0], 1e-6)
    tall = cap * (1 + LINES * (lines - 1))
    return round(cap * min(1.0, wide / width, high / tall), 2)


def _symbol(legend: Legend, cover: Around, turn: float, others: list[Word], style: Style) -> Word:
    name = legend.symbol or "warning"
    if legend.side == "inside":
        size = max(0.5, min(cover.shape.span) - 2 * LENS_MARGIN)
        return drawn_symbol(name, round(size, 2), legend.dx, legend.dy)
    size = (legend.cap or style.name_cap) * 1.6
    sign = -1 if legend.side == "below" else 1
    reach = max([_support(cover, sign * 90 - turn), *(sign * w.box.bounds[3 if sign > 0 else 1] for w in others)])
    return drawn_symbol(name, round(size, 2), legend.dx, sign * (reach + GAP + size / 2) + legend.dy)


Words = tuple[ShapeSet, tuple[tuple[Placed, Word], ...]]


def words_on_panel(r: Resolved) -> Words:
    """The boxes of all functions' words on the face (those on lenses apart), in the opening's coordinates, and each."""

    def compute() -> Words:
        found = [
            (placed, word)
            for module in r.modules.values()
            for placed in module.placed
            for letters in (letterings(r)[placed.number],)
            if not letters.inside
            for word in letters.words
        ]
        at = [r.modules[p.place.module].frame.point(p.place.x, p.place.y) for p, _ in found]
        return ShapeSet([w.box for _, w in found], [p.number for p, _ in found], at), tuple(found)

    return r.once("words on the panel", compute)


def words_inside(r: Resolved, module: ResolvedModule) -> Iterator[tuple[int, float]]:
    """Of each word on a module, by its index in :func:`words_on_panel`, how far (mm) it stays inside the plate."""
    shapes, found = words_on_panel(r)
    which = np.array([i for i, (placed, _) in enumerate(found) if placed.place.module == module.module.id], dtype=int)
    yield from zip(which.tolist(), shapes.margins_of(which, module.area_in_opening).tolist(), strict=True)
