"""The panel at 1:1 for paper, card or foam board: its face, and its rear as seen from behind."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.cut.scenes import graphic_items, lettering_items
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import Vertex, moved, turned
from wingboard.core.record.shapes import Circle, Shape
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed


def mockup_face(r: Resolved, module: ResolvedModule, engraved: Sequence[Item] | None = None) -> Scene:
    """What an eye sees: covers, holes with their centre marks, words and graphics.

    :param engraved: the words and graphics, where the face's own scene has them already.
    """
    items = list(engraved) if engraved is not None else [*lettering_items(r, module), *graphic_items(r, module)]
    for placed in module.placed:
        items += [
            _outline(placed, placed.part.cover, "what covers the face", placed.part.cover_x, placed.part.cover_y),
            _outline(placed, placed.part.hole, "hole"),
        ]
    return _scene(r, module, "mock-up of the face", items)


def mockup_rear(r: Resolved, module: ResolvedModule) -> Scene:
    """What a hand meets behind, left for right: bodies, clamps, holes with their centre marks."""
    items = []
    for placed in module.placed:
        items += [_outline(placed, placed.part.hole, "hole"), *_bodies(placed)]
    return _scene(r, module, "mock-up of the rear, seen from behind", items).seen_from_behind()


def _scene(r: Resolved, module: ResolvedModule, what: str, items: list[Item]) -> Scene:
    width, height = module.size
    screws = [Item("inner", CirclePath(f.x, f.y, f.hole), f.name) for f in module.fixings]
    outline = Item("outline", module.loop, module.module.name)
    return Scene(f"{r.design.name}, {module.module.name}: {what}", width, height, 0.0, (*items, *screws, outline))


def _bodies(placed: Placed) -> list[Item]:
    return [_outline(placed, s.shape, "body", s.x, s.y, s.turn) for s in placed.behind]


def _outline(placed: Placed, shape: Shape, what: str, dx: float = 0.0, dy: float = 0.0, turn: float = 0.0) -> Item:
    label = f"{placed.function.name}, {what}"
    if isinstance(shape, Circle) and not dx and not dy:
        return Item("inner", CirclePath(placed.place.x, placed.place.y, shape.diameter), label)
    loop = _ring(shape.diameter) if isinstance(shape, Circle) else shape.loop()
    return Item(
        "inner",
        moved(turned(moved(turned(loop, turn), dx, dy), placed.place.turn), placed.place.x, placed.place.y),
        label,
    )


def _ring(diameter: float) -> tuple[Vertex, ...]:
    """A circle as two half turns."""
    return Vertex(-diameter / 2, 0.0, 1.0), Vertex(diameter / 2, 0.0, 1.0)
