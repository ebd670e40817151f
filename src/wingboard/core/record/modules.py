"""The modules of a panel, their fixings, and the layers of their stack. Lengths in mm."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from wingboard.core.record.base import Angle, Colour, Edge, Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.harness import Loom
from wingboard.core.record.lights import Backlight
from wingboard.core.record.outlines import Outline
from wingboard.core.record.shapes import Shape
from wingboard.core.record.workshop import Material

LayerRole = Literal["face", "diffuser", "back", "board", "buttons"]
"""The light board and the board of the buttons stand behind the plate; the others are the plate."""
School = Literal["three-layer", "two-layer", "metal", "acrylic", "reverse", "printed"]
Join = Literal["screws", "glue", "trapped"]
Closed = Literal["", "foam", "wall"]
"""What closes the room before a layer all round its edge, so that no light gets out: nothing, foam, a wall."""
Opacity = Literal["", "clear", "translucent", "opaque"]
"""Of a sheet with its paint; not said: nothing."""
Screw = Literal["M2", "M2.5", "M3", "M4", "M5", "M6"]
Head = Literal["pan", "countersunk"]


MOST_SCREWS = 200
"""Screws of one module, at most."""
MOST_LAYERS = 8
MOST_FEATURES = 200
"""Exceptions in one layer, at most."""


class ScrewAt(Record):
    """A screw placed by hand, in the module's coordinates."""

    id: Ident
    x: Mm
    y: Mm


class Fixings(Record):
    """Screws through every layer: at the corners, and where they are placed by hand."""

    screw: Screw = "M3"
    head: Head = "pan"
    inset: Size = Field(8.0, description="From the edge to the middle of a corner's screw")
    corners: bool = Field(True, description="A screw in each corner")
    pins: Annotated[float, Field(ge=0, le=12)] = Field(
        0.0, description="Diameter of two registration pins through the sheets behind the face; 0: none"
    )
    by_hand: tuple[ScrewAt, ...] = Field((), max_length=MOST_SCREWS - 50)

    @field_validator("by_hand", mode="after")
    @classmethod
    def _each_has_its_own_id(cls, screws: tuple[ScrewAt, ...]) -> tuple[ScrewAt, ...]:
        if len({s.id for s in screws}) < len(screws):
            raise ValueError("Two screws of one module have the same id")
        return screws


class Paint(Record):
    """Paint on one side of a sheet."""

    side: Literal["front", "back"] = "front"
    coats: Annotated[int, Field(ge=1, le=9)] = 1
    colour: Colour = "#20272A"


class Feature(Record):
    """A named exception to what follows from the parts, in one layer of one module: an opening more, or one less."""

    id: Ident
    module: Ident
    reason: Words = Field(min_length=1)
    without: Ident | None = Field(None, description="The function whose openings are left out of this layer")
    shape: Shape | None = Field(None, description="An opening more, in the module's coordinates")
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0
    depth: Size | None = Field(None, description="Cut from behind so deep; none: through")

    @model_validator(mode="after")
    def _is_one_of_both(self) -> Feature:
        if (self.without is None) == (self.shape is None):
            raise ValueError("an exception leaves the openings of one function out, or adds one shape")
        return self


class Layer(Record):
    """One sheet of the stack."""

    id: Ident
    name: Words
    role: LayerRole
    material: Material = "acrylic"
    thickness: Annotated[float, Field(gt=0, le=50)]
    colour: Colour = "#FFFFFF"
    opacity: Opacity = ""
    paint: tuple[Paint, ...] = Field((), max_length=4)
    join: Join = Field("screws", description="To what lies before it")
    gap: Length = Field(0.0, description="Free room before it: its standoffs")
    edge: Closed = Field("", description="What closes that room all round")
    inset: Mm = Field(0.0, description="Its edge inside that of the module, all round; less than nothing: outside")
    outline: Outline | None = Field(None, description="Its own outline, where it differs")
    x: Mm = Field(0.0, description="Of the own outline's lower left corner, in the module")
    y: Mm = 0.0
    features: tuple[Feature, ...] = Field((), max_length=MOST_FEATURES)

    @field_validator("features", mode="after")
    @classmethod
    def _each_has_its_own_id(cls, features: tuple[Feature, ...]) -> tuple[Feature, ...]:
        if len({f.id for f in features}) < len(features):
            raise ValueError("Two exceptions of one layer have the same id")
        return features


def opacity_of(layer: Layer) -> Opacity:
    """How a layer takes light: as it is said, else by its role."""
    return layer.opacity or ("translucent" if layer.role == "diffuser" else "opaque")


def is_plate(layer: Layer) -> bool:
    """Whether a layer is screwed to the others as one plate."""
    return layer.role not in ("board", "buttons")


