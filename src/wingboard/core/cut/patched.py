"""Small plates that cover openings that are not wanted any more, and carry words as labels. Lengths in mm."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import shapely
from shapely.affinity import translate

from wingboard.core.cut.beside import across
from wingboard.core.face.lettering import Run, loops, run
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import moved, rounded_rectangle
from wingboard.core.record.cutting import Patch
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

CORNER = 2.0
SCREW, SCREW_EDGE = 2.9, 4.0
"""Holes for M2.5 (ISO 273, medium), so far from the patch's edges."""
HIGH = 0.6
"""Capitals are at most so much of a patch's height."""
ASIDE = 1.0
"""Words keep so far (mm) from a patch's ends."""


def patch_scene(r: Resolved, patch: Patch) -> Scene:
    """A patch as it is cut: its outline, its words in the middle, holes in its corners where it is screwed on."""
    width, height = patch.width, patch.height
    items: list[Item] = []
    line = lettering_of(r, patch)
    if line is not None:
        x, y = (width - line.width) / 2, (height - line.cap) / 2
        items += [Item("engrave", moved(loop, x, y), f"patch, {patch.text}") for loop in loops(line)]
    if patch.screws:
        for sx in (SCREW_EDGE, width - SCREW_EDGE):
            for sy in (SCREW_EDGE, height - SCREW_EDGE):
                items.append(Item("inner", CirclePath(sx, sy, SCREW), f"{patch.id}, screw"))
    items.append(Item("outline", rounded_rectangle(width, height, min(CORNER, width / 4, height / 4)), patch.id))
    name = r.modules[patch.module].module.name if patch.module in r.modules else patch.module
    title = f"{r.design.name}, {name}: patch {patch.text or patch.id}"
    return Scene(title, width, height, patch.thickness, tuple(items))


def lettering_of(r: Resolved, patch: Patch) -> Run | None:
    """A patch's words, as high as the names on the panel, or as small as they have to be to fit; None without any."""
    if not patch.text:
        return None
    cap = min(r.design.style.name_cap, patch.height * HIGH)
    line, room = run(patch.text, cap), patch.width - 2 * ASIDE
    return line if line.width <= room else run(patch.text, cap * room / line.width)


def box_of(patch: Patch) -> shapely.Polygon:
    """What of the face a patch covers."""
    half = patch.width / 2, patch.height / 2
    return shapely.box(patch.x - half[0], patch.y - half[1], patch.x + half[0], patch.y + half[1])


LABEL = 30.0, 12.0
"""Width and height of a label (mm) before it says anything."""
PACE, BESIDE = 5.0, 2.0
"""Free places are looked for at every so many mm; a label keeps so far (mm) from everything."""


def free_spot(module: ResolvedModule, size: tuple[float, float] = LABEL) -> tuple[float, float] | None:
    """The middle of a plain place of a face that takes a label, the lowest first; None where there is none."""
    wide, high = size[0] + 2 * BESIDE, size[1] + 2 * BESIDE
    x0, y0, x1, y1 = module.area.bounds
    taken = shapely.union_all([shape for _, shape in _things(module)])
    shapely.prepare(taken)
    for y in np.arange(y0 + high / 2, y1 - high / 2, PACE):
        for x in np.arange(x0 + wide / 2, x1 - wide / 2, PACE):
            box = shapely.box(x - wide / 2, y - high / 2, x + wide / 2, y + high / 2)
            if not taken.intersects(box) and module.area.covers(box):
                return round(float(x), 1), round(float(y), 1)
    return None


class Met(NamedTuple):
    """What a patch lies upon that it must not cover, and by how much (mm)."""

    name: str
    by: float


def met_by(module: ResolvedModule, patch: Patch) -> Met | None:
    """The opening or cover of a part that a patch lies upon most; None where it lies on plain plate."""
    box, worst = box_of(patch), None
    for name, shape in _things(module):
        met = box.intersection(shape)
        if met.area > 0.01:
            by = across(met)
            if worst is None or by > worst.by:
                worst = Met(name, by)
    return worst


def _things(module: ResolvedModule) -> list[tuple[str, shapely.Geometry]]:
    """Openings of a face and covers of its parts, each with whose it is."""
    face = module.plates[0]
    shapes = module.openings(face.id)
    things = [
        (module.owner_name(owner), core.buffer(radius))
        for core, radius, owner in zip(shapes.cores, shapes.radii, shapes.owners.tolist(), strict=True)
    ]
    for p in module.placed:
        cover = module.templates.envelope(p, "cover")
        if cover is not None:
            things.append((p.function.name, translate(cover.drawn(), p.place.x, p.place.y)))
    return things
