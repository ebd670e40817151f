"""Where power comes from: supplies, the boards' own rails, and what is common to all of them. Volts."""

from __future__ import annotations

from functools import cached_property
from typing import NamedTuple

from wingboard.core.record.controllers import Board, board_of, open_controllers
from wingboard.core.record.functions import AC_UNLESS_SAID
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import GROUND, Device, Joining, Port, board_id, supply_id
from wingboard.core.wire.terminals import said

USUAL = 5.0
"""Volts of what is fed where no board says others."""


class _Stop(NamedTuple):
    """A contact that breaks a supply."""

    of: str
    a: str
    b: str


class Rails:
    """The supplies of a design as they are asked for, each joined once.

    Low voltage of every supply and board has one return in common, the ground. From 50 V on, and where it alternates, a
    supply has a return of its own and never meets the others.
    """

    def __init__(self, r: Resolved, joining: Joining) -> None:
        self.r, self.joining = r, joining

    def volts(self, volts: float, alternating: bool = False) -> str:
        """The net of a supply of so many volts: of the workshop's, or of one that is not there yet."""
        apart = alternating or volts >= AC_UNLESS_SAID
        on_hand = None if alternating else self._of_volts(volts)
        if on_hand is not None:
            return self._on_hand(on_hand)
        net = f"{volts:g} V{' AC' if alternating else ''}"
        plus, minus = ("L", "N") if alternating else ("+", "-")
        ident = supply_id(net.lower().replace(" ", "-"))  # no supply of the workshop begins with a figure
        device = self.joining.add(Device(ident, "supply", f"a supply of {net}", (plus, minus), volts))
        self.joining.miss(ident, f"the workshop has no supply of {net}")
        self.joining.join(self.back(volts, alternating), Port(device.id, minus), kind="supply" if apart else "ground")
        return self.joining.join(net, Port(device.id, plus), kind="supply")

    def _of_volts(self, volts: float) -> Supply | None:
        """The supply on hand of so many volts that is taken: one that is made from no other, where there is one."""
        alike = [s for s in self.r.design.workshop.supplies if abs(s.volts - volts) < 1e-9]
        return min(alike, key=lambda s: s.made_from is not None, default=None)

    def _on_hand(self, supply: Supply) -> str:
        """The net of a supply of the workshop, joined with the one that it is made from."""
        ports = ("+", "-", "IN") if supply.made_from else ("+", "-")
        device = self.joining.add(Device(supply_id(supply.id), "supply", supply.name, ports, supply.volts))
        before = next((s for s in self.r.design.workshop.supplies if s.id == supply.made_from), None)
        if before is not None:
            self.joining.join(self._on_hand(before), Port(device.id, "IN"), kind="supply")
        apart = supply.volts >= AC_UNLESS_SAID
        self.joining.join(self.back(supply.volts), Port(device.id, "-"), kind="supply" if apart else "ground")
        first = self._of_volts(supply.volts) == supply
        net = f"{supply.volts:g} V" if first else f"{supply.volts:g} V of {supply.id}"
        stop = self._stops.get(supply.id)
        if stop is None:
            return self.joining.join(net, Port(device.id, "+"), kind="supply")
        self.joining.join(f"{net} before the stop", Port(device.id, "+"), Port(stop.of, stop.a), kind="supply")
        return self.joining.join(net, Port(stop.of, stop.b), kind="supply")

    @cached_property
    def _stops(self) -> dict[str, _Stop]:
        """By supply the emergency stop that is its power switch: its contact that is closed at rest breaks the plus."""
        found: dict[str, _Stop] = {}
        for p in self.r.placed:
            if p.function.stop_role != "power" or p.function.state in ("alias", "dummy"):
                continue
            contact = next((c for c in said(p.part).contacts if "" in c.closed or not c.closed), None)
            volts = p.function.switches.volts
            supplies = [s for s in self.r.design.workshop.supplies if s.made_from is None]
            meant = [s for s in supplies if abs(s.volts - volts) < 1e-9] if volts else supplies
            if contact is None:
                self.joining.miss(p.function.id, "it has no contact that is closed at rest, to break a supply with")
            elif len(meant) != 1:
                self.joining.miss(p.function.id, "which supply it breaks is not said: say its volts")
            else:
                found.setdefault(meant[0].id, _Stop(p.function.id, contact.a, contact.b))
        return found

    def back(self, volts: float, alternating: bool = False) -> str:
        """The net that current of such a supply returns on."""
        if alternating or volts >= AC_UNLESS_SAID:
            return f"return of {volts:g} V{' AC' if alternating else ''}"
        return GROUND

    def logic(self, controller: str | None) -> str:
        """The net of a board's logic: of that on which a line ends, for its converter compares with that.

        Of the first board for a line that has no pin yet, of a supply of 5 V where there is no board.
        """
        controller = controller or self._first()
        if controller is None:
            return self.volts(USUAL)
        return self._rail(controller, self._board(controller).logic)

    def _board(self, controller: str) -> Board:
        return board_of(self.r.design, next(c.board for c in self.r.design.controllers if c.id == controller))

    def _rail(self, controller: str, terminal: str) -> str:
        volts = self._board(controller).rails[terminal]
        return self.joining.join(f"{volts:g} V of {controller}", Port(board_id(controller), terminal), kind="supply")

    def feeding(self, volts: float, controller: str | None) -> str:
        """The net that feeds a part: of the workshop's supply, or of a board that has these volts where there is no
        other."""
        has_one = any(abs(s.volts - volts) < 1e-9 for s in self.r.design.workshop.supplies)
        controller = controller or self._first()
        if not has_one and controller is not None:
            rails = self._board(controller).rails
            terminal = next((t for t, given in rails.items() if abs(given - volts) < 1e-9), None)
            if terminal is not None:
                return self._rail(controller, terminal)
        return self.volts(volts)

    def _first(self) -> str | None:
        return next((c.id for c in open_controllers(self.r.design)), None)
