"""Words that are not engraved: cut in adhesive film, cut through a mask, printed on film. Lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby

import shapely
from shapely import Point

from wingboard.core.cut.beside import region_of
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import Loop, Vertex, flattened, rounded_rectangle
from wingboard.core.record.cutting import Lettering
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

WEED = 2.5
"""A weeding box keeps so far (mm) from its letters (common practice)."""
FRAME = 6.0
"""The film reaches so far (mm) beyond the plate, to be held by."""
GUIDE = 6.0
"""Length of a guide line (mm)."""
WORDS: dict[Lettering, str] = {
    "filled": "engraved, filled with paint and wiped: degrease, fill, wipe across the letters, leave it to dry flat",
    "mask": "cut through the face's film only (paper or polyethylene: vinyl under a laser gives off chlorine), weeded, "
    "painted in thin coats; the film comes off before it is hard",
    "vinyl": "cut in adhesive film by a knife, never by a laser (vinyl gives off chlorine), weeded, carried over with "
    "transfer tape on its guide lines, rubbed down, tape off",
    "film": "printed mirrored on film, laid behind the clear face with its print against it, trimmed at its marks",
}
"""How it is done, in the order in which it is done (common practice)."""


def way_of(r: Resolved, module: ResolvedModule) -> Lettering | None:
    """How the words of a module's face are made; None where they are engraved."""
    found = (entry.way for entry in r.design.cutting.lettered if entry.module == module.module.id)
    return next(found, None)


def on_face(items: Sequence[Item], way: Lettering | None) -> list[Item]:
    """What of the words is done to the face itself: engraved, cut through its film, or nothing."""
    if way in ("vinyl", "film"):
        return []
    return [i._replace(operation="mask") for i in items] if way == "mask" else list(items)


def vinyl(items: Sequence[Item], outline: Loop, title: str) -> Scene:
    """The words to be cut in adhesive film, read from the front, on the plate's own coordinates.

    Letters one word after the other, what falls out of a letter before the letter; then a box round each word to weed
    by, then guide lines: the plate's corners and the middles of its edges. The film's own edge is cut last.
    """
    letters = [i._replace(operation="mask") for i in in_order(items)]
    boxes = [Item("mask", _loop(box), "weeding box") for box in weeding_boxes(items)]
    x0, y0, x1, y1 = shapely.MultiPoint(flattened(outline)).bounds
    guides = [Item("mask", line, "guide line", open=True) for line in _guides(x0, y0, x1, y1)]
    wide, high = x1 - x0 + 2 * FRAME, y1 - y0 + 2 * FRAME
    frame = Item("outline", rounded_rectangle(wide, high, 0.0, x0 - FRAME, y0 - FRAME), "edge of the film")
    whole = Scene(title, x1, y1, 0.0, (*letters, *boxes, *guides, frame))
    return whole.with_margins(x0 - FRAME, y0 - FRAME, x1 + FRAME, y1 + FRAME)


def in_order(items: Sequence[Item]) -> list[Item]:
    """Closed letters in the order in which they are cut: word by word, counters before the letters round them."""
    found: list[Item] = []
    for _, word in groupby((i for i in items if not i.open), key=lambda i: i.label):
        letters: list[Item] = []
        counters: list[Item] = []
        for item in word:
            (counters if _counter(item) else letters).append(item)
        for letter in sorted(letters, key=_left):
            around = region_of([letter])
            mine = [c for c in counters if around.contains(_on(c))]
            counters = [c for c in counters if c not in mine]
            found += [*mine, letter]
        found += counters
    return found


def _counter(item: Item) -> bool:
    if isinstance(item.path, CirclePath):
        return False
    ring = flattened(item.path)
    return len(ring) > 2 and not shapely.LinearRing(ring).is_ccw


def _on(item: Item) -> Point:
    if isinstance(item.path, CirclePath):
        return Point(item.path.x, item.path.y)
    return Point(flattened(item.path)[0])


def _left(item: Item) -> float:
    """Where a letter begins."""
    if isinstance(item.path, CirclePath):
        return item.path.x - item.path.diameter / 2
    return min(x for x, _ in flattened(item.path))


def weeding_boxes(items: Sequence[Item]) -> list[shapely.Polygon]:
    """Boxes round the words, those that would meet made one."""
    boxes = []
    for _, word in groupby((i for i in items if not i.open), key=lambda i: i.label):
        region = region_of(list(word))
        if not region.is_empty:
            x0, y0, x1, y1 = region.bounds
            boxes.append(shapely.box(x0 - WEED, y0 - WEED, x1 + WEED, y1 + WEED))
    while True:
        joined = shapely.union_all(boxes)
        parts = [shapely.box(*g.bounds) for g in getattr(joined, "geoms", (joined,)) if not g.is_empty]
        if len(parts) == len(boxes):
            return parts
        boxes = parts


def _loop(box: shapely.Polygon) -> Loop:
    x0, y0, x1, y1 = box.bounds
    return rounded_rectangle(x1 - x0, y1 - y0, 0.0, x0, y0)


def _guides(x0: float, y0: float, x1: float, y1: float) -> list[Loop]:
    """Angles at the corners of a box, and short lines in the middles of its edges."""
    corners = [(x, y, 1 if x == x0 else -1, 1 if y == y0 else -1) for x in (x0, x1) for y in (y0, y1)]
    found: list[Loop] = [
        (Vertex(x + sx * GUIDE, y), Vertex(x, y), Vertex(x, y + sy * GUIDE)) for x, y, sx, sy in corners
    ]
    xm, ym = (x0 + x1) / 2, (y0 + y1) / 2
    found += [(Vertex(xm, y - GUIDE / 2), Vertex(xm, y + GUIDE / 2)) for y in (y0, y1)]
    return [*found, *((Vertex(x - GUIDE / 2, ym), Vertex(x + GUIDE / 2, ym)) for x in (x0, x1))]


def printed_film(face: Scene, items: Sequence[Item], title: str) -> Scene:
    """The words to be printed on film, mirrored, with the face's openings and outline as lines to trim by."""
    cuts = [i for i in face.items if i.operation in ("inner", "outline")]
    whole = Scene(title, face.width, face.height, 0.0, (*items, *cuts))
    return whole.seen_from_behind()


def narrowest(items: Sequence[Item]) -> tuple[float, str]:
    """The narrowest mean stroke of any word, 2 · area / way round (mm), and whose it is; 0 for single strokes."""
    found = [(0.0, i.label) for i in items if i.open]
    for label, word in groupby((i for i in items if not i.open and not i.graphic), key=lambda i: i.label):
        region = region_of(list(word))
        if region.length > 0:
            found.append((2 * region.area / region.length, label))
    return min(found, default=(99.0, ""))
