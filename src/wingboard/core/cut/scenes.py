"""From a resolved panel to the scenes its files are written from: one a layer, one for the lenses' film."""

from __future__ import annotations

import math

from wingboard.core.design.model import Layer
from wingboard.core.design.profile import plates
from wingboard.core.design.resolved import Placed, PlacedCutout, Resolved, ResolvedPanel
from wingboard.core.design.shapes import Circle
from wingboard.core.face.legend import MARK_LENGTH, MARK_WIDTH, Mark, Word, lettering
from wingboard.core.face.lettering import contours
from wingboard.core.files.scene import CirclePath, Item, Operation, Scene, polygon_loop
from wingboard.core.geometry.outline import moved, rounded_rectangle, turned


def layer_scene(r: Resolved, panel: ResolvedPanel, layer: Layer) -> Scene:
    """Everything to make on one layer of a panel, seen from the front, origin at the panel's lower left corner.

    Openings go through (``inner``) unless cut from behind to a depth (``pocket``); words are engraved on the face.
    """
    items = []
    if layer.role == "face":
        items += [item for placed in panel.placed for item in _engraved(placed)]
    names = {f.id: f.name for f in r.design.functions}
    cuts = panel.cutouts(layer.id)
    items += [_cut(cut, names) for cut in cuts if cut.depth is not None]
    items += [_cut(cut, names) for cut in cuts if cut.depth is None]
    items.append(Item("outline", panel.loop, panel.panel.name))
    return _scene(r, panel, layer.name, layer.thickness, tuple(items))


def film_scene(r: Resolved, panel: ResolvedPanel) -> Scene | None:
    """The captions' lenses with their words, to print on film; None when the panel has no lens with words."""
    items: list[Item] = []
    for placed in panel.placed:
        letters = lettering(placed)
        if letters.inside and letters.words:
            items += [item for word in letters.words for item in _word(placed, word)]
            window = PlacedCutout(
                placed.function.id, "window", placed.part.hole, placed.place.x, placed.place.y, placed.place.turn, None
            )
            items.append(_cut(window, {placed.function.id: placed.function.name}))
    return _scene(r, panel, "Film for the lenses", 0.0, tuple(items)) if items else None


def panel_scenes(r: Resolved, panel: ResolvedPanel) -> dict[str, Scene]:
    """Every scene of a panel by a short name: the layers' ids, and ``film``."""
    scenes = {layer.id: layer_scene(r, panel, layer) for layer in plates(r.design.stack)}
    film = film_scene(r, panel)
    return {**scenes, **({"film": film} if film else {})}


def _scene(r: Resolved, panel: ResolvedPanel, what: str, thickness: float, items: tuple[Item, ...]) -> Scene:
    width, height = panel.size
    return Scene(f"{r.design.name}, {panel.panel.name}: {what}", width, height, thickness, items)


def _cut(cut: PlacedCutout, names: dict[str, str]) -> Item:
    operation: Operation = "inner" if cut.depth is None else "pocket"
    label = f"{names.get(cut.owner, cut.owner)}, {cut.purpose}"
    if isinstance(cut.shape, Circle):
        return Item(operation, CirclePath(cut.x, cut.y, cut.shape.diameter), label, cut.depth)
    return Item(operation, moved(turned(cut.shape.loop(), cut.turn), cut.x, cut.y), label, cut.depth)


def _engraved(placed: Placed) -> list[Item]:
    letters = lettering(placed)
    if letters.inside:
        return []
    items = [item for word in letters.words for item in _word(placed, word)]
    return items + [_mark(placed, mark) for mark in letters.marks]


def _word(placed: Placed, word: Word) -> list[Item]:
    x, y = placed.place.x + word.x, placed.place.y + word.y
    label = f"{placed.function.name}, {word.run.text}"
    return [
        Item("engrave", polygon_loop(tuple((px + x, py + y) for px, py in contour)), label)
        for contour in contours(word.run)
    ]


def _mark(placed: Placed, mark: Mark) -> Item:
    stroke = rounded_rectangle(MARK_LENGTH, MARK_WIDTH, 0, -MARK_LENGTH / 2, -MARK_WIDTH / 2)
    x, y = placed.place.x + mark.x, placed.place.y + mark.y
    return Item("engrave", moved(turned(stroke, mark.turn), x, y), f"{placed.function.name}, marks")


def mark_path(mark: Mark) -> str:
    """A detent's mark as SVG path data relative to its part's centre, y up."""
    c, s = math.cos(math.radians(mark.turn)), math.sin(math.radians(mark.turn))
    half = MARK_LENGTH / 2
    return f"M{mark.x - half * c:.3f} {mark.y - half * s:.3f}L{mark.x + half * c:.3f} {mark.y + half * s:.3f}"
