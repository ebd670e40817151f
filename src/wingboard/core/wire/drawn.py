"""What is drawn from each supply and from each board's USB port when everything is on. Amperes."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.helpers import in_series
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.terminals import said

SUPPLIES = (1, 2, 3, 5, 8, 10, 15, 20, 30, 50, 100, 200, 500, 1000)
"""Amperes of supplies that are sold (common practice)."""
SPARE = 1.25
"""A supply gives so many times what is drawn from it (common practice)."""
BOARD = 0.05
"""What a board takes for itself (A, from memory: chip, USB chip and its own lamps)."""


def drawn(r: Resolved, volts: float) -> float:
    """What everything draws at most from a supply of so many volts: all lamps lit, all loads on."""
    lamps = sum(
        line.current
        for line in lines(r)
        if line.lamp and line.transistor and in_series(line, r.functions[line.function].switches.volts).supply == volts
    )
    fed = sum(p.part.feed.amps for p in r.placed if p.part.feed and p.part.feed.volts == volts)
    switching = {d.of for d in net_list(r).devices.values() if d.kind == "load" and d.value == volts}
    return lamps + fed + sum(r.functions[f].switches.amps for f in switching)


def supply_for(amps: float) -> float:
    """The next supply (A) that gives a quarter more than what is drawn."""
    return next((a for a in SUPPLIES if a >= SPARE * amps - 1e-9), SUPPLIES[-1])


class FromUsb(NamedTuple):
    """What a board draws from its USB port: for itself, through its pins into lamps, and for parts fed by its 5 V."""

    board: float
    lamps: float
    fed: float

    @property
    def total(self) -> float:
        """All together."""
        return self.board + self.lamps + self.fed


def from_usb(r: Resolved, controller: str) -> FromUsb:
    """All lamps of a board lit, and all that it feeds on."""
    on = {choice.line for choice in r.design.pins if choice.controller == controller}
    rail = net_list(r).by_port.get(Port(board_id(controller), "5V"))
    there = set(rail.ports) if rail else set()
    fed = 0.0
    for p in r.placed:
        feed = said(p.part).feed
        if feed and any(Port(p.function.id, t) in there for t in feed.plus):
            fed += feed.amps
    lamps = sum(line.chip_current for line in lines(r) if line.id in on)
    for line in lines(r):  # those behind a transistor, on the board's own 5 V
        if line.lamp and line.transistor and any(port.device == f"{line.id}-r" for port in there):
            lamps += line.current
    return FromUsb(BOARD, lamps, fed)
