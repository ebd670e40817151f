"""Every wire as it is cut: number, colour, cross-section, length, what it carries, how it is fixed, its labels.

A wire takes the thinnest cross-section that carries its current in a bundle, outlasts the fuse before it, loses no more
than its share of the volts, and is no thinner than the design's, nor than what it feeds. Lengths in mm, cross-sections
in mm², currents in A.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.parts.tags import TagKind, lies, tags
from wingboard.core.record.harness import WireColour
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import groups
from wingboard.core.wire.harness.apart import dangerous_net
from wingboard.core.wire.harness.colours import colour_of, free_colour, pair_colours, reserved_colours
from wingboard.core.wire.harness.gauge import awg, carrying, gauge_for, ohms
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import Plug, plug_of, plugs
from wingboard.core.wire.harness.routes import Route, cut_length, route
from wingboard.core.wire.harness.stock import Assigned, Given, Wanted, assigned
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.flow import Fed, Flow, currents, flow
from wingboard.core.wire.power.paths import from_sources
from wingboard.core.wire.power.protection import protected
from wingboard.core.wire.wires import Wire, names_of, runs


class Laid(NamedTuple):
    """A wire as it is cut. ``number`` is its group's and its own, as on the sheet; ``stripe``: the second colour of one
    of 25 pairs; ``said``: whether both its ends are where the record says, else its length is a guess; ``given``: the
    piece of wire on hand that it is cut from, none where it is to be bought."""

    wire: Wire
    number: str
    colour: WireColour
    stripe: WireColour | None
    area: float
    length: float
    amps: float
    said: bool
    given: Given | None = None

    @property
    def awg(self) -> int:
        """The American gauge nearest to its cross-section."""
        return awg(self.area)


def laid(r: Resolved) -> tuple[Laid, ...]:
    """All wires in the order of the work; legs, bridges and what is on a strip board have no length."""
    return r.once("laid wires", lambda: _from_stock(r, tuple(_Cutting(r).laid())))


def _from_stock(r: Resolved, pieces: tuple[Laid, ...]) -> tuple[Laid, ...]:
    """The wires with what each is cut from, in that colour and as thick as that is."""
    found = on_hand(r, pieces).given
    if not found:
        return pieces
    return tuple(
        p._replace(given=g, colour=g.colour, area=g.area) if (g := found.get(p.wire.id)) else p for p in pieces
    )


def on_hand(r: Resolved, pieces: tuple[Laid, ...]) -> Assigned:
    """What wire on hand is used for; wires of a cable of pairs are never cut from it."""
    nets = net_list(r)
    wanted = [
        Wanted(p.wire.id, p.colour, free_colour(r, nets.by_id[p.wire.net]), p.area, p.length)
        for p in pieces
        if p.wire.how == "wire" and p.stripe is None
    ]
    return assigned(wanted, r.design.workshop.wires, reserved_colours(r))


def way_of(r: Resolved, wire: Wire) -> Route:
    """The route of a run of wire, whole, as if no plug lay between."""
    known: dict[str, Route] = r.once("routes", dict)
    if wire.id not in known:
        known[wire.id] = route(r, wire)
    return known[wire.id]


def areas(r: Resolved) -> dict[str, float]:
    """The cross-section of every run of wire, by its id."""
    return r.once("areas of wires", lambda: _areas(r))


def _areas(r: Resolved) -> dict[str, float]:
    """By current and fuse; then no wire is thinner than what it feeds, and none is thinner than its voltage asks."""
    h, amps, fuses = r.design.harness, currents(r), protected(r).fuses()
    found = {}
    for wire in runs(r):
        if h.power_area is not None and wire.kind != "signal":
            found[wire.id] = max(h.area, h.power_area)
        elif wire.id in amps or wire.id in fuses or wire.kind != "signal":
            found[wire.id] = _for(r, wire, amps.get(wire.id, 0.0), fuses.get(wire.id, 0.0))
        else:
            found[wire.id] = gauge_for(h.area).area
        if dangerous_net(r, net_list(r).by_id[wire.net]):
            found[wire.id] = gauge_for(max(found[wire.id], limit(r.design, "mains-area"))).area
    found = _monotone(r, found) if h.power_area is None else found
    live = [found[w.id] for w in runs(r) if dangerous_net(r, net_list(r).by_id[w.net])]
    return found | {w.id: max(live) for w in runs(r) if w.kind == "earth" and live}


def _monotone(r: Resolved, areas: dict[str, float]) -> dict[str, float]:
    """No wire of a supply is thinner than one that it feeds, no return thinner than one that it takes back."""
    amps, found = currents(r), dict(areas)
    for way in from_sources(r):
        for wire, before in way:
            if before is not None and wire in amps and amps.get(before, -1.0) >= amps[wire] - 1e-9:
                found[before] = max(found[before], found[wire])
    return found


def _for(r: Resolved, wire: Wire, amps: float, fuse: float) -> float:
    """By current, by the fuse before it, and by what it alone may lose of the volts."""
    area = max(r.design.harness.area, carrying(max(amps, fuse)).area)
    volts = _volts(r, wire)
    if volts and amps:
        length = sum(way_of(r, wire).inside.values()) + way_of(r, wire).outside
        most = limit(r.design, "drop-most") / 100 * volts / 2  # there and back
        while ohms(length, area) * amps > most and gauge_for(area * 1.01).area > area:
            area = gauge_for(area * 1.01).area
    return gauge_for(area).area


def _volts(r: Resolved, wire: Wire) -> float:
    """Volts of the supply that a wire belongs to; 0 where that is not one of a supply."""
    head = wire.net.partition(" V")[0].removeprefix("return of ")
    try:
        return float(head) if wire.kind == "supply" else 0.0
    except ValueError:
        return 0.0


def losses(r: Resolved) -> tuple[Fed, ...]:
    """What is fed with everything on, with the volts lost on the wires there and back as they are laid."""
    return lossy(r).fed


def lossy(r: Resolved) -> Flow:
    """Currents and losses with everything on, the wires as long and thick as they are laid."""

    def resistance(wire: Wire) -> float:
        way = way_of(r, wire)
        return ohms(sum(way.inside.values()) + way.outside, areas(r)[wire.id])

    return r.once("losses", lambda: flow(r, "all", resistance))


class _Cutting:
    def __init__(self, r: Resolved) -> None:
        self.r, self.nets = r, net_list(r)
        self.places = places(r)
        self.areas, self.currents = areas(r), currents(r)
        self.runs = self._of_pieces()
        self.figures = {net.id: n for n, net in enumerate(n for n in self.nets.nets if n.kind == "signal")}

    def _of_pieces(self) -> dict[str, Wire]:
        """By the two ends of a piece that ends on a plug the run that it is of."""
        found = {}
        for plug in plugs(self.r):
            for contact, wire in plug.on.items():
                found[f"{plug.id}:{contact}"] = wire
        return found

    def run(self, wire: Wire) -> Wire:
        """The run that a wire, or a piece of one, is of."""
        for port in (wire.start, wire.end):
            found = self.runs.get(f"{port.device}:{port.terminal}")
            if found:
                return found
        return wire

    def laid(self) -> Iterator[Laid]:
        for n, group in enumerate(groups(self.r), 1):
            for k, wire in enumerate(group.wires, 1):
                yield self._laid(wire, f"{n}.{k}")

    def _laid(self, wire: Wire, number: str) -> Laid:
        run = self.run(wire)
        way = way_of(self.r, run)
        colour, stripe = self._colour(wire)
        length = cut_length(self.r, self._length(wire, way)) if wire.how == "wire" else 0.0
        amps = self.currents.get(run.id, 0.0)
        said = way.said or self._ends_at_exit(wire)
        return Laid(wire, number, colour, stripe, self.areas[run.id], length, amps, said)

    def _ends_at_exit(self, wire: Wire) -> bool:
        """Whether a piece runs between a module's terminal and its plug: wherever what goes on from there may stand."""
        ends = wire.start, wire.end
        homes = [plug.module if (plug := plug_of(self.r, p.device)) else self.places.home(p) for p in ends]
        return bool(homes[0]) and homes[0] == homes[1]

    def _length(self, wire: Wire, way: Route) -> float:
        """Of a run that goes through plugs: up to the exit of a module, from there on, or both where there is none."""
        ends = [plug_of(self.r, p.device) for p in (wire.start, wire.end)]
        here = [plug for plug in ends if plug]
        if not here:
            return sum(way.inside.values()) + way.outside
        if len(here) == 2:
            return way.outside
        [plug] = here
        homes = {m for m in way.inside if m not in {p.module for p in self._plugs(wire)}}
        other = wire.end if wire.start.device == plug.id else wire.start
        if self.places.home(other) == plug.module:
            return way.inside.get(plug.module, 0.0)
        return way.outside + sum(way.inside[m] for m in homes)

    def _plugs(self, wire: Wire) -> list[Plug]:
        run = self.run(wire)
        return [plug for plug in plugs(self.r) if run in plug.on.values()]

    def _colour(self, wire: Wire) -> tuple[WireColour, WireColour | None]:
        """By its pair where it goes on from a punch block, else by rule."""
        for port in (wire.start, wire.end):
            plug = plug_of(self.r, port.device)
            if plug and plug.kind == "punch" and wire.start == port:
                return pair_colours(int(port.terminal))
        net = self.nets.by_id[wire.net]
        return colour_of(self.r, net, self.figures.get(net.id, 0)), None


