"""Lamps that were tried and did not look as they should."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.trials import Verdict
from wingboard.core.resolved.design import Resolved

SAID: dict[Verdict, str] = {
    "right": "as wanted",
    "dim": "too dim: a smaller resistor within its rating, or another type",
    "bright": "too bright: a larger resistor, or its own dimmer",
    "colour": "of another colour: another type, or another lens",
}


@check(
    "light.trial-wrong",
    severity="judge",
    title="Tried, and not right",
    measures="what the latest trial of a lamp found",
    source=Source(kind="measure", note="your own log of trials"),
    reads=("wishes", "parts", "trials"),
)
def trial_wrong(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts in use whose latest trial was too dim, too bright or of another colour."""
    latest = {trial.part: trial for trial in r.design.trials}
    for ident, trial in latest.items():
        users = [f.id for f in r.design.functions if f.part == ident]
        if trial.verdict != "right" and users:
            yield rule.finding(
                *users[:20],
                detail=f"{r.parts[ident].name} at {trial.volts:g} V, {trial.milliamps:g} mA: {SAID[trial.verdict]}",
                measured=Measure(value=0, unit="right"),
                needed=Measure(value=1, unit="right"),
                extra=ident,
            )
