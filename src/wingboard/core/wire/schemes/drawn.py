"""Networks, ladders and coded selectors as they are shown: who is where in each."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import GROUND, NetList, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.binary import bits
from wingboard.core.wire.schemes.chips import ADDRESS, CHIPS
from wingboard.core.wire.schemes.coder import numbers
from wingboard.core.wire.schemes.digits import Shown, shown
from wingboard.core.wire.schemes.ladder import Ladder, ladder
from wingboard.core.wire.schemes.networks import Network, NetworkKind, networks
from wingboard.core.wire.schemes.shift import chip_id, places
from wingboard.core.wire.signals import SELECTOR, Signal, signals
from wingboard.core.wire.wires import names_of, runs


class Spot(NamedTuple):
    """A terminal that is read or driven: its function, that function's name, and which of its terminals."""

    function: str
    name: str
    terminal: str


class ChipPin(NamedTuple):
    """A pin of a chip: its number and name, and what it is joined to in words (empty: to nothing)."""

    number: int
    name: str
    to: str
    function: str


class DrawnChip(NamedTuple):
    """A chip by its mark, its pins in their order; ``address`` on its bus, empty where it has none."""

    mark: str
    name: str
    address: str
    pins: tuple[ChipPin, ...]


class DrawnLine(NamedTuple):
    """A line of a network, and the pin that it ends on (empty: none yet)."""

    name: str
    at: str


class DrawnNetwork(NamedTuple):
    """A network: rows of a matrix, or chips; ``lines`` its own, each with where it ends."""

    id: str
    kind: NetworkKind
    name: str
    module: str
    lines: tuple[DrawnLine, ...]
    rows: tuple[tuple[Spot, ...], ...]
    chips: tuple[DrawnChip, ...]
    chain: tuple[Shown, ...] = ()


class DrawnSelector(NamedTuple):
    """A selector that is read as one: over a ladder, or in so many bits; the words of its positions."""

    function: str
    name: str
    module: str
    words: tuple[str, ...]
    step: float
    steady: bool
    ladder: Ladder | None
    bits: int
    numbers: tuple[int, ...] = ()
    """By which a computer knows each position, where an input coder of a card tells them."""


def drawn_networks(r: Resolved) -> tuple[DrawnNetwork, ...]:
    """All networks of a design."""
    nets, marks = net_list(r), names_of(r)
    return tuple(_drawn(r, nets, marks, network) for network in networks(r))


def _drawn(r: Resolved, nets: NetList, marks: dict[str, str], network: Network) -> DrawnNetwork:
    names = {c.id: c.name for c in r.design.controllers}
    given = {p.line: f"{names[p.controller]}, pin {p.pin}" for p in r.design.pins}
    lines = tuple(DrawnLine(line.terminal, given.get(line.id, "")) for line in network.lines)
    if network.kind in ("digits", "pixels"):
        return DrawnNetwork(network.id, network.kind, network.name, network.module, lines, (), (), shown(network))
    if network.kind not in CHIPS:
        rows = tuple(tuple(map(_spot, row)) for row in network.grid.rows)
        return DrawnNetwork(network.id, network.kind, network.name, network.module, lines, rows, ())
    return DrawnNetwork(network.id, network.kind, network.name, network.module, lines, (),
                        tuple(_chips(nets, marks, network)))  # fmt: skip


def _spot(signal: Signal) -> Spot:
    return Spot(signal.line.function, signal.line.name, signal.line.terminal)


def _chips(nets: NetList, marks: dict[str, str], network: Network) -> list[DrawnChip]:
    kind = CHIPS[network.kind]
    by_place = {at: s for s in network.signals if (at := places(network, kind)[s.id])}
    own = {line.id: line.terminal for line in network.lines}
    found = []
    for n in range(1, max(k for k, _ in by_place) + 1):
        device = chip_id(network, n)
        pins = []
        for number, name in enumerate(kind.pins, 1):
            signal = by_place.get((n, f"{number} {name}"))
            to = (
                f"{signal.line.name}, {signal.line.terminal}" if signal else _to(nets, marks, own, device, number, name)
            )
            pins.append(ChipPin(number, name, to, signal.line.function if signal else ""))
        found.append(DrawnChip(marks[device], kind.name, _address(nets, device, kind.pins), tuple(pins)))
    return found


def _to(nets: NetList, marks: dict[str, str], own: dict[str, str], device: str, number: int, name: str) -> str:
    """What a chip's pin is joined to that carries no terminal of a part."""
    net = nets.by_port.get(Port(device, f"{number} {name}"))
    if net is None:
        return ""
    if net.id in own:
        return own[net.id]
    if net.kind != "signal":
        return "GND" if net.id == GROUND else net.id.split(" of ")[0]
    other = next((p for p in net.ports if p.device != device and nets.devices[p.device].kind == "chip"), None)
    if other is not None and "-chain-" in net.id:
        return f"{marks[other.device]}, {other.terminal}"
    return net.id.split(" ")[0].upper() if " of " in net.id else net.id


def _address(nets: NetList, device: str, pins: tuple[str, ...]) -> str:
    if "A0" not in pins:
        return ""
    up = (nets.by_port[Port(device, f"{pins.index(f'A{bit}') + 1} A{bit}")].kind == "supply" for bit in range(3))
    return f"0x{ADDRESS + sum(on << bit for bit, on in enumerate(up)):02x}"


class Returns(NamedTuple):
    """How the grounds of a module are wired, and the wires on ground there."""

    module: str
    name: str
    returns: str
    wires: int


def returns_of(r: Resolved) -> tuple[Returns, ...]:
    """Of every module that has something on ground."""
    devices, counted = net_list(r).devices, Counter[str]()
    for wire in runs(r):
        if wire.net == GROUND and wire.how == "wire":
            module = next((m for p in (wire.start, wire.end) if (m := devices[p.device].module)), "")
            counted[module] += 1
    modules = (m.module for m in r.modules.values())
    return tuple(Returns(m.id, m.name, m.returns, counted[m.id]) for m in modules if counted[m.id])


def drawn_selectors(r: Resolved) -> tuple[DrawnSelector, ...]:
    """Every selector that is read over a ladder, in binary or by an input coder."""
    by_line: dict[tuple[str, str], list[Signal]] = {}
    for s in signals(r):
        if s.by in SELECTOR:
            by_line.setdefault((s.line.function, s.told.id), []).append(s)
    tolerance = limit(r.design, "resistor-tolerance") / 100
    found = []
    for mine in by_line.values():
        f = mine[0].placed.function
        words = tuple(f.positions) or tuple(str(s.way) for s in mine)
        by = mine[0].by
        volts = ladder(len(mine), f.step, tolerance, f.steady) if by == "ladder" else None
        known = _numbers(r, f"{f.id}.{mine[0].told.id}-coder") if by == "coder" else range(0)
        found.append(DrawnSelector(f.id, f.name, mine[0].line.module, words, f.step, f.steady, volts,
                                   bits(len(mine)) if by == "binary" else 0,
                                   tuple(known[s.way - 1] for s in mine) if known else ()))  # fmt: skip
    return tuple(found)


def _numbers(r: Resolved, line: str) -> range:
    """By which a computer knows what is on the port that a line has; none without a port."""
    given = next((p for p in r.design.pins if p.line == line), None)
    if given is None:
        return range(0)
    kind = next(c.board for c in r.design.controllers if c.id == given.controller)
    return numbers(board_of(r.design, kind), given.pin)
