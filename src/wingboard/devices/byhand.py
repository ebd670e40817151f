"""The protocol typed by hand, to the program of a board that runs on a simulated chip in the time of the clock."""

from __future__ import annotations

import queue
import threading
import time
from collections.abc import Iterable, Iterator
from pathlib import Path
from tempfile import TemporaryDirectory

from wingboard.core.record.controllers import board_of
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.sketch import programmed, sketch
from wingboard.core.wire.program.tables import letter_of
from wingboard.devices.chip import Chip
from wingboard.devices.spoken import Lines
from wingboard.devices.toolchain import compiled

STEP = 0.01
"""Seconds that the chip runs at once."""
PING = 1.0
"""Seconds after which the link is kept by itself where nothing is typed."""
LAST = 0.3
"""Seconds in which the last line is still answered."""


def typed(r: Resolved, letter: str, revision: int, lines: Iterable[str]) -> Iterator[str]:
    """What a board says while these lines are typed; the answers to pings of our own are kept back.

    :param letter: the board's, A for the first. :raises UnknownThing: there is no such board, or it takes no program.
    :raises NoTools: this machine cannot compile or simulate it.
    """
    boards = {letter_of(r, board): board for board in programmed(r)}
    if letter.upper() not in boards:
        raise UnknownThing(f"There is no board {letter} that takes a program; there are: {', '.join(boards) or 'none'}")
    board = boards[letter.upper()]
    chip = board_of(r.design, next(c.board for c in r.design.controllers if c.id == board)).chip
    with TemporaryDirectory() as made:
        built = compiled(sketch(r, board, revision).files, chip, Path(made))
        with Chip(built) as running:
            yield from _talk(running, lines)


def _talk(chip: Chip, lines: Iterable[str]) -> Iterator[str]:
    waiting: queue.Queue[str | None] = queue.Queue()
    threading.Thread(target=_read, args=(lines, waiting), daemon=True).start()
    incoming, started, pings, last, ends = Lines(), time.monotonic(), 0, 0.0, None
    while ends is None or chip.now < ends:
        chip.run(STEP)
        for heard in incoming.take(chip.said()):
            if heard.words == ("pong",) and pings:
                pings -= 1
                continue
            yield f"garbled: {' '.join(heard.words)}" if heard.garbled else " ".join(heard.words)
        if ends is None and chip.now > 0.1:  # it greets first
            try:
                line = waiting.get_nowait()
            except queue.Empty:
                line = ""
            if line is None:
                ends = chip.now + LAST
            elif line:
                chip.hear(line.rstrip("\r\n") + "\n")
                last = chip.now
        if chip.now - last > PING and ends is None:
            chip.hear("ping\n")
            pings, last = pings + 1, chip.now
        ahead = chip.now - (time.monotonic() - started)
        if ahead > 0 and ends is None:
            time.sleep(ahead)


def _read(lines: Iterable[str], waiting: queue.Queue[str | None]) -> None:
    for line in lines:
        waiting.put(line if line.strip() else "")
    waiting.put(None)
