"""The controllers of a design, and the pins given to its lines."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Ident, Record, Words

BoardKind = Literal["atmega328p", "atmega32u4", "atmega2560"]
CHIPS: dict[BoardKind, str] = {"atmega328p": "ATmega328P", "atmega32u4": "ATmega32U4", "atmega2560": "ATmega2560"}
"""The chip on each kind of board, as its data sheet writes it."""


WireName = Annotated[str, Field(min_length=3, max_length=400, description="A wire by its two ends")]


LineName = Annotated[str, Field(pattern=r"^~?[a-z][a-z0-9-]{0,79}\.[a-z][a-z0-9-]{0,47}$")]
"""Of a function, or (with ~ before it) of what reads or drives several; a dot; the line's own."""


class Controller(Record):
    """A board on hand."""

    id: Ident
    name: Words = Field(min_length=1)
    board: BoardKind


class PinChoice(Record):
    """A line's pin, chosen by hand or by the solver."""

    line: LineName
    controller: Ident
    pin: Annotated[str, Field(pattern=r"^[A-Z]?[0-9]{1,2}$")]
    by: Literal["hand", "solver"] = "solver"
