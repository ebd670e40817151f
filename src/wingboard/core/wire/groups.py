"""The work of soldering in small groups, each ending in a test: modules first, up to their plugs, then what goes on."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import NamedTuple

from wingboard.core.record.part import BUS_LINES
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import WORDS, plugged, plugs
from wingboard.core.wire.netlist import NetKind, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.networks import NAMES, networks
from wingboard.core.wire.wires import Wire, names_of

MOST = 12
"""Wires that are soldered before a test (common practice: few enough to find the one that is wrong)."""
TESTS = (
    ({"switch", "encoder"}, "ohmmeter from each pin of a contact to GND: closed in its positions, open in the others"),
    ({"lamp"}, "the volts of its board on the pin's end of each resistor light its lamp, its supply on"),
    (
        {"analogue", "driver", *BUS_LINES},
        "ohmmeter from each pin to its terminal: under 1 Ω, and open to the pins beside it",
    ),
)
"""How what is soldered for a part is tried, by what its lines do (common practice)."""


STEPS: dict[NetKind, tuple[str, str]] = {
    "ground": ("0", "ground"), "supply": ("1", "supplies"), "earth": ("00", "protective earth"),
}  # fmt: skip
"""By kind of net where its wires come in the order of the work, and their group's name; others are loads."""


class Group(NamedTuple):
    """A few wires that are soldered together, and the test that ends them. ``module`` is empty for what is outside."""

    id: str
    title: str
    module: str
    wires: tuple[Wire, ...]
    test: str


def every_wire(r: Resolved) -> tuple[Wire, ...]:
    """All wires, group by group in the order in which they are soldered."""
    return tuple(wire for group in groups(r) for wire in group.wires)


def groups(r: Resolved) -> tuple[Group, ...]:
    """The work in small groups: the grounds of each module first, its supplies, then what is listed together."""
    return r.once("groups of wires", lambda: tuple(_Grouping(r).groups()))


def soldered_pins(r: Resolved) -> frozenset[tuple[str, str]]:
    """The pins, by board and name, on which a wire is soldered that is still wanted, or was found."""
    boards, done = {board_id(c.id): c.id for c in r.design.controllers}, set(r.design.soldered)
    ends = (p for wire in every_wire(r) if wire.id in done for p in (wire.start, wire.end))
    ticked = {(boards[p.device], p.terminal) for p in ends if p.device in boards}
    return frozenset(ticked | {(p.controller, p.pin) for p in r.design.pins if p.by == "found"})


