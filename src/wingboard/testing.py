"""Generated designs for measuring and testing: any number of parts on plates large enough for them."""

from __future__ import annotations

import math

from wingboard.core.design import commands as c
from wingboard.core.design.apply import apply
from wingboard.core.design.model import Design
from wingboard.core.design.outlines import RectOutline
from wingboard.core.design.space import Brief
from wingboard.core.parts.catalogue import catalogue

PITCH = 48.0
"""Between parts (mm): enough for most pairs, too little for a few, so that the worklist has something to say."""
_MIX = (
    "toggle-large-on-off",
    "button-16-lit",
    "caption-two-lamp",
    "toggle-small-on-off-on",
    "potentiometer",
    "led-5-bezel",
    "button-22",
    "encoder-push",
)


def generated_design(parts: int, panels: int = 1) -> Design:
    """A design of that many placed parts, in rows, spread evenly over so many panels."""
    each = math.ceil(parts / panels)
    columns = math.ceil(math.sqrt(each * 1.6))
    rows = math.ceil(each / columns)
    width, height = (columns + 1) * PITCH, (rows + 1) * PITCH
    opening = RectOutline(width=min(5000.0, (width + 1) * panels + 1), height=height + 2)
    batch: list[c.Command] = [
        c.AddPanel(
            id=f"plate-{k + 1}", name=f"Plate {k + 1}", outline=RectOutline(width=width, height=height), x=0.5, y=0.5
        )
        for k in range(panels)
    ]
    for n in range(parts):
        at, panel = n % each, n // each
        x, y = (at % columns + 1) * PITCH, (at // columns + 1) * PITCH
        name, ident = f"Function {n + 1}", f"f{n + 1}"
        batch += [
            c.AddFunction(id=ident, name=name, group=f"Group {at // columns + 1}"),
            c.ChoosePart(function=ident, part=_MIX[(n * 5 + n // 7) % len(_MIX)]),
            c.PlacePart(function=ident, panel=f"plate-{panel + 1}", x=x, y=y),
        ]
    return apply(Design(name=f"{parts} parts", brief=Brief(opening=opening)), batch, catalogue())
