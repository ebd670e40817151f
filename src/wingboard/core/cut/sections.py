"""The section of a module at 1:1 for paper, along the line that meets most of its parts, with names and depths."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wingboard.core.face.lettering import loops, run
from wingboard.core.files.scene import Item, Scene
from wingboard.core.geometry.outline import Vertex, moved
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import sheets
from wingboard.core.stack.across import Across, section_of, usual_line

BAR = 0.4
"""How thick a bar behind is drawn (mm): only where it begins is known."""
CAP, ROW, LONGEST = 2.0, 3.6, 22
"""Height of the names' capitals, from one row of names to the next (mm), and their letters."""
ASIDE = 8.0
"""Dimension lines stand so far apart (mm) beside the section."""


def section_scene(r: Resolved, module: ResolvedModule) -> Scene:
    """Sheets, parts, screws, boards and bars as rectangles, the panel's front up.

    Under each part its name and how far behind the front it reaches; to the right the plate and the deepest, in mm.
    """
    start, end = usual_line(module)
    made = section_of(r, module, start, end)
    out = max((-p.z0 for p in made.pieces), default=0.0)
    deep = max((p.z1 for p in made.pieces), default=made.plate)
    names = list(_rows(made.pieces, made.length))
    foot = BAR + (2 + max((row for *_, row in names), default=-1)) * ROW
    front = deep + foot
    items = [_rectangle(p, front) for p in made.pieces if p.t1 - p.t0 > 1e-6]
    for middle, z, name, words, row in names:
        y = foot - BAR - (row + 1) * ROW
        leader = (Vertex(middle, front - z), Vertex(middle, y + CAP + 0.6))
        items.append(Item("engrave", leader, f"{name}, its leader", open=True, graphic=True))
        items += _words(words, middle, y, f"{name}, its name and depth")
    layers = ", ".join(f"{s.layer.name} {s.layer.thickness:g}" for s in sheets(module.stack))
    free = f"{layers}; deepest {made.deepest:.1f}, {made.free:.1f} free behind"
    items += _words(free, made.length / 2, 0.4, "layers and depth")
    right = made.length
    for n, (z, what) in enumerate([(made.plate, "plate"), (made.deepest, "deepest")], 1):
        items += _dimension(right + n * ASIDE, front, z, what)
    title = f"{r.design.name}, {module.module.name}: section through y {start[1]:g}, looking up, front at the top"
    return Scene(title, right + 2 * ASIDE + 4, front + out, 0.0, tuple(items))


def _rows(pieces: Sequence[Across], length: float) -> Iterator[tuple[float, float, str, str, int]]:
    """For each part: the middle of its body and its depth (mm), its name, what is written, and in which row."""
    deepest: dict[str, Across] = {}
    for p in pieces:
        if p.kind in ("body", "board", "tall") and (p.name not in deepest or p.z1 > deepest[p.name].z1):
            deepest[p.name] = p
    ends: list[float] = []
    for name, p in sorted(deepest.items(), key=lambda item: item[1].t0):
        words = f"{name[:LONGEST]} {p.z1:.1f}"
        middle, wide = (p.t0 + p.t1) / 2, run(words, CAP).width
        left = min(max(middle - wide / 2, 0.0), max(0.0, length - wide))
        row = next((n for n, taken in enumerate(ends) if taken + CAP < left), len(ends))
        ends[row : row + 1] = [left + wide]
        yield middle, p.z1, name, words, row


def _words(words: str, middle: float, y: float, label: str) -> Iterator[Item]:
    line = run(words, CAP)
    left = max(0.0, middle - line.width / 2)
    for loop in loops(line):
        yield Item("engrave", moved(loop, left, y), label)


def _dimension(x: float, front: float, depth: float, what: str) -> Iterator[Item]:
    """A line from the front surface to a depth, a tick at either end, and the figure beneath."""
    low = front - depth
    lines = [((x, front), (x, low)), *(((x - 1.5, y), (x + 1.5, y)) for y in (front, low))]
    for (x0, y0), (x1, y1) in lines:
        yield Item("engrave", (Vertex(x0, y0), Vertex(x1, y1)), f"{what}, dimension", open=True, graphic=True)
    yield from _words(f"{depth:.1f}", x, low - CAP - 1.2, f"{what}, figure")


def _rectangle(piece: Across, front: float) -> Item:
    low, high = front - piece.z1, front - piece.z0
    if piece.kind == "bar":
        low, high = low - BAR, low
    corners = ((piece.t0, low), (piece.t1, low), (piece.t1, high), (piece.t0, high))
    return Item("inner", tuple(Vertex(t, z) for t, z in corners), f"{piece.name}, {piece.kind}")
