"""Face: trying a move without keeping it, and the number line."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, Key, OnDesk, Revision, answered_before_kept, as_json
from wingboard.api.views import DesignView, changed_view, placed_by_id
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.changes.handlers.steps import find_module
from wingboard.core.face.freespot import free_spot
from wingboard.core.face.near import neighbours, to_edge
from wingboard.core.face.numberline import commands_for
from wingboard.core.face.snapping import Axis, Kind, caught_near, guides_for
from wingboard.core.findings.finding import Finding
from wingboard.core.geometry.outline import area_of
from wingboard.core.overview.review import clashes
from wingboard.core.record.base import Ident, Mm
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.modules import Module
from wingboard.services.desk import Desk, Kept

router = APIRouter(prefix="/api/designs/{design_id}/face", tags=["face"])


class Point(BaseModel):
    """A point of a module."""

    x: float
    y: float


def _point(at: tuple[float, float]) -> Point:
    return Point(x=at[0], y=at[1])


class Probe(BaseModel):
    """Commands to try, and the function whose surroundings are asked for."""

    base: Revision
    lead: Ident
    commands: Annotated[tuple[Command, ...], Field(max_length=50)] = ()


class NeighbourView(BaseModel):
    """A neighbour with the distance to it and the ends of the shortest way, in the module's coordinates."""

    function: str
    name: str
    gap: float
    needed: float | None
    short: bool
    start: Point
    end: Point


class EdgeView(BaseModel):
    """The distance to the plate's edge."""

    gap: float
    start: Point
    end: Point


class Surroundings(BaseModel):
    """Where the part would be and what is round it."""

    module: str
    x: float
    y: float
    neighbours: list[NeighbourView]
    edge: EdgeView


class TypedLine(BaseModel):
    """A line typed into the number line, and what is selected."""

    base: Revision
    text: Annotated[str, Field(max_length=200)]
    selection: Annotated[tuple[Ident, ...], Field(max_length=2000)]
    key: Key = None


@router.post("/probe", responses={200: {"model": Surroundings}})
def probe(desk: OnDesk, design_id: DesignId, asked: Probe) -> Response:
    """Distances to neighbours and edge as they would be after the commands; nothing is kept."""
    state = desk.tried(design_id, asked.base, asked.commands)
    lead = placed_by_id(state.resolved, asked.lead)
    if lead is None:
        raise UnknownThing("That part is not placed", "lead")
    edge = to_edge(state.resolved.modules[lead.place.module], lead)
    found = [
        NeighbourView(
            function=n.other.function.id,
            name=n.other.function.name,
            gap=n.gap,
            needed=n.needed,
            short=n.short,
            start=_point(n.start),
            end=_point(n.end),
        )
        for n in neighbours(state.resolved, lead)
    ]
    return as_json(
        Surroundings(
            module=lead.place.module,
            x=lead.place.x,
            y=lead.place.y,
            neighbours=found,
            edge=EdgeView(gap=edge.gap, start=_point(edge.start), end=_point(edge.end)),
        )
    )


class Clashes(BaseModel):
    """What would be wrong about the part there."""

    module: str
    findings: tuple[Finding, ...]


@router.post("/clashes", responses={200: {"model": Clashes}})
def would_clash(desk: OnDesk, design_id: DesignId, asked: Probe) -> Response:
    """The Face's findings about a part as they would be after the commands; nothing is kept."""
    state = desk.tried(design_id, asked.base, asked.commands)
    lead = placed_by_id(state.resolved, asked.lead)
    if lead is None:
        raise UnknownThing("That part is not placed", "lead")
    return as_json(Clashes(module=lead.place.module, findings=clashes(state.resolved, asked.lead)))


class GuidesAsked(Probe):
    """What is dragged with the leader: functions and graphics."""

    moving: Annotated[tuple[Ident, ...], Field(max_length=4000)] = ()


