"""Wire: looms, plugs, colours, wire on hand, and where things outside stand."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json, download, file_of
from wingboard.core.parts.tags import TagKind
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.harness import Carries, NetClass, PlugKind, WireColour
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.crib import crib_pdf
from wingboard.core.wire.harness.bundles import Drop, LoomPlan, Section, looms
from wingboard.core.wire.harness.colours import RULES
from wingboard.core.wire.harness.drawing import looms_pdf, looms_svg
from wingboard.core.wire.harness.labels import labels_pdf
from wingboard.core.wire.harness.laid import laid, on_hand
from wingboard.core.wire.harness.pinout import pin_out, plugs_pdf
from wingboard.core.wire.harness.places import MOVED, OUTSIDE, places
from wingboard.core.wire.harness.plugs import KINDS, WORDS, plugs, rows_of
from wingboard.core.wire.harness.totals import totals
from wingboard.core.wire.landing import landing_pdf
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinfiles import header, module
from wingboard.core.wire.wires import names_of

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class TrunkSection(BaseModel):
    """A piece of a trunk, in its module's coordinates (mm)."""

    start: tuple[float, float]
    end: tuple[float, float]
    wires: int
    thick: float


class DropView(BaseModel):
    """Where wires come to the trunk."""

    owner: str
    name: str
    at: tuple[float, float]
    joins: tuple[float, float]
    wires: int
    thick: float


class LoomView(BaseModel):
    """The loom of a module."""

    module: str
    name: str
    at: float
    start: tuple[float, float]
    end: tuple[float, float]
    sections: list[TrunkSection]
    drops: list[DropView]
    ties: list[tuple[float, float]]
    exit: TrunkSection
    thickest: float
    bend: float
    metres: float


class ContactView(BaseModel):
    """A contact of a plug: what it is joined to on its module and beyond, and the wire there."""

    number: int
    inside: str
    outside: str
    colour: str
    stripe: str
    area: float
    function: str


class PlugDrawn(BaseModel):
    """A plug, its contacts row by row as seen from the side where it is put in."""

    id: str
    name: str
    title: str
    module: str
    kind: PlugKind
    carries: Carries
    what: str
    size: int
    key: int | None
    amps: float = Field(description="To plan with through one contact")
    rows: list[list[int]]
    contacts: list[ContactView]


class MetresView(BaseModel):
    """Wire of one colour and cross-section."""

    colour: str
    area: float
    awg: int
    pieces: int
    metres: float
    to_buy: float


class RestView(BaseModel):
    """A piece of wire on hand: what it was, and what is left of it (mm)."""

    stock: str
    piece: int
    whole: float
    left: float


class OutsideView(BaseModel):
    """What stands outside the modules, and where (mm in the opening, and behind the panel).

    A relay for which that is not said is at its control.
    """

    device: str
    name: str
    kind: str
    said: bool
    mounted: str = Field(description="The module behind which it is, where it is a board there")
    x: float
    y: float
    behind: float


class RuleView(BaseModel):
    """The colour of one class of wires; none: by the figures of the colour code."""

    net: NetClass
    colour: WireColour | None
    own: bool


class HarnessView(BaseModel):
    """Everything about looms, plugs and wire."""

    revision: int
    looms: list[LoomView]
    plugs: list[PlugDrawn]
    wire: list[MetresView]
    rests: list[RestView]
    outside: list[OutsideView]
    rules: list[RuleView]
    ends: dict[TagKind, int]
    joints: int
    sleeves: int
    ties: int
    metres: float
    guessed: int


def _section(section: Section) -> TrunkSection:
    return TrunkSection(**section._asdict())


def _drop(drop: Drop) -> DropView:
    return DropView(**drop._asdict())


def _loom(r: Resolved, loom: LoomPlan) -> LoomView:
    trunk = loom.trunk
    return LoomView(
        module=loom.module,
        name=r.modules[loom.module].module.name,
        at=trunk.at,
        start=trunk.start,
        end=trunk.end,
        sections=[_section(s) for s in loom.sections],
        drops=[_drop(d) for d in loom.drops],
        ties=list(loom.ties),
        exit=_section(loom.exit),
        thickest=loom.thickest,
        bend=loom.bend,
        metres=loom.metres,
    )


def _plugs(r: Resolved) -> list[PlugDrawn]:
    return [
        PlugDrawn(
            id=plug.id,
            name=plug.name,
            title=plug.title,
            module=plug.module,
            kind=plug.kind,
            carries=plug.carries,
            what=WORDS[plug.carries],
            size=plug.size,
            key=plug.key,
            amps=KINDS[plug.kind].amps,
            rows=[list(row) for row in rows_of(plug)],
            contacts=[ContactView(**contact._asdict()) for contact in pin_out(r, plug)],
        )
        for plug in plugs(r)
    ]


