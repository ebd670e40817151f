"""Controls too close for fingers."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.face.checks.spots import across
from wingboard.core.face.rules import RoomNeeded, spacing_needed, widest_spacing
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.limits import source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.shapeset import Near
from wingboard.core.quantity import VISIBLE
from wingboard.core.resolved.design import Resolved


@check(
    "face.fingers-close",
    severity="must",
    title="Fingers too close",
    measures="edge to edge between what two hands touch: levers, caps, knobs, guards",
    limits=("toggle-spacing", "button-spacing", "knob-spacing", "emergency-factor"),
    fixes="moves one of the two by the least that settles it",
)
def fingers_close(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Every pair of controls nearer than their kinds need."""
    widest = widest_spacing(r.design)
    hands = r.panel.envelopes("hand")
    for near in hands.closer_than(widest):
        a, b = (r.panel.by_number[int(hands.owners[i])] for i in near[:2])
        need = spacing_needed(r.design, a, b)
        if need and near.gap < need.value - VISIBLE:
            yield _finding(r, rule, near, need)


def _finding(r: Resolved, rule: Check, near: Near, need: RoomNeeded) -> Finding:
    hands = r.panel.envelopes("hand")
    a, b = (r.panel.by_number[int(hands.owners[i])] for i in near[:2])
    return rule.finding(
        a.function.id,
        b.function.id,
        detail=f"{a.function.name} to {b.function.name}, edge to edge",
        spot=across(r, hands, near),
        measured=Measure(value=near.gap),
        needed=Measure(value=need.value),
        source=source_of(r.design, need.limit),
        fix=partial(move_to_settle, r, [a, b], "hands"),
    )
