"""Hands: out of reach, pointing different ways, scattered, under a guard, colliding, pairs that are none."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

import shapely

from wingboard.core.brief.wanted import duty_of
from wingboard.core.changes.commands.arrange import Arrange, PairMirrored
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.changes.handlers.arrange import mirror_place
from wingboard.core.face.checks.spots import across, at, of
from wingboard.core.face.near import neighbours
from wingboard.core.face.reach import beyond
from wingboard.core.face.rules import spacing_needed
from wingboard.core.face.settle import move_to_settle
from wingboard.core.face.sweep import odd_ones, sweeps_on
from wingboard.core.findings.facets import FACETS
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.shapeset import Near
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.functions import emergency
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

SWEEP = Source(kind="practice", note="what belongs together points the same way when off, in the order of use")


@check(
    "face.emergency-out-of-reach",
    severity="must",
    title="Out of first reach",
    measures="how far an emergency control lies beyond the free hand, the arm straight and the shoulder come forward",
    limits=("reach-lean", "reach-primary"),
    hurts=True,
)
def emergency_out_of_reach(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Emergency controls that the free hand does not get to from the seat, or only by leaning forward."""
    for placed in r.placed:
        if not emergency(placed.function, placed.part):
            continue
        leaning, upright = beyond(r, placed), beyond(r, placed, "primary")
        if leaning is None or upright is None or upright <= VISIBLE:
            continue
        far = leaning > VISIBLE
        yield rule.finding(
            placed.function.id,
            detail=f"{placed.function.name}: bring it towards the free hand, or the panel nearer",
            spot=of(placed),
            measured=Measure(value=leaning if far else upright),
            needed=Measure(value=0),
            most=True,
            severity=None if far else "note",
            title=None if far else "Reached by leaning forward",
        )


