"""Strips and single LEDs as they are sold: how many a metre, where they may be cut, what they take and give."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.light.emission import exponent_of
from wingboard.core.record.base import Source
from wingboard.core.record.lights import LedKind, StripKind

WHITE = 60.0
"""A flat emitter's half angle (degrees): Lambert's law."""


class StripType(NamedTuple):
    """A kind of strip: LEDs a metre, LEDs from one cut mark to the next, supply (V), W a metre, lm an LED, price.

    ``price`` is of a metre, in minor units.
    """

    name: str
    per_metre: int
    cut: int
    volts: float
    watts: float
    flux: float
    chain: bool
    price: int

    @property
    def pitch(self) -> float:
        """From one LED to the next (mm)."""
        return 1000 / self.per_metre

    @property
    def step(self) -> float:
        """From one cut mark to the next (mm)."""
        return self.pitch * self.cut

    @property
    def amps(self) -> float:
        """What one LED takes at its brightest (A)."""
        return self.watts / self.per_metre / self.volts

    @property
    def intensity(self) -> float:
        """On its axis (cd): a flat emitter's flux over π."""
        return self.flux / 3.141592653589793


class LedType(NamedTuple):
    """A kind of single LED, white, at its usual current: axial intensity (cd), half angle, forward voltage, price."""

    name: str
    intensity: float
    half_angle: float
    drop: float
    amps: float
    price: int

    @property
    def exponent(self) -> float:
        """m of its law I₀·cosᵐ."""
        return exponent_of(self.half_angle)


STRIPS: dict[StripKind, StripType] = {
    "strip-60": StripType("Strip, 12 V, 60 a metre", 60, 3, 12.0, 4.8, 6.0, False, 400),
    "strip-120": StripType("Strip, 12 V, 120 a metre", 120, 3, 12.0, 9.6, 6.0, False, 600),
    "chain-30": StripType("Addressable, 5 V, 30 a metre", 30, 1, 5.0, 9.0, 15.0, True, 600),
    "chain-60": StripType("Addressable, 5 V, 60 a metre", 60, 1, 5.0, 18.0, 15.0, True, 900),
}
LEDS: dict[LedKind, LedType] = {
    "led-flat": LedType("Flat LED on a carrier", 1.9, 60.0, 3.1, 0.020, 30),
    "led-3": LedType("3 mm LED, clear", 3.0, 15.0, 3.1, 0.020, 10),
    "led-5": LedType("5 mm LED, milky", 1.0, 30.0, 3.1, 0.020, 10),
}
SOURCES: dict[str, Source] = {
    "watts": Source(kind="practice", note="12 V, 60 LEDs a metre: 4.8 W a metre; addressable: up to 60 mA each"),
    "cut": Source(kind="practice", note="12 V strips every 3 LEDs, addressable ones anywhere"),
    "flux": Source(
        kind="memory", note="data sheets of white LEDs of these sizes; yours may give half or twice as much"
    ),
    "angle": Source(kind="memory", note="data sheets: 120° for flat ones, 30° and 60° for round ones"),
    "price": Source(kind="measure", note="a usual price"),
}
"""Where the values come from."""
