"""The tables of a board's program: a line for each thing that is read or driven, so that a changed pin changes one."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal, NamedTuple

from wingboard.core.record.controllers import Board, Pin, board_of
from wingboard.core.record.lamps import wanted_colour
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pinfiles import number_of
from wingboard.core.wire.program.channels import READ, Channel, channels, slug
from wingboard.core.wire.program.differing import (
    fingerprint,
    ladder_of,
    leds_behind,
    light_level,
    state_of,
    tests_lamps,
)
from wingboard.core.wire.schemes.chips import ADDRESS, EXPANDER, ON_ONE_BUS, SHIFT_IN, SHIFT_OUT
from wingboard.core.wire.schemes.digits import shown
from wingboard.core.wire.schemes.networks import Network, networks
from wingboard.core.wire.schemes.shift import chip_count, places
from wingboard.core.wire.signals import Line

PROTOCOL = 1
"""Of ``docs/protocol.md``."""
EDITION = 1
"""Of the files beside the tables: one more whenever they make a board do something otherwise, so that one that was
written before can be told."""
TIMERS: dict[str, int] = {"ATmega328P": 2, "ATmega2560": 3, "ATmega32U4": 3}
"""By chip: a timer other than the clock's, by which encoders are looked at; it goes on dimming what hangs on it."""
WHEN_LOST = {"hold": "HOLD", "off": "0", "on": "255", "blink": "BLINK"}
"""What stands in the table for what a lamp does without a link."""
OF_CONTACTS = ("pattern", "selector", "binary")
"""Kinds of what is read over contacts: they come first."""
TINTS: dict[str, tuple[int, int, int]] = {
    "red": (255, 0, 0), "amber": (255, 110, 0), "yellow": (255, 200, 0), "green": (0, 255, 0), "blue": (0, 0, 255),
    "white": (255, 255, 255),
}  # fmt: skip
"""Red, green and blue of an addressable lamp for the colours of lamps (common practice; by eye)."""
MANY = 250
"""Things of one kind from which on they are counted with two bytes."""
NO_PIN = 255
"""For a wire that a read-out does not have."""


class Tables(NamedTuple):
    """``tables.h`` of a board, and what the program needs to know to choose its files."""

    text: str
    has: frozenset[str]
    """Names of the blocks that it takes."""


class _Row(NamedTuple):
    """An entry of a table: its figures, and what it is of."""

    cells: tuple[str, ...]
    comment: str


def letter_of(r: Resolved, controller: str) -> str:
    """A board's letter: A for the first of the design, AA for the one after Z."""
    n = [c.id for c in r.design.controllers].index(controller)
    return ("" if n < 26 else chr(ord("A") + n // 26 - 1)) + chr(ord("A") + n % 26)


def free_pins(r: Resolved, controller: str) -> tuple[Pin, ...]:
    """Pins of a board that no line has: those that read and drive, and are not read at power-up."""
    board = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller))
    taken = {p.pin for p in r.design.pins if p.controller == controller}
    return tuple(pin for pin in board.pins if pin.name not in taken and pin.reads and pin.drives and not pin.strap)


def tables(r: Resolved, controller: str, revision: int) -> Tables:
    """The tables of one board of a design at a revision."""
    return _Writing(r, controller, revision).done()


