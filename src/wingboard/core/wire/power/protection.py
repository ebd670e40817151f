"""The fuse or breaker that protects each wire, followed through every contact, relay, stop and load. Amperes.

A fuse counts for every conductor after it until the next smaller one. What limits the current itself, such as a
resistor or a lamp, ends that: the current of a short behind it is limited too.
"""

from __future__ import annotations

import heapq
import math
from collections.abc import Iterator, Mapping
from typing import NamedTuple

from wingboard.core.brief.wanted import duty_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import NetList, Port, supply_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.draws import LIMITS_CURRENT, passages
from wingboard.core.wire.power.paths import way_between
from wingboard.core.wire.terminals import said
from wingboard.core.wire.wires import Wire, runs


class Behind(NamedTuple):
    """What protects a net: amperes of the smallest fuse on the way from a source (infinite: none), and that source."""

    amps: float
    source: str


class Protected(NamedTuple):
    """By its id each wire, and each net, that a short can burn: the rating before it (infinite: none).

    ``wires`` holds those that some source reaches; others carry signals only.
    """

    wires: Mapping[str, Behind]
    nets: Mapping[str, Behind]

    def fuses(self) -> dict[str, float]:
        """The rating before each wire that has one."""
        return {wire: b.amps for wire, b in self.wires.items() if math.isfinite(b.amps)}

    def bare(self, source: str) -> set[str]:
        """The wires on which a supply (its device) acts with no fuse between."""
        return {wire for wire, b in self.wires.items() if b.source == source and not math.isfinite(b.amps)}


def protected(r: Resolved) -> Protected:
    """What protects every wire of a design."""
    return r.once("protected wires", lambda: _Following(r).protected())


def rated_parts(r: Resolved) -> dict[str, float]:
    """Amperes of each fuse and breaker that is placed, by its function."""
    return {p.function.id: p.part.rating.amps for p in r.placed
            if p.part.rating and duty_of(p.function, p.part) == "protection"}  # fmt: skip


class _Following:
    """From the sources through all that passes current; where several ways lead to a net, the largest fuse counts."""

    def __init__(self, r: Resolved) -> None:
        self.r, self.nets = r, net_list(r)
        self.edges = _edges(r, self.nets)
        self.wires: dict[str, list[Wire]] = {}
        for wire in runs(r):
            self.wires.setdefault(wire.net, []).append(wire)

    def protected(self) -> Protected:
        behind = self._nets()
        found: dict[str, Behind] = {}
        for net, what in behind.items():
            for wire in self.wires.get(net, ()):
                found[wire.id] = what
        for port, what in self._returning(behind):
            for wire in self._way_back(port, what.source):
                if wire.id not in found or found[wire.id].amps < what.amps:
                    found[wire.id] = what
        return Protected(found, behind)

    def _nets(self) -> dict[str, Behind]:
        """The protection of every net that a source reaches before its return, the widest way first."""
        fuses = {supply_id(s.id): s.fuse for s in self.r.design.workshop.supplies if s.fuse}
        heap: list[tuple[float, str, str]] = []
        for device in self.nets.devices.values():
            plus = Port(device.id, "L" if "L" in device.ports else "+")
            if device.kind == "supply" and plus in self.nets.by_port:
                heapq.heappush(heap, (-fuses.get(device.id, math.inf), self.nets.by_port[plus].id, device.id))
        found: dict[str, Behind] = {}
        while heap:
            amps, net, source = heapq.heappop(heap)
            if net in found:
                continue
            found[net] = Behind(-amps, source)
            for rating, other in self.edges.get(net, ()):
                if other.net not in found and not self._is_return(other.net):
                    heapq.heappush(heap, (max(amps, -rating), other.net, source))
        return found

    def _returning(self, behind: Mapping[str, Behind]) -> Iterator[tuple[Port, Behind]]:
        """The terminals on a return by which current comes back that no resistance limits."""
        for net, what in behind.items():
            for rating, other in self.edges.get(net, ()):
                if self._is_return(other.net):
                    yield other.port, Behind(min(what.amps, rating), what.source)

    def _is_return(self, net: str) -> bool:
        return self.nets.by_id[net].kind == "ground" or net.startswith("return of ")

    def _way_back(self, port: Port, source: str) -> list[Wire]:
        """The wires of a return from a terminal to the source."""
        net = self.nets.by_port[port]
        ends = [p for p in net.ports if p.device == source]
        wires = self.wires.get(net.id, [])
        return way_between(wires, port, ends[0]) if ends else []


class _End(NamedTuple):
    """Where an edge leads: the net, and the terminal on it."""

    net: str
    port: Port


def _edges(r: Resolved, nets: NetList) -> dict[str, list[tuple[float, _End]]]:
    """By net what current passes on to other nets, with the rating of what it passes (infinite: no protection)."""
    found: dict[str, list[tuple[float, _End]]] = {}
    rated = rated_parts(r)

    def lead(start: Port, end: Port, rating: float) -> None:
        one, other = nets.by_port.get(start), nets.by_port.get(end)
        if one is not None and other is not None and one.id != other.id:
            found.setdefault(one.id, []).append((rating, _End(other.id, end)))

    for through in passages(r, "all"):
        kind = nets.devices[through.device].kind
        if kind in LIMITS_CURRENT:
            continue
        rating = rated.get(through.device, math.inf) if through.protects else math.inf
        lead(through.start, through.end, rating)
        if kind in ("part", "relay"):  # a contact passes current both ways
            lead(through.end, through.start, rating)
    for start, end in _through_loads(r, nets):
        lead(start, end, math.inf)
    return found


def _through_loads(r: Resolved, nets: NetList) -> Iterator[tuple[Port, Port]]:
    """From the feeding to the returning terminal of what may fail short: loads, light strips, parts that are fed."""
    for device in nets.devices.values():
        if device.kind == "load":
            yield Port(device.id, "1"), Port(device.id, "2")
        elif device.kind == "light" and "+" in device.ports:
            yield Port(device.id, "+"), Port(device.id, "-")
    for p in r.placed:
        feed = said(p.part).feed
        if feed is not None and feed.plus and feed.minus:
            yield Port(p.function.id, feed.plus[0]), Port(p.function.id, feed.minus[0])
