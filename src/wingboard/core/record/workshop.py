"""What the builder has: machines, sheets in stock, supplies, parts on hand, hours spent. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Colour, Ident, Length, Record, Size, Words

Material = Literal[
    "acrylic", "plywood", "hardboard", "mdf", "aluminium", "steel", "abs", "polycarbonate", "pvc", "pla", "petg"
]
Process = Literal["laser", "mill", "printer", "hand"]
Stage = Literal["measure", "layout", "cut", "finish", "wire", "prove"]
Money = Annotated[int, Field(ge=0, le=1_000_000_000)]
"""An amount in minor units of the design's currency."""


class Tool(Record):
    """A cutter of a mill or a drill."""

    diameter: Annotated[float, Field(gt=0, le=100)]
    flutes: Annotated[int, Field(ge=1, le=12)] = 1


class MachineFields(Record):
    """Something that cuts: its bed, the margin round it that it cannot use, its kerf or tools, and how deep it goes."""

    name: Words = Field(min_length=1)
    kind: Process
    bed_width: Size
    bed_height: Size
    margin: Length = Field(5.0, description="On every side of the bed, not usable")
    kerf: Annotated[float, Field(ge=0, le=10)] = Field(0.0, description="Width that the cut takes away")
    tools: tuple[Tool, ...] = Field((), max_length=40)
    depth: Size = Field(6.0, description="The thickest sheet it cuts")
    spindle_rpm: Annotated[int, Field(ge=0, le=200_000)] = 0


class Machine(MachineFields):
    """A machine of the workshop, by its id."""

    id: Ident


class StockFields(Record):
    """Sheets of one kind on the shelf."""

    material: Material
    thickness: Annotated[float, Field(gt=0, le=50)]
    colour: Colour = "#FFFFFF"
    width: Size
    height: Size
    price: Money = Field(0, description="Of one sheet")
    count: Annotated[int, Field(ge=0, le=10_000)] = 1


class Stock(StockFields):
    """Sheets of the workshop, by their id."""

    id: Ident


class SupplyFields(Record):
    """A power supply on hand."""

    name: Words = Field(min_length=1)
    volts: Annotated[float, Field(gt=0, le=1000)]
    amps: Annotated[float, Field(gt=0, le=1000)]
    count: Annotated[int, Field(ge=0, le=1000)] = 1


class Supply(SupplyFields):
    """A supply of the workshop, by its id."""

    id: Ident


class OnHand(Record):
    """How many of a part are in the drawer."""

    part: Ident
    count: Annotated[int, Field(ge=1, le=100_000)]


class Hours(Record):
    """Hours logged for a stage of the work, and how many controls that covered."""

    id: Ident
    stage: Stage
    hours: Annotated[float, Field(gt=0, le=10_000)]
    controls: Annotated[int, Field(ge=1, le=10_000)]
    note: Words = ""


class Workshop(Record):
    """Everything on hand."""

    machines: tuple[Machine, ...] = Field((), max_length=40)
    stock: tuple[Stock, ...] = Field((), max_length=200)
    supplies: tuple[Supply, ...] = Field((), max_length=40)
    parts: tuple[OnHand, ...] = Field((), max_length=1000)
    hours: tuple[Hours, ...] = Field((), max_length=1000)
