"""Whether supplies and USB ports give what is drawn from them, and every breaker protects something."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from wingboard.core.brief.wanted import duty_of
from wingboard.core.changes.commands.workshop import EditSupply
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.checks.nets import READS, new_supply
from wingboard.core.wire.drawn import SPARE, FromUsb, drawn, from_usb, supply_for
from wingboard.core.wire.netlist import Port, supply_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.tree import every_node, fuse_for, power_tree
from wingboard.core.wire.rails import USUAL
from wingboard.core.wire.signals import signals
from wingboard.core.wire.terminals import said


@check(
    "wire.supply-short",
    severity="judge",
    title="A supply gives too little",
    measures="what all lamps, parts and loads draw from the supplies of so many volts, against what these give",
    source=Source(kind="practice", note="a quarter is kept in reserve; over what it gives, it shuts down or burns"),
    fixes="takes a supply that gives a quarter more than is drawn",
    reads=READS,
)
def supply_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Supplies that are loaded to the last quarter, or over what they give."""
    by_volts: dict[float, list[Supply]] = {}
    for supply in r.design.workshop.supplies:
        by_volts.setdefault(supply.volts, []).append(supply)
    for volts, supplies in by_volts.items():
        gives = sum(s.amps * s.count for s in supplies)
        nodes = {supply_id(s.id) for s in supplies}
        hangs = math.fsum(n.full for n in every_node(power_tree(r)) if n.id in nodes)  # regulators too
        takes = max(hangs, drawn(r, volts))
        if SPARE * takes > gives + 1e-9:
            yield rule.finding(
                supplies[0].id,
                detail=f"{supplies[0].name}: everything on draws {takes:.2g} A of {gives:g}",
                measured=Measure(value=takes, unit="A"),
                needed=Measure(value=gives / SPARE, unit="A"),
                most=True,
                severity="must" if takes > gives + 1e-9 else "judge",
                fix=partial(_stronger, supplies[0], takes) if len(supplies) == 1 else None,
            )


def _stronger(supply: Supply, takes: float) -> Fix:
    rating = supply_for(takes)
    fuse = max(supply.fuse, fuse_for(takes))  # one that gives more burns thinner wires sooner
    command = EditSupply(supply=supply.id, amps=rating, count=1, fuse=fuse)
    return Fix(label=f"One of {rating:g} A, with a fuse of {fuse:g}", commands=(command,))


@check(
    "wire.usb-current",
    severity="judge",
    title="More than its USB port gives",
    measures="a board itself, all lamps on its pins lit, and the parts that its 5 V feeds",
    limits=("usb-supply",),
    fixes="feeds the parts from a 5 V supply of their own",
    reads=READS,
)
def usb_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards that a single port cannot feed: it switches off, or the lamps sag."""
    for controller in r.design.controllers:
        draws, most = from_usb(r, controller.id), rule.limit(r.design)
        if draws.total > most + 1e-9:
            yield rule.finding(
                controller.id,
                detail=f"{controller.name}: {1000 * draws.board:.0f} mA itself, {1000 * draws.lamps:.0f} through its "
                f"pins, {1000 * draws.fed:.0f} for parts on its 5 V",
                measured=Measure(value=1000 * draws.total, unit="mA"),
                needed=Measure(value=1000 * most, unit="mA"),
                most=True,
                fix=partial(_own_supply, r, draws),
            )


def _own_supply(r: Resolved, draws: FromUsb) -> list[Fix]:
    if draws.board + draws.lamps > limit(r.design, "usb-supply") + 1e-9:
        return []  # its pins alone take too much: fewer lamps on this board, or dimmer ones
    return [new_supply(r, USUAL)]


@check(
    "wire.lamp-test-current",
    severity="judge",
    title="Too much for the contact of the lamp test",
    measures="current of all lamps and transistors that one contact lights at once, against what it may switch",
    source=Source(kind="computed", note="the net list"),
    reads=READS,
)
def lamp_test_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Controls that light more lamps than their contact carries."""
    through = sum(s.line.pin_current for s in signals(r) if s.line.lamp)
    for p in r.placed:
        if p.function.tests_lamps and p.part.rating and through > p.part.rating.amps + 1e-9:
            yield rule.finding(
                p.function.id,
                detail=f"{p.function.name}: let it switch a relay or a transistor that lights them",
                measured=Measure(value=through, unit="A"),
                needed=Measure(value=p.part.rating.amps, unit="A"),
                most=True,
            )


@check(
    "wire.orphan-breaker",
    severity="judge",
    title="A breaker with nothing behind it",
    measures="loads behind a breaker or fuse: of the function that it protects, or of its bus",
    source=Source(kind="computed", note="the net list"),
    reads=READS,
)
def orphan_breaker(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Breakers and fuses that no circuit goes through, for nobody said what they protect."""
    nets = net_list(r)
    for p in r.placed:
        if duty_of(p.function, p.part) != "protection" or p.function.state in ("alias", "dummy", "pending"):
            continue
        contact = next(iter(said(p.part).contacts), None)
        if contact is not None and Port(p.function.id, contact.b) not in nets.by_port:
            yield rule.finding(
                p.function.id,
                detail=p.function.name,
                measured=Measure(value=0, unit="loads"),
                needed=Measure(value=1, unit="loads"),
            )
