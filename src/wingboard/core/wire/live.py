"""Which nets are electrically one with a dangerous or an alternating supply, in any state of the switches.

A relay or contactor isolates: its coil, and each of its contacts, is apart from the others.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wingboard.core.record.functions import AC_UNLESS_SAID
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.netlist import Device, NetList, Port
from wingboard.core.wire.terminals import said


def live_supply(device: Device) -> bool:
    """Whether a device is a supply that must never meet a controller: 50 V or more, or alternating."""
    return device.kind == "supply" and (device.value >= AC_UNLESS_SAID or "L" in device.ports)


def reached(r: Resolved, nets: NetList, starts: Sequence[Port]) -> frozenset[str]:
    """The nets that current from some terminals can reach in any state of the switches, their own included."""
    beside = _beside(r, nets)
    waiting = list(starts)
    seen, found = set(waiting), set[str]()
    while waiting:
        port = waiting.pop()
        net = nets.by_port.get(port)
        if net is not None:
            found.add(net.id)
        for other in (*(net.ports if net else ()), *beside.get(port, ())):
            if other not in seen:
                seen.add(other)
                waiting.append(other)
    return frozenset(found)


def _beside(r: Resolved, nets: NetList) -> dict[Port, list[Port]]:
    """By terminal those of the same device that current can pass to, or leak to, in any state."""
    found: dict[Port, list[Port]] = {}
    functions = {p.function.id: p for p in r.placed}
    for device in nets.devices.values():
        placed = functions.get(device.id) if device.kind == "part" else None
        for group in _of_part(placed) if placed else _of_device(device):
            ports = [Port(device.id, t) for t in group]
            for port in ports:
                found.setdefault(port, []).extend(p for p in ports if p != port)
    return found


def _of_device(device: Device) -> Iterator[tuple[str, ...]]:
    if device.kind != "relay":
        yield tuple(t for t in device.ports if t != "PE")
        return
    yield "A1", "A2"
    for terminal in device.ports:
        if terminal.endswith("3"):
            yield terminal, f"{terminal[:-1]}4"


def _of_part(placed: Placed) -> Iterator[tuple[str, ...]]:
    """The terminals of each contact, lamp, divider and feed; those of a selector with their common."""
    of_part = said(placed.part)
    for line in of_part.lines.values():
        ways = tuple(str(n) for n in range(1, placed.part.ways + 1)) if line.each_position else (line.terminal,)
        yield tuple(t for t in (*ways, line.back, *(line.ends or ())) if t)
    for contact in of_part.contacts:
        yield contact.a, contact.b
    if of_part.feed is not None:
        yield (*of_part.feed.plus, *of_part.feed.minus)