class _Grouping:
    """The wires of one design, in groups."""

    def __init__(self, r: Resolved) -> None:
        self.r, self.nets, self.places = r, net_list(r), places(r)
        self.networks = {network.id: network for network in networks(r)}
        self.plugs = {plug.id: plug for plug in plugs(r)}

    def groups(self) -> Iterator[Group]:
        found: dict[tuple[int, str, str], list[Wire]] = {}
        order = list(self.r.modules)
        for wire in plugged(self.r):
            module, step, title = self._group(wire)
            key = (order.index(module) if module else len(order)), step, title
            found.setdefault(key, []).append(wire)
        for (place, step, title), wires in sorted(found.items(), key=lambda item: item[0][:2]):
            module = order[place] if place < len(order) else ""
            parts = list(self._small(wires))
            for n, part in enumerate(parts, 1):
                ident = f"{module or 'outside'} {step} {n}"
                words = title if len(parts) == 1 else f"{title}, {n} of {len(parts)}"
                yield Group(ident, words, module, tuple(w._replace(group=ident) for w in part), self._test(part))

    def _small(self, wires: Sequence[Wire]) -> Iterator[list[Wire]]:
        """A group in parts of :data:`MOST` wires at the most, those of one function together where they are fewer."""
        part: list[Wire] = []
        for _, mine in groupby(wires, key=lambda w: self._of(w.start)):
            some = list(mine)
            if part and len(part) + len(some) > MOST:
                yield part
                part = []
            part += some
            while len(part) > MOST:
                yield part[:MOST]
                part = part[MOST:]
        if part:
            yield part

    def _of(self, port: Port) -> str:
        device = self.nets.devices.get(port.device)
        return device.of if device else ""

    def _group(self, wire: Wire) -> tuple[str, str, str]:
        """The module of a wire, a key that sorts its group within that, and the group's title."""
        start, end = wire.start, wire.end
        module = self.places.home(start) or self.places.home(end)
        plug = self.plugs.get(start.device) or self.plugs.get(end.device)
        if plug and (not module or wire.how == "bridge"):
            home = self.r.modules[plug.module].module.name
            return "", f"0 {plug.name:0>6}", f"Cable of {plug.name} of {home} ({WORDS[plug.carries]})"
        name = self.r.modules[module].module.name if module else "Outside the modules"
        if not module or wire.kind in ("ground", "supply", "earth"):
            step, what = STEPS.get(wire.kind, ("2", "loads"))
            return module, step if module else f"1 {step}", f"{name}: {what}"
        owners = [of for p in (start, end) if (of := self._of(p))]
        if wire.kind == "load" and not all(of.startswith("light.") for of in owners):
            return module, "2", f"{name}: loads"
        owner = next((of for of in owners if of in self.r.functions), None)
        if owner is None and owners[0] not in self.networks:
            return module, "4 light", f"{name}: light behind"
        if owner is None:
            return module, f"4 {owners[0]}", f"{name}: board of the {NAMES[self.networks[owners[0]].kind]}"
        f = self.r.functions[owner]
        return module, f"3 {f.group or f.name}", f"{name}: {f.group or f.name}"

    def _test(self, wires: Sequence[Wire]) -> str:
        """How a group is tried: a module by its open plugs, a cable from contact to pin."""
        ends = [self._plug_ends(w) for w in wires]
        if all(ends) and not any(self.places.home(p) for w in wires for p in (w.start, w.end)):
            return (
                "The plug open, ohmmeter: each contact of this group reads under 1 Ω to what it is listed with, and "
                "open to the contacts beside it"
            )
        lead = "At the open plug, each contact standing for its pin: " if any(ends) else ""
        said = self._test_of(wires)
        return f"{lead}{said[0].lower()}{said[1:]}" if lead else said

    def _plug_ends(self, wire: Wire) -> bool:
        return wire.start.device in self.plugs or wire.end.device in self.plugs

    def _test_of(self, wires: Sequence[Wire]) -> str:
        kinds = {w.kind for w in wires}
        if kinds == {"earth"}:
            return (
                "Mains unplugged, ohmmeter: every metal part of this group reads under 1 Ω to the earth contact of the "
                "mains plug. A licensed electrician does and checks this wiring"
            )
        if kinds == {"ground"}:
            return "Ohmmeter, nothing plugged in: every terminal of this group reads under 1 Ω to the board's GND"
        if "supply" in kinds:
            return "Ohmmeter, nothing plugged in: no short from any supply to ground; then switch on and read its volts"
        owners = {self._of(p) for w in wires for p in (w.start, w.end)}
        if all(of.startswith("light.") for of in owners - {""}):
            dims = next((d.id for d in self.nets.devices.values() if d.kind == "mosfet" and d.of in owners), None)
            bridged = f", D and S of {names_of(self.r)[dims]} bridged" if dims else ""
            return f"Switch on its supply{bridged}: every strip and every row of this group is lit; then off again"
        if "load" in kinds:
            return "Ohmmeter from the supply to the load: open and closed as the control is thrown, with the supply off"
        if owners - {""} <= set(self.networks):
            return (
                "Chips out of their sockets: ohmmeter along each joint, open to the pins beside it; then switch on and "
                "read the board's volts between supply and ground at every socket"
            )
        kinds_of_line = {line.does for p in self.r.placed if p.function.id in owners for line in p.part.lines}
        tests = [words for does, words in TESTS if kinds_of_line & does] or [TESTS[-1][1]]
        return f"{tests[0][0].upper()}{tests[0][1:]}" + "".join(f"; {words}" for words in tests[1:])
