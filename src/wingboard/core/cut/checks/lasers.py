"""What lasers are set to: kerf, power, passes, and how deep they engrave."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.cutting import LogFit
from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.cut.checks.machines import READS, Kind, kinds_of, used
from wingboard.core.cut.feeds import BURNING, SLOWEST, WATTS, burning, lasering
from wingboard.core.cut.lettered import way_of
from wingboard.core.cut.work import fit_of
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved


@check(
    "cut.kerf-unmeasured",
    severity="judge",
    title="Kerf not measured yet",
    measures="kinds of sheet for a laser without a coupon that says its kerf",
    source=Source(kind="practice", note="a coupon of hole sizes first: a kerf differs by sheet, lens and power"),
    reads=READS,
)
def kerf_unmeasured(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose usual kerf stands for sheets that were never tried."""
    untried: dict[str, list[Kind]] = {}
    for kind in kinds_of(r, "laser"):
        if not kind.machine.offsets and not fit_of(r.design, *kind).tried:
            untried.setdefault(kind.machine.id, []).append(kind)
    for ident, kinds in untried.items():
        listed = ", ".join(sorted(kind.words for kind in kinds))
        machine = kinds[0].machine
        yield rule.finding(
            ident,
            detail=f"{machine.name}, {listed}: {machine.kerf:g} mm is its usual one",
            measured=Measure(value=len(kinds), unit="kinds of sheet"),
            needed=Measure(value=0, unit="kinds of sheet"),
            most=True,
        )


@check(
    "cut.kerf-none",
    severity="must",
    title="A beam of no width",
    measures="kerf of a laser that cuts pieces",
    source=Source(kind="practice", note="a small laser takes away 0.1 to 0.3 mm: every hole comes out so much wider"),
    fixes="takes 0.15 mm until a coupon was measured",
    reads=READS,
)
def kerf_none(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose kerf is nought, where no coupon says another."""
    for machine, pieces in used(r, "laser").values():
        bare = any(fit_of(r.design, machine, p.material, p.thickness).kerf < 0.01 for p in pieces)
        if bare and not machine.offsets:
            yield rule.finding(
                machine.id,
                detail=machine.name,
                measured=Measure(value=machine.kerf),
                needed=Measure(value=0.01),
                fix=Fix(label="Kerf 0.15 mm", commands=(EditMachine(machine=machine.id, kerf=0.15),)),
            )


@check(
    "cut.power-unsaid",
    severity="judge",
    title="A laser of unknown power",
    measures="watts of a laser that cuts pieces: its speed and time follow from them",
    source=Source(kind="practice", note=f"{WATTS:g} W is taken until it is said"),
    fixes="says the power that is taken",
    reads=READS,
)
def power_unsaid(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose power was not said."""
    for machine, _ in used(r, "laser").values():
        if not machine.watts:
            yield rule.finding(
                machine.id,
                detail=f"{machine.name}: {WATTS:g} W is taken",
                measured=Measure(value=0, unit="W"),
                needed=Measure(value=1, unit="W"),
                fix=Fix(label=f"{WATTS:g} W", commands=(EditMachine(machine=machine.id, watts=WATTS),)),
            )


@check(
    "cut.laser-slow",
    severity="judge",
    title="Too thick for one pass",
    measures="passes of a laser that would go slower than 2 mm/s in one",
    source=Source(kind="practice", note=f"slower than {SLOWEST:g} mm/s it chars: several passes, or a mill"),
    reads=READS,
)
def laser_slow(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Sheets that a laser goes through in several passes."""
    for kind in kinds_of(r, "laser"):
        _, passes = lasering(kind.material, kind.thickness, kind.machine)
        if passes > 1:
            yield rule.finding(
                kind.machine.id,
                kind.subject,
                detail=f"{kind.machine.name}, {kind.words}",
                measured=Measure(value=passes, unit="passes"),
                needed=Measure(value=1, unit="passes"),
                most=True,
            )


@check(
    "cut.engraves-deep",
    severity="judge",
    title="The laser engraves deeper than asked",
    measures="depth of the words at the laser's least power and greatest speed, against the depth that is kept for it",
    source=Source(kind="memory", note="1/6 J for each mm of way and of depth; a twentieth of its power is the least"),
    fixes="keeps the depth that it engraves for that sheet",
    reads=READS,
)
def engraves_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers too strong, or too slow, for words as shallow as they are wanted."""
    for machine, pieces in used(r, "laser").values():
        for piece in pieces:
            if piece.layer is None or piece.layer.role != "face" or way_of(r, piece.module) not in (None, "filled"):
                continue
            thick = piece.thickness
            asked = fit_of(r.design, machine, piece.material, thick).engraved
            feeds, deep = burning(machine, asked)
            if deep > asked + VISIBLE:
                keep = LogFit(
                    machine=machine.id, material=piece.material, thickness=thick,
                    engraved=min(5.0, round(deep + 0.005, 2)),
                )  # fmt: skip
                yield rule.finding(
                    machine.id,
                    piece.id,
                    detail=f"{piece.name}: {100 * BURNING[0]:.0f} % of {machine.name} at {feeds.feed:.0f} mm/min",
                    measured=Measure(value=deep),
                    needed=Measure(value=asked),
                    most=True,
                    # Any deeper than half the sheet, it is a cut and no engraving.
                    fix=Fix(label=f"Engrave {deep:.2f} mm deep", commands=(keep,)) if 2 * deep < thick else None,
                )
