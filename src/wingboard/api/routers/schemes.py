"""Wire: ways to read and drive what is on a module, what is read together, how boards and grounds are spread."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json
from wingboard.core.changes.command import Command
from wingboard.core.record.functions import Carrier, Driven, Scheme, Seen
from wingboard.core.wire.carrying import bearing, carriers
from wingboard.core.wire.comparing import options
from wingboard.core.wire.schemes.choosing import take_up
from wingboard.core.wire.schemes.drawn import drawn_networks, drawn_selectors, returns_of
from wingboard.core.wire.schemes.networks import NetworkKind
from wingboard.core.wire.topologies import topologies

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class OptionView(BaseModel):
    """A way to read and drive some functions, and what it adds to the panel; with the commands that take it up."""

    scheme: Scheme
    now: bool
    pins: int
    analogue: int = Field(description="Of the pins")
    wires: int
    joints: int
    diodes: int
    chips: int
    small: int = Field(description="Small parts in all")
    money: int = Field(description="Of the small parts, in minor units")
    minutes: float
    reads: float | None = Field(description="ms until a change is seen; none where only lamps are driven")
    left: list[str] = Field(description="Terminals that are wired by themselves, and why")
    loses: list[str]
    not_for: str = Field(description="Why it cannot be; then everything else is 0")
    commands: list[Command]


class SchemesView(BaseModel):
    """The ways for some functions, and the names of these."""

    functions: list[str]
    names: list[str]
    options: list[OptionView]


class CarrierView(BaseModel):
    """A way to switch a load, and what it adds to the panel; with the commands that take it up."""

    through: Carrier
    driven: Driven
    now: bool
    pins: int
    wires: int
    joints: int
    small: int = Field(description="Small parts in all")
    money: int = Field(description="Of the small parts, in minor units")
    minutes: float
    amps: float = Field(description="What it bears (A); 0 where that is not said")
    volts: float = Field(description="What it bears (V)")
    coil: float = Field(description="What its coil draws (A)")
    lost: float = Field(description="V that the load does not get")
    heat: float = Field(description="W in what carries it")
    acts: float = Field(description="ms from the control to the load")
    loses: list[str]
    not_for: str = Field(description="Why it cannot be; then everything else is 0")
    commands: list[Command]


class SeenView(BaseModel):
    """A way for a controller to see whether a load is on, or to be blind to it."""

    seen: Seen
    now: bool
    pins: int
    wires: int
    not_for: str = Field(description="Why it cannot be")
    commands: list[Command]


class CarriersView(BaseModel):
    """The ways to switch and to see a function's load; empty where it has none."""

    function: str
    load: str = Field(description="In words")
    ways: list[CarrierView]
    seen: list[SeenView]


class SpotView(BaseModel):
    """A terminal that is read or driven."""

    function: str
    name: str
    terminal: str


class ChipPinView(BaseModel):
    """A pin of a chip and what it is joined to in words."""

    number: int
    name: str
    to: str
    function: str


class ChipView(BaseModel):
    """A chip by its mark, with its pins in their order."""

    mark: str
    name: str
    address: str
    pins: list[ChipPinView]


class NetworkLineView(BaseModel):
    """A line of a network, and the pin that it ends on."""

    name: str
    at: str


class ShownView(BaseModel):
    """A read-out of a chain: its digits, and how many of them, from the left, stay dark."""

    function: str
    name: str
    digits: int
    dark: int


class NetworkView(BaseModel):
    """A network of one module: rows of a matrix, or chips."""

    id: str
    kind: NetworkKind
    name: str
    module: str
    lines: list[NetworkLineView]
    rows: list[list[SpotView]]
    chips: list[ChipView]
    chain: list[ShownView]


class TapView(BaseModel):
    """A way of a ladder: what the converter reads, and the readings that count as it."""

    way: int
    share: float
    reading: int
    low: int
    high: int
    off: float


