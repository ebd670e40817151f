"""Commands of the workshop: machines, sheets, supplies, parts on hand and hours."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Colour, Ident, Length, Size, Words
from wingboard.core.record.harness import Area, WireColour, WireFields
from wingboard.core.record.workshop import (
    BlankHole,
    Clamp,
    MachineFields,
    Material,
    Money,
    Process,
    Stage,
    StockFields,
    SupplyFields,
    Tool,
)


class AddMachine(MachineFields, Saying):
    """Add a machine. Without an id the next free one is taken; one from the shelf keeps its own."""

    do: Literal["add_machine"] = "add_machine"
    id: Ident | None = None


class EditMachine(Saying):
    """Change a machine; fields left out stay."""

    do: Literal["edit_machine"] = "edit_machine"
    machine: Ident
    name: Words | None = Field(None, min_length=1)
    kind: Process | None = None
    bed_width: Size | None = None
    bed_height: Size | None = None
    margin: Length | None = None
    kerf: Annotated[float, Field(ge=0, le=10)] | None = None
    tools: tuple[Tool, ...] | None = Field(None, max_length=40)
    depth: Size | None = None
    spindle_rpm: Annotated[int, Field(ge=0, le=200_000)] | None = None
    feed: Annotated[float, Field(ge=10, le=100_000)] | None = None
    acceleration: Annotated[float, Field(ge=1, le=100_000)] | None = None
    watts: Annotated[float, Field(ge=0, le=10_000)] | None = None
    offsets: bool | None = None
    clamps: tuple[Clamp, ...] | None = Field(None, max_length=20)
    bones: bool | None = None
    climb: bool | None = None


class AddStock(StockFields, Saying):
    """Add sheets to the stock. Without an id the next free one is taken; those from the shelf keep their own."""

    do: Literal["add_stock"] = "add_stock"
    id: Ident | None = None


class EditStock(Saying):
    """Change sheets of the stock; fields left out stay."""

    do: Literal["edit_stock"] = "edit_stock"
    stock: Ident
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    colour: Colour | None = None
    width: Size | None = None
    height: Size | None = None
    price: Money | None = None
    count: Annotated[int, Field(ge=0, le=10_000)] | None = None
    holes: tuple[BlankHole, ...] | None = Field(None, max_length=200)
    grain: Literal["none", "along", "across"] | None = None


class AddSupply(SupplyFields, Saying):
    """Add a supply. Without an id the next free one is taken; one from the shelf keeps its own."""

    do: Literal["add_supply"] = "add_supply"
    id: Ident | None = None


class EditSupply(Saying):
    """Change a supply; fields left out stay."""

    do: Literal["edit_supply"] = "edit_supply"
    supply: Ident
    name: Words | None = Field(None, min_length=1)
    volts: Annotated[float, Field(gt=0, le=1000)] | None = None
    amps: Annotated[float, Field(gt=0, le=1000)] | None = None
    count: Annotated[int, Field(ge=0, le=1000)] | None = None
    fuse: Annotated[float, Field(ge=0, le=1000)] | None = None
    made_from: Ident | None = None
    linear: bool | None = None
    measured: Annotated[float, Field(ge=0, le=1000)] | None = None


class AddWire(WireFields, Saying):
    """Add pieces of wire to what is on hand. Without an id the next free one is taken."""

    do: Literal["add_wire"] = "add_wire"
    id: Ident | None = None


class EditWire(Saying):
    """Change wire on hand; fields left out stay."""

    do: Literal["edit_wire"] = "edit_wire"
    wire: Ident
    colour: WireColour | None = None
    area: Area | None = None
    metres: Annotated[float, Field(gt=0, le=10_000)] | None = None
    count: Annotated[int, Field(ge=0, le=1000)] | None = None


class RemoveFromWorkshop(Saying):
    """Take a machine, sheets, a supply, wire or logged hours away."""

    do: Literal["remove_from_workshop"] = "remove_from_workshop"
    kind: Literal["machines", "stock", "supplies", "wires", "hours"]
    id: Ident


class SetOnHand(Saying):
    """Say how many of a part are in the drawer; none takes the line away."""

    do: Literal["set_on_hand"] = "set_on_hand"
    part: Ident
    count: Annotated[int, Field(ge=0, le=100_000)]


class LogHours(Saying):
    """Log hours for a stage of the work, and how many controls they covered."""

    do: Literal["log_hours"] = "log_hours"
    stage: Stage
    hours: Annotated[float, Field(gt=0, le=10_000)]
    controls: Annotated[int, Field(ge=1, le=10_000)]
    note: Words = ""
