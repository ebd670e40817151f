"""A catalogue of shapes, empties and extremes included, that geometry is run against."""

from __future__ import annotations

from wingboard.core.geometry.outline import Loop, Vertex, rounded_rectangle
from wingboard.core.geometry.rounded import Rounded, disc, slab

ROUNDED: dict[str, Rounded] = {
    "disc": disc(12),
    "tiny disc": disc(1e-3),
    "huge disc": disc(5000),
    "square": slab(10, 10),
    "rounded": slab(20, 10, 2),
    "slot lying": slab(20, 6, 3),
    "slot standing": slab(6, 20, 9),
    "round by its corners": slab(8, 8, 4),
    "hair": slab(100, 1e-4),
}

LOOPS: dict[str, Loop] = {
    "rectangle": rounded_rectangle(200, 120, 0),
    "rounded": rounded_rectangle(200, 120, 6),
    "all round": rounded_rectangle(40, 40, 20),
    "arched": (Vertex(0, 0), Vertex(100, 0), Vertex(100, 50, 0.3), Vertex(0, 50)),
    "bitten": (Vertex(0, 0), Vertex(60, 0), Vertex(60, 40, -0.5), Vertex(0, 40)),
    "large arc": (Vertex(0, 0, 2.0), Vertex(10, 0), Vertex(5, -1)),
    "triangle": (Vertex(0, 0), Vertex(1, 0), Vertex(0, 1)),
}
