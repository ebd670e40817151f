"""The lamps of the functions: resistors that can set their current, and carry it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, Figures, check
from wingboard.core.light.indicators import WORK, lamps_of
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved


@check(
    "light.no-headroom",
    severity="judge",
    title="Too little over a lamp for its resistor",
    measures="what the supply leaves over a lamp, of the supply",
    limits=("lamp-headroom",),
    reads=("wishes", "parts", "limits", "accepted"),
)
def no_headroom(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all lamps whose forward voltage comes too near their supply: its small change is a large one of
    the current."""
    least = rule.limit(r.design)
    near = {lamp.function: lamp for lamp in lamps_of(r) if lamp.headroom < least - 1e-9}

    def said(functions: Sequence[Function]) -> Figures:
        worst = min((near[f.id] for f in functions), key=lambda lamp: lamp.headroom)
        more = f" and {len(functions) - 1} more" if len(functions) > 1 else ""
        return Figures(
            f"{worst.name}{more}: {worst.said}",
            Measure(value=round(worst.headroom, 3), unit="of the supply"),
            Measure(value=least, unit="of the supply"),
        )

    yield from rule.over(r, [r.functions[ident] for ident in near], figures=said)


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
