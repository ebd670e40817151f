"""What a part is: its geometry by depth, its hand room, its positions and its electrical lines.

Coordinates are the part's own: origin at the centre of its hole, x to the right and y up, seen from the front.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from wingboard.core.geometry.rounded import Rounded
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Angle, Colour, Ident, Length, Mm, Record, Size, Source, Words
from wingboard.core.record.reading import Reading
from wingboard.core.record.shapes import Rect, Shape

Family = Literal[
    "toggle", "button", "rocker", "emergency", "key", "rotary", "encoder", "pot", "slider", "thumbwheel", "joystick",
    "breaker", "lamp", "caption", "readout", "display", "gauge", "sounder", "connector", "vent", "speaker", "blank",
    "placard", "fixing", "device", "other",
]  # fmt: skip
Price = Annotated[int, Field(ge=0, le=10_000_000)]
"""Minor units of the design's currency."""


class FrontShape(Record):
    """Something seen from the front, drawn in the order given."""

    shape: Shape
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0
    fill: Colour
    edge: Colour | None = None
    lamp: Ident | None = Field(None, description="The lamp behind this shape, when it lights")
    text: Annotated[str, Field(max_length=16)] = Field("", description="What a read-out shows as an example")


class Bush(Record):
    """The threaded neck that holds a part. Lengths in mm."""

    diameter: Size
    length: Size = Field(description="From the seating surface to the end of the thread")
    nut: Size = Field(description="Height of the nut")
    washer: Length = 0.0
    pitch: Size = Field(description="Of the thread; one full thread shall stand out of the nut")


class Key(Record):
    """A pip or flat against turning: a slot in the layer the part seats on."""

    radius: Size = Field(description="From the centre of the bush to the centre of the slot")
    angle: Angle = Field(description="Where it lies when the part is not turned")
    width: Size
    length: Size
    height: Size = Field(1.2, description="How far the pip stands out of the body")


class Opening(Record):
    """A further opening through every layer: a screw hole, a slot of a vent."""

    shape: Shape
    x: Mm
    y: Mm
    turn: Angle = 0.0


class HandRoom(Record):
    """The room a finger meets: what is touched, and the class that sets its spacing."""

    kind: Literal["toggle", "button", "knob", "emergency"]
    shape: Shape
    x: Mm = Field(0.0, description="Its middle, from the middle of the hole")
    y: Mm = 0.0


class Slice(Record):
    """A piece of a part's depth with one outline: from ``z0`` to ``z1`` mm behind its seat."""

    z0: Mm
    z1: Mm
    shape: Shape
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0

    @model_validator(mode="after")
    def _has_depth(self) -> Slice:
        if self.z1 <= self.z0:
            raise ValueError("a step ends behind its start")
        return self


class Position(Record):
    """A place the control rests at or is pressed to."""

    name: Words
    angle: Angle = Field(description="Where its word stands, counter-clockwise from the right")
    springs: bool = Field(False, description="Returns by itself")


class Detents(Record):
    """Equal steps of a rotary mechanism. A stop washer limits the ways but keeps the step."""

    ways: Annotated[int, Field(ge=2, le=24)]
    step: Annotated[float, Field(gt=0, le=180)]
    mechanism: Annotated[int, Field(ge=2, le=24)] | None = Field(
        None, description="Positions of the whole turn, when a stop leaves fewer ways"
    )


BUS_LINES = frozenset({"sda", "scl", "sck", "mosi", "miso"})


class PartLine(Record):
    """One electrical line from the part to a controller."""

    id: Ident
    does: Literal["switch", "encoder", "analogue", "lamp", "driver", "sda", "scl", "sck", "mosi", "miso"] = Field(
        description="sda and scl are of an I²C bus, sck, mosi and miso of an SPI bus: devices share their pins"
    )
    terminal: Words
    each_position: bool = Field(False, description="One such line for every position in use")
    current: Annotated[float, Field(ge=0, le=10)] = Field(0.0, description="Drawn from the pin, amperes")
    drop: Annotated[float, Field(ge=0, le=60)] = Field(0.0, description="Forward voltage of the lamp, volts")
    volts: Annotated[float, Field(ge=0, le=400)] = Field(
        0.0, description="Supply that the lamp is made for, with a resistor of its own or as a bulb; 0: none of its own"
    )
    bulb: bool = Field(False, description="A filament: it takes its current at its own voltage")
    returns: bool = Field(False, description="Takes back what another of its lines gives, as the far end of a coil")
    dims: bool = False
    back: Words = Field("", description="Its other terminal: a contact's common, a lamp's cathode; none: not said")
    closed: tuple[Words, ...] = Field(
        (), max_length=24, description="The positions in which its contact is closed; an empty name is at rest"
    )
    ends: Annotated[tuple[Words, ...], Field(min_length=2, max_length=2)] | None = Field(
        None, description="Of a voltage divider: its low and its high terminal"
    )

    @model_validator(mode="after")
    def _a_lamp_has_one_voltage(self) -> PartLine:
        if self.bulb and not self.volts:
            raise ValueError("a bulb has a voltage that it is made for")
        if self.volts and self.drop:
            raise ValueError("a lamp that is made for a supply needs no forward voltage")
        return self


