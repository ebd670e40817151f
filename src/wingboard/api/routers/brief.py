"""Brief: lists read and written, drawings read, and what follows from the space and the workshop."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from wingboard.api.routers.common import (
    DesignId,
    Key,
    OnDesk,
    Revision,
    answered_before_kept,
    as_json,
    body_of,
    download,
    file_of,
)
from wingboard.api.views import DesignView, changed_view
from wingboard.core.brief.beds import BedFit, bed_fit, usable
from wingboard.core.brief.cells import Cell, Column, command_for_line, commands_for_cells
from wingboard.core.brief.chain import chain
from wingboard.core.brief.corners import read_corners
from wingboard.core.brief.listing import COLUMNS, listing_rows
from wingboard.core.brief.side import elevation
from wingboard.core.brief.weather import suffers
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.files.drawn import DrawnOutline, Unit
from wingboard.core.files.tables import write_csv
from wingboard.core.geometry.outline import area_of, svg_path
from wingboard.core.overview.estimate import estimate
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.record.outlines import PathOutline, RectOutline, path_of
from wingboard.core.record.space import KeepOutFields
from wingboard.core.record.usual import usual_bar, usual_module
from wingboard.core.record.workshop import Material
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.services.desk import Desk, Kept
from wingboard.services.reading import listing_from, outlines_from

router = APIRouter(prefix="/api/designs/{design_id}/brief", tags=["brief"])


class ListText(BaseModel):
    """Lines, or cells copied from a spreadsheet."""

    text: Annotated[str, Field(max_length=400_000)]


class FaultView(BaseModel):
    """A line that was not understood, and why."""

    line: int
    text: str
    reason: str


class ListingView(BaseModel):
    """What was understood, as commands ready to be sent, and what was not."""

    rows: tuple[AddFunction, ...]
    edits: tuple[EditFunction, ...] = Field(description="What is on the list already, and is said differently here")
    same: int = Field(description="Lines that say what is so already")
    faults: list[FaultView]
    columns: tuple[str, ...]


class OutlineView(BaseModel):
    """A closed outline of a drawing: as a design keeps it, as path data, and its size (mm)."""

    outline: PathOutline
    path: str
    width: float
    height: float


class ImportView(BaseModel):
    """The outlines of a drawing, largest first, and what was left aside."""

    outlines: list[OutlineView]
    unit: str
    notes: tuple[str, ...]


class Point(BaseModel):
    """A point of the side elevation (mm)."""

    x: float
    y: float


class NamedShape(BaseModel):
    """A four-cornered outline in the side elevation, and whose it is."""

    id: str
    points: list[Point]


class SideElevation(BaseModel):
    """The side view (mm): origin at the panel's lower front edge, x away from the person, y up."""

    plate: list[Point]
    back: list[Point]
    bodies: list[NamedShape]
    boxes: list[NamedShape]
    eye: Point | None
    knees: list[Point]
    clearance: float | None


class ChainView(BaseModel):
    """The tolerance chain across the modules (mm)."""

    modules: list[str]
    opening: float
    taken: float
    clear: float
    worst: float
    likely: float
    clear_worst: float
    clear_likely: float


class BedView(BaseModel):
    """How a module lies on a machine's bed."""

    module: str
    machine: str
    turn: int
    pieces: int
    width: float = Field(description="Of the module as it lies (mm)")
    height: float
    usable_width: float = Field(description="Of the bed, less its margins (mm)")
    usable_height: float
    over: float = Field(description="How much too long it is (mm); 0 when it fits")


class BedSize(BaseModel):
    """A bed less its margins (mm)."""

    width: float
    height: float


class StageView(BaseModel):
    """Hours of one stage of the work."""

    stage: str
    each: float
    logged: bool
    total: float
    spent: float


class EstimateView(BaseModel):
    """Money in minor units, hours."""

    controls: int
    parts: int
    parts_used_low: int
    parts_used_high: int
    sheets: int
    money: int
    hours: float
    stages: list[StageView]
    bought: int | None
    saved: int | None = Field(description="Against a bought one; less than nothing when it costs more")
    spent: float = Field(description="Hours logged in all")
    saved_an_hour: float | None


