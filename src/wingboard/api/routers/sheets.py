"""The sheets as they lie on the machines' beds, what is done to each, and the programs that do it."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel

from wingboard.api.routers.common import BINARY, DesignId, OnDesk, as_json, download
from wingboard.core.cut.again import changed_since, marked
from wingboard.core.cut.bones import left_round
from wingboard.core.cut.cutters import tool_for
from wingboard.core.cut.jobsheet import step_id
from wingboard.core.cut.nest import Box
from wingboard.core.cut.others import others
from wingboard.core.cut.parted import Axis
from wingboard.core.cut.pieces import Piece, parted_of, pieces_of, whole_pieces
from wingboard.core.cut.plan import (
    WRONG,
    coupon_files,
    coupons,
    folder_of,
    planned,
    program_files,
    sheet_title,
    verdict,
)
from wingboard.core.cut.program import tool_words
from wingboard.core.cut.seams import offered
from wingboard.core.cut.sheets import Laid, Sheet, can, layout
from wingboard.core.cut.toolpath import Cut
from wingboard.core.cut.work import Operation, fit_of
from wingboard.core.files.scene import path_data
from wingboard.core.geometry.outline import Vertex, svg_path, svg_way
from wingboard.core.record.cutting import CutPiece, Joint, Split
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Material
from wingboard.core.resolved.design import Resolved

router = APIRouter(prefix="/api/designs/{design_id}/sheets", tags=["cut"])

SheetId = Annotated[str, Path(pattern=r"^[a-z0-9_-]{1,120}$")]
MEDIA = {"nc": "text/x-gcode; charset=us-ascii", "svg": "image/svg+xml", "dxf": "image/vnd.dxf"}


class RectView(BaseModel):
    """A rectangle (mm) from its lower left corner."""

    x: float
    y: float
    width: float
    height: float


class LaidView(BaseModel):
    """A piece on its sheet (mm)."""

    piece: str
    name: str
    copy_number: int
    x: float
    y: float
    width: float
    height: float
    turned: bool
    back_up: bool


class SheetLine(BaseModel):
    """A sheet on the bed of a machine (mm); ``at_x``, ``at_y``: where its lower left corner lies on the bed.

    ``under`` is the colour that engraving lays bare; empty where the sheet is not painted. ``raw`` is the sheet's own.
    """

    id: str
    title: str
    folder: str
    machine: str
    machine_name: str
    kind: Literal["laser", "mill"]
    material: Material
    material_name: str
    thickness: float
    width: float
    height: float
    at_x: float
    at_y: float
    bed_width: float
    bed_height: float
    margin: float
    colour: str
    under: str
    raw: str
    on_hand: bool
    stock: str | None
    laid: list[LaidView]
    taken: list[RectView]
    rest: RectView | None
    kerf: float
    engraved: float
    tried: bool
    coupons: list[str]


class UnlaidView(BaseModel):
    """A piece that no machine here cuts, and why."""

    piece: str
    name: str
    why: str


class ChoiceView(BaseModel):
    """A machine that can make a piece."""

    id: str
    name: str


class PieceView(BaseModel):
    """A piece: its size and sheet, which machine makes it, which others could, how many are made."""

    id: str
    name: str
    of: str
    width: float
    height: float
    material_name: str
    thickness: float
    many: int
    machine: str | None
    chosen: bool
    cut: bool
    again: list[str]
    machines: list[ChoiceView]


class SplitView(BaseModel):
    """Seams across a piece's width (``x``) or height (``y``), from its lower left corner (mm), and their joint."""

    along: Axis
    at: list[float]
    joint: Joint


class WholeView(BaseModel):
    """A piece that is parted, or too large for every bed: its seams, and those that would do, by their joint.

    ``drawn`` is its outline with its openings as path data, y up; ``marked``: the dowels are marked on its parts.
    """

    id: str
    name: str
    width: float
    height: float
    thickness: float
    split: SplitView | None
    drawn: str
    crossed: list[str]
    dowels: list[float]
    marked: bool
    offers: list[SplitView]


class OtherView(BaseModel):
    """Something that is made and not cut from a sheet: how many, who makes it how; ``fine``: somebody here can."""

    name: str
    many: int
    how: str
    file: str
    fine: bool


class SheetsView(BaseModel):
    """Every sheet in the order of the work, every piece, and those that no machine cuts or that are parted."""

    revision: int
    sheets: list[SheetLine]
    pieces: list[PieceView]
    unlaid: list[UnlaidView]
    wholes: list[WholeView]
    others: list[OtherView]


class CutLineView(BaseModel):
    """One cut: whose it is, where it begins, its way as path data, how long it takes with the way to it (s)."""

    label: str
    x: float
    y: float
    path: str
    seconds: float


