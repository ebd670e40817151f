"""How current divides over the wires, and what is lost on them. Amperes, ohms, volts.

Wires and what current passes are resistors, what takes current takes a known one: nodal analysis (Kirchhoff's laws) of
each piece that hangs together, so that a chain of parts, a star, two ways round and a common return of several supplies
all come out right. A piece that no source feeds carries nothing.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Mapping, Sequence
from functools import cached_property
from typing import NamedTuple

import numpy as np

from wingboard.core.record.controllers import board_of
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.draws import STATES, Draw, State, draws, passages
from wingboard.core.wire.wires import Wire, runs

CLOSED = 1e-4
"""Ohms of what current passes, so that only wires count; what a transistor or a diode loses is no wire's."""
SWITCHED = 0.85
"""A switched regulator passes on this share of its power (common practice), a linear one its current."""
Ohms = Callable[[Wire], float]


class Fed(NamedTuple):
    """A draw and what feeds it: the source's terminal and return, and volts lost on wires on the way there and back."""

    draw: Draw
    source: Port
    back: Port
    lost: float


class Flow(NamedTuple):
    """One state: amperes along each wire (by its id), through each passage, out of each source; and what is fed."""

    wires: dict[str, float]
    passed: dict[tuple[Port, Port], float]
    sources: dict[Port, float]
    fed: tuple[Fed, ...]


def flow(r: Resolved, state: State, ohms: Ohms | None = None) -> Flow:
    """The currents of a state.

    :param ohms: of each wire; without it all are alike: currents of a tree do not depend on them, losses then are 0.
    """
    return _Solving(r, state, ohms).flow()


def currents(r: Resolved) -> dict[str, float]:
    """The most that each wire carries in any state, by its id; wires that only signals use are left out."""
    return r.once("currents of wires", lambda: _currents(r))


def _currents(r: Resolved) -> dict[str, float]:
    most: dict[str, float] = {}
    for state in STATES:
        for wire, amps in flow(r, state).wires.items():
            most[wire] = max(most.get(wire, 0.0), amps)
    return most


class _Pieces:
    """What hangs together, by union of ends."""

    def __init__(self) -> None:
        self._up: dict[Port, Port] = {}

    def root(self, port: Port) -> Port:
        up = self._up.setdefault(port, port)
        while up != self._up[up]:
            self._up[up] = self._up[self._up[up]]
            up = self._up[up]
        return up

    def join(self, one: Port, other: Port) -> None:
        self._up[self.root(one)] = self.root(other)


class _Solving:
    def __init__(self, r: Resolved, state: State, ohms: Ohms | None) -> None:
        self.r, self.nets, self.lossy = r, net_list(r), ohms is not None
        self.wires = runs(r)
        self.passages = passages(r, state)
        self.draws = list(draws(r, state))
        self.edges = [(w.start, w.end, max(CLOSED, ohms(w)) if ohms else 1.0) for w in self.wires]
        self.edges += [(p.start, p.end, CLOSED) for p in self.passages]
        self.pieces = _Pieces()
        for one, other, _ in self.edges:
            self.pieces.join(one, other)
        self.sources = self._sources()

    def _sources(self) -> dict[Port, list[tuple[Port, Port]]]:
        """By piece the terminals that give current, each with the one that takes it back."""
        found: dict[Port, list[tuple[Port, Port]]] = defaultdict(list)
        kinds = {f"board.{c.id}": board_of(self.r.design, c.board) for c in self.r.design.controllers}
        for device in self.nets.devices.values():
            if device.kind == "supply":
                plus, minus = ("L", "N") if "L" in device.ports else ("+", "-")
                found[self.pieces.root(Port(device.id, plus))].append((Port(device.id, plus), Port(device.id, minus)))
            elif device.kind == "controller":
                rails = kinds[device.id].rails
                for terminal in sorted(device.ports, key=lambda t: t not in rails):
                    if terminal != "GND":
                        port = Port(device.id, terminal)
                        found[self.pieces.root(port)].append((port, Port(device.id, "GND")))
        return found

    def flow(self) -> Flow:
        """Regulators take from the supplies before them what they give: their draws are added, the last one first."""
        found = self._solved()
        for supply in _regulators(self.r):
            given = found.sources.get(Port(f"supply.{supply.id}", "+"), 0.0)
            before = next(s for s in self.r.design.workshop.supplies if s.id == supply.made_from)
            takes = given if supply.linear else given * supply.volts / (SWITCHED * before.volts)
            if takes > 0 and f"supply.{supply.id}" in self.nets.devices:
                ends = Port(f"supply.{supply.id}", "IN"), Port(f"supply.{supply.id}", "-")
                self.draws.append(Draw(takes, *ends, "part", ""))
                found = self._solved()
        return found

    def _solved(self) -> Flow:
        into: dict[Port, dict[Port, float]] = defaultdict(lambda: defaultdict(float))
        given: dict[Port, float] = defaultdict(float)
        fed: list[tuple[Draw, Port, Port]] = []
        for draw in self.draws:
            high, low = self.pieces.root(draw.into), self.pieces.root(draw.out)
            ends = next(((s, b) for s, b in self.sources.get(high, ()) if self.pieces.root(b) == low), None)
            if ends is None or high == low:
                ends = next(((s, b) for s, b in self.sources.get(high, ()) if self._same_board(s, low)), None)
            if ends is None:
                continue  # its circuit is open
            source, back = ends
            fed.append((draw, source, back))
            given[source] += draw.amps
            for piece, port, amps in ((high, source, draw.amps), (high, draw.into, -draw.amps),
                                      (low, draw.out, draw.amps), (low, back, -draw.amps)):  # fmt: skip
                into[piece][port] += amps
        levels: dict[Port, float] = {}
        for piece, at in into.items():
            levels |= self._levels(piece, at)
        wires, passed = {}, {}
        for wire, (one, other, r) in zip(self.wires, self.edges, strict=False):
            if one in levels:
                wires[wire.id] = abs(levels[one] - levels[other]) / r
        for through in self.passages:
            if through.start in levels:
                passed[through.start, through.end] = abs(levels[through.start] - levels[through.end]) / CLOSED
        return Flow(wires, passed, dict(given), tuple(self._fed(levels, *f) for f in fed))

    def _same_board(self, source: Port, low: Port) -> bool:
        """Whether current that left a pin comes back by another pin of the same board, as a coil's does."""
        return any(s.device == source.device for s, _ in self.sources.get(low, ()))

    def _fed(self, levels: dict[Port, float], draw: Draw, source: Port, back: Port) -> Fed:
        there = levels.get(source, 0.0) - levels.get(draw.into, 0.0)
        again = levels.get(draw.out, 0.0) - levels.get(back, 0.0)
        return Fed(draw, source, back, max(0.0, there + again) if self.lossy else 0.0)

    def _levels(self, piece: Port, into: dict[Port, float]) -> dict[Port, float]:
        """Volts of every terminal of a piece above one of them."""
        return levels(self.by_piece[piece], into)

    @cached_property
    def by_piece(self) -> dict[Port, list[tuple[Port, Port, float]]]:
        """The edges of each piece."""
        found: dict[Port, list[tuple[Port, Port, float]]] = defaultdict(list)
        for edge in self.edges:
            found[self.pieces.root(edge[0])].append(edge)
        return found


