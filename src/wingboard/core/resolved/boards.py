"""The boards behind a module: how deep they lie, what they take, and the holes they want in the sheet they stand on."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded, slab
from wingboard.core.record.modules import Feature, Layer, Module, Mounted, is_plate
from wingboard.core.record.shapes import Circle
from wingboard.core.resolved.profile import sheets, thickness
from wingboard.core.resolved.screws import SCREW_HOLE

LAMP_STANDOFF = 15.0
"""Where there is no board: lamps this far behind the plate (mm), on the usual standoffs (common practice)."""
LAMP_TALL = 2.0
"""A strip or an LED stands so high on what it is laid on (mm, common practice)."""
STRIP_WIDE, LED_WIDE = 10.0, 6.0
"""A strip's width, and that of a single LED with its joints (mm, common practice)."""


def board_front(stack: tuple[Layer, ...]) -> float:
    """How deep (mm) lamps lie unless it is said: on the front of the stack's last board, else on usual standoffs."""
    boards = [s for s in sheets(stack) if not is_plate(s.layer)]
    return boards[-1].z0 if boards else thickness(stack) + LAMP_STANDOFF


class BoardBehind(NamedTuple):
    """A board in the coordinates of its module, between the depths ``z0`` (its front) and ``z1`` (mm).

    It is up to ``back`` a sheet, behind that what stands on it. Its standoffs reach from ``foot`` to ``z0``.
    """

    board: Mounted
    outline: Rounded
    foot: float
    z0: float
    back: float
    z1: float

    @property
    def frame(self) -> Frame:
        """Where it lies on its module."""
        return Frame(self.board.x, self.board.y, self.board.turn)


def _stands_on(board: Mounted, stack: tuple[Layer, ...]) -> Layer | None:
    """The sheet that a board stands on: the stack's last board where it says so and there is one, else the back."""
    boards = [layer for layer in stack if not is_plate(layer)]
    solid = [layer for layer in stack if is_plate(layer)]
    if board.on == "board" and boards:
        return boards[-1]
    return solid[-1] if solid else None


def boards_behind(module: Module, stack: tuple[Layer, ...]) -> tuple[BoardBehind, ...]:
    """The boards of a module in their order."""
    made = []
    back = {s.layer.id: s.z1 for s in sheets(stack)}
    for board in module.mounted:
        on = _stands_on(board, stack)
        foot = back[on.id] if on else thickness(stack)
        z0 = foot + board.gap
        outline = Frame(board.x, board.y, board.turn).shape(slab(board.width, board.height))
        sheet = z0 + board.thickness
        made.append(BoardBehind(board, outline, foot, z0, sheet, sheet + board.tall))
    return tuple(made)


def board_holes(module: Module, stack: tuple[Layer, ...]) -> list[tuple[str, Feature]]:
    """The clearance holes (ISO 273) of the boards' screws, each with the layer it goes through."""
    made = []
    for board in module.mounted:
        on = _stands_on(board, stack)
        if on is None:
            continue
        frame = Frame(board.x, board.y, board.turn)
        for hole in board.holes:
            x, y = frame.point(hole.x, hole.y)
            feature = Feature(
                id=f"{board.id}-{hole.id}"[:48], module=module.id, reason=f"{board.name}, hole {hole.id}"[:120],
                shape=Circle(diameter=SCREW_HOLE[board.screw]), x=round(x, 3), y=round(y, 3),
            )  # fmt: skip
            made.append((on.id, feature))
    return made
