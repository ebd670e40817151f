"""What is done to a face beside cutting it: how its words are made, the old holes under it, patches over it."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json
from wingboard.core.cut.again import changed_since
from wingboard.core.cut.colours import colours_of
from wingboard.core.cut.lettered import WORDS, way_of
from wingboard.core.cut.oldholes import judged_holes, read_holes
from wingboard.core.cut.patched import free_spot, lettering_of, patch_scene
from wingboard.core.cut.patches import abandoned
from wingboard.core.cut.plan import folder_of
from wingboard.core.cut.sheets import layout
from wingboard.core.files.scene import OPERATIONS, Operation, path_data
from wingboard.core.files.svg import STROKE
from wingboard.core.record.cutting import Lettering, OldHole, Patch
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

router = APIRouter(prefix="/api/designs/{design_id}/surface", tags=["cut"])


class OldHoleView(BaseModel):
    """An old hole (mm, in its module), what becomes of it, by what, and how far from what would show it."""

    x: float
    y: float
    diameter: float
    name: str
    standing: Literal["reused", "covered", "open"]
    by: str
    gap: float


class FaceView(BaseModel):
    """A module's face: how its words are made (none: engraved), how that is done, the old holes under it.

    ``free``: x and y of the middle of a plain place for a label (mm); empty where there is none.
    """

    id: str
    name: str
    way: Lettering | None
    how: str
    old: list[OldHoleView]
    free: list[float]


class AbandonedView(BaseModel):
    """An opening of a plate that is cut, where nothing is any more, and the patch that would cover it (mm).

    Its width is 0 where something else is too near for any.
    """

    module: str
    module_name: str
    name: str
    x: float
    y: float
    width: float
    height: float


class PatchView(Patch):
    """A patch with its drawing as path data, y up: its edges and holes, and its words, so high (mm) as they fit."""

    edges: str
    letters: str
    cap: float


class ColourView(BaseModel):
    """The colour of an operation's lines in SVG, and the usual one."""

    operation: Operation
    colour: str
    usual: str


class ChangedFiles(BaseModel):
    """A piece that is to be cut again: why, and the files that show it."""

    piece: str
    reasons: list[str]
    files: list[str]


class SurfaceView(BaseModel):
    """Everything beside the sheets."""

    revision: int
    faces: list[FaceView]
    patches: list[PatchView]
    abandoned: list[AbandonedView]
    colours: list[ColourView]
    changed: list[ChangedFiles]


class OldText(BaseModel):
    """Lines of x, y, diameter and a name."""

    text: str = Field(max_length=40_000)


class FaultLine(BaseModel):
    """A line that was not understood, and why."""

    line: int
    words: str


class ReadHoles(BaseModel):
    """The holes that were read, and what was not."""

    holes: list[OldHole]
    faults: list[FaultLine]


@router.post("/old-holes", responses={200: {"model": ReadHoles}})
def read_old_holes(desk: OnDesk, design_id: DesignId, body: OldText) -> ReadHoles:
    """Read a hole pattern; nothing is kept."""
    desk.open(design_id)
    holes, faults = read_holes(body.text)
    return ReadHoles(holes=list(holes), faults=[FaultLine(**f._asdict()) for f in faults])


@router.get("", responses={200: {"model": SurfaceView}})
def surface(desk: OnDesk, design_id: DesignId) -> Response:
    """The faces' words, old holes and patches, the colours of lines, and which files changed since pieces were cut."""
    state = desk.open(design_id)
    r = state.resolved
    colours = colours_of(r.design)
    return as_json(
        SurfaceView(
            revision=state.row.number,
            faces=[_face(r, m) for m in r.modules.values() if any(layer.role == "face" for layer in m.stack)],
            patches=[_patch(r, patch) for patch in r.design.cutting.patches],
            abandoned=[
                AbandonedView(
                    module=a.module, module_name=r.modules[a.module].module.name, name=a.name, x=a.x, y=a.y,
                    width=0.0 if a.margin is None else a.width + 2 * a.margin,
                    height=0.0 if a.margin is None else a.height + 2 * a.margin,
                )
                for a in abandoned(r)
            ],
            colours=[ColourView(operation=op, colour=colours[op], usual=STROKE[op]) for op in OPERATIONS],
            changed=_changed(r),
        )
    )  # fmt: skip


def _patch(r: Resolved, patch: Patch) -> PatchView:
    items, line = patch_scene(r, patch).items, lettering_of(r, patch)
    return PatchView(
        **patch.model_dump(),
        edges="".join(path_data(i) for i in items if i.operation != "engrave"),
        letters="".join(path_data(i) for i in items if i.operation == "engrave"),
        cap=line.cap if line else 0.0,
    )


def _face(r: Resolved, module: ResolvedModule) -> FaceView:
    way = way_of(r, module)
    old = [
        OldHoleView(
            x=j.hole.x, y=j.hole.y, diameter=j.hole.diameter, name=j.hole.name, standing=j.standing, by=j.by, gap=j.gap
        )
        for j in judged_holes(r, module)
    ]
    how = WORDS[way] if way else "engraved with the face"
    return FaceView(
        id=module.module.id, name=module.module.name, way=way, how=how, old=old, free=list(free_spot(module) or ())
    )


def _changed(r: Resolved) -> list[ChangedFiles]:
    lies: dict[str, list[str]] = {}
    for sheet in layout(r).sheets:
        for laid in sheet.laid:
            files = lies.setdefault(laid.piece.id, [])
            if f"{folder_of(r, sheet)}/" not in files:
                files.append(f"{folder_of(r, sheet)}/")
    made = []
    for piece, reasons in changed_since(r).items():
        module, _, part = piece.partition("/")
        own = [f"{module}/{part.partition('.')[0]}.svg, .dxf"]
        made.append(ChangedFiles(piece=piece, reasons=reasons, files=[*own, *lies.get(piece, [])]))
    return made
