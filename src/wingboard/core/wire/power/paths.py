"""Ways along wires: from one terminal to another, and from every source to all that it feeds."""

from __future__ import annotations

from collections import deque
from collections.abc import Iterator, Sequence

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.draws import passages
from wingboard.core.wire.wires import Wire, runs


def way_between(wires: Sequence[Wire], start: Port, end: Port) -> list[Wire]:
    """The fewest wires that lead from one terminal to another; empty where none do, or where both are one."""
    beside: dict[Port, list[tuple[Port, Wire]]] = {}
    for wire in wires:
        beside.setdefault(wire.start, []).append((wire.end, wire))
        beside.setdefault(wire.end, []).append((wire.start, wire))
    came: dict[Port, tuple[Port, Wire] | None] = {start: None}
    waiting = deque([start])
    while waiting and end not in came:
        here = waiting.popleft()
        for other, wire in beside.get(here, ()):
            if other not in came:
                came[other] = here, wire
                waiting.append(other)
    way: list[Wire] = []
    at = came.get(end)
    while at is not None:
        way.append(at[1])
        at = came[at[0]]
    return way[::-1]


def from_sources(r: Resolved) -> Iterator[list[tuple[str, str | None]]]:
    """For each terminal of each supply the wires that are reached from it, the furthest first, each with the wire
    before it (None at the supply). Contacts and what else passes current lead on."""
    beside: dict[Port, list[tuple[Port, str | None]]] = {}
    for wire in runs(r):
        beside.setdefault(wire.start, []).append((wire.end, wire.id))
        beside.setdefault(wire.end, []).append((wire.start, wire.id))
    for through in passages(r, "all"):
        beside.setdefault(through.start, []).append((through.end, None))
        beside.setdefault(through.end, []).append((through.start, None))
    for device in net_list(r).devices.values():
        if device.kind == "supply":
            for terminal in device.ports:
                if terminal != "IN":
                    yield _spread(beside, Port(device.id, terminal))


def _spread(beside: dict[Port, list[tuple[Port, str | None]]], source: Port) -> list[tuple[str, str | None]]:
    """The wires reached from a terminal, the furthest first; a piece that two ways reach counts for the shorter one."""
    seen: set[Port] = {source}
    waiting: deque[tuple[Port, str | None]] = deque([(source, None)])
    reached: list[tuple[str, str | None]] = []
    while waiting:
        here, before = waiting.popleft()
        for other, wire in beside.get(here, ()):
            if other in seen:
                continue
            seen.add(other)
            if wire is not None:
                reached.append((wire, before))
            waiting.append((other, wire or before))
    return reached[::-1]
