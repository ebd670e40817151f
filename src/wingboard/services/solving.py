"""Giving every line a pin, as a job: followed, stopped, and kept when it is done."""

from __future__ import annotations

from collections.abc import Iterable

from pydantic import BaseModel, Field

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.wire import SetPins
from wingboard.core.record.wiring import PinChoice
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.services.desk import Desk
from wingboard.services.jobs import Job, Work
from wingboard.services.workers import Stopped


class UnfitLine(BaseModel):
    """A function that got no pins, and why."""

    function: str
    name: str
    reason: str


class RemedyView(BaseModel):
    """What would make everything fit: its price in minor units, its minutes, and the commands that do it."""

    words: str
    money: int
    minutes: float
    commands: list[Command]


class Moved(BaseModel):
    """A line that had another pin before."""

    name: str
    terminal: str
    was: str
    now: str


class Solved(BaseModel):
    """What the solver did: the revision that holds it, who got nothing and why, and what would make them fit."""

    revision: int
    unfit: list[UnfitLine]
    optimal: bool
    over: float = Field(description="At the most over the best cost there is, as a share; 0 when proven best")
    short: str = Field(description="Which pins are short, in words")
    remedies: list[RemedyView]
    moved: list[Moved]


def solving(desk: Desk, design_id: str, base: int, afresh: bool, key: str | None = None) -> Work:
    """The work of solving a design's pins from a revision.

    :param afresh: give up what was solved before; pins set by hand stay.
    :param key: names the request, so that one sent twice is kept once.
    """

    def work(job: Job) -> Solved:
        from wingboard.core.wire.pins.remedies import remedies, shortage  # the solver takes a second to load
        from wingboard.core.wire.pins.solve import solve

        state = desk.open(design_id, base)
        found = solve(state.resolved, keep=not afresh, watch=job)
        if job.stopped():
            raise Stopped
        unchanged = set(found.pins) == {pin for pin in state.design.pins if pin.by == "solver"}
        kept = state if unchanged else desk.command(design_id, base, (SetPins(pins=found.pins),), key).state
        job.report(0.9, "Looking what would fit")
        ways = remedies(state.resolved, found, job) if found.unfit else ()
        return Solved(
            revision=kept.row.number,
            unfit=[UnfitLine(**left._asdict()) for left in found.unfit],
            optimal=found.optimal,
            over=(found.cost - found.bound) / found.cost if found.cost and not found.optimal else 0.0,
            short=shortage(state.resolved) if found.unfit else "",
            remedies=[RemedyView(**{**way._asdict(), "commands": list(way.commands)}) for way in ways],
            moved=_moved(state.resolved, found.pins),
        )

    return work


def _moved(r: Resolved, pins: Iterable[PinChoice]) -> list[Moved]:
    """The lines that go from one pin to another."""
    names = {c.id: c.name for c in r.design.controllers}
    before = {p.line: p for p in r.design.pins}
    by_id = {line.id: line for line in lines(r)}
    found = []
    for pin in pins:
        was, line = before.get(pin.line), by_id.get(pin.line)
        if was and line and (was.controller, was.pin) != (pin.controller, pin.pin):
            ends = (f"{names[p.controller]}, pin {p.pin}" for p in (was, pin))
            found.append(Moved(name=line.name, terminal=line.terminal, was=next(ends), now=next(ends)))
    return found
