"""Cut: the sheets as drawings, and every file."""

from __future__ import annotations

from functools import partial
from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel

from wingboard.api.routers.common import (
    BINARY,
    DesignId,
    OnDesk,
    WithJobs,
    as_json,
    download,
    file_of,
)
from wingboard.api.routers.events import JobId, JobView, job_view
from wingboard.core.cut.byhand import hand_work, jigs
from wingboard.core.cut.export import cut_file, cut_file_names, lists_of
from wingboard.core.cut.jobsheet import CAUTIONS, drill_schedule, job_sheet, unsettled
from wingboard.core.cut.jobsheet_pdf import job_sheet_pdf
from wingboard.core.cut.scenes import every_scene, module_scenes
from wingboard.core.files.scene import OPERATIONS, Operation, Scene, path_data
from wingboard.core.findings.finding import Severity
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.services.archive import archive_job

router = APIRouter(prefix="/api/designs/{design_id}/cut", tags=["cut"])

MEDIA = {
    "png": "image/png",
    "svg": "image/svg+xml", "dxf": "image/vnd.dxf", "pdf": "application/pdf", "txt": "text/plain; charset=utf-8",
    "csv": "text/csv; charset=utf-8", "stl": "model/stl", "3mf": "model/3mf",
}  # fmt: skip


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
    width: float
    height: float
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


class UnsettledView(BaseModel):
    """A finding that is still to be fixed or judged, in one line."""

    severity: Severity
    words: str


class HandLine(BaseModel):
    """Holes of one size of a piece, or one large opening: what with, its pilot and depth (mm), what to mind."""

    piece: str
    what: str
    diameter: float
    many: int
    bit: str
    pilot: float
    depth: float | None
    mind: str


class JigView(BaseModel):
    """Holes at the same distances (mm) from two edges: one setting of a jig."""

    from_side: float
    from_end: float
    diameter: float
    many: int
    pieces: list[str]


class ByHandView(BaseModel):
    """What is drilled, filed and sawn, in the order of the work, and the jigs that are worth making."""

    work: list[HandLine]
    jigs: list[JigView]


class CutView(BaseModel):
    """Everything the cut station shows."""

    revision: int
    modules: list[CutModule]
    unsettled: list[UnsettledView]
    cautions: list[str]


@router.get("", responses={200: {"model": CutView}})
def sheets(desk: OnDesk, design_id: DesignId) -> Response:
    """The sheets of every module."""
    state = desk.open(design_id)
    modules = [_module(state.resolved, module) for module in state.resolved.modules.values()]
    left = [UnsettledView(severity=line.severity, words=line.words) for line in unsettled(state.judged())]
    return as_json(CutView(revision=state.row.number, modules=modules, unsettled=left, cautions=list(CAUTIONS)))


@router.get("/job-sheet.txt", response_class=Response, responses=file_of(MEDIA["txt"]))
def job(desk: OnDesk, design_id: DesignId) -> Response:
    """The job sheet as text."""
    state = desk.open(design_id)
    return _file(
        job_sheet(state.resolved, state.judged(), every_scene(state.resolved)).encode(), f"{design_id}-job-sheet.txt"
    )


@router.get("/job-sheet.pdf", response_class=Response, responses=file_of(MEDIA["pdf"]))
def job_pages(desk: OnDesk, design_id: DesignId) -> Response:
    """The job sheet as pages to print."""
    state = desk.open(design_id)
    return _file(job_sheet_pdf(state.resolved, state.judged()), f"{design_id}-job-sheet.pdf")


@router.get("/by-hand", responses={200: {"model": ByHandView}})
def by_hand(desk: OnDesk, design_id: DesignId) -> Response:
    """What a pair of hands needs."""
    r = desk.open(design_id).resolved
    work = [HandLine(**w._asdict()) for w in hand_work(r)]
    return as_json(ByHandView(work=work, jigs=[JigView(**j._asdict()) for j in jigs(r)]))


@router.get("/_lists/{name}", response_class=Response, responses=file_of(MEDIA["csv"]))
def one_list(desk: OnDesk, design_id: DesignId, name: Annotated[str, Path(max_length=40)]) -> Response:
    """The list of pieces, of holes, or of what is drilled with what, as CSV."""
    found = lists_of(desk.open(design_id).resolved).get(name)
    if found is None:
        raise UnknownThing(f"There is no list {name}", "name")
    return _file(found, f"{design_id}-{name}")


@router.post("/archive", status_code=202, responses={202: {"model": JobView}})
def make_archive(desk: OnDesk, jobs: WithJobs, design_id: DesignId) -> Response:
    """Start making every file of the design as one archive."""
    state = desk.open(design_id)
    findings = None if state.judging else state.findings
    work = partial(archive_job, state.design, findings, state.row.number)
    return as_json(job_view(jobs.start("archive", design_id, work)), 202)


@router.get("/archive/{job}", response_class=Response, responses=file_of("application/zip"))
def archive(jobs: WithJobs, design_id: DesignId, job: JobId) -> Response:
    """The archive that a job made."""
    found = jobs.find(job)
    if found.task != "archive" or found.design != design_id or not isinstance(found.result, bytes):
        raise NotPossible(f"That archive is not there: {found.words}", "job")
    return download(found.result, "application/zip", f"{design_id}.zip")


@router.get(
    "/{module}/{name}",
    response_class=Response,
    responses={200: {"description": "The file", "content": dict.fromkeys(MEDIA.values(), BINARY)}},
)
def one_file(
    desk: OnDesk, design_id: DesignId, module: DesignId, name: Annotated[str, Path(max_length=80)]
) -> Response:
    """One file of a module, such as ``face.dxf``."""
    state = desk.open(design_id)
    found = state.resolved.modules.get(module)
    content = cut_file(state.resolved, state.judged(), found, name) if found else None
    if content is None:
        raise UnknownThing(f"There is no file {name} for “{module}”", "name")
    return _file(content, f"{design_id}-{module}-{name}")


def _file(content: bytes, name: str) -> Response:
    return download(content, MEDIA[name.rsplit(".", 1)[-1]], name)


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
            path="".join(path_data(i) for i in scene.of(op) if not i.open),
            line="".join(path_data(i) for i in scene.of(op) if i.open),
            many=len(scene.of(op)),
        )
        for op in OPERATIONS
        if scene.of(op)
    ]
    return SheetView(
        id=name,
        title=scene.title,
        width=scene.width,
        height=scene.height,
        thickness=scene.thickness,
        operations=operations,
    )
