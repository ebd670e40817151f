"""Holes that were there before: of the plate that a module replaces, or is laid upon. Lengths in mm."""

from __future__ import annotations

from typing import Literal, NamedTuple

from pydantic import ValidationError
from shapely import Point
from shapely.affinity import translate

from wingboard.core.cut.beside import across
from wingboard.core.cut.patched import box_of
from wingboard.core.quantity import length
from wingboard.core.record.cutting import OldHole
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

MARGIN = 3.0
"""A hole is covered where the new plate is whole so far round it (common practice: an edge and its burr)."""
SLACK = 0.2
"""An old hole this much larger than the new one over it, on either side, is still hidden by it."""
Standing = Literal["reused", "covered", "open"]


class Judged(NamedTuple):
    """An old hole, what becomes of it, by what; how far (mm) it is from what would show it.

    Less than 0: how wide what shows is, where it reaches into a new opening or over the plate's edge.
    """

    hole: OldHole
    standing: Standing
    by: str
    gap: float


def judged_holes(r: Resolved, module: ResolvedModule) -> tuple[Judged, ...]:
    """What becomes of every old hole under a module."""
    found = next((o.holes for o in r.design.cutting.old if o.module == module.module.id), ())
    return tuple(_judged(r, module, hole) for hole in found)


def _judged(r: Resolved, module: ResolvedModule, hole: OldHole) -> Judged:
    disc = Point(hole.x, hole.y).buffer(hole.diameter / 2, quad_segs=32)
    face = module.plates[0]
    shapes = module.openings(face.id)
    new = [c.buffer(radius, quad_segs=32) for c, radius in zip(shapes.cores, shapes.radii, strict=True)]
    for shape, owner in zip(new, shapes.owners.tolist(), strict=True):
        if shape.buffer(SLACK).covers(disc):
            return Judged(hole, "reused", module.owner_name(owner), 0.0)
    for p in module.placed:
        cover = module.templates.envelope(p, "cover")
        if cover is not None and translate(cover.drawn(), p.place.x, p.place.y).covers(disc.buffer(SLACK)):
            return Judged(hole, "covered", p.function.name, 0.0)
    for patch in r.design.cutting.patches:
        if patch.module == module.module.id and box_of(patch).covers(disc.buffer(SLACK)):
            return Judged(hole, "covered", f"patch {patch.text or patch.id}", 0.0)
    area = module.area_of(face)
    beyond = disc.difference(area)
    gaps = [(float(area.exterior.distance(disc)) if beyond.is_empty else -across(beyond), "the plate's edge")]
    for shape, owner in zip(new, shapes.owners.tolist(), strict=True):
        gap = float(shape.distance(disc))
        gaps.append((gap if gap > 0 else -across(shape.intersection(disc)), module.owner_name(owner)))
    least, name = min(gaps)
    return Judged(hole, "covered" if least >= MARGIN else "open", name if least < MARGIN else "the plate", least)


class Fault(NamedTuple):
    """A line that was not understood, by its number, and why."""

    line: int
    words: str


def read_holes(text: str) -> tuple[tuple[OldHole, ...], tuple[Fault, ...]]:
    """Holes from lines of x, y, diameter and a name, in mm or with their unit: typed, or a hole table's cells.

    Cells stand apart by commas, semicolons or tabs; a first line of words names the columns.
    """
    holes: list[OldHole] = []
    faults: list[Fault] = []
    columns = ["x", "y", "diameter", "name"]
    for n, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        cells = [cell.strip() for cell in line.split(_delimiter(line))]
        if not holes and not faults and {"x", "y"} <= {c.casefold() for c in cells}:
            columns = [{"what": "name"}.get(c.casefold(), c.casefold()) for c in cells]
            continue
        row = dict(zip(columns, cells, strict=False))
        try:
            x, y, diameter = (length(row.get(key, "")) for key in ("x", "y", "diameter"))
            holes.append(OldHole(x=x, y=y, diameter=diameter, name=row.get("name", "")[:120]))
        except ValidationError as error:
            faults.append(Fault(n, f"{error.errors()[0]['loc'][0]}: {error.errors()[0]['msg']}"))
        except ValueError as error:
            faults.append(Fault(n, f"x, y and a diameter in mm are wanted: {error}"))
    return tuple(holes[:500]), tuple(faults)


def _delimiter(line: str) -> str:
    return next((d for d in ("\t", ";") if d in line), ",")