class Contact(Record):
    """A contact of which no line goes to a controller: a stop's own, the resting one of a pair, a breaker's."""

    a: Words
    b: Words
    closed: tuple[Words, ...] = Field((), max_length=24, description="As of a line; an empty name is at rest")


PASSES_ON = "DOUT"
"""The terminal by which a driver hands its data on to the next one of a chain."""


class Rating(Record):
    """What its contacts may switch."""

    volts: Annotated[float, Field(gt=0, le=1000)]
    amps: Annotated[float, Field(gt=0, le=200)]
    ac: bool = False


class Feed(Record):
    """What it draws from a supply, apart from its pins."""

    volts: Annotated[float, Field(gt=0, le=400)]
    amps: Annotated[float, Field(ge=0, le=50)]
    plus: tuple[Words, ...] = Field((), max_length=8, description="Its terminals on the supply; none: not said")
    minus: tuple[Words, ...] = Field((), max_length=8, description="Its terminals on the return")


class PartTag(Record):
    """Where a terminal was measured to lie: about the middle of the body, seen from the front, the part not turned."""

    terminal: Words = Field(min_length=1)
    x: Mm
    y: Mm


class SheetRange(Record):
    """The thickness a clip or a flange takes (mm)."""

    least: Length
    most: Size

    def takes(self, thickness: float) -> bool:
        """Whether a plate so thick (mm) goes in."""
        return self.least - VISIBLE <= thickness <= self.most + VISIBLE


class Digits(Record):
    """Digits side by side; a face may hide some of them."""

    count: Annotated[int, Field(ge=1, le=16)]
    pitch: Size
    height: Size


class PriceRange(Record):
    """The least and the most paid (minor units)."""

    low: Price
    high: Price


