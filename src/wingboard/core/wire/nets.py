"""The net list of a design: its parts, boards and supplies, what lies between them, and what is joined.

How each kind of terminal is joined is common practice: contacts to ground with the pin's pull-up, lamps from the pin to
ground or between their supply and a transistor, a coil with a diode across it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from wingboard.core.record.part import PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.helpers import at_base, in_series
from wingboard.core.wire.lines import LOGIC_SUPPLY, Line, lines
from wingboard.core.wire.loads import join_loads
from wingboard.core.wire.netlist import GROUND, Device, Joining, NetList, Port, board_id
from wingboard.core.wire.rails import Rails
from wingboard.core.wire.terminals import Said, said


def net_list(r: Resolved) -> NetList:
    """Devices and nets of the placed parts as they are wired with the schemes and pins that they have."""
    return r.once("net list", lambda: _Deriving(r).done())


class _Deriving:
    """One net list, from the record alone."""

    def __init__(self, r: Resolved) -> None:
        self.r = r
        self.joining = Joining()
        self.rails = Rails(r, self.joining)
        self.pins = {p.line: (p.controller, p.pin) for p in r.design.pins}
        self.lines = {line.id: line for line in lines(r)}

    def done(self) -> NetList:
        self._controllers()
        for placed in self.r.placed:
            self._part(placed)
        join_loads(self.r, self.joining, self.rails)
        return self.joining.done()

    def _controllers(self) -> None:
        used: dict[str, dict[str, None]] = {c.id: {} for c in self.r.design.controllers}
        for line, (controller, pin) in self.pins.items():
            if line in self.lines:
                used[controller][pin] = None
        for c in self.r.design.controllers:
            self.joining.add(Device(board_id(c.id), "controller", c.name, (*used[c.id], "5V", "GND")))
            self.joining.join(GROUND, Port(board_id(c.id), "GND"), kind="ground")

    def _part(self, placed: Placed) -> None:
        told, f = said(placed.part), placed.function
        ports = tuple(dict.fromkeys((*told.terminals, *_named_by_lines(placed, told))))
        if not ports:
            return
        self.joining.add(Device(f.id, "part", f.name, ports, of=f.id, module=placed.place.module))
        if f.state == "dummy":
            return
        for line in told.lines.values():
            self._line(placed, told, line)
        self._feed(placed, told)

    def _line(self, placed: Placed, told: Said, line: PartLine) -> None:
        f = placed.function
        mine = list(self._as_wired(placed, line))
        if line.each_position and f.scheme == "ladder":
            if mine:
                self._ladder(placed, line, mine[0][0])
        elif line.does in ("switch", "encoder"):
            for wired, terminal in mine:
                self._pin(wired, Port(f.id, terminal))
            if mine:
                self._to_ground(f.id, line)
        elif line.does == "analogue":
            self._divider(f.id, line, mine[0][0])
        elif line.does == "lamp":
            self._lamp(placed, told, line, mine[0][0])
        else:
            self._driven(placed, line, mine[0][0])

    def _as_wired(self, placed: Placed, line: PartLine) -> Iterator[tuple[Line, str]]:
        """The lines that a line of the part becomes, with the terminal of each."""
        prefix = f"{placed.function.id}.{line.id}"
        if not line.each_position:
            if prefix in self.lines:
                yield self.lines[prefix], line.terminal
            return
        for n in range(1, placed.part.ways + 1):
            if (wired := self.lines.get(f"{prefix}-{n}")) is not None:
                yield wired, str(n)
        if (ladder := self.lines.get(f"{prefix}-ladder")) is not None:
            yield ladder, line.back

    def _pin(self, line: Line, port: Port) -> str:
        """A port and the pin of its line."""
        net = self.joining.join(line.id, port)
        given = self.pins.get(line.id)
        return self.joining.join(net, Port(board_id(given[0]), given[1])) if given else net

    def _controller(self, line: Line) -> str | None:
        given = self.pins.get(line.id)
        return given[0] if given else None

    def _to_ground(self, device: str, line: PartLine) -> None:
        if line.back:
            self.joining.join(GROUND, Port(device, line.back), kind="ground")
        else:
            self.joining.miss(device, f"the other terminal of {line.terminal} is not said")

    def _ladder(self, placed: Placed, line: PartLine, tap: Line) -> None:
        """Equal resistors from way to way, the first way on ground and the last on 5 V, the common on the pin."""
        f = placed.function
        many = len(f.positions) or placed.part.ways
        if not line.back:
            self.joining.miss(f.id, f"the common of {line.terminal} is not said")
            return
        self._pin(tap, Port(f.id, line.back))
        self.joining.join(GROUND, Port(f.id, "1"), kind="ground")
        self.joining.join(self.rails.logic(self._controller(tap)), Port(f.id, str(many)), kind="supply")
        for n in range(1, many):
            made = self.joining.helper(f"{f.id}.r{n}", "resistor", f"between ways {n} and {n + 1}", "1 2", f.id, STEP)
            self.joining.join(f"{f.id}.tap-{n}", Port(f.id, str(n)), Port(made.id, "1"))
            self.joining.join(f"{f.id}.tap-{n + 1}", Port(f.id, str(n + 1)), Port(made.id, "2"))

    def _divider(self, device: str, line: PartLine, wired: Line) -> None:
        self._pin(wired, Port(device, line.terminal))
        if line.ends is None:
            if not line.back:  # else it is read against a terminal that is driven, as a coder's
                self.joining.miss(device, f"the ends of {line.terminal} are not said")
            return
        low, high = line.ends
        self.joining.join(GROUND, Port(device, low), kind="ground")
        self.joining.join(self.rails.logic(self._controller(wired)), Port(device, high), kind="supply")

    def _lamp(self, placed: Placed, told: Said, line: PartLine, wired: Line) -> None:
        f = placed.function
        series = in_series(wired, f.switches.volts)
        start = Port(f.id, line.terminal)
        if series.ohms is not None:
            r = self.joining.helper(f"{wired.id}-r", "resistor", f"in series with {f.name}", "1 2", f.id, series.ohms)
            self.joining.join(f"{wired.id}-lamp", start, Port(r.id, "2"))
            start = Port(r.id, "1")
        if not wired.transistor:
            self._pin(wired, start)
            self._to_ground(f.id, line)
        elif not line.back:
            self._to_ground(f.id, line)
        elif _shared(told)[line.back] > 1:
            self._high_side(wired, start, Port(f.id, line.back), series.supply)
        else:
            self.joining.join(self.rails.feeding(series.supply, self._controller(wired)), start, kind="supply")
            self._low_side(wired, Port(f.id, line.back))

    def _low_side(self, line: Line, end: Port) -> None:
        """A transistor between what it drives and ground, its base on the pin over a resistor."""
        q = self.joining.helper(f"{line.id}-q", "transistor", f"for {line.name}", "B C E", line.function)
        name = f"at the base for {line.name}"
        base = self.joining.helper(f"{line.id}-rb", "resistor", name, "1 2", line.function, at_base(self.r))
        self.joining.join(f"{line.id}-switched", end, Port(q.id, "C"))
        self.joining.join(GROUND, Port(q.id, "E"), kind="ground")
        self.joining.join(f"{line.id}-base", Port(base.id, "2"), Port(q.id, "B"))
        self._pin(line, Port(base.id, "1"))

    def _high_side(self, line: Line, start: Port, back: Port, supply: float) -> None:
        """A switch before what it drives, where the return is shared with others that are not driven at once."""
        q = self.joining.helper(f"{line.id}-q", "high side", f"for {line.name}", "IN V+ OUT GND", line.function)
        self.joining.join(self.rails.feeding(supply, self._controller(line)), Port(q.id, "V+"), kind="supply")
        self.joining.join(GROUND, Port(q.id, "GND"), back, kind="ground")
        self.joining.join(f"{line.id}-switched", start, Port(q.id, "OUT"))
        self._pin(line, Port(q.id, "IN"))

    def _driven(self, placed: Placed, line: PartLine, wired: Line) -> None:
        f, feed = placed.function, said(placed.part).feed
        port = Port(f.id, line.terminal)
        if wired.bus:
            controller = self._controller(wired)
            net = self.joining.join(f"{wired.bus} of {controller}" if controller else wired.id, port)
            if (given := self.pins.get(wired.id)) is not None:
                self.joining.join(net, Port(board_id(given[0]), given[1]))
        elif wired.transistor and line.back:
            volts = feed.volts if feed else LOGIC_SUPPLY
            self.joining.join(self.rails.feeding(volts, self._controller(wired)), port, kind="supply")
            self._low_side(wired, Port(f.id, line.back))
        else:
            self._pin(wired, port)
            if line.back and not _is_line(placed, line.back):
                self._to_ground(f.id, line)

    def _feed(self, placed: Placed, told: Said) -> None:
        feed = told.feed
        if feed is None or any(line.back and line.does == "driver" and not _is_line(placed, line.back)
                               for line in told.lines.values()):  # fmt: skip
            return  # it draws its current through the line that drives it
        f = placed.function
        if not feed.plus:
            self.joining.miss(f.id, f"its terminals for {feed.volts:g} V are not said")
            return
        at = next((self.pins[line.id][0] for line in self.lines.values()
                   if line.function == f.id and line.id in self.pins), None)  # fmt: skip
        rail = self.rails.feeding(feed.volts, at)
        self.joining.join(rail, *(Port(f.id, t) for t in feed.plus), kind="supply")
        self.joining.join(self.rails.back(feed.volts), *(Port(f.id, t) for t in feed.minus), kind="ground")


STEP = 1000.0
"""Each resistor of a ladder (Ω, common practice: a source well below the 10 kΩ that a converter wants)."""


def _named_by_lines(placed: Placed, told: Said) -> Iterator[str]:
    """The terminals that a part's lines name, also where the part lists none."""
    for line in told.lines.values():
        named = [str(n) for n in range(1, placed.part.ways + 1)] if line.each_position else [line.terminal]
        yield from (t for t in (*named, line.back, *(line.ends or ())) if t)


def _shared(told: Said) -> Counter[str]:
    """How many lines end on each terminal that is the return of some."""
    return Counter(line.back for line in told.lines.values() if line.back)


def _is_line(placed: Placed, terminal: str) -> bool:
    """Whether a terminal is driven itself, as the far end of a coil is."""
    return any(line.terminal == terminal for line in placed.part.lines)
