"""Commands of the brief: the space, what is in the way, and the workshop."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.outlines import Outline
from wingboard.core.record.space import KeepOut, PanelKind, Seat, Three
from wingboard.core.record.workshop import Machine, Money, Process, Stage, Stock, Supply


class Rename(Record):
    """Give the design another name."""

    do: Literal["rename"] = "rename"
    name: Words = Field(min_length=1)


class SetBrief(Record):
    """Change what is known of the space; fields left out stay. Process, eye, seat and price may be set to none."""

    do: Literal["set_brief"] = "set_brief"
    title: Words | None = None
    kind: PanelKind | None = None
    opening: Outline | None = None
    widths: Three | None = None
    heights: Three | None = None
    process: Process | None = None
    gap: Length | None = None
    depth: Size | None = None
    pitch: Annotated[float, Field(ge=-80, le=90)] | None = None
    eye_distance: Size | None = None
    eye_height: Mm | None = None
    free_hand: Literal["left", "right", "both"] | None = None
    reach: Size | None = None
    seat: Seat | None = None
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] | None = None
    bought_price: Money | None = None


class SetKeepOut(Record):
    """Add a keep-out, or replace the one with the same id."""

    do: Literal["set_keepout"] = "set_keepout"
    keepout: KeepOut


class RemoveKeepOut(Record):
    """Take a keep-out away."""

    do: Literal["remove_keepout"] = "remove_keepout"
    keepout: Ident


class SplitOpening(Record):
    """Replace the modules by new ones side by side that fill the opening less the gap; parts return to the tray."""

    do: Literal["split_opening"] = "split_opening"
    names: tuple[Words, ...] = Field(min_length=1, max_length=12)
    shares: tuple[Annotated[float, Field(gt=0, le=1000)], ...] = Field(
        (), max_length=12, description="Of the width, in any unit; equal when left out"
    )
    seam: Length = Field(0.4, description="Between two neighbours")


class SetMachine(Record):
    """Add a machine, or replace the one with the same id."""

    do: Literal["set_machine"] = "set_machine"
    machine: Machine


class SetStock(Record):
    """Add sheets to the stock, or replace those with the same id."""

    do: Literal["set_stock"] = "set_stock"
    stock: Stock


class SetSupply(Record):
    """Add a supply, or replace the one with the same id."""

    do: Literal["set_supply"] = "set_supply"
    supply: Supply


class RemoveFromWorkshop(Record):
    """Take a machine, sheets, a supply or logged hours away."""

    do: Literal["remove_from_workshop"] = "remove_from_workshop"
    kind: Literal["machines", "stock", "supplies", "hours"]
    id: Ident


class SetOnHand(Record):
    """Say how many of a part are in the drawer; none takes the line away."""

    do: Literal["set_on_hand"] = "set_on_hand"
    part: Ident
    count: Annotated[int, Field(ge=0, le=100_000)]


class LogHours(Record):
    """Log hours for a stage of the work, and how many controls they covered."""

    do: Literal["log_hours"] = "log_hours"
    stage: Stage
    hours: Annotated[float, Field(gt=0, le=10_000)]
    controls: Annotated[int, Field(ge=1, le=10_000)]
    note: Words = ""
