"""Registration pins: two through every sheet behind the face, that line the sheets up, one way round only."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from wingboard.core.record.modules import Feature, Fixings, Layer, Module
from wingboard.core.record.shapes import Circle
from wingboard.core.resolved.screws import Fixing
from wingboard.core.resolved.taken import Taken

ROOM = 3.0
"""Left between a pin's hole and the next opening, a screw's head or the edge (mm, common practice: two kerfs)."""
STEP = 2.0
"""Places along an edge are tried so far apart (mm)."""
ASIDE = 4.0
"""The two are so far (mm) from being each other's place with the sheet turned by 180° that it is seen to be wrong."""
Spot = tuple[float, float]


def pin_spots(fixings: Fixings, area: shapely.Polygon, screws: tuple[Fixing, ...], taken: Taken) -> tuple[Spot, ...]:
    """Where the two pins go through, lower left and upper right, as near to the corners as there is room; mm.

    :param taken: what is cut in the sheets behind the face.
    :returns: none where there is no room for both, or none are wanted.
    """
    if not fixings.pins:
        return ()
    x0, y0, x1, y1 = area.bounds
    inset = max(fixings.inset, fixings.pins / 2 + ROOM)
    inner = area.buffer(-ROOM - fixings.pins / 2)

    def free(spot: Spot) -> bool:
        point = shapely.Point(spot)
        apart = fixings.pins / 2 + ROOM
        if not inner.covers(point) or any(math.dist(spot, (s.x, s.y)) < apart + s.head / 2 for s in screws):
            return False
        return taken.leaves(*spot, apart)

    half = int((x1 - x0) / 2 / STEP)
    left = (round(x0 + inset + n * STEP, 2) for n in range(half))
    first = next((spot for x in left if free(spot := (x, round(y0 + inset, 2)))), None)
    if first is None:
        return ()
    right = (round(x1 - inset - n * STEP, 2) for n in range(half))
    tops = ((x, round(y1 - inset, 2)) for x in right if abs(x - (x0 + x1 - first[0])) >= ASIDE)
    second = next((spot for spot in tops if free(spot)), None)
    return () if second is None else (first, second)


def pinned(plates: tuple[Layer, ...]) -> tuple[Layer, ...]:
    """The sheets that pins go through: what lies behind the face, where that is more than one sheet; else all."""
    rear = tuple(layer for layer in plates if layer.role != "face")
    return rear if len(rear) > 1 else plates


def pin_holes(module: Module, plates: tuple[Layer, ...], spots: tuple[Spot, ...]) -> Iterator[tuple[str, Feature]]:
    """The holes of the pins, each with the layer it goes through. They fit: the pin finds its own play in the kerf."""
    for layer in pinned(plates) if module.fixings else ():
        for n, (x, y) in enumerate(spots, 1):
            shape = Circle(diameter=module.fixings.pins if module.fixings else 0)
            reason = f"Registration pin {n}"
            yield layer.id, Feature(id=f"pin-{n}", module=module.id, reason=reason, shape=shape, x=x, y=y)
