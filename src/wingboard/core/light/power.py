"""What the light behind a module takes: whole groups of every strip, amperes by supply, price."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from typing import NamedTuple

from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.resistor import USUAL_RATING, heat, next_e24, rated
from wingboard.core.record.lights import Backlight, Strip

SINGLE_SUPPLY = 12.0
"""Single LEDs hang on the strips' 12 V, three and a resistor in a row (common practice)."""
IN_A_ROW = 3
"""White LEDs in a row on 12 V: 3 × 3.1 V leaves over a fifth for the resistor."""


class StripUse(NamedTuple):
    """A strip as it is cut: length of its run and of its whole groups (mm), LEDs, amperes, volts, price."""

    id: str
    name: str
    run: float
    cut: float
    leds: int
    amps: float
    volts: float
    price: int

    @property
    def over(self) -> float:
        """What of its run stays dark at the end, for it can be cut only at its marks (mm)."""
        return self.run - self.cut


class Load(NamedTuple):
    """What one supply, and its dimmer, has to give at full brightness."""

    volts: float
    amps: float
    leds: int


class Resistors(NamedTuple):
    """Resistors to buy: how many, of how many ohms, rated at how many watts."""

    many: int
    ohms: float
    watts: float


class Power(NamedTuple):
    """The light of a module in figures; ``price`` in minor units."""

    strips: tuple[StripUse, ...]
    leds: int
    loads: tuple[Load, ...]
    resistors: tuple[Resistors, ...]
    price: int

    @property
    def watts(self) -> float:
        """At full brightness."""
        return sum(load.volts * load.amps for load in self.loads)


def strip_use(strip: Strip) -> StripUse:
    """A strip cut at the last of its marks that its run takes."""
    kind, run = STRIPS[strip.kind], math.dist((strip.x, strip.y), (strip.x2, strip.y2))
    groups = int(run / kind.step + 1e-9)
    leds, cut = groups * kind.cut, groups * kind.step
    return StripUse(
        strip.id, kind.name, run, cut, leds, leds * kind.amps, kind.volts, math.ceil(cut / 1000 * kind.price)
    )


def power_of(light: Backlight) -> Power:
    """What the light of a module takes."""
    strips = tuple(strip_use(s) for s in light.strips)
    amps: defaultdict[float, float] = defaultdict(float)
    leds: defaultdict[float, int] = defaultdict(int)
    for use in strips:
        amps[use.volts] += use.amps
        leds[use.volts] += use.leds
    resistors: Counter[tuple[float, float]] = Counter()
    alike = Counter((led.kind, led.level) for led in light.leds)
    for (kind, level), many in sorted(alike.items()):
        current = LEDS[kind].amps * level
        for row in _rows(many):
            drop = row * LEDS[kind].drop
            ohms = next_e24((SINGLE_SUPPLY - drop) / current)
            resistors[ohms, max(USUAL_RATING, rated(heat(SINGLE_SUPPLY, drop, ohms)))] += 1
            amps[SINGLE_SUPPLY] += current
            leds[SINGLE_SUPPLY] += row
    price = sum(use.price for use in strips) + sum(LEDS[led.kind].price for led in light.leds)
    loads = tuple(Load(volts, amps[volts], leds[volts]) for volts in sorted(amps) if leds[volts])
    wanted = tuple(Resistors(n, ohms, watts) for (ohms, watts), n in sorted(resistors.items()))
    return Power(strips, len(light.leds), loads, wanted, price)


def _rows(many: int) -> list[int]:
    """How many LEDs stand in each row with one resistor."""
    return [min(IN_A_ROW, many - n) for n in range(0, many, IN_A_ROW)]
