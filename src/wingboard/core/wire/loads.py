"""The circuits of loads: supply, breaker or fuse, contact, load, return. What switches a load is in its circuit."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.brief.wanted import duty_of
from wingboard.core.findings.limits import limit
from wingboard.core.light.resistor import next_e24
from wingboard.core.parts.carriers import CONTACTS, transistor_for
from wingboard.core.record.controllers import logic_of
from wingboard.core.record.functions import Function, Switched
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.carried import (
    Carried,
    carried,
    coil_amps,
    coil_volts,
    has_load,
    on_ground,
    undriven,
    unseen,
    unthrown,
)
from wingboard.core.wire.earth import earthed
from wingboard.core.wire.helpers import at_base
from wingboard.core.wire.netlist import GROUND, Device, Joining, Port, board_id
from wingboard.core.wire.rails import Rails
from wingboard.core.wire.stops import breaks_power
from wingboard.core.wire.terminals import said

HOLDS_DOWN = 10_000.0
"""Between base and ground of a transistor that a pin drives (Ω): the load stays off while the pin floats."""
OVER = 1.2
"""A supply may stand so many times above its volts, as a battery does that is being charged (common practice)."""


class Ends(NamedTuple):
    """The two ends of what turns something on: where it is fed from, and what is passed on."""

    plus: Port
    out: Port


def join_loads(r: Resolved, joining: Joining, rails: Rails) -> None:
    """Join what every placed function switches that has a load, behind what protects it."""
    _Loads(r, joining, rails).join()


def divider(volts: float, logic: float) -> tuple[float, float]:
    """The upper and the lower resistor (Ω) that give a pin its level from a load's volts.

    The pin sees its own supply's volts at the most when the load's stand :data:`OVER` times as high; E24, upwards.
    """
    above = max(0.0, OVER * volts - logic) / logic * HOLDS_DOWN
    return next_e24(max(above, 1000.0)), HOLDS_DOWN


class _Loads:
    def __init__(self, r: Resolved, joining: Joining, rails: Rails) -> None:
        self.r, self.joining, self.rails = r, joining, rails
        self.pins = {p.line: (p.controller, p.pin) for p in r.design.pins}
        self.fed: dict[str, str] = {}
        """By the function of each breaker the net that feeds it: of one supply only."""
        self.guards = [p for p in r.placed if duty_of(p.function, p.part) == "protection"]

    def join(self) -> None:
        """All of them; protections first, so that a bus is there when something hangs on it."""
        for placed in self.r.placed:
            if has_load(placed):
                self._load(placed)

    def _load(self, placed: Placed) -> None:
        f = placed.function
        if not f.switches.volts:
            self.joining.miss(f.id, "the volts of its load are not said")
            return
        why = undriven(placed)
        for words in (why, unseen(placed, f.switches.seen)):
            if words:
                self.joining.miss(f.id, words, True)
        loads, start = carried(placed), self._protected(f)
        for one in () if why else loads:
            cannot, wrong = unthrown(placed, one)
            if cannot:
                self.joining.miss(f.id, cannot, wrong)
                continue
            name = f"what {f.name} switches{one.at}"
            earth = earthed(self.r, f.switches.volts, f.switches.alternating)
            ports = " ".join(("1", "2", *earth))
            load = self.joining.helper(f"{one.id}-load", "load", name, ports, f.id, f.switches.volts)
            if breaks_power(placed):
                self.joining.join(start, Port(load.id, "1"), kind="load")
                self.joining.join(self._back(f.switches), Port(load.id, "2"), kind="load")
            elif f.switches.driven == "controller":
                self._driven(f, one, start, load)
            else:
                self._thrown(placed, one, start, load)
            if f.switches.seen and not unseen(placed, f.switches.seen):
                self._seen(f, one, load)
        if not loads:
            self.joining.miss(f.id, "its part has no contact that could switch a load")

    def _thrown(self, placed: Placed, one: Carried, start: str, load: Device) -> None:
        """A load that the contact switches, itself or by what it drives; its far end may be on ground already."""
        assert one.contact is not None
        f = placed.function
        shared = on_ground(said(placed.part), one.contact.back)
        ends = Ends(Port(f.id, one.contact.back), Port(f.id, one.contact.terminal))
        if f.switches.through == "transistor":
            self.joining.join(start, ends.plus, kind="load")
            self._transistor(f, one, f.switches.volts, ends.out)
            self._low_side(f, one, start, load)
        elif f.switches.through:
            relay = self._relay(f, one, start, load)
            if shared:
                self.joining.join(self._coil_fed(f), *self._coil(relay, "plus"), kind="supply")
                self.joining.join(f"{relay.id}-coil", ends.out, *self._coil(relay, "minus"))
                self.joining.join(GROUND, ends.plus, kind="ground")
            else:
                self.joining.join(self._coil_fed(f), ends.plus, kind="supply")
                self.joining.join(f"{relay.id}-coil", ends.out, *self._coil(relay, "plus"))
                self.joining.join(GROUND, *self._coil(relay, "minus"), kind="ground")
        elif shared:
            self.joining.join(start, Port(load.id, "1"), kind="load")
            self.joining.join(f"{load.id}-off", Port(load.id, "2"), ends.out, kind="load")
            self.joining.join(GROUND, ends.plus, kind="ground")
        else:
            self.joining.join(start, ends.plus, kind="load")
            self.joining.join(f"{load.id}-on", ends.out, Port(load.id, "1"), kind="load")
            self.joining.join(self._back(f.switches), Port(load.id, "2"), kind="load")

    def _driven(self, f: Function, one: Carried, start: str, load: Device) -> None:
        """A load that a controller's pin switches, by a transistor or by a coil that one drives. A resistor keeps it
        off while the pin floats."""
        line = f"{one.id}-drive"
        controller = self.pins.get(line, (None, ""))[0]
        base = self._transistor(f, one, logic_of(self.r.design, controller))
        self.joining.join(line, Port(base.id, "1"))
        if controller is not None:
            self.joining.join(line, Port(board_id(controller), self.pins[line][1]))
        q = f"{one.id}-q"
        off = self.joining.helper(f"{q}-off", "resistor", f"holds {f.name} off", "1 2", f.id, HOLDS_DOWN)
        self.joining.join(f"{q}-base", Port(off.id, "1"))
        self.joining.join(GROUND, Port(off.id, "2"), kind="ground")
        if f.switches.through == "transistor":
            self._low_side(f, one, start, load)
            return
        relay = self._relay(f, one, start, load)
        self.joining.join(self._coil_fed(f), *self._coil(relay, "plus"), kind="supply")
        self.joining.join(f"{relay.id}-coil", *self._coil(relay, "minus"), Port(q, "C"))
        self.joining.join(GROUND, Port(q, "E"), kind="ground")

    def _protected(self, f: Function) -> str:
        """The net from which a function's load is fed: behind its breaker, and behind that of its bus."""
        s = f.switches
        rail = self.rails.for_load(s)
        own = [p for p in self.guards if p.function.of == f.id]
        shared = [p for p in self.guards if p.function.of is None and s.bus and _bus(p.function) == _bus(f)]
        for n, (guard, net) in enumerate((*((p, f"bus {s.bus}") for p in shared), *((p, f"{f.id}.fed") for p in own))):
            contact = next(iter(said(guard.part).contacts), None)
            if contact is None:
                self.joining.miss(guard.function.id, "its terminals are not said")
                continue
            ident = guard.function.id
            if self.fed.setdefault(ident, rail) != rail:
                self.joining.miss(f.id, f"{guard.function.name} is on {self.fed[ident]}, its load on {rail}", True)
                continue
            behind = net if n == 0 else f"{net}-{n + 1}"
            self.joining.join(rail, Port(ident, contact.a), kind="supply")
            rail = self.joining.join(behind, Port(ident, contact.b), kind="load")
        return rail

    def _back(self, s: Switched) -> str:
        return self.rails.back(s.volts, s.alternating)

    def _relay(self, f: Function, one: Carried, start: str, load: Device) -> Device:
        """A relay whose contact carries the load, with a diode across its coil; numbered as in EN 50005."""
        s = f.switches
        ports = "A1 A2 13 14" + (" 23 24" if s.seen == "auxiliary" else "")
        bears = CONTACTS[s.through].amps
        relay = self.joining.helper(f"{one.id}-relay", "relay", f"{s.through} for {f.name}", ports, f.id, bears)
        self.joining.helper(f"{relay.id}-d", "diode", f"across the coil for {f.name}", "A K", f.id)
        self.joining.join(start, Port(relay.id, "13"), kind="load")
        self.joining.join(f"{load.id}-on", Port(relay.id, "14"), Port(load.id, "1"), kind="load")
        self.joining.join(self._back(s), Port(load.id, "2"), kind="load")
        return relay

    def _coil(self, relay: Device, end: str) -> tuple[Port, Port]:
        """An end of the coil with that of its diode."""
        of_coil, of_diode = ("A1", "K") if end == "plus" else ("A2", "A")
        return Port(relay.id, of_coil), Port(f"{relay.id}-d", of_diode)

    def _coil_fed(self, f: Function) -> str:
        """The net that feeds a coil."""
        return self.rails.volts(coil_volts(self.r.design, f.switches))

    def _transistor(self, f: Function, one: Carried, volts: float, *turns_on: Port) -> Device:
        """A transistor and the resistor at its base, which is turned on with so many volts; gives the resistor."""
        s, into = f.switches, limit(self.r.design, "drive-current")
        kind = transistor_for(s.amps if s.through == "transistor" else coil_amps(self.r.design, s), into)
        name = f"for what {f.name} switches{one.at}"
        q = self.joining.helper(f"{one.id}-q", "transistor", name, "B C E", f.id, kind.amps)
        ohms = at_base(self.r, volts, kind.base)
        base = self.joining.helper(f"{q.id}-rb", "resistor", f"at the base for {f.name}", "1 2", f.id, ohms)
        if turns_on:
            self.joining.join(f"{base.id}-on", *turns_on, Port(base.id, "1"))
        self.joining.join(f"{q.id}-base", Port(base.id, "2"), Port(q.id, "B"))
        return base

    def _low_side(self, f: Function, one: Carried, start: str, load: Device) -> None:
        """A load between its supply and a transistor, with a diode across it: it may be a coil, or a motor."""
        q = f"{one.id}-q"
        diode = self.joining.helper(f"{load.id}-d", "diode", f"across what {f.name} switches", "A K", f.id)
        self.joining.join(start, Port(load.id, "1"), Port(diode.id, "K"), kind="load")
        self.joining.join(f"{q}-switched", Port(load.id, "2"), Port(q, "C"), Port(diode.id, "A"), kind="load")
        self.joining.join(self._back(f.switches), Port(q, "E"), kind="ground")

    def _seen(self, f: Function, one: Carried, load: Device) -> None:
        """The line by which a controller sees a load: an auxiliary contact to ground, or a divider from where its volts
        change. A second pole is a contact as any other."""
        if f.switches.seen == "pole":
            return
        line = f"{one.id}-seen"
        controller = self.pins.get(line, (None, ""))[0]
        if controller is not None:
            self.joining.join(line, Port(board_id(controller), self.pins[line][1]))
        if f.switches.seen == "auxiliary":
            relay = f"{one.id}-relay"
            self.joining.join(line, Port(relay, "23"))
            self.joining.join(GROUND, Port(relay, "24"), kind="ground")
            return
        upper, lower = divider(f.switches.volts, logic_of(self.r.design, controller))
        high = self.joining.helper(f"{line}-high", "resistor", f"from the volts of {f.name}", "1 2", f.id, upper)
        low = self.joining.helper(f"{line}-low", "resistor", f"to ground, for {f.name}", "1 2", f.id, lower)
        end = Port(load.id, "1" if switched_high(f, load, self.joining) else "2")
        self.joining.join(f"{line}-load", end, Port(high.id, "1"), kind="load")
        self.joining.join(line, Port(high.id, "2"), Port(low.id, "1"))
        self.joining.join(GROUND, Port(low.id, "2"), kind="ground")


def switched_high(f: Function, load: Device, joining: Joining) -> bool:
    """Whether a load is switched before it, not between it and ground: its first end then carries volts while it is
    on."""
    return joining.net_of(Port(load.id, "2")) == GROUND


def _bus(f: Function) -> str:
    return f.switches.bus.strip().lower()