def where(r: Resolved, port: Port) -> str:
    """Where a terminal lies on its part, seen from behind, in words; nothing where it is no part's."""
    f, device = r.functions.get(port.device), net_list(r).devices.get(port.device)
    part = r.parts.get(f.part) if f and f.part else None
    if f is None or part is None or device is None or f.place is None:
        return ""
    return lies(tags(part, device.ports), f.place.turn, port.terminal)


def fixed(r: Resolved, port: Port) -> TagKind:
    """How a wire is fixed to a terminal."""
    plug = plug_of(r, port.device)
    if plug:
        return "screw" if plug.kind == "strip" else "solder"
    device = net_list(r).devices.get(port.device)
    f = r.functions.get(port.device)
    part = r.parts.get(f.part) if f and f.part else None
    if part is not None and device is not None:
        return tags(part, device.ports).kind
    if device is not None and device.kind in ("supply", "load", "relay", "earth"):
        return "screw"
    return "header" if device is not None and device.kind == "controller" else "solder"


def name_of(r: Resolved, device: str) -> str:
    """The name of a device or of a plug."""
    plug = plug_of(r, device)
    return plug.name if plug else names_of(r)[device]


def labels(r: Resolved, wire: Laid) -> tuple[str, str]:
    """What is on the sleeve at its two ends: its number, and where it goes from there."""
    start, end = wire.wire.start, wire.wire.end
    return (
        f"{wire.number} > {name_of(r, end.device)} {end.terminal}",
        f"{wire.number} > {name_of(r, start.device)} {start.terminal}",
    )