class MaterialView(BaseModel):
    """A material to choose, and what speaks against it here: what a laser does to it, what the place does."""

    id: Material
    name: str
    against: list[str]


class BriefView(BaseModel):
    """What follows from the brief and the workshop."""

    materials: list[MaterialView]

    side: SideElevation
    chain: ChainView | None
    beds: list[BedView]
    usable: dict[str, BedSize] = Field(description="Of each machine, its bed less the margins (mm)")
    estimate: EstimateView
    bar: KeepOutFields = Field(description="What is usually in the way, to begin with")
    module: RectOutline = Field(description="A further module, to begin with")


@router.get("", responses={200: {"model": BriefView}})
def brief(desk: OnDesk, design_id: DesignId) -> Response:
    """The side elevation, the tolerance chain, the beds, money and hours."""
    r = desk.open(design_id).resolved
    x0, y0, x1, y1 = area_of(r.design.brief.opening.loop()).bounds
    return as_json(
        BriefView(
            materials=_materials(r),
            side=_side(r),
            chain=_chain(r),
            beds=_beds(r),
            usable={m.id: BedSize(width=usable(m)[0], height=usable(m)[1]) for m in r.design.workshop.machines},
            estimate=_estimate(r),
            bar=usual_bar(x1 - x0, y1 - y0),
            module=usual_module(y1 - y0, r.design.brief.gap),
        )
    )


def _materials(r: Resolved) -> list[MaterialView]:
    laser = {"poison": "never under a laser", "burns": "burns under a laser"}
    return [
        MaterialView(
            id=ident,
            name=known.name,
            against=[*suffers(r.design, ident).values(), *([laser[known.laser]] if known.laser in laser else [])],
        )
        for ident, known in materials().items()
    ]


def _points(points: Iterable[tuple[float, float]]) -> list[Point]:
    return [Point(x=x, y=y) for x, y in points]


def _side(r: Resolved) -> SideElevation:
    seen = elevation(r)
    return SideElevation(
        plate=_points(seen.plate),
        back=_points(seen.back),
        bodies=[NamedShape(id=ident, points=_points(points)) for ident, points in seen.bodies],
        boxes=[NamedShape(id=ident, points=_points(points)) for ident, points in seen.boxes],
        eye=_points([seen.eye])[0] if seen.eye else None,
        knees=_points(seen.knees),
        clearance=seen.clearance,
    )


def _chain(r: Resolved) -> ChainView | None:
    row = chain(r)
    if row is None:
        return None
    return ChainView(
        modules=[p.module.name for p in row.modules],
        opening=row.opening,
        taken=row.taken,
        clear=row.clear,
        worst=row.worst,
        likely=row.likely,
        clear_worst=row.clear_worst,
        clear_likely=row.clear_likely,
    )


def _beds(r: Resolved) -> list[BedView]:
    fits = [(p, bed_fit(*p.size, m)) for p in r.modules.values() for m in r.design.workshop.machines]
    return [_bed(p, f) for p, f in fits]


def _bed(module: ResolvedModule, fit: BedFit) -> BedView:
    width, height = module.size if fit.turn == 0 else module.size[::-1]
    usable_width, usable_height = usable(fit.machine)
    return BedView(
        module=module.module.id,
        machine=fit.machine.id,
        turn=fit.turn,
        pieces=fit.pieces,
        width=width,
        height=height,
        usable_width=usable_width,
        usable_height=usable_height,
        over=max(0.0, fit.least),
    )


def _estimate(r: Resolved) -> EstimateView:
    found = estimate(r)
    return EstimateView(
        controls=found.controls,
        parts=found.parts,
        parts_used_low=found.parts_used[0],
        parts_used_high=found.parts_used[1],
        sheets=found.sheets,
        money=found.money,
        hours=found.hours,
        stages=[StageView(**s._asdict()) for s in found.stages],
        bought=found.bought,
        saved=None if found.bought is None else found.bought - found.money,
        spent=math.fsum(stage.spent for stage in found.stages),
        saved_an_hour=found.saved_an_hour,
    )


