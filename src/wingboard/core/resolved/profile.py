"""Which opening a part needs in each layer, from its profile at that depth.

The three-layer school (common practice): the face takes the bush, the diffuser hides the nut in a clear bore, the
back takes the bush and the key; what has its flange on the face goes through every layer; a module behind a window
needs the window in the face and room for its outline behind.
"""

from __future__ import annotations

from math import cos, radians, sin
from typing import Literal, NamedTuple

from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Rect, Shape

Purpose = Literal["hole", "nut", "key", "window", "recess", "pocket", "wiring", "fixing"]
WIRE_ROOM = 2.0
"""Added all round the body where a light board has to clear it and its wires (mm, common practice)."""
SEAT_ROOM = 0.5
"""Added all round a body that sits in a pocket (mm, common practice)."""


class Cutout(NamedTuple):
    """An opening in one layer, in the part's coordinates. ``depth`` None goes through; else it is cut from behind."""

    layer: str
    purpose: Purpose
    shape: Shape
    x: float = 0.0
    y: float = 0.0
    turn: float = 0.0
    depth: float | None = None


def plates(stack: tuple[Layer, ...]) -> tuple[Layer, ...]:
    """The layers screwed together as one plate: all but a light board on standoffs."""
    return tuple(layer for layer in stack if layer.role != "board")


def thickness(stack: tuple[Layer, ...]) -> float:
    """Thickness (mm) of the plate."""
    return sum(layer.thickness for layer in plates(stack))


def nut_layer(part: Part, stack: tuple[Layer, ...]) -> int | None:
    """Index in :func:`plates` of the layer that hides the part's nut; None when its nut lies on a surface."""
    if part.mount != "behind" or part.nut_bore is None:
        return None
    diffusers = [i for i, layer in enumerate(plates(stack)) if layer.role == "diffuser"]
    return diffusers[-1] if diffusers else None


def clamped(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """Thickness (mm) between the part's nut and its seat, less the seat's pocket; 0 for a part without a thread."""
    if part.bush is None:
        return 0.0
    hidden = nut_layer(part, stack)
    behind = plates(stack)[(hidden + 1) if hidden is not None else 0 :]
    return sum(layer.thickness for layer in behind) - pocket


def thread_needed(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """Length (mm) the bush needs: clamped layers + washer + nut + one full thread (common practice)."""
    if part.bush is None:
        return 0.0
    return clamped(part, stack, pocket) + part.bush.washer + part.bush.nut + part.bush.pitch


def depth_behind_front(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """How far (mm) the part reaches behind the panel's front surface, wires' bend included."""
    total = thickness(stack)
    seat = {"behind": total - pocket, "front": 0.0, "window": plates(stack)[0].thickness if stack else 0.0}
    return max(total, seat[part.mount] + part.depth) + part.plug


def cutouts(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0, digits: int | None = None) -> tuple[Cutout, ...]:
    """Every opening the part needs, layer by layer from the front; ``digits`` of a read-out are left showing."""
    made: list[Cutout] = []
    hidden = nut_layer(part, stack)
    solid = plates(stack)
    for i, layer in enumerate(solid):
        if part.mount == "window":
            made.append(_behind_window(part, layer, digits, first=i == 0))
        elif i == hidden and part.nut_bore is not None:
            made.append(Cutout(layer.id, "nut", part.nut_bore))
        else:
            made.append(Cutout(layer.id, "hole", part.hole))
        made += [Cutout(layer.id, "hole", e.shape, e.x, e.y, e.turn) for e in part.extras]
    made += _key(part, solid)
    if pocket > 0 and part.mount == "behind" and solid:
        made.append(Cutout(solid[-1].id, "pocket", part.body.grown(SEAT_ROOM), depth=pocket))
    made += [
        Cutout(layer.id, "wiring", part.body.grown(WIRE_ROOM), part.behind_x, part.behind_y)
        for layer in stack
        if layer.role == "board"
    ]
    return tuple(made)


def _behind_window(part: Part, layer: Layer, digits: int | None, first: bool) -> Cutout:
    if first or part.recess is None:
        shape, right = part.window(digits)
        return Cutout(layer.id, "window", shape, right)
    return Cutout(layer.id, "recess", part.recess, part.behind_x, part.behind_y)


def _key(part: Part, solid: tuple[Layer, ...]) -> list[Cutout]:
    if part.key is None or not solid:
        return []
    layer = solid[0] if part.mount == "front" else solid[-1]
    angle = radians(part.key.angle)
    slot = Rect(width=part.key.length, height=part.key.width, radius=min(part.key.width, part.key.length) * 0.25)
    x, y = part.key.radius * cos(angle), part.key.radius * sin(angle)
    return [Cutout(layer.id, "key", slot, x, y, part.key.angle)]
