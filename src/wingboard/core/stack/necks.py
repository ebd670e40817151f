"""Where a sheet comes apart: pieces that fall out when it is cut, and necks along which it would break."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import shapely
from shapely import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry

from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.bridges import Bridge, every_thin_bridge, solid, thin_bridges

CHIP = 4.0
"""Pieces smaller than this (mm²) are chips between two cuts, not pieces."""
_SAW = 0.01
"""A broken bridge is a cut so wide (mm), and so much longer at each end."""


class Piece(NamedTuple):
    """A piece of a sheet: its outline without its holes, and the screws that go through it."""

    outline: Polygon
    fixings: int


class Neck(NamedTuple):
    """A piece that would break off: where, the widest of the bridges it hangs by (mm), what else would be left."""

    bridges: tuple[Bridge, ...]
    piece: Piece
    rest: Piece

    @property
    def widest(self) -> Bridge:
        """The bridge that has to give last."""
        return max(self.bridges, key=lambda b: b.gap)


def islands(r: Resolved, module: ResolvedModule, layer: Layer) -> tuple[Piece, ...]:
    """The pieces that fall out of a sheet when its openings are cut: all but the largest one."""
    if not any(b.gap < 0 for b in thin_bridges(r, module, layer)):
        return ()
    return tuple(_piece(module, p) for p in _pieces(solid(r, module, layer))[1:])


def necks(r: Resolved, module: ResolvedModule, layer: Layer) -> tuple[Neck, ...]:
    """The pieces that would break off a sheet if each bridge gave that is narrower than its material needs.

    Only bridges in which material is left count; what falls out anyway is an island.
    """
    thin = every_thin_bridge(r, module, layer)
    if not thin:
        return ()
    whole = solid(r, module, layer)
    cuts = [_cut(b) for b in thin]
    left = _pieces(whole.difference(shapely.unary_union(cuts)))
    already = len(_pieces(whole))
    if len(left) <= already:
        return ()
    biggest, found = _piece(module, left[0]), []
    for piece in left[1:]:
        touched = [b for b, cut in zip(thin, cuts, strict=True) if cut.distance(piece) < _SAW]
        if touched:
            found.append(Neck(tuple(touched), _piece(module, piece), biggest))
    return tuple(found)


def _cut(bridge: Bridge) -> BaseGeometry:
    (x0, y0), (x1, y1) = bridge.start, bridge.end
    line = LineString([bridge.start, bridge.end])
    if line.length < _SAW:
        return Point(x0, y0).buffer(_SAW)
    dx, dy = (x1 - x0) / line.length * _SAW, (y1 - y0) / line.length * _SAW
    return LineString([(x0 - dx, y0 - dy), (x1 + dx, y1 + dy)]).buffer(_SAW / 2, cap_style="flat")


def _pieces(geometry: BaseGeometry) -> Sequence[Polygon]:
    """The polygons of a geometry that are no chips, the largest first."""
    parts = (g for g in getattr(geometry, "geoms", (geometry,)) if isinstance(g, Polygon))
    return sorted((g for g in parts if g.area >= CHIP), key=lambda g: -g.area)


def _piece(module: ResolvedModule, polygon: Polygon) -> Piece:
    """A piece with its screws: those whose hole is in it, or at its rim."""
    filled = Polygon(polygon.exterior)
    inside = [f for f in module.fixings if filled.distance(Point(f.x, f.y)) <= f.hole / 2 and _holds(polygon, f.x, f.y)]
    return Piece(filled, len(inside))


def _holds(polygon: Polygon, x: float, y: float) -> bool:
    """Whether the material nearest to a hole's middle is this piece's, rather than one inside a hole of it."""
    point = Point(x, y)
    mine = [ring for ring in polygon.interiors if Polygon(ring).contains(point)]
    return not mine or Polygon(mine[0]).area < 200.0
