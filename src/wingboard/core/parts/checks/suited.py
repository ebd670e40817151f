"""Parts that do not suit their function: overloaded, lying on their side, hiding what they show, not told by eye."""

from __future__ import annotations

import math
from collections.abc import Iterator

from wingboard.core.brief.wanted import duty_of
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot
from wingboard.core.findings.registry import Check, check
from wingboard.core.parts.carriers import smallest
from wingboard.core.parts.counting import counts
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.record.lamps import made_for, wanted_colour
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.profile import thickness

SHEET = Source(kind="measure", note="data sheet of the part")


def _chosen(r: Resolved) -> Iterator[tuple[Function, Part]]:
    for f in r.design.functions:
        if f.part is not None and f.state != "alias":
            yield f, made_for(f, r.parts[f.part])


def _spot(f: Function) -> Spot | None:
    return Spot(module=f.place.module, x=f.place.x, y=f.place.y) if f.place else None


@check(
    "parts.overloaded",
    severity="must",
    title="Switches more than it may",
    measures="amperes or volts of the load, against the rating of the contacts",
    source=SHEET,
    fixes="lets a relay, or a contactor, carry the load",
)
def overloaded(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Contacts that would burn, unless a relay, a contactor or a transistor carries the load in their stead."""
    for f, part in _chosen(r):
        if part.rating is None or part.family == "breaker" or f.switches.through:
            continue
        carrier = smallest(f.switches)
        for unit, load, most in (
            ("A", f.switches.amps, part.rating.amps),
            ("V", f.switches.volts, part.rating.volts),
        ):
            if load > most:
                yield rule.finding(
                    f.id,
                    detail=f"{f.name}, {part.name}: "
                    + ("let a relay or a contactor carry the load" if carrier else "no relay here bears that either"),
                    spot=_spot(f),
                    measured=Measure(value=load, unit=unit),
                    needed=Measure(value=most, unit=unit),
                    most=True,
                    extra=unit.lower(),
                    fix=Fix(label=f"Let a {carrier} carry it", commands=(EditFunction(function=f.id, through=carrier),))
                    if carrier
                    else None,
                )


@check(
    "parts.transistor-on-ac",
    severity="must",
    title="A transistor switches DC only",
    measures="loads on AC, or that count as AC, carried by a transistor",
    source=Source(kind="practice", note="a transistor conducts one way"),
    fixes="lets a relay carry the load",
)
def transistor_on_ac(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Loads that a transistor would only half switch."""
    for f in r.design.functions:
        if f.switches.through == "transistor" and f.switches.alternating:
            yield rule.finding(
                f.id,
                detail=f"{f.name}: {f.switches.volts:g} V {f.switches.kind}; take a relay, or say that it is DC",
                spot=_spot(f),
                fix=Fix(label="Let a relay carry it", commands=(EditFunction(function=f.id, through="relay"),)),
            )


def _protected(r: Resolved, breaker: Function) -> list[Function]:
    """The loads behind a breaker: that of the function it belongs to, or all of its bus that have none of their own."""
    if breaker.of in r.functions:
        return [r.functions[breaker.of]]
    bus = breaker.switches.bus.lower()
    if not bus:
        return [breaker]
    own = {f.of for f, part in _chosen(r) if part.family == "breaker" and f.of}
    loads = [
        f
        for f in r.design.functions
        if f.switches.bus.lower() == bus
        and f.switches.amps > 0
        and f.id not in own
        and f.state not in ("alias", "dummy")
        and duty_of(f, r.parts.get(f.part or "")) not in ("protection", "source")
    ]
    return loads or [breaker]


@check(
    "parts.breaker-rating",
    severity="must",
    title="Breaker too small or too large",
    measures="rating of a breaker, against the loads behind it together, and against the contacts that it protects",
    limits=("breaker-factor",),
)
def breaker_rating(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Breakers that trip at once, and those that let a contact burn before they trip."""
    factor = rule.limit(r.design)
    for f, part in _chosen(r):
        if part.family != "breaker" or part.rating is None:
            continue
        behind = _protected(r, f)
        load = math.fsum(each.switches.amps for each in behind)
        named = " + ".join(each.name for each in behind[:3] if each is not f) + (" …" if len(behind) > 3 else "")
        if load and part.rating.amps < load * factor - 1e-6:
            yield rule.finding(
                f.id,
                detail=f"{f.name}, {part.name}, before {load:g} A{f': {named}' if named else ''}",
                spot=_spot(f),
                measured=Measure(value=part.rating.amps, unit="A"),
                needed=Measure(value=load * factor, unit="A"),
            )
        weakest = min(((amps, each.name) for each in behind for amps in _contacts(r, each)), default=None)
        if weakest and part.rating.amps > weakest[0] + 1e-6:
            yield rule.finding(
                f.id,
                detail=f"{f.name}, {part.name}: the contacts of {weakest[1]} would burn before it trips",
                spot=_spot(f),
                measured=Measure(value=part.rating.amps, unit="A"),
                needed=Measure(value=weakest[0], unit="A"),
                most=True,
                severity="judge",
                extra="large",
            )


def _contacts(r: Resolved, f: Function) -> Iterator[float]:
    """What the contacts of a load's own control may carry (A); nothing where another thing carries the load."""
    part = r.parts.get(f.part or "")
    if part and part.rating and part.family != "breaker" and not f.switches.through and f.switches.amps:
        yield part.rating.amps


@check(
    "parts.state-unseen",
    severity="judge",
    title="Nobody sees whether it is in",
    measures="latching buttons whose state neither a lever, an own lamp nor an indicator shows",
    source=Source(kind="practice", note="a latching button cannot be read by eye or hand"),
    fixes="asks for an indicator",
)
def state_unseen(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Latching buttons without a lamp that shows their state; an emergency stop stands out by itself."""
    shown = {f.of for f in r.design.functions} | {
        f.switches.event for f in r.design.functions if f.part and r.parts[f.part].family in ("lamp", "caption")
    }
    for f, part in _chosen(r):
        if part.family != "button" or part.action != "latching" or f.indicator:
            continue
        if f.id in shown or (f.switches.event and f.switches.event in shown):
            continue
        lit = any(line.does == "lamp" for line in part.lines)
        says = "its lamp must follow its state, not the backlight" if lit else "it looks the same in and out"
        command = EditFunction(function=f.id, indicator="its own lamp" if lit else "lamp beside it")
        yield rule.finding(
            f.id,
            detail=f"{f.name}, {part.name}: {says}",
            spot=_spot(f),
            fix=Fix(label="Let its lamp show it" if lit else "Ask for a lamp beside it", commands=(command,)),
        )


@check(
    "parts.way-up",
    severity="must",
    title="Stands on its side",
    measures="degrees a read-out, display, gauge or placard is turned from upright",
    source=Source(kind="computed", note="way up of the part"),
    fixes="turns it upright",
)
def way_up(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Placed parts that read only one way up, turned."""
    for placed in r.placed:
        turn = placed.place.turn % 360
        if placed.part.upright and min(turn, 360 - turn) > 0.01:
            ident = placed.function.id
            yield rule.finding(
                ident,
                detail=f"{placed.function.name}, {placed.part.name}",
                spot=_spot(placed.function),
                measured=Measure(value=min(turn, 360 - turn), unit="°"),
                needed=Measure(value=0, unit="°"),
                most=True,
                fix=lambda: Fix(label="Turn it upright", commands=(TurnItems(functions=(ident,), by=-turn),)),
            )


@check(
    "parts.digits-hidden",
    severity="judge",
    title="Digits hidden by the face",
    measures="digits a face leaves showing, against those the module has",
    source=Source(kind="computed", note="hidden digits × their pitch, off the left of the window"),
    fixes="shows every digit",
)
def digits_hidden(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Read-outs with part of their digits behind the face: meant, or a slip."""
    for f, part in _chosen(r):
        if f.digits is None or part.digits is None or f.digits == part.digits.count:
            continue
        yield rule.finding(
            f.id,
            detail=f"{f.name} shows the last {f.digits} of {part.digits.count}; the window is narrower and off centre",
            spot=_spot(f),
            measured=Measure(value=f.digits, unit="digits"),
            needed=Measure(value=part.digits.count, unit="digits"),
            severity="must" if f.digits > part.digits.count else "judge",
            fix=Fix(label="Show every digit", commands=(EditFunction(function=f.id, digits=None),)),
        )


@check(
    "parts.sheet-range",
    severity="must",
    title="Its clips do not take this sheet",
    measures="thickness of the plate, against the range a snap-in or clamped part takes",
    source=SHEET,
)
def sheet_range(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Snap-in and clamped parts in a plate too thin or too thick for them."""
    for f, part in _chosen(r):
        solid = thickness(r.stack_for(f))
        if part.sheet is None or part.sheet.takes(solid):
            continue
        low, high = part.sheet.least, part.sheet.most
        yield rule.finding(
            f.id,
            detail=f"{f.name}, {part.name}, takes {low:g} to {high:g} mm; thin the layers round it, or choose another",
            spot=_spot(f),
            measured=Measure(value=solid),
            needed=Measure(value=high if solid > high else low),
            most=solid > high,
        )


@check(
    "parts.positions-short",
    severity="judge",
    title="Fewer positions than words",
    measures="positions of the chosen part, against the words listed",
    source=Source(kind="computed", note="positions of the part"),
)
def positions_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Functions not placed yet whose part has too few positions; once placed, Face judges the words."""
    for f, part in _chosen(r):
        if f.place is None and part.ways and len(f.positions) > part.ways:
            yield rule.finding(
                f.id,
                detail=f"{f.name}, {part.name}: {', '.join(f.positions)}",
                measured=Measure(value=part.ways, unit="positions"),
                needed=Measure(value=len(f.positions), unit="positions"),
            )


@check(
    "parts.emergency-kind",
    severity="judge",
    title="Not an emergency stop",
    measures="emergency functions made with a part that does not latch in and stand out",
    source=Source(kind="memory", note="ISO 13850: red mushroom on yellow, latches, released by hand"),
    fixes="chooses the mushroom",
)
def emergency_kind(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Stops that cannot be found by a hand that does not look."""
    for f, part in _chosen(r):
        if f.risk == "emergency" and part.family != "emergency" and "stop" in f.name.lower():
            yield rule.finding(
                f.id,
                detail=f"{f.name}, {part.name}",
                spot=_spot(f),
                fix=Fix(label="Choose the mushroom", commands=(ChoosePart(function=f.id, part="emergency-stop-22"),)),
            )


@check(
    "parts.spares-short",
    severity="judge",
    title="Too few on hand",
    measures="parts on hand, against those in use with their spares (painted and glued ones twice)",
    source=Source(kind="practice", note="painted or glued caps twice"),
    reads=("wishes", "parts", "workshop", "limits"),
)
def spares_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts of which some are on hand, but not enough; those nobody has yet are simply on the shopping list."""
    for count in counts(r):
        if 0 < count.on_hand < count.needed:
            yield rule.finding(
                *count.functions[:20],
                detail=f"{count.part.name}: {count.used} in use, {count.needed} with spares",
                measured=Measure(value=count.on_hand, unit="on hand"),
                needed=Measure(value=count.needed, unit="wanted"),
                extra=count.part.id,
            )


@check(
    "parts.sample-first",
    severity="note",
    title="One to try first",
    measures="lamps of an untested colour, of which several are to be bought",
    source=Source(kind="practice", note="bought lamps of untested colour: one sample first"),
    reads=("wishes", "parts", "workshop", "limits", "trials"),
)
def sample_first(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lit parts to buy whose colour nobody has seen lit, or that were not right when they were."""
    tried = {trial.part for trial in r.design.trials}
    for count in counts(r):
        if count.sample and count.to_buy > 1 and count.part.id not in tried:
            colour = f", {count.part.colour}" if count.part.colour else ""
            yield rule.finding(
                *count.functions[:20],
                detail=f"{count.to_buy} × {count.part.name}{colour}: buy one, try it in the dark, then the rest",
                extra=count.part.id,
            )


@check(
    "parts.lamp-colour",
    severity="judge",
    title="Another colour than wanted",
    measures="the colour of its lamp, against the one that its words or its choice name",
    source=Source(kind="practice", note="colours of lamps mean something: red a danger, amber a caution, green safe"),
    reads=("wishes", "parts"),
)
def lamp_colour(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps wanted in a colour that the chosen part cannot be had in."""
    for f, part in _chosen(r):
        wanted = wanted_colour(f)
        if wanted is None or not any(line.does == "lamp" for line in part.lines) or wanted in part.colour:
            continue
        yield rule.finding(
            f.id,
            detail=f"{f.name} wants {wanted}, {part.name} is {part.colour or 'of no colour that is said'}",
            spot=_spot(f),
        )
