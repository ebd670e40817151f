"""The light over the lens of a caption: its lamps in a white box behind it, or at the ends of a tile wrapped in foil.

The same model as behind a module: each lamp's own share on the lens, what the walls throw back as one mean part, the
milky lens that spreads and passes it. A wall at the lens's edge throws back what would be spread beyond it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from wingboard.core.light.diffuser import luminance, reflected, spread
from wingboard.core.light.emission import Field, Lamp, grid_over, irradiance
from wingboard.core.light.indicators import LampUse, lamps_of
from wingboard.core.light.kinds import LEDS
from wingboard.core.light.through import MILKY, MILKY_BACK
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved

STEP = 0.5
"""From one point of a lens to the next (mm)."""
LENS = 2.0
"""A caption's lens is of milky acrylic so thick (mm, common practice)."""
WHITE = {"behind": 0.8, "side": 0.85}
"""What a box painted white inside throws back, and what foil round a tile does (common practice)."""
LAMP = LEDS["led-5"]
"""What stands in a box: a milky LED of 5 mm."""


class BoxLight(NamedTuple):
    """A caption's lens lit: its size and its box's depth (mm), lamps, luminance (cd/m², rows × columns)."""

    function: str
    name: str
    width: float
    height: float
    depth: float
    side: bool
    lamps: int
    field: Field

    @property
    def least(self) -> float:
        """At the darkest point."""
        return float(self.field.min())

    @property
    def mean(self) -> float:
        """Over the whole lens."""
        return float(self.field.mean())

    @property
    def evenness(self) -> float:
        """Least over mean; nothing where there is no light."""
        return self.least / self.mean if self.mean > 0 else 0.0

    @property
    def hot(self) -> float:
        """The brightest point over the mean."""
        return float(self.field.max()) / self.mean if self.mean > 0 else 0.0


def lit_lens(width: float, height: float, depth: float, lamps: tuple[Lamp, ...], white: float) -> Field:
    """Luminance (cd/m²) of a lens, rows (upwards) × columns, its middle at (0, 0), at the front of a box.

    :param width, height: of lens and box (mm); :param depth: of the box (mm).
    :param lamps: their ``z`` is how far they stand behind the lens.
    :param white: what the box's walls and back throw back, 0 to 1.
    """
    grid = grid_over(-width / 2, -height / 2, width / 2, height / 2, STEP)
    direct = np.zeros((grid.rows, grid.columns))
    for lamp in lamps:
        direct += irradiance(lamp, grid, 0.0)
    flux = sum(lamp.flux for lamp in lamps)
    arrived = min(flux, float(direct.mean()) * width * height * 1e-6)
    lens = width * height
    inside = 2 * (lens + width * depth + height * depth)
    mean = (white * (inside - lens) + MILKY_BACK * lens) / inside
    thrown = reflected(flux - arrived, inside, white, mean)
    rim = math.ceil(2 * LENS / STEP)
    wide = spread(np.pad(direct + thrown, rim, mode="symmetric"), STEP, LENS)
    return luminance(wide[rim:-rim, rim:-rim], math.exp(-MILKY * LENS))


def lamps_in(width: float, depth: float, many: int, side: bool, intensity: float) -> tuple[Lamp, ...]:
    """Lamps at the back of a box, evenly along it; or at the ends of a tile, half way through it, left one first."""
    exponent = LAMP.exponent
    if not side:
        return tuple(Lamp((n + 0.5) / many * width - width / 2, 0, depth, intensity, exponent) for n in range(many))
    ends = (-1.0 if n % 2 == 0 else 1.0 for n in range(many))
    return tuple(Lamp(end * width / 2, 0, depth / 2, intensity, exponent, (-end, 0.0)) for end in ends)


def _of(part: Part, uses: list[LampUse]) -> BoxLight:
    width, height = part.hole.span
    many, side = sum(use.row for use in uses), part.lit == "side"
    intensity = LAMP.intensity * max(use.amps for use in uses) / LAMP.amps
    lamps = lamps_in(width, part.depth, many, side, intensity)
    field = lit_lens(width, height, part.depth, lamps, WHITE[part.lit])
    return BoxLight(uses[0].function, uses[0].name, width, height, part.depth, side, many, field)


def boxes_of(r: Resolved) -> tuple[BoxLight, ...]:
    """The captions of a design with all their LEDs lit, in the order of the functions; none of those with bulbs."""

    def found() -> Iterator[BoxLight]:
        uses: dict[str, list[LampUse]] = {}
        for use in lamps_of(r):
            uses.setdefault(use.function, []).append(use)
        for function in r.design.functions:
            part, mine = r.parts.get(function.part or ""), uses.get(function.id, [])
            if part is not None and part.family == "caption" and mine and not any(use.bulb for use in mine):
                yield _of(part, mine)

    return r.once("light boxes", lambda: tuple(found()))
