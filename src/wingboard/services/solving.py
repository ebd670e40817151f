"""Giving every line a pin, as a job: followed, stopped, and kept when it is done."""

from __future__ import annotations

from pydantic import BaseModel

from wingboard.core.changes.commands.wire import AddController, SetPins
from wingboard.services.desk import Desk
from wingboard.services.jobs import Job, Work
from wingboard.services.workers import Stopped


class UnfitLine(BaseModel):
    """A function that got no pins, and why."""

    function: str
    name: str
    reason: str


class Solved(BaseModel):
    """What the solver did: the revision that holds it, who got nothing and why, and what would make them fit."""

    revision: int
    unfit: list[UnfitLine]
    optimal: bool
    would_fit: list[AddController]


def solving(desk: Desk, design_id: str, base: int, afresh: bool, key: str | None = None) -> Work:
    """The work of solving a design's pins from a revision.

    :param afresh: give up what was solved before; pins set by hand stay.
    :param key: names the request, so that one sent twice is kept once.
    """

    def work(job: Job) -> Solved:
        from wingboard.core.wire.solve import boards_that_would_fit, solve  # the solver takes a second to load

        state = desk.open(design_id, base)
        found = solve(state.resolved, keep=not afresh, watch=job)
        if job.stopped():
            raise Stopped
        unchanged = set(found.pins) == {pin for pin in state.design.pins if pin.by == "solver"}
        kept = state if unchanged else desk.command(design_id, base, (SetPins(pins=found.pins),), key).state
        job.report(0.9, "Looking what would fit")
        more = boards_that_would_fit(state.resolved) if found.unfit else ()
        return Solved(
            revision=kept.row.number,
            unfit=[UnfitLine(**left._asdict()) for left in found.unfit],
            optimal=found.optimal,
            would_fit=[AddController(board=c.board) for c in more],
        )

    return work
