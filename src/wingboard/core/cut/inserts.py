"""Inserts for lenses: what is printed on film and laid behind them, at true size, left for right, with cut marks."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.face.legend import Lettering, letterings
from wingboard.core.face.lettering import loops, run
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import Loop, Vertex, mirrored, moved
from wingboard.core.record.shapes import Circle
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

ROW = 170.0
"""Inserts stand in rows no longer than this (mm), so that a page takes one."""
APART, NAMED, CAP = 9.0, 6.0, 2.2
"""Between inserts, room for a name under each, height of its capitals (mm)."""
MARK, CLEAR = 3.0, 1.0
"""A cut mark's length, and how far it keeps from the corner (mm)."""


class _Insert(NamedTuple):
    placed: Placed
    letters: Lettering
    width: float
    height: float


def insert_scene(r: Resolved, module: ResolvedModule) -> Scene | None:
    """All inserts of a module on one sheet, mirrored: the print lies on the side that touches the lens.

    None where nothing is written on a lens.
    """
    found = list(_inserts(r, module))
    if not found:
        return None
    items: list[Item] = []
    x, y, tall, wide = APART, APART, 0.0, 0.0
    for insert in found:
        if x > APART and x + insert.width > ROW:
            x, y, tall = APART, y + tall + NAMED + APART, 0.0
        items += _drawn(insert, x + insert.width / 2, y + NAMED + insert.height / 2)
        x += insert.width + APART
        tall, wide = max(tall, insert.height), max(wide, x)
    title = f"{r.design.name}, {module.module.name}: lens inserts, mirrored"
    return Scene(title, wide, y + tall + NAMED + APART, 0.0, tuple(items))


def _inserts(r: Resolved, module: ResolvedModule) -> Iterator[_Insert]:
    for placed in module.placed:
        letters = letterings(r)[placed.number]
        if letters.inside and letters.words:
            yield _Insert(placed, letters, *placed.part.hole.span)


def _drawn(insert: _Insert, x: float, y: float) -> Iterator[Item]:
    name, hole = insert.placed.function.name, insert.placed.part.hole
    edge = CirclePath(x, y, hole.diameter) if isinstance(hole, Circle) else moved(hole.loop(), x, y)
    yield Item("inner", edge, f"{name}, cut line")
    for word in insert.letters.words:
        for loop in word.loops():
            turned_over = moved(mirrored(moved(loop, word.x, word.y), 0.0), x, y)
            yield Item("engrave", turned_over, f"{name}, {word.run.text or word.symbol}")
        for stroke in word.strokes():
            points = tuple(Vertex(-(px + word.x) + x, py + word.y + y) for px, py in stroke)
            yield Item("engrave", points, name, open=True)
    yield from _marks(insert, x, y)
    label = run(name[:24], CAP)
    for loop in loops(label):
        yield Item("engrave", moved(loop, x - label.width / 2, y - insert.height / 2 - NAMED + 1), f"{name}, its name")


def _marks(insert: _Insert, x: float, y: float) -> Iterator[Item]:
    """Two short lines at each corner of the box round an insert, that go on its edges."""
    for sx in (-1, 1):
        for sy in (-1, 1):
            cx, cy = x + sx * insert.width / 2, y + sy * insert.height / 2
            for dx, dy in ((sx, 0), (0, sy)):
                near = Vertex(cx + dx * CLEAR, cy + dy * CLEAR)
                far = Vertex(cx + dx * (CLEAR + MARK), cy + dy * (CLEAR + MARK))
                path: Loop = (near, far)
                yield Item("engrave", path, f"{insert.placed.function.name}, cut mark", open=True)
