"""Read-outs in a chain: three lines for any number, each driver passing its data on to the next; addressable lamps so
over one."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.record.part import PASSES_ON
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.netlist import Joining, Port
from wingboard.core.wire.schemes.networks import Network


class Shown(NamedTuple):
    """A read-out of a chain: its digits, and how many of them, from the left, stay dark; a lamp has none."""

    function: str
    name: str
    digits: int
    dark: int


def join_digits(joining: Joining, network: Network) -> None:
    """Clock and load to every driver, data to the first, from there on from DOUT to DIN."""
    before: str | None = None
    for signal in network.signals:
        ident, net = signal.line.function, f"{network.id}.{signal.told.id}"
        port = Port(ident, signal.terminal)
        if signal.told.id != "data":
            joining.join(net, port)
            continue
        if before is None:
            joining.join(net, port)
        else:
            joining.join(f"{ident}.passed-on", Port(before, PASSES_ON), port)
        before = ident


def shown(network: Network) -> tuple[Shown, ...]:
    """The read-outs in the order of the chain; what its function does not show is told to stay dark."""
    found = []
    for signal in network.signals:
        f, part = signal.placed.function, signal.placed.part
        if signal.told.id == "data" and (part.digits is not None or network.kind == "pixels"):
            count = part.digits.count if part.digits else 0
            found.append(Shown(f.id, f.name, count, dark_of(signal.placed)))
    return tuple(found)


def dark_of(placed: Placed) -> int:
    """How many digits of a read-out, from the left, its function does not show."""
    count = placed.part.digits.count if placed.part.digits else 0
    return max(0, count - (placed.function.digits or count))
