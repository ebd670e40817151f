"""Parts in their sheets: what nothing keeps from turning, what goes in upside down, corners left round."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.facets import FACETS
from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Circle, Rect
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.checks.holding import READS

UPRIGHT = ("readout", "display", "caption")
"""Families that are read, and so have a right way up."""


def _round_without_key(part: Part) -> bool:
    return isinstance(part.hole, Circle) and part.key is None and not part.extras


@check(
    "stack.part-can-turn",
    severity="judge",
    title="Nothing keeps it from turning",
    measures="controls that are turned by hand in a round hole without a slot for a pin",
    source=Source(kind="practice", note="a pin, a flat or two screws take the torque; the nut alone works loose"),
    reads=(*READS, "accepted"),
)
def part_can_turn(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over the knobs, keys and stops that only their nut holds."""
    loose = [
        p.function
        for p in r.placed
        if p.part.hand is not None and p.part.hand.kind in ("knob", "emergency") and _round_without_key(p.part)
    ]
    yield from rule.over(r, loose, unit="without a pin")


def _fits_turned(part: Part) -> bool:
    """Whether a display goes behind its window turned by 180° as well."""
    if part.key is not None or abs(part.behind_x) > VISIBLE or abs(part.behind_y) > VISIBLE:
        return False
    spots = {(round(e.x, 2), round(e.y, 2)) for e in part.extras}
    return all((-x, -y) in spots for x, y in spots)


@check(
    "stack.fits-upside-down",
    severity="judge",
    title="Fits turned by 180°",
    measures="read-outs, captions and screens that go behind their window either way up",
    source=Source(kind="practice", note="a lug, or an odd corner of the recess, makes the wrong way impossible"),
    reads=(*READS, "accepted"),
)
def fits_upside_down(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over the displays that nothing keeps from going in upside down."""
    either = [
        p.function
        for p in r.placed
        if p.part.mount == "window" and p.part.family in UPRIGHT and p.part.recess is not None and _fits_turned(p.part)
    ]
    yield from rule.over(r, either, unit="either way up")


@check(
    "stack.corners-round",
    severity="judge",
    title="Corners that the cutter leaves round",
    measures="radius of the inner corners of pockets and recesses, against the smallest cutter of the mills, where "
    "nothing else cuts the sheet",
    source=Source(kind="computed", note="a cutter leaves half its diameter in an inner corner"),
    reads=(*FACETS,),
)
def corners_round(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Seats of square bodies that a mill cannot cut square: file them, or let the cutter run past the corner."""
    machines = r.design.workshop.machines
    tools = [t.diameter / 2 for m in machines if m.kind == "mill" for t in m.tools]
    if not tools or any(m.kind != "mill" for m in machines):
        return
    least = min(tools)
    for module in r.modules.values():
        for layer in module.plates:
            sharp = [
                cut
                for cut in module.cutouts(layer.id)
                if cut.purpose in ("pocket", "recess") and isinstance(cut.shape, Rect)
                if cut.shape.radius < least - VISIBLE
            ]
            if sharp:
                owners = sorted({cut.owner for cut in sharp})
                yield rule.finding(
                    module.module.id,
                    layer.id,
                    detail=f"{len(sharp)} in {layer.name.lower()}: "
                    + ", ".join(r.functions[o].name for o in owners[:4] if o in r.functions),
                    measured=Measure(value=min(cut.shape.radius for cut in sharp if isinstance(cut.shape, Rect))),
                    needed=Measure(value=least),
                )
