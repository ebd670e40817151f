"""The protocol typed by hand: to a board at a port, or to its program on a simulated chip in the time of the clock."""

from __future__ import annotations

import queue
import threading
import time
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory

from wingboard.core.record.controllers import board_of
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import programmed
from wingboard.core.wire.program.identity import board_of_letter
from wingboard.core.wire.program.sketch import sketch
from wingboard.core.wire.program.tables import letter_of
from wingboard.devices.chip import Chip
from wingboard.devices.host import PING, STARTS, Wire
from wingboard.devices.native import ARCHITECTURES, Native, compiled_here
from wingboard.devices.spoken import Lines
from wingboard.devices.toolchain import compiled

STEP = 0.01
"""Seconds that a simulated chip runs at once."""
LAST = 1.0
"""Seconds in which the last line is still answered."""


class InTime:
    """A simulated chip that is no faster than the clock."""

    def __init__(self, chip: Chip | Native) -> None:
        self.chip, self._begun = chip, time.monotonic()

    @property
    def now(self) -> float:
        """Seconds of the chip since reset."""
        return self.chip.now

    @property
    def behind(self) -> float:
        """Seconds by which the chip is slower than the clock; nothing where it keeps up."""
        return max(0.0, time.monotonic() - self._begun - self.chip.now)

    def hear(self, text: str) -> None:
        """Letters to its port."""
        self.chip.hear(text)

    def said(self) -> str:
        """What it said within a moment, after waiting for the clock."""
        time.sleep(max(0.0, self.chip.now - (time.monotonic() - self._begun)))
        self.chip.run(STEP)
        return self.chip.said()


@contextmanager
def simulated(r: Resolved, letter: str, revision: int) -> Iterator[InTime]:
    """A board of a design, its program running on a simulated chip.

    :param letter: the board's, A for the first. :raises UnknownThing: there is no such board, or it takes no program.
    :raises NoTools: this machine cannot compile or simulate it.
    """
    board = board_of_letter(r, letter.upper())
    if not board:
        there = ", ".join(letter_of(r, one) for one in programmed(r))
        raise UnknownThing(f"There is no board {letter} that takes a program; there are: {there or 'none'}")
    chip = board_of(r.design, next(c.board for c in r.design.controllers if c.id == board)).chip
    files = sketch(r, board, revision).files
    with TemporaryDirectory() as made, _started(files, chip, Path(made)) as running:
        yield InTime(running)


def _started(files: Mapping[str, str], chip: str, where: Path) -> Chip | Native:
    if chip in ARCHITECTURES:
        return Native(compiled_here(files, chip, where))
    return Chip(compiled(files, chip, where))


def typed(wire: Wire, lines: Iterable[str]) -> Iterator[str]:
    """What a board says while these lines are typed; the answers to pings of our own are kept back."""
    waiting: queue.Queue[str | None] = queue.Queue()
    threading.Thread(target=_read, args=(lines, waiting), daemon=True).start()
    incoming, pings, last, ends, greeted = Lines(), 0, 0.0, None, False
    while ends is None or wire.now < ends:
        for heard in incoming.take(wire.said()):
            if heard.words == ("pong",) and pings:
                pings -= 1
                continue
            greeted |= heard.words[0] == "board"
            yield f"garbled: {' '.join(heard.words)}" if heard.garbled else " ".join(heard.words)
        if ends is not None or not (greeted or wire.now > STARTS):
            continue  # one that starts anew hears nothing yet
        try:
            line = waiting.get_nowait()
        except queue.Empty:
            line = ""
        if line is None:
            ends = wire.now + LAST
        elif line:
            wire.hear(line.rstrip("\r\n") + "\n")
            last = wire.now
        elif wire.now - last > PING:
            wire.hear("ping\n")
            pings, last = pings + 1, wire.now


def _read(lines: Iterable[str], waiting: queue.Queue[str | None]) -> None:
    for line in lines:
        waiting.put(line if line.strip() else "")
    waiting.put(None)