class _Writing:
    """The tables of one board in the making."""

    def __init__(self, r: Resolved, controller: str, revision: int) -> None:
        self.r, self.controller, self.revision = r, controller, revision
        self.board: Board = board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller))
        self.mine = [c for c in channels(r).channels if c.controller == controller]
        self.pins = {p.line: p.pin for p in r.design.pins}
        self.where: dict[str, tuple[str, str, str]] = {}
        """Of a terminal that a network reads or drives: where, and two figures for it."""
        self.contacts: list[_Row] = []
        self.testers: list[_Row] = []
        self.encoders: list[_Row] = []
        self.levels: list[_Row] = []
        self.ladders: list[_Row] = []
        self.ends: list[_Row] = []
        self.displays: list[_Row] = []
        self.gauges: list[_Row] = []
        self.rows: list[_Row] = []
        self.columns: list[_Row] = []
        self.expanders: list[_Row] = []
        self.bus = ("", "")
        self.pixels: list[_Row] = []
        self.chains: dict[str, list[_Row]] = {"in": [], "out": []}
        self.chips = {"in": 0, "out": 0}
        self.strings: dict[str, tuple[tuple[str, ...], int, int]] = {}
        """Of a read-out in a chain: the chain's pins, its place, how many there are."""
        homes = {p.line: p.controller for p in r.design.pins}
        for network in networks(r):
            if all(homes.get(line.id) == controller for line in network.lines):
                self._network(network)

    def _network(self, network: Network) -> None:
        pins = {line.id.rpartition(".")[2]: self._pin(line) for line in network.lines}
        if network.kind in ("matrix", "matrix-bare"):
            first = len(self.columns)
            for n, row in enumerate(network.grid.rows, 1):
                for k, signal in enumerate(row):
                    self.where[signal.id] = ("IN_MATRIX", str(len(self.rows)), str(k))
                cells = (pins[f"row-{n}"], str(first), str(len(row)))
                self.rows.append(_Row(cells, f"{network.name}: row {n}"))
            self.columns += [_Row((pins[f"column-{k}"],), f"{network.name}: column {k}")
                             for k in range(1, network.grid.columns + 1)]  # fmt: skip
        elif network.kind in ("shift-in", "shift-out"):
            self._chain(network, "in" if network.kind == "shift-in" else "out", pins)
        elif network.kind == "expander":
            self.bus = (pins["sda"], pins["scl"])
            self._expanders(network)
        elif network.kind == "pixels":
            for signal in network.signals:
                self.where[signal.id] = self._pixel(pins["data"], 1, signal.line.function, signal.line.name)
        elif network.kind == "digits":
            there = shown(network)
            wires = (pins["data"], pins["clock"], pins["load"])
            self.strings |= {one.function: (wires, n, len(there)) for n, one in enumerate(there)}

    def _chain(self, network: Network, way: Literal["in", "out"], pins: Mapping[str, str]) -> None:
        chip, first = (SHIFT_IN, self.chips["in"]) if way == "in" else (SHIFT_OUT, self.chips["out"])
        found = places(network, chip)
        for line, (n, terminal) in found.items():
            bit = ord(terminal.split()[-1][-1]) - ord("A")
            self.where[line] = ("IN_CHAIN" if way == "in" else "ON_CHAIN", str(first + n - 1), str(bit))
        many = max(n for n, _ in found.values())
        third = pins["load"] if way == "in" else pins["latch"]
        cells = (pins["data"], pins["clock"], third, str(first), str(many))
        self.chains[way].append(_Row(cells, network.name))
        self.chips[way] += many

    def _expanders(self, network: Network) -> None:
        """What is driven is an output, all else an input with its pull-up, but for what only drives."""
        outs: dict[int, int] = {}
        ins: dict[int, int] = {}
        driven = {s.id for s in network.signals if s.line.direction == "out"}
        first = len(self.expanders)
        for line, (n, terminal) in places(network, EXPANDER).items():
            name = terminal.split()[-1]
            bit = int(name[-1]) + (8 if name[2] == "B" else 0)
            way = outs if line in driven else ins
            way[n] = way.get(n, 0) | 1 << bit
            self.where[line] = ("ON_EXPANDER" if line in driven else "IN_EXPANDER", str(first + n - 1), str(bit))
        only = sum(1 << (7 if name[2] == "A" else 15) for name in EXPANDER.drives)
        for n in range(1, chip_count(network, EXPANDER) + 1):
            inputs = 0xFFFF & ~outs.get(n, 0) & ~only
            address = ADDRESS + (first + n - 1) % ON_ONE_BUS
            reads = "true" if ins.get(n) else "false"
            cells = (f"0x{address:02X}", f"0x{inputs:04X}", reads)
            self.expanders.append(_Row(cells, f"{network.name}: chip {n}"))

    def _pixel(self, pin: str, leds: int, function: str, name: str, level: float = 1.0) -> tuple[str, str, str]:
        """An addressable lamp, or a strip of them, behind those of its chain that are there already."""
        f = self.r.functions.get(function)
        tint = TINTS[(wanted_colour(f) if f else None) or "white"]
        colour = f"{{{', '.join(str(round(part * level)) for part in tint)}}}"
        self.pixels.append(_Row((pin, str(leds), colour), _plain(name)))
        return "ON_PIXELS", str(len(self.pixels) - 1), "0"

    def done(self) -> Tables:
        inputs = [self._input(c) for c in sorted(self.mine, key=lambda c: c.kind not in OF_CONTACTS) if c.kind in READ]
        outputs = [self._output(c) for c in self.mine if c.kind not in READ]
        free = self._free()
        of_chain = "data, clock, {}, the first of its chips, how many"
        parts = [
            *self._head(),
            *_table("Input", "INPUTS", "INPUT_COUNT", "What is read, by contacts before all else", inputs),
            *_table("Contact", "CONTACTS", "CONTACT_COUNT", "Contacts, and where each is read", self.contacts),
            *_table("Number", "TESTERS", "TESTER_COUNT", "Contacts that light every lamp here", self.testers),
            *_table("MatrixRow", "MATRIX_ROWS", "MATRIX_ROW_COUNT", "Rows of matrices: pin, first column, how many",
                    self.rows),
            *_table("uint8_t", "MATRIX_COLUMNS", "MATRIX_COLUMN_COUNT", "Columns of matrices", self.columns),
            *_table("Chain", "CHAINS_IN", "CHAIN_IN_COUNT", f"Chains of 74HC165: {of_chain.format('load')}",
                    self.chains["in"]),
            *_table("Expander", "EXPANDERS", "EXPANDER_COUNT", "Expanders: address, terminals that are inputs, "
                    "whether any of these is read", self.expanders),
            *_table("Encoder", "ENCODERS", "ENCODER_COUNT", "Encoders: channel A, channel B", self.encoders),
            *_table("uint8_t", "LEVELS", "LEVEL_COUNT", "Voltages", self.levels),
            *_table("Ladder", "LADDERS", "LADDER_COUNT", "Ladders: pin, first window, positions", self.ladders),
            *_table("uint16_t", "LADDER_ENDS", "", "The last reading of each position's window", self.ends),
            *_table("Output", "OUTPUTS", "OUTPUT_COUNT", "What is driven", outputs),
            *_table("Chain", "CHAINS_OUT", "CHAIN_OUT_COUNT", f"Chains of 74HC595: {of_chain.format('latch')}",
                    self.chains["out"]),
            *_table("Pixel", "PIXELS", "PIXEL_COUNT", "Addressable lamps in the order of their chains: pin, how "
                    "many LEDs show the same, red, green, blue", self.pixels),
            *_table("Display", "DISPLAYS", "DISPLAY_COUNT", f"Read-outs: data, clock, load ({NO_PIN}: none), place in "
                    "their chain of so many, digits, how many of them stay dark", self.displays),
            *_table("Gauge", "GAUGES", "GAUGE_COUNT", "Gauges: the pins of their terminals 1 to 4", self.gauges),
            *_table("FreePin", "FREE_PINS", "FREE_COUNT", "Pins that the design gives to nothing", free),
        ]  # fmt: skip
        has = {
            "inputs": inputs, "contacts": inputs, "matrix": self.rows, "encoders": self.encoders,
            "discovery": free, "chains": [*self.chains["in"], *self.chains["out"]],
            "levels": [*self.levels, *self.ladders], "outputs": outputs,
            "digits": self.displays, "expanders": self.expanders, "pixels": self.pixels, "gauges": self.gauges,
            "twowires": [row for row in self.displays if row.cells[2] == str(NO_PIN)],
        }  # fmt: skip
        return Tables("\n".join(parts) + "\n", frozenset(name for name, rows in has.items() if rows))

    def _head(self) -> Iterator[str]:
        design = self.r.design
        name = next(c.name for c in design.controllers if c.id == self.controller)
        longest = max((len(c.name) for c in self.mine), default=1) + 1
        yield f"// {_plain(design.name)}, {_plain(name)}: what is on this board. Made from the design; change it there."
        yield "#pragma once"
        yield ""
        yield f"#define PROTOCOL {PROTOCOL}"
        yield f"#define EDITION {EDITION}"
        yield f"#define REVISION {self.revision}"
        yield f"#define LONGEST_NAME {longest}"
        yield f"#define LEVEL_BITS {self.board.bits}"
        yield f"#define HIGHEST_LEVEL {(1 << self.board.bits) - 1}"
        if max(len(of) for of in (self.mine, self.contacts, self.ends, self.pixels)) >= MANY:
            yield "#define MANY_THINGS"
        yield f"#define CONTACT_INPUTS {sum(c.kind in OF_CONTACTS for c in self.mine)}"
        for way, chips in self.chips.items():
            if chips:
                yield f"#define CHAIN_{way.upper()}_CHIPS {chips}"
        if any(state_of(self.r, c)[1] == "blink" for c in self.mine):
            yield "#define BLINKS"
        if self.expanders:
            for name, pin in zip(("SDA", "SCL"), self.bus, strict=True):
                yield f"#define BUS_{name} {pin}"
        if any(row.cells[2] == str(NO_PIN) for row in self.displays):
            yield "#define ON_TWO_WIRES"
        timer = TIMERS.get(self.board.chip)
        if timer:
            yield f"#define ENCODER_TIMER {timer}"
        yield '#include "board.h"'
        yield ""
        yield f'const char DESIGN[] PROGMEM = "{slug(design.name)}";'
        yield f'const char BOARD_LETTER[] PROGMEM = "{letter_of(self.r, self.controller)}";'
        yield f'const char LINES[] PROGMEM = "{fingerprint(self.r, self.controller)}";'

    def _pin(self, line: Line) -> str:
        return number_of(self.pins[line.id])

    def _free(self) -> list[_Row]:
        free = free_pins(self.r, self.controller)
        return [_Row((f'"{pin.name}"', number_of(pin.name)), "free") for pin in free]

    def _contact(self, line: Line) -> tuple[str, ...]:
        """Where a contact is read, and the level there while it is closed."""
        where, a, b = self.where.get(line.id) or ("ON_PIN", self._pin(line), "0")
        return where, a, b, "HIGH" if line.divided else "LOW"

    def _input(self, channel: Channel) -> _Row:
        first, count = 0, 1
        if channel.kind in OF_CONTACTS:
            first, count = len(self.contacts), len(channel.lines)
            words = [f"bit {n}" for n in range(1, count + 1)] if channel.kind == "binary" else channel.words
            if tests_lamps(self.r, channel):
                self.testers += (_Row((str(first + n),), channel.name) for n in range(count))
            for line, word in zip(channel.lines, words, strict=True):
                self.contacts.append(_Row(self._contact(line), _plain(f"{channel.name}: {word}")))
        elif channel.kind == "turn":
            first = len(self.encoders)
            self.encoders.append(_Row(tuple(map(self._pin, channel.lines)), channel.name))
        elif channel.kind == "level":
            first = len(self.levels)
            self.levels.append(_Row((self._pin(channel.lines[0]),), channel.name))
        else:
            first, made = len(self.ladders), ladder_of(self.r, channel)
            count = len(made.taps)
            self.ladders.append(_Row((self._pin(channel.lines[0]), str(len(self.ends)), str(count)), channel.name))
            self.ends += [_Row((str(tap.high),), f"{channel.name}: {tap.way}") for tap in made.taps]
        how = f"{{{channel.kind.upper()}, {first}, {count}}}"
        return _Row((f'"{channel.name}"', how), _of(self.r, channel))

    def _output(self, channel: Channel) -> _Row:
        line = channel.lines[0]
        if channel.kind == "colour":
            where, a, b = self.where.get(line.id) or self._own_pixels(channel)
        elif channel.kind == "needle":
            where, a, b = "ON_GAUGE", str(len(self.gauges)), "0"
            self.gauges.append(_Row((f"{{{', '.join(map(self._pin, channel.lines))}}}",), channel.name))
        elif channel.kind == "text":
            where, a, b = "ON_DISPLAY", str(len(self.displays)), "0"
            alone = (tuple(self.pins.get(one.id, "") for one in channel.lines), 0, 1)
            wires, place, many = self.strings.get(channel.function, alone)
            numbers = [*map(number_of, wires), str(NO_PIN)][:3]
            cells = (*numbers, str(place), str(many), str(channel.digits), str(channel.dark))
            self.displays.append(_Row(cells, channel.name))
        else:
            where, a, b = self.where.get(line.id) or ("ON_PIN", self._pin(line), "0")
        begins, without = state_of(self.r, channel)
        boot, lost = str(begins), "0" if channel.kind in ("load", "sound") else WHEN_LOST[without]
        kind = "LOAD" if channel.kind == "sound" else channel.kind.upper()
        most = "255" if channel.function or channel.kind == "colour" else str(round(255 * light_level(self.r, channel)))
        return _Row((f'"{channel.name}"', kind, where, a, b, most, boot, lost), _of(self.r, channel))

    def _own_pixels(self, channel: Channel) -> tuple[str, str, str]:
        """Addressable lamps on a pin of their own: one, or all that light a module from behind."""
        pin = self._pin(channel.lines[0])
        if channel.function:
            return self._pixel(pin, 1, channel.function, channel.name)
        return self._pixel(pin, leds_behind(self.r, channel), "", channel.name, light_level(self.r, channel))


def _plain(text: str) -> str:
    """Words for a comment of a program, which one backslash at its end would make go on."""
    return text.replace("\\", "/")


def _of(r: Resolved, channel: Channel) -> str:
    name = r.functions[channel.function].name if channel.function else channel.lines[0].name
    return _plain(f"{name}: {', '.join(line.terminal for line in channel.lines)}")


def _table(kind: str, name: str, count: str, words: str, rows: Sequence[_Row]) -> Iterator[str]:
    """A table with a line for each row; of none only its length."""
    yield ""
    if count:
        yield f"#define {count} {len(rows)}"
    if not rows:
        return
    yield f"// {words}."
    yield f"const {kind} {name}[] PROGMEM = {{"
    simple = kind in ("uint8_t", "uint16_t", "Number")
    for n, row in enumerate(rows):
        cells = ", ".join(row.cells)  # in no columns: else a longer pin would change every line
        yield f"    {cells if simple else f'{{{cells}}}'},  // {n}: {row.comment}"
    yield "};"
