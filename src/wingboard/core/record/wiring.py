"""The controllers of a design, and the pins given to its lines."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Ident, Record, Words

BoardKind = Literal["atmega328p", "atmega328p-30", "atmega32u4", "atmega2560", "esp32", "rp2040", "hid-32"]
CHIPS: dict[BoardKind, str] = {
    "atmega328p": "ATmega328P", "atmega328p-30": "ATmega328P", "atmega32u4": "ATmega32U4", "atmega2560": "ATmega2560",
    "esp32": "ESP32", "rp2040": "RP2040", "hid-32": "HID card",
}  # fmt: skip
"""The chip on each kind of board, as its data sheet writes it."""
Role = Literal[
    "io", "in", "out", "measures", "up", "adc", "adc2", "pwm", "int", "flashes", "strap", "coder",
    "sda", "scl", "sck", "mosi", "miso",
]  # fmt: skip
"""What a pin can do: read and drive (io), only one of these, or only measure; a pull-up of its own; measure a voltage
(adc2: only while the radio is off), PWM, interrupt; it flashes at reset, or its level at power-up chooses how the chip
starts; it takes an input coder; it is a line of a bus."""
PinName = Annotated[str, Field(pattern=r"^[A-Za-z0-9][A-Za-z0-9_+-]{0,11}$")]
"""A pin as its board names it."""
MOST_PINS = 200

WireName = Annotated[str, Field(min_length=3, max_length=400, description="A wire by its two ends")]


LineName = Annotated[str, Field(pattern=r"^~?[a-z][a-z0-9-]{0,79}\.[a-z][a-z0-9-]{0,47}$")]
"""Of a function, or (with ~ before it) of what reads or drives several; a dot; the line's own."""


class Controller(Record):
    """A board on hand."""

    id: Ident
    name: Words = Field(min_length=1)
    board: Ident = Field(description="A kind that comes with the program, or a board of the design's own")
    measured: Annotated[float, Field(ge=0, le=100)] = Field(
        0.0, description="Read at its USB plug with everything on, A; 0: not yet"
    )
    reserved: Ident | None = Field(None, description="The function whose part plugs onto it, and takes all its pins")


class OwnPin(Record):
    """A pin of a board of one's own."""

    name: PinName
    roles: tuple[Role, ...] = Field(min_length=1, max_length=12)


class OwnBoard(Record):
    """A board that the builder described: its pins in the order in which they lie, one side after the other."""

    id: Ident
    name: Words = Field(min_length=1)
    volts: float = Field(5.0, ge=1.8, le=5.5, description="Of its logic")
    bits: int = Field(10, ge=8, le=16, description="Of its converter")
    pin_current: float | None = Field(None, gt=0, le=1, description="A through one pin; the usual limits when None")
    chip_current: float | None = Field(None, gt=0, le=10, description="A through all pins")
    width: float = Field(60.0, ge=5, le=400, description="mm")
    height: float = Field(40.0, ge=5, le=400, description="mm")
    pins: tuple[OwnPin, ...] = Field(min_length=1, max_length=MOST_PINS)


class PinChoice(Record):
    """A line's pin: chosen by hand or by the solver, or found so, its wire being there already."""

    line: LineName
    controller: Ident
    pin: PinName
    by: Literal["hand", "solver", "found"] = "solver"

    @property
    def stays(self) -> bool:
        """Whether the solver leaves it where it is."""
        return self.by != "solver"
