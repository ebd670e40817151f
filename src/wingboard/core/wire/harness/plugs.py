"""The plugs by which a module comes out: which wires go through them, on which contacts, and what is kept free."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Any, NamedTuple

from wingboard.core.record.controllers import board_of, rank
from wingboard.core.record.harness import Carries, PlugKind
from wingboard.core.record.wiring import PinChoice
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.apart import dangerous_net
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.netlist import Net, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.flow import currents
from wingboard.core.wire.wires import Wire, runs


class Kind(NamedTuple):
    """A kind of plug: its name, the numbers of contacts it is sold with, amperes to plan with through one contact, the
    thickest wire that goes on one (mm²), and in how many rows they lie."""

    name: str
    sizes: tuple[int, ...]
    amps: float
    area: float
    rows: int


KINDS: dict[PlugKind, Kind] = {
    "dsub": Kind("D-sub", (9, 15, 25, 37, 50), 3.0, 0.5, 2),
    "header": Kind("header shell", (10, 14, 16, 20, 26, 34, 40, 50), 1.0, 0.34, 2),
    "strip": Kind("terminal strip", (2, 3, 4, 6, 8, 10, 12, 16, 24), 10.0, 2.5, 1),
    "punch": Kind("punch block", (50,), 0.5, 0.25, 2),
}
"""Contacts by D-sub shells (IEC 60807-2; 50 is the three-row one), common two-row shells on 2.54 mm, and 25 pairs.
Amperes and cross-sections are common practice, with a margin."""
LIGHT_CURRENT = 1.0
"""A ground that carries more (A) goes through the plug of the supplies."""
WORDS: dict[Carries, str] = {"signals": "signals", "power": "supplies and loads", "mains": "dangerous voltage"}


class Plug(NamedTuple):
    """A plug of a module. ``on``: by contact the wire that goes through it, as its two ends; ``key``: the contact that
    is closed so that no plug of the same kind goes in."""

    id: str
    name: str
    module: str
    kind: PlugKind
    carries: Carries
    size: int
    on: dict[int, Wire]
    key: int | None

    @property
    def title(self) -> str:
        """“J1, D-sub 25”."""
        return f"{self.name}, {KINDS[self.kind].name} {self.size}"

    @property
    def spare(self) -> tuple[int, ...]:
        """Contacts on which nothing is."""
        return tuple(n for n in range(1, self.size + 1) if n not in self.on)


def plugs(r: Resolved) -> tuple[Plug, ...]:
    """The plugs of all modules, those of a module that has none left out."""
    if not any(m.loom.signals or m.loom.power for m in r.design.modules):
        return ()
    return r.once("plugs", lambda: tuple(_Allotting(r).plugs()))


def plug_of(r: Resolved, device: str) -> Plug | None:
    """The plug of that id."""
    return r.once("plugs by id", lambda: {plug.id: plug for plug in plugs(r)}).get(device)


def plugged(r: Resolved) -> tuple[Wire, ...]:
    """Every wire as it is soldered: those that leave a module end on its plug, and go on from there."""
    return r.once("plugged wires", lambda: tuple(_plugged(r)))


def _plugged(r: Resolved) -> Iterator[Wire]:
    contacts: dict[str, dict[str, list[int]]] = {}
    for plug in plugs(r):
        for contact, wire in plug.on.items():
            contacts.setdefault(wire.id, {}).setdefault(plug.id, []).append(contact)
    for wire in runs(r):
        through = contacts.get(wire.id)
        if not through:
            yield wire
            continue
        stops = [Port(ident, str(numbers[0])) for ident, numbers in _in_order(r, wire, through)]
        for one, other in zip((wire.start, *stops), (*stops, wire.end), strict=True):
            yield wire._replace(start=one, end=other)
        for ident, numbers in through.items():
            for a, b in pairwise(numbers):
                yield wire._replace(start=Port(ident, str(a)), end=Port(ident, str(b)), how="bridge")


def _in_order(r: Resolved, wire: Wire, through: dict[str, list[int]]) -> list[tuple[str, list[int]]]:
    """The plugs of a wire from its start on."""
    home = places(r).home(wire.start)
    return sorted(through.items(), key=lambda item: _module_of(r, item[0]) != home)


def _module_of(r: Resolved, plug: str) -> str:
    found = plug_of(r, plug)
    return found.module if found else ""


class _Allotting:
    def __init__(self, r: Resolved) -> None:
        self.r, self.where, self.nets = r, places(r), net_list(r)
        self.currents = currents(r)
        self.pins = {(f"board.{p.controller}", p.pin): n for n, p in enumerate(self._by_board())}
        self.soldered = self._soldered()

    def _by_board(self) -> list[PinChoice]:
        order = {c.id: n for n, c in enumerate(self.r.design.controllers)}
        lie = {c.id: rank(board_of(self.r.design, c.board)) for c in self.r.design.controllers}
        return sorted(self.r.design.pins, key=lambda p: (order[p.controller], lie[p.controller].get(p.pin, 999)))

    def _soldered(self) -> dict[tuple[str, Port], list[int]]:
        """By plug and the terminal at the other end, on its module or beyond, the contacts soldered to that already."""
        found: dict[tuple[str, Port], list[int]] = {}
        for name in self.r.design.soldered:
            ends = [Port(*end.split(":", 1)) for end in name.split(" ") if ":" in end]
            for plug, other in zip(ends, ends[::-1], strict=True) if len(ends) == 2 else ():
                if plug.device.startswith("plug.") and plug.terminal.isdigit():
                    found.setdefault((plug.device, other), []).append(int(plug.terminal))
        return found

    def plugs(self) -> Iterator[Plug]:
        made: list[Plug] = []
        for module in self.r.modules:
            loom = self.r.modules[module].module.loom
            crossing = [wire for wire in runs(self.r) if self._crosses(wire, module)]
            sorted_out: dict[Carries, list[Wire]] = {"signals": [], "power": [], "mains": []}
            for wire in crossing:
                sorted_out[self._carries(wire, loom.power is not None)].append(wire)
            kinds: dict[Carries, PlugKind | None] = {
                "signals": loom.signals,
                "power": loom.power,
                "mains": "strip" if loom.power else None,
            }
            for carries, wires in sorted_out.items():
                kind = kinds[carries]
                if kind is not None and wires:
                    made += self._plugs(module, carries, kind, wires, len(made))
        yield from _keyed(made)

    def _crosses(self, wire: Wire, module: str) -> bool:
        ends = wire.start, wire.end
        return any(
            self.where.home(a) == module and self.where.inside(b) != module for a, b in (ends, ends[::-1])
        )  # fmt: skip

    def _carries(self, wire: Wire, has_power: bool) -> Carries:
        net = self.nets.by_id[wire.net]
        if net.kind == "ground":
            light = any(self.nets.devices[p.device].of.startswith("light.") for p in (wire.start, wire.end))
            if light and has_power:
                return "power"
            return "power" if has_power and self.currents.get(wire.id, 0.0) > LIGHT_CURRENT else "signals"
        if net.kind == "earth" or self._dangerous(net):
            return "mains"
        from_board = any(self.nets.devices[p.device].kind == "controller" for p in net.ports)
        return "power" if net.kind == "load" or (net.kind == "supply" and not from_board) else "signals"

    def _dangerous(self, net: Net) -> bool:
        return dangerous_net(self.r, net)

    def _plugs(self, module: str, carries: Carries, kind: PlugKind, wires: Sequence[Wire], before: int) -> list[Plug]:
        """As many plugs of a kind as it takes, each as small as it can be."""
        what = KINDS[kind]
        spare = self.r.design.harness.spare / 100
        room = max(1, math.floor(what.sizes[-1] / (1 + spare) + 1e-9))
        wanted = [(w, max(1, math.ceil(self.currents.get(w.id, 0.0) / what.amps - 1e-9))) for w in self._ordered(wires)]
        shares: list[list[tuple[Wire, int]]] = [[]]
        for wire, many in wanted:
            if shares[-1] and sum(n for _, n in shares[-1]) + min(many, room) > room:
                shares.append([])
            shares[-1].append((wire, min(many, room)))
        made = []
        for n, share in enumerate(shares, 1):
            ident = f"plug.{module}-{carries}" + (f"-{n}" if n > 1 else "")
            need = sum(many for _, many in share)
            size = next((s for s in what.sizes if s >= need * (1 + spare) - 1e-9), what.sizes[-1])
            on = self._on(ident, share, size)
            made.append(Plug(ident, f"J{before + n}", module, kind, carries, size, on, None))
        return made

    def _ordered(self, wires: Sequence[Wire]) -> list[Wire]:
        """In the order in which their pins lie, so that the cable is straight; what ends on none behind them."""

        def place(wire: Wire) -> tuple[int, int]:
            pins = [self.pins[p] for p in (wire.start, wire.end) if p in self.pins]
            return (0, pins[0]) if pins else (1 if wire.kind == "signal" else 2 if wire.kind != "ground" else 3, 0)

        return sorted(wires, key=place)

    def _on(self, plug: str, share: list[tuple[Wire, int]], size: int) -> dict[int, Wire]:
        """The contacts: those that are soldered stay, the others in order."""
        on: dict[int, Wire] = {}
        open_: list[tuple[Wire, int]] = []
        for wire, many in share:
            tied = [n for end in (wire.start, wire.end) for n in self.soldered.get((plug, end), ())]
            kept = [n for n in dict.fromkeys(tied) if n <= size and n not in on][:many]
            on |= dict.fromkeys(kept, wire)
            open_.append((wire, many - len(kept)))
        free = iter([n for n in range(1, size + 1) if n not in on])
        for wire, many in open_:
            for _ in range(many):
                on[next(free)] = wire
        return dict(sorted(on.items()))


def _keyed(made: list[Plug]) -> Iterator[Plug]:
    """Plugs that would go into each other's places, each with another free contact closed."""
    taken: dict[tuple[PlugKind, int], set[int]] = {}
    alike = [(p.kind, p.size) for p in made]
    for plug in made:
        like = plug.kind, plug.size
        if alike.count(like) < 2:
            yield plug
            continue
        used = taken.setdefault(like, set())
        key = next((n for n in reversed(plug.spare) if n not in used), None)
        if key is not None:
            used.add(key)
        yield plug._replace(key=key)


def rows_of(plug: Plug) -> tuple[tuple[int, ...], ...]:
    """The contacts row by row as they are numbered, seen from the side where the plug is put in."""
    size = plug.size
    if plug.kind == "dsub" and size == 50:
        return tuple(range(1, 18)), tuple(range(18, 34)), tuple(range(34, 51))
    if plug.kind == "dsub":
        return tuple(range(1, size // 2 + 2)), tuple(range(size // 2 + 2, size + 1))
    if KINDS[plug.kind].rows == 2:
        return tuple(range(1, size + 1, 2)), tuple(range(2, size + 1, 2))
    return (tuple(range(1, size + 1)),)


def nets_json(r: Resolved) -> dict[str, Any]:
    """The net list as plain objects, and the plugs that lie in its wires: each contact with the net that is on it."""
    listed = [
        {
            "id": plug.id, "name": plug.name, "module": plug.module, "kind": plug.kind, "size": plug.size,
            "contacts": {str(contact): wire.net for contact, wire in plug.on.items()},
        }
        for plug in plugs(r)
    ]  # fmt: skip
    return {**net_list(r).as_json(), "plugs": listed}
