"""Stack: the layers of a module, what holds them together, a section through them, and boards behind."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field
from shapely import MultiPolygon, Polygon
from shapely.geometry.base import BaseGeometry

from wingboard.api.routers.cases import CaseView, case_view
from wingboard.api.routers.common import DesignId, OnDesk, as_json
from wingboard.core.cut.lettered import WORDS, way_of
from wingboard.core.face.rules import bridge_needed
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.outline import svg_path
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.modules import Layer, Mounted, School, Screw, ScrewAt, usual_on
from wingboard.core.record.space import ConsoleFrame
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.across import Section, section_of, usual_line
from wingboard.core.stack.assembly import assembly
from wingboard.core.stack.bending import bends
from wingboard.core.stack.boards import behind, free_spots, of_controller
from wingboard.core.stack.bridges import Bridge, shown_bridges, solid
from wingboard.core.stack.console import frame_of
from wingboard.core.stack.hardware import hardware
from wingboard.core.stack.holds import Held, held
from wingboard.core.stack.necks import necks
from wingboard.core.stack.screws import proposed_screws, usual_span

router = APIRouter(prefix="/api/designs/{design_id}/stack", tags=["stack"])
ROUGH = 0.03
"""Outlines are told to within so much (mm): nothing is cut from them."""


class PointView(BaseModel):
    """A point of the module (mm)."""

    x: float
    y: float


class BridgeView(BaseModel):
    """The shortest way through material from an opening to another, or to the edge (mm)."""

    between: str
    functions: list[str]
    gap: float
    thin: bool
    x0: float
    y0: float
    x1: float
    y1: float


class PieceView(BaseModel):
    """A piece that would break off, with the screws that go through it and through the rest."""

    path: str
    screws: int
    rest: int
    bridges: list[BridgeView]


class LayerView(BaseModel):
    """A sheet between two depths, what is left of it when it is cut, and what it holds in words."""

    layer: Layer
    z0: float
    z1: float
    path: str
    holds: str
    need: float = Field(description="The least bridge of its material, mm")
    bridges: list[BridgeView]
    pieces: list[PieceView]


class BoltView(BaseModel):
    """Bolts of one kind, and the sum that their length follows from."""

    name: str
    where: str
    count: int
    needed: float
    length: int | None
    adds: str


class StandoffView(BaseModel):
    """Standoffs, pins or strips of one kind; ``sold`` when there are such."""

    name: str
    where: str
    count: int
    sold: bool


class StepView(BaseModel):
    """A step of putting it together, and what is easily forgotten."""

    words: str
    mind: str


class BendView(BaseModel):
    """How far the plate gives under a control."""

    function: str
    name: str
    x: float
    y: float
    force: float
    sag: float
    left: float


class MountedView(BaseModel):
    """A board behind: its outline, its holes, and its depths (mm)."""

    board: Mounted
    path: str
    holes: list[PointView]
    z0: float
    z1: float


class LineView(BaseModel):
    """A line across a module (mm)."""

    x0: float
    y0: float
    x1: float
    y1: float


class BattenView(BaseModel):
    """A batten of the console's frame, in the opening's coordinates (mm), its outline and its screws."""

    name: str
    path: str
    x0: float
    y0: float
    x1: float
    y1: float
    length: float
    screws: list[PointView]


class FrameView(BaseModel):
    """The frame of the console: battens, clear inside, its diagonal and by how much the two may differ (mm).

    ``from_edge`` is how far outside the opening's edge the screws' line runs.
    """

    frame: ConsoleFrame
    opening: str
    battens: list[BattenView]
    clear: list[float]
    diagonal: float
    differ: float
    from_edge: float


class StackView(BaseModel):
    """A module's layers and all that holds them."""

    revision: int
    module: str
    width: float
    height: float
    own: bool = Field(description="It has layers of its own; else the panel's usual ones")
    school: School
    plate: float = Field(description="Thickness of the plate, mm")
    screw_diameter: float
    layers: list[LayerView]
    bolts: list[BoltView]
    standoffs: list[StandoffView]
    steps: list[StepView]
    bends: list[BendView]
    bend_most: float
    line: LineView = Field(description="The section that meets most parts")
    span: float = Field(description="How far apart the plate's screws may be, mm")
    mounted: list[MountedView]
    case: CaseView | None
    frame: FrameView | None


class AcrossView(BaseModel):
    """A rectangle of a section: along the line, and in depth (mm)."""

    kind: str
    t0: float
    t1: float
    z0: float
    z1: float
    name: str
    colour: str | None


