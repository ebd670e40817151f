"""Where a piece that no bed takes is best parted, and what its parts are held by. Lengths in mm."""

from __future__ import annotations

from shapely import Point

from wingboard.core.brief.beds import usable
from wingboard.core.cut.beside import region_of
from wingboard.core.cut.parted import STAGGER, Axis, proposed
from wingboard.core.cut.pieces import Piece, parted_of, whole_pieces
from wingboard.core.cut.sheets import EDGE, can, cutter
from wingboard.core.face.rules import bridge_needed
from wingboard.core.record.cutting import Joint, Split
from wingboard.core.resolved.design import Resolved

SCREWS = 3
"""A part of a sheet that is screwed keeps so many screws (common practice)."""
Spans = dict[Axis, list[tuple[float, float]]]


def offered(r: Resolved, piece: Piece, joint: Joint = "straight") -> Split | None:
    """The seams that part a piece so that a bed takes its parts; None where it fits, or no straight seams help."""
    machines = [m for m in r.design.workshop.machines if can(m, piece)]
    beds = []
    for machine in machines:
        by = cutter(machine)
        wide, high = (side - 2 * max(0.0, EDGE - machine.margin) - by for side in usable(machine))
        if wide > 0 and high > 0:
            beds.append((wide, high))
    fits = any(
        w <= bw and h <= bh for bw, bh in beds for w, h in ((piece.width, piece.height), (piece.height, piece.width))
    )
    return (
        None
        if fits or not beds
        else proposed(piece.drawn, piece.id, beds, _kept_off(r, piece), needed(r, piece), joint, piece.things)
    )


def needed(r: Resolved, piece: Piece) -> float:
    """What has to be left (mm) between a seam and an opening: a bridge of that sheet."""
    return bridge_needed(r.design, piece.layer).value if piece.layer else piece.thickness


def _kept_off(r: Resolved, piece: Piece) -> Spans:
    """What seams keep off beside what is cut: bodies and covers of parts, screws' heads, seams of the other sheets."""
    spans: Spans = {"x": [], "y": []}
    if piece.layer is None:
        return spans
    module, boxes = piece.module, []
    for p in module.placed:
        cover = module.templates.envelope(p, "cover")
        for shape in (*([cover] if cover else []), *(body.outline for body in module.templates.bodies(p))):
            x0, y0, x1, y1 = shape.bounds
            boxes.append((x0 + p.place.x, y0 + p.place.y, x1 + p.place.x, y1 + p.place.y))
    boxes += [(f.x - f.head / 2, f.y - f.head / 2, f.x + f.head / 2, f.y + f.head / 2) for f in module.fixings]
    for x0, y0, x1, y1 in boxes:
        spans["x"].append((x0 - piece.x, x1 - piece.x))
        spans["y"].append((y0 - piece.y, y1 - piece.y))
    for along, at in _other_seams(r, piece):
        spans[along].append((at - STAGGER, at + STAGGER))
    return spans


def _other_seams(r: Resolved, piece: Piece) -> list[tuple[Axis, float]]:
    """The seams of the sheets before and behind, in this piece's coordinates."""
    found = []
    for other in whole_pieces(r):
        if other.module.module.id == piece.module.module.id and other.id != piece.id and other.layer is not None:
            parted = parted_of(r, other)
            for at in parted.at if parted else ():
                along = parted.split.along if parted else "x"
                found.append((along, at + (other.x - piece.x if along == "x" else other.y - piece.y)))
    return found


def seams_beside(r: Resolved, piece: Piece) -> list[tuple[float, float]]:
    """Seams of a straight joint with another sheet's nearer than :data:`STAGGER`: where, and how far apart (mm)."""
    parted = parted_of(r, piece)
    if parted is None or parted.split.joint != "straight" or piece.layer is None:
        return []
    found = []
    for at in parted.at:
        near = [abs(at - o) for along, o in _other_seams(r, piece) if along == parted.split.along]
        if near and min(near) < STAGGER:
            found.append((at, min(near)))
    return found


def screws_in(piece: Piece) -> int:
    """How many of its module's screws go through a part of a piece."""
    if piece.layer is None:
        return 0
    area = region_of(piece.drawn.of("outline"))
    return sum(bool(area.covers(Point(f.x - piece.x, f.y - piece.y))) for f in piece.module.fixings)
