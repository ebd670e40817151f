"""What is read or driven together: a network for each module and scheme, with the lines that drive it."""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.schemes.matrix import Grid, grid
from wingboard.core.wire.signals import ADDRESSED, Line, Signal, pooled, signals
from wingboard.core.wire.terminals import said

NetworkKind = Literal["matrix", "matrix-bare", "shift-in", "shift-out", "expander", "digits", "pixels"]
NAMES: dict[NetworkKind, str] = {
    "matrix": "matrix",
    "matrix-bare": "matrix without diodes",
    "shift-in": "inputs in a chain",
    "shift-out": "outputs in a chain",
    "expander": "expander",
    "digits": "read-outs in a chain",
    "pixels": "addressable lamps in a chain",
}


CHIPLESS: tuple[NetworkKind, ...] = ("matrix", "matrix-bare", "digits", "pixels")
"""Networks without chips of their own: they are joined with their parts."""


class Network(NamedTuple):
    """Terminals of one module that are read or driven together. ``id`` begins with ~, as no function's does."""

    id: str
    kind: NetworkKind
    module: str
    name: str
    signals: tuple[Signal, ...]
    lines: tuple[Line, ...]
    grid: Grid = Grid(())
    """Of a matrix."""


def networks(r: Resolved) -> tuple[Network, ...]:
    """All networks of a design, module by module."""
    return r.once("networks", lambda: _networks(r))


def _networks(r: Resolved) -> tuple[Network, ...]:
    found: dict[tuple[str, NetworkKind], list[Signal]] = {}
    for signal in signals(r):
        if pooled(signal):
            found.setdefault((signal.line.module, _kind(signal)), []).append(signal)
    order = list(r.modules)
    return tuple(
        _network(r, module, kind, tuple(some))
        for (module, kind), some in sorted(found.items(), key=lambda item: (order.index(item[0][0]), item[0][1]))
    )


def _kind(signal: Signal) -> NetworkKind:
    if signal.by == "shift":
        return "shift-in" if signal.line.direction == "in" else "shift-out"
    if signal.by == "digits" and set(said(signal.placed.part).lines) == ADDRESSED:
        return "pixels"
    return signal.by  # type: ignore[return-value]  # pooled: the other schemes are kinds themselves


def _network(r: Resolved, module: str, kind: NetworkKind, some: tuple[Signal, ...]) -> Network:
    ident = f"~{kind}-{module}"
    name = f"{r.modules[module].module.name}, {NAMES[kind]}"
    bare = Network(ident, kind, module, name, some, ())
    if kind == "shift-in":
        ends = [_end(bare, "load", "out"), _end(bare, "clock", "out"), _end(bare, "data", "in")]
    elif kind == "shift-out":
        ends = [_end(bare, "latch", "out"), _end(bare, "clock", "out"), _end(bare, "data", "out")]
    elif kind == "pixels":
        ends = [_end(bare, "data", "out")]
    elif kind == "digits":
        ends = [_end(bare, "data", "out"), _end(bare, "clock", "out"), _end(bare, "load", "out")]
    elif kind == "expander":
        ends = [_end(bare, "sda", "both", "sda"), _end(bare, "scl", "out", "scl")]
    else:
        made = grid(some)
        bare = bare._replace(grid=made)
        ends = [_end(bare, f"row-{n}", "out") for n in range(1, len(made.rows) + 1)]
        ends += [_end(bare, f"column-{n}", "in") for n in range(1, made.columns + 1)]
    return bare._replace(lines=tuple(ends))


def _end(network: Network, ident: str, direction: Literal["in", "out", "both"], bus: str | None = None) -> Line:
    """A line of the network itself; what its pin gives is next to nothing."""
    members = tuple(dict.fromkeys(s.line.function for s in network.signals))
    return Line(
        id=f"{network.id}.{ident}",
        function=members[0],
        name=network.name,
        terminal=ident.replace("-", " "),
        module=network.module,
        direction=direction,
        analogue=False,
        prefers=None,
        current=0.0,
        drop=0.0,
        volts=0.0,
        lamp=False,
        bus=bus,
        pin_current=0.0,
        chip_current=0.0,
        transistor=False,
        network=network.id,
        members=members,
    )
