"""Whether every piece finds a machine, a sheet and a place on it."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.brief.beds import bed_fit
from wingboard.core.cut.again import changed_since
from wingboard.core.cut.checks.machines import READS
from wingboard.core.cut.openings import TAB_EVERY, TABS
from wingboard.core.cut.pieces import pieces_of
from wingboard.core.cut.plan import WRONG
from wingboard.core.cut.sheets import cutter, layout, meant
from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved


@check(
    "cut.no-room",
    severity="judge",
    title="No room for the cutter",
    measures="how much a piece with its cutter all round is too long for the bed that it fits by itself",
    source=Source(kind="computed", note="the piece and the width of the cut on both sides, lying either way"),
    reads=READS,
)
def no_room(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces that a bed would take if nothing had to go round them."""
    for u in layout(r).unlaid:
        machines = [m for m in r.design.workshop.machines if m.kind in ("laser", "mill")]
        whole = any(bed_fit(u.piece.width, u.piece.height, m).whole for m in machines)
        if u.over > 0 and whole:
            yield rule.finding(
                u.piece.id,
                detail=f"{u.piece.name} {u.why}",
                measured=Measure(value=round(u.over, 2), unit="mm over"),
                needed=Measure(value=0, unit="mm over"),
                most=True,
            )


@check(
    "cut.no-place",
    severity="judge",
    title="No sheet has room for it",
    measures="pieces that the bed takes, and no sheet with its clamps and old holes",
    source=Source(kind="computed", note="rectangles round the pieces, clamps and holes, 3 mm apart"),
    reads=READS,
)
def no_place(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces for which clamps, old holes or small sheets leave no place."""
    left = [u for u in layout(r).unlaid if u.why.startswith("no sheet")]
    if left:
        yield rule.finding(
            *sorted({u.piece.id for u in left})[:20],
            detail="; ".join(dict.fromkeys(u.piece.name for u in left)),
            measured=Measure(value=len(left), unit="pieces"),
            needed=Measure(value=0, unit="pieces"),
            most=True,
        )


@check(
    "cut.by-hand",
    severity="note",
    title="Made by hand",
    measures="pieces whose material, thickness or pockets no machine of the workshop cuts",
    source=Source(kind="practice", note="templates, holes to drill and centre marks are among the files"),
    reads=READS,
)
def by_hand(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces that are left to saw, drill and file, in a workshop that has machines."""
    left = [u for u in layout(r).unlaid if u.why.startswith("by hand")]
    if left and any(m.kind in ("laser", "mill") for m in r.design.workshop.machines):
        yield rule.finding(
            *sorted({u.piece.id for u in left})[:20],
            detail="; ".join(f"{u.piece.name}, {u.why}" for u in left[:3]) + (" …" if len(left) > 3 else ""),
            measured=Measure(value=len(left), unit="pieces"),
            needed=Measure(value=0, unit="pieces"),
            most=True,
        )


@check(
    "cut.turned-over",
    severity="note",
    title="Turned over between two cuts",
    measures="sheets whose pockets are cut from behind before their front is engraved",
    source=Source(kind="practice", note="two holes through the sheet and the waste board; pins find them again"),
    reads=READS,
)
def turned_over(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Sheets that lie on the bed twice."""
    turned = [s for s in layout(r).sheets if s.pins]
    if turned:
        yield rule.finding(
            *(s.id for s in turned[:20]),
            detail="; ".join(laid.piece.name for s in turned[:2] for laid in s.laid[:2]),
            measured=Measure(value=len(turned), unit="sheets"),
            needed=Measure(value=0, unit="sheets"),
            most=True,
        )


@check(
    "cut.program-wrong",
    severity="must",
    title="The program cuts wrongly",
    measures="how far a written program takes what must stay, or leaves what must go, as it was read back",
    source=Source(kind="computed", note="the file read and its tool swept, when its sheet is opened or all are read"),
    reads=READS,
    fresh=True,
)
def program_wrong(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Sheets whose program was read back and found wrong; what nobody has looked at yet is not spoken of."""
    for sheet, found in WRONG.of(r):
        for piece, fault in found.faults[:3]:
            name = next((laid.piece.name for laid in sheet.laid if laid.piece.id == piece), "a clamp or an old hole")
            yield rule.finding(
                sheet.id,
                *([piece] if piece else []),
                detail=f"{sheet.machine.name}, sheet {sheet.number}, {name}: {fault.what} at "
                f"{fault.x:.1f}, {fault.y:.1f} on the sheet",
                measured=Measure(value=fault.by),
                needed=Measure(value=0.0),
                most=True,
                extra=fault.what,
            )


@check(
    "cut.again",
    severity="judge",
    title="Cut again",
    measures="pieces that were changed since they were marked as cut",
    source=Source(kind="computed", note="openings, words and outline of each piece, as they were and as they are"),
    reads=(*READS, "legends", "style"),
)
def again(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces that no longer are what lies on the bench, each with what differs."""
    names = {p.id: p.name for p in pieces_of(r)} if r.design.cutting.cut else {}
    for piece, reasons in changed_since(r).items():
        more = f" and {len(reasons) - 3} more" if len(reasons) > 3 else ""
        yield rule.finding(
            piece,
            detail=f"{names.get(piece, piece)}: {'; '.join(reasons[:3])}{more}",
            measured=Measure(value=len(reasons), unit="changes"),
            needed=Measure(value=0, unit="changes"),
            most=True,
        )


@check(
    "cut.falls-out",
    severity="judge",
    title="Too small to be held by tabs",
    measures="the way round a piece, against three tabs with as much between them",
    source=Source(kind="practice", note="a small piece tilts as it comes free and is cut, or thrown: tape it down"),
    reads=READS,
)
def falls_out(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces whose outline is too short for tabs."""
    for machine, piece in meant(r):
        wide = TABS["mill" if machine.kind == "mill" else "laser"][0] + cutter(machine)
        around = 2 * (piece.width + piece.height)
        need = 2 * wide * max(3, round(around / TAB_EVERY))
        if around < need:
            yield rule.finding(
                piece.id,
                detail=piece.name,
                measured=Measure(value=around),
                needed=Measure(value=need),
            )
