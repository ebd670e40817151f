"""The brief: what the panel must fit, who sits before it, and what is in the way. Lengths in mm, angles in degrees.

The origin is the opening's lower left corner, seen from the front. In the side elevation the origin is the panel's
lower front edge, x runs away from the person and y up.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.geometry.outline import area_of
from wingboard.core.geometry.rounded import Rounded, slab
from wingboard.core.quantity import SMALLEST
from wingboard.core.record.base import Distance, Edge, Ident, Length, Mm, Pitch, Record, Size, Words
from wingboard.core.record.outlines import Outline, RectOutline, stretched
from wingboard.core.record.workshop import Money, Process

PanelKind = Literal["cab", "vehicle", "boat", "machine", "prop", "aircraft", "other"]
Two = Annotated[tuple[Size, ...], Field(max_length=2)]
Three = Annotated[tuple[Size, ...], Field(max_length=3)]


class KeepOutFields(Record):
    """A box in the way, behind the opening or in front of it, that leaves ``clear`` mm free."""

    name: Words
    kind: Literal["bar", "frame", "shelf", "neighbour"] = "bar"
    side: Literal["behind", "front"] = "behind"
    x: Mm
    y: Mm
    width: Size
    height: Size
    clear: Length = Field(description="Room left free, from the panel's front surface")

    def area(self) -> Rounded:
        """What it takes of the opening, in the opening's coordinates."""
        return slab(self.width, self.height).moved(self.x + self.width / 2, self.y + self.height / 2)


class KeepOut(KeepOutFields):
    """A keep-out of the brief, by its id."""

    id: Ident


class Seat(Record):
    """The person's knees, seen from the side."""

    edge_height: Size = Field(700, description="The panel's lower edge above the floor")
    knee_height: Size = Field(620, description="The top of the knee above the floor")
    knee_reach: Mm = Field(60, description="How far the knee is beyond the panel's lower edge")
    clear: Length = Field(20, description="Room wanted between knee and the lowest part")


class Environment(Record):
    """What the panel has to stand, and who comes near it."""

    sun: bool = Field(False, description="Direct sun falls on it")
    wet: bool = Field(False, description="Rain, spray or damp reaches it")
    heat: bool = Field(False, description="It gets hot: a parked car, beside an engine")
    dark: bool = Field(False, description="It is read in a dark room, or at night")
    public: bool = Field(False, description="Visitors or children can touch it")


class ConsoleFrame(Record):
    """Battens behind a wooden console's skin, round the opening and across it, that the modules rest on."""

    wide: Size = Field(30.0, description="Of a batten, seen from the front")
    deep: Size = Field(20.0, description="Of a batten, from the skin backwards")
    ledge: Edge = Field(8.0, description="How far the battens reach into the opening, under the modules' edges")
    skin: Length = Field(6.0, description="Thickness of the console's face")
    screws: Pitch = Field(120.0, description="From one screw of a batten to the next, at most")


class Brief(Record):
    """What the panel must do and fit."""

    title: Words = ""
    kind: PanelKind = "cab"
    opening: Outline = RectOutline(width=300, height=200)
    widths: Three = Field((), description="The opening's width measured at up to three places")
    heights: Three = Field((), description="Its height measured at up to three places")
    diagonals: Two = Field((), description="From its lower left corner to the upper right, and across that")
    process: Process | None = Field(None, description="How the plates' edges are made; sets the usual gap")
    gap: Length = Field(0.3, description="Clearance wanted on every side of a module")
    depth: Size = Field(90, description="Free depth behind the front surface of the panel")
    keepouts: tuple[KeepOut, ...] = Field((), max_length=200)
    pitch: Annotated[float, Field(ge=-80, le=90)] = Field(
        0.0, description="How far the panel leans back from upright: 0 a wall, 90 a table, less than 0 overhead"
    )
    eye_distance: Distance | None = Field(None, description="From the eye to the panel's middle, by tape")
    eye_height: Mm = Field(0.0, description="The eye above the panel's middle")
    environment: Environment = Environment()
    free_hand: Literal["left", "right", "both"] = "both"
    reach: Distance = Field(650, description="From the shoulder to the finger tips")
    seat: Seat | None = None
    frame: ConsoleFrame | None = Field(None, description="Of a wooden console round the opening")
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "EUR"
    bought_price: Money | None = Field(None, description="What a bought one costs")


def lean(brief: Brief) -> float:
    """How far (mm) the opening's upright sides lean over its height, from its two diagonals; 0 until both are known.

    A parallelogram of width w and diagonals d and e leans by (d² - e²)/4w (law of cosines, the two taken together).
    """
    if len(brief.diagonals) < 2:
        return 0.0
    x0, _, x1, _ = area_of(brief.opening.loop()).bounds
    width = min((*brief.widths, x1 - x0))
    one, other = brief.diagonals
    return abs(one * one - other * other) / (4 * width)


def fitting_opening(brief: Brief) -> Outline:
    """The opening that a plate must pass: drawn in to the least measured width and height, and by how far it leans."""
    aslant = lean(brief)
    if not brief.widths and not brief.heights and not aslant:
        return brief.opening
    outline = brief.opening
    x0, y0, x1, y1 = area_of(outline.loop()).bounds
    width, height = min((*brief.widths, x1 - x0)), min((*brief.heights, y1 - y0))
    width = max(width - aslant, SMALLEST)
    if isinstance(outline, RectOutline):
        return outline.model_copy(update={"width": width, "height": height})
    return stretched(outline, width, height)
