"""From a resolved module to the scenes its files are written from: one a layer, one for the lenses' film."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import groupby

import shapely

from wingboard.core.cut.cases import case_scenes
from wingboard.core.cut.lettered import on_face, printed_film, vinyl, way_of
from wingboard.core.face.graphics import LINE, Drawing, graphics_on
from wingboard.core.face.legend import MARK_LENGTH, MARK_WIDTH, Lettering, Mark, Word, letterings
from wingboard.core.files.scene import CirclePath, Item, Operation, Scene, polygon_loop
from wingboard.core.geometry.joined import joined
from wingboard.core.geometry.outline import Loop, Vertex, moved, reversed_loop, rounded_rectangle, turned
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.record.shapes import Circle
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import PlacedCutout, ResolvedModule
from wingboard.core.resolved.placed import Placed
from wingboard.core.stack.bridges import solid


def layer_scene(r: Resolved, module: ResolvedModule, layer: Layer) -> Scene:
    """Everything to make on one layer of a module, seen from the front, origin at the module's lower left corner, or
    at the layer's own where that reaches beyond.

    Openings go through (``inner``) unless cut from behind to a depth (``pocket``); words are engraved on the face.
    """
    items = []
    if layer.role == "face":
        items += on_face([*lettering_items(r, module), *graphic_items(r, module)], way_of(r, module))
    names = {f.id: f.name for f in r.design.functions}
    cuts = module.cutouts(layer.id)
    items += [_cut(cut, names) for cut in cuts if cut.depth is not None]
    if is_plate(layer) or not _runs_together(module, layer):
        items += _through([cut for cut in cuts if cut.depth is None], names)
        items.append(Item("outline", module.loop_of(layer), module.module.name))
    else:
        items += _as_left(r, module, layer)
    scene = _scene(r, module, layer.name, layer.thickness, tuple(items))
    x0, y0, x1, y1 = module.area_of(layer).bounds
    return scene.with_margins(min(0.0, x0), min(0.0, y0), max(scene.width, x1), max(scene.height, y1))


def _runs_together(module: ResolvedModule, layer: Layer) -> bool:
    """Whether openings of a board meet each other, or its edge: bodies of neighbours may share one."""
    shapes = module.openings(layer.id)
    return bool(shapes.closer_than(0.0)) or bool((shapes.margins_inside(module.area_of(layer)) < 0).any())


def _as_left(r: Resolved, module: ResolvedModule, layer: Layer) -> list[Item]:
    """A board as what is left of it: openings that run together are one, those over its edge are notches of it."""
    left = solid(r, module, layer)
    pieces = [g for g in getattr(left, "geoms", (left,)) if isinstance(g, shapely.Polygon)]
    rings = [Item("inner", _ring(hole), f"{layer.name}, opening") for p in pieces for hole in p.interiors]
    return [*rings, *(Item("outline", _ring(p.exterior), module.module.name) for p in pieces)]


def _ring(ring: shapely.LinearRing) -> Loop:
    """A closed ring, counter-clockwise, to within what can be seen."""
    coords = ring.simplify(VISIBLE / 2).coords[:-1]
    loop = polygon_loop(tuple((x, y) for x, y in coords))
    return loop if ring.is_ccw else reversed_loop(loop)


def lettering_items(r: Resolved, module: ResolvedModule) -> list[Item]:
    """The functions' words and marks on the face of a module."""
    letters = letterings(r)
    return [item for placed in module.placed for item in _engraved(placed, letters[placed.number])]


def graphic_items(r: Resolved, module: ResolvedModule) -> list[Item]:
    """Brackets, boxes, texts, placards and symbols of a module."""
    return [item for drawing in graphics_on(r, module) for item in _graphic(drawing)]


def film_scene(r: Resolved, module: ResolvedModule) -> Scene | None:
    """The captions' lenses with their words, to print on film; None when the module has no lens with words."""
    items: list[Item] = []
    for placed in module.placed:
        letters = letterings(r)[placed.number]
        if letters.inside and letters.words:
            items += [
                item
                for word in letters.words
                for item in _word(word, placed.place.x, placed.place.y, _said(placed, word))
            ]
            window = PlacedCutout(
                placed.function.id, "window", placed.part.hole, placed.place.x, placed.place.y, placed.place.turn, None
            )
            items.append(_cut(window, {placed.function.id: placed.function.name}))
    return _scene(r, module, "Film for the lenses", 0.0, tuple(items)) if items else None


def module_scenes(r: Resolved, module: ResolvedModule) -> dict[str, Scene]:
    """Every scene of a module by a short name: the layers' ids, ``film``, and the pieces of its case."""
    scenes = {layer.id: layer_scene(r, module, layer) for layer in module.stack}
    film, words = film_scene(r, module), words_scene(r, module)
    more = {name: scene for name, scene in (("film", film), words or ("", None)) if scene is not None}
    return {**scenes, **more, **case_scenes(r, module)}


