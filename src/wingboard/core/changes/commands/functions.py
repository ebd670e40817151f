"""Commands of the function list."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.functions import (
    Carrier,
    Current,
    Driven,
    Duty,
    Film,
    HandSide,
    Moment,
    Risk,
    Scheme,
    Seen,
    State,
    StopRole,
    Wanted,
)
from wingboard.core.record.lamps import LampColour
from wingboard.core.record.outputs import Bright, Declared, Lost

Some = Annotated[tuple[Ident, ...], Field(min_length=1, max_length=2000)]
Many = Annotated[tuple[Ident, ...], Field(max_length=2000)]


class AddFunction(Wanted, Saying):
    """Add a thing the panel does. Without an id the next free ``f…`` is taken."""

    do: Literal["add_function"] = "add_function"
    id: Ident | None = None
    name: Words = Field(min_length=1)


class EditFunction(Saying):
    """Change what a function is called or needs; fields left out stay; those of :data:`NULLABLE` may be none."""

    do: Literal["edit_function"] = "edit_function"
    function: Ident
    name: Words | None = Field(None, min_length=1)
    group: Words | None = None
    want: Words | None = None
    positions: tuple[Words, ...] | None = Field(None, max_length=24)
    event: Words | None = Field(None, description="In the panel's logic, that it switches")
    volts: Annotated[float, Field(ge=0, le=1000)] | None = Field(None, description="Of the load it switches")
    amps: Annotated[float, Field(ge=0, le=200)] | None = None
    current: Current | None = None
    through: Carrier | None = Field(None, description="What carries the load in the control's stead")
    driven: Driven | None = Field(None, description="What drives that")
    seen: Seen | None = Field(None, description="How a controller sees whether the load is on")
    bus: Words | None = None
    stays_on: bool | None = Field(None, description="An emergency stop leaves its load on")
    indicator: Words | None = None
    risk: Risk | None = None
    state: State | None = None
    duty: Duty | None = None
    of: Ident | None = None
    hand: HandSide | None = None
    moment: Moment | None = None
    stop_role: StopRole | None = None
    scheme: Scheme | None = None
    step: float | None = Field(None, ge=10, le=1_000_000, description="Ω")
    steady: bool | None = None
    tests_lamps: bool | None = None
    tests_by_program: bool | None = Field(None, description="Its board's program lights every lamp while it is closed")
    boot: Bright | None = Field(None, description="Its lamps from power-up on")
    lost: Lost | None = Field(None, description="What its lamps do while the link to their board is lost")
    declared: Annotated[tuple[Declared, ...], Field(max_length=16)] | None = Field(
        None, description="Lamps that do something else then than its others"
    )
    colour: LampColour | None = None
    led: bool | None = Field(None, description="An LED in the place of its part's bulb")
    digits: Annotated[int, Field(ge=1, le=16)] | None = None
    film: Film | None = None
    example: Annotated[str, Field(max_length=16)] | None = None


class RemoveFunction(Saying):
    """Take a function away, with its place, legend and pins."""

    do: Literal["remove_function"] = "remove_function"
    function: Ident


class MoveFunctions(Saying):
    """Move rows of the list before another row, or to its end."""

    do: Literal["move_functions"] = "move_functions"
    functions: Some
    before: Ident | None = None