class LadderView(BaseModel):
    """A ladder: taps, what the pin sees at most (Ω), how far a tap may move and does (shares), and settling (s)."""

    taps: list[TapView]
    source: float
    off: float
    half: float
    settles: float


class SelectorView(BaseModel):
    """A selector that is read as one: over a ladder, in so many bits, or by an input coder."""

    function: str
    name: str
    module: str
    words: list[str]
    step: float
    steady: bool
    ladder: LadderView | None
    bits: int
    numbers: list[int] = Field(description="By which a computer knows each position, of an input coder on a card")


class ReturnsView(BaseModel):
    """How the grounds of a module are wired, and how many wires that is."""

    module: str
    name: str
    returns: Literal["bus", "star"]
    wires: int


class ManyBoards(BaseModel):
    """So many boards of a kind."""

    many: int
    name: str


class TopologyView(BaseModel):
    """A way to spread the lines over controllers, and what it takes."""

    name: str
    boards: list[ManyBoards]
    money: int = Field(description="Of the boards, in minor units")
    ports: int = Field(description="USB ports")
    crossing: int = Field(description="Wires from one module to another")
    plugs: list[int] = Field(description="D-sub plugs there, by their contacts")
    not_for: str


class NetworksView(BaseModel):
    """What is read or driven together, selectors read as one, how grounds are wired, how boards can be spread."""

    topologies: list[TopologyView]
    returns: list[ReturnsView]
    networks: list[NetworkView]
    selectors: list[SelectorView]


@router.get("/networks", responses={200: {"model": NetworksView}})
def wired_together(desk: OnDesk, design_id: DesignId) -> Response:
    """Networks, coded selectors and ladders of all modules."""
    r = desk.open(design_id).resolved
    return as_json(
        NetworksView(
            topologies=[
                TopologyView(
                    **{
                        **way._asdict(),
                        "boards": [ManyBoards(many=many, name=name) for many, name in way.boards],
                        "plugs": list(way.plugs),
                    }
                )
                for way in topologies(r)
            ],
            returns=[ReturnsView(**each._asdict()) for each in returns_of(r)],
            networks=[NetworkView.model_validate(_plain(n)) for n in drawn_networks(r)],
            selectors=[SelectorView.model_validate(_plain(s)) for s in drawn_selectors(r)],
        )
    )


def _plain(thing: Any) -> Any:
    """Named tuples as objects, all the way down; what is a plain pair is a line and its pin."""
    if hasattr(thing, "_asdict"):
        return {name: _plain(value) for name, value in thing._asdict().items()}
    if isinstance(thing, tuple):
        return [_plain(each) for each in thing]
    return thing


@router.get("/schemes", responses={200: {"model": SchemesView}})
def schemes(
    desk: OnDesk, design_id: DesignId, function: Annotated[list[str], Query(default_factory=list, max_length=2000)]
) -> Response:
    """The ways to read and drive these functions, each tried on the whole panel."""
    r = desk.open(design_id).resolved
    known = [f for f in function if f in r.functions]
    found = [
        OptionView(
            **{**option._asdict(), "left": list(option.left), "loses": list(option.loses)},
            commands=[] if option.not_for or option.now else list(take_up(r, known, option.scheme)),
        )
        for option in options(r, known)
    ]
    return as_json(SchemesView(functions=known, names=[r.functions[f].name for f in known], options=found))


@router.get("/carriers", responses={200: {"model": CarriersView}})
def ways_to_switch(desk: OnDesk, design_id: DesignId, function: str = "") -> Response:
    """The ways to switch a function's load and to see whether it is on, each tried on the whole panel."""
    r = desk.open(design_id).resolved
    ways, seen = carriers(r, function)
    return as_json(
        CarriersView(
            function=function,
            load=bearing(r.functions[function].switches) if ways else "",
            ways=[CarrierView(**{**w._asdict(), "loses": list(w.loses), "commands": list(w.commands)}) for w in ways],
            seen=[SeenView(**{**s._asdict(), "commands": list(s.commands)}) for s in seen],
        )
    )
