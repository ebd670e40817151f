"""From operations to the programs that a machine runs: one a sheet and side, and one an operation."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from wingboard.core.cut.sheets import Sheet
from wingboard.core.cut.work import Operation
from wingboard.core.files.gcode import SAFE, Motion, Program, Run, Section
from wingboard.core.record.materials import materials

WET: tuple[str, ...] = ("acrylic", "polycarbonate", "abs", "aluminium")
"""Milled with a mist or air at the cutter (common practice)."""


class Named(NamedTuple):
    """A program and the name of its file, without its ending."""

    name: str
    program: Program


def programs(sheet: Sheet, operations: Sequence[Operation], title: str) -> Iterator[Named]:
    """The programs of a sheet: a side's operations in one, with its tool changes, then each operation by itself."""
    done = [(op, _section(op, sheet)) for op in operations if op.cuts]
    sides = list(dict.fromkeys(op.side for op, _ in done))
    for side in sides:
        mine = [(op, section) for op, section in done if op.side == side]
        whole = "all" if len(sides) == 1 else f"all-{side}"
        yield Named(whole, _program(sheet, mine, title, side))
    for n, (op, section) in enumerate(done, 1):
        yield Named(f"{n}-{op.kind}{_width(op)}", _program(sheet, [(op, section)], title, op.side))


def _width(op: Operation) -> str:
    return f"-{op.tool.diameter:g}mm".replace(".", "_") if op.tool is not None else ""


def tool_words(op: Operation) -> str:
    """An operation's tool: ``end mill 3.175 mm, 1 flute``, or ``beam at 25 %`` of a laser's power."""
    tool = op.tool
    if tool is None:
        return f"beam at {100 * op.feeds.power:.3g} %"
    if tool.kind == "engraver":
        return f"engraver {tool.angle:g} deg, flat {tool.flat:g} mm"
    flutes = f"{tool.flutes} flute{'' if tool.flutes == 1 else 's'}"
    return f"drill {tool.diameter:g} mm" if tool.kind == "drill" else f"end mill {tool.diameter:g} mm, {flutes}"


def _program(sheet: Sheet, done: Sequence[tuple[Operation, Section]], title: str, side: str) -> Program:
    kind: Literal["laser", "mill"] = "laser" if sheet.machine.kind == "laser" else "mill"
    known = materials()[sheet.material]
    notes = [
        title,
        f"{known.name} {sheet.thickness:g} mm, {sheet.width:g} x {sheet.height:g} mm, sheet {sheet.number}",
        f"on {sheet.machine.name}; origin: lower left corner of the sheet",
        "upper face of the sheet is Z 0; all in mm and mm/min",
        lies_words(sheet, side),
    ]
    if kind == "laser":
        notes.append(f"S {1000} is full power; kerf {max(op.width for op, _ in done):g} mm {_kerf_words(sheet)}")
    else:
        notes.append(f"travels at Z {SAFE:g}; the spindle runs from M3 to M5")
    mist = kind == "mill" and sheet.material in WET
    return Program(notes, kind, [section for _, section in done], mist)


def lies_words(sheet: Sheet, side: str) -> str:
    """Which way up a sheet and its pieces lie; ``side`` is behind for the first set-up of one that is turned over."""
    if side == "behind":
        return "first set-up: the fronts of its pieces are down; turned over next"
    backs = sum(laid.piece.side == "behind" for laid in sheet.laid)
    if not backs:
        return "the front is up"
    return (
        "the back is up" if backs == len(sheet.laid) else f"{backs} of {len(sheet.laid)} pieces lie with their back up"
    )


def _kerf_words(sheet: Sheet) -> str:
    return "left to the machine" if sheet.machine.offsets else "is taken off"


def _section(op: Operation, sheet: Sheet) -> Section:
    laser = sheet.machine.kind == "laser"
    runs = [
        Run(cut.x, cut.y, [Motion(s.x, s.y, s.z, s.bulge, s.feed, 1.0 if s.on else 0.0) for s in cut.steps])
        for cut in op.cuts
    ]
    return Section(op.title, tool_words(op), op.number, op.feeds.rpm, op.feeds.power, laser, runs)