def _outside(r: Resolved) -> list[OutsideView]:
    names, where = names_of(r), places(r)
    found = []
    for device in net_list(r).devices.values():
        if device.kind in OUTSIDE or device.kind in MOVED:
            spot = where.spot(Port(device.id, device.ports[0]))
            name = f"{names[device.id]}, {device.name}" if device.kind in MOVED else names[device.id]
            at_control = device.kind in MOVED and bool(spot.module)
            module = "" if at_control else spot.module
            found.append(
                OutsideView(
                    device=device.id, name=name, kind=device.kind, said=spot.said and not at_control,
                    mounted=r.modules[module].module.name if module else "", x=spot.x, y=spot.y, behind=spot.z,
                )
            )  # fmt: skip
    return found


def _rules(r: Resolved) -> list[RuleView]:
    own = {rule.net: rule.colour for rule in r.design.harness.colours}
    return [RuleView(net=net, colour=own.get(net) or usual, own=net in own) for net, usual in RULES.items()]


@router.get("/harness", responses={200: {"model": HarnessView}})
def harness(desk: OnDesk, design_id: DesignId) -> Response:
    """Looms, plugs, wire, and where things outside stand."""
    state = desk.open(design_id)
    r = state.resolved
    every, pieces = totals(r), laid(r)
    areas = {(p.colour, p.area): p.awg for p in pieces}
    view = HarnessView(
        revision=state.row.number,
        looms=[_loom(r, loom) for loom in looms(r)],
        plugs=_plugs(r),
        wire=[
            MetresView(**w._asdict(), awg=next(a for (_, area), a in areas.items() if area == w.area))
            for w in every.wire
        ],
        rests=[RestView(**rest._asdict()) for rest in on_hand(r, pieces).rests],
        outside=_outside(r),
        rules=_rules(r),
        ends=every.ends,
        joints=every.joints,
        sleeves=every.sleeves,
        ties=every.ties,
        metres=every.metres,
        guessed=every.guessed,
    )
    return as_json(view)


@router.get("/looms.svg", response_class=Response, responses=file_of("image/svg+xml"))
def looms_drawn(desk: OnDesk, design_id: DesignId) -> Response:
    """The looms of all modules as a drawing, from behind."""
    return download(looms_svg(desk.open(design_id).resolved), "image/svg+xml", f"{design_id}-looms.svg")


@router.get("/looms.pdf", response_class=Response, responses=file_of("application/pdf"))
def looms_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """The looms to print, a module a page."""
    return download(looms_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-looms.pdf")


@router.get("/labels.pdf", response_class=Response, responses=file_of("application/pdf"))
def labels_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """Labels for both ends of every wire, to cut out."""
    return download(labels_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-labels.pdf")


@router.get("/boards.pdf", response_class=Response, responses=file_of("application/pdf"))
def boards_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """Crib sheets: each board with what is on its pads."""
    return download(crib_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-boards.pdf")


@router.get("/plugs.pdf", response_class=Response, responses=file_of("application/pdf"))
def plugs_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """The plugs from both sides, with what is on each contact."""
    return download(plugs_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-plugs.pdf")


@router.get("/strip-boards.pdf", response_class=Response, responses=file_of("application/pdf"))
def strip_boards_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """The strip boards of networks with chips: cuts, and where wires land."""
    return download(landing_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-strip-boards.pdf")


@router.get("/pins.py", response_class=Response, responses=file_of("text/x-python; charset=utf-8"))
def pins_for_python(desk: OnDesk, design_id: DesignId) -> Response:
    """The pins of every board as a module for Python."""
    return download(module(desk.open(design_id).resolved), "text/x-python; charset=utf-8", f"{design_id}-pins.py")


@router.get("/pins.h", response_class=Response, responses=file_of("text/x-c; charset=utf-8"))
def pins_for_c(desk: OnDesk, design_id: DesignId, board: str = "") -> Response:
    """The pins of one board as a header for C and C++; of the first where none is named."""
    r = desk.open(design_id).resolved
    there = [c.id for c in r.design.controllers]
    if board and board not in there:
        raise UnknownThing(f"There is no controller “{board}” in this design", "board")
    ident = board or next(iter(there), "")
    content = header(r, ident) if ident else b"// There is no board yet.\n"
    return download(content, "text/x-c; charset=utf-8", f"{design_id}-{ident or 'no-board'}-pins.h")