class SectionView(BaseModel):
    """A section along a line."""

    pieces: list[AcrossView]
    length: float
    deepest: float
    free: float
    plate: float
    depth: float = Field(description="The free depth of the brief, mm")


class SpotView(BaseModel):
    """A place behind a module where a board meets nothing."""

    x: float
    y: float
    turn: float


class SpotsView(BaseModel):
    """Free places for a board, the roomiest first, and the board as it would be mounted."""

    width: float
    height: float
    screw: Screw
    holes: list[ScrewAt]
    spots: list[SpotView]


def _module(r: Resolved, ident: str) -> ResolvedModule:
    found = r.modules.get(ident)
    if found is None:
        raise UnknownThing(f"There is no module “{ident}” in this design", "module")
    return found


def _words(r: Resolved, module: ResolvedModule) -> str:
    way = way_of(r, module)
    return WORDS[way] if way else ""


@router.get("/{module}", responses={200: {"model": StackView}})
def stack(desk: OnDesk, design_id: DesignId, module: DesignId) -> Response:
    """The stack of one module."""
    state = desk.open(design_id)
    r = state.resolved
    found = _module(r, module)
    made = hardware(found)
    own = found.module.stack is not None
    start, end = usual_line(found)

    return as_json(
        StackView(
            revision=state.row.number,
            module=module,
            width=found.size[0],
            height=found.size[1],
            own=own,
            school=found.module.school or r.design.school if own else r.design.school,
            plate=found.thickness,
            screw_diameter=float(found.module.fixings.screw[1:]) if found.module.fixings else 0.0,
            layers=[_layer(r, found, h) for h in held(r, found)],
            bolts=[
                BoltView(
                    name=b.name, where=b.where, count=b.many, needed=b.needed, length=b.length,
                    adds=" + ".join(f"{value:g} {words}" for value, words in b.adds),
                )
                for b in made.bolts
            ],
            standoffs=[
                StandoffView(name=s.name, where=s.where, count=s.many, sold=s.length is not None or s.sleeve)
                for s in made.standoffs
            ]
            + [StandoffView(name=p.name, where=p.where, count=p.many, sold=p.length is not None) for p in made.pins]
            + [StandoffView(name=e.name, where=e.where, count=1, sold=True) for e in made.edgings],
            steps=[StepView(**step._asdict()) for step in assembly(found, _words(r, found))],
            bends=[
                BendView(
                    function=b.placed.function.id, name=b.placed.function.name, x=b.placed.place.x,
                    y=b.placed.place.y, force=b.force, sag=b.sag, left=b.left,
                )
                for b in bends(r, found)
            ],
            case=case_view(r, found),
            frame=_frame(r),
            bend_most=limit(r.design, "bend-most"),
            line=LineView(x0=start[0], y0=start[1], x1=end[0], y1=end[1]),
            span=usual_span(found),
            mounted=[
                MountedView(
                    board=b.board, path=path_of_area(b.outline.drawn()), z0=b.z0, z1=b.z1,
                    holes=[PointView(x=x, y=y) for x, y in (b.frame.point(h.x, h.y) for h in b.board.holes)],
                )
                for b in behind(r, found)
            ],
        )
    )  # fmt: skip


def _frame(r: Resolved) -> FrameView | None:
    made = frame_of(r)
    if made is None:
        return None
    battens = [
        BattenView(
            name=b.name, x0=b.x0, y0=b.y0, x1=b.x1, y1=b.y1, length=b.length, path=svg_path(b.loop()),
            screws=[PointView(x=x, y=y) for x, y in b.screws],
        )
        for b in made.battens
    ]  # fmt: skip
    return FrameView(
        frame=made.frame,
        opening=svg_path(r.design.brief.opening.loop()),
        battens=battens,
        clear=list(made.clear),
        diagonal=made.diagonal,
        differ=made.differ,
        from_edge=made.from_edge,
    )


