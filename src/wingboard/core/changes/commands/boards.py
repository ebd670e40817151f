"""Commands about what is behind the modules: boards, and the case round them."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Edge, Ident, Length, Mm, Size, Words
from wingboard.core.record.modules import MOST_HOLES, CableExit, Screw, ScrewAt
from wingboard.core.record.workshop import Material


class MountBoard(Saying):
    """A board behind a module, on standoffs; without a place in its middle, and as usual where nothing is said."""

    do: Literal["mount_board"] = "mount_board"
    module: Ident
    id: Ident | None = None
    name: Words = Field(min_length=1)
    controller: Ident | None = None
    on: Literal["plate", "board"] | None = None
    width: Size
    height: Size
    thickness: Size | None = None
    tall: Length | None = None
    gap: Length | None = None
    x: Mm | None = None
    y: Mm | None = None
    turn: Angle | None = None
    screw: Screw | None = None
    holes: tuple[ScrewAt, ...] | None = Field(None, max_length=MOST_HOLES)


class EditMounted(Saying):
    """Change a board behind a module; fields left out stay."""

    do: Literal["edit_mounted"] = "edit_mounted"
    module: Ident
    board: Ident
    name: Words | None = Field(None, min_length=1)
    on: Literal["plate", "board"] | None = None
    width: Size | None = None
    height: Size | None = None
    thickness: Size | None = None
    tall: Length | None = None
    gap: Length | None = None
    x: Mm | None = None
    y: Mm | None = None
    turn: Angle | None = None


class UnmountBoard(Saying):
    """Take a board away from behind a module."""

    do: Literal["unmount_board"] = "unmount_board"
    module: Ident
    board: Ident


class SetCase(Saying):
    """Give a module a case, or change the one it has; fields left out stay, or are as usual."""

    do: Literal["set_case"] = "set_case"
    module: Ident
    made: Literal["sheet", "printed"] | None = None
    material: Material | None = None
    thickness: Size | None = None
    room: Length | None = None
    lip: Edge | None = None
    shelf: Edge | None = None
    vents: bool | None = None
    hatch: bool | None = None
    exits: tuple[CableExit, ...] | None = Field(None, max_length=12)


class RemoveCase(Saying):
    """Leave a module without a case."""

    do: Literal["remove_case"] = "remove_case"
    module: Ident
