"""What stands between a lamp and the diffuser, and the shadow that it throws: similar triangles.

A point that lies d mm behind the diffuser, on a ray from a lamp h mm behind it, is seen at the lamp's foot plus its own
distance from there times h / (h − d). A convex body between two depths throws the hull of its two ends' shadows.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property
from typing import NamedTuple

import numpy as np
import numpy.typing as npt
import shapely
from PIL import Image, ImageDraw

from wingboard.core.light.emission import Field, Grid, Lamp

NEAREST = 0.02
"""A body is taken to end so much of the way before the lamp, where its shadow would be without end."""
FINE = 4
"""The mask is drawn so many times finer than the grid, so that a shadow's edge is within an eighth of a step."""
LIT = 255
"""A point of the mask that is lit."""
SAG = 0.005
"""How far (mm) the corners of a round body may be cut off."""


class Body(NamedTuple):
    """Something that light does not pass, between two depths behind the front (mm), in the module's coordinates."""

    outline: shapely.Polygon
    z0: float
    z1: float


class Bodies:
    """Many bodies as arrays: their hulls' corners (bodies × most corners × 2), fronts and backs."""

    def __init__(self, bodies: Sequence[Body]) -> None:
        """Take bodies; what of them is not convex counts as filled."""
        rings = [_corners(body.outline) for body in bodies]
        most = max((len(ring) for ring in rings), default=0)
        self.corners = np.array(
            [np.concatenate([ring, np.repeat(ring[-1:], most - len(ring), axis=0)]) for ring in rings], dtype=np.float64
        ).reshape(len(rings), most, 2)
        self.z0 = np.array([body.z0 for body in bodies], dtype=np.float64)
        self.z1 = np.array([body.z1 for body in bodies], dtype=np.float64)

    def only(self, which: npt.NDArray[np.bool_]) -> Bodies:
        """Some of them."""
        made = Bodies(())
        made.corners, made.z0, made.z1 = self.corners[which], self.z0[which], self.z1[which]
        return made

    @cached_property
    def _middles(self) -> tuple[Field, Field]:
        """The middles of their boxes, and how far they reach from there (mm)."""
        low, high = self.corners.min(axis=1), self.corners.max(axis=1)
        return (low + high) / 2, np.hypot(*((high - low) / 2).T)

    def near(self, x: float, y: float, reach: float) -> Bodies:
        """Those of which anything lies within so much (mm) of a point."""
        if not len(self.z0):
            return self
        middles, radii = self._middles
        return self.only(np.hypot(middles[:, 0] - x, middles[:, 1] - y) - radii < reach)

    @cached_property
    def key(self) -> bytes:
        """What tells these bodies from any others."""
        return self.corners.tobytes() + self.z0.tobytes() + self.z1.tobytes()


def _corners(outline: shapely.Polygon) -> Field:
    hull = outline.convex_hull.simplify(SAG)
    return np.asarray(shapely.get_coordinates(hull), dtype=np.float64)[:-1]


def shadows(lamp: Lamp, bodies: Bodies, plane: float) -> npt.NDArray[np.object_]:
    """The shadows of bodies on a plane at a depth, as polygons; of those that do not stand before the lamp none."""
    h = lamp.z - plane
    near, far = np.maximum(0.0, bodies.z0 - plane), np.minimum(bodies.z1 - plane, h * (1 - NEAREST))
    there = (far > near) & (h > 0)
    if not there.any():
        return np.array([], dtype=object)
    foot = np.array([lamp.x, lamp.y])
    from_foot = bodies.corners[there] - foot
    ends = [foot + from_foot * (h / (h - d[there]))[:, None, None] for d in (near, far)]
    hulls = shapely.convex_hull(shapely.linestrings(np.concatenate(ends, axis=1)))
    found: npt.NDArray[np.object_] = np.asarray(hulls, dtype=object)
    return found


def lit_share(lamp: Lamp, bodies: Bodies, grid: Grid, plane: float) -> Field:
    """How much of each square of a grid a lamp reaches, 0 to 1, rows × columns."""
    mask = Image.new("L", (grid.columns * FINE, grid.rows * FINE), LIT)
    hulls = shadows(lamp, bodies, plane)
    if len(hulls):
        pen = ImageDraw.Draw(mask)
        points, of = shapely.get_coordinates(hulls, return_index=True)
        bounds = shapely.bounds(hulls)
        middle = (bounds[:, :2] + bounds[:, 2:]) / 2
        half = np.minimum(bounds[:, 2] - bounds[:, 0], bounds[:, 3] - bounds[:, 1]) / 2
        thinner = np.maximum(0.0, 1 - grid.step / FINE / 2 / np.maximum(half, 1e-9))  # the pen is a point wide
        drawn = middle[of] + (points - middle[of]) * thinner[of][:, None]
        corner = np.array([grid.x0, grid.y0]) - grid.step / 2
        pixels = (drawn - corner) / grid.step * FINE - 0.5
        for ring in np.split(pixels, np.flatnonzero(np.diff(of)) + 1):
            pen.polygon(ring.ravel().tolist(), fill=0)
    share: Field = np.asarray(mask.reduce(FINE), dtype=np.float64) / LIT
    return share
