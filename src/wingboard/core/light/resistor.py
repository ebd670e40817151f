"""Series resistors for lamps: R = (Vs - Vf) / I, the next E24 value up, and what they have to be rated at."""

from __future__ import annotations

import math

E24 = (10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91)
"""Preferred values of one decade: IEC 60063 (checked against a reference library in the tests)."""


HEADROOM = 1 / 5
"""The share of the supply that must be left over the lamps for a resistor to set their current (common practice)."""


RATINGS = (0.125, 0.25, 0.5, 1.0, 2.0, 5.0)
"""Watts that resistors are sold for (common practice)."""
USUAL_RATING = 0.25
"""The rating that is bought where less would do (W, common practice)."""
WORK = 2.0
"""A resistor is rated at so many times what it turns into heat (common practice)."""


def heat(supply: float, drop: float, ohms: float) -> float:
    """What a resistor (ohms) in series with a lamp turns into heat (W): P = (Vs - Vf)² / R."""
    return (supply - drop) ** 2 / ohms


def rated(watts: float) -> float:
    """The rating (W) to buy for a resistor that turns so much into heat; the largest where none is enough."""
    return next((w for w in RATINGS if w >= WORK * watts - 1e-9), RATINGS[-1])


def next_e24(ohms: float) -> float:
    """The least E24 value not below ``ohms``. :raises ValueError: not a positive finite resistance."""
    if not (math.isfinite(ohms) and ohms > 0):
        raise ValueError("a resistance must be positive")
    decade = 10.0 ** (math.floor(math.log10(ohms)) - 1)
    for value in (*E24, 100):
        if value * decade >= ohms * (1 - 1e-9):
            return float(f"{value * decade:.6g}")
    raise AssertionError("a decade ends at 100")  # pragma: no cover


def series_resistor(supply: float, drop: float, current: float) -> float | None:
    """The resistor (ohms) in series with a lamp.

    :param supply: volts; :param drop: total forward voltage, volts; :param current: amperes.
    :returns: the next E24 value up, or None when a resistor cannot set the current: less than :data:`HEADROOM` is left
        over the lamp, or no current is wanted.
    """
    if supply - drop < HEADROOM * supply - 1e-9 or current <= 0:
        return None
    return next_e24((supply - drop) / current)
