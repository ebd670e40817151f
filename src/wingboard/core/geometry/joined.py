"""Two outlines that overlap, made one: lines stay lines, and arcs stay arcs unless two of them all but coincide."""

from __future__ import annotations

import math
from itertools import pairwise

import shapely

from wingboard.core.geometry.edges import Edge, edges_of
from wingboard.core.geometry.outline import SAG, Loop, Vertex, area_of
from wingboard.core.geometry.rounded import polygon

NEAR = 1e-6
"""Ends nearer than this (mm) are one point."""
AGREES = 1e-3
"""How far (share) the area of what was joined may be from that of the flattened outlines."""


def joined(a: Loop, b: Loop) -> Loop | None:
    """The outline round two counter-clockwise loops that overlap; None when they do not, or leave a hole between them.

    Each edge is cut where it meets the other outline, and the pieces outside it are strung together.
    """
    one, other = area_of(a), area_of(b)
    union = shapely.union(one, other)
    if not isinstance(union, shapely.Polygon) or union.interiors or shapely.intersection(one, other).area <= 0:
        return None
    for outer, whole, inner in ((one, a, other), (other, b, one)):
        if outer.buffer(2 * SAG).covers(inner):
            return whole
    pieces = [*_outside(a, b, other, union), *_outside(b, a, one)]
    loop = _strung(pieces)
    if loop is not None and abs(area_of(loop).area - union.area) <= AGREES * union.area:
        return loop
    # Two arcs that all but coincide: where they part cannot be told, so that the outline is of straight pieces.
    straight = polygon(union.simplify(SAG).normalize()).exterior.coords
    return tuple(Vertex(x, y) for x, y in reversed(straight[1:]))


def _outside(
    loop: Loop, other: Loop, area: shapely.Polygon, union: shapely.Polygon | None = None
) -> list[tuple[Vertex, Vertex]]:
    """The pieces of a loop outside another, each as its two ends, the first with the bulge.

    :param union: of both, where pieces that lie on both outlines count as well, as they do for one of the two.
    """
    found = []
    theirs = edges_of(other)
    for edge in edges_of(loop):
        for start, end in pairwise(_cuts(edge, theirs)):
            middle = shapely.Point(edge.at((start + end) / 2))
            shared = union is not None and max(x.exterior.distance(middle) for x in (union, area)) < NEAR
            if shared or not area.covers(middle):
                found.append((edge.piece(start, end), Vertex(*edge.at(end))))
    return found


def _cuts(edge: Edge, others: list[Edge]) -> list[float]:
    shares = {0.0, 1.0}
    for other in others:
        for point in (*edge.meets(other), other.start, other.end):
            if math.dist(edge.at(min(1.0, max(0.0, edge.share(point)))), point) > NEAR:
                continue
            share = edge.share(point)
            if 1e-9 < share < 1 - 1e-9 and -1e-9 <= other.share(point) <= 1 + 1e-9:
                shares.add(share)
    return sorted(shares)


def _strung(pieces: list[tuple[Vertex, Vertex]]) -> Loop | None:
    """The pieces as one loop, each beginning where the one before it ends; None when they do not make one."""
    if not pieces:
        return None
    left = list(pieces)
    made, end = [left[0][0]], left.pop(0)[1]
    while left:
        following = min(left, key=lambda piece: math.hypot(piece[0].x - end.x, piece[0].y - end.y))
        if math.hypot(following[0].x - end.x, following[0].y - end.y) > NEAR:
            return None
        left.remove(following)
        made.append(following[0])
        end = following[1]
    return tuple(made) if math.hypot(made[0].x - end.x, made[0].y - end.y) <= NEAR else None
