"""The designs: list, make, import, export, copy, change, undo, redo."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Body, Query, Request, Response
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
from wingboard.api.views import DesignView, changed_view, whole_view
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.workshop import AddMachine
from wingboard.core.changes.splitting import split
from wingboard.core.findings.finding import Fix
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import write_design
from wingboard.core.record.errors import UnreadableDesign
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief, PanelKind
from wingboard.core.record.usual import usual_gap
from wingboard.core.record.workshop import MachineFields
from wingboard.services.desk import Desk
from wingboard.services.reading import design_from
from wingboard.services.shelf import workshop_from

router = APIRouter(prefix="/api/designs", tags=["designs"])


class DesignLine(BaseModel):
    """A design in the list."""

    id: str
    name: str
    revision: int
    kept_at: str


class Recovery(BaseModel):
    """A design whose newest revision may be damaged: that revision, and the newest one that can be read."""

    head: int
    last_good: int | None


class NewDesign(BaseModel):
    """The answers of a first visit."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    kind: PanelKind = "other"
    width: Annotated[float, Field(gt=5, le=5000)] = 300.0
    height: Annotated[float, Field(gt=5, le=5000)] = 200.0
    depth: Annotated[float, Field(gt=0, le=5000)] = 90.0
    machines: Annotated[tuple[MachineFields, ...], Field(max_length=10)] = ()


class Batch(BaseModel):
    """Commands made against a revision. ``key`` names the batch, so that one sent twice is kept once."""

    base: Revision
    key: Key = None
    commands: Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]


class Step(BaseModel):
    """The revision an undo or a redo starts from."""

    base: Revision
    key: Key = None


@router.get("")
def list_designs(desk: OnDesk) -> list[DesignLine]:
    """Every design in the list, the one kept last first."""
    return _lines(desk, removed=False)


@router.get("/removed")
def list_removed(desk: OnDesk) -> list[DesignLine]:
    """The designs that were removed from the list, and can be brought back."""
    return _lines(desk, removed=True)


def _lines(desk: Desk, removed: bool) -> list[DesignLine]:
    return [DesignLine(id=d.id, name=d.name, revision=d.head, kept_at=d.kept_at) for d in desk.designs(removed)]


@router.delete("/{design_id}")
def remove(desk: OnDesk, design_id: DesignId) -> list[DesignLine]:
    """Remove a design from the list; nothing of it is lost. Answers with the designs that are left."""
    desk.set_removed(design_id, True)
    return _lines(desk, removed=False)


@router.post("/{design_id}/restore")
def bring_back(desk: OnDesk, design_id: DesignId) -> list[DesignLine]:
    """Bring a removed design back into the list."""
    desk.set_removed(design_id, False)
    return _lines(desk, removed=False)


@router.post("", status_code=201, responses={201: {"model": DesignView}})
def make_design(desk: OnDesk, new: NewDesign) -> Response:
    """A new design from the answers of a first visit: one plate that fills the opening less the gap.

    The workshop is what is on the shelf, and the machines named here.
    """
    process = new.machines[0].kind if new.machines else None
    opening = RectOutline(width=new.width, height=new.height)
    gap = usual_gap(process) if process else Brief().gap
    brief = Brief(kind=new.kind, depth=new.depth, opening=opening, process=process, gap=gap)
    plate = split(brief, ("Plate",), (), 0.0)[0].model_copy(update={"id": "plate"})
    design = Design(name=new.name, brief=brief, modules=(plate,), workshop=workshop_from(desk.shelf()))
    made = apply(design, tuple(AddMachine(**dict(machine)) for machine in new.machines), catalogue())
    return as_json(whole_view(desk.add(made, "Made")), 201)


@router.post(
    "/import",
    status_code=201,
    responses={201: {"model": DesignView}},
    openapi_extra=body_of("application/json"),
)
async def import_design(desk: OnDesk, request: Request) -> Response:
    """A new design from a file that was exported here, or written to the same schema."""
    text = await request.body()
    if not text.strip():
        raise UnreadableDesign("The file is empty")
    design = await run_in_threadpool(design_from, text)
    return await run_in_threadpool(lambda: as_json(whole_view(desk.add(design, "Imported")), 201))


@router.get("/{design_id}", responses={200: {"model": DesignView}})
def read(desk: OnDesk, design_id: DesignId) -> Response:
    """A design at its newest revision."""
    return as_json(whole_view(desk.open(design_id)))


@router.get("/{design_id}/export", response_class=Response, responses=file_of("application/json"))
def export(desk: OnDesk, design_id: DesignId) -> Response:
    """The design as a file that import takes."""
    return download(write_design(desk.open(design_id).design), "application/json", f"{design_id}.json")


@router.get("/{design_id}/raw", response_class=Response, responses=file_of("application/json"))
def raw(desk: OnDesk, design_id: DesignId) -> Response:
    """Everything that is kept of a design, whether it can be read or not."""
    return download(desk.raw(design_id), "application/json", f"{design_id}-raw.json")


@router.get("/{design_id}/recovery", responses={200: {"model": Recovery}})
def recovery(desk: OnDesk, design_id: DesignId) -> Response:
    """What can still be read of a design."""
    return as_json(Recovery(head=desk.head(design_id), last_good=desk.last_good(design_id)))


@router.post("/{design_id}/recover", responses={200: {"model": DesignView}})
def recover(desk: OnDesk, design_id: DesignId) -> Response:
    """Go on from the newest revision that can be read."""
    return as_json(whole_view(desk.recover(design_id)))


class Offer(BaseModel):
    """The fix that is offered for a finding, or why there is none; neither when the finding is no longer there."""

    fix: Fix | None
    why: str = ""


@router.get("/{design_id}/fix", responses={200: {"model": Offer}})
def find_fix(desk: OnDesk, design_id: DesignId, finding: Annotated[str, Query(max_length=200)]) -> Response:
    """The fix of a finding, when there is one that harms nothing."""
    found = desk.open(design_id).fix_of(finding)
    return as_json(Offer(fix=found.fix if found else None, why=found.fixless if found else ""))


@router.post("/{design_id}/copy", status_code=201, responses={201: {"model": DesignView}})
def copy(desk: OnDesk, design_id: DesignId) -> Response:
    """A new design with the same content."""
    return as_json(whole_view(desk.copy(design_id)), 201)


@router.post("/{design_id}/commands", responses={200: {"model": DesignView}})
def command(desk: OnDesk, design_id: DesignId, batch: Annotated[Batch, Body()]) -> Response:
    """Carry out a batch and keep it; the answer comes after it is safe on disk."""
    return answered_before_kept(
        lambda prepare: desk.command(design_id, batch.base, batch.commands, batch.key, prepare), changed_view
    )


@router.post("/{design_id}/undo", responses={200: {"model": DesignView}})
def undo(desk: OnDesk, design_id: DesignId, step: Step) -> Response:
    """Take back the last change."""
    return answered_before_kept(lambda prepare: desk.undo(design_id, step.base, step.key, prepare), changed_view)


@router.post("/{design_id}/redo", responses={200: {"model": DesignView}})
def redo(desk: OnDesk, design_id: DesignId, step: Step) -> Response:
    """Bring back what was undone."""
    return answered_before_kept(lambda prepare: desk.redo(design_id, step.base, step.key, prepare), changed_view)
