"""Every piece that is cut from a sheet: the layers of the modules and the walls of their cases. Lengths in mm."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from wingboard.core.cut.cases import case_scenes
from wingboard.core.cut.parted import Parted, Thing, things_of
from wingboard.core.cut.patched import patch_scene
from wingboard.core.cut.printed import is_printed
from wingboard.core.cut.scenes import layer_scene
from wingboard.core.files.scene import Scene
from wingboard.core.record.modules import Layer, engraved_behind
from wingboard.core.record.workshop import Material
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import case_of

Side = Literal["front", "behind"]


@dataclass(frozen=True, eq=False)
class Piece:
    """A piece as it lies on the bed: its size (mm), its sheet, how many are made; drawn when it is asked for.

    ``x`` and ``y`` are where its lower left corner lies in its module. ``pocketed`` says that something in it is cut to
    a depth from behind, ``lettered`` that its front is engraved.
    """

    r: Resolved
    module: ResolvedModule
    layer: Layer | None
    part: str
    name: str
    width: float
    height: float
    material: Material
    thickness: float
    many: int
    x: float = 0.0
    y: float = 0.0
    pocketed: bool = False
    lettered: bool = False
    of: str = ""
    """The piece that it is a part of, where that was parted; or that it is a strap behind."""
    own: Scene | None = None
    """Its drawing from the front, where it is not simply that of its layer."""

    @property
    def id(self) -> str:
        """Its module and its layer, or the part of its case: ``left/face``."""
        return f"{self.module.module.id}/{self.part}"

    def has(self, x: float, y: float) -> bool:
        """Whether a place (mm) of its module lies on it: always, but for parts of a piece."""
        return not self.of or (0 <= x - self.x <= self.width and 0 <= y - self.y <= self.height)

    @property
    def side(self) -> Side:
        """The side that is up while it is cut out."""
        if self.layer is None:
            return "front"
        return "behind" if engraved_behind(self.layer) or (self.pocketed and not self.lettered) else "front"

    @property
    def turned_over(self) -> bool:
        """Whether pockets are cut from the other side first, before the sheet is turned over."""
        return self.pocketed and self.side == "front"

    @cached_property
    def drawn(self) -> Scene:
        """Its drawing, seen from the front."""
        if self.own is not None:
            return self.own
        if self.layer is None:
            return case_scenes(self.r, self.module)[self.part]
        whole = self.r.once(
            f"drawing of {self.id}", lambda: layer_scene(self.r, self.module, self.layer)  # type: ignore[arg-type]
        )  # fmt: skip
        left, low = max(0.0, self.x), max(0.0, self.y)  # where it reaches beyond its module, it is drawn from there
        return whole.with_margins(left, low, left + self.width, low + self.height)

    @cached_property
    def things(self) -> list[Thing]:
        """Everything that is cut or written inside it, with what it covers."""
        return things_of(self.drawn)

    @cached_property
    def scene(self) -> Scene:
        """Its drawing, seen from the side that is up."""
        return self.drawn.seen_from_behind() if self.side == "behind" else self.drawn


def whole_pieces(r: Resolved) -> tuple[Piece, ...]:
    """All pieces in the order of the modules and their layers, none parted; printed ones and film are none."""
    return r.once(
        "whole pieces to cut",
        lambda: (*(p for m in r.modules.values() for p in _of_module(r, m)), *_patches(r)),
    )


def pieces_of(r: Resolved) -> tuple[Piece, ...]:
    """All pieces as they are cut: those that are parted in their parts, with the straps behind their seams."""
    return r.once("pieces to cut", lambda: tuple(p for whole in whole_pieces(r) for p in _as_cut(r, whole)))


def _patches(r: Resolved) -> Iterator[Piece]:
    for patch in r.design.cutting.patches:
        if patch.module in r.modules:
            module = r.modules[patch.module]
            name = f"{module.module.name}, patch {patch.text or patch.id}"
            yield Piece(
                r, module, None, patch.id, name, patch.width, patch.height, patch.material, patch.thickness, 1,
                patch.x - patch.width / 2, patch.y - patch.height / 2, own=patch_scene(r, patch),
            )  # fmt: skip


def parted_of(r: Resolved, piece: Piece) -> Parted | None:
    """The seams of a piece; None where it is whole."""
    split = next((s for s in r.design.cutting.splits if s.piece == piece.id), None)
    seen = piece.layer is not None and piece.layer.role == "face"
    if split is None:
        return None
    return r.once(f"parts of {piece.id}", lambda: Parted(piece.drawn, split, piece.things, marked=not seen))


def _as_cut(r: Resolved, whole: Piece) -> Iterator[Piece]:
    """A piece, or its parts; whole too where a seam runs through something: no part of that would be right."""
    parted = parted_of(r, whole)
    if parted is None or not parted.at or parted.crossed():
        yield whole
        return
    copies = {c.piece: c.many for c in r.design.cutting.copies}
    made = parted.parts()
    for n, (scene, (x, y)) in enumerate(made, 1):
        name, part = f"{whole.name}, part {n} of {len(made)}", f"{whole.part}.{n}"
        again = copies.get(f"{whole.module.module.id}/{part}", 1)
        yield replace(
            whole, part=part, name=name, width=scene.width, height=scene.height, x=whole.x + x, y=whole.y + y,
            pocketed=bool(scene.of("pocket")), lettered=whole.lettered and bool(scene.of("engrave")),
            many=whole.many * again, of=whole.id, own=scene,
        )  # fmt: skip
    for n, at in enumerate(parted.at, 1):
        strap = parted.strap(at)
        if strap is not None:
            yield replace(
                whole, layer=None, part=f"{whole.part}.strap-{n}", name=f"{whole.name}, strap {n}", width=strap.width,
                height=strap.height, pocketed=False, lettered=False, of=whole.id, own=strap,
            )  # fmt: skip


def _of_module(r: Resolved, module: ResolvedModule) -> list[Piece]:
    copies = {c.piece: c.many for c in r.design.cutting.copies}
    title, ident = module.module.name, module.module.id
    made = []
    for layer in module.stack:
        if is_printed(layer):
            continue
        x0, y0, x1, y1 = module.area_of(layer).bounds
        made.append(
            Piece(
                r, module, layer, layer.id, f"{title}, {layer.name.lower()}", x1 - x0, y1 - y0, layer.material,
                layer.thickness, copies.get(f"{ident}/{layer.id}", 1), x0, y0,
                any(cut.depth is not None for cut in module.cutouts(layer.id)),
                layer.role == "face" and _lettered(r, module),
            )
        )  # fmt: skip
    case = case_of(r, module)
    if case is None or case.case.made == "printed":
        return made
    for part in case.pieces:
        made.append(
            Piece(
                r, module, None, part.id, f"{title}, case, {part.name.lower()}", part.width, part.height,
                case.case.material, case.case.thickness, part.many * copies.get(f"{ident}/{part.id}", 1),
            )
        )  # fmt: skip
    return made


def _lettered(r: Resolved, module: ResolvedModule) -> bool:
    """Whether anything is engraved on a module's face."""
    return bool(module.placed) or any(g.module == module.module.id for g in r.design.graphics)
