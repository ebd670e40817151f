"""Every wire that is soldered: nets as trees of wires, in the order of the work. Places in mm.

Along one module's terminals a net runs from the nearest to the next: a bare common along all cathodes saves a wire for
each. From there one wire goes to where the net comes from. Small parts sit at the terminal that they belong to.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import groupby, pairwise
from typing import Literal, NamedTuple

from wingboard.core.record.part import BUS_LINES
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Device, DeviceKind, Net, NetKind, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.networks import NAMES, networks

MOST = 12
"""Wires that are soldered before a test (common practice: few enough to find the one that is wrong)."""
OUTSIDE: tuple[DeviceKind, ...] = ("controller", "supply", "load")
"""What does not sit on a module."""
MARKS: dict[DeviceKind, str] = {
    "resistor": "R",
    "diode": "D",
    "transistor": "Q",
    "high side": "U",
    "relay": "K",
    "chip": "U",
    "capacitor": "C",
}
"""Letters of small parts (IEEE 315)."""


TESTS = (
    ({"switch", "encoder"}, "ohmmeter from each pin of a contact to GND: closed in its positions, open in the others"),
    ({"lamp"}, "the volts of its board on the pin's end of each resistor light its lamp, its supply on"),
    (
        {"analogue", "driver", *BUS_LINES},
        "ohmmeter from each pin to its terminal: under 1 Ω, and open to the pins beside it",
    ),
)
"""How what is soldered for a part is tried, by what its lines do (common practice)."""


How = Literal["wire", "leg", "board"]
"""wire: cut to length; leg: no wire at all, the leg of a small part is soldered to the terminal itself; board: a bridge
between small parts on one strip board."""


class Wire(NamedTuple):
    """A wire from one terminal to another. ``group`` is the step of the work that it belongs to."""

    start: Port
    end: Port
    net: str
    kind: NetKind
    group: str = ""
    how: How = "wire"

    @property
    def id(self) -> str:
        """Its two ends: one that goes elsewhere is another wire."""
        return f"{self.start.device}:{self.start.terminal} {self.end.device}:{self.end.terminal}"


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
    return r.once("groups of wires", lambda: tuple(_Laying(r).groups()))


def soldered_pins(r: Resolved) -> frozenset[tuple[str, str]]:
    """The pins, by board and name, on which a wire is soldered that is still wanted."""
    boards, done = {board_id(c.id): c.id for c in r.design.controllers}, set(r.design.soldered)
    ends = (p for wire in every_wire(r) if wire.id in done for p in (wire.start, wire.end))
    return frozenset((boards[p.device], p.terminal) for p in ends if p.device in boards)


def names_of(r: Resolved) -> dict[str, str]:
    """A name for each device that no other has: R1, Q1 for small parts, a function's own with its module for others."""
    nets, counted, found = net_list(r), dict[str, int](), dict[str, str]()
    for device in nets.devices.values():
        letter = MARKS.get(device.kind)
        if letter:
            counted[letter] = counted.get(letter, 0) + 1
            found[device.id] = f"{letter}{counted[letter]}"
        else:
            found[device.id] = _own_name(r, device, set(found.values()))
    return found


def _own_name(r: Resolved, device: Device, taken: set[str]) -> str:
    if device.name not in taken:
        return device.name
    where = r.modules[device.module].module.name if device.module else device.kind
    name = f"{device.name} ({where})"
    return name if name not in taken else f"{name}, {device.id}"


