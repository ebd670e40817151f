"""The modules of a panel, their fixings, and the layers of their stack. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from wingboard.core.record.base import Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.outlines import Outline
from wingboard.core.record.workshop import Material

LayerRole = Literal["face", "diffuser", "back", "board"]
Screw = Literal["M2", "M2.5", "M3", "M4", "M5", "M6"]


MOST_SCREWS = 200
"""Screws of one module, at most."""


class ScrewAt(Record):
    """A screw placed by hand, in the module's coordinates."""

    id: Ident
    x: Mm
    y: Mm


class Fixings(Record):
    """Screws through every layer: at the corners, and where they are placed by hand."""

    screw: Screw = "M3"
    inset: Size = Field(8.0, description="From the edge to the middle of a corner's screw")
    corners: bool = Field(True, description="A screw in each corner")
    by_hand: tuple[ScrewAt, ...] = Field((), max_length=MOST_SCREWS - 50)

    @field_validator("by_hand", mode="after")
    @classmethod
    def _each_has_its_own_id(cls, screws: tuple[ScrewAt, ...]) -> tuple[ScrewAt, ...]:
        if len({s.id for s in screws}) < len(screws):
            raise ValueError("Two screws of one module have the same id")
        return screws


class Module(Record):
    """One module: a plate with its own coordinates, origin at the lower left corner seen from the front."""

    id: Ident
    name: Words = Field(min_length=1)
    outline: Outline
    x: Mm = Field(0.0, description="Of its origin in the opening")
    y: Mm = 0.0
    fixings: Fixings | None = Fixings()
    tolerance: Length = Field(0.2, description="How far its width may come out off, either way")


class Layer(Record):
    """One sheet of the stack."""

    id: Ident
    name: Words
    role: LayerRole
    material: Material = "acrylic"
    thickness: Annotated[float, Field(gt=0, le=50)]
    colour: Colour = "#FFFFFF"


THREE_LAYERS = (
    Layer(id="face", name="Face", role="face", thickness=2, colour="#263033"),
    Layer(id="diffuser", name="Diffuser", role="diffuser", thickness=3, colour="#F4F6F2"),
    Layer(id="back", name="Back", role="back", thickness=3, colour="#D9D5C8"),
)
