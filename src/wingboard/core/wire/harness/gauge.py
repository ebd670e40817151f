"""Copper: cross-sections, American gauges, ohms, how thick a wire is with its insulation, and what it carries."""

from __future__ import annotations

import math
from bisect import bisect_left
from typing import NamedTuple

RHO = 0.01724
"""Ω·mm²/m of annealed copper at 20 °C (IEC 60028: 1/58)."""
LOOSE = 1.15
"""A bundle is so many times as thick as its wires packed in a circle of the same area (common practice)."""
BEND = 4.0
"""A bundle is bent no tighter than so many times its thickness (common practice)."""


class Gauge(NamedTuple):
    """A cross-section (mm²) that is sold: thickness with its insulation (mm), amperes it carries in a bundle."""

    area: float
    outside: float
    amps: float


GAUGES = (
    Gauge(0.08, 0.9, 0.7), Gauge(0.14, 1.1, 1.0), Gauge(0.22, 1.3, 1.75), Gauge(0.34, 1.5, 3.0), Gauge(0.5, 1.8, 4.5),
    Gauge(0.75, 2.1, 6.0), Gauge(1.0, 2.3, 7.5), Gauge(1.5, 2.8, 9.0), Gauge(2.5, 3.4, 13.0), Gauge(4.0, 4.1, 17.0),
    Gauge(6.0, 4.7, 22.0), Gauge(10.0, 6.0, 30.0), Gauge(16.0, 7.2, 40.0),
    Gauge(25.0, 8.9, 53.0), Gauge(35.0, 10.2, 66.0), Gauge(50.0, 12.2, 82.0), Gauge(70.0, 14.2, 105.0),
    Gauge(95.0, 16.4, 130.0), Gauge(120.0, 18.4, 152.0), Gauge(150.0, 20.5, 175.0), Gauge(185.0, 22.9, 205.0),
)  # fmt: skip
"""Stranded wire with PVC. Amperes: half of what a flexible cable of several cores carries in air (VDE 0298-4, from
memory), for it lies in a bundle; thickness: common practice."""


def gauge_for(area: float) -> Gauge:
    """The thinnest that is sold with at least that cross-section (mm²); the thickest where none is."""
    at = bisect_left([g.area for g in GAUGES], area - 1e-9)
    return GAUGES[min(at, len(GAUGES) - 1)]


def carrying(amps: float) -> Gauge:
    """The thinnest that carries a current (A) in a bundle; the thickest where none does."""
    return next((g for g in GAUGES if g.amps >= amps - 1e-9), GAUGES[-1])


def carries(area: float) -> float:
    """Amperes that a cross-section (mm²) carries in a bundle: of the next thinner one, or in proportion."""
    thinner = [g for g in GAUGES if g.area <= area + 1e-9]
    return thinner[-1].amps if thinner else GAUGES[0].amps * area / GAUGES[0].area


def awg_diameter(number: float) -> float:
    """Diameter (mm) of a solid wire of an American gauge: 0.127 · 92^((36 − n)/39) (ASTM B258)."""
    return float(0.127 * 92 ** ((36 - number) / 39))


def awg(area: float) -> int:
    """The American gauge nearest to a cross-section (mm²), by the ratio of the two."""
    diameter = math.sqrt(4 * area / math.pi)
    return round(36 - 39 * math.log(diameter / 0.127, 92))


def ohms(length: float, area: float) -> float:
    """Resistance of a wire of ``length`` mm and ``area`` mm²: ρ·L/A (IEC 60028)."""
    return RHO * length / 1000 / area


def bundle(outsides: list[float]) -> float:
    """How thick a bundle of wires is (mm) from theirs: √Σd², and loose."""
    return LOOSE * math.sqrt(math.fsum(d * d for d in outsides)) if len(outsides) > 1 else sum(outsides)
