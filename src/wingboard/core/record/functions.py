"""A function: one thing the panel does, what is wanted of it, and how far it has got."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Angle, Ident, Length, Mm, Record, Words
from wingboard.core.record.legends import Legend
from wingboard.core.record.outputs import Bright, Declared, Lost
from wingboard.core.record.part import Part

Scheme = Literal["direct", "ladder", "binary", "coder", "matrix", "matrix-bare", "shift", "expander", "digits"]
"""How what a function's part has is read and driven: each terminal by a pin of its own; the positions of a selector as
one voltage over equal resistors, in binary through diodes, or by a coder on its tags; contacts in the matrix of their
module, with a diode each or bare; in chains of shift registers; by expanders on I²C; read-outs in
a chain of their drivers."""
POOLED: tuple[Scheme, ...] = ("matrix", "matrix-bare", "shift", "expander", "digits")
"""Schemes that read or drive the terminals of one module together."""


class Place(Record):
    """Where a part sits on a module, in that module's coordinates."""

    module: Ident
    x: Mm
    y: Mm
    turn: Angle = 0.0


Duty = Literal["control", "source", "protection", "indicator", "opening"]

State = Literal["wanted", "wired", "proven", "alias", "pending", "dummy"]

HandSide = Literal["", "left", "right", "both"]

Risk = Literal["normal", "guarded", "emergency"]
"""guarded: it cannot be undone, and wants a guard or a key."""
StopRole = Literal["real", "theatrical", "power"]
Moment = Literal["", "start", "run", "stop", "emergency", "service"]


Current = Literal["", "AC", "DC"]
Carrier = Literal["", "relay", "contactor", "transistor"]
Driven = Literal["contact", "controller"]
Seen = Literal["", "pole", "auxiliary", "divider"]
"""How a controller sees whether a load is on: not at all, by a second pole of its control, by an auxiliary contact of
its relay, by a divider from its volts."""
AC_UNLESS_SAID = 50.0
"""A load of so many volts or more counts as AC unless DC is said (common practice)."""


class Switched(Record):
    """What a function switches: an event in the panel's logic, a load with volts and amperes, the bus it hangs on."""

    event: Words = ""
    volts: Annotated[float, Field(ge=0, le=1000)] = 0.0
    amps: Annotated[float, Field(ge=0, le=200)] = 0.0
    current: Current = Field("", description="Alternating or direct, where it is said")
    through: Carrier = Field("", description="What carries the load in the control's stead")
    driven: Driven = Field("contact", description="What drives that: the control's own contact, or a controller's pin")
    seen: Seen = Field("", description="How a controller sees whether the load is on")
    bus: Words = ""
    stays_on: bool = Field(False, description="An emergency stop leaves the load on, as a light or a brake release")

    @property
    def alternating(self) -> bool:
        """Whether the load counts as AC: as said, and from 50 V on unless DC is said."""
        return self.current == "AC" or (self.current == "" and self.volts >= AC_UNLESS_SAID)

    @property
    def kind(self) -> str:
        """“AC” or “DC”, as it counts."""
        return "AC" if self.alternating else "DC"


class Wanted(Record):
    """What is wanted of a function, as the brief lists it."""

    group: Words = ""
    want: Words = Field("", description="The kind of control or light wanted")
    positions: tuple[Words, ...] = Field(
        (), max_length=24, description="A word for each position in use; - for one that does nothing on purpose"
    )
    switches: Switched = Switched()
    indicator: Words = Field("", description="The light that shows it, in words; empty for none")
    risk: Risk = Field("normal", description="guarded: cannot be undone, wants a guard or a key")
    state: State = Field(
        "wanted",
        description="wired and proven as the builder marks them; dummy: does nothing on purpose; "
        "alias: another name of ``of``; pending: decided later",
    )
    duty: Duty | None = Field(None, description="Recognised from its words when None")
    of: Ident | None = Field(None, description="The function this one protects, shows or repeats")
    hand: HandSide = Field("", description="The hand that works it")
    moment: Moment = Field("", description="When it is used")


Film = Literal["clear", "grey", "red", "amber", "green", "blue"]
"""What lies over a read-out or screen: clear, or tinted."""


UNUSED = "-"
"""The word of a position that does nothing on purpose."""


class Function(Wanted):
    """One thing the panel does, and how far it has got."""

    id: Ident
    name: Words = Field(min_length=1)
    stop_role: StopRole | None = Field(
        None,
        description="What an emergency stop is: real (hard-wired, only reported here), for show, or the power switch",
    )
    scheme: Scheme = Field("direct", description="How its terminals are read and driven, those that can be so")
    step: float = Field(1000.0, ge=10, le=1_000_000, description="Each resistor of its ladder (Ω)")
    boot: Bright = Field(0, description="How bright its lamps are from power-up on")
    lost: Lost = Field("hold", description="What its lamps do while the link to their board is lost")
    declared: tuple[Declared, ...] = Field(
        (), max_length=16, description="Lamps that do something else then than its others"
    )
    tests_lamps: bool = Field(False, description="Its contact lights every lamp, through two diodes at each")
    tests_by_program: bool = Field(
        False, description="While its contact is closed, its board's program lights every lamp on that board"
    )
    steady: bool = Field(False, description="100 nF at the pin of its ladder")
    colour: Literal["red", "amber", "yellow", "green", "blue", "white"] | None = Field(
        None, description="Of its lamp; as its words name it when None"
    )
    led: bool = Field(False, description="An LED in the place of its part's bulb")
    digits: Annotated[int, Field(ge=1, le=16)] | None = Field(None, description="Digits left showing; all when None")
    film: Film | None = Field(None, description="A film or tinted cover over its read-out or screen")
    example: Annotated[str, Field(max_length=16)] = Field("", description="What its read-out shows on the drawing")
    part: Ident | None = None
    place: Place | None = None
    legend: Legend | None = None
    locked: bool = Field(False, description="Stays where it is")
    pair: Ident | None = Field(None, description="The function this one mirrors, left for right")
    pocket: Length = Field(0.0, description="Depth of a seat cut from behind so that the thread reaches")


def emergency(function: Function, part: Part | None) -> bool:
    """Whether something is for an emergency: by what it is for, or by what it is made with."""
    return function.risk == "emergency" or (part is not None and part.family == "emergency")
