"""A panel round a simulated chip: its controls are moved, its lamps and read-outs looked at, as by hand and eye.

Nothing here asks the program: the chips of read-outs are written from their data sheet, brightness is read from the
timers' compare registers.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import Channel, channels
from wingboard.core.wire.program.sketch import sketch
from wingboard.core.wire.schemes.chips import SHIFT_IN, SHIFT_OUT
from wingboard.core.wire.schemes.networks import Network, networks
from wingboard.core.wire.schemes.shift import places
from wingboard.devices.chip import Chip
from wingboard.devices.toolchain import compiled

COMPARE = {
    "ATmega2560": {"13": (0x44, 6, 0x47), "4": (0x44, 4, 0x48), "11": (0x80, 6, 0x88), "12": (0x80, 4, 0x8A),
                   "10": (0xB0, 6, 0xB3), "9": (0xB0, 4, 0xB4), "5": (0x90, 6, 0x98), "2": (0x90, 4, 0x9A),
                   "3": (0x90, 2, 0x9C), "6": (0xA0, 6, 0xA8), "7": (0xA0, 4, 0xAA), "8": (0xA0, 2, 0xAC),
                   "46": (0x120, 6, 0x128), "45": (0x120, 4, 0x12A), "44": (0x120, 2, 0x12C)},
    "ATmega328P": {"6": (0x44, 6, 0x47), "5": (0x44, 4, 0x48), "9": (0x80, 6, 0x88), "10": (0x80, 4, 0x8A),
                   "11": (0xB0, 6, 0xB3), "3": (0xB0, 4, 0xB4)},
}  # fmt: skip
"""Of each pin that dims: its timer's control register, where in it stands whether the pin is the timer's, its compare
register (data sheets of the chips, from memory; pins by the variants' headers)."""
SEEN = 0.03
"""Seconds after which a moved contact has been believed and reported."""


class Readout:
    """MAX7219 drivers on three wires, from their data sheet: 16 bits shifted in at rising clocks, the last ones taken
    when LOAD rises; what overflows goes to the next driver."""

    def __init__(self, chained: int = 1) -> None:
        self.data = False
        self.bits: list[int] = [0] * 16 * chained
        self.registers = [dict.fromkeys(range(16), 0) for _ in range(chained)]

    def changed(self, wire: str, level: bool) -> None:
        if wire == "data":
            self.data = level
        elif wire == "clock" and level:
            self.bits = [*self.bits[1:], int(self.data)]
        elif wire == "load" and level:
            self._taken()

    def _taken(self) -> None:
        for n, registers in enumerate(reversed(self.registers)):
            word = int("".join(map(str, self.bits[16 * n : 16 * n + 16])), 2)
            registers[word >> 8 & 15] = word & 0xFF

    def shows(self, place: int = 0) -> list[int]:
        """The segments of each digit from the left; none while it sleeps, all in its test."""
        it = self.registers[place]
        digits = range(it[11] + 1, 0, -1)
        return [0xFF if it[15] & 1 else it[n] if it[12] & 1 else 0 for n in digits]


class Matrix:
    """Contacts with a diode each between rows and columns: a row that is driven low pulls down the columns of what is
    closed in it, and no other."""

    def __init__(self, chip: Chip, at: dict[str, tuple[str, str]]) -> None:
        self.chip, self.at, self.closed = chip, at, set[str]()
        self.columns = {column for _, column in at.values()}
        self.ways: dict[int, int] = {}

    def changed(self, _wire: str, _level: bool) -> None:
        """Nothing but directions changes anything here: rows are let go, not driven high."""

    def turned(self, port: int, ways: int) -> None:
        self.ways[port] = ways
        low = {column for line, (row, column) in self.at.items() if line in self.closed and self._low(row)}
        for column in self.columns:
            self.chip.drive(column, False if column in low else None)

    def _low(self, row: str) -> bool:
        port, bit = self.chip.pins[row]
        return bool(self.ways.get(port, 0) >> bit & 1) and not self.chip.written(row)


class ChainIn:
    """74HC165 from their data sheet: inputs taken while SH/LD is low; QH of the first chip is the data, and each rising
    clock moves all on by one. ``at``: of each contact the number of its chip from 1, and its input A to H."""

    def __init__(self, chip: Chip, data: str, at: dict[str, tuple[int, str]]) -> None:
        self.chip, self.data, self.closed, self.taking = chip, data, set[str](), False
        self.order = {8 * (n - 1) + ord("H") - ord(name): line for line, (n, name) in at.items()}
        self.bits: list[bool] = []

    def changed(self, wire: str, level: bool) -> None:
        if wire == "load":
            self.taking = not level
        elif wire == "clock" and level and not self.taking:
            self.bits = [*self.bits[1:], False]
        if self.taking:
            self.bits = [self.order.get(n) not in self.closed for n in range(max(self.order) + 1)]
        if self.bits:
            self.chip.drive(self.data, self.bits[0])


class ChainOut:
    """74HC595 from their data sheet: a rising clock shifts into QA of the first chip, a rising latch shows."""

    def __init__(self, at: dict[str, tuple[int, str]]) -> None:
        self.places = {line: 8 * (n - 1) + ord(name) - ord("A") for line, (n, name) in at.items()}
        self.data, self.bits = False, [False] * (max(self.places.values()) + 8)
        self.shown = list(self.bits)

    def changed(self, wire: str, level: bool) -> None:
        if wire == "data":
            self.data = level
        elif wire == "clock" and level:
            self.bits = [self.data, *self.bits[:-1]]
        elif wire == "latch" and level:
            self.shown = list(self.bits)


class Panel:
    """One board of a design with its program, and the controls and lamps on its pins."""

    def __init__(self, r: Resolved, controller: str, chip: Chip) -> None:
        self.r, self.chip = r, chip
        self.pins = {p.line: p.pin for p in r.design.pins}
        self.channels = [c for c in channels(r).channels if c.controller == controller]
        self.kind = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller)).chip
        self.readouts: dict[str, tuple[Readout, int]] = {}
        """Of each read-out its drivers, and its place among these."""
        self.inputs: dict[str, Matrix | ChainIn] = {}
        self.outputs: dict[str, ChainOut] = {}
        self._wires: dict[tuple[int, int], list[tuple[Readout | Matrix | ChainIn | ChainOut, str]]] = {}
        homes = {p.line: p.controller for p in r.design.pins}
        for network in networks(r):
            if all(homes.get(line.id) == controller for line in network.lines):
                self._network(network)
        for c in self.channels:
            if c.kind == "text" and c.name not in self.readouts:
                self.readouts[c.name] = (Readout(), 0)
                for line, wire in zip(c.lines, ("data", "clock", "load"), strict=True):
                    self._hang(self.readouts[c.name][0], self.pins[line.id], wire)
        chip.watch(self._changed)
        for c in self.channels:
            if c.kind == "level":
                chip.volts(self.pin(c), 0.0)

    def _hang(self, what: Readout | Matrix | ChainIn | ChainOut, pin: str, wire: str) -> None:
        self._wires.setdefault(self.chip.pins[pin], []).append((what, wire))

    def _network(self, network: Network) -> None:
        pins = {line.id.rpartition(".")[2]: self.pins[line.id] for line in network.lines}
        what: Readout | Matrix | ChainIn | ChainOut
        if network.kind == "matrix":
            cells = [(s.id, f"row-{n}", f"column-{k}") for n, row in enumerate(network.grid.rows, 1)
                     for k, s in enumerate(row, 1)]  # fmt: skip
            what = Matrix(self.chip, {line: (pins[row], pins[column]) for line, row, column in cells})
            self.inputs |= dict.fromkeys(what.at, what)
        elif network.kind in ("shift-in", "shift-out"):
            found = places(network, SHIFT_IN if network.kind == "shift-in" else SHIFT_OUT)
            at = {line: (n, terminal[-1]) for line, (n, terminal) in found.items()}
            if network.kind == "shift-in":
                what = ChainIn(self.chip, pins.pop("data"), at)
                self.inputs |= dict.fromkeys(at, what)
            else:
                what = ChainOut(at)
                self.outputs |= dict.fromkeys(at, what)
        else:
            there = list(dict.fromkeys(s.line.function for s in network.signals))
            what = Readout(len(there))
            names = {c.function: c.name for c in self.channels}
            self.readouts |= {names[f]: (what, n) for n, f in enumerate(there)}
        for wire, pin in pins.items():
            self._hang(what, pin, wire)

    def _changed(self, port: int, bit: int, level: int, _cycle: int) -> None:
        if bit < 0:
            for matrix in {id(m): m for m in self.inputs.values() if isinstance(m, Matrix)}.values():
                matrix.turned(port, level)
        for what, wire in self._wires.get((port, bit), ()):
            what.changed(wire, bool(level))

    def pin(self, channel: Channel, n: int = 0) -> str:
        return self.pins[channel.lines[n].id]

    def close(self, channel: Channel, n: int, closed: bool) -> None:
        """A contact: to ground, or wherever its scheme has it."""
        line = channel.lines[n].id
        if line in self.inputs:
            closes = self.inputs[line].closed
            closes.add(line) if closed else closes.discard(line)
            return
        self.chip.drive(self.pin(channel, n), False if closed else None)

    def tell(self, *lines: str, wait: float = SEEN) -> list[str]:
        """Types lines, and gives back what is said until a while later, without checksums."""
        self.chip.hear("".join(f"{line}\n" for line in lines))
        return self.heard(wait)

    def heard(self, wait: float = SEEN) -> list[str]:
        self.chip.run(wait)
        return [re.sub(r" ~[0-9A-F]{2}$", "", line) for line in self.chip.said().split("\r\n") if line]

    def turn(self, channel: Channel, detents: int, seconds: float = 0.005) -> None:
        """An encoder, so long from detent to detent; channel A leads on the way onward."""
        first, second = (0, 1) if detents > 0 else (1, 0)
        for _ in range(abs(detents)):
            for n, closed in ((first, True), (second, True), (first, False), (second, False)):
                self.close(channel, n, closed)
                self.chip.run(seconds / 4)

    def brightness(self, channel: Channel) -> int:
        """0 to 255: of a pin that is driven, or of the timer that dims it; of a chip's output."""
        line = channel.lines[0].id
        if line in self.outputs:
            chain = self.outputs[line]
            return 255 * chain.shown[chain.places[line]]
        pin = self.pins[line]
        control, shift, compare = COMPARE[self.kind].get(pin, (0, 0, 0))
        if compare and self.chip.memory(control) >> shift & 3:
            return self.chip.memory(compare)
        return 255 if self.chip.drives(pin) else 0


@contextmanager
def powered(r: Resolved, controller: str, where: Path, revision: int = 7) -> Iterator[Panel]:
    """A board of a design, its program compiled and running, its greeting heard."""
    chip = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller)).chip
    built = compiled(sketch(r, controller, revision).files, chip, where)
    assert built.words == "", "the compiler has something to say about our files"
    assert built.over == ""
    with Chip(built) as running:
        panel = Panel(r, controller, running)
        panel.heard(0.3)
        yield panel


def reported(said: Sequence[str], name: str) -> list[str]:
    """The values of the events of one channel."""
    return [line.split()[2] for line in said if line.startswith(f"in {name} ")]
