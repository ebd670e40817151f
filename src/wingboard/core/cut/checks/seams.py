"""Whether the seams of parted pieces pass beside everything, and the parts are held."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.cutting import SetSplit
from wingboard.core.cut.checks.machines import READS
from wingboard.core.cut.parted import STAGGER, dowel
from wingboard.core.cut.pieces import Piece, parted_of, pieces_of, whole_pieces
from wingboard.core.cut.seams import SCREWS, needed, offered, screws_in, seams_beside
from wingboard.core.face.checks.webs import SNAPS
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved

SEAMS: tuple[Facet, ...] = (*READS, "legends", "style")
"""Seams keep off words too."""


def _parted(r: Resolved) -> Iterator[Piece]:
    for piece in whole_pieces(r):
        if parted_of(r, piece) is not None:
            yield piece


def _elsewhere(r: Resolved, piece: Piece) -> list[Fix]:
    """The seams that would be proposed now, its joint kept; or the piece in one."""
    parted = parted_of(r, piece)
    better = offered(r, piece, parted.split.joint if parted else "straight")
    fixes = []
    if better is not None and parted is not None and better.at != parted.split.at:
        command = SetSplit(piece=piece.id, along=better.along, at=better.at, joint=better.joint)
        fixes.append(Fix(label=f"Part it at {', '.join(f'{at:g}' for at in better.at)} mm", commands=(command,)))
    return [*fixes, Fix(label="Leave it whole", commands=(SetSplit(piece=piece.id, at=()),))]


@check(
    "cut.seam-crosses",
    severity="must",
    title="A seam too near to something",
    measures="from a seam to the nearest opening, pocket or word of its sheet; negative by how far it cuts through",
    source=Source(kind="practice", note="as much as a bridge of that material needs"),
    fixes="parts it elsewhere, or leaves it whole",
    reads=SEAMS,
)
def seam_crosses(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Seams that cut through something, for which the piece is left whole, or leave it too little."""
    for piece in _parted(r):
        parted = parted_of(r, piece)
        need = needed(r, piece)
        for at, label, gap in parted.nearest() if parted else ():
            if gap < need - VISIBLE:
                yield rule.finding(
                    piece.id,
                    detail=f"{piece.name}, seam at {at:g} mm and {label}" + (": not parted" if gap <= 0 else ""),
                    measured=Measure(value=gap),
                    needed=Measure(value=need),
                    severity="must" if gap < SNAPS * need else "judge",
                    fix=partial(_elsewhere, r, piece),
                    extra=f"{at:g}",
                )


@check(
    "cut.part-loose",
    severity="judge",
    title="A part has too few screws",
    measures="screws through each part of a sheet that is parted without a strap",
    source=Source(kind="practice", note="three screws hold a plate, two let it turn"),
    reads=READS,
)
def part_loose(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts of screwed sheets that keep fewer than three."""
    joints = {s.piece: s.joint for s in r.design.cutting.splits}
    for piece in pieces_of(r):
        if joints.get(piece.of) in (None, "strap") or piece.layer is None or not piece.module.fixings:
            continue
        held = screws_in(piece)
        if held < SCREWS:
            yield rule.finding(
                piece.id,
                detail=piece.name,
                measured=Measure(value=held, unit="screws"),
                needed=Measure(value=SCREWS, unit="screws"),
            )


@check(
    "cut.seams-together",
    severity="judge",
    title="Two seams behind each other",
    measures="from a plain seam to one of another sheet of its module",
    source=Source(kind="practice", note="sheets are each other's straps where their seams do not meet"),
    fixes="moves the seam, or leaves the piece whole",
    reads=SEAMS,
)
def seams_together(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Plain seams at the same place in two sheets: nothing bridges them."""
    for piece in _parted(r):
        for at, apart in seams_beside(r, piece):
            yield rule.finding(
                piece.id,
                detail=f"{piece.name}, seam at {at:g} mm",
                measured=Measure(value=apart),
                needed=Measure(value=STAGGER),
                fix=partial(_elsewhere, r, piece),
                extra=f"{at:g}",
            )


@check(
    "cut.dowel-thin",
    severity="judge",
    title="Too thin for dowels",
    measures="the sheet, against twice the thinnest dowel that is sold",
    source=Source(kind="practice", note="a dowel is half the sheet at most: 8 mm for one of 4"),
    fixes="takes a strap instead",
    reads=READS,
)
def dowel_thin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parted pieces with dowels for which their edges have no room."""
    for piece in _parted(r):
        parted = parted_of(r, piece)
        if parted and parted.split.joint == "dowels" and dowel(piece.thickness) is None:
            command = SetSplit(piece=piece.id, along=parted.split.along, at=parted.split.at, joint="strap")
            yield rule.finding(
                piece.id,
                detail=piece.name,
                measured=Measure(value=piece.thickness),
                needed=Measure(value=8.0),
                fix=Fix(label="A strap behind instead", commands=(command,)),
            )
