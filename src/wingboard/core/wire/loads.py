"""The circuits of loads: supply, breaker or fuse, contact, load, return. What switches a load is in its circuit."""

from __future__ import annotations

from wingboard.core.brief.wanted import duty_of
from wingboard.core.record.functions import AC_UNLESS_SAID, Function, Switched
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.helpers import at_base
from wingboard.core.wire.netlist import GROUND, Device, Joining, Port
from wingboard.core.wire.rails import Rails
from wingboard.core.wire.terminals import Said, said


def join_loads(r: Resolved, joining: Joining, rails: Rails) -> None:
    """Join what every placed function switches that has a load, behind what protects it."""
    _Loads(r, joining, rails).join()


class _Loads:
    def __init__(self, r: Resolved, joining: Joining, rails: Rails) -> None:
        self.r, self.joining, self.rails = r, joining, rails
        self.fed: dict[str, str] = {}
        """By the function of each breaker the net that feeds it: of one supply only."""
        self.guards = [p for p in r.placed if duty_of(p.function, p.part) == "protection"]

    def join(self) -> None:
        """All of them; protections first, so that a bus is there when something hangs on it."""
        guards = {p.function.id for p in self.guards}
        for placed in self.r.placed:
            f = placed.function
            if f.switches.amps > 0 and f.id not in guards and f.state not in ("alias", "dummy"):
                self._load(placed)

    def _load(self, placed: Placed) -> None:
        f = placed.function
        if not f.switches.volts:
            self.joining.miss(f.id, "the volts of its load are not said")
            return
        told = said(placed.part)
        contacts = [line for line in told.lines.values() if line.does == "switch" and not line.each_position]
        start = self._protected(f)
        for line in contacts:
            if not line.back:
                self.joining.miss(f.id, f"the other terminal of {line.terminal} is not said")
                continue
            shared = on_ground(told, line.back)
            if shared and (self._apart(f.switches) or f.switches.through == "transistor"):
                self.joining.miss(
                    f.id, f"{line.back} of its contact is on ground: that cannot switch such a load", True
                )
                continue
            name = f"what {f.name} switches" if len(contacts) == 1 else f"what {f.name} switches at {line.terminal}"
            load = self.joining.helper(f"{f.id}.{line.id}-load", "load", name, "1 2", f.id, f.switches.volts)
            out = Port(f.id, line.terminal), Port(f.id, line.back)
            if f.switches.through == "transistor":
                self._transistor(f, line.id, out, start, load)
            elif f.switches.through:
                self._relay(f, line.id, out, start, load, shared)
            elif shared:
                self.joining.join(start, Port(load.id, "1"), kind="load")
                self.joining.join(f"{load.id}-off", Port(load.id, "2"), out[0], kind="load")
                self.joining.join(GROUND, out[1], kind="ground")
            else:
                self.joining.join(start, out[1], kind="load")
                self.joining.join(f"{load.id}-on", out[0], Port(load.id, "1"), kind="load")
                self.joining.join(self._back(f.switches), Port(load.id, "2"), kind="load")
        if not contacts:
            self.joining.miss(f.id, "its part has no contact that could switch a load")

    def _protected(self, f: Function) -> str:
        """The net from which a function's load is fed: behind its breaker, and behind that of its bus."""
        s = f.switches
        rail = self.rails.volts(s.volts, s.alternating)
        own = [p for p in self.guards if p.function.of == f.id]
        shared = [p for p in self.guards if p.function.of is None and s.bus and _bus(p.function) == _bus(f)]
        for n, (guard, net) in enumerate((*((p, f"bus {s.bus}") for p in shared), *((p, f"{f.id}.fed") for p in own))):
            contact = next(iter(said(guard.part).contacts), None)
            if contact is None:
                self.joining.miss(guard.function.id, "its terminals are not said")
                continue
            ident = guard.function.id
            if self.fed.setdefault(ident, rail) != rail:
                self.joining.miss(f.id, f"{guard.function.name} is on {self.fed[ident]}, its load on {rail}", True)
                continue
            behind = net if n == 0 else f"{net}-{n + 1}"
            self.joining.join(rail, Port(ident, contact.a), kind="supply")
            rail = self.joining.join(behind, Port(ident, contact.b), kind="load")
        return rail

    def _back(self, s: Switched) -> str:
        return self.rails.back(s.volts, s.alternating)

    def _apart(self, s: Switched) -> bool:
        """Whether a load's return is not the ground."""
        return self._back(s) != GROUND and not s.through

    def _relay(
        self, f: Function, line: str, out: tuple[Port, Port], start: str, load: Device, low: bool
    ) -> None:  # fmt: skip
        """The control's contact drives the coil, the relay's own carries the load; numbered as in EN 50005.

        ``low``: the contact is between coil and ground, not before the coil.
        """
        name = f"{f.switches.through} for {f.name}"
        relay = self.joining.helper(f"{f.id}.{line}-relay", "relay", name, "A1 A2 13 14", f.id)
        diode = self.joining.helper(f"{relay.id}-d", "diode", f"across the coil for {f.name}", "A K", f.id)
        coil = f.switches.volts if not f.switches.alternating and f.switches.volts < AC_UNLESS_SAID else self._low()
        fed, ends = (Port(relay.id, "A1"), Port(diode.id, "K")), (Port(relay.id, "A2"), Port(diode.id, "A"))
        self.joining.join(self.rails.volts(coil), *(fed if low else out[1:]), kind="supply")
        self.joining.join(f"{relay.id}-coil", out[0], *(ends if low else fed))
        self.joining.join(GROUND, *(out[1:] if low else ends), kind="ground")
        self.joining.join(start, Port(relay.id, "13"), kind="load")
        self.joining.join(f"{load.id}-on", Port(relay.id, "14"), Port(load.id, "1"), kind="load")
        self.joining.join(self._back(f.switches), Port(load.id, "2"), kind="load")

    def _low(self) -> float:
        """The volts of a coil where the load's own are not for it: of a supply on hand, 24 V where there is none."""
        low = [s.volts for s in self.r.design.workshop.supplies if 5 < s.volts < AC_UNLESS_SAID]
        return max(low, default=24.0)

    def _transistor(self, f: Function, line: str, out: tuple[Port, Port], start: str, load: Device) -> None:
        q = self.joining.helper(f"{f.id}.{line}-q", "transistor", f"for what {f.name} switches", "B C E", f.id)
        ohms = at_base(self.r, f.switches.volts)
        base = self.joining.helper(f"{q.id}-rb", "resistor", f"at the base for {f.name}", "1 2", f.id, ohms)
        self.joining.join(start, out[1], Port(load.id, "1"), kind="load")
        self.joining.join(f"{base.id}-on", out[0], Port(base.id, "1"))
        self.joining.join(f"{q.id}-base", Port(base.id, "2"), Port(q.id, "B"))
        self.joining.join(f"{q.id}-switched", Port(load.id, "2"), Port(q.id, "C"), kind="load")
        self.joining.join(self._back(f.switches), Port(q.id, "E"), kind="ground")


def on_ground(told: Said, terminal: str) -> bool:
    """Whether something beside a contact has its ground on a terminal: a lamp, a divider, what feeds the part."""
    lows = {line.back for line in told.lines.values() if line.does != "switch"}
    lows |= {line.ends[0] for line in told.lines.values() if line.ends}
    return terminal in lows or (told.feed is not None and terminal in told.feed.minus)


def _bus(f: Function) -> str:
    return f.switches.bus.strip().lower()
