"""Brackets, boxes, texts, placards and symbols on the face: their lines, their words and the room they take."""

from __future__ import annotations

from typing import NamedTuple

from shapely import box as rectangle

from wingboard.core.face.legend import Word, boxed, drawn_symbol, letterings
from wingboard.core.face.lettering import Run, run
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.legends import Graphic, Style
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

LINE = 0.6
"""Width of an engraved line (mm)."""
DROP = 3.0
"""How far the ends of a bracket come down (mm)."""
BREAK = 2.0
"""Left free on both sides of a title in its line (mm)."""
PLACARD_ROOM = 2.5
"""Between a placard's words and its frame (mm)."""
Segment = tuple[float, float, float, float]


FIRST_GRAPHIC = -1_000_000
"""The owner number of the first graphic; those of parts are above nothing, those of screws just below."""


class Drawing(NamedTuple):
    """A graphic as it is engraved, in the module's coordinates (mm)."""

    graphic: Graphic
    words: tuple[Word, ...]
    lines: tuple[Segment, ...]
    room: tuple[float, float, float, float]


def graphics_on(r: Resolved, module: ResolvedModule) -> tuple[Drawing, ...]:
    """Every graphic of a module, drawn."""

    def compute() -> tuple[Drawing, ...]:
        return tuple(_drawn(r, module, g) for g in r.design.graphics if g.module == module.module.id)

    return r.once(f"graphics on {module.module.id}", compute)


def _drawn(r: Resolved, module: ResolvedModule, graphic: Graphic) -> Drawing:
    style = r.design.style
    if graphic.kind == "bracket":
        return _bracket(graphic, style, *_span(r, module, graphic))
    if graphic.kind == "box":
        return _box(graphic, style)
    if graphic.kind == "symbol":
        size = graphic.cap or style.name_cap * 1.6
        word = drawn_symbol(graphic.symbol or "warning", size, graphic.x, graphic.y)
        return Drawing(graphic, (word,), (), word.box.bounds)
    words = _lines(graphic, style)
    x0, y0 = min(w.box.bounds[0] for w in words), min(w.box.bounds[1] for w in words)
    x1, y1 = max(w.box.bounds[2] for w in words), max(w.box.bounds[3] for w in words)
    if graphic.kind == "text":
        return Drawing(graphic, words, (), (x0, y0, x1, y1))
    room = (x0 - PLACARD_ROOM, y0 - PLACARD_ROOM, x1 + PLACARD_ROOM, y1 + PLACARD_ROOM)
    return Drawing(graphic, words, _frame(*room), room)


def cap_of(graphic: Graphic, style: Style) -> float:
    """The cap height (mm) of a graphic's words: its own, or its role's."""
    return (
        graphic.cap or {"panel": style.panel_cap, "name": style.name_cap, "position": style.position_cap}[graphic.role]
    )


def _set(text: str, graphic: Graphic, style: Style) -> Run:
    return run(text.upper() if style.upper else text, cap_of(graphic, style), style.font)


def _lines(graphic: Graphic, style: Style) -> tuple[Word, ...]:
    texts = [t.strip() for t in graphic.text.split("|")]
    pitch = cap_of(graphic, style) * 1.5
    top = pitch * (len(texts) - 1) / 2
    return tuple(
        boxed(graphic.role, _set(t, graphic, style), graphic.x, graphic.y + top - n * pitch)
        for n, t in enumerate(texts)
    )


def _span(r: Resolved, module: ResolvedModule, graphic: Graphic) -> tuple[float, float, float]:
    """Left, right and height (mm) of a bracket: over its functions and their words, or as stated."""
    ids = set(graphic.functions)
    spanned = [p for p in module.placed if p.function.id in ids]
    if not spanned:
        return graphic.x, graphic.x + max(graphic.width, 1.0), graphic.y
    reaches = [_reach(r, p) for p in spanned]
    left, right = min(b[0] for b in reaches), max(b[2] for b in reaches)
    return left, right, max(b[3] for b in reaches) + 2.5 + cap_of(graphic, r.design.style) / 2 + graphic.y


