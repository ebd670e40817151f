"""Wires behind a plate as bodies that throw shadows: a bundle straight back, or a flat cable to a side."""

from __future__ import annotations

import math

import shapely

from wingboard.core.geometry.rounded import Rounded
from wingboard.core.light.shadows import Body
from wingboard.core.record.part import PASSES_ON
from wingboard.core.resolved.placed import Placed
from wingboard.core.resolved.profile import seated

WIRE = 1.3
"""A wire of 0.25 mm² with its insulation (mm, common practice)."""
LOOSE = 1.15
"""A bundle is so many times as wide as its wires side by side in a circle (common practice)."""
_SIDES = {"left": (-1, 0), "right": (1, 0), "top": (0, 1), "bottom": (0, -1)}


def wires_behind(placed: Placed) -> Body | None:
    """The wires of a part as far as its bend or plug reaches; where they go from there is not known yet.

    As many wires as it has terminals, but for that which hands on data only in a chain: straight back in a round bundle
    of √n wires' widths, to a side lying flat.
    """
    part = placed.part
    plug = next((s for s in seated(part, placed.stack, placed.function.pocket) if s.kind == "plug"), None)
    chained = placed.function.scheme == "digits"
    many = sum(chained or t != PASSES_ON for t in part.terminals) or (len(part.lines) + 1 if part.lines else 0)
    if plug is None or not many:
        return None
    side = _SIDES.get(part.cable)
    if side is None:
        wide = WIRE * LOOSE * math.sqrt(many)
        round_ = Rounded(shapely.Point(part.behind_x, part.behind_y), wide / 2)
        return Body(placed.frame.shape(round_).drawn(), plug.z0, plug.z1)
    (across, up), (dx, dy) = part.body.span, side
    flat = min(many * WIRE, up if dx else across)
    reach = part.plug
    x0 = part.behind_x + dx * across / 2 + min(0.0, dx * reach) - (0 if dx else flat / 2)
    y0 = part.behind_y + dy * up / 2 + min(0.0, dy * reach) - (0 if dy else flat / 2)
    band = shapely.box(x0, y0, x0 + (reach if dx else flat), y0 + (reach if dy else flat))
    return Body(placed.frame.shape(Rounded(band, 0.0)).drawn(), plug.z0 - WIRE, plug.z0)
