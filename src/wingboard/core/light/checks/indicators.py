"""The lamps of the functions: resistors that can set their current, and carry it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence

from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, Figures, check
from wingboard.core.light.boxes import boxes_of
from wingboard.core.light.checks.legends import READS, nights
from wingboard.core.light.glare import SOURCE, glare_of
from wingboard.core.light.indicators import LAMPS, lamps_of
from wingboard.core.light.resistor import WORK
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved


@check(
    "light.no-headroom",
    severity="judge",
    title="Too little over a lamp for its resistor",
    measures="what the supply leaves over a lamp, of the supply",
    limits=("lamp-headroom",),
    reads=(*LAMPS, "accepted"),
)
def no_headroom(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all lamps whose forward voltage comes too near their supply: its small change is a large one of
    the current."""
    least = rule.limit(r.design)
    near = {lamp.function: lamp for lamp in lamps_of(r) if not lamp.made_for and lamp.headroom < least - 1e-9}

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
    reads=LAMPS,
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


@check(
    "light.box-shallow",
    severity="judge",
    title="A light box too shallow",
    measures="how deep a caption's light box is behind its lens, with one LED in it",
    limits=("box-depth",),
    reads=LAMPS,
)
def box_shallow(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Captions lit by one LED that stands too near: a spot in the middle, dark ends. Deeper, or two LEDs."""
    leds: Counter[str] = Counter()
    for lamp in lamps_of(r):
        leds[lamp.function] += lamp.row
    for function in r.design.functions:
        part = r.parts.get(function.part or "")
        if part is None or part.family != "caption" or leds[function.id] != 1:
            continue
        need = rule.limit(r.design) * max(part.hole.span)
        if part.depth < need - VISIBLE:
            yield rule.finding(
                function.id,
                detail=f"{function.name}, {max(part.hole.span):.0f} mm wide",
                measured=Measure(value=part.depth),
                needed=Measure(value=need),
            )


@check(
    "light.box-patches",
    severity="judge",
    title="A caption's lens is patchy",
    measures="the least light over a caption's lens, of its mean",
    limits=("box-patches",),
    source=Source(kind="computed", note="lamps by the inverse square, white walls as one mean part, a milky lens"),
    reads=LAMPS,
)
def box_patches(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Captions whose words would be lit in patches: a deeper box, or more lamps."""
    for box in boxes_of(r):
        if box.evenness < rule.limit(r.design):
            where = "at its ends" if box.side else f"{box.depth:.0f} mm behind"
            yield rule.finding(
                box.function,
                detail=f"{box.name}, {box.width:.0f} × {box.height:.0f} mm, {box.lamps} LEDs {where}, "
                f"brightest × {box.hot:.1f}".replace(" 1 LEDs", " 1 LED"),
                measured=Measure(value=round(box.evenness, 3), unit="least / mean"),
                needed=Measure(value=rule.limit(r.design), unit="least / mean"),
            )


@check(
    "light.glare",
    severity="judge",
    title="The lamps dazzle together",
    measures="the veil that all lamps lay over the panel in a dark room, of its dimmed legends' light",
    limits=("veil-most",),
    source=SOURCE,
    reads=(*READS, *LAMPS, "brief"),
)
def glare(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Panels read in the dark whose lamps, all lit, outshine their dimmed legends: larger resistors, or PWM."""
    if not r.design.brief.environment.dark:
        return
    lit = [night.usual * (m.module.light.level if m.module.light else 1) for m, night in nights(r)]
    found = glare_of(r)
    if not lit or found is None or max(lit) <= 0:
        return
    share = found.veil / max(lit)
    if share > rule.limit(r.design):
        yield rule.finding(
            detail=f"{found.lamps} lamps, {found.worst} most: {found.veil:.2f} cd/m² over legends of {max(lit):.1f}",
            measured=Measure(value=round(share, 3), unit="of a legend"),
            needed=Measure(value=rule.limit(r.design), unit="of a legend"),
            most=True,
        )