def engraved_behind(layer: Layer) -> bool:
    """Whether a face is engraved from behind, so that its words are read through it: clear, with paint on its back."""
    return layer.role == "face" and layer.opacity == "clear" and any(p.side == "back" for p in layer.paint)


def usual_on(stack: Iterable[Layer]) -> Literal["plate", "board"]:
    """Where a board behind stands unless it is said: on the last board of the stack where there is one."""
    return "plate" if all(is_plate(layer) for layer in stack) else "board"


MOST_MOUNTED = 12
"""Boards behind one module, at most."""
MOST_HOLES = 12
"""Holes of one of them, at most."""


class Mounted(Record):
    """A board behind a module: a controller, or any other, on standoffs.

    ``x``, ``y`` are its middle in the module's coordinates, its holes are about that middle; its sizes are those of the
    board not turned, seen from the front.
    """

    id: Ident
    name: Words = Field(min_length=1)
    controller: Ident | None = Field(None, description="The controller of the design that it is")
    on: Literal["plate", "board"] = Field("plate", description="Stands on the back of the plate, or of the last board")
    width: Size
    height: Size
    thickness: Size = 1.6
    tall: Length = Field(15.0, description="What stands on it, away from the panel: headers, plugs, wires")
    gap: Length = Field(10.0, description="Its standoffs")
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0
    screw: Screw = "M3"
    holes: tuple[ScrewAt, ...] = Field((), max_length=MOST_HOLES)


Wall = Literal["left", "right", "top", "bottom", "back"]


class CableExit(Record):
    """A round hole in a wall of a case, its middle ``along`` mm from the wall's left or lower end, half way deep.

    It is kept inside the wall, and no wider than that takes.
    """

    wall: Wall = "back"
    diameter: Size = 12.0
    along: Length = 30.0


class Case(Record):
    """A box behind a module: walls round its plate, and a back; of sheet, or printed in one piece or several."""

    made: Literal["sheet", "printed"] = "sheet"
    material: Material = "plywood"
    thickness: Size = 6.0
    room: Length = Field(25.0, description="For wires, behind whatever reaches deepest")
    lip: Edge = Field(10.0, description="Strips inside that the plate lies on, so that no light passes; 0: none")
    shelf: Edge = Field(0.0, description="Strips at 45° for lamps all round, so wide; 0: none")
    vents: bool = True
    hatch: bool = True
    exits: tuple[CableExit, ...] = Field((CableExit(),), max_length=12)


class Module(Record):
    """One module: a plate with its own coordinates, origin at the lower left corner seen from the front."""

    id: Ident
    name: Words = Field(min_length=1)
    outline: Outline
    returns: Literal["bus", "star"] = Field(
        "bus", description="bus: one common from part to part; star: every part's ground by itself to the board"
    )
    feeds: Literal["bus", "star"] = Field(
        "bus", description="bus: a supply goes on from part to part; star: to every part by itself"
    )
    loom: Loom = Loom()
    x: Mm = Field(0.0, description="Of its origin in the opening")
    y: Mm = 0.0
    fixings: Fixings | None = Fixings()
    tolerance: Length = Field(0.2, description="How far its width may come out off, either way")
    school: School | None = Field(None, description="That made its own stack; none: the panel's")
    stack: Annotated[tuple[Layer, ...], Field(min_length=1, max_length=MOST_LAYERS)] | None = Field(
        None, description="Its own layers, from the front; none: those of the panel"
    )
    mounted: tuple[Mounted, ...] = Field((), max_length=MOST_MOUNTED, description="Boards behind it")
    case: Case | None = None
    light: Backlight | None = Field(None, description="What lights it from behind")

    @field_validator("stack", mode="after")
    @classmethod
    def _each_layer_has_its_own_id(cls, stack: tuple[Layer, ...] | None) -> tuple[Layer, ...] | None:
        if stack and len({layer.id for layer in stack}) < len(stack):
            raise ValueError("Two layers of one module have the same id")
        return stack

    @field_validator("mounted", mode="after")
    @classmethod
    def _each_board_has_its_own_id(cls, mounted: tuple[Mounted, ...]) -> tuple[Mounted, ...]:
        if len({board.id for board in mounted}) < len(mounted):
            raise ValueError("Two boards behind one module have the same id")
        return mounted


THREE_LAYERS = (
    Layer(id="face", name="Face", role="face", thickness=2, colour="#263033"),
    Layer(id="diffuser", name="Diffuser", role="diffuser", thickness=3, colour="#F4F6F2"),
    Layer(id="back", name="Back", role="back", thickness=3, colour="#D9D5C8"),
)
