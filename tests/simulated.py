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
        self.bits: list[int] = [0] * 16 * chained
        self.registers = [dict.fromkeys(range(16), 0) for _ in range(chained)]

    def clocked(self, data: bool) -> None:
        self.bits = [*self.bits[1:], int(data)]

    def loaded(self) -> None:
        for n, registers in enumerate(reversed(self.registers)):
            word = int("".join(map(str, self.bits[16 * n : 16 * n + 16])), 2)
            registers[word >> 8 & 15] = word & 0xFF

    def shows(self, place: int = 0) -> list[int]:
        """The segments of each digit from the left; none while it sleeps, all in its test."""
        it = self.registers[place]
        digits = range(it[11] + 1, 0, -1)
        return [0xFF if it[15] & 1 else it[n] if it[12] & 1 else 0 for n in digits]


class Panel:
    """One board of a design with its program, and the controls and lamps on its pins."""

    def __init__(self, r: Resolved, controller: str, chip: Chip) -> None:
        self.r, self.chip = r, chip
        self.pins = {p.line: p.pin for p in r.design.pins}
        self.channels = [c for c in channels(r).channels if c.controller == controller]
        self.kind = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller)).chip
        self.readouts = {c.name: Readout() for c in self.channels if c.kind == "text"}
        self._wires: dict[tuple[int, int], tuple[Readout, str]] = {}
        self._levels: dict[Readout, bool] = {}
        for c in self.channels:
            if c.kind == "text":
                for line, wire in zip(c.lines, ("data", "clock", "load"), strict=True):
                    self._wires[chip.pins[self.pins[line.id]]] = (self.readouts[c.name], wire)
        chip.watch(self._changed)
        for c in self.channels:
            if c.kind == "level":
                chip.volts(self.pin(c), 0.0)

    def _changed(self, port: int, bit: int, level: int, _cycle: int) -> None:
        readout, wire = self._wires.get((port, bit), (None, ""))
        if readout is None:
            return
        if wire == "data":
            self._levels[readout] = bool(level)
        elif wire == "clock" and level:
            readout.clocked(self._levels.get(readout, False))
        elif wire == "load" and level:
            readout.loaded()

    def pin(self, channel: Channel, n: int = 0) -> str:
        return self.pins[channel.lines[n].id]

    def close(self, channel: Channel, n: int, closed: bool) -> None:
        """A contact to ground."""
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

    def brightness(self, pin: str) -> int:
        """0 to 255: of a pin that is driven, or of the timer that dims it."""
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