class Part(Record):
    """A type of part with its full profile by depth."""

    id: Ident
    name: Words
    family: Family
    summary: Words = Field("", description="What it is in a few words")
    base: Ident | None = Field(None, description="The part it was copied from, for one measured by the builder")
    members: tuple[Ident, ...] = Field((), max_length=4, description="The parts that share its hole")
    mount: Literal["behind", "front", "window"] = Field(
        description="behind: seats behind the stack, nut hidden in it; front: flange on the face, nut behind; "
        "window: a module behind a window"
    )
    hole: Shape = Field(description="Opening in the face")
    nut_bore: Shape | None = Field(None, description="Clear bore in the layer that hides the nut")
    recess: Shape | None = Field(None, description="Opening behind the face for a module or a light box")
    extras: tuple[Opening, ...] = Field((), max_length=60, description="Screw holes and slots through every layer")
    key: Key | None = None
    bush: Bush | None = None
    body: Shape = Field(description="Outline behind the stack, the widest where nothing else is said")
    body_to: Size | None = Field(None, description="Where the body ends and its steps follow; none: at the full depth")
    steps: tuple[Slice, ...] = Field((), max_length=20, description="What else it fills: a can behind a flange, studs")
    behind_x: Mm = Field(0.0, description="Middle of body and recess, from the middle of the hole")
    behind_y: Mm = 0.0
    clamp: Length = Field(0.0, description="Room for clamps beside the body")
    depth: Length = Field(description="Behind the seating surface, terminals included")
    plug: Length = Field(0.0, description="Further room for the wire's bend or the plug")
    cable: Literal["", "back", "left", "right", "top", "bottom"] = Field("", description="Where the cable leaves")
    height: Length = Field(description="Standing out in front of the face")
    cover: Shape = Field(description="What hides the face: knob, bezel, guard and their swing")
    cover_x: Mm = Field(0.0, description="Middle of the cover: a guard swings to one side")
    cover_y: Mm = 0.0
    hand: HandRoom | None = None
    front: tuple[FrontShape, ...] = Field(min_length=1, max_length=60)
    guarded: bool = Field(False, description="A cover, a lock or a key keeps it from being worked by chance")
    upright: bool = Field(False, description="Reads only one way up")
    digits: Digits | None = None
    lit: Literal["behind", "side"] = Field("behind", description="Where the lamps of a caption's box stand")
    glow: Literal["", "led", "lcd", "tft", "oled"] = Field("", description="What a read-out or screen shows itself by")
    action: Literal["", "momentary", "latching", "selector"] = ""
    positions: tuple[Position, ...] = ()
    detents: Detents | None = None
    lines: tuple[PartLine, ...] = ()
    terminals: tuple[Words, ...] = Field((), max_length=64, description="Every tag, those of the lamp apart")
    contacts: tuple[Contact, ...] = Field((), max_length=40, description="Those that no line of its own stands for")
    tags: tuple[PartTag, ...] = Field((), max_length=64, description="Terminals that lie elsewhere than is usual")
    rating: Rating | None = None
    feed: Feed | None = None
    plugs_on: bool = Field(False, description="It plugs onto a controller and takes all pins of that")
    sealing: Literal["", "IP40", "IP54", "IP65", "IP67"] = ""
    sheet: SheetRange | None = None
    colour: Words = Field("", description="Of its lamp or cap")
    price: Price = Field(0, description="Typical, new")
    used: PriceRange | None = Field(None, description="For a used one")
    times: Annotated[int, Field(ge=1, le=4)] = Field(1, description="How many to have for each in use, spares included")
    sample_first: bool = Field(False, description="Buy one and try it before the rest")
    readings: tuple[Reading, ...] = Field((), max_length=12, description="Calliper readings of the builder's own")
    imported: Shape | None = Field(None, description="The cut-out that was imported, until the hole is measured")
    bezel: Shape | None = Field(None, description="The bezel that was typed, until it is measured")
    sources: dict[str, Source] = Field(description="Where each dimension comes from, by its field's name")

    @model_validator(mode="after")
    def _every_dimension_has_a_source(self) -> Part:
        missing = [name for name in self.dimensions() if name not in self.sources]
        if missing:
            raise ValueError(f"no source for {', '.join(missing)}")
        return self

    def dimensions(self) -> tuple[str, ...]:
        """The names of the dimensions this part states."""
        optional = ("nut_bore", "recess", "key", "bush", "hand", "detents", "digits", "sheet", "rating")
        return ("hole", *(n for n in optional if getattr(self, n) is not None), "body", "depth", "cover")

    @property
    def marked(self) -> tuple[str, ...]:
        """The terminals that it has, those that only a line names too."""
        named = [t for line in self.lines for t in (*_of_ways(self, line), line.back, *(line.ends or ())) if t]
        return tuple(dict.fromkeys((*self.terminals, *named)))

    def touched(self) -> Rounded | None:
        """What a finger meets, about the middle of the hole, not turned; None when it is not touched."""
        return self.hand.shape.rounded().moved(self.hand.x, self.hand.y) if self.hand else None

    def covered(self) -> Rounded:
        """What is hidden of the face with the swing, about the middle of the hole, not turned."""
        return self.cover.rounded().moved(self.cover_x, self.cover_y)

    @property
    def ways(self) -> int:
        """How many positions it can name."""
        return self.detents.ways if self.detents else len(self.positions)

    def angles(self, used: int, step: float | None = None) -> tuple[float, ...]:
        """Where the words of ``used`` positions stand, in degrees counter-clockwise from the right.

        A rotary's ways are centred on the top and run clockwise, ``step`` degrees apart (the mechanism's own when
        None); other parts state their angles one by one.
        """
        if self.detents is None:
            return tuple(p.angle for p in self.positions[:used])
        pace = self.detents.step if step is None else step
        return tuple(90 + pace * (used - 1) / 2 - pace * k for k in range(used))

    def window(self, digits: int | None) -> tuple[Shape, float]:
        """The hole with only the last ``digits`` showing, and how far (mm) its middle is to the right of the part's."""
        if self.digits is None or digits is None or digits >= self.digits.count or not isinstance(self.hole, Rect):
            return self.hole, 0.0
        hidden = (self.digits.count - digits) * self.digits.pitch
        return self.hole.model_copy(update={"width": self.hole.width - hidden}), hidden / 2


def _of_ways(part: Part, line: PartLine) -> tuple[str, ...]:
    """The terminals that a line reads or drives: of a selector one for each way."""
    return tuple(str(n) for n in range(1, part.ways + 1)) if line.each_position else (line.terminal,)
