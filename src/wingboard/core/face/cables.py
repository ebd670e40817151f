"""The room that plugs and bends take beside a body, where a cable leaves it sideways."""

from __future__ import annotations

import shapely

from wingboard.core.geometry.rounded import Rounded
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

_SIDES = {"left": (-1, 0), "right": (1, 0), "top": (0, 1), "bottom": (0, -1)}


def cable_room(placed: Placed) -> Rounded | None:
    """The room beside the body that a plug or a bend takes, in the module's coordinates; None for one straight back."""
    side = _SIDES.get(placed.part.cable)
    if side is None or placed.part.plug <= 0:
        return None
    (wide, high), plug = placed.part.body.span, placed.part.plug
    x0, y0 = placed.part.behind_x - wide / 2, placed.part.behind_y - high / 2
    boxes = {
        (-1, 0): (x0 - plug, y0, x0, y0 + high),
        (1, 0): (x0 + wide, y0, x0 + wide + plug, y0 + high),
        (0, 1): (x0, y0 + high, x0 + wide, y0 + high + plug),
        (0, -1): (x0, y0 - plug, x0 + wide, y0),
    }
    return placed.frame.shape(Rounded(shapely.box(*boxes[side]), 0.0))


def cable_rooms(r: Resolved) -> ShapeSet:
    """The rooms of all such cables, in the opening's coordinates, each owned by its part."""

    def compute() -> ShapeSet:
        found = [(room, p) for p in r.placed if (room := cable_room(p)) is not None]
        shapes = [r.modules[p.place.module].frame.shape(room) for room, p in found]
        return ShapeSet(shapes, [p.number for _, p in found], [(0.0, 0.0)] * len(found))

    return r.once("cable rooms", compute)
