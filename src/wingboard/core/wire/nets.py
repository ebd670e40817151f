"""The net list of a design: its parts, boards and supplies, what lies between them, and what is joined.

How each kind of terminal is joined is common practice: contacts to ground with the pin's pull-up, lamps from the pin to
ground or between their supply and a transistor, a coil with a diode across it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from wingboard.core.findings.limits import limit
from wingboard.core.parts.carriers import CONTACTS, transistor_for
from wingboard.core.record.controllers import board_of, logic_of
from wingboard.core.record.functions import AC_UNLESS_SAID, Switched
from wingboard.core.record.lamps import apart_from_logic, lamp_supply, lamp_volts
from wingboard.core.record.part import PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.logic import over_lamp, tests_lamps
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.backlights import join_lights
from wingboard.core.wire.carried import coil_volts, on_ground, unlit
from wingboard.core.wire.earth import join_earth
from wingboard.core.wire.helpers import LAMP_RELAY, at_base, in_series
from wingboard.core.wire.lines import lines
from wingboard.core.wire.loads import join_loads
from wingboard.core.wire.netlist import GROUND, Device, Joining, NetList, Port, board_id
from wingboard.core.wire.rails import Rails
from wingboard.core.wire.schemes.binary import join_binary
from wingboard.core.wire.schemes.chips import CHIPS, PULL_UP
from wingboard.core.wire.schemes.coder import join_coder
from wingboard.core.wire.schemes.digits import join_digits
from wingboard.core.wire.schemes.expander import join_expanders
from wingboard.core.wire.schemes.ladder import join_ladder
from wingboard.core.wire.schemes.networks import CHIPLESS, Network, networks
from wingboard.core.wire.schemes.shift import chip_id, join_shift_in, join_shift_out, places
from wingboard.core.wire.signals import SELECTOR, Line, Signal, signals
from wingboard.core.wire.terminals import Said, said

LAMP_TEST = "lamp test"
"""The net from which every lamp is lit at once."""
IN_SERIES = "-r"
"""How the name of a lamp's resistor ends."""


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
        self.signals: dict[tuple[str, str], list[Signal]] = {}
        for s in signals(r):
            self.signals.setdefault((s.line.function, s.told.id), []).append(s)
        self.on_chip: dict[str, Port] = {}
        """Where a terminal's line ends when that is on a chip, not on a board."""
        self.home: dict[str, str | None] = {}
        """The board on which the network of such a line hangs."""

    def done(self) -> NetList:
        self._controllers()
        for placed in self.r.placed:
            self._add(placed)
        self._networks()
        for placed in self.r.placed:
            self._part(placed)
        for network in networks(self.r):
            if network.kind in ("digits", "pixels"):
                join_digits(self.joining, network)
            elif network.kind in CHIPLESS:
                self._matrix(network)
            if network.kind in CHIPLESS:
                for line in network.lines:
                    if line.id in self.pins:
                        controller, pin = self.pins[line.id]
                        self.joining.join(line.id, Port(board_id(controller), pin))
        for placed in self.r.placed:
            if placed.function.tests_lamps and placed.function.state not in ("alias", "dummy"):
                self._lamp_test(placed)
        self._pull_ups()
        join_loads(self.r, self.joining, self.rails)
        join_lights(self.r, self.joining, self.rails)
        join_earth(self.r, self.joining)
        return self.joining.done()

    def _controllers(self) -> None:
        used: dict[str, dict[str, None]] = {c.id: {} for c in self.r.design.controllers}
        for line, (controller, pin) in self.pins.items():
            if line in self.lines:
                used[controller][pin] = None
        for c in self.r.design.controllers:
            rails = board_of(self.r.design, c.board).rails
            self.joining.add(Device(board_id(c.id), "controller", c.name, (*used[c.id], *rails, "GND")))
            self.joining.join(GROUND, Port(board_id(c.id), "GND"), kind="ground")

    def _networks(self) -> None:
        """The chips of every network. What is read in a matrix is joined with its parts."""
        expanders: dict[str | None, int] = {}
        for network in networks(self.r):
            home = next((self.pins[line.id][0] for line in network.lines if line.id in self.pins), None)
            if network.kind in CHIPLESS:
                continue
            rail = self.rails.logic(home)
            pins = {line.id.rpartition(".")[2]: line.id for line in network.lines}
            if network.kind == "expander":
                pins = {bus: f"{bus} of {home}" if home else line for bus, line in pins.items()}
                expanders[home] = join_expanders(self.joining, network, rail, pins, expanders.get(home, 0))
            elif network.kind == "shift-in":
                join_shift_in(self.joining, network, rail, pins)
            else:
                join_shift_out(self.joining, network, rail, pins)
            for line in network.lines:
                if line.id in self.pins:
                    controller, pin = self.pins[line.id]
                    self.joining.join(pins[line.id.rpartition(".")[2]], Port(board_id(controller), pin))
            for line_id, (n, terminal) in places(network, CHIPS[network.kind]).items():
                self.on_chip[line_id], self.home[line_id] = Port(chip_id(network, n), terminal), home

    def _matrix(self, network: Network) -> None:
        """Rows, and columns with a diode at each contact: a column is pulled up, and down through what is closed."""
        for n, row in enumerate(network.grid.rows, 1):
            at_row = f"{network.id}.row-{n}"
            for k, signal in enumerate(row, 1):
                f, column = signal.placed.function, f"{network.id}.column-{k}"
                self.joining.join(at_row, Port(f.id, signal.told.back))
                contact = Port(f.id, signal.terminal)
                if network.kind == "matrix-bare":
                    self.joining.join(column, contact)
                    continue
                name = f"of {f.name}, {signal.line.terminal}"
                made = self.joining.helper(f"{signal.id}-d", "diode", name, "A K", f.id)
                self.joining.join(f"{signal.id}-way", contact, Port(made.id, "K"))
                self.joining.join(column, Port(made.id, "A"))

    def _pull_ups(self) -> None:
        """A resistor to the logic's volts for every contact that is read by a pin without a pull-up of its own."""
        for line in self.lines.values():
            given = self.pins.get(line.id)
            reads = line.direction == "in" and not (line.analogue or line.bus or line.coder or line.divided)
            if not given or not reads or (line.network and not line.terminal.startswith("column")):
                continue
            kind = next(c.board for c in self.r.design.controllers if c.id == given[0])
            pin = board_of(self.r.design, kind).pin(given[1])
            if pin is None or pin.pull_up:
                continue
            ident, name = f"{line.id}-p", f"pull-up at pin {given[1]}"
            if line.network:
                of, module = line.network, line.module
                self.joining.add(Device(ident, "resistor", name, ("1", "2"), PULL_UP, of, module))
            else:
                self.joining.helper(ident, "resistor", name, "1 2", line.function, PULL_UP)
            self.joining.join(line.id, Port(ident, "2"))
            self.joining.join(self.rails.logic(given[0]), Port(ident, "1"), kind="supply")

    def _add(self, placed: Placed) -> None:
        """The part as a device, before anything is joined: a stop may break what an earlier part is fed by."""
        f = placed.function
        ports = tuple(dict.fromkeys((*said(placed.part).terminals, *_named_by_lines(placed, said(placed.part)))))
        if ports or f.switches.amps > 0:  # else something is reported of it that cannot be wired: it is named there
            self.joining.add(Device(f.id, "part", f.name, ports, of=f.id, module=placed.place.module))

    def _part(self, placed: Placed) -> None:
        told = said(placed.part)
        if not self.joining.has_device(placed.function.id) or placed.function.state == "dummy":
            return
        for line in told.lines.values():
            self._line(placed, told, line)
        self._feed(placed, told)

    def _line(self, placed: Placed, told: Said, line: PartLine) -> None:
        f = placed.function
        mine = self.signals.get((f.id, line.id), [])
        if not mine:  # it is in the circuit of a load, or a lamp that cannot be lit from here
            if words := unlit(placed, line):
                self.joining.miss(f.id, words, True)
            return
        by = mine[0].by
        if by in SELECTOR:
            self._selector(mine)
        elif by in CHIPLESS:
            return  # with its network
        elif line.does in ("switch", "encoder"):
            for signal in mine:
                self._pin(signal.line, Port(f.id, signal.terminal))
            self._to_ground(f.id, line)
        elif line.does == "analogue":
            self._divider(f.id, line, mine[0].line)
        elif line.does == "lamp":
            self._lamp(placed, told, line, mine[0].line)
        else:
            self._driven(placed, line, mine[0].line)

    def _pin(self, line: Line, port: Port) -> str:
        """A port and where its line ends: on the pin that it has, or on a chip."""
        net = self.joining.join(line.id, port)
        if line.id in self.on_chip:
            return self.joining.join(net, self.on_chip[line.id])
        given = self.pins.get(line.id)
        return self.joining.join(net, Port(board_id(given[0]), given[1])) if given else net

    def _logic(self, line: Line) -> float:
        """Volts of what a line is driven with: of its board's logic, or of the board on which its chip hangs."""
        return logic_of(self.r.design, self._controller(line))

    def _controller(self, line: Line) -> str | None:
        if line.id in self.home:
            return self.home[line.id]
        given = self.pins.get(line.id)
        return given[0] if given else None

    def _to_ground(self, device: str, line: PartLine) -> None:
        if line.back:
            self.joining.join(GROUND, Port(device, line.back), kind="ground")
        else:
            self.joining.miss(device, f"the other terminal of {line.terminal} is not said")

    def _selector(self, of: list[Signal]) -> None:
        """All positions of a selector over one voltage, or over a few lines in binary."""
        f, line = of[0].placed.function, of[0].told
        if of[0].by == "ladder":
            tap = self.lines[f"{f.id}.{line.id}-ladder"]
            self._pin(tap, Port(f.id, line.back))
            join_ladder(self.joining, of, tap.id, self.rails.logic(self._controller(tap)))
            return
        if of[0].by == "coder":
            end = self.lines[f"{f.id}.{line.id}-coder"]
            join_coder(self.joining, of, end.id, self.rails.logic(self._controller(end)))
            if end.id in self.pins:
                controller, pin = self.pins[end.id]
                self.joining.join(end.id, Port(board_id(controller), pin))
            return
        ends = [made for made in self.lines.values() if made.id.startswith(f"{f.id}.{line.id}-bit-")]
        join_binary(self.joining, of, [made.id for made in ends])
        for made in ends:
            if made.id in self.pins:
                controller, pin = self.pins[made.id]
                self.joining.join(made.id, Port(board_id(controller), pin))

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
        supply = lamp_supply(f, placed.part, line)
        if apart_from_logic(supply):
            self._lamp_by_relay(placed, line, wired, supply)
            return
        series = in_series(wired, lamp_volts(f, placed.part), over_lamp(self.r, f, wired.id))
        start = Port(f.id, line.terminal)
        if series.ohms is not None:
            r = self.joining.helper(
                f"{wired.id}{IN_SERIES}", "resistor", f"in series with {f.name}", "1 2", f.id, series.ohms
            )
            self.joining.join(f"{wired.id}-lamp", start, Port(r.id, "2"))
            start = Port(r.id, "1")
        if not wired.transistor:
            self._drive(wired, start)
            self._to_ground(f.id, line)
        elif not line.back:
            self._to_ground(f.id, line)
        elif _shared(told)[line.back] > 1:
            self._high_side(wired, start, Port(f.id, line.back), series.supply)
        else:
            self.joining.join(self.rails.feeding(series.supply, self._controller(wired)), start, kind="supply")
            self._low_side(wired, Port(f.id, line.back))

    def _lamp_by_relay(self, placed: Placed, line: PartLine, wired: Line, supply: Switched) -> None:
        """A lamp at a dangerous voltage, or on AC: a relay lights it, whose coil alone the controller drives."""
        f = placed.function
        relay = self.joining.helper(f"{wired.id}{LAMP_RELAY}", "relay", f"relay for {wired.name}", "A1 A2 13 14", f.id,
                                    CONTACTS["relay"].amps)  # fmt: skip
        diode = self.joining.helper(f"{relay.id}-d", "diode", f"across the coil for {wired.name}", "A K", f.id)
        fed = self.rails.volts(supply.volts, supply.alternating)
        self.joining.join(fed, Port(relay.id, "13"), kind="supply")
        self.joining.join(f"{wired.id}-lamp", Port(relay.id, "14"), Port(f.id, line.terminal), kind="load")
        self.joining.join(self.rails.back(supply.volts, supply.alternating), Port(f.id, line.back), kind="supply")
        coil = self.rails.volts(coil_volts(self.r.design, supply))
        self.joining.join(coil, Port(relay.id, "A1"), Port(diode.id, "K"), kind="supply")
        amps = CONTACTS["relay"].watts / coil_volts(self.r.design, supply)
        self._low_side(wired, Port(relay.id, "A2"), amps)
        self.joining.join(f"{wired.id}-switched", Port(diode.id, "A"))

    def _drive(self, line: Line, port: Port) -> None:
        """A port and what drives it: its line, and where there is a lamp test that too, each through a diode."""
        if not (line.lamp and tests_lamps(self.r)):
            self._pin(line, port)
            return
        own, test = (
            self.joining.helper(f"{line.id}-{end}", "diode", f"from {words} to {line.name}", "A K", line.function)
            for end, words in (("own", "its line"), ("test", "the lamp test"))
        )
        self.joining.join(f"{line.id}-either", port, Port(own.id, "K"), Port(test.id, "K"))
        self._pin(line, Port(own.id, "A"))
        self.joining.join(LAMP_TEST, Port(test.id, "A"))

    def _lamp_test(self, placed: Placed) -> None:
        """The contact that lights all lamps: between the logic's volts and the net of the test."""
        f, told = placed.function, said(placed.part)
        contact = next((line for line in told.lines.values() if line.does == "switch" and not line.each_position), None)
        if contact is None or not contact.back:
            self.joining.miss(f.id, "its part has no contact, or none with both ends said, that could test lamps")
        elif on_ground(told, contact.back):
            self.joining.miss(f.id, f"{contact.back} of its contact is on ground: that cannot light lamps", True)
        else:
            self.joining.join(self.rails.logic(None), Port(f.id, contact.back), kind="supply")
            self.joining.join(LAMP_TEST, Port(f.id, contact.terminal))

    def _low_side(self, line: Line, end: Port, amps: float | None = None) -> None:
        """A transistor between what it drives and ground, its base on the pin over a resistor.

        :param amps: through it; None: what the line itself takes.
        """
        kind = transistor_for(line.current if amps is None else amps, limit(self.r.design, "drive-current"))
        q = self.joining.helper(f"{line.id}-q", "transistor", f"for {line.name}", "B C E", line.function, kind.amps)
        name = f"at the base for {line.name}"
        ohms = at_base(self.r, self._logic(line), kind.base)
        base = self.joining.helper(f"{line.id}-rb", "resistor", name, "1 2", line.function, ohms)
        self.joining.join(f"{line.id}-switched", end, Port(q.id, "C"))
        self.joining.join(GROUND, Port(q.id, "E"), kind="ground")
        self.joining.join(f"{line.id}-base", Port(base.id, "2"), Port(q.id, "B"))
        self._drive(line, Port(base.id, "1"))

    def _high_side(self, line: Line, start: Port, back: Port, supply: float) -> None:
        """A switch before what it drives, where the return is shared with others that are not driven at once."""
        q = self.joining.helper(f"{line.id}-q", "high side", f"for {line.name}", "IN V+ OUT GND", line.function)
        self.joining.join(self.rails.feeding(supply, self._controller(line)), Port(q.id, "V+"), kind="supply")
        self.joining.join(GROUND, Port(q.id, "GND"), back, kind="ground")
        self.joining.join(f"{line.id}-switched", start, Port(q.id, "OUT"))
        self._drive(line, Port(q.id, "IN"))

    def _driven(self, placed: Placed, line: PartLine, wired: Line) -> None:
        f, feed = placed.function, said(placed.part).feed
        port = Port(f.id, line.terminal)
        if wired.bus:
            controller = self._controller(wired)
            net = self.joining.join(f"{wired.bus} of {controller}" if controller else wired.id, port)
            if (given := self.pins.get(wired.id)) is not None:
                self.joining.join(net, Port(board_id(given[0]), given[1]))
        elif wired.transistor and line.back and feed and feed.volts >= AC_UNLESS_SAID:
            self.joining.miss(f.id, f"{feed.volts:g} V beside a line of a controller: let a relay switch it", True)
        elif wired.transistor and line.back:
            volts = feed.volts if feed else self._logic(wired)
            diode = self.joining.helper(f"{wired.id}-coil-d", "diode", f"across {f.name}", "A K", f.id)
            rail, back = self.rails.feeding(volts, self._controller(wired)), Port(f.id, line.back)
            self.joining.join(rail, port, Port(diode.id, "K"), kind="supply")
            self._low_side(wired, back)
            self.joining.join(f"{wired.id}-switched", back, Port(diode.id, "A"))
        else:
            self._pin(wired, port)
            if line.back and not _is_line(placed, line.back):
                self._to_ground(f.id, line)

    def _feed(self, placed: Placed, told: Said) -> None:
        feed = told.feed
        if feed is None or placed.part.plugs_on:
            return  # nothing, or the board that it is plugged onto
        if any(line.back and line.does == "driver" and not _is_line(placed, line.back) for line in told.lines.values()):
            return  # it draws its current through the line that drives it
        f = placed.function
        if not feed.plus:
            self.joining.miss(f.id, f"its terminals for {feed.volts:g} V are not said")
            return
        at = next((self._controller(s.line) for s in signals(self.r)
                   if s.line.function == f.id and self._controller(s.line)), None)  # fmt: skip
        rail = self.rails.feeding(feed.volts, at)
        self.joining.join(rail, *(Port(f.id, t) for t in feed.plus), kind="supply")
        self.joining.join(self.rails.back(feed.volts), *(Port(f.id, t) for t in feed.minus), kind="ground")


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
