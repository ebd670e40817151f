"""What the builder has: machines, sheets in stock, supplies, parts on hand, hours spent. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.harness import WireOnHand

Material = Literal[
    "acrylic", "plywood", "hardboard", "mdf", "aluminium", "steel", "abs", "polycarbonate", "pvc", "pla", "petg"
]
Process = Literal["laser", "mill", "printer", "hand"]
Stage = Literal["measure", "layout", "cut", "finish", "wire", "prove"]
Money = Annotated[int, Field(ge=0, le=1_000_000_000)]
"""An amount in minor units of the design's currency."""


class Tool(Record):
    """A cutter of a mill, a pointed one for engraving, or a drill."""

    kind: Literal["mill", "engraver", "drill"] = "mill"
    diameter: Annotated[float, Field(gt=0, le=100)]
    flutes: Annotated[int, Field(ge=1, le=12)] = 1
    angle: Annotated[float, Field(ge=10, le=150)] = Field(60.0, description="Of an engraver's point, degrees")
    flat: Annotated[float, Field(ge=0, le=5)] = Field(0.1, description="Width of an engraver's point")


class Clamp(Record):
    """A rectangle of the bed where nothing may be cut: a clamp, a stop, a screw."""

    x: Mm
    y: Mm
    width: Size
    height: Size


class BlankHole(Record):
    """A round hole that a sheet has already, its middle from the sheet's lower left corner."""

    x: Mm
    y: Mm
    diameter: Size


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
    spindle_rpm: Annotated[int, Field(ge=0, le=200_000)] = Field(0, description="The fastest it turns; 0: not said")
    feed: Annotated[float, Field(ge=10, le=100_000)] = Field(3000.0, description="The fastest it moves, mm/min")
    acceleration: Annotated[float, Field(ge=1, le=100_000)] = Field(300.0, description="mm/s²")
    watts: Annotated[float, Field(ge=0, le=10_000)] = Field(0.0, description="Of a laser's beam; 0: not said")
    offsets: bool = Field(False, description="Its own software moves the line by the kerf: files keep the drawn edge")
    clamps: tuple[Clamp, ...] = Field((), max_length=20)
    bones: bool = Field(False, description="A mill goes into the corners of square openings until it touches them")
    climb: bool = Field(True, description="A mill goes round so that its teeth bite from the outside in")


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
    holes: tuple[BlankHole, ...] = Field((), max_length=200, description="That it has already")
    grain: Literal["none", "along", "across"] = Field("none", description="Of wood: along its width, or across it")


class Stock(StockFields):
    """Sheets of the workshop, by their id."""

    id: Ident


class SupplyFields(Record):
    """A power supply on hand."""

    name: Words = Field(min_length=1)
    volts: Annotated[float, Field(gt=0, le=1000)]
    amps: Annotated[float, Field(gt=0, le=1000)]
    count: Annotated[int, Field(ge=0, le=1000)] = 1
    fuse: Annotated[float, Field(ge=0, le=1000)] = Field(0.0, description="In its plus, A; 0: none")
    made_from: Ident | None = Field(None, description="The supply that it is a regulator on; none: mains or a battery")
    linear: bool = Field(False, description="Of a regulator: it turns what is over into heat")
    measured: Annotated[float, Field(ge=0, le=1000)] = Field(
        0.0, description="Read from an ammeter with everything on, A; 0: not yet"
    )


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
    wires: tuple[WireOnHand, ...] = Field((), max_length=200)
    parts: tuple[OnHand, ...] = Field((), max_length=1000)
    hours: tuple[Hours, ...] = Field((), max_length=1000)