def words_scene(r: Resolved, module: ResolvedModule) -> tuple[str, Scene] | None:
    """What a face's words are cut in or printed on, where that is a film of its own, with the name of its file."""
    way, face = way_of(r, module), next((layer for layer in module.stack if layer.role == "face"), None)
    if face is None or way not in ("vinyl", "film"):
        return None
    items = [*lettering_items(r, module), *graphic_items(r, module)]
    title = f"{r.design.name}, {module.module.name}"
    if way == "vinyl":
        return "words-vinyl", vinyl(items, module.loop_of(face), f"{title}: Words in adhesive film")
    return "words-film", printed_film(layer_scene(r, module, face), items, f"{title}: Words on film, mirrored")


def every_scene(r: Resolved) -> dict[str, dict[str, Scene]]:
    """The scenes of each module, by the module's id."""
    return {module.module.id: module_scenes(r, module) for module in r.modules.values()}


def _scene(r: Resolved, module: ResolvedModule, what: str, thickness: float, items: tuple[Item, ...]) -> Scene:
    width, height = module.size
    return Scene(f"{r.design.name}, {module.module.name}: {what}", width, height, thickness, items)


def _through(cuts: Sequence[PlacedCutout], names: dict[str, str]) -> list[Item]:
    """Openings as they are cut: what belongs to one owner and runs together is one path, a hole with its notch."""
    made: list[Item] = []
    for _, mine in groupby(cuts, key=lambda cut: cut.owner):
        items = [_cut(cut, names) for cut in mine]
        while len(items) > 1 and (joint := _first_joint(items)):
            items = joint
        made += items
    return made


def _first_joint(items: list[Item]) -> list[Item] | None:
    """The items with the first two that overlap made one; None when none do."""
    for n, one in enumerate(items):
        for other in items[n + 1 :]:
            loop = joined(_loop(one.path), _loop(other.path))
            if loop is not None:
                words = f"{one.label} and {other.label.rpartition(', ')[2]}"
                whole = Item("inner", loop, words, drill=one.circle or other.circle)
                return [whole if item is one else item for item in items if item is not other]
    return None


def _loop(path: CirclePath | Loop) -> Loop:
    if not isinstance(path, CirclePath):
        return path
    half = path.diameter / 2
    return Vertex(path.x - half, path.y, 1.0), Vertex(path.x + half, path.y, 1.0)


def _cut(cut: PlacedCutout, names: dict[str, str]) -> Item:
    operation: Operation = "inner" if cut.depth is None else "pocket"
    label = f"{names.get(cut.owner, cut.owner)}, {cut.purpose}"
    if isinstance(cut.shape, Circle):
        return Item(operation, CirclePath(cut.x, cut.y, cut.shape.diameter), label, cut.depth)
    return Item(operation, moved(turned(cut.shape.loop(), cut.turn), cut.x, cut.y), label, cut.depth)


def _engraved(placed: Placed, letters: Lettering) -> list[Item]:
    if letters.inside:
        return []
    x, y = placed.place.x, placed.place.y
    items = [item for word in letters.words for item in _word(word, x, y, _said(placed, word))]
    return items + [_mark(placed, mark) for mark in letters.marks]


def _said(placed: Placed, word: Word) -> str:
    return f"{placed.function.name}, {word.run.text}"


def _word(word: Word, dx: float, dy: float, label: str) -> list[Item]:
    """A word, its part's centre at (dx, dy): closed outlines, or open strokes of a single-stroke font."""
    x, y = dx + word.x, dy + word.y
    closed = [Item("engrave", moved(loop, x, y), label) for loop in word.loops()]
    opened = [
        Item("engrave", polygon_loop(tuple((px + x, py + y) for px, py in line)), label, open=True)
        for line in word.strokes()
    ]
    return closed + opened


def _graphic(drawing: Drawing) -> list[Item]:
    label = f"{drawing.graphic.kind}, {drawing.graphic.text or drawing.graphic.symbol or drawing.graphic.id}"
    items = [item for word in drawing.words for item in _word(word, 0.0, 0.0, label)]
    for x0, y0, x1, y1 in drawing.lines:
        wide, high = abs(x1 - x0) + LINE, abs(y1 - y0) + LINE
        loop = rounded_rectangle(wide, high, 0, min(x0, x1) - LINE / 2, min(y0, y1) - LINE / 2)
        items.append(Item("engrave", loop, label, graphic=True))
    return items


def _mark(placed: Placed, mark: Mark) -> Item:
    x, y = placed.place.x + mark.x, placed.place.y + mark.y
    label = f"{placed.function.name}, marks"
    if mark.dot:
        return Item("engrave", CirclePath(x, y, 2 * MARK_WIDTH), label, graphic=True)
    stroke = rounded_rectangle(MARK_LENGTH, MARK_WIDTH, 0, -MARK_LENGTH / 2, -MARK_WIDTH / 2)
    return Item("engrave", moved(turned(stroke, mark.turn), x, y), label, graphic=True)


def mark_path(mark: Mark) -> str:
    """A detent's mark as SVG path data relative to its part's centre, y up."""
    c, s = math.cos(math.radians(mark.turn)), math.sin(math.radians(mark.turn))
    half = MARK_WIDTH / 2 if mark.dot else MARK_LENGTH / 2
    return f"M{mark.x - half * c:.3f} {mark.y - half * s:.3f}L{mark.x + half * c:.3f} {mark.y + half * s:.3f}"