class OperationLine(BaseModel):
    """One operation: its tool, speeds (turns, mm/min), depth, time (s), travel (mm) and the least there could be."""

    step_id: str
    kind: str
    title: str
    side: str
    tool: str
    rpm: float
    feed: float
    plunge: float
    step: float
    surface_speed: float
    tooth: float
    width: float
    depth: float
    seconds: float
    travel: float
    bound: float
    cuts: list[CutLineView]
    left_out: list[str]


class DrawnPiece(BaseModel):
    """A piece's outline, openings, letters and lines as they lie on the sheet, and what stays in corners, as paths."""

    piece: str
    outline: str
    openings: str
    letters: str
    lines: str
    corners: str


class FaultView(BaseModel):
    """Where the written program takes too much or leaves something."""

    piece: str
    what: str
    by: float
    x: float
    y: float


class SheetPlan(BaseModel):
    """What is done to a sheet, and what its written program was found to do."""

    id: str
    operations: list[OperationLine]
    pieces: list[DrawnPiece]
    faults: list[FaultView]
    written_seconds: float
    blocks: int
    files: list[str]
    marks: list[CutPiece]


@router.get("", responses={200: {"model": SheetsView}})
def sheets(desk: OnDesk, design_id: DesignId) -> Response:
    """The sheets of a design."""
    state = desk.open(design_id)
    r = state.resolved
    found = layout(r)
    lies = {laid.piece.id: sheet.machine.id for sheet in found.sheets for laid in sheet.laid}
    cut, again = {c.piece for c in r.design.cutting.cut}, changed_since(r)
    chosen = {j.piece for j in r.design.cutting.jobs}
    pieces = [
        PieceView(
            id=p.id, name=p.name, of=p.of, width=p.width, height=p.height, material_name=materials()[p.material].name,
            thickness=p.thickness, many=p.many, machine=lies.get(p.id), chosen=p.id in chosen,
            cut=p.id in cut, again=again.get(p.id, []),
            machines=[ChoiceView(id=m.id, name=m.name) for m in r.design.workshop.machines if can(m, p)],
        )
        for p in pieces_of(r)
    ]  # fmt: skip
    left = [UnlaidView(piece=u.piece.id, name=u.piece.name, why=u.why) for u in found.unlaid]
    lines = [_line(r, sheet) for sheet in found.sheets]
    large = {u.piece.id for u in found.unlaid if u.over > 0}
    wholes = [_whole(r, p) for p in whole_pieces(r) if p.id in large or parted_of(r, p)]
    return as_json(
        SheetsView(
            revision=state.row.number,
            sheets=lines,
            pieces=pieces,
            unlaid=left,
            wholes=wholes,
            others=[OtherView(**o._asdict()) for o in others(r)],
        )
    )


@router.get("/{sheet}", responses={200: {"model": SheetPlan}})
def one_sheet(desk: OnDesk, design_id: DesignId, sheet: SheetId) -> Response:
    """The operations of a sheet, and what its program does."""
    state = desk.open(design_id)
    r = state.resolved
    found = _found(r, sheet)
    known = WRONG.many
    judged = verdict(r, found)
    if WRONG.many != known:
        state.tell_of_more()
    plan = SheetPlan(
        id=found.id,
        operations=[_operation(step_id(found, n, op), op) for n, op in enumerate(planned(r, found), 1)],
        pieces=[_drawn(laid, found) for laid in found.laid],
        faults=[FaultView(piece=piece, **fault._asdict()) for piece, fault in judged.faults],
        written_seconds=judged.seconds,
        blocks=judged.blocks,
        files=[f.name for f in program_files(r, found)],
        marks=marked(r, {laid.piece.id for laid in found.laid}),
    )
    return as_json(plan)


@router.get(
    "/{sheet}/{name}",
    response_class=Response,
    responses={200: {"description": "The file", "content": dict.fromkeys(MEDIA.values(), BINARY)}},
)
def program(desk: OnDesk, design_id: DesignId, sheet: SheetId, name: Annotated[str, Path(max_length=80)]) -> Response:
    """One program of a sheet."""
    r = desk.open(design_id).resolved
    found = _found(r, sheet)
    for file in (*coupon_files(r, found), *program_files(r, found)):
        if file.name == name:
            return download(file.content, MEDIA[name.rsplit(".", 1)[-1]], f"{folder_of(r, found)}-{name}")
    raise UnknownThing(f"There is no file {name} for this sheet", "name")


def _whole(r: Resolved, piece: Piece) -> WholeView:
    parted = parted_of(r, piece)
    joints: tuple[Joint, ...] = ("straight", "tongues")
    offers = [found for joint in joints if (found := offered(r, piece, joint)) is not None]
    return WholeView(
        id=piece.id, name=piece.name, width=piece.width, height=piece.height, thickness=piece.thickness,
        drawn="".join(path_data(i) for i in piece.drawn.items if i.operation in ("outline", "inner")),
        split=_split(parted.split) if parted else None, crossed=parted.crossed() if parted else [],
        dowels=[v for at in parted.at for v in parted.dowels(at)] if parted else [],
        marked=parted is not None and parted.marked,
        offers=[_split(o) for o in offers],
    )  # fmt: skip


