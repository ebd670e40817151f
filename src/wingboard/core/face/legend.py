"""Words placed by rule: the name above or below its control, a word at each position, a mark at each detent.

Sizes are common practice: panel name 5 mm, control name 4, position 3 (cap heights 5 : 4 : 3).
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import NamedTuple

from wingboard.core.design.model import Legend
from wingboard.core.design.resolved import Placed, Resolved, ResolvedPanel
from wingboard.core.design.shapes import Circle, Path, Rect, Shape
from wingboard.core.face.lettering import Run, run
from wingboard.core.geometry.rounded import Rounded, slab
from wingboard.core.geometry.shapeset import ShapeSet

NAME_CAP = 4.0
POSITION_CAP = 3.0
GAP = 1.6
"""Between words and what they belong to (mm)."""
MARK_LENGTH, MARK_WIDTH = 2.2, 0.6
"""A detent's mark (mm)."""


class Word(NamedTuple):
    """A line of words, its origin relative to the part's centre, not turned."""

    role: str
    run: Run
    x: float
    y: float
    box: Rounded


class Mark(NamedTuple):
    """A stroke at a detent: its middle relative to the part's centre, and its direction in degrees."""

    x: float
    y: float
    turn: float


class Lettering(NamedTuple):
    """Everything engraved, or printed on its lens, for one function."""

    words: tuple[Word, ...]
    marks: tuple[Mark, ...]
    inside: bool


def lettering(placed: Placed) -> Lettering:
    """The words and marks of a placed part, relative to its centre."""
    function, part = placed.function, placed.part
    legend = function.legend
    if legend is None:
        return Lettering((), (), False)
    words = function.positions[: part.ways]
    angles = part.angles(len(words), legend.step)
    frame = part.hole if legend.side == "inside" else part.cover
    return _lettering(legend, words, angles, frame, part.detents is not None, placed.place.turn)


def letterings(r: Resolved) -> dict[int, Lettering]:
    """The words and marks of every placed part, by its number."""
    return r.once("letterings", lambda: {p.number: lettering(p) for p in r.placed})


@lru_cache(maxsize=8192)
def _lettering(
    legend: Legend, words: tuple[str, ...], angles: tuple[float, ...], cover: Shape, ticks: bool, turn: float
) -> Lettering:
    placed: list[Word] = []
    marks: list[Mark] = []
    for text, angle in zip(words, angles, strict=True):
        direction = angle + turn
        reach = _support(cover, angle) + GAP
        if ticks:
            marks.append(_mark(direction, reach + MARK_LENGTH / 2 - GAP / 2))
            reach += MARK_LENGTH
        if text:
            placed.append(_radial("position", run(text, POSITION_CAP), direction, reach))
    if legend.text:
        placed.append(_name(legend, cover, turn, placed))
    return Lettering(tuple(placed), tuple(marks), legend.side == "inside")


def _support(shape: Shape, angle: float) -> float:
    """How far the shape reaches from its centre in a direction (degrees)."""
    if isinstance(shape, Circle):
        return shape.diameter / 2
    if isinstance(shape, Path):
        shape = Rect(width=shape.span[0], height=shape.span[1])
    c, s = abs(math.cos(math.radians(angle))), abs(math.sin(math.radians(angle)))
    radius = min(shape.radius, shape.width / 2, shape.height / 2)
    return (shape.width / 2 - radius) * c + (shape.height / 2 - radius) * s + radius


def _mark(direction: float, reach: float) -> Mark:
    a = math.radians(direction)
    return Mark(reach * math.cos(a), reach * math.sin(a), direction)


def _boxed(role: str, line: Run, cx: float, cy: float) -> Word:
    """A word whose outlines are centred on (cx, cy)."""
    x0, y0, x1, y1 = line.bounds
    x, y = cx - (x0 + x1) / 2, cy - (y0 + y1) / 2
    box = slab(max(x1 - x0, 0.1), max(y1 - y0, 0.1)).moved(cx, cy)
    return Word(role, line, round(x, 4), round(y, 4), box)


def _radial(role: str, line: Run, direction: float, reach: float) -> Word:
    x0, _, x1, _ = line.bounds
    c, s = math.cos(math.radians(direction)), math.sin(math.radians(direction))
    out = reach + abs(c) * (x1 - x0) / 2 + abs(s) * line.cap / 2
    return _boxed(role, line, out * c, out * s)


def _name(legend: Legend, cover: Shape, turn: float, others: list[Word]) -> Word:
    cap = legend.cap or NAME_CAP
    if legend.side == "inside":
        line = _fitted(legend.text, legend.cap or POSITION_CAP, cover)
        return _boxed("name", line, legend.dx, legend.dy)
    line = run(legend.text, cap)
    half = (line.bounds[2] - line.bounds[0]) / 2
    if legend.side == "above":
        top = max([_support(cover, 90 - turn), *(_edge(w, half, 3) for w in others)])
        y = top + GAP
    else:
        bottom = min([-_support(cover, 90 - turn), *(_edge(w, half, 1) for w in others)])
        y = bottom - GAP - cap
    middle = (line.bounds[1] + line.bounds[3]) / 2
    return _boxed("name", line, legend.dx, y + legend.dy + middle)


def _edge(word: Word, half: float, side: int) -> float:
    """The word's upper (3) or lower (1) edge where it lies over a centred name of that half width, else 0."""
    x0, _, x1, _ = word.box.bounds
    return word.box.bounds[side] if x0 < half + GAP and x1 > -half - GAP else 0.0


def _fitted(text: str, cap: float, lens: Shape) -> Run:
    room = lens.span[0] - 2.0
    line = run(text, cap)
    width = line.bounds[2] - line.bounds[0]
    return line if width <= room else run(text, round(cap * room / width, 2))


def words_on(r: Resolved, panel: ResolvedPanel) -> tuple[ShapeSet, tuple[tuple[Placed, Word], ...]]:
    """The boxes of all words on the face of a panel (those on lenses apart), and what each is."""

    def compute() -> tuple[ShapeSet, tuple[tuple[Placed, Word], ...]]:
        found = [
            (placed, word)
            for placed in panel.placed
            for letters in (letterings(r)[placed.number],)
            if not letters.inside
            for word in letters.words
        ]
        at = [(p.place.x, p.place.y) for p, _ in found]
        return ShapeSet([w.box for _, w in found], [p.number for p, _ in found], at), tuple(found)

    return r.once(f"words on {panel.panel.id}", compute)
