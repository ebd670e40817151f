"""Functions that nothing has been chosen for, and emergency stops that do not say what they are."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.functions import emergency
from wingboard.core.resolved.design import Resolved


@check(
    "brief.no-part",
    severity="note",
    title="Nothing chosen yet",
    measures="functions without a part",
    source=Source(kind="computed", note="functions of the brief"),
    reads=("brief", "wishes", "parts", "limits", "accepted"),
)
def no_part(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all functions without a part."""
    open_ones = [f for f in r.design.functions if f.part is None and f.state in ("wanted", "dummy")]
    yield from rule.over(r, open_ones, unit="open")


@check(
    "brief.emergency-undeclared",
    severity="judge",
    title="Emergency stop not declared",
    measures="emergency controls that do not say whether they are real, for show, or the power switch",
    source=Source(kind="memory", note="ISO 13850, IEC 60204-1"),
    reads=("brief", "wishes", "parts", "limits"),
)
def emergency_undeclared(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Emergency controls with no declared role."""
    for function in r.design.functions:
        if emergency(function, r.parts.get(function.part or "")) and function.stop_role is None:
            yield rule.finding(
                function.id,
                detail=f"{function.name}: real, for show, or the power switch? A real one breaks the power by hard "
                "wiring and is only reported to the controller; it never depends on one.",
            )
