"""A part from the side, through the stack, as boxes: what stands in front, what is clamped, what is behind.

z runs backwards from the front surface of the face (mm); every box is symmetrical about the part's axis.
"""

from __future__ import annotations

from typing import Literal

from wingboard.core.record.base import Record
from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Shape
from wingboard.core.resolved.profile import clamped, cutouts, plates, thickness

SideKind = Literal["layer", "front", "bush", "nut", "body", "plug"]


class SideBox(Record):
    """A box of the section: from ``z0`` to ``z1``, ``half`` mm to either side; a layer is open up to ``half``."""

    kind: SideKind
    z0: float
    z1: float
    half: float
    colour: str | None = None


def half_height(shape: Shape) -> float:
    """Half of a shape's height as it stands."""
    return shape.span[1] / 2


def side_view(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> tuple[SideBox, ...]:
    """The section through a part and the layers it sits in, front to back."""
    total = thickness(stack)
    seat = {"behind": total - pocket, "front": 0.0, "window": plates(stack)[0].thickness}[part.mount]
    boxes = _layers(part, stack, pocket)
    if part.height > 0:
        boxes.append(SideBox(kind="front", z0=-part.height, z1=0, half=half_height(part.cover)))
    boxes += _thread(part, stack, pocket, seat, total)
    start = max(seat, total) if part.mount == "front" else seat
    end = max(start, seat + part.depth)
    boxes.append(SideBox(kind="body", z0=start, z1=end, half=half_height(part.body)))
    if part.plug:
        boxes.append(SideBox(kind="plug", z0=end, z1=end + part.plug, half=half_height(part.body) * 0.5))
    return tuple(boxes)


def _layers(part: Part, stack: tuple[Layer, ...], pocket: float) -> list[SideBox]:
    boxes, z = [], 0.0
    cuts = cutouts(part, stack, pocket)
    for layer in plates(stack):
        open_to = max(
            (half_height(c.shape) for c in cuts if c.layer == layer.id and c.purpose not in ("key", "pocket")),
            default=0.0,
        )
        boxes.append(SideBox(kind="layer", z0=z, z1=z + layer.thickness, half=open_to, colour=layer.colour))
        z += layer.thickness
    return boxes


def _thread(part: Part, stack: tuple[Layer, ...], pocket: float, seat: float, total: float) -> list[SideBox]:
    bush = part.bush
    if bush is None:
        return []
    wide = half_height(part.nut_bore) - 1 if part.nut_bore else bush.diameter / 2 + 2
    if part.mount == "front":
        nut = SideBox(kind="nut", z0=total, z1=total + bush.washer + bush.nut, half=wide)
        return [SideBox(kind="bush", z0=0, z1=bush.length, half=bush.diameter / 2), nut]
    face_of_clamp = seat - clamped(part, stack, pocket)
    nut = SideBox(kind="nut", z0=face_of_clamp - bush.washer - bush.nut, z1=face_of_clamp, half=wide)
    return [SideBox(kind="bush", z0=seat - bush.length, z1=seat, half=bush.diameter / 2), nut]
