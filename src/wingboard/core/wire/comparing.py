"""The ways to read and drive some functions, compared on this very panel: what each adds to all the rest.

Every way is tried: the design is wired with it, and counted against the design in which these functions have no wires.
Money in minor units, minutes, milliseconds.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import NamedTuple, get_args

from wingboard.core.findings.limits import limit
from wingboard.core.parts.carriers import CONTACTOR, CONTACTS, DIMMER, TRANSISTORS
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Scheme
from wingboard.core.record.wiring import Controller, PinChoice
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import every_wire
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Device, DeviceKind
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.chips import EXPANDER
from wingboard.core.wire.schemes.choosing import suited
from wingboard.core.wire.schemes.ladder import ladder
from wingboard.core.wire.schemes.matrix import ghosts
from wingboard.core.wire.schemes.networks import NetworkKind, networks
from wingboard.core.wire.schemes.shift import chip_count
from wingboard.core.wire.signals import Signal, cannot, signals

PRICES: dict[str, int] = {
    "resistor": 3, "diode": 4, "high side": 120, "capacitor": 6, "input coder": 890, "74HC165": 45, "74HC595": 40,
    "MCP23017": 180, "mosfet": DIMMER.price,
}  # fmt: skip
"""Of a small part, in minor units, bought by the ten with a chip's socket (from memory, of one shop's size: look at
yours; it is the order of magnitude that decides)."""
JOINT, CUT = 2.0, 3.0
"""Minutes for a joint, and for a wire that is cut, stripped and labelled (our own guess until you have timed yours)."""
LOOP = 1.0
"""Milliseconds in which the controller's program looks at everything once (our own program)."""
BETWEEN_WAYS = 20.0
"""Milliseconds for which a coded selector must stand still: between two ways it says another (common practice)."""
I2C_READING = 5 * 9 / 100
"""Milliseconds in which an expander is read on I²C at 100 kHz (NXP UM10204): its address and a register, its address
again and two bytes, each with an answer."""
SCHEMES: tuple[Scheme, ...] = get_args(Scheme)


class Option(NamedTuple):
    """A way, and what it adds to the panel.

    ``analogue``: of the pins. ``reads``: milliseconds until a change is seen; None where only lamps are driven.
    ``left``: terminals that would still be wired by themselves, and why. ``loses``: what it cannot do any more, or
    wants minded. ``not_for``: why it cannot be at all; then everything else is 0.
    """

    scheme: Scheme
    now: bool
    pins: int
    analogue: int
    wires: int
    joints: int
    diodes: int
    chips: int
    small: int
    money: int
    minutes: float
    reads: float | None
    left: tuple[str, ...]
    loses: tuple[str, ...]
    not_for: str


class Counted(NamedTuple):
    """What a panel takes: pins, those that measure, wires, joints, small parts by their kinds, their money."""

    pins: int
    analogue: int
    wires: int
    joints: int
    kinds: Counter[DeviceKind]
    money: int


def options(r: Resolved, functions: Sequence[str]) -> tuple[Option, ...]:
    """Every way for these functions, as they come in :data:`SCHEMES`; empty when none of them has a line."""
    mine = [s for s in signals(r) if s.line.function in functions]
    if not mine:
        return ()
    without = counted(Resolved(_with(r.design, functions, {"state": "dummy"})))
    return tuple(_option(r, functions, mine, scheme, without) for scheme in SCHEMES)


def _option(r: Resolved, functions: Sequence[str], mine: Sequence[Signal], scheme: Scheme, without: Counted) -> Option:
    able = suited(r, functions, scheme)
    now = bool(able) and all(s.scheme == scheme for s in mine if s.line.function in able)
    why = {s.id: cannot(r, s.placed, s.line, s.told, scheme) for s in mine}
    if all(why.values()):
        reason = next(iter(dict.fromkeys(why.values())))
        return Option(scheme, now, 0, 0, 0, 0, 0, 0, 0, 0, 0.0, None, (), (), reason)
    tried = Resolved(_with(r.design, tuple(able), {"scheme": scheme}))
    with_it = counted(tried)
    kinds = Counter(with_it.kinds)
    kinds.subtract(without.kinds)
    joints, wires = with_it.joints - without.joints, with_it.wires - without.wires
    left = tuple(f"{s.line.name}, {s.line.terminal}: {why[s.id]}" for s in mine if why[s.id])
    return Option(
        scheme,
        now,
        with_it.pins - without.pins,
        with_it.analogue - without.analogue,
        wires,
        joints,
        kinds["diode"],
        kinds["chip"],
        sum(kinds[kind] for kind in SMALL),
        with_it.money - without.money,
        JOINT * joints + CUT * wires,
        reads(tried, functions),
        left,
        tuple(_loses(tried, functions)),
        "",
    )