@router.post("/read-list", responses={200: {"model": ListingView}})
def read_list(desk: OnDesk, design_id: DesignId, asked: ListText) -> Response:
    """Read a list of functions without keeping it."""
    found = listing_from(asked.text, desk.open(design_id).design)
    faults = [FaultView(line=f.line, text=f.text, reason=f.reason) for f in found.faults]
    return as_json(
        ListingView(rows=found.rows, edits=found.edits, same=found.same, faults=faults, columns=found.columns)
    )


class CellText(BaseModel):
    """What is typed into one cell of the list; without a function it belongs to a new row."""

    row: Annotated[int, Field(ge=0, le=5000)] = 0
    function: Ident | None = None
    column: Column
    text: Annotated[str, Field(max_length=400)]


class Cells(BaseModel):
    """Cells typed, pasted or filled down together."""

    base: Revision
    key: Key = None
    cells: Annotated[tuple[CellText, ...], Field(min_length=1, max_length=5000)]


@router.post("/cells", responses={200: {"model": DesignView}})
def set_cells(desk: OnDesk, design_id: DesignId, typed: Cells) -> Response:
    """Read cells as the list means them, and keep what they say; nothing is kept when one cannot be read."""
    cells = [Cell(c.row, c.function, c.column, c.text) for c in typed.cells]
    return _kept(desk, design_id, typed, lambda design: commands_for_cells(design, cells))


class Wish(BaseModel):
    """A function typed in one line, and the group it comes into."""

    base: Revision
    key: Key = None
    text: Annotated[str, Field(min_length=1, max_length=240)]
    group: Words = ""


@router.post("/wish", responses={200: {"model": DesignView}})
def add_wish(desk: OnDesk, design_id: DesignId, typed: Wish) -> Response:
    """Add the function that a typed line says."""
    return _kept(desk, design_id, typed, lambda design: (command_for_line(design, typed.text, typed.group),))


def _kept(desk: Desk, design_id: str, typed: Cells | Wish, work: Callable[[Design], tuple[Command, ...]]) -> Response:
    """Keep what is typed; what changes nothing is not kept."""
    state = desk.open(design_id, typed.base)
    batch = work(state.design)
    if not batch:
        return as_json(changed_view(Kept(state, state)))
    return answered_before_kept(
        lambda prepare: desk.command(design_id, typed.base, batch, typed.key, prepare), changed_view
    )


class CornersText(BaseModel):
    """Corners typed one a line."""

    text: Annotated[str, Field(max_length=200_000)]


@router.post("/read-corners", responses={200: {"model": OutlineView}})
def read_typed_corners(desk: OnDesk, design_id: DesignId, asked: CornersText) -> Response:
    """The outline of typed corners, drawn; nothing is kept."""
    desk.head(design_id)
    outline = read_corners(asked.text)
    loop = outline.loop()
    x0, y0, x1, y1 = area_of(loop).bounds
    return as_json(OutlineView(outline=outline, path=svg_path(loop), width=x1 - x0, height=y1 - y0))


@router.get("/list.csv", response_class=Response, responses=file_of("text/csv; charset=utf-8"))
def list_csv(desk: OnDesk, design_id: DesignId) -> Response:
    """The function list as CSV; reading it gives the same functions."""
    content = write_csv(COLUMNS, listing_rows(desk.open(design_id).design))
    return download(content, "text/csv; charset=utf-8", f"{design_id}-functions.csv")


@router.post(
    "/read-outline",
    responses={200: {"model": ImportView}},
    openapi_extra=body_of("image/vnd.dxf", "image/svg+xml", "application/octet-stream"),
)
async def read_outline(
    desk: OnDesk, design_id: DesignId, request: Request, unit: Annotated[Unit, Query()] = "as drawn"
) -> Response:
    """The closed outlines of a DXF or SVG file sent as the body; nothing is kept."""
    content = await request.body()

    def read() -> Response:
        desk.open(design_id)
        found = outlines_from(content, unit)
        outlines = [_outline(drawn) for drawn in found.outlines[:20] if len(drawn.loop) <= 2000]
        return as_json(ImportView(outlines=outlines, unit=found.unit, notes=found.notes))

    return await run_in_threadpool(read)


def _outline(drawn: DrawnOutline) -> OutlineView:
    return OutlineView(outline=path_of(drawn.loop), path=svg_path(drawn.loop), width=drawn.width, height=drawn.height)
