"""Lamps that are made for a supply: whether they get it, and bulbs that make heat where an LED would do."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.indicators import LAMPS, lamps_of
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved

DIM = 0.8
"""On less than this share of the supply that it is made for, a lamp glows (common practice)."""


@check(
    "light.lamp-supply",
    severity="must",
    title="A lamp on another supply than it is made for",
    measures="a pre-wired lamp's or a bulb's supply, of the one that it is made for; to judge where it is only dim",
    limits=("lamp-supply",),
    fixes="gives it the supply that it is made for",
    reads=LAMPS,
)
def lamp_supply(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps without a resistor to choose: on more they burn out, on much less they glow."""
    for lamp in lamps_of(r):
        if not lamp.made_for:
            continue
        share, most = lamp.supply / lamp.made_for, rule.limit(r.design)
        if DIM <= share <= most + 1e-9:
            continue
        yield rule.finding(
            lamp.function,
            detail=f"{lamp.name}: made for {lamp.made_for:g} V, on {lamp.supply:g} V",
            measured=Measure(value=round(share, 3), unit="of its own"),
            needed=Measure(value=most if share > most else DIM, unit="of its own"),
            most=share > most,
            fix=Fix(
                label=f"Give it {lamp.made_for:g} V",
                commands=(EditFunction(function=lamp.function, volts=lamp.made_for),),
            ),
            severity="must" if share > most else "judge",
            extra=lamp.line,
        )


@check(
    "light.bulb-warm",
    severity="judge",
    title="A bulb where an LED would do",
    measures="what a bulb takes, nearly all of it heat behind the plate",
    limits=("bulb-watts",),
    source=Source(kind="computed", note="P = V · I"),
    fixes="puts an LED into its holder",
    reads=LAMPS,
)
def bulb_warm(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Bulbs: warm, short-lived, and more than a pin can drive."""
    for lamp in lamps_of(r):
        if lamp.bulb and lamp.power > rule.limit(r.design) + 1e-9:
            yield rule.finding(
                lamp.function,
                detail=f"{lamp.name}: {lamp.said}",
                measured=Measure(value=round(lamp.power, 2), unit="W"),
                needed=Measure(value=rule.limit(r.design), unit="W"),
                most=True,
                fix=Fix(
                    label="Put an LED into its holder",
                    commands=(EditFunction(function=lamp.function, led=True, volts=lamp.supply),),
                ),
                extra=lamp.line,
            )
