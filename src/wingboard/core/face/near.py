"""What is nearest to a placed part, and how far the plate's edge is: the figures shown while it is dragged."""

from __future__ import annotations

from typing import NamedTuple

import shapely

from wingboard.core.face.rules import spacing_needed
from wingboard.core.geometry.rounded import Rounded, gap
from wingboard.core.quantity import VISIBLE
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

LOOK_ROUND = 120.0
"""Neighbours further than this (mm) are not shown."""


class Neighbour(NamedTuple):
    """Another part, the edge-to-edge distance to it, what is needed, and the ends of the shortest way (mm).

    The ends are in the coordinates of the first part's module, wherever the other part is.
    """

    other: Placed
    gap: float
    needed: float | None
    start: tuple[float, float]
    end: tuple[float, float]

    @property
    def short(self) -> bool:
        """Whether it is nearer than needed."""
        return self.needed is not None and self.gap < self.needed - VISIBLE


class ToEdge(NamedTuple):
    """The distance from a part's covered face to the plate's edge and the ends of the shortest way (mm)."""

    gap: float
    start: tuple[float, float]
    end: tuple[float, float]


def _touched(r: Resolved, placed: Placed) -> Rounded:
    """What is touched of a part, in the opening's coordinates."""
    shape = placed.part.touched() or placed.part.covered()
    return placed.frame.within(r.modules[placed.place.module].frame).shape(shape)


def neighbours(r: Resolved, lead: Placed, most: int = 3) -> tuple[Neighbour, ...]:
    """The nearest parts, across seams too, nearest first: hand to hand where both are touched."""
    mine = _touched(r, lead)
    x, y = r.panel.point(lead)
    found = []
    for other in r.placed:
        there = r.panel.point(other)
        if other.number != lead.number and max(abs(there[0] - x), abs(there[1] - y)) <= LOOK_ROUND:
            found.append(_neighbour(r, lead, mine, other))
    return tuple(sorted(found, key=lambda n: (not n.short, n.gap))[:most])


def nearest(r: Resolved, lead: Placed) -> Neighbour | None:
    """The nearest neighbour, or None when the part is alone."""
    return min(neighbours(r, lead, most=10_000), key=lambda n: n.gap, default=None)


def gap_between(r: Resolved, lead: Placed, other: Placed, dx: float = 0.0, dy: float = 0.0) -> float:
    """Edge-to-edge distance (mm) of what is touched, with the first part shifted by (dx, dy)."""
    return gap(_touched(r, lead).moved(dx, dy), _touched(r, other))


def _neighbour(r: Resolved, lead: Placed, mine: Rounded, other: Placed) -> Neighbour:
    theirs = _touched(r, other)
    need = spacing_needed(r.design, lead, other)
    frame = r.modules[lead.place.module].frame
    start, end = (frame.back(*point) for point in _ends(mine, theirs))
    return Neighbour(other, gap(mine, theirs), need.value if need else None, start, end)


def _ends(a: Rounded, b: Rounded) -> tuple[tuple[float, float], tuple[float, float]]:
    (ax, ay), (bx, by) = shapely.shortest_line(a.core, b.core).coords
    way = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5 or 1.0
    ux, uy = (bx - ax) / way, (by - ay) / way
    return (ax + ux * a.radius, ay + uy * a.radius), (bx - ux * b.radius, by - uy * b.radius)


def to_edge(module: ResolvedModule, placed: Placed) -> ToEdge:
    """How far the part's covered face is from the plate's edge; negative when it reaches over."""
    shape = placed.frame.shape(placed.part.covered())
    (ax, ay), (bx, by) = shapely.shortest_line(shape.core, module.area.exterior).coords
    way = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5
    inside = module.area.covers(shape.core)
    share = shape.radius / way if way else 0.0
    start = (ax + (bx - ax) * share, ay + (by - ay) * share)
    return ToEdge((way if inside else -way) - shape.radius, start, (bx, by))