def _split(split: Split) -> SplitView:
    return SplitView(along=split.along, at=list(split.at), joint=split.joint)


def _found(r: Resolved, ident: str) -> Sheet:
    found = next((s for s in layout(r).sheets if s.id == ident), None)
    if found is None:
        raise UnknownThing("That sheet is no longer there: pieces or machines were changed", "sheet")
    return found


def _line(r: Resolved, sheet: Sheet) -> SheetLine:
    machine = sheet.machine
    fit = fit_of(r.design, machine, sheet.material, sheet.thickness)
    layer = next((laid.piece.layer for laid in sheet.laid if laid.piece.layer), None)
    return SheetLine(
        id=sheet.id, title=sheet_title(sheet), folder=folder_of(r, sheet), machine=machine.id,
        machine_name=machine.name, kind="laser" if machine.kind == "laser" else "mill", material=sheet.material,
        material_name=materials()[sheet.material].name, thickness=sheet.thickness, width=sheet.width,
        height=sheet.height, at_x=sheet.at[0], at_y=sheet.at[1], bed_width=machine.bed_width,
        bed_height=machine.bed_height, margin=machine.margin,
        colour=layer.paint[-1].colour if layer and layer.paint else (layer.colour if layer else "#FFFFFF"),
        under=(sheet.stock.colour if sheet.stock else layer.colour) if layer and layer.paint else "",
        raw=sheet.stock.colour if sheet.stock else (layer.colour if layer else "#FFFFFF"),
        on_hand=sheet.stock is not None, stock=sheet.stock.id if sheet.stock else None,
        laid=[_laid(laid) for laid in sheet.laid], taken=[_rect(box) for box in sheet.taken],
        rest=_rect(sheet.rest) if sheet.rest else None, kerf=fit.kerf, engraved=fit.engraved, tried=fit.tried,
        coupons=list(coupons(r, sheet)),
    )  # fmt: skip


def _rect(box: Box) -> RectView:
    return RectView(x=box.x, y=box.y, width=box.width, height=box.height)


def _laid(laid: Laid) -> LaidView:
    wide, high = laid.piece.width, laid.piece.height
    return LaidView(
        piece=laid.piece.id, name=laid.piece.name, copy_number=laid.copy + 1, x=laid.x, y=laid.y,
        width=high if laid.turned else wide, height=wide if laid.turned else high, turned=laid.turned,
        back_up=laid.piece.side == "behind",
    )  # fmt: skip


def _operation(step: str, op: Operation) -> OperationLine:
    return OperationLine(
        step_id=step,
        kind=op.kind, title=op.title, side=op.side, tool=tool_words(op), rpm=op.feeds.rpm, feed=op.feeds.feed,
        plunge=op.feeds.plunge, step=op.feeds.step, surface_speed=op.feeds.vc, tooth=op.feeds.fz, width=op.width,
        depth=op.depth, seconds=op.seconds, travel=op.travel, bound=op.bound,
        cuts=[_cut(cut, taken) for cut, taken in zip(op.cuts, op.times, strict=True)], left_out=list(op.left_out),
    )  # fmt: skip


def _cut(cut: Cut, seconds: float) -> CutLineView:
    return CutLineView(label=cut.label, x=round(cut.x, 3), y=round(cut.y, 3), path=_way(cut), seconds=round(seconds, 3))


def _way(cut: Cut) -> str:
    """The way of a cut as path data; where a laser is off, it is broken."""
    runs: list[list[Vertex]] = [[Vertex(cut.x, cut.y)]]
    x, y = cut.x, cut.y
    for step in cut.steps:
        if (step.x, step.y) != (x, y):
            if step.on:
                runs[-1][-1] = runs[-1][-1]._replace(bulge=step.bulge)
                runs[-1].append(Vertex(step.x, step.y))
            else:
                runs.append([Vertex(step.x, step.y)])
        x, y = step.x, step.y
    return "".join(svg_way(tuple(run)) for run in runs if len(run) > 1)


def _drawn(laid: Laid, sheet: Sheet) -> DrawnPiece:
    items = laid.items()
    corners = []
    for item in items if sheet.machine.kind == "mill" else ():
        fitting = tool_for(sheet.machine, item.path, sheet.thickness) if item.operation == "inner" else None
        if fitting is not None:
            rings = [p.exterior for p in left_round(item.path, fitting[1].diameter / 2, sheet.machine.bones)]
            corners += [svg_path(tuple(Vertex(x, y) for x, y in ring.coords[:-1])) for ring in rings]
    return DrawnPiece(
        piece=laid.piece.id,
        outline="".join(path_data(i) for i in items if i.operation == "outline"),
        openings="".join(path_data(i) for i in items if i.operation == "inner"),
        letters="".join(path_data(i) for i in items if i.operation in ("engrave", "mask") and not i.open),
        lines="".join(path_data(i) for i in items if i.operation == "engrave" and i.open),
        corners="".join(corners),
    )
