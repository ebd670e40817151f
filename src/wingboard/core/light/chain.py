"""The chain of a module's addressable strips: the order of their LEDs, the wires between, where power comes in.

Data runs through the strips in the order of the list, each from its start to its end.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from wingboard.core.light.kinds import STRIPS
from wingboard.core.record.lights import Backlight

Point = tuple[float, float]


class Link(NamedTuple):
    """A strip of the chain: the numbers of its first and last LED, from 1; the wire to it from the one before (mm)."""

    strip: str
    first: int
    last: int
    wire: float


class Feed(NamedTuple):
    """Where power comes in: before that LED, at its place (mm)."""

    number: int
    x: float
    y: float


class Chain(NamedTuple):
    """The strips in their order, and where power comes in."""

    links: tuple[Link, ...]
    feeds: tuple[Feed, ...]


def chain_of(light: Backlight, lamps: Mapping[str, Sequence[Point]], most: float) -> Chain | None:
    """The chain of a module's light; None where nothing of it is addressable.

    :param lamps: where each strip's LEDs lie, in their order (mm).
    :param most: LEDs that one feed carries.
    """
    links: list[Link] = []
    spots: list[Point] = []
    end: Point | None = None
    for strip in light.strips:
        mine = lamps.get(strip.id, ())
        if not STRIPS[strip.kind].chain or not mine:
            continue
        wire = math.dist(end, (strip.x, strip.y)) if end else 0.0
        links.append(Link(strip.id, len(spots) + 1, len(spots) + len(mine), wire))
        spots += mine
        end = strip.x2, strip.y2
    if not links:
        return None
    parts = math.ceil(len(spots) / max(most, 1.0))
    each = math.ceil(len(spots) / parts)
    return Chain(tuple(links), tuple(Feed(n + 1, *spots[n]) for n in range(0, len(spots), each)))
