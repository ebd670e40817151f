"""Parts: the drawer, what a part becomes in a design's stack, candidates for a function, and the shopping list."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json, download, file_of
from wingboard.core.brief.wanted import family_of
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.parts import MeasurePart
from wingboard.core.changes.handlers.steps import find_function
from wingboard.core.changes.measuring import measurable, sheet_value
from wingboard.core.files.tables import write_csv
from wingboard.core.findings.limits import limit
from wingboard.core.overview.shopping import shopping_list
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.choosing import candidates
from wingboard.core.parts.counting import SHOPPING, Count, counts
from wingboard.core.parts.side import SideBox, side_view
from wingboard.core.parts.tags import lies, tags
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Ident
from wingboard.core.record.functions import Function
from wingboard.core.record.part import Part
from wingboard.core.record.reading import Measured, Reading
from wingboard.core.record.shapes import Shape
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.profile import cutouts, depth_behind_front, thickness, thread_needed

router = APIRouter(prefix="/api/designs/{design_id}/parts", tags=["parts"])


class CutoutView(BaseModel):
    """An opening in one layer, by its name."""

    layer: str
    purpose: str
    shape: Shape
    x: float
    y: float
    turn: float


class Measurable(BaseModel):
    """A dimension a calliper can read, and what the data sheet says of it (mm)."""

    of: str
    sheet: float | None
    spread: float | None = Field(description="Between its readings (mm); none for fewer than two")
    disagree: bool = Field(description="They are further apart than a calliper held straight gives")


class TerminalView(BaseModel):
    """Where a terminal lies: about the middle of the body, seen from the front (mm), and in words, from behind."""

    terminal: str
    x: float
    y: float
    lies: str
    measured: bool


class PartSheet(BaseModel):
    """A part with what follows from it in this design's stack. Lengths in mm."""

    part: Part
    own: bool
    used_by: list[str]
    needed: int
    on_hand: int
    to_buy: int
    module: str | None = Field(description="In whose layers: where it is placed; none: in those of the first module")
    cutouts: list[CutoutView]
    side: list[SideBox]
    thread_needed: float
    thread_short: float = Field(description="More than nothing: what the thread lacks")
    depth_needed: float
    too_deep: bool
    solid: float = Field(description="Thickness of the plate")
    sheet_fits: bool
    sources: dict[str, str]
    measurable: list[Measurable]
    terminals: list[TerminalView]
    span: list[float] = Field(description="Width and height of its body")
    detents: list[list[float]] = Field(
        description="By how many ways are used, from none: the angles of all detents of the mechanism, those used first"
    )


class Drawer(BaseModel):
    """Every part that can be chosen, with what follows from it here."""

    sheets: list[PartSheet]
    free_depth: float


class CandidateView(BaseModel):
    """One way to make a function, and what it costs. Lengths in mm, money in minor units."""

    part: str
    name: str
    scheme: str
    pins: int
    analogue: int
    wires: int
    depth: float
    depth_left: float
    room: float
    money: int
    misfits: tuple[str, ...]


class Candidates(BaseModel):
    """The parts for a function, best first."""

    function: str
    candidates: list[CandidateView]


class Readings(BaseModel):
    """Readings to try on an own part."""

    part: Ident
    readings: Annotated[tuple[Reading, ...], Field(max_length=12)]


@router.get("", responses={200: {"model": Drawer}})
def drawer(desk: OnDesk, design_id: DesignId) -> Response:
    """The catalogue and the builder's own parts, as they come out in the design's stack."""
    r = desk.open(design_id).resolved
    parts = {**desk.parts(), **r.parts}
    have = {p.part: p.count for p in r.design.workshop.parts}
    used: dict[str, list[Count]] = {}
    for count in counts(r):
        used.setdefault(count.part.id, []).append(count)
    sheets = []
    for part in parts.values():
        found = used.get(part.id, [])
        users = [ident for count in found for ident in count.functions]
        needed, to_buy = sum(c.needed for c in found), sum(c.to_buy for c in found)
        sheets.append(_sheet(part, r, parts, users, needed, have.get(part.id, 0), to_buy))
    return as_json(Drawer(sheets=sheets, free_depth=r.design.brief.depth))


