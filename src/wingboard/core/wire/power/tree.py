"""Power as a tree: from the mains, the battery or the USB port down to every load, with what each branch draws.

Amperes by state. What is alike on one module is one leaf: “12 lamps”.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.brief.wanted import duty_of
from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import board_of
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.drawn import SPARE, from_usb
from wingboard.core.wire.netlist import Net, Port, board_id, supply_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.draws import COLD, STATES, Draw, State, draws, passages
from wingboard.core.wire.power.flow import SWITCHED, Flow, flow
from wingboard.core.wire.stops import STOP_RELAY
from wingboard.core.wire.wires import names_of

NodeKind = Literal[
    "usb",
    "board",
    "supply",
    "regulator",
    "stop",
    "fuse",
    "breaker",
    "switch",
    "load",
    "lamps",
    "light",
    "parts",
    "coil",
]
ROOM_FOR_LAMPS: dict[str, tuple[str, str]] = {
    "lamp": ("lamp", "lamps"), "part": ("part", "parts"), "coil": ("coil", "coils"),
    "base": ("transistor", "transistors"),
}  # fmt: skip


class Node(NamedTuple):
    """A place in the tree. ``amps``: by state; ``most``: what it gives, or lets through, at most (0: not known).

    ``inrush``: amperes in the moment when everything comes on, cold bulbs counted; ``function``: whose it is.
    """

    id: str
    kind: NodeKind
    name: str
    volts: float
    function: str
    amps: dict[State, float]
    most: float
    inrush: float
    children: tuple[Node, ...] = ()

    @property
    def full(self) -> float:
        """Amperes in the state that takes the most."""
        return max(self.amps.values(), default=0.0)


def power_tree(r: Resolved) -> tuple[Node, ...]:
    """A tree for each supply that stands by itself, and one for what hangs on USB."""
    return r.once("power tree", lambda: tuple(_Growing(r).roots()))


def every_node(nodes: tuple[Node, ...]) -> Iterator[Node]:
    """All nodes, each before what hangs on it."""
    for node in nodes:
        yield node
        yield from every_node(node.children)


class _Growing:
    def __init__(self, r: Resolved) -> None:
        self.r, self.nets, self.names = r, net_list(r), names_of(r)
        self.flows: dict[State, Flow] = {state: flow(r, state) for state in STATES}
        self.amps: dict[State, dict[Port, float]] = {}
        for state, found in self.flows.items():
            self.amps[state] = {}
            for fed in found.fed:
                self.amps[state][fed.draw.into] = self.amps[state].get(fed.draw.into, 0.0) + fed.draw.amps
        self.draws: dict[Port, Draw] = {d.into: d for state in STATES for d in draws(r, state)}
        self.through: dict[Port, list[tuple[str, Port]]] = {}
        for state in ("loads", "lamps"):
            for p in passages(r, state):
                ways = self.through.setdefault(p.start, [])
                if (p.device, p.end) not in ways:
                    ways.append((p.device, p.end))
        self.seen: set[Port] = set()

    def roots(self) -> Iterator[Node]:
        for supply in self.r.design.workshop.supplies:
            if supply.made_from is None and supply_id(supply.id) in self.nets.devices:
                yield self._supply(supply, "supply")
        there = {supply_id(s.id) for s in self.r.design.workshop.supplies}
        for device in self.nets.devices.values():  # those that the panel needs and nobody has
            if device.kind == "supply" and device.id not in there:
                plus = Port(device.id, "L" if "L" in device.ports else "+")
                yield self._node(device.id, "supply", device.name, device.value, "", 0.0, self._on(plus, device.value))
        boards = tuple(self._board(c.id, c.name, c.board) for c in self.r.design.controllers)
        if boards:
            usb = self.r.design.usb
            most = limit(self.r.design, "usb-supply") * usb.ports
            yield self._node("usb", "usb", "USB ports of the computer", 5.0, "", most, boards)

    def _supply(self, supply: Supply, kind: NodeKind) -> Node:
        ident = supply_id(supply.id)
        below = self._on(Port(ident, "+"), supply.volts)
        if supply.fuse:
            name = f"fuse {supply.fuse:g} A"
            below = (self._node(f"{ident}.fuse", "fuse", name, supply.volts, "", supply.fuse, below),)
        return self._node(ident, kind, supply.name, supply.volts, "", supply.amps * supply.count, below)

    def _board(self, ident: str, name: str, kind: str) -> Node:
        board, device = board_of(self.r.design, kind), board_id(ident)
        below: list[Node] = []
        for terminal, volts in board.rails.items():
            below += self._on(Port(device, terminal), volts)
        pins = [port for port in self._pins(device) if port not in self.seen]
        leaves = [d for port in pins for d in self._reached(port)]
        below += self._leaves(device, board.volts, leaves)
        node = self._node(device, "board", name, board.volts, "", limit(self.r.design, "usb-supply"), tuple(below))
        own = from_usb(self.r, ident).board
        return node._replace(amps={s: a + own for s, a in node.amps.items()}, inrush=node.inrush + own)

    def _pins(self, device: str) -> list[Port]:
        rails = {"GND", *(t for c in self.r.design.controllers if board_id(c.id) == device
                          for t in board_of(self.r.design, c.board).rails)}  # fmt: skip
        return [Port(device, t) for t in self.nets.devices[device].ports if t not in rails]

    def _on(self, source: Port, volts: float) -> tuple[Node, ...]:
        """What hangs on a net that a terminal feeds."""
        net = self.nets.by_port.get(source)
        if net is None:
            return ()
        nodes: list[Node] = []
        leaves: list[Draw] = []
        for port in net.ports:
            if port == source or port in self.seen:
                continue
            self.seen.add(port)
            named = self._named(port, net, volts)
            if named is not None:
                nodes.append(named)
            else:
                leaves += self._reached(port)
        return (*nodes, *self._leaves(net.id, volts, leaves))

    def _named(self, port: Port, net: Net, volts: float) -> Node | None:
        """A breaker, a switch, a regulator or a load: what has a place of its own in the tree."""
        device = self.nets.devices[port.device]
        if device.kind == "supply" and port.terminal == "IN":
            made = next(s for s in self.r.design.workshop.supplies if supply_id(s.id) == device.id)
            return self._supply(made, "regulator")
        f = self.r.functions.get(device.id)
        ends = [end for ident, end in self.through.get(port, ()) if device.kind == "relay" or (f and ident == f.id)]
        if ends:
            part = self.r.parts.get(f.part) if f and f.part else None
            guards = f is not None and duty_of(f, part) == "protection"
            stops = (f is not None and f.stop_role in ("power", "real")) or device.id.endswith(STOP_RELAY)
            kind: NodeKind = "breaker" if guards else "stop" if stops else "switch"
            most = part.rating.amps if part and part.rating else 0.0
            below = tuple(node for end in ends for node in self._on(end, volts))
            ident = f"{device.id}:{ends[0].terminal}"
            return self._node(ident, kind, self.names[device.id], volts, device.of, most, below)
        if device.kind == "load":
            return self._leaf(device.id, "load", device.name, volts, device.of, [self.draws[port]] if port in self.draws
                              else [])  # fmt: skip
        return None

    def _reached(self, port: Port) -> list[Draw]:
        """What takes current behind a terminal, past resistors, diodes and transistors."""
        found = [self.draws[port]] if port in self.draws else []
        for device, end in self.through.get(port, ()):
            if self.nets.devices[device].kind == "part" or end in self.seen:
                continue
            self.seen.add(end)
            net = self.nets.by_port.get(end)
            for other in net.ports if net else ():
                if other != end and other not in self.seen:
                    self.seen.add(other)
                    found += self._reached(other)
        if self.nets.devices[port.device].kind == "controller":
            net = self.nets.by_port.get(port)
            for other in net.ports if net else ():
                if other != port and other not in self.seen:
                    self.seen.add(other)
                    found += self._reached(other)
        return found

    def _leaves(self, under: str, volts: float, leaves: list[Draw]) -> tuple[Node, ...]:
        """Lamps, parts and coils by what they are and by module; one by itself has its own name."""
        by: dict[tuple[str, str], list[Draw]] = {}
        for draw in leaves:
            f = self.r.functions.get(draw.of)
            module = f.place.module if f and f.place else draw.of if draw.what == "light" else ""
            by.setdefault((draw.what, module), []).append(draw)
        made = []
        for (what, module), some in by.items():
            kinds: dict[str, NodeKind] = {"lamp": "lamps", "part": "parts", "load": "load", "light": "light"}
            functions = list(dict.fromkeys(d.of for d in some))
            where = self.r.modules[module].module.name if module else ""
            if what == "light":
                name, own = f"light behind, {where}", ""
            elif what == "load" or (len(functions) == 1 and what != "base"):
                name, own = self.r.functions[functions[0]].name if functions[0] else "regulator", functions[0]
            else:
                one, several = ROOM_FOR_LAMPS[what]
                name, own = f"{len(some)} {one if len(some) == 1 else several}, {where}", ""
            made.append(self._leaf(f"{under}.{what}.{module}", kinds.get(what, "coil"), name, volts, own, some))
        return tuple(made)

    def _leaf(self, ident: str, kind: NodeKind, name: str, volts: float, of: str, some: list[Draw]) -> Node:
        amps: dict[State, float] = {s: sum(self.amps[s].get(d.into, 0.0) for d in some) for s in STATES}
        cold = sum(self.amps["all"].get(d.into, 0.0) * (COLD if d.bulb else 1.0) for d in some)
        return Node(ident, kind, name, volts, of, amps, 0.0, cold)

    def _node(
        self, ident: str, kind: NodeKind, name: str, volts: float, of: str, most: float, below: tuple[Node, ...]
    ) -> Node:
        amps: dict[State, float] = {s: sum(self._taken(n, s, volts) for n in below) for s in STATES}
        inrush = sum(n.inrush for n in below)
        return Node(ident, kind, name, volts, of, amps, most, inrush, below)

    def _taken(self, node: Node, state: State, volts: float) -> float:
        """What a branch takes of the volts before it: of a regulator less, or the same where it is a linear one."""
        if node.kind != "regulator":
            return node.amps[state]
        return regulated(self.r, node, node.amps[state], volts)


def regulated(r: Resolved, node: Node, amps: float, before: float) -> float:
    """What a regulator takes from the volts before it while it gives ``amps``."""
    made = next(s for s in r.design.workshop.supplies if supply_id(s.id) == node.id)
    return amps if made.linear else amps * made.volts / (SWITCHED * before)


def heat_of(r: Resolved, node: Node, before: float) -> float:
    """Watts that a regulator turns into heat with everything on: (V_in - V_out) · I, or what a switched one loses."""
    amps = node.full
    return before * regulated(r, node, amps, before) - node.volts * amps


FUSES = (0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1.0, 1.25, 1.6, 2.0, 2.5, 3.15, 4.0, 5.0, 6.3, 8.0,
         10.0, 12.5, 16.0, 20.0, 25.0, 32.0)  # fmt: skip
"""Ratings of fuses (A): the series R 10 (IEC 60127-2, from memory)."""


def fuse_for(amps: float) -> float:
    """The next fuse (A) of at least 1.25 times a load."""
    return next((f for f in FUSES if f >= SPARE * amps - 1e-9), FUSES[-1])