class _Laying:
    """The wires of one design."""

    def __init__(self, r: Resolved) -> None:
        self.r, self.nets = r, net_list(r)
        self.places = {p.function.id: (p.place.module, p.place.x, p.place.y) for p in r.placed}
        self.networks = {network.id: network for network in networks(r)}
        for network in self.networks.values():
            width, _ = r.modules[network.module].size
            self.places[network.id] = network.module, width / 2, 0.0  # its strip board, below the middle
        self.boards = self._boards()

    def _boards(self) -> dict[str, str]:
        """The board that most lines of each module end on."""
        given = {choice.line: choice.controller for choice in self.r.design.pins}
        counted: dict[str, dict[str, int]] = {}
        for line in lines(self.r):
            if line.id in given:
                of = counted.setdefault(line.module, {})
                of[given[line.id]] = of.get(given[line.id], 0) + 1
        return {module: board_id(max(of, key=lambda board: of[board])) for module, of in counted.items()}

    def groups(self) -> Iterator[Group]:
        found: dict[tuple[int, str, str], list[Wire]] = {}
        order = list(self.r.modules)
        for net in self.nets.nets:
            for start, end in self._tree(net):
                module, step, title = self._group(net, start, end)
                key = (order.index(module) if module else len(order)), step, title
                found.setdefault(key, []).append(Wire(start, end, net.id, net.kind, how=self._how(start, end)))
        for (place, step, title), wires in sorted(found.items(), key=lambda item: item[0][:2]):
            module = order[place] if place < len(order) else ""
            parts = list(self._small(wires))
            for n, part in enumerate(parts, 1):
                ident = f"{module or 'outside'} {step} {n}"
                words = title if len(parts) == 1 else f"{title}, {n} of {len(parts)}"
                yield Group(ident, words, module, tuple(w._replace(group=ident) for w in part), self._test(part))

    def _how(self, start: Port, end: Port) -> How:
        one, other = self.nets.devices[start.device], self.nets.devices[end.device]
        if one.of != other.of or not one.of or not (one.kind in MARKS or other.kind in MARKS):
            return "wire"
        return "board" if one.of in self.networks else "leg"

    def _small(self, wires: Sequence[Wire]) -> Iterator[list[Wire]]:
        """A group in parts of :data:`MOST` wires at the most, those of one function together where they are fewer."""
        part: list[Wire] = []
        for _, mine in groupby(wires, key=lambda w: self.nets.devices[w.start.device].of):
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

    def _group(self, net: Net, start: Port, end: Port) -> tuple[str, str, str]:
        """The module of a wire, a key that sorts its group within that, and the group's title."""
        module = self._module(start) or self._module(end)
        name = self.r.modules[module].module.name if module else "Outside the modules"
        if not module or net.kind in ("ground", "supply"):
            step, what = {"ground": ("0", "ground"), "supply": ("1", "supplies")}.get(net.kind, ("2", "loads"))
            return module, step, f"{name}: {what}"
        if net.kind == "load":
            return module, "2", f"{name}: loads"
        owners = [of for p in (start, end) if (of := self.nets.devices[p.device].of)]
        owner = next((of for of in owners if of in self.r.functions), None)
        if owner is None:
            return module, f"4 {owners[0]}", f"{name}: board of the {NAMES[self.networks[owners[0]].kind]}"
        f = self.r.functions[owner]
        return module, f"3 {f.group or f.name}", f"{name}: {f.group or f.name}"

    def _test(self, wires: Sequence[Wire]) -> str:
        kinds = {w.kind for w in wires}
        if kinds == {"ground"}:
            return "Ohmmeter, nothing plugged in: every terminal of this group reads under 1 Ω to the board's GND"
        if "supply" in kinds:
            return "Ohmmeter, nothing plugged in: no short from any supply to ground; then switch on and read its volts"
        if "load" in kinds:
            return "Ohmmeter from the supply to the load: open and closed as the control is thrown, with the supply off"
        owners = {self.nets.devices[p.device].of for w in wires for p in (w.start, w.end)}
        if owners - {""} <= set(self.networks):
            return (
                "Chips out of their sockets: ohmmeter along each joint, open to the pins beside it; then switch on and "
                "read the board's volts between supply and ground at every socket"
            )
        kinds_of_line = {line.does for p in self.r.placed if p.function.id in owners for line in p.part.lines}
        tests = [words for does, words in TESTS if kinds_of_line & does] or [TESTS[-1][1]]
        return f"{tests[0][0].upper()}{tests[0][1:]}" + "".join(f"; {words}" for words in tests[1:])

    def _module(self, port: Port) -> str:
        device = self.nets.devices[port.device]
        if device.kind in OUTSIDE:
            return ""
        return device.module or self.places.get(device.of, ("",))[0]

    def _at(self, port: Port) -> tuple[float, float]:
        _, x, y = self.places.get(self.nets.devices[port.device].of, ("", 0.0, 0.0))
        return x, y

    def _tree(self, net: Net) -> Iterator[tuple[Port, Port]]:
        """A net's ports joined two by two, one wire fewer than there are."""
        clusters: dict[str, list[Port]] = {}
        outside: list[Port] = []
        for port in net.ports:
            module = self._module(port)
            (clusters.setdefault(module, []) if module else outside).append(port)
        sources = [p for p in outside if self.nets.devices[p.device].kind == "supply"]
        hub = next(iter(sources or outside), None)
        before: Port | None = None
        for module, ports in clusters.items():
            if net.kind == "ground" and self.r.modules[module].module.returns == "star":
                at = next((p for p in outside if p.device == self.boards.get(module)), hub)
                yield from self._star(ports, at)
                continue
            chain = self._chain(ports)
            yield from pairwise(chain)
            at = next((p for p in outside if p.device == self.boards.get(module)), hub) if net.kind == "ground" else hub
            if at is not None:
                yield chain[-1], at
            elif before is not None:
                yield before, chain[0]
            before = chain[-1]
        for port in outside:
            if hub is not None and port != hub:
                yield port, hub

    def _star(self, ports: list[Port], at: Port | None) -> Iterator[tuple[Port, Port]]:
        """Everything on one part (or strip board) together, and from each a wire of its own to the board."""
        by_part: dict[str, list[Port]] = {}
        for port in ports:
            by_part.setdefault(self.nets.devices[port.device].of, []).append(port)
        for chain in map(self._chain, by_part.values()):
            yield from pairwise(chain)
            if at is not None:
                yield chain[-1], at

    def _chain(self, ports: list[Port]) -> list[Port]:
        """From terminal to terminal, always on to the nearest, starting at the left."""
        left = sorted(ports, key=self._at)
        chain = [left.pop(0)]
        while left:
            here = self._at(chain[-1])
            nearest = min(left, key=lambda p: math.dist(here, self._at(p)))
            left.remove(nearest)
            chain.append(nearest)
        return chain


def helpers(r: Resolved) -> tuple[Device, ...]:
    """The small parts that are soldered in, in the order of their marks."""
    return tuple(d for d in net_list(r).devices.values() if d.kind in MARKS)
