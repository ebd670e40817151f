"""What the written program of a sheet does to each piece, judged by reading the file and sweeping its tools."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import polygons, region_of
from wingboard.core.cut.bones import cut_beyond
from wingboard.core.cut.cutters import PLAY, tool_for
from wingboard.core.cut.program import programs
from wingboard.core.cut.sheets import Laid, Sheet
from wingboard.core.cut.sweep import GOES, STAYS, Fault, Swept, left_over, swept, too_much
from wingboard.core.cut.timing import Way, seconds
from wingboard.core.cut.work import Operation
from wingboard.core.files.gcode import write_gcode
from wingboard.core.files.read_gcode import Moved, read_gcode

THROUGH_KINDS = ("inner", "outline", "drill", "pins")
HAIR = 0.01
"""Openings are compared with what a tool so much (mm) thinner reaches, so that rounding is no fault."""


class Verdict(NamedTuple):
    """What was found of a sheet's program: faults by piece, how long the file takes (s), how far it travels (mm)."""

    faults: tuple[tuple[str, Fault], ...]
    seconds: float
    travel: float
    blocks: int


def judged(sheet: Sheet, operations: Sequence[Operation], wider: float = 0.0) -> Verdict:
    """Read the sheet's whole programs back and sweep them.

    :param wider: what openings are made wider than drawn (mm), as a coupon showed.
    """
    faults: list[tuple[str, Fault]] = []
    taken, travel, blocks = 0.0, 0.0, 0
    laser = sheet.machine.kind == "laser"
    through: list[Swept] = []
    shallow: list[tuple[Operation, Swept]] = []
    done = [op for op in operations if op.cuts]
    for side in dict.fromkeys(op.side for op in done):
        mine = [op for op in done if op.side == side]
        whole = next(p for p in programs(sheet, mine, "") if p.name.startswith("all"))
        moves = read_gcode(write_gcode(whole.program))
        blocks += len(moves)
        taken += _lasts(moves, sheet)
        travel += sum(shapely.LineString([(m.x0, m.y0), (m.x1, m.y1)]).length for m in moves if m.rapid)
        for n, op in enumerate(mine, 1):
            some = [m for m in moves if m.operation == n]
            if op.kind in THROUGH_KINDS:
                found = swept(some, op.width, -sheet.thickness, laser)
                through.append(_turned(found, sheet) if _other_side(sheet, op) else found)
            else:
                found = swept(some, op.width, -1e-3, laser)
                shallow.append((op, _turned(found, sheet) if _other_side(sheet, op) else found))
    whole_swept = Swept(
        shapely.union_all([s.area for s in through]), shapely.union_all([s.tabs for s in through])
    )  # fmt: skip
    board = shapely.box(0, 0, sheet.width, sheet.height)
    width = max((op.width for op in done if op.kind == "inner"), default=0.0)
    for laid in sheet.laid:
        beyond = _beyond(laid, sheet)
        faults += [(laid.piece.id, f) for f in _of_piece(laid, board, whole_swept, shallow, width, wider / 2, beyond)]
    for box in sheet.taken:
        if any(box.x < x < box.x + box.width and box.y < y < box.y + box.height for x, y in sheet.pins):
            continue
        clamp = shapely.box(box.x, box.y, box.x + box.width, box.y + box.height)
        if whole_swept.area.intersects(clamp.buffer(-STAYS)):
            faults.append(("", Fault("goes through a clamp or an old hole", 0.0, box.x, box.y)))
    return Verdict(tuple(faults), taken, travel, blocks)


def _other_side(sheet: Sheet, op: Operation) -> bool:
    """Whether an operation is done from behind on a sheet whose pieces lie with their front up."""
    return op.side == "behind" and any(laid.piece.turned_over for laid in sheet.laid)


def _turned(found: Swept, sheet: Sheet) -> Swept:
    def over(area: BaseGeometry) -> BaseGeometry:
        return shapely.transform(area, lambda p: p * (-1, 1) + (sheet.width, 0))

    return Swept(over(found.area), over(found.tabs))


def _beyond(laid: Laid, sheet: Sheet) -> BaseGeometry:
    """What may be taken beyond square openings, where the mill goes into their corners."""
    if sheet.machine.kind != "mill" or not sheet.machine.bones:
        return shapely.Polygon()
    found = []
    for item in laid.items():
        fitting = tool_for(sheet.machine, item.path, sheet.thickness) if item.operation == "inner" else None
        if fitting is not None:
            found.append(cut_beyond(item.path, fitting[1].diameter / 2))
    return shapely.union_all(found)


def _of_piece(
    laid: Laid, board: BaseGeometry, through: Swept, shallow: Sequence[tuple[Operation, Swept]], width: float,
    wider: float, beyond: BaseGeometry,
) -> list[Fault]:  # fmt: skip
    items = laid.items()
    outline = region_of([i for i in items if i.operation == "outline"])
    openings = region_of([i for i in items if i.operation == "inner"])
    stays = outline.difference(openings.buffer(wider)).difference(beyond)
    found = [too_much(through.area, stays)]
    half = width / 2 - HAIR
    reached = [p.buffer(-half, quad_segs=16).buffer(half, quad_segs=16) for p in polygons(openings)]
    found.append(left_over(board, through, stays, outline.difference(shapely.union_all(reached))))
    marked = region_of([i for i in items if i.operation in ("mask", "engrave", "pocket")])
    opened = [i for i in items if i.open]
    if not opened:
        for op, area in shallow:
            if op.kind == "trial":
                continue
            found.append(_scratched(area.area.intersection(outline), marked.union(openings), op))
    return [f for f in found if f is not None]


def _scratched(taken: BaseGeometry, marked: BaseGeometry, op: Operation) -> Fault | None:
    """Where engraving or a pocket goes beyond what was drawn."""
    beyond = taken.difference(marked.buffer(STAYS + PLAY))
    if beyond.is_empty or beyond.area < 1e-4:
        return None
    worst = max(polygons(beyond), key=lambda p: p.area, default=None)
    if worst is None:
        return None
    at = worst.representative_point()
    return Fault(f"{op.title.lower()} beyond what was drawn", GOES, at.x, at.y)


def _lasts(moves: Sequence[Moved], sheet: Sheet) -> float:
    """How long the file takes by its own words: feeds, rapids at the machine's fastest, its acceleration."""
    machine = sheet.machine
    made = [
        Way(m.x0, m.y0, m.z0, m.x1, m.y1, m.z1, m.bulge, machine.feed if m.rapid else m.feed) for m in moves
    ]  # fmt: skip
    return seconds(made, machine.acceleration)
