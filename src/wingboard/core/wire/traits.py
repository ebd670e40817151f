"""What each line is for who programs or solders it: its kind, its current, its state at power-up, its common."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from wingboard.core.record.controllers import BUS_NAMES, Pin, board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Net, Port
from wingboard.core.wire.nets import IN_SERIES, net_list
from wingboard.core.wire.schemes.networks import NetworkKind, networks
from wingboard.core.wire.signals import Line, signals


class Traits(NamedTuple):
    """Of a line: what it is, milliamperes through its pin, what it does from power-up until a program speaks (empty for
    what only reads), and what its other end is joined with, in common with others."""

    kind: str
    milliamps: float
    boot: str
    common: str


OF_NETWORKS: dict[NetworkKind, tuple[str, str, str]] = {
    "matrix": ("matrix", "in the matrix", ""),
    "matrix-bare": ("matrix", "in the matrix", ""),
    "shift-in": ("shift chain", "74HC165 input", ""),
    "shift-out": ("shift chain", "74HC595 output", "anything until it is first written"),
    "expander": ("I²C", "MCP23017", "off, its pins are inputs"),
    "digits": ("digit chain", "in the digit chain", "as its driver starts"),
    "pixels": ("addressable chain", "in the addressable chain", "dark until it is first written"),
}
"""For each kind of network: its own lines, the terminals in it, and what these do at power-up."""


def traits(r: Resolved) -> Mapping[str, Traits]:
    """Of every line that ends on a pin, and of every terminal that a network reads or drives, by its id."""
    return r.once("traits of lines", lambda: _traits(r))


def _traits(r: Resolved) -> dict[str, Traits]:
    pins = {
        p.line: board_of(r.design, next(c.board for c in r.design.controllers if c.id == p.controller)).pin(p.pin)
        for p in r.design.pins
    }
    own: dict[str, NetworkKind] = {line.id: n.kind for n in networks(r) for line in n.lines}
    common = _commons(r)
    found = {
        line.id: Traits(
            _kind(line, own.get(line.id)), 1000 * line.pin_current, _boot(line, pins.get(line.id)),
            common.get(line.id, ""),
        )
        for line in lines(r)
    }  # fmt: skip
    for network in networks(r):
        _, kind, boot = OF_NETWORKS[network.kind]
        for s in network.signals:
            driven = s.line.direction == "out"
            found[s.id] = Traits(kind, 1000 * s.line.current, boot if driven else "", common.get(s.id, ""))
    return found


def _kind(line: Line, network: NetworkKind | None) -> str:
    if line.terminal == "light data":
        return "addressable chain"
    if network:
        return BUS_NAMES[line.bus] if line.bus else OF_NETWORKS[network][0]
    if line.bus:
        return BUS_NAMES[line.bus]
    if line.coder:
        return "input coder"
    if line.analogue:
        return "ladder" if line.id.endswith("-ladder") else "analogue in"
    if line.direction == "out":
        return "PWM" if line.prefers == "PWM" else "digital out"
    if line.prefers == "interrupt":
        return "encoder pair"
    return "digital in, divider" if line.divided else "digital in, pull-up"


def _boot(line: Line, pin: Pin | None) -> str:
    """From power-up on a pin floats, as an input, until the program sets it, unless it is known to flash."""
    said = ["read at power-up"] if pin and pin.strap else []
    if line.direction == "out" and not line.bus:
        held = line.id.endswith("-drive") or line.terminal == "light dimmer"
        floats = "off, floats" if line.lamp else "floats"
        said.append("flashes at reset" if pin and pin.flashes else "held off" if held else floats)
    return "; ".join(said)


def _commons(r: Resolved) -> dict[str, str]:
    """What the other end of each terminal is joined with: ground, a supply, the row of a matrix."""
    nets = net_list(r)
    found: dict[str, str] = {}
    for s in signals(r):
        f = s.line.function
        ends = [Port(f, end) for end in (s.told.back, *(s.told.ends or ()), s.terminal) if end]
        on = (nets.by_port.get(port) for port in (*ends, Port(f"{s.id}{IN_SERIES}", "1")))
        found[s.id] = " and ".join(dict.fromkeys(word for net in on if net and (word := _common(net))))
        of_selector = f"{f}.{s.told.id}"
        for tap in (f"{of_selector}-ladder", f"{of_selector}-coder"):
            found.setdefault(tap, "GND and its board's volts")
        for bit in range(1, 5):
            found.setdefault(f"{of_selector}-bit-{bit}", found[s.id])
    for line in lines(r):
        if line.id.endswith(("-drive", "-seen")) or line.terminal == "light dimmer":
            found[line.id] = "GND"
    return found


def _common(net: Net) -> str:
    if net.kind == "ground":
        return "GND"
    if net.kind == "supply":
        return net.id.split(" of ")[0]
    return f"row {net.id.rpartition('-')[2]}" if ".row-" in net.id else ""