def _sheet(
    part: Part, r: Resolved, parts: Mapping[str, Part], users: list[str], needed: int, on_hand: int, to_buy: int
) -> PartSheet:
    base = parts.get(part.base or "", part)
    user = next((f for f in r.design.functions if f.id in users and f.place), None)
    stack = r.stack_for(user)
    names = {layer.id: layer.name.lower() for layer in stack}
    need, deep, solid = thread_needed(part, stack), depth_behind_front(part, stack), thickness(stack)
    return PartSheet(
        part=part,
        own=part.id not in catalogue(),
        used_by=users,
        needed=needed,
        on_hand=on_hand,
        to_buy=to_buy,
        module=user.place.module if user and user.place else None,
        cutouts=[
            CutoutView(layer=names[c.layer], purpose=c.purpose, shape=c.shape, x=c.x, y=c.y, turn=c.turn)
            for c in cutouts(part, stack)
        ],
        side=list(side_view(part, stack)),
        thread_needed=need,
        thread_short=max(0.0, need - part.bush.length - VISIBLE) if part.bush else 0.0,
        depth_needed=deep,
        too_deep=deep > r.design.brief.depth + VISIBLE,
        solid=solid,
        sheet_fits=part.sheet is None or part.sheet.takes(solid),
        sources={name: source.said() for name, source in part.sources.items()},
        terminals=_terminals(part),
        span=list(part.body.span),
        detents=_detents(part),
        measurable=[_measurable(r, part, base, of) for of in measurable(part)],
    )


def _terminals(part: Part) -> list[TerminalView]:
    found, measured = tags(part, part.marked), {tag.terminal for tag in part.tags}
    return [
        TerminalView(**t._asdict(), lies=lies(found, 0.0, t.terminal), measured=t.terminal in measured)
        for t in found.tags
    ]


def _detents(part: Part) -> list[list[float]]:
    if part.detents is None:
        return []
    whole = part.detents.mechanism or round(360 / part.detents.step)
    step = part.detents.step
    return [
        [*used, *(used[-1] - step * n for n in range(1, whole - len(used) + 1))]
        for used in (part.angles(ways) for ways in range(1, part.ways + 1))
    ]


def _measurable(r: Resolved, part: Part, base: Part, of: Measured) -> Measurable:
    reading = next((known for known in part.readings if known.of == of), None)
    spread = reading.spread if reading and len(reading.values) > 1 else None
    apart = spread is not None and spread > limit(r.design, "reading-spread") + 1e-6
    return Measurable(of=of, sheet=sheet_value(base, of), spread=spread, disagree=apart)


@router.get("/candidates/{function_id}", responses={200: {"model": Candidates}})
def choose(desk: OnDesk, design_id: DesignId, function_id: DesignId) -> Response:
    """The parts that could make a function, ranked by what each costs on this panel."""
    r = desk.open(design_id).resolved
    function = find_function(r.design, function_id)
    found = candidates(r, function, {**desk.parts(), **r.parts}.values())
    views = [
        CandidateView(
            part=c.part.id,
            name=c.part.name,
            scheme=c.scheme,
            pins=c.pins,
            analogue=c.analogue,
            wires=c.wires,
            depth=c.depth,
            depth_left=c.depth_left,
            room=c.room,
            money=c.money,
            misfits=c.misfits,
        )
        for c in found
    ]
    return as_json(Candidates(function=function_id, candidates=views))


class BestAsked(BaseModel):
    """The functions that want a part."""

    functions: Annotated[tuple[Ident, ...], Field(max_length=2000)]


class BestView(BaseModel):
    """The best way to make a function, or why there is none."""

    function: str
    part: str | None
    name: str
    scheme: Literal["direct", "ladder"]
    why: str = Field(description="Empty where there is a part")


@router.post("/best", responses={200: {"model": list[BestView]}})
def best_parts(desk: OnDesk, design_id: DesignId, asked: BestAsked) -> list[BestView]:
    """For each of these functions the part that suits it best and has nothing against it; nothing is kept."""
    r = desk.open(design_id).resolved
    parts = {**desk.parts(), **r.parts}
    return [_best(r, find_function(r.design, ident), parts) for ident in dict.fromkeys(asked.functions)]


def _best(r: Resolved, function: Function, parts: Mapping[str, Part]) -> BestView:
    first = next(iter(candidates(r, function, parts.values(), most=1)), None)
    if first is None or not family_of(function, function.name):
        why = "Say what kind of control or light is wanted"
    else:
        why = "; ".join(first.misfits)
    if first is None or why:
        return BestView(
            function=function.id, part=None, name=first.part.name if first else "", scheme="direct", why=why
        )
    return BestView(function=function.id, part=first.part.id, name=first.part.name, scheme=first.scheme, why="")


@router.post("/try-readings", responses={200: {"model": PartSheet}})
def try_readings(desk: OnDesk, design_id: DesignId, asked: Readings) -> Response:
    """What would follow from these readings; nothing is kept."""
    design = desk.open(design_id).design
    tried = apply(design, (MeasurePart(part=asked.part, readings=asked.readings),), desk.parts())
    parts = {**desk.parts(), **{p.id: p for p in tried.parts}}
    return as_json(_sheet(parts[asked.part], Resolved(tried), parts, [], 0, 0, 0))


@router.get("/shopping.csv", response_class=Response, responses=file_of("text/csv; charset=utf-8"))
def shopping(desk: OnDesk, design_id: DesignId) -> Response:
    """The shopping list as CSV."""
    content = write_csv(SHOPPING, shopping_list(desk.open(design_id).resolved))
    return download(content, "text/csv; charset=utf-8", f"{design_id}-shopping.csv")
