"""What the builder said about cutting: which machine makes what, what a coupon showed, what is done. Lengths in mm."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from wingboard.core.record.base import Ident, Mm, Record, Words
from wingboard.core.record.workshop import Material

Kerf = Annotated[float, Field(ge=0, le=10)]
Wider = Annotated[float, Field(ge=-2, le=2)]
Engraved = Annotated[float, Field(gt=0, le=5)]
PieceName = Annotated[str, Field(min_length=1, max_length=200)]
"""A piece by its module and layer: ``left/face``."""


class Job(Record):
    """Which machine makes a piece, where the builder says so."""

    piece: PieceName
    machine: Ident


class Copies(Record):
    """How many of a piece are made, where it is not one."""

    piece: PieceName
    many: Annotated[int, Field(ge=2, le=50)]


class Fitted(Record):
    """What a coupon showed for a machine and a kind of sheet."""

    machine: Ident
    material: Material
    thickness: Annotated[float, Field(gt=0, le=50)]
    kerf: Kerf | None = Field(None, description="Width that the cut took away")
    wider: Wider = Field(0.0, description="What holes are made wider than drawn, so that parts go in")
    engraved: Engraved | None = Field(None, description="Depth of engraving that reads well")


class CutMark(Record):
    """How something of a piece was when it was cut: a function's openings and words, or its outline."""

    of: Annotated[str, Field(min_length=1, max_length=80)]
    x: Mm = 0.0
    y: Mm = 0.0
    mark: Annotated[str, Field(pattern=r"^[0-9a-f]{1,16}$")]


class CutPiece(Record):
    """A piece that is cut, as it was then."""

    piece: PieceName
    marks: tuple[CutMark, ...] = Field((), max_length=3000)


class Cutting(Record):
    """All of it."""

    jobs: tuple[Job, ...] = Field((), max_length=500)
    copies: tuple[Copies, ...] = Field((), max_length=500)
    fitted: tuple[Fitted, ...] = Field((), max_length=200)
    cut: tuple[CutPiece, ...] = Field((), max_length=500, description="Pieces that are cut, as they were then")
    done: tuple[Words, ...] = Field((), max_length=2000, description="Steps of the job sheet that are ticked")
