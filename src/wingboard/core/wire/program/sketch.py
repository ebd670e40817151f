"""The folder of a board's program: its tables from the record, and the files that read and drive, as they are."""

from __future__ import annotations

from importlib.resources import files
from typing import NamedTuple

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import Unserved, channels, slug
from wingboard.core.wire.program.tables import letter_of, tables
from wingboard.core.wire.program.words import protocol_text

BLOCKS = files("wingboard.core.wire.program") / "blocks"
ALWAYS = ("board.h", "saying.h", "link.h", "noting.h")
"""In every folder."""
TAKES = ("inputs", "contacts", "matrix", "chains", "encoders", "levels", "outputs", "digits", "twowires", "expanders",
         "pixels", "gauges", "discovery")  # fmt: skip
"""Blocks that a board may do without, each with a file of its name."""


class Sketch(NamedTuple):
    """A folder: its name, its files by their names, and the lines of this board that it does not serve."""

    folder: str
    files: dict[str, str]
    unserved: tuple[Unserved, ...]


def sketch(r: Resolved, controller: str, revision: int) -> Sketch:
    """The program of one board. The same design and revision, the same files.

    :param controller: its id; a HID card has a program of its own already. :param revision: of the design, as the board
    shall say when it is asked.
    """
    made = tables(r, controller, revision)
    folder = f"{slug(r.design.name)[:40].strip('-')}-{letter_of(r, controller).lower()}"
    names = [*ALWAYS, *(f"{block}.h" for block in TAKES if block in made.has)]
    found = {f"{folder}.ino": (BLOCKS / "program.ino").read_text("utf-8"), "tables.h": made.text}
    found |= {name: (BLOCKS / name).read_text("utf-8") for name in names}
    found["protocol.txt"] = protocol_text(r, revision, (controller,))
    homes = {p.line: p.controller for p in r.design.pins}
    left = tuple(u for u in channels(r).unserved if homes.get(u.line.id) == controller)
    return Sketch(folder, found, left)


def homeless(r: Resolved) -> tuple[Unserved, ...]:
    """Lines of no board, which no program can serve."""
    homes = {p.line for p in r.design.pins}
    return tuple(u for u in channels(r).unserved if u.line.id not in homes)
