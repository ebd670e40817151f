"""Commands of the brief: the space, and what is in the way."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Distance, Ident, Length, Mm, Size, Words
from wingboard.core.record.outlines import Outline
from wingboard.core.record.space import KeepOutFields, PanelKind
from wingboard.core.record.workshop import Money, Process


class Rename(Saying):
    """Give the design another name."""

    do: Literal["rename"] = "rename"
    name: Words = Field(min_length=1)


class SetBrief(Saying):
    """Change what is known of the space; fields left out stay. Process, eye and price may be set to none."""

    do: Literal["set_brief"] = "set_brief"
    title: Words | None = None
    kind: PanelKind | None = None
    opening: Outline | None = None
    process: Process | None = None
    gap: Length | None = None
    depth: Size | None = None
    pitch: Annotated[float, Field(ge=-80, le=90)] | None = None
    eye_distance: Distance | None = None
    eye_height: Mm | None = None
    free_hand: Literal["left", "right", "both"] | None = None
    reach: Distance | None = None
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] | None = None
    bought_price: Money | None = None


class ResizeOpening(Saying):
    """Make the opening this wide and high over its sides; fields left out stay. A free outline is stretched."""

    do: Literal["resize_opening"] = "resize_opening"
    shape: Literal["rect", "arch"] | None = Field(None, description="Another shape over the same sides")
    width: Size | None = None
    height: Size | None = None
    rise: Size | None = Field(None, description="Of an arched top")
    radius: Length | None = Field(None, description="Of a rectangle's corners")


class MeasureOpening(Saying):
    """Set one of up to three measured widths or heights of the opening, or of its two diagonals; none takes it away."""

    do: Literal["measure_opening"] = "measure_opening"
    of: Literal["widths", "heights", "diagonals"]
    place: Annotated[int, Field(ge=1, le=3)] = Field(description="The first, second or third reading")
    value: Size | None


class SetSeat(Saying):
    """Change what is known of the person's knees; fields left out stay, or take their usual values at first."""

    do: Literal["set_seat"] = "set_seat"
    edge_height: Size | None = None
    knee_height: Size | None = None
    knee_reach: Mm | None = None
    clear: Length | None = None


class RemoveSeat(Saying):
    """Nobody sits before the panel."""

    do: Literal["remove_seat"] = "remove_seat"


class SetEnvironment(Saying):
    """Change what the panel has to stand; what is left out stays."""

    do: Literal["set_environment"] = "set_environment"
    sun: bool | None = None
    wet: bool | None = None
    heat: bool | None = None
    dark: bool | None = None
    public: bool | None = None


class AddKeepOut(KeepOutFields, Saying):
    """Add a keep-out. Without an id the next free one is taken."""

    do: Literal["add_keepout"] = "add_keepout"
    id: Ident | None = None


class EditKeepOut(Saying):
    """Change a keep-out; fields left out stay."""

    do: Literal["edit_keepout"] = "edit_keepout"
    keepout: Ident
    name: Words | None = None
    kind: Literal["bar", "frame", "shelf", "neighbour"] | None = None
    side: Literal["behind", "front"] | None = None
    x: Mm | None = None
    y: Mm | None = None
    width: Size | None = None
    height: Size | None = None
    clear: Length | None = None


class RemoveKeepOut(Saying):
    """Take a keep-out away."""

    do: Literal["remove_keepout"] = "remove_keepout"
    keepout: Ident


class SplitOpening(Saying):
    """Replace the modules by new ones side by side that fill the opening less the gap; parts return to the tray."""

    do: Literal["split_opening"] = "split_opening"
    names: tuple[Annotated[Words, Field(min_length=1)], ...] = Field(min_length=1, max_length=12)
    shares: tuple[Annotated[float, Field(gt=0, le=1000)], ...] = Field(
        (), max_length=12, description="Of the width, in any unit; equal when left out"
    )
    seam: Length = Field(0.4, description="Between two neighbours")
