"""The section of a module at 1:1 for paper, along the line that meets most of its parts."""

from __future__ import annotations

from wingboard.core.files.scene import Item, Scene
from wingboard.core.geometry.outline import Vertex
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.across import Across, section_of, usual_line

BAR = 0.4
"""How thick a bar behind is drawn (mm): only where it begins is known."""


def section_scene(r: Resolved, module: ResolvedModule) -> Scene:
    """Sheets, parts, screws, boards and bars as rectangles, the panel's front up."""
    start, end = usual_line(module)
    made = section_of(r, module, start, end)
    out = max((-p.z0 for p in made.pieces), default=0.0)
    deep = max((p.z1 for p in made.pieces), default=made.plate)
    items = tuple(_rectangle(p, deep) for p in made.pieces if p.t1 - p.t0 > 1e-6)
    title = f"{r.design.name}, {module.module.name}: section through y {start[1]:g}, looking up, front at the top"
    return Scene(title, made.length, deep + out + BAR, 0.0, items)


def _rectangle(piece: Across, deep: float) -> Item:
    low, high = deep - piece.z1, deep - piece.z0
    if piece.kind == "bar":
        low, high = low - BAR, low
    corners = ((piece.t0, low), (piece.t1, low), (piece.t1, high), (piece.t0, high))
    shifted = tuple(Vertex(t, z + BAR) for t, z in corners)
    return Item("inner", shifted, f"{piece.name}, {piece.kind}")
