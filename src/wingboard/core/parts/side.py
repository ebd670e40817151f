"""A part from the side: the section along the upright line through its hole, in the layers it sits in.

z runs backwards from the front surface of the face, y up from the middle of the hole (mm).
"""

from __future__ import annotations

from shapely import box

from wingboard.core.geometry.frame import Frame
from wingboard.core.record.base import Record
from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.resolved.profile import seated
from wingboard.core.resolved.section import InPlace, section

ROUND = 8.0
"""How far (mm) the sheets are shown beyond the part."""
KINDS = ("sheet", "front", "plug", "body", "key", "bush", "nut")
"""In the order that they are drawn, the last on top."""


class SideBox(Record):
    """A rectangle of the section: ``y0`` to ``y1`` up, ``z0`` to ``z1`` back. A sheet has its layer's id and colour."""

    kind: str
    z0: float
    z1: float
    y0: float
    y1: float
    layer: str | None = None
    colour: str | None = None


def side_view(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> tuple[SideBox, ...]:
    """The section through a part and the layers it sits in."""
    bounds = [s.outline().bounds for s in seated(part, stack, pocket)] + [part.hole.rounded().bounds]
    low, high = min(b[1] for b in bounds) - ROUND, max(b[3] for b in bounds) + ROUND
    wide = max(max(-b[0], b[2]) for b in bounds) + ROUND
    plate = box(-wide, low, wide, high)
    met = section(stack, plate, (InPlace(part, Frame(), pocket),), (0.0, low), (0.0, high))
    colours = {layer.id: layer.colour for layer in stack}
    return tuple(
        SideBox(kind=p.kind, z0=p.z0, z1=p.z1, y0=low + p.t0, y1=low + p.t1, layer=p.layer,
                colour=colours.get(p.layer or ""))
        for kind in KINDS
        for p in met
        if p.kind == kind
    )  # fmt: skip
