"""Drawings for work by hand at 1:1: holes as they lie from behind, chains of holes, jigs for equal edges. In mm."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wingboard.core.cut.byhand import WIDEST, Jig
from wingboard.core.cut.chains import chain
from wingboard.core.cut.pieces import Piece
from wingboard.core.face.lettering import loops, run
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import Vertex, moved

CAP = 2.2
"""Height of the words' capitals."""
MOST = 6
"""Jigs that are drawn: those that drill the most holes."""
JIG_ROOM, JIG_WIDE = 24.0, 80.0
"""A jig's drawing shows so much of the plate beyond its hole, and is so wide at least."""


def words(text: str, x: float, y: float) -> Iterator[Item]:
    """A line of words on a drawing, its foot at ``y``."""
    for loop in loops(run(text, CAP)):
        yield Item("engrave", moved(loop, x, y), text)


def rear_holes(scene: Scene) -> Scene:
    """A sheet's holes and outline left for right, as they are drilled from behind; words are left out."""
    kept = tuple(i for i in scene.items if i.operation in ("inner", "pocket", "outline"))
    title = f"{scene.title}: holes, seen from behind"
    return scene._replace(title=title, items=kept).seen_from_behind()


def chains(piece: Piece) -> Scene | None:
    """A piece's large openings with the chains of holes inside them; None where a bit makes every hole."""
    large = [
        i
        for i in piece.drawn.of("inner")
        if not (isinstance(i.path, CirclePath) and i.path.diameter <= WIDEST) and i.drill is None
    ]
    holes = [Item("inner", hole, f"{item.label}, chain", graphic=True) for item in large for hole in chain(item)]
    if not holes:
        return None
    lines = [i._replace(path=(*i.path, i.path[0]), operation="engrave", open=True) if not isinstance(i.path, CirclePath)
             else i for i in large]  # fmt: skip
    bits = " and ".join(f"{bit:g}" for bit in sorted({i.circle.diameter for i in holes if i.circle}))
    title = f"{piece.drawn.title}: chain drilling with {bits} mm; saw between the holes, file to the line"
    return piece.drawn._replace(title=title, items=(*lines, *holes, *piece.drawn.of("outline")))


def jig_scene(name: str, jigs: Sequence[Jig]) -> Scene | None:
    """A drawing of each jig: two fences at a corner, and the guide hole at its distances from them."""
    if not jigs:
        return None
    items: list[Item] = []
    y, wide = 4.0, JIG_WIDE
    for n, jig in enumerate(jigs[:MOST], 1):
        across, up = jig.from_side + JIG_ROOM, jig.from_end + JIG_ROOM
        fence = Vertex(4.0 + across, y), Vertex(4.0, y), Vertex(4.0, y + up)
        items.append(Item("outline", fence, f"jig {n}, fences", open=True))
        hole = CirclePath(4.0 + jig.from_side, y + jig.from_end, jig.diameter)
        items.append(Item("inner", hole, f"jig {n}, guide hole"))
        holes = f"{jig.many} holes in {len(jig.pieces)} sheet{'' if len(jig.pieces) == 1 else 's'}"
        items += words(
            f"JIG {n}: {jig.from_side:.1f} from the side, {jig.from_end:.1f} from the end", 4.0, y + up + 6.0
        )
        items += words(holes, 4.0, y + up + 2.0)
        wide = max(wide, across + 8.0)
        y += up + 16.0
    return Scene(f"{name}: jigs, fences at two edges of the plate", wide + 4.0, y, 0.0, tuple(items))
