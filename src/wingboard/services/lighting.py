"""Light as jobs: a finer map, and what lamps would have to be laid."""

from __future__ import annotations

from pydantic import BaseModel, Field

from wingboard.core.changes.commands.lights import AddLeds, AddStrip
from wingboard.core.findings.limits import limit
from wingboard.core.light.figures import SEEN, LegendLight, night_of
from wingboard.core.light.suggest import Way, suggest
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.lights import StripKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.services.desk import Desk
from wingboard.services.jobs import Job, Work
from wingboard.services.workers import Stopped


class Before(BaseModel):
    """A legend before and after a suggestion: least over mean."""

    function: str
    name: str
    before: float
    after: float


class SuggestedView(BaseModel):
    """Lamps that would make every legend even, as commands, and what would come of them."""

    revision: int
    module: str
    commands: list[AddStrip | AddLeds]
    legends: list[Before]
    better: int = Field(description="Legends that were uneven and would be even")
    left: int = Field(description="Legends that stay uneven all the same")


def _module(r: Resolved, ident: str) -> ResolvedModule:
    if ident not in r.modules:
        raise UnknownThing(f"There is no module “{ident[:40]}”", "module")
    return r.modules[ident]


def suggesting(desk: Desk, design_id: str, base: int, module: str, way: Way, kind: StripKind) -> Work:
    """The work of looking where lamps would have to lie behind a module. Nothing is changed by it."""

    def work(job: Job) -> SuggestedView:
        r = Resolved(desk.open(design_id, base).design)

        def report(done: float, words: str) -> None:
            if job.stopped():
                raise Stopped
            job.report(done, words)

        even = limit(r.design, "light-even")
        found = suggest(r, _module(r, module), even, way, kind, report)
        before = {legend.function: legend.evenness for legend in found.before}
        return SuggestedView(
            revision=base,
            module=module,
            commands=list(found.commands),
            legends=[_row(legend, before) for legend in found.after],
            better=sum(before.get(x.function, 0.0) < even - SEEN <= x.evenness for x in found.after),
            left=sum(x.evenness < even - SEEN for x in found.after),
        )

    return work


def _row(legend: LegendLight, before: dict[str, float]) -> Before:
    earlier = before.get(legend.function, 0.0)
    return Before(function=legend.function, name=legend.name, before=earlier, after=legend.evenness)


def refining(desk: Desk, design_id: str, base: int, module: str, step: float) -> Work:
    """The work of a finer map: the shares of its lamps are kept, so that its picture follows at once."""

    def work(job: Job) -> float:
        r = Resolved(desk.open(design_id, base).design)

        def report(done: float) -> None:
            if job.stopped():
                raise Stopped
            job.report(done, f"A point every {step:g} mm")

        night_of(r, _module(r, module), step, report)
        return step

    return work
