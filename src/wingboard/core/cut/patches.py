"""Openings of plates that are cut, where nothing is any more: what a patch would cover. Lengths in mm."""

from __future__ import annotations

from typing import NamedTuple

import shapely

from wingboard.core.cut.again import abandoned_marks
from wingboard.core.cut.patched import box_of, met_by
from wingboard.core.record.cutting import CutMark, Patch
from wingboard.core.resolved.design import Resolved

MARGINS = (4.0, 3.0, 2.0, 1.5)
"""A patch reaches so far beyond the opening that it covers, where that is free (common practice: a line of glue)."""


class Abandoned(NamedTuple):
    """An opening of a plate that is cut, where nothing is any more: whose it was, its middle and its size.

    ``margin``: how far a patch may reach beyond it; None where anything else is too near for one.
    """

    module: str
    name: str
    x: float
    y: float
    width: float
    height: float
    margin: float | None


def abandoned(r: Resolved) -> tuple[Abandoned, ...]:
    """Openings of faces that are cut, from which their part has moved or gone, and over which nothing lies yet."""
    found = []
    for piece, name, mark in abandoned_marks(r):
        module = piece.module
        half = mark.width / 2, mark.height / 2
        old = shapely.box(mark.x - half[0], mark.y - half[1], mark.x + half[0], mark.y + half[1])
        patched = any(
            box_of(p).covers(old) for p in r.design.cutting.patches if p.module == module.module.id
        )  # fmt: skip
        if not patched and mark.width > 0 and mark.height > 0:
            margin = next((m for m in MARGINS if met_by(module, _patch(module.module.id, mark, m)) is None), None)
            found.append(Abandoned(module.module.id, name, mark.x, mark.y, mark.width, mark.height, margin))
    return tuple(found)


def _patch(module: str, mark: CutMark, margin: float) -> Patch:
    size = {"width": mark.width + 2 * margin, "height": mark.height + 2 * margin}
    return Patch(id="patch", module=module, x=mark.x, y=mark.y, **size)
