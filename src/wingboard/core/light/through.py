"""What light has to pass on its way from behind a module to the eye: which layers let it through, and how much.

Opal and clear sheets pass a share of what meets them; an opaque one passes light only where the face is engraved. What
is not said of a layer follows from its role: a diffuser is milky, anything else lets nothing through.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.record.base import Source
from wingboard.core.record.modules import Layer, opacity_of
from wingboard.core.resolved.boards import LAMP_TALL
from wingboard.core.resolved.profile import Sheet, sheets

CLEAR = 0.92
"""Of a clear sheet, both surfaces (data sheets of cast acrylic, from memory)."""
MILKY = 0.23
"""Of a milky sheet of t mm, exp(−0.23 t) gets through: half of it at 3 mm (data sheets of opal acrylic, 45 to 60 %)."""
MILKY_BACK, CLEAR_BACK = 0.4, 0.08
"""What a milky sheet, or a clear one, throws back (data sheets of acrylic, from memory)."""
REFRACTION = 1.49
"""Of acrylic (handbooks): seen through it, what lies behind a clear sheet is nearer, as if it were t / n thick."""
SOURCE = Source(kind="memory", note="data sheets of acrylic: clear passes 92 %, opal of 3 mm half")


def passes(layer: Layer) -> float:
    """The share of light that a layer lets through, 0 to 1."""
    kind = opacity_of(layer)
    if kind == "opaque":
        return 0.0
    return CLEAR if kind == "clear" else math.exp(-MILKY * layer.thickness)


class Way(NamedTuple):
    """The way through a plate: where light meets what spreads it (mm behind the front, clear sheets
    before it counted as thick as they seem), what passes, what spreads it, what stops it.

    ``spreads`` is the thickness of the milky sheets together, 0 where there is none; ``stops`` the layers behind the
    face that let nothing through; ``clear`` the thickness (mm) of the clear sheets behind all the others, in which
    lamps may be sunk.
    """

    plane: float
    transmission: float
    spreads: float
    milky: tuple[Layer, ...]
    stops: tuple[Layer, ...]
    clear: float = 0.0

    @property
    def spreader(self) -> float:
        """Where the clear sheets at the back begin (mm behind the front): no lamp may reach further forward."""
        return self.plane - self.clear * (1 - 1 / REFRACTION)

    def plane_of(self, z: float) -> float:
        """Where light from depth ``z`` meets what spreads it (mm); sunk, it has less of the clear sheets to pass.

        What lies clear between them seems t / n thick, by Snell's law near the axis.
        """
        between = min(self.clear, max(0.0, z - LAMP_TALL - self.spreader))
        return self.spreader + between * (1 - 1 / REFRACTION)

    @property
    def back(self) -> float:
        """What the plate throws back into the room behind it."""
        return MILKY_BACK if self.milky else CLEAR_BACK

    @property
    def lit(self) -> bool:
        """Whether light reaches the face at all."""
        return not self.stops and self.transmission > 0


def way_through(stack: tuple[Layer, ...], plates: tuple[Layer, ...]) -> Way:
    """The way of light through a plate, from behind to its engraved front.

    A face that stands alone is opaque all through: its words are engraved in it and not lit.
    """
    ends: dict[str, Sheet] = {s.layer.id: s for s in sheets(stack)}
    face, behind = plates[0], plates[1:]
    counted = behind if opacity_of(face) == "opaque" else plates
    transmission = math.prod(passes(layer) for layer in counted) if counted else 0.0
    milky = tuple(layer for layer in counted if opacity_of(layer) == "translucent")
    stops = tuple(layer for layer in behind if opacity_of(layer) == "opaque")
    clear = 0.0
    for layer in reversed(behind):
        if opacity_of(layer) != "clear":
            break
        clear += layer.thickness
    plane = ends[plates[-1].id].z1 - clear / REFRACTION
    return Way(plane, transmission, sum(layer.thickness for layer in milky), milky, stops, clear)
