"""Caps for knobs, to print: a body and its pointer as two solids with one origin, the top on the bed. Lengths in mm."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable
from typing import NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Circle
from wingboard.core.record.workshop import Machine
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.shell import Solid, prism, solid_of

SHAFT, FLAT = 6.0, 4.5
"""Diameter of a control's shaft, and what its flat leaves of it (mm, common practice: measure yours)."""
PLAY = 0.15
"""A printed bore is so much wider (mm, common practice)."""
TALL, BORE = 15.0, 11.0
"""Height of a cap, and how deep its bore is (mm, common practice)."""
POINTER = (1.6, 0.8)
"""A pointer's width, and how deep it lies in the top (mm)."""
WALL = 2.0
"""Left round the bore (mm): thinner ones split on the shaft."""
SPARES = 2
"""A cap that is painted is made so many times (common practice): paint runs."""
WHITE, BLACK = "#F4F6F2", "#20272A"


class Cap(NamedTuple):
    """Caps of one diameter (mm): how many controls want one."""

    diameter: float
    many: int

    @property
    def id(self) -> str:
        """By which its files are named: ``knob-27``."""
        return f"knob-{self.diameter:g}".replace(".", "_")


def caps_of(module: ResolvedModule) -> tuple[Cap, ...]:
    """The caps for a module's round knobs, the smallest first; none so small that no wall is left round a shaft."""
    found: Counter[float] = Counter()
    for placed in module.placed:
        hand = placed.part.hand
        shape = hand.shape if hand is not None and hand.kind == "knob" and one_shaft(placed.part) else None
        if isinstance(shape, Circle) and shape.diameter >= SHAFT + PLAY + 2 * WALL:
            found[shape.diameter] += 1
    return tuple(Cap(diameter, many) for diameter, many in sorted(found.items()))


def one_shaft(part: Part) -> bool:
    """Whether a part is turned by one bare shaft: no key, no selector's handle, no shaft within another."""
    return part.family in ("rotary", "encoder", "pot") and sum(line.does == "encoder" for line in part.lines) <= 2


def cap_solids(cap: Cap) -> tuple[Solid, ...]:
    """A cap's body with its bore, and its pointer; it lies on its top, which z = 0 is."""
    radius, (wide, deep) = cap.diameter / 2, POINTER
    body = prism([_round(radius)], TALL)
    body -= prism([bore_outline()], BORE + 1).translate([0, 0, TALL - BORE])
    line = prism([_box(-wide / 2, radius * 0.2, wide / 2, radius + 1)], deep) ^ body
    return (
        solid_of(f"{cap.id}-body", f"Knob {cap.diameter:g}", BLACK, body - line),
        solid_of(f"{cap.id}-pointer", f"Knob {cap.diameter:g}, pointer", WHITE, line),
    )


def bore_outline() -> Loop:
    """The bore: a circle less what a shaft's flat cuts off, wider by :data:`PLAY`; the flat away from the pointer."""
    half = (SHAFT + PLAY) / 2
    flat = -(FLAT + PLAY - half)  # from the middle
    side = math.sqrt(half * half - flat * flat)
    # Counter-clockwise from the flat's right end over the top to its left end.
    sweep = 2 * math.pi - 2 * math.acos(-flat / half)
    return Vertex(side, flat, math.tan(sweep / 4)), Vertex(-side, flat)


def _round(radius: float) -> Loop:
    return Vertex(-radius, 0.0, 1.0), Vertex(radius, 0.0, 1.0)


def _box(x0: float, y0: float, x1: float, y1: float) -> Loop:
    return tuple(Vertex(x, y) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1)))


def words_of(module: ResolvedModule) -> list[str]:
    """What the job sheet says of a module's caps."""
    return [
        f"knobs of {cap.diameter:g} mm: {cap.many} to print, {SPARES * cap.many} where they are painted; "
        f"bore {SHAFT:g} mm with a flat that leaves {FLAT:g}, {BORE:g} deep"
        for cap in caps_of(module)
    ]


def prints(machines: Iterable[Machine]) -> bool:
    """Whether a workshop prints anything."""
    return any(m.kind == "printer" for m in machines)
