"""Glare: what all lamps together lay over the eye's picture of the panel in a dark room.

Lv = 10 Σ E / θ², E the illuminance at the eye by each lamp (lx), θ its angle off the line of sight in degrees: the
general disability glare equation of CIE 146 in its simple form for 1° to 30° (from memory).
"""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.geometry.outline import area_of
from wingboard.core.record.base import Source
from wingboard.core.record.part import Family, Part
from wingboard.core.resolved.design import Resolved

SHINES: dict[Family, float] = {"lamp": 0.2, "button": 0.05, "caption": 0.2, "readout": 0.05, "toggle": 0.05}
"""Candela of one lamp towards the eye, by what it sits in; milky lenses."""
BARE = 1.0
"""Of a bare clear LED at its usual current (cd)."""
OTHER = 0.05
NEAREST, FURTHEST = 1.0, 30.0
"""The angles that the equation holds for (degrees)."""
SOURCE = Source(kind="memory", note="CIE 146, Lv = 10 E / θ²; candela of usual lamps by data sheets")


class Glare(NamedTuple):
    """Veiling luminance (cd/m²) of so many lamps, all lit, and the function whose lamp adds most."""

    veil: float
    lamps: int
    worst: str


def shines(part: Part) -> float:
    """What one lamp of a part sends towards the eye (cd)."""
    return BARE if part.family == "lamp" and part.id.endswith("-bare") else SHINES.get(part.family, OTHER)


def glare_of(r: Resolved) -> Glare | None:
    """The glare of all placed lamps for an eye that looks at the panel's middle; None without an eye, or lamps."""
    distance = r.design.brief.eye_distance
    x0, y0, x1, y1 = area_of(r.design.brief.opening.loop()).bounds
    middle = (x0 + x1) / 2, (y0 + y1) / 2
    if distance is None:
        return None
    veils: list[tuple[float, str]] = []
    for p in r.placed:
        lamps = [line for line in p.part.lines if line.does == "lamp"]
        if not lamps:
            continue
        x, y = r.modules[p.place.module].frame.point(p.place.x, p.place.y)
        aside = math.dist((x, y), middle)
        angle = min(FURTHEST, max(NEAREST, math.degrees(math.atan2(aside, distance))))
        lux = len(lamps) * shines(p.part) / ((distance**2 + aside**2) / 1e6)
        veils.append((10 * lux / angle**2, p.function.name))
    if not veils:
        return None
    return Glare(sum(v for v, _ in veils), len(veils), max(veils)[1])
