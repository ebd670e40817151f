"""Reference pictures under a module, and what is known of them. Pixels, and lengths in mm."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from wingboard.core.record.base import Ident, Mm, Record, Size


class PicturePoint(Record):
    """A point of a picture, in its pixels: x to the right, y downwards."""

    x: Annotated[float, Field(ge=-20_000, le=20_000)]
    y: Annotated[float, Field(ge=-20_000, le=20_000)]


class Known(PicturePoint):
    """A point of a picture whose place on the module is known (mm)."""

    at_x: Mm
    at_y: Mm


class KnownLength(Record):
    """Two points of a picture a known length apart (mm)."""

    start: PicturePoint
    end: PicturePoint
    length: Size


class Traced(Record):
    """A circle traced on a picture by three or more points of its edge."""

    id: Ident
    points: tuple[PicturePoint, ...] = Field(min_length=3, max_length=40)
    function: Ident | None = Field(None, description="The function whose hole it shows")


class ReferenceFields(Record):
    """A picture under a module: scaled by a known length, or squared by four or more known points."""

    module: Ident
    picture: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")] = Field(description="SHA-256 of the kept picture")
    width: Annotated[int, Field(ge=1, le=20_000)]
    height: Annotated[int, Field(ge=1, le=20_000)]
    mirrored: bool = False
    hidden: bool = False
    opacity: Annotated[float, Field(ge=0, le=1)] = 0.5
    x: Mm = Field(0.0, description="Where its lower left corner lies when it is only scaled")
    y: Mm = 0.0
    scale: KnownLength | None = None
    points: tuple[Known, ...] = Field((), max_length=40)
    check: KnownLength | None = Field(None, description="A second known length, to test the first")
    circles: tuple[Traced, ...] = Field((), max_length=400)


class Reference(ReferenceFields):
    """A reference picture of a module, by its id."""

    id: Ident
