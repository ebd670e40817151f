"""Every wire that is soldered: nets as trees of wires, in the order of the work. Places in mm.

Along one module's terminals a net runs from the nearest to the next: a bare common along all cathodes saves a wire for
each. From there one wire goes to where the net comes from. Small parts sit at the terminal that they belong to.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import Literal, NamedTuple

import numpy as np

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.places import MOVED, OUTSIDE, places
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Device, DeviceKind, Net, NetKind, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.networks import networks

MARKS: dict[DeviceKind, str] = {
    "resistor": "R",
    "diode": "D",
    "transistor": "Q",
    "high side": "U",
    "mosfet": "Q",
    "relay": "K",
    "chip": "U",
    "capacitor": "C",
}
"""Letters of small parts (IEEE 315)."""


How = Literal["wire", "leg", "board", "bridge"]
"""wire: cut to length; leg: no wire at all, the leg of a small part is soldered to the terminal itself; board: a bridge
between small parts on one strip board; bridge: from contact to contact of a plug, on both its halves."""


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


def runs(r: Resolved) -> tuple[Wire, ...]:
    """What joins the ports of every net, from terminal to terminal, as if no plug lay between."""
    return r.once("runs of wires", lambda: tuple(_Laying(r).runs()))


def names_of(r: Resolved) -> dict[str, str]:
    """A name for each device that no other has: R1, Q1 for small parts, a function's own with its module for others."""
    return r.once("names of devices", lambda: _names(r))


def _names(r: Resolved) -> dict[str, str]:
    nets, counted, found = net_list(r), dict[str, int](), dict[str, str]()
    taken: set[str] = set()
    for device in nets.devices.values():
        letter = MARKS.get(device.kind)
        if letter:
            counted[letter] = counted.get(letter, 0) + 1
            found[device.id] = f"{letter}{counted[letter]}"
        else:
            found[device.id] = _own_name(r, device, taken)
        taken.add(found[device.id])
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
        self.r, self.nets, self.places = r, net_list(r), places(r)
        self.networks = {network.id for network in networks(r)}
        self.boards = self._boards()

    def runs(self) -> Iterator[Wire]:
        """All of them."""
        for net in self.nets.nets:
            for start, end in self._tree(net):
                yield Wire(start, end, net.id, net.kind, how=self._how(start, end))

    def _boards(self) -> dict[str, str]:
        """The board that most lines of each module end on."""
        given = {choice.line: choice.controller for choice in self.r.design.pins}
        counted: dict[str, dict[str, int]] = {}
        for line in lines(self.r):
            if line.id in given:
                of = counted.setdefault(line.module, {})
                of[given[line.id]] = of.get(given[line.id], 0) + 1
        return {module: board_id(max(of, key=lambda board: of[board])) for module, of in counted.items()}

    def _how(self, start: Port, end: Port) -> How:
        one, other = self.nets.devices[start.device], self.nets.devices[end.device]
        if bool(self.places.home(start)) != bool(self.places.home(end)):
            return "wire"  # one of them is elsewhere
        if one.kind in OUTSIDE or other.kind in OUTSIDE:
            return "wire"  # also from a relay to its load, which is elsewhere
        if one.of != other.of or not one.of or not (one.kind in MARKS or other.kind in MARKS):
            return "wire"
        if "relay" in (one.kind, other.kind) and ("part" in (one.kind, other.kind) or one is other):
            return "wire"  # a relay stands in its socket; only its diode and its transistor are soldered to it
        if "light" in (one.kind, other.kind) and self._at(start) != self._at(end):
            return "wire"  # a resistor sits at the first LED of its row, a transistor at the first strip
        return "board" if one.of in self.networks else "leg"

    def _at(self, port: Port) -> tuple[float, float]:
        return self.places.middle(port)

    def _starred(self, net: Net, module: str) -> bool:
        if net.kind == "earth":
            return True  # what is taken off must not break the earth of anything else
        made = self.r.modules[module].module
        return made.returns == "star" if net.kind == "ground" else net.kind == "supply" and made.feeds == "star"

    def _tree(self, net: Net) -> Iterator[tuple[Port, Port]]:
        """A net's ports joined two by two, one wire fewer than there are."""
        clusters: dict[tuple[str, bool], list[Port]] = {}
        outside: list[Port] = []
        for port in net.ports:
            module = self.places.home(port)
            behind = self.nets.devices[port.device].of.startswith("light.")  # it has a loom of its own
            (clusters.setdefault((module, behind), []) if module else outside).append(port)
        sources = [p for p in outside if self.nets.devices[p.device].kind == "supply"]
        firm = [p for p in outside if self.nets.devices[p.device].kind in (*OUTSIDE, *MOVED)]
        hub = next(iter(sources or firm or outside), None)
        before: Port | None = None
        for (module, _), ports in clusters.items():
            if hub is not None and self._starred(net, module):
                board = self.boards.get(module) if net.kind == "ground" else None
                yield from self._star(ports, next((p for p in outside if p.device == board), hub))
                continue
            chain = self._chain(ports)
            yield from pairwise(chain)
            at = next((p for p in outside if p.device == self.boards.get(module)), hub) if net.kind == "ground" else hub
            if at is not None:
                yield chain[-1], at
            elif before is not None:
                yield before, chain[0]
            before = chain[-1]
        relays = {p.device: p for p in outside if self.nets.devices[p.device].kind == "relay"}
        for port in outside:  # a diode across a coil is soldered to its relay, wherever that stands
            relay = relays.get(self.places.relay_apart(self.nets.devices[port.device]))
            to = hub if relay in (None, port) else relay
            if to is not None and port != hub:
                yield port, to

    def _star(self, ports: list[Port], at: Port) -> Iterator[tuple[Port, Port]]:
        """Everything on one part (or strip board) together, and from each a wire of its own to the board."""
        by_part: dict[str, list[Port]] = {}
        for port in ports:
            by_part.setdefault(self.nets.devices[port.device].of, []).append(port)
        for chain in map(self._chain, by_part.values()):
            yield from pairwise(chain)
            yield chain[-1], at

    def _chain(self, ports: list[Port]) -> list[Port]:
        """From terminal to terminal, always on to the nearest, starting at the left."""
        left = sorted(((*self._at(port), port) for port in ports), key=lambda spot: spot[:2])
        xs, ys = np.array([x for x, _, _ in left]), np.array([y for _, y, _ in left])
        at, chain = 0, [left[0][2]]
        away = np.zeros(len(left))
        for _ in left[1:]:
            away[at] = np.inf  # that one is in the chain
            at = int(np.argmin((xs - xs[at]) ** 2 + (ys - ys[at]) ** 2 + away))
            chain.append(left[at][2])
        return chain


def helpers(r: Resolved) -> tuple[Device, ...]:
    """The small parts that are soldered in, in the order of their marks."""
    return tuple(d for d in net_list(r).devices.values() if d.kind in MARKS)
