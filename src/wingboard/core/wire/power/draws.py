"""What takes current where, state by state: lamps, parts, loads, coils; and what else current passes. Amperes."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.brief.wanted import duty_of
from wingboard.core.findings.limits import limit
from wingboard.core.parts.carriers import CONTACTS
from wingboard.core.record.lamps import lamp_supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.backlights import lit, rows
from wingboard.core.wire.carried import carried, coil_amps, coil_volts, has_load, stop_coil_volts
from wingboard.core.wire.helpers import ACROSS, LAMP_RELAY
from wingboard.core.wire.netlist import Device, DeviceKind, Port
from wingboard.core.wire.nets import IN_SERIES, net_list
from wingboard.core.wire.signals import signals
from wingboard.core.wire.stops import (
    STOP_RELAY,
    breaking_contacts,
    breaks_power,
    carrier_of,
    power_stops,
    real_stops,
)
from wingboard.core.wire.terminals import said

State = Literal["quiet", "lamps", "lamp test", "white", "loads", "all", "stopped"]
STATES: dict[State, str] = {
    "quiet": "nothing lit, loads off",
    "lamps": "all lamps lit",
    "lamp test": "lamp test pressed",
    "white": "light behind at its brightest, lamps lit",
    "loads": "all loads on",
    "all": "everything on",
    "stopped": "everything on, emergency stop pressed",
}
"""The states that are computed, and their names."""
LOADS_ON: tuple[State, ...] = ("loads", "all", "stopped")
"""The states in which every load is switched on; in the last one a stop takes those off that it breaks."""
COLD = 10.0
"""A bulb takes so many times its current in the moment when it is switched on (common practice)."""


class Draw(NamedTuple):
    """Current (A) that goes into one terminal and out of another. ``what`` it is, ``of`` which function.

    ``bulb``: a filament, that takes :data:`COLD` times as much for a moment.
    """

    amps: float
    into: Port
    out: Port
    what: Literal["lamp", "light", "part", "load", "coil", "base"]
    of: str
    bulb: bool = False


def draws(r: Resolved, state: State) -> tuple[Draw, ...]:
    """Everything that takes current in a state."""
    return r.once(f"draws, {state}", lambda: tuple(_draws(r, state)))


def _draws(r: Resolved, state: State) -> Iterator[Draw]:
    yield from _parts(r)
    if state != "quiet":
        yield from _behind(r, state)
    if state in ("lamps", "lamp test", "white", "all", "stopped"):
        yield from _lamps(r, state)
    if state in LOADS_ON:
        yield from _loads(r)
    yield from _stop_coils(r)


def _stop_coils(r: Resolved) -> Iterator[Draw]:
    """The coils that emergency stops hold on, until they are pressed."""
    for device in net_list(r).devices.values():
        if device.id.endswith(STOP_RELAY):
            stops = real_stops(r) if device.of in {p.function.id for p in real_stops(r)} else power_stops(r)
            watts = CONTACTS[carrier_of(stops)].watts
            amps = watts / stop_coil_volts(r.design)
            yield Draw(amps, Port(device.id, "A1"), Port(device.id, "A2"), "coil", device.of)


def _parts(r: Resolved) -> Iterator[Draw]:
    nets = net_list(r)
    for p in r.placed:
        feed = said(p.part).feed
        if feed is None or feed.amps <= 0:
            continue
        plus = [port for t in feed.plus if (port := Port(p.function.id, t)) in nets.by_port]
        minus = [port for t in feed.minus if (port := Port(p.function.id, t)) in nets.by_port]
        for n, port in enumerate(plus):
            if minus:
                yield Draw(feed.amps / len(plus), port, minus[n % len(minus)], "part", p.function.id)


def _lamps(r: Resolved, state: State) -> Iterator[Draw]:
    nets = net_list(r)
    for s in signals(r):
        line, f = s.line, s.placed.function.id
        base, q = f"{line.id}-rb", f"{line.id}-q"
        if base in nets.devices and line.pin_current > 0:
            yield Draw(line.pin_current, Port(base, "1"), Port(q, "E"), "base", f)
        if line.current <= 0 or line.direction == "in" or line.bus or not s.told.back or s.told.returns:
            continue
        if not line.lamp and state == "lamp test":
            continue  # a sounder, a coil: the lamp test does not reach it
        relay = nets.devices.get(f"{line.id}{LAMP_RELAY}")
        if relay is not None:
            supply = lamp_supply(s.placed.function, s.placed.part, s.told)
            coil = CONTACTS["relay"].watts / coil_volts(r.design, supply)
            yield Draw(coil, Port(relay.id, "A1"), Port(relay.id, "A2"), "coil", f)
        bulb = s.told.bulb and not s.placed.function.led
        yield Draw(line.current, Port(f, s.told.terminal), Port(f, s.told.back), "lamp", f, bulb)


def _behind(r: Resolved, state: State) -> Iterator[Draw]:
    """The light behind: dimmed as it is set, but where everything is at its brightest. ``of`` is its module's."""
    full = state in ("white", "all", "stopped")
    for x in lit(r):
        share = 1.0 if full else x.level
        for plus, minus in zip(x.plus, x.minus, strict=True):
            ends = Port(x.device, plus), Port(x.device, minus)
            yield Draw(x.amps * share / len(x.plus), *ends, "light", x.module)
    for row in rows(r):
        first, last = (f"light.{row.module}.{led.id}" for led in (row.leds[0], row.leds[-1]))
        amps = row.amps * (1.0 if full else row.level)
        yield Draw(amps, Port(first, "anode"), Port(last, "cathode"), "light", row.module)


