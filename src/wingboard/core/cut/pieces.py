"""Every piece that is cut from a sheet: the layers of the modules and the walls of their cases. Lengths in mm."""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.cut.printed import is_printed
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.files.scene import Scene
from wingboard.core.record.modules import engraved_behind
from wingboard.core.record.workshop import Material
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import case_of

Side = Literal["front", "behind"]


class Piece(NamedTuple):
    """A piece as it lies on the bed: its drawing seen from the side that is up, its sheet, how many are made.

    ``side`` is the side that is up while it is cut out. ``pockets`` says that pockets are cut from the other side
    first, before the sheet is turned over.
    """

    id: str
    name: str
    scene: Scene
    side: Side
    pockets: bool
    material: Material
    thickness: float
    many: int


def pieces_of(r: Resolved) -> tuple[Piece, ...]:
    """All pieces in the order of the modules and their layers; printed ones and film are none."""
    return r.once("pieces to cut", lambda: tuple(p for m in r.modules.values() for p in _of_module(r, m)))


def _of_module(r: Resolved, module: ResolvedModule) -> list[Piece]:
    copies = {c.piece: c.many for c in r.design.cutting.copies}
    scenes = module_scenes(r, module)
    made = []
    for layer in module.stack:
        if is_printed(layer):
            continue
        scene, name = scenes[layer.id], f"{module.module.id}/{layer.id}"
        pockets, words = bool(scene.of("pocket")), bool(scene.of("engrave"))
        behind = engraved_behind(layer) or (pockets and not words)
        made.append(
            Piece(
                name, f"{module.module.name}, {layer.name.lower()}", scene.seen_from_behind() if behind else scene,
                "behind" if behind else "front", pockets and not behind, layer.material, layer.thickness,
                copies.get(name, 1),
            )
        )  # fmt: skip
    case = case_of(r, module)
    if case is None or case.case.made == "printed":
        return made
    for part in case.pieces:
        name, title = f"{module.module.id}/{part.id}", f"{module.module.name}, case, {part.name.lower()}"
        many = part.many * copies.get(name, 1)
        made.append(Piece(name, title, scenes[part.id], "front", False, case.case.material, case.case.thickness, many))
    return made
