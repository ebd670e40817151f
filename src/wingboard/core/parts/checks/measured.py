"""Parts mis-measured or not measured: readings that disagree or differ from the sheet, and figures nobody checked."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.measuring import sheet_value
from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.quantity import VISIBLE
from wingboard.core.resolved.design import Resolved


@check(
    "parts.readings-disagree",
    severity="judge",
    title="Readings disagree",
    measures="spread of three calliper readings of one dimension",
    limits=("reading-spread",),
    reads=("wishes", "parts", "workshop", "limits"),
)
def readings_disagree(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Own parts with readings further apart than a calliper held straight gives."""
    most = rule.limit(r.design)
    for part in r.design.parts:
        for reading in part.readings:
            if reading.spread > most + 1e-6:
                values = ", ".join(f"{v:g}" for v in reading.values)
                yield rule.finding(
                    part.id,
                    detail=f"{_said(reading.of)} of “{part.name}”: {values}. Read it again, jaws square.",
                    measured=Measure(value=reading.spread),
                    needed=Measure(value=most),
                    most=True,
                    extra=reading.of.replace("_", "-"),
                )


@check(
    "parts.differs-from-sheet",
    severity="judge",
    title="Differs from its data sheet",
    measures="largest reading, against what the part it was copied from states",
    limits=("sheet-difference",),
    reads=("wishes", "parts", "workshop", "limits"),
)
def differs_from_sheet(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Readings that say that this is another part, or a slip."""
    most = rule.limit(r.design)
    for part in r.design.parts:
        base = catalogue().get(part.base or "") or r.parts.get(part.base or "")
        for reading in part.readings if base else ():
            stated = sheet_value(base, reading.of) if base else None
            if stated is not None and abs(reading.largest - stated) > most + 1e-6:
                yield rule.finding(
                    part.id,
                    detail=f"{_said(reading.of)} of “{part.name}” reads {reading.largest:g}, the sheet says {stated:g}",
                    measured=Measure(value=abs(reading.largest - stated)),
                    needed=Measure(value=most),
                    most=True,
                    extra=reading.of.replace("_", "-"),
                )


def _said(of: str) -> str:
    return of.replace("_", " ").capitalize()


@check(
    "parts.unmeasured",
    severity="note",
    title="Not measured yet",
    measures="parts in use whose hole, nut, key or depth is a typical figure that no calliper has read",
    reads=("wishes", "parts", "workshop", "limits"),
)
def unmeasured(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all parts in use with unmeasured figures that a cut depends on."""
    used = {f.part for f in r.design.functions}
    open_ones = [
        p
        for p in r.design.parts
        if p.id in used and not p.readings and any(p.sources[n].kind == "measure" for n in _cut_by(p.dimensions()))
    ]
    if open_ones:
        names = ", ".join(p.name for p in open_ones[:4]) + (" …" if len(open_ones) > 4 else "")
        yield rule.finding(
            detail=names,
            measured=Measure(value=len(open_ones), unit="parts"),
            needed=Measure(value=0, unit="parts"),
            most=True,
        )


def _cut_by(dimensions: tuple[str, ...]) -> list[str]:
    return [n for n in dimensions if n in ("hole", "nut_bore", "recess", "key", "depth")]


@check(
    "parts.hole-tight",
    severity="must",
    title="Will not go through its hole",
    measures="the hole, against the thread or neck that goes through it",
    reads=("wishes", "parts", "workshop", "limits"),
)
def hole_tight(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts in use whose bush is wider than their hole."""
    used = {f.part for f in r.design.functions}
    for part in r.design.parts:
        if part.id in used and part.bush and min(part.hole.span) < part.bush.diameter - VISIBLE:
            yield rule.finding(
                part.id,
                detail=f"{part.name}: measure its thread, or choose a wider fit",
                measured=Measure(value=min(part.hole.span)),
                needed=Measure(value=part.bush.diameter),
            )
