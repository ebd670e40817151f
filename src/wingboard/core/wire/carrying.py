"""The ways to switch a load, compared on this very panel, and the ways for a controller to see whether it is on.

Money in minor units, minutes, milliseconds, amperes, volts, watts.
"""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple, get_args

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.findings.limits import limit
from wingboard.core.parts.carriers import CONTACTS, bears, transistor_for
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Carrier, Driven, Function, Seen, Switched, emergency
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.carried import carried, coil_volts, has_load, undriven, unseen
from wingboard.core.wire.comparing import CUT, JOINT, LOOP, SMALL, Counted, counted
from wingboard.core.wire.schemes.choosing import freed

WAYS: tuple[tuple[Carrier, Driven], ...] = (
    ("", "contact"), ("relay", "contact"), ("contactor", "contact"), ("transistor", "contact"),
    ("relay", "controller"), ("contactor", "controller"), ("transistor", "controller"),
)  # fmt: skip
SEEN: tuple[Seen, ...] = get_args(Seen)


class CarrierOption(NamedTuple):
    """A way to switch a load, and what it adds to the panel.

    ``amps``, ``volts``: what it bears. ``coil``: what its coil draws; ``lost``: volts that the load does not get;
    ``heat``: watts in what carries it; ``acts``: ms from the control to the load. ``loses``: what wants minding.
    ``not_for``: why it cannot be; then everything else is 0.
    """

    through: Carrier
    driven: Driven
    now: bool
    pins: int
    wires: int
    joints: int
    small: int
    money: int
    minutes: float
    amps: float
    volts: float
    coil: float
    lost: float
    heat: float
    acts: float
    loses: tuple[str, ...]
    not_for: str
    commands: tuple[Command, ...]


class SeenOption(NamedTuple):
    """A way for a controller to see a load, or to be blind to it; ``not_for``: why it cannot be."""

    seen: Seen
    now: bool
    pins: int
    wires: int
    not_for: str
    commands: tuple[Command, ...]


def carriers(r: Resolved, function: str) -> tuple[tuple[CarrierOption, ...], tuple[SeenOption, ...]]:
    """Both, for a function that is placed and switches a load; empty for any other."""
    placed = next((p for p in r.placed if p.function.id == function), None)
    if placed is None or not has_load(placed) or not placed.function.switches.volts:
        return (), ()
    without = counted(_as(r.design, placed.function, state="dummy"))
    ways = tuple(_option(r, placed, through, driven, without) for through, driven in WAYS)
    return ways, tuple(_seen(r, placed, way, without) for way in SEEN)


def _as(design: Design, function: Function, state: str = "", **load: str) -> Resolved:
    """The design with another state or other ways for one function's load."""
    update = {"state": state} if state else {"switches": function.switches.model_copy(update=load)}
    changed = tuple(f.model_copy(update=update) if f.id == function.id else f for f in design.functions)
    return Resolved(design.model_copy(update={"functions": changed}))


def _option(r: Resolved, placed: Placed, through: Carrier, driven: Driven, without: Counted) -> CarrierOption:
    f, load = placed.function, placed.function.switches
    now = (load.through, load.driven) == (through, driven)
    seen: Seen = load.seen if through in CONTACTS or load.seen != "auxiliary" else ""
    commands = () if now else freed(r, (EditFunction(function=f.id, through=through, driven=driven, seen=seen),))
    tried = _as(r.design, f, through=through, driven=driven, seen=seen)
    again = next(p for p in tried.placed if p.function.id == f.id)
    amps, volts = _bears(r, placed, through)
    why = _cannot(placed, again, (through, driven), (amps, volts))
    if why:
        return CarrierOption(through, driven, now, *(0,) * 5, *(0.0,) * 7, (), why, ())
    with_it = counted(tried)
    kinds = Counter(with_it.kinds)
    kinds.subtract(without.kinds)
    joints, wires = with_it.joints - without.joints, with_it.wires - without.wires
    kind = transistor_for(load.amps, limit(r.design, "drive-current")) if through == "transistor" else None
    coil = CONTACTS[through].watts / coil_volts(r.design, load) if through in CONTACTS else 0.0
    acts = (CONTACTS[through].takes if through in CONTACTS else 0.0) + (LOOP if driven == "controller" else 0.0)
    lost = kind.lost if kind else 0.0
    loses = ["nothing switches it while the program stands still"] if driven == "controller" else []
    if kind and lost * load.amps > kind.watts:
        loses.append("its transistor wants a heat sink")
    return CarrierOption(
        through,
        driven,
        now,
        with_it.pins - without.pins,
        wires,
        joints,
        sum(kinds[small] for small in SMALL),
        with_it.money - without.money,
        JOINT * joints + CUT * wires,
        amps,
        volts,
        coil,
        lost,
        lost * load.amps,
        acts,
        tuple(loses),
        "",
        commands,
    )


def _bears(r: Resolved, placed: Placed, through: Carrier) -> tuple[float, float]:
    """Amperes and volts that the contact, or what carries the load in its stead, bears; 0 where that is not said."""
    if through:
        return bears(through, placed.function.switches, limit(r.design, "drive-current"))
    rating = placed.part.rating
    return (rating.amps, rating.volts) if rating else (0.0, 0.0)


def _cannot(placed: Placed, again: Placed, way: tuple[Carrier, Driven], borne: tuple[float, float]) -> str:
    """Why a load cannot be switched so; ``again`` is the same as it would be."""
    load, (through, driven), (amps, volts) = placed.function.switches, way, borne
    if driven == "controller" and emergency(placed.function, placed.part):
        return "no program is between an emergency control and what it stops"
    if driven == "contact" and not carried(again):
        return "its part has no contact for it"
    cannot = undriven(again)
    if cannot and not load.alternating:
        return cannot
    if through == "transistor" and load.alternating:
        return "a transistor switches DC only"
    if not (through or placed.part.rating):
        return ""  # what its contact bears is not said
    if load.amps > amps + 1e-9:
        return f"it bears {amps:g} A"
    return f"it bears {volts:g} V {load.kind}" if load.volts > volts + 1e-9 else ""


def _seen(r: Resolved, placed: Placed, way: Seen, without: Counted) -> SeenOption:
    f, load = placed.function, placed.function.switches
    now = load.seen == way
    why = unseen(placed, way)
    if why:
        return SeenOption(way, now, 0, 0, why, ())
    tried = counted(_as(r.design, f, seen=way))
    commands = () if now else freed(r, (EditFunction(function=f.id, seen=way),))
    return SeenOption(way, now, tried.pins - without.pins, tried.wires - without.wires, "", commands)


def bearing(load: Switched) -> str:
    """A load in words: volts with their kind, amperes."""
    return f"{load.volts:g} V {load.kind}, {load.amps:g} A"