def _loads(r: Resolved) -> Iterator[Draw]:
    nets = net_list(r)
    on = set(_thrown(r))
    for device in nets.devices.values():
        if device.kind == "load" and device.id in on:
            f = r.functions[device.of]
            yield Draw(f.switches.amps, Port(device.id, "1"), Port(device.id, "2"), "load", f.id)
            one = device.id.removesuffix("-load")
            relay, q = f"{one}-relay", f"{one}-q"
            if relay in nets.devices:
                yield Draw(coil_amps(r.design, f.switches), Port(relay, "A1"), Port(relay, "A2"), "coil", f.id)
            if q in nets.devices:
                into = limit(r.design, "drive-current")
                yield Draw(into, Port(f"{q}-rb", "1"), Port(q, "E"), "base", f.id)


def _thrown(r: Resolved) -> Iterator[str]:
    """The loads that can be on at once: of a control with several contacts those of its fullest position."""
    for p in r.placed:
        by_position: dict[str, list[str]] = {}
        for one in carried(p) if has_load(p) else ():
            for position in (one.contact.closed if one.contact else ()) or ("",):
                by_position.setdefault(position, []).append(f"{one.id}-load")
        if by_position:
            yield from max(by_position.values(), key=len)


LIMITS_CURRENT: tuple[DeviceKind, ...] = ("resistor", "chip")
"""What lets so little through, even into a short, that no fuse before it is needed for the wires behind it."""


class Through(NamedTuple):
    """Something that current passes: from one terminal to the other. ``protects``: a fuse or breaker."""

    start: Port
    end: Port
    device: str
    protects: bool = False


def passages(r: Resolved, state: State) -> tuple[Through, ...]:
    """Contacts that are closed in a state, breakers, resistors in series, diodes, transistors that are on, chips."""
    return r.once(f"passages, {state}", lambda: tuple(_passages(r, state)))


def _passages(r: Resolved, state: State) -> Iterator[Through]:
    nets = net_list(r)
    for device in nets.devices.values():
        ends = _inside(device, state)
        if device.id.endswith(STOP_RELAY):
            yield from _poles(device) if state != "stopped" else ()
        elif ends:
            yield Through(Port(device.id, ends[0]), Port(device.id, ends[1]), device.id)
        elif device.kind == "chip":
            yield from _outputs(device)
    thrown = set(_thrown(r)) if state in LOADS_ON else set()
    for p in r.placed:
        told, f = said(p.part), p.function
        if breaks_power(p) and state != "stopped":
            yield from (Through(Port(f.id, a), Port(f.id, b), f.id) for a, b in breaking_contacts(p.part))
        if duty_of(f, p.part) == "protection":
            yield from (Through(Port(f.id, c.a), Port(f.id, c.b), f.id, True) for c in told.contacts[:1])
        if f.tests_lamps and state == "lamp test":
            contacts = [x for x in told.lines.values() if x.does == "switch" and not x.each_position]
        elif has_load(p) and f.switches.driven == "contact":
            contacts = [one.contact for one in carried(p) if one.contact and f"{one.id}-load" in thrown]
        else:
            contacts = []
        for line in contacts:
            if line.back:
                yield Through(Port(f.id, line.back), Port(f.id, line.terminal), f.id)


def _inside(device: Device, state: State) -> tuple[str, str] | None:
    """The terminals between which a small part lets current through."""
    if device.kind == "resistor" and device.id.endswith((IN_SERIES, "-rb")):
        return "1", "2"
    if device.kind == "diode" and not device.id.endswith(ACROSS):
        other = "-own" if state == "lamp test" else "-test"
        return None if device.id.endswith(other) else ("A", "K")
    if device.kind == "transistor":
        return "C", "E"
    if device.kind == "mosfet":
        return "D", "S"
    if device.kind == "high side":
        return "V+", "OUT"
    if device.id.endswith(LAMP_RELAY):
        return ("13", "14") if state != "quiet" else None
    return ("13", "14") if device.kind == "relay" and state in LOADS_ON else None


def _poles(relay: Device) -> Iterator[Through]:
    """The contacts of a relay that is on, numbered as in EN 50005: 13 and 14, 23 and 24."""
    for terminal in relay.ports:
        if terminal.endswith("3"):
            yield Through(Port(relay.id, terminal), Port(relay.id, f"{terminal[:-1]}4"), relay.id)


def _outputs(chip: Device) -> Iterator[Through]:
    """A chip drives its outputs from its own supply; its terminals are marked with number and name."""
    named = {port.rpartition(" ")[2]: port for port in chip.ports}
    plus = named.get("VCC") or named.get("VDD")
    for name, port in named.items() if plus else ():
        if plus and name.startswith(("Q", "GP")):
            yield Through(Port(chip.id, plus), Port(chip.id, port), chip.id)
