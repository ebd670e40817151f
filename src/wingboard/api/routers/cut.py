"""Cut: the sheets as drawings, and every file."""

from __future__ import annotations

import io
import zipfile
from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel

from wingboard.api.routers.common import PROBLEMS, DesignId, OnDesk, as_json
from wingboard.core.cut.export import cut_file, cut_file_names, cut_files
from wingboard.core.cut.jobsheet import CAUTIONS, drill_schedule, job_sheet, unsettled
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.files.scene import OPERATIONS, CirclePath, Item, Operation, Scene
from wingboard.core.geometry.outline import Vertex, svg_line, svg_path
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved, ResolvedModule
from wingboard.core.wire.export import wire_files

router = APIRouter(prefix="/api/designs/{design_id}/cut", tags=["cut"], responses=PROBLEMS)

MEDIA = {"svg": "image/svg+xml", "dxf": "image/vnd.dxf", "pdf": "application/pdf", "txt": "text/plain; charset=utf-8"}


class OperationView(BaseModel):
    """One operation of a sheet as path data, y up, and how many paths it has."""

    operation: Operation
    path: str
    line: str
    many: int


class SheetView(BaseModel):
    """One layer of one module."""

    id: str
    title: str
    thickness: float
    operations: list[OperationView]


class DrillView(BaseModel):
    """Round holes of one diameter in one sheet."""

    sheet: str
    diameter: float
    many: int


class CutModule(BaseModel):
    """A module's sheets and files."""

    id: str
    name: str
    width: float
    height: float
    sheets: list[SheetView]
    files: list[str]
    drills: list[DrillView]


class CutView(BaseModel):
    """Everything the cut station shows."""

    revision: int
    modules: list[CutModule]
    unsettled: list[str]
    cautions: list[str]


@router.get("", responses={200: {"model": CutView}})
def sheets(desk: OnDesk, design_id: DesignId) -> Response:
    """The sheets of every module."""
    state = desk.open(design_id)
    modules = [_module(state.resolved, module) for module in state.resolved.modules.values()]
    left = list(unsettled(state.findings))
    return as_json(CutView(revision=state.row.number, modules=modules, unsettled=left, cautions=list(CAUTIONS)))


@router.get("/job-sheet.txt")
def job(desk: OnDesk, design_id: DesignId) -> Response:
    """The job sheet as text."""
    state = desk.open(design_id)
    return _file(job_sheet(state.resolved, state.findings).encode(), f"{design_id}-job-sheet.txt")


@router.get("/all.zip")
def everything(desk: OnDesk, design_id: DesignId) -> Response:
    """Every file of the design in one archive."""
    state = desk.open(design_id)
    files = {**cut_files(state.resolved, state.findings), **wire_files(state.resolved)}
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in sorted(files.items()):
            archive.writestr(zipfile.ZipInfo(name, (2000, 1, 1, 0, 0, 0)), content, zipfile.ZIP_DEFLATED)
    headers = {"content-disposition": f'attachment; filename="{design_id}.zip"'}
    return Response(stream.getvalue(), media_type="application/zip", headers=headers)


@router.get("/{module}/{name}")
def one_file(desk: OnDesk, design_id: DesignId, module: str, name: Annotated[str, Path(max_length=80)]) -> Response:
    """One file of a module, such as ``face.dxf``."""
    state = desk.open(design_id)
    found = state.resolved.modules.get(module)
    content = cut_file(state.resolved, state.findings, found, name) if found else None
    if content is None:
        raise UnknownThing(f"There is no file {name} for “{module}”", "name")
    return _file(content, f"{design_id}-{module}-{name}")


def _file(content: bytes, name: str) -> Response:
    headers = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=MEDIA[name.rsplit(".", 1)[-1]], headers=headers)


def _module(r: Resolved, module: ResolvedModule) -> CutModule:
    scenes = module_scenes(r, module)
    width, height = module.size
    return CutModule(
        id=module.module.id,
        name=module.module.name,
        width=width,
        height=height,
        sheets=[_sheet(name, scene) for name, scene in scenes.items()],
        files=list(cut_file_names(r, module)),
        drills=[DrillView(**drill._asdict()) for drill in drill_schedule(scenes)],
    )


def _sheet(name: str, scene: Scene) -> SheetView:
    operations = [
        OperationView(
            operation=op,
            path="".join(_path(i) for i in scene.of(op) if not i.open),
            line="".join(_path(i) for i in scene.of(op) if i.open),
            many=len(scene.of(op)),
        )
        for op in OPERATIONS
        if scene.of(op)
    ]
    return SheetView(id=name, title=scene.title, thickness=scene.thickness, operations=operations)


def _path(item: Item) -> str:
    if not isinstance(item.path, CirclePath):
        return svg_line(item.path) if item.open else svg_path(item.path)
    c, r = item.path, item.path.diameter / 2
    return svg_path((Vertex(c.x - r, c.y, 1.0), Vertex(c.x + r, c.y, 1.0)))
