"""A panel round a simulated chip: its controls are moved, its lamps and read-outs looked at, as by hand and eye.

Nothing here asks the program: what hangs on its pins is written from data sheets (``hung.py``), brightness is read from
the timers' compare registers.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from hung import Addressed, Bus, ChainIn, ChainOut, Expander, Gauge, Matrix, Pair, Readout
from wingboard.core.light.kinds import STRIPS
from wingboard.core.light.power import strip_use
from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import Channel, channels
from wingboard.core.wire.program.sketch import sketch
from wingboard.core.wire.schemes.chips import ADDRESS, EXPANDER, SHIFT_IN, SHIFT_OUT
from wingboard.core.wire.schemes.networks import Network, networks
from wingboard.core.wire.schemes.shift import places
from wingboard.devices.chip import Chip
from wingboard.devices.native import ARCHITECTURES, Native, compiled_here, ours
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


class Panel:
    """One board of a design with its program, and the controls and lamps on its pins."""

    def __init__(self, r: Resolved, controller: str, chip: Chip | Native) -> None:
        self.r, self.chip = r, chip
        self.pins = {p.line: p.pin for p in r.design.pins}
        board = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller))
        self.full, self.most = board.volts, (1 << board.bits) - 1
        """Volts of its logic, and its converter's highest reading."""
        self.channels = [c for c in channels(r).channels if c.controller == controller]
        self.kind = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller)).chip
        self.readouts: dict[str, tuple[Readout, int]] = {}
        """Of each read-out its drivers, and its place among these."""
        self.pairs: dict[str, Pair] = {}
        self.gauges: dict[str, Gauge] = {}
        self._open = ""
        """A line whose end is still to come."""
        self.inputs: dict[str, Matrix | ChainIn] = {}
        self.outputs: dict[str, ChainOut] = {}
        self.bus = Bus(chip)
        self.on_bus: dict[str, tuple[Expander, int]] = {}
        """Of each terminal at an expander which, and its place there."""
        self.addressed: dict[str, tuple[Addressed, int]] = {}
        """Of each addressable lamp its chain, and its place in it."""
        self._wires: dict[tuple[int, int], list[Callable[[bool, float], None]]] = {}
        homes = {p.line: p.controller for p in r.design.pins}
        for network in networks(r):
            if all(homes.get(line.id) == controller for line in network.lines):
                self._network(network)
        for c in self.channels:
            self._alone(c)
        chip.watch(self._changed)

    def _alone(self, c: Channel) -> None:
        """What has pins of its own and is no switch or lamp."""
        if c.kind == "level":
            self.chip.volts(self.pin(c), 0.0)
        elif c.kind == "text" and c.name not in self.readouts:
            what = Readout() if len(c.lines) == 3 else Pair()
            if isinstance(what, Pair):
                self.pairs[c.name] = what
            else:
                self.readouts[c.name] = (what, 0)
            for line, wire in zip(c.lines, ("data", "clock", "load"), strict=False):
                self._hang(what, self.pins[line.id], wire)
        elif c.kind == "needle":
            self.gauges[c.name] = Gauge(400)
            for n, line in enumerate(c.lines):
                self._hang(self.gauges[c.name], self.pins[line.id], str(n))
        elif c.kind == "colour" and c.lines[0].id not in self.addressed:
            light = None if c.function else self.r.modules[c.lines[0].module].module.light
            lamps = sum(strip_use(s).leds for s in light.strips if STRIPS[s.kind].chain) if light else 1
            self._chain(self.pin(c), [c.lines[0].id], lamps)

    def _chain(self, pin: str, of: list[str], lamps: int) -> None:
        chain = Addressed(lamps)
        self.addressed |= {line: (chain, n) for n, line in enumerate(of)}
        self._wires.setdefault(self.chip.pins[pin], []).append(chain.at)

    def _hang(self, what: Readout | Matrix | ChainIn | ChainOut | Pair | Gauge, pin: str, wire: str) -> None:
        heard = self._wires.setdefault(self.chip.pins[pin], [])
        heard.append(lambda level, _: what.changed(wire, level))

    def _network(self, network: Network) -> None:
        pins = {line.id.rpartition(".")[2]: self.pins[line.id] for line in network.lines}
        what: Readout | Matrix | ChainIn | ChainOut
        if network.kind == "expander":
            first = ADDRESS + len(self.bus.there)
            for line, (n, terminal) in places(network, EXPANDER).items():
                there = self.bus.there.setdefault(first + n - 1, Expander())
                self.on_bus[line] = there, int(terminal[-1]) + 8 * (terminal[-2] == "B")
            return
        if network.kind == "pixels":
            self._chain(pins["data"], [s.id for s in network.signals], len(network.signals))
            return
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
            shown = list(dict.fromkeys(s.line.function for s in network.signals))
            what = Readout(len(shown))
            names = {c.function: c.name for c in self.channels}
            self.readouts |= {names[f]: (what, n) for n, f in enumerate(shown)}
        for wire, pin in pins.items():
            self._hang(what, pin, wire)

    def _changed(self, port: int, bit: int, level: int, cycle: int) -> None:
        if bit < 0:
            for matrix in {id(m): m for m in self.inputs.values() if isinstance(m, Matrix)}.values():
                matrix.turned(port, level)
        for tell in self._wires.get((port, bit), ()):
            tell(bool(level), cycle / self.chip.hertz)

    def shows(self, channel: Channel) -> list[int]:
        """The segments of a read-out's digits from the left."""
        if channel.name in self.pairs:
            return self.pairs[channel.name].shows(channel.digits)
        what, place = self.readouts[channel.name]
        return what.shows(place)

    def tint(self, channel: Channel) -> tuple[int, int, int]:
        """Red, green and blue of an addressable lamp, or of all of a strip."""
        chain, n = self.addressed[channel.lines[0].id]
        if not channel.function:
            assert len(set(chain.shown)) == 1, "all alike"
        return chain.shown[n]

    def pin(self, channel: Channel, n: int = 0) -> str:
        return self.pins[channel.lines[n].id]

    def close(self, channel: Channel, n: int, closed: bool) -> None:
        """A contact: to ground, or wherever its scheme has it."""
        line = channel.lines[n].id
        if line in self.inputs:
            closes = self.inputs[line].closed
            closes.add(line) if closed else closes.discard(line)
            return
        if line in self.on_bus:
            expander, bit = self.on_bus[line]
            expander.closed.add(bit) if closed else expander.closed.discard(bit)
            return
        self.chip.drive(self.pin(channel, n), False if closed else None)

    def tell(self, *lines: str, wait: float = SEEN) -> list[str]:
        """Types lines, and gives back what is said until a while later, without checksums."""
        self.chip.hear("".join(f"{line}\n" for line in lines))
        return self.heard(wait)

    def heard(self, wait: float = SEEN) -> list[str]:
        self.chip.run(wait)
        *whole, self._open = (self._open + self.chip.said()).split("\r\n")
        return [re.sub(r" ~[0-9A-F]{2}$", "", line) for line in whole if line]

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
        if line in self.on_bus:
            expander, bit = self.on_bus[line]
            return 255 * (not expander.bit(0x00, bit) and expander.level(bit))
        if line in self.addressed:
            return max(self.tint(channel))
        pin = self.pins[line]
        if isinstance(self.chip, Native):
            dimmed = self.chip.dims(pin)
            return 255 * bool(self.chip.drives(pin)) if dimmed is None else dimmed
        control, shift, compare = COMPARE[self.kind].get(pin, (0, 0, 0))
        if compare and self.chip.memory(control) >> shift & 3:
            return self.chip.memory(compare)
        return 255 if self.chip.drives(pin) else 0


