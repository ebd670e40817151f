"""Commands of cutting: which machine makes what, what a coupon showed, what is done."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Colour, Ident, Length, Mm, Size, Words
from wingboard.core.record.cutting import (
    CutPiece,
    Engraved,
    Joint,
    Kerf,
    Lettering,
    OldHole,
    PatchFields,
    PieceName,
    Wider,
)
from wingboard.core.record.workshop import Material


class SetJob(Saying):
    """Say which machine makes a piece; without one it is chosen again."""

    do: Literal["set_job"] = "set_job"
    piece: PieceName
    machine: Ident | None = None


class SetCopies(Saying):
    """Say how many of a piece are made."""

    do: Literal["set_copies"] = "set_copies"
    piece: PieceName
    many: Annotated[int, Field(ge=1, le=50)]


class LogFit(Saying):
    """Keep what a coupon showed for a machine and a kind of sheet; fields left out stay."""

    do: Literal["log_fit"] = "log_fit"
    machine: Ident
    material: Material
    thickness: Annotated[float, Field(gt=0, le=50)]
    kerf: Kerf | None = None
    wider: Wider | None = None
    engraved: Engraved | None = None


class ForgetFit(Saying):
    """Forget what a coupon showed."""

    do: Literal["forget_fit"] = "forget_fit"
    machine: Ident
    material: Material
    thickness: Annotated[float, Field(gt=0, le=50)]


class MarkCut(Saying):
    """Keep that pieces are cut, as they are now."""

    do: Literal["mark_cut"] = "mark_cut"
    pieces: Annotated[tuple[CutPiece, ...], Field(min_length=1, max_length=200)]


class UnmarkCut(Saying):
    """Forget that pieces were cut."""

    do: Literal["unmark_cut"] = "unmark_cut"
    pieces: Annotated[tuple[PieceName, ...], Field(min_length=1, max_length=200)]


class SetSplit(Saying):
    """Part a piece along seams (mm from its lower left corner, ascending); without any it is whole again."""

    do: Literal["set_split"] = "set_split"
    piece: PieceName
    along: Literal["x", "y"] = "x"
    at: Annotated[tuple[Length, ...], Field(max_length=20)]
    joint: Joint = "straight"


class SetLettering(Saying):
    """Say how the words of a module's face are made; engraved where nothing is said."""

    do: Literal["set_lettering"] = "set_lettering"
    module: Ident
    way: Lettering | None = None


class SetOldHoles(Saying):
    """Say which holes the plate had that a module replaces; none forgets them."""

    do: Literal["set_old_holes"] = "set_old_holes"
    module: Ident
    holes: Annotated[tuple[OldHole, ...], Field(max_length=500)]


class AddPatch(PatchFields, Saying):
    """Cover an opening that is not wanted any more by a small plate, its middle in the module (mm)."""

    do: Literal["add_patch"] = "add_patch"


class EditPatch(Saying):
    """Change a patch; fields left out stay."""

    do: Literal["edit_patch"] = "edit_patch"
    patch: Ident
    x: Mm | None = None
    y: Mm | None = None
    width: Size | None = None
    height: Size | None = None
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    text: Words | None = None
    screws: bool | None = None


class RemovePatch(Saying):
    """Take a patch away."""

    do: Literal["remove_patch"] = "remove_patch"
    patch: Ident


class SetColours(Saying):
    """Say which colour the lines of an operation have in SVG files; null is the usual one, fields left out stay."""

    do: Literal["set_colours"] = "set_colours"
    engrave: Colour | None = None
    mask: Colour | None = None
    pocket: Colour | None = None
    inner: Colour | None = None
    outline: Colour | None = None


class Tick(Saying):
    """Tick a step of the job sheet, or take the tick away."""

    do: Literal["tick"] = "tick"
    step: Words = Field(min_length=1)
    done: bool = True
