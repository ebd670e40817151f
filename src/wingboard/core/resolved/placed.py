"""A part at its place, and its shapes turned as it is: each type of part at each turn is worked out once."""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.record.functions import Function, Place
from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.resolved.profile import (
    Cutout,
    Purpose,
    Seated,
    behind,
    clamped,
    cutouts,
    nut_layer,
    thread_needed,
)

Envelope = Literal["hand", "cover"]
"""What a hand touches of a part, what it hides of the face."""


class Placed(NamedTuple):
    """A function's part at its place, in the layers of its module."""

    number: int
    function: Function
    part: Part
    place: Place
    stack: tuple[Layer, ...]

    @property
    def frame(self) -> Frame:
        """Where the part lies on its module."""
        return Frame(self.place.x, self.place.y, self.place.turn)

    @property
    def behind(self) -> tuple[Seated, ...]:
        """What it takes behind the plate, by depth, not turned."""
        return behind(self.part, self.stack, self.function.pocket)

    @property
    def clamped(self) -> float:
        """Thickness (mm) between its nut and its seat."""
        return clamped(self.part, self.stack, self.function.pocket)

    @property
    def thread_needed(self) -> float:
        """Length (mm) its bush needs."""
        return thread_needed(self.part, self.stack, self.function.pocket)

    @property
    def nut_layer(self) -> int | None:
        """Which plate hides its nut, from 0; None when the nut lies on a surface."""
        return nut_layer(self.part, self.stack)


class Body(NamedTuple):
    """A piece of what a part takes behind the plate: its outline about the part's centre, between two depths (mm)."""

    outline: Rounded
    z0: float
    z1: float


class Templates:
    """The shapes of each type of part at each turn in one stack, about its own centre, made once a revision."""

    def __init__(self) -> None:
        self._profiles: dict[tuple[str, float, int | None], tuple[Cutout, ...]] = {}
        self._openings: dict[tuple[str, float, int | None, float], dict[str, list[tuple[Purpose, Rounded]]]] = {}
        self._envelopes: dict[tuple[str, Envelope, float], Rounded | None] = {}
        self._bodies: dict[tuple[str, float, float], tuple[Body, ...]] = {}

    def profile(self, placed: Placed) -> tuple[Cutout, ...]:
        """The openings of a placed part, in the part's coordinates."""
        key = (placed.part.id, placed.function.pocket, placed.function.digits)
        if key not in self._profiles:
            self._profiles[key] = cutouts(placed.part, placed.stack, placed.function.pocket, placed.function.digits)
        return self._profiles[key]

    def openings(self, placed: Placed, layer: str) -> list[tuple[Purpose, Rounded]]:
        """Purpose and shape of the openings in a layer, turned as the part is."""
        key = (placed.part.id, placed.function.pocket, placed.function.digits, placed.place.turn)
        if key not in self._openings:
            made: dict[str, list[tuple[Purpose, Rounded]]] = {}
            for cut in self.profile(placed):
                shape = cut.shape.rounded().turned(cut.turn).moved(cut.x, cut.y).turned(placed.place.turn)
                made.setdefault(cut.layer, []).append((cut.purpose, shape))
            self._openings[key] = made
        return self._openings[key].get(layer, [])

    def envelope(self, placed: Placed, what: Envelope) -> Rounded | None:
        """An envelope, turned as the part is; None for the hand of a part that is not touched."""
        key = (placed.part.id, what, placed.place.turn)
        if key not in self._envelopes:
            made = placed.part.touched() if what == "hand" else placed.part.covered()
            self._envelopes[key] = made.turned(placed.place.turn) if made else None
        return self._envelopes[key]

    def bodies(self, placed: Placed) -> tuple[Body, ...]:
        """What the part takes behind the plate, turned as it is."""
        key = (placed.part.id, placed.function.pocket, placed.place.turn)
        if key not in self._bodies:
            turn = placed.place.turn
            self._bodies[key] = tuple(Body(s.outline().turned(turn), s.z0, s.z1) for s in placed.behind)
        return self._bodies[key]