@check(
    "face.off-ways-differ",
    severity="judge",
    title="Odd one in the sweep",
    measures="levers of a group that point another way than most when off",
    source=SWEEP,
    fixes="turns the odd ones",
)
def off_ways_differ(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Groups of three levers or more on a module that one sweep does not set."""
    for module in r.modules.values():
        for group in sorted({p.function.group for p in module.placed if p.function.group}):
            together = [p for p in module.placed if p.function.group == group]
            for odd in odd_ones(together):
                turn = TurnItems(functions=(odd.function.id,), by=180)
                yield rule.finding(
                    odd.function.id,
                    detail=f"{odd.function.name} points another way when off than the others of {group}",
                    spot=at(module, odd.place.x, odd.place.y),
                    fix=None if odd.function.locked else Fix(label="Turn it round", commands=(turn,)),
                )


@check(
    "face.bus-scattered",
    severity="judge",
    title="A bus is scattered",
    measures="controls of other buses among those of one bus",
    source=Source(kind="practice", note="a bus's switches are contiguous"),
)
def bus_scattered(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Buses with another control inside the area of their own."""
    for module in r.modules.values():
        controls = [p for p in module.placed if p.part.hand is not None]
        for bus in sorted({p.function.switches.bus for p in controls if p.function.switches.bus}):
            mine = [p for p in controls if p.function.switches.bus == bus]
            if len(mine) < 2:
                continue
            hull = shapely.MultiPoint([(p.place.x, p.place.y) for p in mine]).convex_hull.buffer(3.0)
            inside = [p for p in controls if p not in mine and hull.contains(shapely.Point(p.place.x, p.place.y))]
            if inside:
                yield rule.finding(
                    *(p.function.id for p in inside),
                    detail=f"Bus {bus}: {', '.join(p.function.name for p in inside[:3])} among its switches",
                    spot=at(module, inside[0].place.x, inside[0].place.y),
                    measured=Measure(value=len(inside), unit="among them"),
                    needed=Measure(value=0, unit="among them"),
                    most=True,
                    extra=bus.lower().replace(" ", "-")[:20],
                )


@check(
    "face.sweep-broken",
    severity="judge",
    title="The sweep jumps",
    measures="steps of a procedure that go back, or further than 2.5 times the usual",
    source=SWEEP,
    fixes="sets its controls in a row in their order",
)
def sweep_broken(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Procedures that one movement of the hand does not follow."""
    for module in r.modules.values():
        for sweep in sweeps_on(r, module):
            wrong = (*sweep.back, *sweep.gaps)
            if not wrong:
                continue
            a, b = wrong[0]
            yield rule.finding(
                *(p.function.id for p in sweep.steps),
                detail=f"“{sweep.procedure.name}”: from {a.function.name} to {b.function.name}",
                spot=at(module, (a.place.x + b.place.x) / 2, (a.place.y + b.place.y) / 2),
                measured=Measure(value=len(wrong), unit="jumps"),
                needed=Measure(value=0, unit="jumps"),
                most=True,
                extra=sweep.procedure.id,
                fix=partial(_in_a_row, sweep.steps),
            )


def _in_a_row(steps: tuple[Placed, ...]) -> Fix | None:
    if any(p.function.locked for p in steps):
        return None
    ids = tuple(p.function.id for p in steps)
    return Fix(label="Set them in a row", commands=(Arrange(functions=ids, how="row", order="given"),))


@check(
    "face.caps-collide",
    severity="must",
    title="Caps or knobs collide",
    measures="between what covers the face: caps, knobs, bezels, guards with their swing",
    limits=("cover-clearance",),
    fixes="moves one of the two by the least that clears it",
)
def caps_collide(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs whose covered faces run into each other; a guard's swing is judged by itself."""
    yield from _collisions(r, rule, guards=False)


@check(
    "face.under-guard",
    severity="must",
    title="Under another's guard",
    measures="between a guard with its swing and what covers the face beside it",
    limits=("cover-clearance",),
    fixes="moves one of the two by the least that clears it",
)
def under_guard(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts that a guard opens onto."""
    yield from _collisions(r, rule, guards=True)


def _collisions(r: Resolved, rule: Check, guards: bool) -> Iterator[Finding]:
    need = rule.limit(r.design)
    covers = r.panel.envelopes("cover")
    for near in _covers_near(r, need):
        pair = [r.panel.by_number[int(covers.owners[i])] for i in near[:2] if covers.owners[i] >= 0]
        if len(pair) < 2 or any(_swings(p) for p in pair) is not guards:
            continue
        yield rule.finding(
            *(p.function.id for p in pair),
            detail=f"{pair[0].function.name} and {pair[1].function.name}",
            spot=across(r, covers, near),
            measured=Measure(value=near.gap),
            needed=Measure(value=need),
            fix=partial(move_to_settle, r, pair, "covers"),
        )


def _covers_near(r: Resolved, need: float) -> list[Near]:
    return r.once("covers near", partial(r.panel.envelopes("cover").closer_than, need - VISIBLE))


@check(
    "face.screw-covered",
    severity="must",
    title="A screw is covered",
    measures="between a screw's head and a cap, knob, bezel or guard with its swing",
    limits=("cover-clearance",),
    fixes="moves the part by the least that frees the screw",
)
def screw_covered(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Screws that a part's cap hides or whose head it stands on: the plate could not be screwed down."""
    need = rule.limit(r.design)
    covers = r.panel.envelopes("cover")
    for near in _covers_near(r, need):
        low, high = sorted(int(covers.owners[i]) for i in near[:2])
        if low >= 0 or high < 0:
            continue
        placed = r.panel.by_number[high]
        yield rule.finding(
            placed.function.id,
            detail=f"{placed.function.name} over the {r.panel.owner_name(low)} of {r.panel.module_of(low).module.name}",
            spot=across(r, covers, near),
            measured=Measure(value=near.gap),
            needed=Measure(value=need),
            fix=partial(move_to_settle, r, [placed], "covers"),
            extra=f"{r.panel.module_of(low).module.id}-{r.panel.owner_name(low)}".replace(" ", "-"),
        )


def _swings(placed: Placed) -> bool:
    return placed.part.guarded and placed.part.family == "toggle"


@check(
    "face.irreversible-among-everyday",
    severity="judge",
    title="Too easily hit",
    measures="from a control that cannot be undone, unguarded, to the nearest everyday one, against twice the usual",
    limits=("emergency-factor",),
)
def irreversible_among_everyday(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Irreversible controls without a guard that stand among the everyday ones."""
    factor = rule.limit(r.design)
    for placed in r.placed:
        if placed.function.risk != "guarded" or placed.part.guarded or placed.part.hand is None:
            continue
        for near in neighbours(r, placed, most=6):
            need = spacing_needed(r.design, placed, near.other)
            if need and near.other.function.risk == "normal" and near.gap < need.value * factor - VISIBLE:
                module = r.modules[placed.place.module]
                yield rule.finding(
                    placed.function.id,
                    detail=f"{placed.function.name} beside {near.other.function.name}, without a guard",
                    spot=at(module, placed.place.x, placed.place.y),
                    measured=Measure(value=near.gap),
                    needed=Measure(value=need.value * factor),
                )
                break


@check(
    "face.pair-not-mirrored",
    severity="judge",
    title="A pair that is not mirrored",
    measures="from a control to where its pair's mirror image is, about the module's middle",
    source=Source(kind="practice", note="mirrored pairs left and right"),
    fixes="moves the second to the mirror image of the first",
)
def pair_not_mirrored(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs of which one was moved alone."""
    for placed in r.placed:
        first = r.functions.get(placed.function.pair or "")
        if first is None or first.place is None:
            continue
        wanted = mirror_place(r.design, first)
        off = math.hypot(wanted.x - placed.place.x, wanted.y - placed.place.y)
        other_module = wanted.module != placed.place.module
        if off > VISIBLE or other_module or abs((wanted.turn - placed.place.turn + 180) % 360 - 180) > 0.01:
            module = r.modules[placed.place.module]
            command = PairMirrored(first=first.id, second=placed.function.id)
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name} and {first.name}",
                spot=at(module, placed.place.x, placed.place.y),
                measured=Measure(value=off),
                needed=Measure(value=0),
                most=True,
                fix=None if placed.function.locked else Fix(label="Mirror it again", commands=(command,)),
            )


@check(
    "face.hand-wrong-side",
    severity="judge",
    title="On the other hand's side",
    measures="controls for one hand that stand on the other half of the opening",
    source=Source(kind="practice", note="what one hand works stands on its side"),
    reads=(*FACETS, "accepted"),
)
def hand_wrong_side(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Controls that say which hand works them, on the wrong half."""
    x0, _, x1, _ = shapely.Polygon([(v.x, v.y) for v in r.design.brief.opening.loop()]).bounds
    middle = (x0 + x1) / 2
    wrong = [
        p.function
        for p in r.placed
        if p.function.hand in ("left", "right")
        and duty_of(p.function, p.part) == "control"
        and (r.panel.point(p)[0] < middle) != (p.function.hand == "left")
    ]
    yield from rule.over(r, wrong, unit="on the wrong side")