LETTERS = "BCDEFGHIJKLMNOPQRSTUVWXYZA"
"""Of pins that no board has: A0 to A15 come last."""
SMALL: tuple[DeviceKind, ...] = ("resistor", "diode", "transistor", "mosfet", "high side", "relay", "chip", "capacitor")


def _with(design: Design, functions: Sequence[str], update: dict[str, str]) -> Design:
    changed = tuple(f.model_copy(update=update) if f.id in functions else f for f in design.functions)
    return design.model_copy(update={"functions": changed})


def _pinned(r: Resolved) -> Resolved:
    """The design with some pin for every line, so that every wire is there to be counted."""
    boards = r.design.controllers or (Controller(id="any", name="any", board="atmega2560"),)
    given = {p.line for p in r.design.pins}
    some = tuple(
        PinChoice(line=line.id, controller=boards[0].id, pin=f"{LETTERS[n // 100 % 26]}{n % 100}")
        for n, line in enumerate(lines(r))
        if line.id not in given
    )
    return Resolved(r.design.model_copy(update={"controllers": boards, "pins": (*r.design.pins, *some)}))


def counted(r: Resolved) -> Counted:
    """What a design takes, every line on some pin."""
    r = _pinned(r)
    wanted = {line.bus or line.id: line for line in lines(r)}
    wires = every_wire(r)
    devices = net_list(r).devices.values()
    return Counted(
        pins=len(wanted),
        analogue=sum(line.analogue for line in wanted.values()),
        wires=sum(w.how == "wire" for w in wires),
        joints=sum(2 if w.how == "wire" else 1 for w in wires),
        kinds=Counter(d.kind for d in devices),
        money=sum(_price(d) for d in devices),
    )


def _price(device: Device) -> int:
    """Of a small part; nothing for what is none."""
    if device.kind == "transistor":
        return next((kind.price for kind in TRANSISTORS if kind.amps >= device.value), TRANSISTORS[-1].price)
    if device.kind == "relay":
        return next((kind.price for kind in CONTACTS.values() if kind.amps >= device.value), CONTACTOR.price)
    return PRICES.get(device.name.split(",")[0] if device.kind == "chip" else device.kind, 0)


def reads(r: Resolved, functions: Sequence[str]) -> float | None:
    """Milliseconds until the program sees a change of these functions, at the longest; a contact's bouncing apart."""
    found = [_reads(r, s) for s in signals(r) if s.line.function in functions and s.line.direction != "out"]
    return max(found, default=None)


def _reads(r: Resolved, signal: Signal) -> float:
    if signal.by == "ladder":
        f = signal.placed.function
        ways = len(f.positions) or signal.placed.part.ways
        settled = ladder(ways, f.step, limit(r.design, "resistor-tolerance") / 100, f.steady).settles * 1000
        return 2 * LOOP + settled  # two readings that agree
    if signal.by in ("binary", "coder"):
        return BETWEEN_WAYS
    network = next((n for n in networks(r) if signal.by != "direct" and signal in n.signals), None)
    if network is None:
        return LOOP
    if network.kind in MATRICES:
        return LOOP * len(network.grid.rows)
    if network.kind == "expander":
        return LOOP + I2C_READING * chip_count(network, EXPANDER)
    return LOOP


MATRICES: tuple[NetworkKind, ...] = ("matrix", "matrix-bare")


def _loses(r: Resolved, functions: Sequence[str]) -> list[str]:
    """What a way cannot do that the terminals by themselves could, in words."""
    mine = [s for s in signals(r) if s.line.function in functions and s.by != "direct"]
    found = []
    if any(s.line.lamp and s.line.prefers == "PWM" for s in mine):
        found.append("its lamps are on or off, never dim")
    if any(s.line.prefers == "interrupt" for s in mine):
        found.append("an encoder is looked at once a loop: turned fast, it loses steps")
    if any(s.by == "binary" for s in mine):
        found.append("between two ways it reads as another")
    if any(s.by == "ladder" for s in mine):
        found.append("between two ways its voltage hangs free")
    bare = [n for n in networks(r) if n.kind == "matrix-bare" and any(s in n.signals for s in mine)]
    many = sum(1 for n in bare for _ in ghosts(n.grid))
    if many:
        found.append(f"{many} ways in which three closed contacts show a fourth that is open")
    return found