@contextmanager
def _running(files: dict[str, str], chip: str, where: Path) -> Iterator[Chip | Native]:
    if chip in ARCHITECTURES:
        crossed = ours(files, chip, where)
        assert crossed is not None and crossed.words == "", "the chip's compiler has something to say about our files"
        here = compiled_here(files, chip, where)
        assert here.words == "", "the compiler has something to say about our files"
        with Native(here) as native:
            yield native
        return
    built = compiled(files, chip, where)
    assert built.words == "", "the compiler has something to say about our files"
    assert built.over == ""
    with Chip(built) as simulated:
        yield simulated


@contextmanager
def powered(
    r: Resolved, controller: str, where: Path, revision: int = 7, changed: tuple[str, str, str] = ("board.h", "", "")
) -> Iterator[Panel]:
    """A board of a design, its program compiled and running, its greeting heard. ``changed``: what a builder changed in
    which file: from, to."""
    chip = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller)).chip
    files = dict(sketch(r, controller, revision).files)
    name, was, now = changed
    files[name] = files[name].replace(was, now) if was else files[name]
    with _running(files, chip, where) as running:
        panel = Panel(r, controller, running)
        panel.heard(0.3)
        yield panel


def reported(said: Sequence[str], name: str) -> list[str]:
    """The values of the events of one channel."""
    return [line.split()[2] for line in said if line.startswith(f"in {name} ")]
