"""Commands of the harness: looms, plugs, colours, where things outside stand; and what the boards are plugged into."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Length, Mm
from wingboard.core.record.harness import Area, Cable, ColourRule, DeviceName, PlugKind


class SetHarness(Saying):
    """Change what holds for all wires; fields left out stay, no power area means as current and drop ask."""

    do: Literal["set_harness"] = "set_harness"
    slack: Length | None = None
    strip: Length | None = None
    away: Length | None = None
    ties: Annotated[float, Field(ge=20, le=1000)] | None = None
    spare: Annotated[float, Field(ge=0, le=100)] | None = None
    area: Area | None = None
    power_area: Area | None = None
    colours: tuple[ColourRule, ...] | None = Field(None, max_length=20)


class EditLoom(Saying):
    """Change how the wires of a module run; fields left out stay.

    No ``at`` lays the trunk by itself, no plug lets its wires go on without one.
    """

    do: Literal["edit_loom"] = "edit_loom"
    module: Ident
    trunk: Literal["across", "up"] | None = None
    at: Mm | None = None
    leaves: Literal["left", "right", "top", "bottom"] | None = None
    service: Length | None = None
    signals: PlugKind | None = None
    power: PlugKind | None = None


class StandOutside(Saying):
    """Say where a board, a supply, a load or a relay stands that is not behind a module."""

    do: Literal["stand"] = "stand"
    device: DeviceName
    x: Mm
    y: Mm
    behind: Length = 100.0


class ForgetStanding(Saying):
    """Say no more where something outside stands."""

    do: Literal["forget_standing"] = "forget_standing"
    device: DeviceName


class SetUsb(Saying):
    """Say what the boards are plugged into; fields left out stay."""

    do: Literal["set_usb"] = "set_usb"
    ports: Annotated[int, Field(ge=1, le=32)] | None = None
    hub: Literal["none", "powered", "unpowered"] | None = None
    hub_ports: Annotated[int, Field(ge=2, le=32)] | None = None
    cable: Cable | None = None