def _reach(r: Resolved, placed: Placed) -> tuple[float, float, float, float]:
    """What a part and its words cover, on its module; ``y`` of a bracket over parts is added to its height."""
    boxes = [placed.part.covered().turned(placed.place.turn).bounds]
    letters = letterings(r)[placed.number]
    boxes += [w.box.bounds for w in letters.words if not letters.inside]
    x, y = placed.place.x, placed.place.y
    return (
        min(b[0] for b in boxes) + x,
        min(b[1] for b in boxes) + y,
        max(b[2] for b in boxes) + x,
        max(b[3] for b in boxes) + y,
    )


def _bracket(graphic: Graphic, style: Style, left: float, right: float, y: float) -> Drawing:
    words = (boxed(graphic.role, _set(graphic.text, graphic, style), (left + right) / 2, y),) if graphic.text else ()
    lines = (*_broken(left, right, y, words), (left, y, left, y - DROP), (right, y, right, y - DROP))
    high = max([y, *(w.box.bounds[3] for w in words)])
    return Drawing(graphic, words, lines, (left, y - DROP, right, high))


def _broken(left: float, right: float, y: float, words: tuple[Word, ...]) -> tuple[Segment, ...]:
    """A level line with room for the title in it; nothing is left of it where the title is longer."""
    if not words:
        return ((left, y, right, y),)
    x0, _, x1, _ = words[0].box.bounds
    pieces = ((left, y, x0 - BREAK, y), (x1 + BREAK, y, right, y))
    return tuple(p for p in pieces if p[2] - p[0] > 0.2)


def _box(graphic: Graphic, style: Style) -> Drawing:
    x0, y0, x1, y1 = graphic.x, graphic.y, graphic.x + graphic.width, graphic.y + graphic.height
    words = (boxed(graphic.role, _set(graphic.text, graphic, style), (x0 + x1) / 2, y1),) if graphic.text else ()
    sides = ((x0, y0, x1, y0), (x0, y0, x0, y1), (x1, y0, x1, y1))
    return Drawing(graphic, words, (*sides, *_broken(x0, x1, y1, words)), (x0, y0, x1, y1))


def _frame(x0: float, y0: float, x1: float, y1: float) -> tuple[Segment, ...]:
    return (x0, y0, x1, y0), (x1, y0, x1, y1), (x1, y1, x0, y1), (x0, y1, x0, y0)


def taken_by(drawing: Drawing) -> list[Rounded]:
    """What a graphic takes of the face: its words and lines; of a placard everything inside its frame."""
    if drawing.graphic.kind == "placard":
        return [Rounded(rectangle(*drawing.room), LINE / 2)]
    shapes = [word.box for word in drawing.words]
    return shapes + [Rounded(rectangle(*_ordered(line)), LINE / 2) for line in drawing.lines]


def _ordered(line: Segment) -> Segment:
    x0, y0, x1, y1 = line
    return min(x0, x1) - 1e-3, min(y0, y1) - 1e-3, max(x0, x1) + 1e-3, max(y0, y1) + 1e-3


def graphic_shapes(r: Resolved) -> tuple[ShapeSet, tuple[tuple[ResolvedModule, Drawing], ...]]:
    """The shapes of all graphics, in the opening's coordinates, and of each its module and its graphic."""

    def compute() -> tuple[ShapeSet, tuple[tuple[ResolvedModule, Drawing], ...]]:
        drawings = [(m, d) for m in r.modules.values() for d in graphics_on(r, m)]
        found = [(shape, n, m, d) for n, (m, d) in enumerate(drawings) for shape in taken_by(d)]
        at = [m.frame.point(0.0, 0.0) for _, _, m, _ in found]
        owners = [FIRST_GRAPHIC - n for _, n, _, _ in found]
        return ShapeSet([s for s, *_ in found], owners, at), tuple((m, d) for *_, m, d in found)

    return r.once("graphic shapes", compute)
