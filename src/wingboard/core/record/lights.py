"""The light behind a module: strips and single LEDs, where they lie and which way they shine. Lengths in mm."""

from __future__ import annotations

from math import hypot
from typing import Annotated, Literal

from pydantic import Field, field_validator

from wingboard.core.record.base import Ident, Length, Mm, Record
from wingboard.core.record.outputs import Bright, Lost

StripKind = Literal["strip-60", "strip-120", "chain-30", "chain-60"]
"""So many LEDs a metre; a chain's are set one by one."""
USUAL_STRIP: StripKind = "strip-60"
LedKind = Literal["led-5", "led-3", "led-flat"]
"""Round ones with a lens of 5 or 3 mm, or a flat one on a carrier."""
Tilt = Annotated[float, Field(ge=-90, le=90)]
"""Degrees that it is turned from straight forward to its left, as one runs along it seen from the front."""
Level = Annotated[float, Field(ge=0.02, le=1)]
"""A share of full brightness; below a fiftieth nothing shows."""
SHORTEST_STRIP = 5.0
"""A strip's least length (mm)."""
MOST_RUN = 10_000.0
"""Strips behind one module are together no longer than this (mm): ten times what a large one needs."""
MOST_STRIPS = 40
MOST_LEDS = 400


class Strip(Record):
    """A strip of LEDs from one point to another, in the module's coordinates.

    ``z`` is how far its LEDs lie behind the front surface; none: on the stack's last board, or on the usual standoffs.
    """

    id: Ident
    kind: StripKind = USUAL_STRIP
    x: Mm
    y: Mm
    x2: Mm
    y2: Mm
    z: Length | None = None
    tilt: Tilt = 0.0


class Led(Record):
    """A single LED that shines forward, in the module's coordinates; ``z`` as a strip's."""

    id: Ident
    kind: LedKind = "led-flat"
    x: Mm
    y: Mm
    z: Length | None = None
    level: Level = Field(1.0, description="Of its usual current, set by its resistor")


class Backlight(Record):
    """What lights a module from behind."""

    strips: tuple[Strip, ...] = Field((), max_length=MOST_STRIPS)
    leds: tuple[Led, ...] = Field((), max_length=MOST_LEDS)
    white: Annotated[float, Field(ge=0, le=0.95)] = Field(
        0.5, description="What walls and board behind throw back of the light that meets them: bare wood 0.5, white 0.8"
    )
    level: Level = Field(1.0, description="Dimmed to this share")
    dimmer: bool = Field(False, description="A controller's pin dims it; an addressable chain is dimmed by its data")
    boot: Bright = Field(0, description="How bright what a controller dims is from power-up on, of 255")
    lost: Lost = Field("hold", description="What it does while the link to its board is lost")

    @field_validator("leds", mode="after")
    @classmethod
    def _each_has_its_own_id(cls, leds: tuple[Led, ...]) -> tuple[Led, ...]:
        if len({led.id for led in leds}) < len(leds):
            raise ValueError("Two LEDs of one module have the same id")
        return leds

    @field_validator("strips", mode="after")
    @classmethod
    def _each_strip_has_its_own_id(cls, strips: tuple[Strip, ...]) -> tuple[Strip, ...]:
        if len({strip.id for strip in strips}) < len(strips):
            raise ValueError("Two strips of one module have the same id")
        if sum(hypot(s.x2 - s.x, s.y2 - s.y) for s in strips) > MOST_RUN:
            raise ValueError(f"Strips behind one module are together no longer than {MOST_RUN / 1000:g} m")
        return strips
