"""What a part is: its geometry by depth, its hand room, its positions and its electrical lines.

Coordinates are the part's own: origin at the centre of its hole, x to the right and y up, seen from the front.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from wingboard.core.design.base import Angle, Colour, Ident, Length, Mm, Record, Size, Source, Words
from wingboard.core.geometry.rounded import Rounded, disc, slab


class Circle(Record):
    """A round shape."""

    kind: Literal["circle"] = "circle"
    diameter: Size

    def rounded(self) -> Rounded:
        """The shape about the origin."""
        return disc(self.diameter)


class Rect(Record):
    """A rectangle, its corners rounded by ``radius``."""

    kind: Literal["rect"] = "rect"
    width: Size
    height: Size
    radius: Length = 0.0

    def rounded(self) -> Rounded:
        """The shape about the origin."""
        return slab(self.width, self.height, self.radius)


Shape = Annotated[Circle | Rect, Field(discriminator="kind")]


class FrontShape(Record):
    """Something seen from the front, drawn in the order given."""

    shape: Shape
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0
    fill: Colour
    edge: Colour | None = None
    lamp: Ident | None = Field(None, description="The lamp behind this shape, when it lights")
    text: Annotated[str, Field(max_length=12)] = Field("", description="What a read-out shows as an example")


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


class Hand(Record):
    """The room a finger meets: what is touched, and the class that sets its spacing."""

    kind: Literal["toggle", "button", "knob", "emergency"]
    shape: Shape


class Position(Record):
    """A place the control rests at or is pressed to."""

    name: Words
    angle: Angle = Field(description="Where its word stands, counter-clockwise from the right")
    springs: bool = Field(False, description="Returns by itself")


class Detents(Record):
    """Equal steps of a rotary mechanism. A stop washer limits the ways but keeps the step."""

    ways: Annotated[int, Field(ge=2, le=24)]
    step: Annotated[float, Field(gt=0, le=180)]


class Line(Record):
    """One electrical line from the part to a controller."""

    id: Ident
    does: Literal["switch", "encoder", "analogue", "lamp", "driver"]
    terminal: Words
    each_position: bool = Field(False, description="One such line for every position in use")
    current: Annotated[float, Field(ge=0, le=10)] = Field(0.0, description="Drawn from the pin, amperes")
    drop: Annotated[float, Field(ge=0, le=60)] = Field(0.0, description="Forward voltage of the lamp, volts")
    dims: bool = False


class Part(Record):
    """A type of part with its full profile by depth."""

    id: Ident
    name: Words
    family: Literal[
        "toggle",
        "button",
        "emergency",
        "key",
        "rotary",
        "encoder",
        "pot",
        "lamp",
        "caption",
        "readout",
        "other",
    ]
    summary: Words = Field("", description="What it is in a few words")
    mount: Literal["behind", "front", "window"] = Field(
        description="behind: seats behind the stack, nut hidden in it; front: flange on the face, nut behind; "
        "window: a module behind a window"
    )
    hole: Shape = Field(description="Opening in the face")
    nut_bore: Shape | None = Field(None, description="Clear bore in the layer that hides the nut")
    recess: Shape | None = Field(None, description="Opening behind the face for a module or a light box")
    key: Key | None = None
    bush: Bush | None = None
    body: Shape = Field(description="Widest outline behind the stack")
    depth: Length = Field(description="Behind the seating surface, terminals included")
    plug: Length = Field(0.0, description="Further room for the wire's bend or the plug")
    height: Length = Field(description="Standing out in front of the face")
    cover: Shape = Field(description="What hides the face: knob, bezel, guard and their swing")
    hand: Hand | None = None
    front: tuple[FrontShape, ...] = Field(min_length=1, max_length=40)
    positions: tuple[Position, ...] = ()
    detents: Detents | None = None
    lines: tuple[Line, ...] = ()
    price: Annotated[int, Field(ge=0, le=10_000_000)] = Field(0, description="Typical, in minor units")
    sources: dict[str, Source] = Field(description="Where each dimension comes from, by its field's name")

    @model_validator(mode="after")
    def _every_dimension_has_a_source(self) -> Part:
        missing = [name for name in self.dimensions() if name not in self.sources]
        if missing:
            raise ValueError(f"no source for {', '.join(missing)}")
        return self

    def dimensions(self) -> tuple[str, ...]:
        """The names of the dimensions this part states."""
        optional = ("nut_bore", "recess", "key", "bush", "hand", "detents")
        return ("hole", *(n for n in optional if getattr(self, n) is not None), "body", "depth", "cover")

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
