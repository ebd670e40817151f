"""How wires run: looms, plugs, colours, wire on hand, where things outside the modules stand. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from wingboard.core.record.base import Ident, Length, Mm, Record

WireColour = Literal[
    "black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "pink", "turquoise",
    "green-yellow",
]  # fmt: skip
"""The colours of insulation that have a code in IEC 60757."""
PlugKind = Literal["dsub", "header", "strip", "punch"]
"""dsub: D-sub, 9 to 50 contacts; header: a two-row shell on 2.54 mm; strip: screw terminals; punch: a punch block for
25 pairs."""
Carries = Literal["signals", "power", "mains"]
"""What one plug of a module carries: signals with their grounds, supplies and loads, or what is dangerous to touch."""
Area = Annotated[float, Field(ge=0.05, le=35)]
"""Cross-section of copper, mm²."""
Cable = Annotated[float, Field(ge=0, le=100_000)]
"""How long a cable is, mm."""
NetClass = Literal[
    "ground", "3.3 V", "5 V", "12 V", "24 V", "other supplies", "earth", "line", "neutral", "loads", "lamps",
    "contacts", "analogue", "buses",
]  # fmt: skip
"""What wires are coloured by."""
DeviceName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9.-]{0,160}$")]
"""A controller, a supply or a load, as the net list calls it."""


class Loom(Record):
    """How the wires of a module run: along a trunk, out at one side, through its plugs.

    ``at`` is the trunk's height over the module's lower edge (its distance from the left one where it runs up); where
    it is not said it runs through the middle of what it takes up.
    """

    trunk: Literal["across", "up"] = "across"
    at: Mm | None = None
    leaves: Literal["left", "right", "top", "bottom"] = "bottom"
    service: Length = Field(0.0, description="More wire at the exit, so that the module swings out")
    signals: PlugKind | None = Field(None, description="The plug of its signals; none: wires go on without one")
    power: PlugKind | None = Field(None, description="The plug of its supplies, lamps and loads")


class ColourRule(Record):
    """The colour that wires of one class have here."""

    net: NetClass
    colour: WireColour


class Standing(Record):
    """Where something outside the modules stands: in the opening's coordinates, and so far behind the panel."""

    device: DeviceName
    x: Mm
    y: Mm
    behind: Length = 100.0


class Harness(Record):
    """What holds for all wires."""

    slack: Length = Field(15.0, description="At each end of a wire more, to be cut back once")
    strip: Length = Field(6.0, description="Bared at each end")
    away: Length = Field(400.0, description="Of wire to what is outside, where its place is not said")
    ties: Annotated[float, Field(ge=20, le=1000)] = Field(80.0, description="From one tie of a trunk to the next")
    spare: Annotated[float, Field(ge=0, le=100)] = Field(10.0, description="Contacts of each plug kept free, %")
    area: Area = Field(0.22, description="The thinnest wire used (mm²)")
    power_area: Area | None = Field(
        None, description="Of supplies, grounds and loads (mm²); none: as current and drop ask"
    )
    colours: tuple[ColourRule, ...] = Field((), max_length=20)
    standing: tuple[Standing, ...] = Field((), max_length=500)

    @field_validator("colours", mode="after")
    @classmethod
    def _one_rule_a_class(cls, colours: tuple[ColourRule, ...]) -> tuple[ColourRule, ...]:
        if len({c.net for c in colours}) < len(colours):
            raise ValueError("Two rules for the colour of one class of wires")
        return colours

    @field_validator("standing", mode="after")
    @classmethod
    def _each_stands_once(cls, standing: tuple[Standing, ...]) -> tuple[Standing, ...]:
        if len({s.device for s in standing}) < len(standing):
            raise ValueError("Something outside stands in two places")
        return standing


class WireFields(Record):
    """Wire on hand: pieces of one colour and cross-section, all of one length."""

    colour: WireColour
    area: Area = 0.22
    metres: Annotated[float, Field(gt=0, le=10_000)] = Field(10.0, description="Of one piece")
    count: Annotated[int, Field(ge=0, le=1000)] = Field(1, description="Pieces so long")


class WireOnHand(WireFields):
    """Wire of the workshop, by its id."""

    id: Ident


class Usb(Record):
    """What the controllers are plugged into."""

    ports: Annotated[int, Field(ge=1, le=32)] = Field(2, description="Of the computer, free for the panel")
    hub: Literal["none", "powered", "unpowered"] = "none"
    hub_ports: Annotated[int, Field(ge=2, le=32)] = 4
    cable: Cable = Field(1500.0, description="The longest of its cables")
