"""Where power comes from: supplies, the boards' own rails, and what is common to all of them. Volts."""

from __future__ import annotations

from functools import cached_property

from wingboard.core.parts.carriers import CONTACTS
from wingboard.core.record.controllers import Board, board_of, open_controllers
from wingboard.core.record.functions import AC_UNLESS_SAID, Switched
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.carried import stop_coil_volts
from wingboard.core.wire.earth import earthed
from wingboard.core.wire.netlist import GROUND, Device, Joining, NetKind, Port, board_id, supply_id
from wingboard.core.wire.stops import POLES, STOP_RELAY, breaking_contacts, carrier_of, power_stops, real_stops

USUAL = 5.0
"""Volts of what is fed where no board says others."""
NO_CONTACT = "its part has no contact that is closed at rest, to break power with"


class Rails:
    """The supplies of a design as they are asked for, each joined once.

    Low voltage of every supply and board has one return in common, the ground. From 50 V on, and where it alternates, a
    supply has a return of its own and never meets the others.
    """

    def __init__(self, r: Resolved, joining: Joining) -> None:
        self.r, self.joining = r, joining
        self._behind: set[str] = set()
        """The nets behind stops that are joined by now."""
        self._poles: dict[str, int] = {}
        """By the first of stops in series the supplies that they break so far."""

    def volts(self, volts: float, alternating: bool = False) -> str:
        """The net of a supply of so many volts: of the workshop's, or of one that is not there yet."""
        apart = alternating or volts >= AC_UNLESS_SAID
        on_hand = None if alternating else self._of_volts(volts)
        if on_hand is not None:
            return self._on_hand(on_hand)
        net = f"{volts:g} V{' AC' if alternating else ''}"
        plus, minus = ("L", "N") if alternating else ("+", "-")
        ports = (plus, minus, *earthed(self.r, volts, alternating))
        ident = supply_id(net.lower().replace(" ", "-"))  # no supply of the workshop begins with a figure
        device = self.joining.add(Device(ident, "supply", f"a supply of {net}", ports, volts))
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
        stops = self._power_stops.get(supply.id, ())
        if not stops:
            return self.joining.join(net, Port(device.id, "+"), kind="supply")
        ahead = self.joining.join(f"{net} before the stop", Port(device.id, "+"), kind="supply")
        return self._broken(ahead, net, "supply", stops)

    @cached_property
    def _power_stops(self) -> dict[str, tuple[Placed, ...]]:
        """By supply the emergency stops that are its power switch, in series."""
        found: dict[str, tuple[Placed, ...]] = {}
        for p in power_stops(self.r):
            volts = p.function.switches.volts
            supplies = [s for s in self.r.design.workshop.supplies if s.made_from is None]
            meant = [s for s in supplies if abs(s.volts - volts) < 1e-9] if volts else supplies
            if not breaking_contacts(p.part):
                self.joining.miss(p.function.id, NO_CONTACT, True)
            elif len(meant) != 1:
                self.joining.miss(p.function.id, "which supply it breaks is not specified: give its volts")
            else:
                found[meant[0].id] = (*found.get(meant[0].id, ()), p)
        return found

    def for_load(self, s: Switched) -> str:
        """The net that feeds a load, before its own protection: behind every real emergency stop, unless it stays on.

        Where the stops cannot break this supply too, the load is fed by nothing, and the stops are reported.
        """
        net = self.volts(s.volts, s.alternating)
        stops = real_stops(self.r)
        if s.stays_on or not stops:
            return net
        return self._broken(net, f"{net} behind the stop", "load", stops)

    def _broken(self, before: str, behind: str, kind: NetKind, stops: tuple[Placed, ...]) -> str:
        """Join two nets over the contacts of stops in series, or over a pole of the relay that these hold on."""
        if behind in self._behind:
            return behind
        self._behind.add(behind)
        carrier = carrier_of(stops)
        first = stops[0].function.id
        n = self._poles.get(first, 0)
        self._poles[first] = n + 1
        if carrier in POLES:
            return self._by_relay(before, behind, kind, stops, n)
        least = min(len(breaking_contacts(p.part)) for p in stops)
        if n >= least:
            words = f"its contact breaks {n} supply already, not {before}: let a relay or a contactor break both"
            self.joining.miss(first, words if least else NO_CONTACT, True)
            return self.joining.join(behind, kind=kind)
        self._in_series(before, behind, kind, stops, n)
        return behind

    def _in_series(self, before: str, behind: str, kind: NetKind, stops: tuple[Placed, ...], n: int) -> None:
        """The n-th contact of each stop, one after the other."""
        at = before
        for k, p in enumerate(stops, 1):
            a, b = breaking_contacts(p.part)[n]
            self.joining.join(at, Port(p.function.id, a))
            at = behind if k == len(stops) else f"{behind}, between stops {k} and {k + 1}"
            self.joining.join(at, Port(p.function.id, b), kind=kind)

    def _by_relay(self, before: str, behind: str, kind: NetKind, stops: tuple[Placed, ...], n: int) -> str:
        """The n-th pole of the relay that stops hold on: pressed, or a wire broken, it lets go."""
        carrier, first = carrier_of(stops), stops[0].function
        if n >= POLES[carrier]:
            words = f"a {carrier} has {POLES[carrier]} poles: {before} is one supply too many"
            self.joining.miss(first.id, words, True)
            return self.joining.join(behind, kind=kind)
        ident = f"{first.id}{STOP_RELAY}"
        poles = tuple(f"{k}{end}" for k in range(1, POLES[carrier] + 1) for end in (3, 4))
        rating = CONTACTS[carrier]
        name = f"{carrier} of {first.name}"
        self.joining.helper(ident, "relay", name, " ".join(("A1", "A2", *poles)), first.id, rating.amps)
        if n == 0 and self._stop_contacts_there(stops):
            self.joining.helper(f"{ident}-d", "diode", f"across the coil of {first.name}", "A K", first.id)
            coil = stop_coil_volts(self.r.design)
            self._in_series(self._plain(coil), f"{ident}-held", "signal", stops, 0)
            self.joining.join(f"{ident}-held", Port(ident, "A1"), Port(f"{ident}-d", "K"))
            self.joining.join(self.back(coil), Port(ident, "A2"), Port(f"{ident}-d", "A"), kind="ground")
        self.joining.join(before, Port(ident, f"{n + 1}3"))
        return self.joining.join(behind, Port(ident, f"{n + 1}4"), kind=kind)

    def _stop_contacts_there(self, stops: tuple[Placed, ...]) -> bool:
        """Whether each of them has a contact to hold a relay with; those that have none are reported."""
        without = [p for p in stops if not breaking_contacts(p.part)]
        for p in without:
            self.joining.miss(p.function.id, NO_CONTACT, True)
        return not without

    def _plain(self, volts: float) -> str:
        """The net of a supply before any stop: what holds a stop's relay must not be broken by that relay."""
        net = self.volts(volts)
        before = f"{net} before the stop"
        return before if self.joining.has(before) else net

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
