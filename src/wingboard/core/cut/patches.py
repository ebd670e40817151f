"""Openings of plates that are cut, where nothing is any more: what a patch would cover. Lengths in mm."""

from __future__ import annotations

from typing import NamedTuple

import shapely

from wingboard.core.cut.again import abandoned_marks
from wingboard.core.cut.patched import box_of
from wingboard.core.resolved.design import Resolved

MARGIN = 4.0
"""A patch reaches so far beyond the opening that it covers (common practice: two lines of glue, or a screw)."""


class Abandoned(NamedTuple):
    """An opening of a plate that is cut, where nothing is any more: whose it was, its middle and its size."""

    module: str
    name: str
    x: float
    y: float
    width: float
    height: float


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
            found.append(Abandoned(module.module.id, name, mark.x, mark.y, mark.width, mark.height))
    return tuple(found)
