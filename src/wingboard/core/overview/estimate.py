"""Money and hours: what the panel will cost, against a bought one, corrected by the hours that were logged."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.brief.sheets import Kind, kinds, sheets_needed, sheets_of
from wingboard.core.parts.counting import counts
from wingboard.core.record.workshop import Process, Stage
from wingboard.core.resolved.design import Resolved

STAGES: tuple[Stage, ...] = ("measure", "layout", "cut", "finish", "wire", "prove")
_USUAL: dict[Stage, float] = {"measure": 0.10, "layout": 0.15, "cut": 0.10, "finish": 0.15, "wire": 0.35, "prove": 0.10}
_CUTTING: dict[Process, float] = {"laser": 0.10, "mill": 0.20, "printer": 0.30, "hand": 0.50}
"""Hours a control to begin with. They are our own guess until hours are logged: log yours."""


class StageHours(NamedTuple):
    """One stage: hours a control, where that comes from, the hours in all and those already spent."""

    stage: Stage
    each: float
    logged: bool
    total: float
    spent: float


class Estimate(NamedTuple):
    """Money in minor units, hours in hours. ``parts_used`` is the range when everything is bought used."""

    controls: int
    parts: int
    parts_used: tuple[int, int]
    sheets: int
    stages: tuple[StageHours, ...]
    bought: int | None

    @property
    def money(self) -> int:
        """Everything to buy, new."""
        return self.parts + self.sheets

    @property
    def hours(self) -> float:
        """All stages together."""
        return math.fsum(s.total for s in self.stages)

    @property
    def saved_an_hour(self) -> float | None:
        """What an hour of own work saves against a bought panel; None when its price is not known."""
        return (self.bought - self.money) / self.hours if self.bought is not None and self.hours else None


def estimate(r: Resolved) -> Estimate:
    """The running estimate of a design."""
    controls = sum(1 for f in r.design.functions if f.state != "alias")
    counted = counts(r)
    low = sum(c.cost_used[0] for c in counted)
    high = sum(c.cost_used[1] for c in counted)
    return Estimate(
        controls=controls,
        parts=sum(c.cost for c in counted),
        parts_used=(low, high),
        sheets=sum(_sheet_cost(r, kind) for kind in kinds(r)),
        stages=tuple(_stage(r, stage, controls) for stage in STAGES),
        bought=r.design.brief.bought_price,
    )


def _sheet_cost(r: Resolved, kind: Kind) -> int:
    """Of the sheets of its kind that are still to be bought; a sheet in stock costs nothing more."""
    same = sheets_of(r, kind)
    missing = sheets_needed(r, kind) - sum(s.count for s in same)
    return max(0, missing) * min((s.price for s in same), default=0)


def _stage(r: Resolved, stage: Stage, controls: int) -> StageHours:
    log = [h for h in r.design.workshop.hours if h.stage == stage]
    spent = math.fsum(h.hours for h in log)
    usual = _CUTTING[r.design.brief.process or "hand"] if stage == "cut" else _USUAL[stage]
    each = spent / sum(h.controls for h in log) if log else usual
    return StageHours(stage, each, bool(log), each * controls, spent)
