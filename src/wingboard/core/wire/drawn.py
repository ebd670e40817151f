"""What is drawn from each supply and from each board's USB port when everything is on. Amperes."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.record.controllers import board_of
from wingboard.core.record.lamps import lamp_volts
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.logic import over_lamp
from wingboard.core.wire.backlights import light_at
from wingboard.core.wire.helpers import in_series
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.signals import Signal, pooled, signals
from wingboard.core.wire.terminals import said

SUPPLIES = (1, 2, 3, 5, 8, 10, 15, 20, 30, 50, 100, 200, 500, 1000)
"""Amperes of supplies that are sold (common practice)."""
SPARE = 1.25
"""A supply gives so many times what is drawn from it (common practice)."""


def drawn(r: Resolved, volts: float) -> float:
    """What everything draws at most from a supply of so many volts: all lamps lit, all loads on."""
    lamps = math.fsum(s.line.current for s in signals(r) if s.line.transistor and _lit_by(r, s) == volts)
    fed = sum(p.part.feed.amps for p in r.placed if p.part.feed and p.part.feed.volts == volts)
    switching = {d.of for d in net_list(r).devices.values() if d.kind == "load" and d.value == volts}
    return light_at(r, volts) + lamps + fed + sum(r.functions[f].switches.amps for f in switching)


def _lit_by(r: Resolved, signal: Signal) -> float | None:
    """The volts that light a lamp; None for what is no lamp."""
    if not signal.line.lamp:
        return None
    f, part = signal.placed.function, signal.placed.part
    return in_series(signal.line, lamp_volts(f, part), over_lamp(r, f, signal.id)).supply


def _chip(r: Resolved, line: str) -> str | None:
    """The chip that drives a line; None where none does."""
    net = net_list(r).by_id.get(line)
    devices = net_list(r).devices
    return next((p.device for p in net.ports if devices[p.device].kind == "chip"), None) if net else None


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
    here = next(c for c in r.design.controllers if c.id == controller)
    board = board_of(r.design, here.board)
    rails = (net_list(r).by_port.get(Port(board_id(controller), rail)) for rail in board.rails)
    there = {port for rail in rails if rail for port in rail.ports}
    fed = 0.0
    for p in r.placed:
        feed = said(p.part).feed
        plugged = p.part.plugs_on and p.function.id == here.reserved
        if feed and (plugged or any(Port(p.function.id, t) in there for t in feed.plus)):
            fed += feed.amps
    lamps = sum(line.chip_current for line in lines(r) if line.id in on)
    for s in signals(r):  # those behind a transistor, on the board's own 5 V
        if s.line.lamp and s.line.transistor and any(port.device == f"{s.id}-r" for port in there):
            lamps += s.line.current
    chips = {port.device for port in there}
    lamps += sum(s.line.chip_current for s in signals(r) if pooled(s) and _chip(r, s.id) in chips)
    return FromUsb(board.takes, lamps, fed)
