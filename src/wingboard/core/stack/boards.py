"""Boards behind the panel against everything else there, and free room for one more."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from wingboard.core.face.rules import behind_boxes, bridge_needed
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded, gap, margin_inside
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.modules import Mounted, is_plate
from wingboard.core.record.wiring import BoardKind, OwnBoard
from wingboard.core.resolved.boards import BoardBehind, board_holes, boards_behind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import sheets

STEP = 5.0
"""Free room is looked for every so many mm."""


class KnownBoard(NamedTuple):
    """A kind of controller as a piece: its size and the places of its holes from its lower left corner (mm)."""

    width: float
    height: float
    holes: tuple[tuple[float, float], ...]


_SHORT = ((13.97, 2.54), (15.24, 50.8), (66.04, 7.62), (66.04, 35.56))
KNOWN: dict[BoardKind, KnownBoard] = {
    "atmega328p": KnownBoard(68.6, 53.3, _SHORT),
    "atmega328p-30": KnownBoard(43.2, 17.8, ()),
    "atmega32u4": KnownBoard(33.0, 17.8, ()),
    "esp32": KnownBoard(55.0, 28.3, ()),
    "rp2040": KnownBoard(51.0, 21.0, ((2.0, 4.8), (2.0, 16.2), (49.0, 4.8), (49.0, 16.2))),
    "hid-32": KnownBoard(100.0, 60.0, ()),
    "atmega2560": KnownBoard(101.5, 53.3, (*_SHORT, (90.17, 50.8), (96.52, 2.54))),
}
"""The usual boards of these chips, USB plug at the left (mm; from memory: measure yours before drilling)."""


class Meeting(NamedTuple):
    """Something nearer to a board than it may be: its name, and by how much (mm; negative where they meet)."""

    name: str
    apart: float


def behind(r: Resolved, module: ResolvedModule) -> tuple[BoardBehind, ...]:
    """The boards behind a module."""
    return r.once(f"boards behind {module.module.id}", lambda: boards_behind(module.module, module.stack))


def meetings(r: Resolved, module: ResolvedModule, board: BoardBehind) -> list[Meeting]:
    """What is too near to a board: bodies and screws, the stack's boards, other boards, bars; the nearest first.

    The parts are judged in the opening, across seams.
    """
    need = limit(r.design, "board-clearance")
    shape = Frame(module.module.x, module.module.y).shape(board.outline)
    bodies, found = r.panel.bodies, []
    for i, apart in bodies.against(shape, need, z0=board.z0, z1=board.z1):
        found.append(Meeting(r.panel.owner_name(int(bodies.shapes.owners[i])), apart))
    for sheet in sheets(module.stack):
        if not is_plate(sheet.layer) and sheet.z0 < board.z1 and board.foot < sheet.z0:
            found.append(Meeting(sheet.layer.name, -min(board.z1 - sheet.z0, sheet.z1 - sheet.z0)))
    for other_module in r.modules.values():
        for other in behind(r, other_module):
            if other.board is not board.board and other.z0 < board.z1 and board.z0 < other.z1:
                apart = gap(shape, Frame(other_module.module.x, other_module.module.y).shape(other.outline))
                if apart < need:
                    found.append(Meeting(other.board.name, apart))
    for box in behind_boxes(r.design):
        if box.clear < board.z1 - VISIBLE:
            apart = gap(shape, box.area())
            if apart < need:
                found.append(Meeting(box.name or box.kind, apart))
    return sorted(found, key=lambda m: m.apart)


def free_spots(r: Resolved, module: ResolvedModule, board: Mounted, most: int = 6) -> list[tuple[float, float, float]]:
    """Places (x, y, turn) behind a module where a board meets nothing, the roomiest first, apart from each other.

    Its holes leave sound bridges to what else is cut in the sheet it stands on.
    """
    x0, y0, x1, y1 = module.area.bounds
    cut, need = _cut_already(r, module, board)
    spots: list[tuple[float, float, float, float]] = []
    for turn in (0.0, 90.0):
        wide, high = (board.width, board.height) if turn == 0 else (board.height, board.width)
        for nx in range(int((x1 - x0 - wide) / STEP) + 1):
            for ny in range(int((y1 - y0 - high) / STEP) + 1):
                x, y = x0 + wide / 2 + nx * STEP, y0 + high / 2 + ny * STEP
                room = _room(r, module, board.model_copy(update={"x": x, "y": y, "turn": turn}), cut, need)
                if room is not None:
                    spots.append((room, x, y, turn))
    chosen: list[tuple[float, float, float]] = []
    for _, x, y, turn in sorted(spots, key=lambda s: (-s[0], s[1], s[2])):
        if all(abs(x - a) + abs(y - b) > board.height / 2 for a, b, _ in chosen):
            chosen.append((x, y, turn))
        if len(chosen) == most:
            break
    return chosen


_FAR = 15.0
"""Room beyond this (mm) all round a board is no better."""


def _cut_already(r: Resolved, module: ResolvedModule, board: Mounted) -> tuple[ShapeSet | None, float]:
    """What is cut in the sheet that a board stands on, its own holes apart, and the bridge that it needs (mm)."""
    holes = board_holes(module.module.model_copy(update={"mounted": (board,)}), module.stack)
    if not holes:
        return None, 0.0
    layer = next(layer for layer in module.stack if layer.id == holes[0][0])
    mine = {feature.reason for _, feature in holes}
    others = [c for c in module.cutouts(layer.id) if c.owner not in mine]
    shapes = [c.shape.rounded().turned(c.turn) for c in others]
    return ShapeSet(shapes, range(len(others)), [(c.x, c.y) for c in others]), bridge_needed(r.design, layer).value


def _room(r: Resolved, module: ResolvedModule, board: Mounted, cut: ShapeSet | None, need: float) -> float | None:
    """How far the nearest body is from a board, up to :data:`_FAR`; None where it, or a hole of it, meets something."""
    trial = module.module.model_copy(update={"mounted": (board,)})
    made = boards_behind(trial, module.stack)[0]
    if meetings(r, module, made):
        return None
    for _, hole in board_holes(trial, module.stack) if cut is not None else ():
        assert hole.shape is not None
        shape = hole.shape.rounded().moved(hole.x, hole.y)
        if (cut is not None and cut.against(shape, need)) or margin_inside(shape, module.area) < need:
            return None
    outline: Rounded = Frame(module.module.x, module.module.y).shape(made.outline)
    near = r.panel.bodies.against(outline, _FAR, z0=made.z0, z1=made.z1)
    return min((apart for _, apart in near), default=_FAR)


def of_controller(kind: str, own: Iterable[OwnBoard]) -> tuple[float, float, list[tuple[float, float]]]:
    """Width, height, and holes about its middle (mm) of a kind of controller; a builder's own has no holes said.

    :raises UnknownThing: there is no such kind.
    """
    described = next((board for board in own if board.id == kind), None)
    if described is not None:
        return described.width, described.height, []
    known = next((board for name, board in KNOWN.items() if name == kind), None)
    if known is None:
        raise UnknownThing(f"There is no kind of board “{kind}”", "board")
    return known.width, known.height, [(x - known.width / 2, y - known.height / 2) for x, y in known.holes]
