"""The designs: list, make, import, export, copy, change, undo, redo."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Body, Request, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import PROBLEMS, DesignId, OnDesk, as_json
from wingboard.api.views import DesignView, changed_view, whole_view
from wingboard.core.changes.command import Command
from wingboard.core.changes.splitting import split
from wingboard.core.findings.limits import LIMITS
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design, write_design
from wingboard.core.record.errors import UnreadableDesign
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief, PanelKind
from wingboard.core.record.workshop import Machine, Workshop

router = APIRouter(prefix="/api/designs", tags=["designs"], responses=PROBLEMS)


class DesignLine(BaseModel):
    """A design in the list."""

    id: str
    name: str
    revision: int
    kept_at: str


class NewDesign(BaseModel):
    """The answers of a first visit."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    kind: PanelKind = "other"
    width: Annotated[float, Field(gt=5, le=5000)] = 300.0
    height: Annotated[float, Field(gt=5, le=5000)] = 200.0
    depth: Annotated[float, Field(gt=0, le=5000)] = 90.0
    machines: Annotated[tuple[Machine, ...], Field(max_length=10)] = ()


class Batch(BaseModel):
    """Commands made against a revision. ``key`` names the batch, so that one sent twice is kept once."""

    base: Annotated[int, Field(ge=1)]
    key: Annotated[str, Field(max_length=80)] | None = None
    commands: Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]


class Step(BaseModel):
    """The revision an undo or a redo starts from."""

    base: Annotated[int, Field(ge=1)]


@router.get("")
def list_designs(desk: OnDesk) -> list[DesignLine]:
    """Every design, the one kept last first."""
    return [DesignLine(id=d.id, name=d.name, revision=d.head, kept_at=d.kept_at) for d in desk.designs()]


@router.post("", status_code=201, responses={201: {"model": DesignView}})
def make_design(desk: OnDesk, new: NewDesign) -> Response:
    """A new design from the answers of a first visit: one plate that fills the opening less the gap.

    The workshop is what is on the shelf, and the machines named here.
    """
    process = new.machines[0].kind if new.machines else None
    opening = RectOutline(width=new.width, height=new.height)
    gap = LIMITS["gap-hand" if process == "hand" else "gap-machine"].value if process else Brief().gap
    brief = Brief(kind=new.kind, depth=new.depth, opening=opening, process=process, gap=gap)
    plate = split(brief, ("Plate",), (), 0.0)[0].model_copy(update={"id": "plate"})
    shelf = desk.shelf()
    machines = {m.id: m for m in (*shelf.machines, *new.machines)}
    workshop = Workshop(machines=tuple(machines.values()), stock=shelf.stock, supplies=shelf.supplies)
    design = Design(name=new.name, brief=brief, modules=(plate,), workshop=workshop)
    return as_json(whole_view(desk.add(design, "Made")), 201)


@router.post("/import", status_code=201, responses={201: {"model": DesignView}})
async def import_design(desk: OnDesk, request: Request) -> Response:
    """A new design from a file that was exported here, or written to the same schema."""
    text = await request.body()
    if not text.strip():
        raise UnreadableDesign("The file is empty")
    return as_json(whole_view(desk.add(read_design(text, catalogue()), "Imported")), 201)


@router.get("/{design_id}", responses={200: {"model": DesignView}})
def read(desk: OnDesk, design_id: DesignId) -> Response:
    """A design at its newest revision."""
    return as_json(whole_view(desk.open(design_id)))


@router.get("/{design_id}/export")
def export(desk: OnDesk, design_id: DesignId) -> Response:
    """The design as a file that import takes."""
    headers = {"content-disposition": f'attachment; filename="{design_id}.json"'}
    return Response(write_design(desk.open(design_id).design), media_type="application/json", headers=headers)


@router.post("/{design_id}/copy", status_code=201, responses={201: {"model": DesignView}})
def copy(desk: OnDesk, design_id: DesignId) -> Response:
    """A new design with the same content."""
    return as_json(whole_view(desk.copy(design_id)), 201)


@router.post("/{design_id}/commands", responses={200: {"model": DesignView}})
def command(desk: OnDesk, design_id: DesignId, batch: Annotated[Batch, Body()]) -> Response:
    """Carry out a batch and keep it; the answer comes after it is safe on disk."""
    return as_json(changed_view(desk.command(design_id, batch.base, batch.commands, batch.key)))


@router.post("/{design_id}/undo", responses={200: {"model": DesignView}})
def undo(desk: OnDesk, design_id: DesignId, step: Step) -> Response:
    """Take back the last change."""
    return as_json(changed_view(desk.undo(design_id, step.base)))


@router.post("/{design_id}/redo", responses={200: {"model": DesignView}})
def redo(desk: OnDesk, design_id: DesignId, step: Step) -> Response:
    """Bring back what was undone."""
    return as_json(changed_view(desk.redo(design_id, step.base)))