class GuideView(BaseModel):
    """A line that catches what is dragged, in the module's coordinates (mm); see the fields of the core's guide."""

    axis: Axis
    kind: Kind
    at: float = Field(description="The leader's coordinate when it is caught")
    line: float = Field(description="The coordinate of the line that is then drawn")
    low: float
    high: float
    gap: float | None = Field(description="Of equal gaps: their width")
    gaps: tuple[float, ...] = Field(description="Of equal gaps: where each begins")


class GuidesView(BaseModel):
    """Everything that catches, and how far what is dragged reaches from its leader: left, down, right, up."""

    module: str
    box: tuple[float, float, float, float]
    guides: list[GuideView]


@router.post("/guides", responses={200: {"model": GuidesView}})
def what_catches(desk: OnDesk, design_id: DesignId, asked: GuidesAsked) -> Response:
    """Where a drag may catch, as it would be after the commands: centres, edges, the middle, equal gaps."""
    state = desk.tried(design_id, asked.base, asked.commands)
    module, found = guides_for(state.resolved, asked.lead, asked.moving)
    views = [GuideView(**guide._asdict()) for guide in found.guides]
    return as_json(GuidesView(module=module, box=found.box, guides=views))


class CaughtView(BaseModel):
    """The point that a measure catches, and what it is; no words where it catches nothing."""

    x: float
    y: float
    words: str


@router.get("/caught", responses={200: {"model": CaughtView}})
def what_a_measure_catches(
    desk: OnDesk, design_id: DesignId, module: Ident, x: Mm, y: Mm, within: Annotated[float, Query(ge=0, le=100)] = 3.0
) -> Response:
    """The centre or the edge next to a point of a module."""
    r = desk.open(design_id).resolved
    if module not in r.modules:
        raise UnknownThing("There is no such module", "module")
    return as_json(CaughtView(**caught_near(r, r.modules[module], x, y, within)._asdict()))


class FreeSpotAsked(BaseModel):
    """Which part of the tray, and the module it shall rather be on."""

    base: Revision
    function: Ident
    module: Ident


class FreeSpot(BaseModel):
    """A place on a module, and whether every rule holds there."""

    module: str
    x: float
    y: float
    free: bool


@router.post("/free-spot", responses={200: {"model": FreeSpot}})
def where_it_fits(desk: OnDesk, design_id: DesignId, asked: FreeSpotAsked) -> Response:
    """Where a part of the tray would be put down: in the row of its group, breaking no rule where that can be.

    Where the module has no room for it, the first one that has; where none has, the least bad place on the module.
    """
    design = desk.open(design_id, asked.base).design
    wanted = find_module(design, asked.module)
    spots = (_spot(desk, design_id, asked, m) for m in (wanted, *(m for m in design.modules if m is not wanted)))
    first = next(spots)
    return as_json(first if first.free else next((s for s in spots if s.free), first))


def _spot(desk: Desk, design_id: str, asked: FreeSpotAsked, module: Module) -> FreeSpot:
    x0, y0, x1, y1 = area_of(module.outline.loop()).bounds
    there = PlacePart(function=asked.function, module=module.id, x=(x0 + x1) / 2, y=(y0 + y1) / 2)
    state = desk.tried(design_id, asked.base, (there,))
    lead = placed_by_id(state.resolved, asked.function)
    if lead is None:
        raise UnknownThing("That part is not placed", "function")
    return FreeSpot(module=module.id, **free_spot(state.resolved, lead)._asdict())


@router.post("/line", responses={200: {"model": DesignView}})
def number_line(desk: OnDesk, design_id: DesignId, typed: TypedLine) -> Response:
    """Carry out a typed line and keep it; one that changes nothing is not kept."""
    state = desk.open(design_id, typed.base)
    batch = commands_for(typed.text, state.resolved, typed.selection)
    if not batch:
        return as_json(changed_view(Kept(state, state)))
    return answered_before_kept(
        lambda prepare: desk.command(design_id, typed.base, batch, typed.key, prepare), changed_view
    )
