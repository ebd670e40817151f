"""Shapes kept as a bare core and a radius around it, so that distances are exact.

A circle is a point with a radius, a slot a line with a radius, a rounded rectangle a smaller rectangle with a
radius. The distance between two such shapes is the distance between their cores less both radii: nothing is
approximated by polygons, and most cores are points, which shapely compares fastest.
"""

from __future__ import annotations

import math
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt
import shapely
from shapely import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry

_POINT, _POLYGON = 0, 3
"""Shapely's numbers of these types."""


class Rounded(NamedTuple):
    """All points within ``radius`` (mm) of ``core`` (mm)."""

    core: BaseGeometry
    radius: float

    def moved(self, dx: float, dy: float) -> Rounded:
        """The same shape shifted by (dx, dy) mm."""
        return Rounded(shapely.transform(self.core, lambda points: points + (dx, dy)), self.radius)

    def turned(self, degrees: float) -> Rounded:
        """The same shape turned counter-clockwise about the origin."""
        if degrees % 360 == 0:
            return self
        c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
        return Rounded(shapely.transform(self.core, lambda p: p @ [[c, s], [-s, c]]), self.radius)

    def grown(self, by: float) -> Rounded:
        """The shape with ``by`` mm more all round."""
        return Rounded(self.core, self.radius + by)

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Least x, least y, greatest x, greatest y (mm)."""
        x0, y0, x1, y1 = self.core.bounds
        return x0 - self.radius, y0 - self.radius, x1 + self.radius, y1 + self.radius

    def drawn(self) -> Polygon:
        """A polygon within :data:`~wingboard.core.quantity.VISIBLE` of the shape, for drawing and unions."""
        return polygon(self.core.buffer(self.radius, quad_segs=32))


def polygon(geometry: BaseGeometry) -> Polygon:
    """The geometry as a polygon; the largest piece when there are several, empty when it has no area."""
    if isinstance(geometry, Polygon):
        return geometry
    pieces = [g for g in getattr(geometry, "geoms", ()) if isinstance(g, Polygon)]
    return max(pieces, key=lambda g: float(g.area), default=Polygon())


def disc(diameter: float, x: float = 0.0, y: float = 0.0) -> Rounded:
    """A circle of that diameter (mm) about (x, y)."""
    return Rounded(Point(x, y), diameter / 2)


def slab(width: float, height: float, corner: float = 0.0) -> Rounded:
    """A rectangle about the origin with rounded corners (mm)."""
    corner = min(corner, width / 2, height / 2)
    half_w, half_h = width / 2 - corner, height / 2 - corner
    core: Any
    if half_w <= 0 and half_h <= 0:
        core = Point(0, 0)
    elif half_w <= 0:
        core = LineString([(0, -half_h), (0, half_h)])
    elif half_h <= 0:
        core = LineString([(-half_w, 0), (half_w, 0)])
    else:
        core = shapely.box(-half_w, -half_h, half_w, half_h)
    return Rounded(core, corner)


def gap(a: Rounded, b: Rounded) -> float:
    """Edge-to-edge distance in mm; where they overlap, minus a way that parts them (exact for discs and boxes)."""
    apart = float(shapely.distance(a.core, b.core))
    return (apart or -sunk(a.core, b.core)) - a.radius - b.radius


def sunk(a: BaseGeometry, b: BaseGeometry) -> float:
    """How far (mm) two touching cores reach into each other, along x or y or to the nearest edge."""
    if a.geom_type == "Point":
        return float(a.distance(b.boundary)) if b.geom_type == "Polygon" else 0.0
    if b.geom_type == "Point":
        return sunk(b, a)
    ax0, ay0, ax1, ay1 = a.bounds
    bx0, by0, bx1, by1 = b.bounds
    return max(0.0, min(ax1 - bx0, bx1 - ax0, ay1 - by0, by1 - ay0))


def sunk_pairs(a: npt.NDArray[np.object_], b: npt.NDArray[np.object_]) -> npt.NDArray[np.float64]:
    """As :func:`sunk`, for many pairs of cores at once."""
    depths = np.zeros(len(a))
    point_a, point_b = shapely.get_type_id(a) == _POINT, shapely.get_type_id(b) == _POINT
    wide = ~point_a & ~point_b
    if wide.any():
        x0, y0, x1, y1 = shapely.bounds(a[wide]).T
        u0, v0, u1, v1 = shapely.bounds(b[wide]).T
        depths[wide] = np.maximum(0.0, np.minimum.reduce([x1 - u0, u1 - x0, y1 - v0, v1 - y0]))
    for points, others, mixed in ((a, b, point_a & ~point_b), (b, a, point_b & ~point_a)):
        inside = mixed & (shapely.get_type_id(others) == _POLYGON)
        if inside.any():
            depths[inside] = shapely.distance(points[inside], shapely.boundary(others[inside]))
    return depths


def margin_inside(shape: Rounded, area: Polygon) -> float:
    """How far (mm) the shape stays inside ``area``; negative by how far it reaches beyond."""
    if area.covers(shape.core):
        return float(area.exterior.distance(shape.core)) - shape.radius
    corners = shapely.points(shapely.get_coordinates(shape.core))
    return -float(shapely.distance(corners, area).max()) - shape.radius
