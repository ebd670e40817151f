"""A part at its place, and its shapes turned as it is: each type of part at each turn is worked out once."""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.record.functions import Function, Place
from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.resolved.profile import Cutout, Purpose, cutouts

Envelope = Literal["body", "hand", "cover"]
"""What a part takes behind the panel, what a hand touches of it, what it hides of the face."""


class Placed(NamedTuple):
    """A function's part at its place."""

    number: int
    function: Function
    part: Part
    place: Place

    @property
    def frame(self) -> Frame:
        """Where the part lies on its module."""
        return Frame(self.place.x, self.place.y, self.place.turn)


class Templates:
    """The shapes of each type of part at each turn, about its own centre, made once a revision."""

    def __init__(self, stack: tuple[Layer, ...]) -> None:
        self._stack = stack
        self._profiles: dict[tuple[str, float, int | None], tuple[Cutout, ...]] = {}
        self._openings: dict[tuple[str, float, int | None, float], dict[str, list[tuple[Purpose, Rounded]]]] = {}
        self._envelopes: dict[tuple[str, Envelope, float], Rounded | None] = {}

    def profile(self, placed: Placed) -> tuple[Cutout, ...]:
        """The openings of a placed part, in the part's coordinates."""
        key = (placed.part.id, placed.function.pocket, placed.function.digits)
        if key not in self._profiles:
            self._profiles[key] = cutouts(placed.part, self._stack, placed.function.pocket, placed.function.digits)
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
            self._envelopes[key] = _envelope(placed.part, what, placed.place.turn)
        return self._envelopes[key]


def _envelope(part: Part, what: Envelope, turn: float) -> Rounded | None:
    if what == "hand":
        return part.hand.shape.rounded().turned(turn) if part.hand else None
    if what == "cover":
        return part.cover.rounded().turned(turn)
    return body_of(part).turned(turn)


def body_of(part: Part) -> Rounded:
    """What a part takes behind the panel, room for its clamps included, about the middle of its hole, not turned."""
    body = (part.body.grown(part.clamp) if part.clamp else part.body).rounded()
    return body.moved(part.behind_x, part.behind_y) if part.behind_x or part.behind_y else body
