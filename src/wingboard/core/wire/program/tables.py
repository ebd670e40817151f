"""The tables of a board's program: a line for each thing that is read or driven, so that a changed pin changes one."""

from __future__ import annotations

import zlib
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import Board, board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pinfiles import number_of
from wingboard.core.wire.program.channels import READ, Channel, channels, slug
from wingboard.core.wire.schemes.ladder import Ladder, ladder
from wingboard.core.wire.signals import Line

PROTOCOL = 1
"""Of ``docs/protocol.md``."""
TIMERS: dict[str, int] = {"ATmega328P": 2, "ATmega2560": 3, "ATmega32U4": 3}
"""By chip: a timer other than the clock's, by which encoders are looked at; it goes on dimming what hangs on it."""
BLANK = ("", "")
NO_LAMP = 255
"""In place of the number of the lamp that shows a lost link."""


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
    """A board's letter: A for the first of the design."""
    n = [c.id for c in r.design.controllers].index(controller)
    return chr(ord("A") + n) if n < 26 else f"B{n + 1}"


def fingerprint(of: Sequence[Channel], pins: dict[str, str]) -> str:
    """Four figures that change when a name, a kind or a pin does: two programs with the same ones do the same."""
    told = "\n".join(f"{c.name} {c.kind} {' '.join(pins[line.id] for line in c.lines)}" for c in of)
    return f"{zlib.crc32(told.encode()) & 0xFFFF:04X}"


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
        self.contacts: list[_Row] = []
        self.encoders: list[_Row] = []
        self.levels: list[_Row] = []
        self.ladders: list[_Row] = []
        self.ends: list[_Row] = []
        self.displays: list[_Row] = []

    def done(self) -> Tables:
        inputs = [self._input(c) for c in self.mine if c.kind in READ]
        outputs = [self._output(c) for c in self.mine if c.kind not in READ]
        parts = [
            *self._head(),
            *_table("Input", "INPUTS", "INPUT_COUNT", "What is read", inputs),
            *_table("Contact", "CONTACTS", "CONTACT_COUNT", "Contacts, and where each is read", self.contacts),
            *_table("Encoder", "ENCODERS", "ENCODER_COUNT", "Encoders: channel A, channel B", self.encoders),
            *_table("uint8_t", "LEVELS", "LEVEL_COUNT", "Voltages", self.levels),
            *_table("Ladder", "LADDERS", "LADDER_COUNT", "Ladders: pin, first window, positions", self.ladders),
            *_table("uint16_t", "LADDER_ENDS", "", "The last reading of each position's window", self.ends),
            *_table("Output", "OUTPUTS", "OUTPUT_COUNT", "What is driven", outputs),
            *_table("Display", "DISPLAYS", "DISPLAY_COUNT", "Read-outs: data, clock, load, place in their chain of so "
                    "many, digits, how many of them stay dark", self.displays),
        ]  # fmt: skip
        counted = {"contacts": self.contacts, "encoders": self.encoders, "levels": [*self.levels, *self.ladders],
                   "digits": self.displays, "inputs": inputs, "outputs": outputs}  # fmt: skip
        return Tables("\n".join(parts) + "\n", frozenset(name for name, rows in counted.items() if rows))

    def _head(self) -> Iterator[str]:
        design = self.r.design
        name = next(c.name for c in design.controllers if c.id == self.controller)
        longest = max((len(c.name) for c in self.mine), default=1) + 1
        yield f"// {_plain(design.name)}, {_plain(name)}: what is on this board. Made from the design; change it there."
        yield "#pragma once"
        yield ""
        yield f"#define PROTOCOL {PROTOCOL}"
        yield f"#define REVISION {self.revision}"
        yield f"#define LONGEST_NAME {longest}"
        yield f"#define HIGHEST_LEVEL {(1 << self.board.bits) - 1}"
        yield f"#define LINK_LAMP {NO_LAMP}"
        timer = TIMERS.get(self.board.chip)
        if timer:
            yield f"#define ENCODER_TIMER {timer}"
        yield '#include "board.h"'
        yield ""
        yield f'const char DESIGN[] PROGMEM = "{slug(design.name)}";'
        yield f'const char BOARD_LETTER[] PROGMEM = "{letter_of(self.r, self.controller)}";'
        yield f'const char LINES[] PROGMEM = "{fingerprint(self.mine, self.pins)}";'

    def _pin(self, line: Line) -> str:
        return number_of(self.pins[line.id])

    def _input(self, channel: Channel) -> _Row:
        first, count = 0, 1
        if channel.kind in ("pattern", "selector"):
            first, count = len(self.contacts), len(channel.lines)
            for line, word in zip(channel.lines, channel.words or BLANK * count, strict=False):
                level = "HIGH" if line.divided else "LOW"
                self.contacts.append(_Row(("ON_PIN", self._pin(line), "0", level), f"{channel.name}: {word}"))
        elif channel.kind == "turn":
            first = len(self.encoders)
            a, b = channel.lines
            self.encoders.append(_Row((self._pin(a), self._pin(b)), channel.name))
        elif channel.kind == "level":
            first = len(self.levels)
            self.levels.append(_Row((self._pin(channel.lines[0]),), channel.name))
        else:
            first, made = len(self.ladders), self._ladder(channel)
            count = len(made.taps)
            self.ladders.append(_Row((self._pin(channel.lines[0]), str(len(self.ends)), str(count)), channel.name))
            self.ends += [_Row((str(tap.high),), f"{channel.name}: {tap.way}") for tap in made.taps]
        return _Row((f'"{channel.name}"', channel.kind.upper(), str(first), str(count)), _of(self.r, channel))

    def _ladder(self, channel: Channel) -> Ladder:
        f = self.r.functions[channel.function]
        tolerance = limit(self.r.design, "resistor-tolerance") / 100
        return ladder(len(channel.words), f.step, tolerance, f.steady, self.board.bits)

    def _output(self, channel: Channel) -> _Row:
        where, a = "ON_PIN", self._pin(channel.lines[0])
        if channel.kind == "text":
            where, a = "ON_DISPLAY", str(len(self.displays))
            pins = tuple(self._pin(line) for line in channel.lines)
            self.displays.append(_Row((*pins, "0", "1", str(channel.digits), str(channel.dark)), channel.name))
        lost = "0" if channel.kind == "load" else "HOLD"
        cells = (f'"{channel.name}"', channel.kind.upper(), where, a, "0", "0", lost)
        return _Row(cells, _of(self.r, channel))


def _plain(text: str) -> str:
    """Words for a comment of a program, which one backslash at its end would make go on."""
    return text.replace("\\", "/")


def _of(r: Resolved, channel: Channel) -> str:
    return _plain(f"{r.functions[channel.function].name}: {', '.join(line.terminal for line in channel.lines)}")


def _table(kind: str, name: str, count: str, words: str, rows: Sequence[_Row]) -> Iterator[str]:
    """A table with a line for each row; of none only its length."""
    yield ""
    if count:
        yield f"#define {count} {len(rows)}"
    if not rows:
        return
    yield f"// {words}."
    yield f"const {kind} {name}[] PROGMEM = {{"
    simple = kind.startswith("uint")
    widths = [max(len(row.cells[n]) for row in rows) for n in range(len(rows[0].cells))]
    for n, row in enumerate(rows):
        cells = ", ".join(cell.ljust(width) for cell, width in zip(row.cells, widths, strict=True)).rstrip()
        yield f"    {cells if simple else f'{{{cells}}}'},  // {n}: {row.comment}"
    yield "};"