def _regulators(r: Resolved) -> list[Supply]:
    """The supplies that are made from others, those furthest from the mains first."""
    source = {s.id: s.made_from for s in r.design.workshop.supplies}

    def depth(ident: str | None) -> int:
        return 0 if ident is None else 1 + depth(source[ident])

    made = [s for s in r.design.workshop.supplies if s.made_from is not None]
    return sorted(made, key=lambda s: -depth(s.id))


Edge = tuple[Port, Port, float]


def levels(edges: Sequence[Edge], into: Mapping[Port, float]) -> dict[Port, float]:
    """Volts of every node of a network of resistors that hangs together, above one of its nodes.

    Ends of which a single resistor goes on are worked off first, one after the other: what comes in there goes along
    it. What is left, loops, is solved as a whole; most nets have none.

    :param edges: two nodes and the ohms between. :param into: amperes that come in at nodes; their sum is nothing.
    """
    beside: dict[Port, dict[int, Port]] = {}
    for n, (a, b, _) in enumerate(edges):
        beside.setdefault(a, {})[n] = b
        beside.setdefault(b, {})[n] = a
    amps = {port: into.get(port, 0.0) for port in beside}
    ends = [port for port, near in beside.items() if len(near) == 1]
    worked: list[tuple[Port, Port, float]] = []
    while ends:
        end = ends.pop()
        if len(beside[end]) != 1:
            continue  # it was the other end of the last one
        [(n, other)] = beside.pop(end).items()
        del beside[other][n]
        worked.append((end, other, amps[end] * edges[n][2]))
        amps[other] += amps[end]
        if len(beside[other]) == 1:
            ends.append(other)
    found = _loops(edges, beside, amps)
    for end, other, volts in reversed(worked):
        found[end] = found[other] + volts
    return found


def _loops(
    edges: Sequence[Edge], left: Mapping[Port, dict[int, Port]], amps: Mapping[Port, float]
) -> dict[Port, float]:
    """What no end is worked off of, solved as a whole: the first of them is at 0 V."""
    ports = {port: n for n, port in enumerate(left)}
    if len(ports) < 2:
        return dict.fromkeys(ports, 0.0)
    matrix = np.zeros((len(ports), len(ports)))
    for n in {n for near in left.values() for n in near}:
        i, j, g = ports[edges[n][0]], ports[edges[n][1]], 1 / edges[n][2]
        matrix[i, i] += g
        matrix[j, j] += g
        matrix[i, j] -= g
        matrix[j, i] -= g
    volts = np.linalg.solve(matrix[1:, 1:], np.array([amps[port] for port in ports][1:]))
    return {port: float(volts[n - 1]) if n else 0.0 for port, n in ports.items()}
