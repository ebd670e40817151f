"""The programs of a design's boards: a folder as one file, and what a program takes on its chip."""

from __future__ import annotations

import threading
from collections.abc import Iterable
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import NamedTuple

from wingboard.core.record.controllers import board_of
from wingboard.core.record.errors import DesignError, UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import READ, channels, programmed
from wingboard.core.wire.program.identity import Judged, greeting_of, judged
from wingboard.core.wire.program.sketch import Sketch, sketch
from wingboard.devices.host import greeting
from wingboard.devices.native import ARCHITECTURES, compiled_here, ours
from wingboard.devices.ports import NoPort, Port, ports
from wingboard.devices.toolchain import Built, compiled
from wingboard.services.archive import zipped
from wingboard.services.desk import Desk
from wingboard.store.errors import StoreError

_ONE = threading.Lock()
"""The tools have one core of the machine at a time."""


def on_board(desk: Desk, design_id: str, said: str) -> Judged:
    """What a board's answer to ``hello`` means for a design: whether it does what that says now, and what differs.

    :raises DesignError: it is no such answer.
    """
    now, then = desk.open(design_id), None
    answer = greeting_of(said)
    if 1 <= answer.revision <= now.row.number:
        with suppress(StoreError):
            then = desk.open(design_id, answer.revision).resolved
    return judged(answer, now.resolved, now.row.number, then)


def greeting_at(name: str) -> str:
    """What the board at a port of this machine says it is. :raises NoPort: there is no such port, or it cannot be had.
    :raises LinkLost: nothing there answers."""
    if name not in {there.port for there in ports()}:
        raise NoPort(f"Nothing is plugged in at “{name[:80]}”", "port")
    with Port(name) as wire:
        return greeting(wire)


class Size(NamedTuple):
    """Bytes that a program takes, and that its chip has; ``over``: by how much it does not fit, and what to take away,
    ``cannot``: why it was not compiled here, ``partly``: what could be done instead."""

    flash: int = 0
    flash_of: int = 0
    ram: int = 0
    ram_of: int = 0
    over: str = ""
    cannot: str = ""
    partly: str = ""


def program(r: Resolved, board: str, revision: int) -> Sketch:
    """The program of a board. :raises UnknownThing: there is none of that name that takes one."""
    if board not in programmed(r):
        raise UnknownThing(f"There is no controller “{board}” that takes a program", "board")
    return sketch(r, board, revision)


def folder(made: Sketch) -> bytes:
    """A program's folder as a ZIP."""
    return zipped((f"{made.folder}/{name}", text.encode()) for name, text in made.files.items())


def size_of(r: Resolved, made: Sketch, board: str) -> Size:
    """What a program takes, compiled for the chip of its board."""
    chip = board_of(r.design, next(c.board for c in r.design.controllers if c.id == board)).chip
    mine = [c.kind for c in channels(r).channels if c.controller == board]
    reads = sum(kind in READ for kind in mine)
    counts = ("input", reads), ("read-out", mine.count("text")), ("output", len(mine) - reads)
    return _size(chip, tuple(made.files.items()), counts)


@lru_cache(maxsize=32)
def _size(chip: str, files: tuple[tuple[str, str], ...], counts: tuple[tuple[str, int], ...]) -> Size:
    with _ONE, TemporaryDirectory() as where:
        try:
            if chip in ARCHITECTURES:
                return _against_standin(chip, dict(files), Path(where))
            built = compiled(dict(files), chip, Path(where))
        except DesignError as error:
            return Size(cannot=str(error))
    return Size(built.flash, built.target.flash, built.ram, built.target.ram, too_large(built, counts))


def _against_standin(chip: str, files: dict[str, str], where: Path) -> Size:
    """What is known of a program whose core is in no package registry."""
    core = f"The core for {chip} is in no package registry, so the program is not linked here."
    found = ours(files, chip, where)
    if found is None:
        said = compiled_here(files, chip, where).words or "without a word"
        return Size(partly=f"{core} Against a stand-in of it, it compiles for this machine: {said[:500]}")
    taken = f"{found.flash:,} bytes of flash and {found.ram:,} of RAM, the core apart"
    return Size(partly=f"{core} Our files compile for {found.target}: {found.words[:500] or taken}")


def too_large(built: Built, counts: Iterable[tuple[str, int]]) -> str:
    """By how much a program does not fit, and what to take to another board; empty where it does."""
    if not built.over:
        return ""
    lighter = built.lighter(dict(counts))
    return f"{built.over}; {f'it fits with {lighter}' if lighter else 'give half of it'} on another board"