def path_of_area(geometry: BaseGeometry) -> str:
    """Polygons with their holes as path data, for the even-odd rule."""
    parts = geometry.geoms if isinstance(geometry, MultiPolygon) else (geometry,)
    rings = [ring for p in parts if isinstance(p, Polygon) for ring in (p.exterior, *p.interiors)]
    return "".join("M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in ring.coords[:-1]) + "Z" for ring in rings)


def _layer(r: Resolved, module: ResolvedModule, h: Held) -> LayerView:
    need = bridge_needed(r.design, h.layer).value
    return LayerView(
        layer=h.layer,
        z0=h.z0,
        z1=h.z1,
        path=path_of_area(solid(r, module, h.layer).simplify(ROUGH)),
        holds=h.said(),
        need=need,
        bridges=[_bridge(module, b, need) for b in shown_bridges(r, module, h.layer)],
        pieces=[
            PieceView(
                path=path_of_area(neck.piece.outline.simplify(ROUGH)),
                screws=neck.piece.fixings,
                rest=neck.rest.fixings,
                bridges=[_bridge(module, b, need) for b in neck.bridges],
            )
            for neck in necks(r, module, h.layer)
        ],
    )


def _bridge(module: ResolvedModule, bridge: Bridge, need: float) -> BridgeView:
    owners = [o for o in (bridge.a, bridge.b) if o is not None]
    names = [module.owner_name(o) for o in owners] + (["the edge"] if bridge.b is None else [])
    (x0, y0), (x1, y1) = bridge.start, bridge.end
    return BridgeView(
        between=" to ".join(names),
        functions=[module.by_number[o].function.id for o in owners if o >= 0],
        gap=bridge.gap,
        thin=bridge.gap < need - 0.005,
        x0=x0, y0=y0, x1=x1, y1=y1,
    )  # fmt: skip


Coordinate = Annotated[float | None, Query(ge=-100_000, le=100_000, allow_inf_nan=False)]


@router.get("/{module}/section", responses={200: {"model": SectionView}})
def section(
    desk: OnDesk,
    design_id: DesignId,
    module: DesignId,
    x0: Coordinate = None,
    y0: Coordinate = None,
    x1: Coordinate = None,
    y1: Coordinate = None,
) -> Response:
    """The section of a module along a line between two of its points (mm, its own coordinates).

    What is not said of the line is that of the one that meets most parts.
    """
    r = desk.open(design_id).resolved
    found = _module(r, module)
    (ax, ay), (bx, by) = usual_line(found)
    start = (ax if x0 is None else x0, ay if y0 is None else y0)
    end = (bx if x1 is None else x1, by if y1 is None else y1)
    made: Section = section_of(r, found, start, end)
    return as_json(
        SectionView(
            pieces=[AcrossView(**p._asdict()) for p in made.pieces],
            length=made.length,
            deepest=made.deepest,
            free=made.free,
            plate=made.plate,
            depth=r.design.brief.depth,
        )
    )


@router.get("/{module}/free", responses={200: {"model": SpotsView}})
def free(
    desk: OnDesk,
    design_id: DesignId,
    module: DesignId,
    board: Annotated[
        str | None, Query(max_length=48, description="A kind of controller, or a board of one's own")
    ] = None,
    width: Annotated[float, Query(ge=1, le=2000)] = 60.0,
    height: Annotated[float, Query(ge=1, le=2000)] = 40.0,
) -> Response:
    """Free places behind a module for a controller of a kind, or for a board of a size."""
    r = desk.open(design_id).resolved
    holes: list[tuple[float, float]] = []
    if board is not None:
        width, height, holes = of_controller(board, r.design.boards)
    screws = [ScrewAt(id=f"h{n}", x=round(x, 2), y=round(y, 2)) for n, (x, y) in enumerate(holes, 1)]
    found = _module(r, module)
    trial = Mounted(id="trial", name="Trial", width=width, height=height, on=usual_on(found.stack), holes=tuple(screws))
    spots = [SpotView(x=x, y=y, turn=turn) for x, y, turn in free_spots(r, found, trial)]
    return as_json(SpotsView(width=width, height=height, screw=trial.screw, holes=screws, spots=spots))


class ProposalView(BaseModel):
    """Screws to add, no further apart than ``span`` (mm), and how many stretches have no room for one."""

    span: float
    spots: list[PointView]
    no_room: int


@router.get("/{module}/screws", responses={200: {"model": ProposalView}})
def screws(
    desk: OnDesk, design_id: DesignId, module: DesignId, span: Annotated[float | None, Query(ge=20, le=2000)] = None
) -> Response:
    """Where screws would go so that none is further from the next than a span: the plate's usual one, unless said."""
    r = desk.open(design_id).resolved
    found = _module(r, module)
    made = proposed_screws(r, found, usual_span(found) if span is None else span)
    spots = [PointView(x=round(x, 1), y=round(y, 1)) for x, y in made.spots]
    return as_json(ProposalView(span=made.span, spots=spots, no_room=made.no_room))
