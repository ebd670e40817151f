"""What the builder said about cutting: which machine makes what, what a coupon showed, what is done. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.workshop import Material

Joint = Literal["straight", "strap", "tongues", "dowels"]
Lettering = Literal["filled", "mask", "vinyl", "film"]

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


class Split(Record):
    """Where a piece is parted to lie on a bed: seams across its width (``x``) or its height (``y``), from its corner.

    Parts are glued to the sheet before or behind (``straight``), to a strap behind, by tongues that are cut with them,
    or over dowels.
    """

    piece: PieceName
    along: Literal["x", "y"] = "x"
    at: Annotated[tuple[Length, ...], Field(min_length=1, max_length=20)]
    joint: Joint = "straight"


class Lettered(Record):
    """How the words of a module's face are made, where they are not engraved.

    Engraved and filled with paint; cut through the face's film, which masks the paint; cut in adhesive film that is
    laid on; or printed on film that lies behind a clear face.
    """

    module: Ident
    way: Lettering


class OldHole(Record):
    """A round hole that was there before a plate was replaced, its middle from the plate's lower left corner."""

    x: Mm
    y: Mm
    diameter: Size
    name: Words = ""


class OldHoles(Record):
    """The hole pattern of the plate that a module replaces, or of what the module is laid upon."""

    module: Ident
    holes: Annotated[tuple[OldHole, ...], Field(min_length=1, max_length=500)]


class PatchFields(Record):
    """A small plate that covers an opening that is not wanted any more; with words, it is a label as well."""

    module: Ident
    x: Mm
    y: Mm
    width: Size
    height: Size
    material: Material = "acrylic"
    thickness: Annotated[float, Field(gt=0, le=50)] = 1.5
    text: Words = ""
    screws: bool = False


class Patch(PatchFields):
    """A patch, by its id."""

    id: Ident


class Colours(Record):
    """The colours that the lines of SVG files have, for software that tells operations by them."""

    engrave: Colour | None = None
    mask: Colour | None = None
    pocket: Colour | None = None
    inner: Colour | None = None
    outline: Colour | None = None


class CutMark(Record):
    """How something of a piece was when it was cut: a function's openings and words, or its outline.

    ``x``, ``y``: where its openings' middle was; ``width``, ``height``: how large they were together.
    """

    of: Annotated[str, Field(min_length=1, max_length=80)]
    x: Mm = 0.0
    y: Mm = 0.0
    width: Length = 0.0
    height: Length = 0.0
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
    splits: tuple[Split, ...] = Field((), max_length=200)
    lettered: tuple[Lettered, ...] = Field((), max_length=100)
    old: tuple[OldHoles, ...] = Field((), max_length=100)
    patches: tuple[Patch, ...] = Field((), max_length=200)
    colours: Colours = Colours()
