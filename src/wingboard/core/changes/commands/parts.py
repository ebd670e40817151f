"""Commands about parts: choosing, and the builder's own measured ones."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Ident, Length, Mm, Words
from wingboard.core.record.lamps import LampKind
from wingboard.core.record.part import Part, PartTag
from wingboard.core.record.reading import Reading
from wingboard.core.record.shapes import Path, Rect


class ChoosePart(Saying):
    """Give a function a part from the catalogue or from the design; none puts it back to open."""

    do: Literal["choose_part"] = "choose_part"
    function: Ident
    part: Ident | None


class AdoptPart(Saying):
    """Bring a builder's own part of another design into this one, as it is there."""

    do: Literal["adopt_part"] = "adopt_part"
    part: Part


class CopyPart(Saying):
    """Copy a part into one of the builder's own, to be measured."""

    do: Literal["copy_part"] = "copy_part"
    part: Ident
    id: Ident | None = None
    name: Words = Field(min_length=1)


class CombineParts(Saying):
    """One part of the builder's own from two that share a hole, the first in front; their depths add."""

    do: Literal["combine_parts"] = "combine_parts"
    parts: Annotated[tuple[Ident, ...], Field(min_length=2, max_length=4)]
    id: Ident | None = None
    name: Words = Field(min_length=1)


class MeasurePart(Saying):
    """Replace the calliper readings of an own part; what follows from them is computed anew."""

    do: Literal["measure_part"] = "measure_part"
    part: Ident
    readings: tuple[Reading, ...] = Field(max_length=12)


class EditPart(Saying):
    """Change an own part; fields left out stay."""

    do: Literal["edit_part"] = "edit_part"
    part: Ident
    name: Words | None = Field(None, min_length=1)
    summary: Words | None = None
    key_angle: Angle | None = None
    cutout: Path | None = Field(None, description="The hole in the face, as imported")
    bezel: Rect | None = Field(None, description="What covers the face")
    behind_x: Mm | None = None
    behind_y: Mm | None = None
    clamp: Length | None = None
    plug: Length | None = None
    height: Length | None = None
    cable: Literal["", "back", "left", "right", "top", "bottom"] | None = None
    lit: Literal["behind", "side"] | None = Field(None, description="Where the lamps of a caption's box stand")
    lamp: LampKind | None = Field(None, description="led: wants a resistor; own: has one; bulb: a filament")
    lamp_volts: Annotated[float, Field(gt=0, le=400)] | None = Field(None, description="Supply its lamps are made for")
    lamp_amps: Annotated[float, Field(gt=0, le=10)] | None = Field(None, description="What each of its lamps takes")
    price: Annotated[int, Field(ge=0, le=10_000_000)] | None = None
    times: Annotated[int, Field(ge=1, le=4)] | None = None
    sample_first: bool | None = None
    tags: tuple[PartTag, ...] | None = Field(None, max_length=64, description="Where its terminals lie, all of them")


class RemovePart(Saying):
    """Take an own part away that no function uses."""

    do: Literal["remove_part"] = "remove_part"
    part: Ident
