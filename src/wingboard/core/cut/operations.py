"""What is done to a sheet, in which order: a trial, words, lines, pockets, drilled holes, openings, the outlines last.

Operations are kept apart by what they are and by their tool, so that each can be run again by itself; all start from
one marked origin, the sheet's lower left corner. Lengths in mm.
"""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.cut.engraved import engravings
from wingboard.core.cut.masks import masks
from wingboard.core.cut.openings import openings, outlines
from wingboard.core.cut.pockets import pockets
from wingboard.core.cut.sheets import Sheet
from wingboard.core.cut.work import TITLES, Operation, Work, fit_of
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, Vertex, reversed_loop
from wingboard.core.record.design import Design

PIN = 3.0
"""Diameter (mm) of the holes that a sheet is turned over by (common practice)."""


def operations(design: Design, sheet: Sheet) -> tuple[Operation, ...]:
    """All operations of a sheet in their order (:data:`ORDER`); what there is no tool for is named in ``left_out``."""
    fit = fit_of(design, sheet.machine, sheet.material, sheet.thickness)
    work = Work(sheet, fit)
    items = [item for laid in sheet.laid for item in laid.items()]
    front = [i for i in items if i.operation != "pocket"]
    made: list[Operation] = []
    # A sheet has one set-up, or two where some of its pieces are turned over: only their pockets are cut in the first.
    # What lies with its back up is cut from behind as it lies.
    over = [i for laid in sheet.laid if laid.piece.turned_over for i in laid.items() if i.operation == "pocket"]
    sunk = [i for laid in sheet.laid if not laid.piece.turned_over for i in laid.items() if i.operation == "pocket"]
    if over:
        made += _turned_over(work, over)
    made += masks(work, front)
    made += engravings(work, front)
    made += pockets(work, sunk, "front")
    made += openings(work, [i for i in front if i.operation == "inner"])
    made += outlines(work, [i for i in front if i.operation == "outline"])
    return tuple(made)


def ladder(design: Design, sheet: Sheet, depths: Sequence[float]) -> tuple[Operation, ...]:
    """The operations of a coupon whose engraving is labelled ``depth 0.1`` and so on: each as deep as it says."""
    work = Work(sheet, fit_of(design, sheet.machine, sheet.material, sheet.thickness))
    items = [item for laid in sheet.laid for item in laid.items()]
    made: list[Operation] = []
    for depth in depths:
        fit = work.fit._replace(engraved=depth)
        made += engravings(Work(sheet, fit), [i for i in items if i.label == f"depth {depth:g}"])
    return (*made, *outlines(work, [i for i in items if i.operation == "outline"]))


def _turned_over(work: Work, sunk: Sequence[Item]) -> list[Operation]:
    """What is done from behind before the sheet is turned over about its upright middle: two holes, then pockets."""
    width = work.sheet.width
    pins = [Item("inner", CirclePath(x, y, PIN), f"turn over, {n}") for n, (x, y) in enumerate(work.sheet.pins, 1)]
    mirrored = [i._replace(path=_over(i.path, width)) for i in sunk]
    made = [
        op._replace(kind="pins", title=TITLES["pins"], side="behind") for op in openings(work, pins)
    ]  # fmt: skip
    return [*made, *pockets(work, mirrored, "behind")]


def _over(path: CirclePath | Loop, width: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return path._replace(x=width - path.x)
    mirrored = tuple(Vertex(width - v.x, v.y, -v.bulge) for v in path)
    return reversed_loop(mirrored)
