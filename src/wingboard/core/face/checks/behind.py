"""Bodies that collide behind the panel, parts too deep for the space or for a keep-out."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from wingboard.core.brief.danger import dangerous
from wingboard.core.face.cables import cable_room
from wingboard.core.face.checks.spots import across, at, of
from wingboard.core.face.rules import behind_boxes
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.rounded import gap
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.space import KeepOut
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

DEPTH = Source(kind="computed", note="seat + depth of the part + bend or plug of its wires")


@check(
    "face.bodies-collide",
    severity="must",
    title="Bodies collide behind",
    measures="between two bodies, or a body and a screw, behind the panel",
    limits=("body-clearance",),
    fixes="moves one part by the least that clears it",
)
def bodies_collide(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs of bodies nearer than the clearance."""
    need = limit(r.design, "body-clearance")
    bodies = r.panel.bodies
    for near in bodies.closer_than(need - VISIBLE):
        owners = [int(bodies.shapes.owners[i]) for i in near[:2]]
        movable = [r.panel.by_number[o] for o in owners if o >= 0]
        if movable:
            yield rule.finding(
                *(p.function.id for p in movable),
                detail=" and ".join(r.panel.owner_name(o) for o in owners) + ", behind the panel",
                spot=across(r, bodies.shapes, near),
                measured=Measure(value=near.gap),
                needed=Measure(value=need),
                fix=partial(move_to_settle, r, movable, "bodies"),
                extra="" if len(movable) == 2 else r.panel.owner_name(min(owners)).replace(" ", "-"),
            )


@check(
    "face.too-deep",
    severity="must",
    title="Too deep",
    measures="from the panel's front surface to the end of the part with its wires",
    source=DEPTH,
)
def too_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts that reach beyond the free depth of the opening."""
    free = r.design.brief.depth
    for module in r.modules.values():
        for placed in module.placed:
            depth = module.depth(placed)
            if depth > free + VISIBLE:
                yield rule.finding(
                    placed.function.id,
                    detail=f"{placed.function.name} in the free depth of the opening",
                    spot=at(module, placed.place.x, placed.place.y),
                    measured=Measure(value=depth),
                    needed=Measure(value=free),
                    most=True,
                )


@check(
    "face.keep-out",
    severity="must",
    title="Runs into what is behind",
    measures="depth of a part whose body overlaps a keep-out, from the front surface",
    source=DEPTH,
    fixes="moves the part out of the keep-out's way",
)
def keep_out(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts deeper than a keep-out they overlap leaves free."""
    bodies = r.panel.bodies
    for box in behind_boxes(r.design):
        deepest: dict[int, float] = {}
        for i, overlap in bodies.against(box.area(), 0.0, z0=box.clear + VISIBLE):
            owner = int(bodies.shapes.owners[i])
            if owner in r.panel.by_number and overlap <= -VISIBLE:
                deepest[owner] = max(float(bodies.z1[i]), deepest.get(owner, 0.0))
        for owner, depth in deepest.items():
            yield _hits(r, rule, r.panel.by_number[owner], box, depth)


def _hits(r: Resolved, rule: Check, placed: Placed, box: KeepOut, depth: float) -> Finding:
    return rule.finding(
        placed.function.id,
        detail=f"{placed.function.name} in front of {box.name}",
        spot=of(placed),
        measured=Measure(value=depth),
        needed=Measure(value=box.clear),
        most=True,
        fix=partial(move_to_settle, r, [placed], "keepouts"),
        extra=box.id,
    )


@check(
    "face.cable-hits",
    severity="judge",
    title="Its cable runs into a neighbour",
    measures="between the room of a plug or bend that leaves sideways, and the bodies beside it",
    limits=("body-clearance",),
    fixes="moves one part by the least that clears it",
)
def cable_hits(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts whose cable leaves to a side where another body stands."""
    need = limit(r.design, "body-clearance")
    bodies = r.panel.bodies
    for placed in r.placed:
        room = cable_room(placed)
        frame = r.modules[placed.place.module].frame
        near = bodies.against(frame.shape(room), need, placed.number) if room else []
        if near:
            i, apart = near[0]
            other = r.panel.by_number.get(int(bodies.shapes.owners[i]))
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name}, cable to the {placed.part.cable}, "
                f"and {r.panel.owner_name(int(bodies.shapes.owners[i]))}",
                spot=of(placed),
                measured=Measure(value=apart),
                needed=Measure(value=need),
                fix=partial(move_to_settle, r, [p for p in (placed, other) if p], "cables"),
            )


@check(
    "face.mixed-voltage",
    severity="judge",
    title="Mains beside low voltage",
    measures="from the body of a control for dangerous voltage to the nearest low-voltage part's on its plate; to fix "
    "when they are too near",
    limits=("mains-apart",),
    hurts=True,
)
def mixed_voltage(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Plates that carry both: they want distance, covers, separate plugs and, of metal, an earth."""
    need = rule.limit(r.design)
    for placed in r.placed:
        if not dangerous(r.design, placed.function.switches):
            continue
        beside = [p for p in r.modules[placed.place.module].placed if _low(r, p)]
        apart = [(_apart(r, placed, p), p.number, p) for p in beside]
        measured, _, other = min(apart, default=(math.inf, 0, placed))
        if measured == math.inf:
            continue
        near, module = measured < need - VISIBLE, r.modules[placed.place.module]
        metal = any(materials()[layer.material].conducts for layer in module.stack)
        yield rule.finding(
            placed.function.id,
            other.function.id,
            title="Mains too near low voltage" if near else "Mains and low voltage on one plate",
            detail=_both(placed, other, near, metal),
            spot=of(placed),
            measured=Measure(value=measured),
            needed=Measure(value=need),
            severity="must" if near else None,
        )


def _both(mains: Placed, low: Placed, near: bool, metal: bool) -> str:
    load = mains.function.switches
    return (
        f"{mains.function.name}, {load.volts:g} V {load.kind}, and {low.function.name}"
        f"{': move them apart' if near else ', far enough apart'}. Both want connectors of their own, a cover over the "
        f"terminals{', the metal plate earthed' if metal else ''}, and a licensed electrician"
    )


def _apart(r: Resolved, a: Placed, b: Placed) -> float:
    """Between what two parts take behind the plate (mm), at whatever depth: wires go from any to any."""
    bodies = r.panel.bodies
    pairs = ((i, j) for i in bodies.of(a.number) for j in bodies.of(b.number))
    return min((gap(bodies.shapes.shape(i), bodies.shapes.shape(j)) for i, j in pairs), default=math.inf)


def _low(r: Resolved, placed: Placed) -> bool:
    """Whether a part carries low voltage: a small load, or a line to a controller."""
    load = placed.function.switches
    return not dangerous(r.design, load) and bool(load.volts or placed.part.lines)
