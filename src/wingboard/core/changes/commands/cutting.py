"""Commands of cutting: which machine makes what, what a coupon showed, what is done."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.cutting import CutPiece, Engraved, Kerf, PieceName, Wider
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


class Tick(Saying):
    """Tick a step of the job sheet, or take the tick away."""

    do: Literal["tick"] = "tick"
    step: Words = Field(min_length=1)
    done: bool = True
