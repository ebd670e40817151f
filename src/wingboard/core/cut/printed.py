"""What is printed of a module: its plates as a body and its letters, two solids with one origin; and a printed case.

A plate lies face down, so that its letters are the first layers on the bed and as smooth as it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial
from typing import Any

import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.knobs import cap_solids, caps_of, prints
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.files.solids import Mesh, knows_3mf, write_3mf, write_stl
from wingboard.core.geometry.outline import Loop, Vertex, area_of
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import case_of
from wingboard.core.stack.shell import Solid, cuts_of, printed_case, prism, solid_of

LETTERS_DEEP = 0.6
"""Letters reach so deep (mm): three layers of 0.2, which hide what is under them (common practice)."""
STROKE = 0.8
"""A letter of one stroke is so wide (mm): two lines of a 0.4 mm nozzle (common practice)."""
LIGHT, DARK = "#F4F6F2", "#20272A"


def is_printed(layer: Layer) -> bool:
    """Whether a layer's material is what a printer makes."""
    return materials()[layer.material].printer == "cuts"


def plate_solids(layer: Layer, scene: Scene) -> tuple[Solid, ...]:
    """A layer's body and, where it is lettered, its letters, from its scene as seen from the front.

    Both with one origin, face down: x runs from the right as seen from the front, z from the front into the depth.
    """
    flat = scene.seen_from_behind()
    body = prism([_loop(i) for i in flat.of("outline")], scene.thickness)
    for item in flat.of("inner"):
        body -= prism([_loop(item)], scene.thickness + 2).translate([0, 0, -1])
    for item in flat.of("pocket"):
        deep = item.depth or 0.0
        body -= prism([_loop(item)], deep + 1).translate([0, 0, scene.thickness - deep])
    written = _written(flat.of("engrave"))
    if written.is_empty:
        return (solid_of(f"{layer.id}-body", layer.name, layer.colour, body),)
    letters = _extruded(written, min(LETTERS_DEEP, scene.thickness / 2)) ^ body
    ink = LIGHT if _is_dark(layer.colour) else DARK
    return (
        solid_of(f"{layer.id}-body", layer.name, layer.colour, body - letters),
        solid_of(f"{layer.id}-letters", f"{layer.name}, letters", ink, letters),
    )


def _is_dark(colour: str) -> bool:
    red, green, blue = (int(colour[k : k + 2], 16) for k in (1, 3, 5))
    return 0.299 * red + 0.587 * green + 0.114 * blue < 128  # ITU-R BT.601


def _loop(item: Item) -> Loop:
    path = item.path
    if isinstance(path, CirclePath):
        half = path.diameter / 2
        return Vertex(path.x - half, path.y, 1.0), Vertex(path.x + half, path.y, 1.0)
    return path


def _written(items: Iterable[Item]) -> BaseGeometry:
    """What is engraved, as an area: a closed path within one of the same word is a hole in it."""
    words: dict[str, list[BaseGeometry]] = {}
    for item in items:
        if item.open:
            line = shapely.LineString([(v.x, v.y) for v in _loop(item)]).buffer(STROKE / 2)
            words.setdefault(f"{item.label} strokes", []).append(line)
        else:
            words.setdefault(item.label, []).append(area_of(_loop(item)).buffer(0))
    made = []
    for areas in words.values():
        word: BaseGeometry = shapely.Polygon()
        for area in sorted(areas, key=lambda a: -a.area):
            word = word.difference(area) if word.contains(area) else word.union(area)
        made.append(word)
    return shapely.union_all(made)


def _extruded(area: BaseGeometry, height: float) -> Any:
    rings = [
        tuple(Vertex(x, y) for x, y in ring.coords[:-1])
        for polygon in shapely.get_parts(area)
        for ring in (polygon.exterior, *polygon.interiors)
    ]
    return prism(rings, height)


def case_solids(r: Resolved, module: ResolvedModule) -> tuple[Solid, ...]:
    """The pieces of a module's printed case, as its workshop's printers take them; none where it is of sheet."""

    def compute() -> tuple[Solid, ...]:
        made = case_of(r, module)
        if made is None or made.case.made != "printed":
            return ()
        cuts = cuts_of(made, r.design.workshop.machines)
        return printed_case(module, made, cuts, module.plates[0].colour)

    return r.once(f"printed case of {module.module.id}", compute)


Maker = Callable[[], bytes]


def printed_files(r: Resolved, module: ResolvedModule, scenes: dict[str, Scene]) -> dict[str, Maker]:
    """What is printed of a module, by the files' names: each solid as STL, those that belong together as 3MF."""
    found: dict[str, Callable[[], tuple[Solid, ...]]] = {
        layer.id: partial(plate_solids, layer, scenes[layer.id]) for layer in module.plates if is_printed(layer)
    }
    named: dict[str, Maker] = {}
    for ident, solids in found.items():
        if knows_3mf():
            named[f"{ident}.3mf"] = partial(_together, solids)
        lettered = bool(scenes[ident].of("engrave"))
        for n, part in enumerate(("body", "letters") if lettered else ("body",)):
            named[f"{ident}-{part}.stl"] = partial(_alone, solids, n)
    for cap in caps_of(module) if prints(r.design.workshop.machines) else ():
        both = partial(cap_solids, cap)
        if knows_3mf():
            named[f"{cap.id}.3mf"] = partial(_together, both)
        for n, part in enumerate(("body", "pointer")):
            named[f"{cap.id}-{part}.stl"] = partial(_alone, both, n)
    case = module.module.case
    if case is not None and case.made == "printed":
        made = partial(case_solids, r, module)
        if knows_3mf():
            named["case.3mf"] = partial(_together, made)
        for n, solid in enumerate(made()):
            named[f"{solid.id}.stl"] = partial(_alone, made, n)
    return named


def _mesh(solid: Solid) -> Mesh:
    return Mesh(solid.name, solid.colour, solid.points, solid.triangles)


def _together(solids: Callable[[], tuple[Solid, ...]]) -> bytes:
    return write_3mf([_mesh(s) for s in solids()])


def _alone(solids: Callable[[], tuple[Solid, ...]], n: int) -> bytes:
    return write_stl(_mesh(solids()[n]))
