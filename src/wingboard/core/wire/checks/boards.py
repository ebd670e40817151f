"""Boards that something plugs onto: whether they are there, and whether nothing else is on them."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.wire import AddController, UnpinLines
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved

PLUGS = Source(kind="practice", note="a shield lies over the whole header of its board")


@check(
    "wire.board-wanted",
    severity="judge",
    title="It wants a board of its own",
    measures="placed parts that plug onto a controller, without one that is reserved for them",
    source=PLUGS,
    fixes="adds a board with the usual header for it",
)
def board_wanted(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Graphic shields that lie nowhere yet."""
    reserved = {c.reserved for c in r.design.controllers}
    for p in r.placed:
        if p.part.plugs_on and p.function.id not in reserved and p.function.state not in ("alias", "dummy", "pending"):
            command = AddController(board="atmega328p", reserved=p.function.id)
            yield rule.finding(
                p.function.id,
                detail=f"{p.function.name}, {p.part.name}: it takes all pins of the board that it is plugged onto",
                measured=Measure(value=0, unit="boards"),
                needed=Measure(value=1, unit="boards"),
                fix=Fix(label="Add an ATmega328P for it", commands=(command,)),
            )


@check(
    "wire.board-taken",
    severity="must",
    title="Lines on a board that is covered",
    measures="pins given on a board onto which something else is plugged",
    source=PLUGS,
    fixes="takes those pins back",
)
def board_taken(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pins that no wire can reach, and that drive against the shield."""
    for c in r.design.controllers:
        mine = tuple(p.line for p in r.design.pins if p.controller == c.id)
        if c.reserved in r.functions and mine:
            yield rule.finding(
                c.id,
                detail=f"{c.name} is under {r.functions[c.reserved].name}: {', '.join(mine[:4])}"
                + (" …" if len(mine) > 4 else ""),
                measured=Measure(value=len(mine), unit="lines"),
                needed=Measure(value=0, unit="lines"),
                most=True,
                fix=Fix(label="Take them back", commands=(UnpinLines(lines=mine),)),
            )
