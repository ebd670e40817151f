"""The lamps of the functions: resistors that can set their current, and carry it."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.indicators import WORK, lamps_of
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved


@check(
    "light.no-headroom",
    severity="judge",
    title="Too little over a lamp for its resistor",
    measures="what the supply leaves over a lamp, of the supply",
    limits=("lamp-headroom",),
    reads=("wishes", "parts", "limits"),
)
def no_headroom(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps whose forward voltage comes too near their supply: a small change of it makes a large one of current."""
    for lamp in lamps_of(r):
        if lamp.headroom < rule.limit(r.design) - 1e-9:
            yield rule.finding(
                lamp.function,
                detail=f"{lamp.name}, {lamp.terminal}: {lamp.said}",
                measured=Measure(value=round(lamp.headroom, 3), unit="of the supply"),
                needed=Measure(value=rule.limit(r.design), unit="of the supply"),
                extra=lamp.line,
            )


@check(
    "light.hot-resistor",
    severity="note",
    title="A larger resistor than usual",
    measures="what a lamp's resistor has to be rated at: twice what it turns into heat",
    limits=("resistor-watts",),
    source=Source(kind="computed", note="P = (Vs − Vf)² / R, rated at twice that"),
    reads=("wishes", "parts", "limits"),
)
def hot_resistor(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps on a supply so high that a quarter watt does not do."""
    for lamp in lamps_of(r):
        if WORK * lamp.watts > rule.limit(r.design) + 1e-9:
            yield rule.finding(
                lamp.function,
                detail=f"{lamp.name} on {lamp.supply:g} V: {lamp.said}",
                measured=Measure(value=round(WORK * lamp.watts, 3), unit="W"),
                needed=Measure(value=rule.limit(r.design), unit="W"),
                most=True,
                extra=lamp.line,
            )
