"""Bushes too short for the stack, and the pockets that make up for it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.places import SetPocket
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.resolved.profile import plates


@check(
    "parts.bush-short",
    severity="must",
    title="Bush too short",
    measures="thread of the bush, against clamped layers + washer + nut + one thread",
    source=Source(kind="computed", note="clamped layers + washer + nut + one thread"),
    fixes="seats the part in a pocket cut from behind",
)
def bush_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Placed parts whose nut would not hold."""
    for placed in r.placed:
        bush = placed.part.bush
        if bush is None:
            continue
        need = placed.thread_needed
        if need > bush.length + VISIBLE:
            held = placed.clamped
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name} through {held:.1f} mm, with washer and nut",
                spot=_spot(placed),
                measured=Measure(value=bush.length),
                needed=Measure(value=need),
                fix=partial(_pocket, r, placed, need - bush.length),
            )


@check(
    "parts.nut-too-high",
    severity="must",
    title="The nut does not hide",
    measures="height of nut and washer, against the thickness of the layer that hides them",
    source=Source(kind="practice", note="a nut and washer hidden in a layer must be no higher than that layer"),
    fixes="takes a thicker sheet for that layer",
)
def nut_too_high(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Placed parts whose nut would hold the layers apart."""
    for placed in r.placed:
        hidden, bush = placed.nut_layer, placed.part.bush
        if hidden is None or bush is None:
            continue
        layer, high = plates(placed.stack)[hidden], bush.nut + bush.washer
        if high > layer.thickness + VISIBLE:
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name}: nut {bush.nut:g} and washer {bush.washer:g} mm in the "
                f"{layer.name.lower()}; take a thicker sheet, a lower nut, or leave the washer out",
                spot=_spot(placed),
                measured=Measure(value=high),
                needed=Measure(value=layer.thickness),
                most=True,
                fix=partial(_thicker, r, placed, layer, high),
            )


SHEETS = (1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0)
"""Thicknesses (mm) that sheets are sold in (common practice)."""


def _thicker(r: Resolved, placed: Placed, layer: Layer, high: float) -> Fix | None:
    """The next thickness that sheets are sold in and that hides the nut."""
    thickness = next((t for t in SHEETS if t >= high - VISIBLE), None)
    if thickness is None:
        return None
    module = r.modules[placed.place.module].module
    own = module.id if module.stack is not None else None
    command = EditLayer(module=own, layer=layer.id, thickness=thickness)
    return Fix(label=f"Take a {layer.name.lower()} of {thickness:g} mm", commands=(command,))


def _spot(placed: Placed) -> Spot:
    return Spot(module=placed.place.module, x=placed.place.x, y=placed.place.y)


def floor_needed(r: Resolved, placed: Placed) -> float:
    """What must be left (mm) under a pocket in the last layer: the limit, or a third of the sheet."""
    return max(limit(r.design, "pocket-floor"), plates(placed.stack)[-1].thickness / 3)


def _pocket(r: Resolved, placed: Placed, short: float) -> Fix | None:
    if placed.part.mount != "behind":
        return None
    depth = math.ceil((placed.function.pocket + short) * 10 - 1e-6) / 10
    if depth > plates(placed.stack)[-1].thickness - floor_needed(r, placed):
        return None
    command = SetPocket(function=placed.function.id, depth=depth)
    return Fix(label=f"Seat it {depth:.1f} mm deep from behind", commands=(command,))


@check(
    "parts.pocket-floor",
    severity="must",
    title="Pocket leaves too little",
    measures="what is left of the last layer under a seat pocket",
    limits=("pocket-floor",),
    fixes="makes the pocket as deep as the sheet allows",
)
def pocket_floor(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Seats cut too deep into the last layer."""
    for placed in r.placed:
        if placed.function.pocket <= 0 or placed.part.mount != "behind":
            continue
        sheet, need = plates(placed.stack)[-1].thickness, floor_needed(r, placed)
        left = sheet - placed.function.pocket
        if left < need - VISIBLE:
            depth = max(0.0, math.floor((sheet - need) * 10) / 10)
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name}: {placed.function.pocket:.1f} mm deep in a {sheet:.1f} mm sheet",
                spot=_spot(placed),
                measured=Measure(value=left),
                needed=Measure(value=need),
                fix=lambda: Fix(
                    label=f"Make it {depth:.1f} mm deep",
                    commands=(SetPocket(function=placed.function.id, depth=depth),),
                ),
            )
