"""Commands about the light behind the modules."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Length, Mm, Record
from wingboard.core.record.lights import MOST_LEDS, MOST_STRIPS, LedKind, Level, StripKind, Tilt
from wingboard.core.record.outputs import Bright, Lost


class AddStrip(Saying):
    """A strip of LEDs behind a module, from one point to another; what is not said: across its middle."""

    do: Literal["add_strip"] = "add_strip"
    module: Ident
    id: Ident | None = None
    kind: StripKind | None = None
    x: Mm | None = None
    y: Mm | None = None
    x2: Mm | None = None
    y2: Mm | None = None
    z: Length | None = None
    tilt: Tilt | None = None


class EditStrip(Saying):
    """Change a strip; fields left out stay, no ``z`` lays it back on the board."""

    do: Literal["edit_strip"] = "edit_strip"
    module: Ident
    strip: Ident
    kind: StripKind | None = None
    x: Mm | None = None
    y: Mm | None = None
    x2: Mm | None = None
    y2: Mm | None = None
    z: Length | None = None
    tilt: Tilt | None = None


class Point(Record):
    """A point of a module."""

    x: Mm
    y: Mm


class AddLeds(Saying):
    """Single LEDs behind a module; without places one in its middle."""

    do: Literal["add_leds"] = "add_leds"
    module: Ident
    kind: LedKind | None = None
    at: Annotated[tuple[Point, ...], Field(min_length=1, max_length=MOST_LEDS)] | None = None
    z: Length | None = None
    level: Level | None = None


class EditLed(Saying):
    """Change a single LED; fields left out stay, no ``z`` lays it back on the board."""

    do: Literal["edit_led"] = "edit_led"
    module: Ident
    led: Ident
    kind: LedKind | None = None
    x: Mm | None = None
    y: Mm | None = None
    z: Length | None = None
    level: Level | None = None


class RemoveLights(Saying):
    """Take strips and LEDs away from behind a module."""

    do: Literal["remove_lights"] = "remove_lights"
    module: Ident
    lights: Annotated[tuple[Ident, ...], Field(min_length=1, max_length=MOST_LEDS + MOST_STRIPS)]


class SetLight(Saying):
    """How much the room behind a module throws back, and how far its light is dimmed; fields left out stay."""

    do: Literal["set_light"] = "set_light"
    module: Ident
    white: Annotated[float, Field(ge=0, le=0.95)] | None = None
    level: Level | None = None
    dimmer: bool | None = None
    boot: Bright | None = Field(None, description="Of 255, what a controller dims from power-up on")
    lost: Lost | None = Field(None, description="What that does while the link to its board is lost")
