"""Whether every position that a control can be put into means something to what reads it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.functions import UNUSED
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.signals import signals


@check(
    "wire.position-unmeant",
    severity="judge",
    title="A position without a meaning",
    measures="positions that a control is read in, against those that have a word or are marked unused (-)",
    source=Source(kind="practice", note="a position that nobody thought of is one that nobody handles"),
    fixes="marks the rest unused",
)
def position_unmeant(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Levers and selectors that are read, of more than two positions or with words for some of them only."""
    read = {s.line.function for s in signals(r) if s.told.does == "switch"}
    for placed in r.placed:
        f, ways = placed.function, _ways(placed)
        meant = sum(bool(word) for word in f.positions[:ways])
        if f.id in read and meant < ways and (ways > 2 or meant):
            yield rule.finding(
                f.id,
                detail=f"{f.name}: {_said(placed, ways)}",
                measured=Measure(value=meant, unit="positions"),
                needed=Measure(value=ways, unit="positions"),
                fix=partial(_marked, placed, ways),
            )


def _ways(placed: Placed) -> int:
    """The positions that it can be put into: of a selector those in use, for its stop is set behind the last."""
    if placed.part.detents:
        return len(placed.function.positions) or placed.part.ways
    return len(placed.part.positions)


def _said(placed: Placed, ways: int) -> str:
    words = [*placed.function.positions[:ways], *[""] * (ways - len(placed.function.positions))]
    names = [p.name for p in placed.part.positions] or [f"way {n}" for n in range(1, ways + 1)]
    return ", ".join(f"{name} {word or 'means nothing yet'}" for name, word in zip(names, words, strict=False))


def _marked(placed: Placed, ways: int) -> Fix:
    words = [*placed.function.positions[:ways], *[""] * (ways - len(placed.function.positions))]
    positions = tuple(word or UNUSED for word in words)
    return Fix(
        label=f"Mark the rest {UNUSED}", commands=(EditFunction(function=placed.function.id, positions=positions),)
    )
