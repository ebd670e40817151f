"""What stands between a lamp and the diffuser, and the shadow that it throws: similar triangles.

A point that lies d mm behind the diffuser, on a ray from a lamp h mm behind it, is seen at the lamp's foot plus its own
distance from there times h / (h − d). A convex body between two depths throws the hull of its two ends' shadows.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import shapely
from PIL import Image, ImageDraw

from wingboard.core.light.emission import Field, Grid, Lamp

NEAREST = 0.02
"""A body is taken to end so much of the way before the lamp, where its shadow would be without end."""
FINE = 4
"""The mask is drawn so many times finer than the grid, so that a shadow's edge is within an eighth of a step."""


class Body(NamedTuple):
    """Something that light does not pass, between two depths behind the front (mm), in the module's coordinates."""

    outline: shapely.Polygon
    z0: float
    z1: float


def shadow(lamp: Lamp, body: Body, plane: float) -> shapely.Polygon | None:
    """The shadow of a body on a plane at a depth; None where it does not stand between the two."""
    h = lamp.z - plane
    near, far = max(0.0, body.z0 - plane), min(body.z1 - plane, h * (1 - NEAREST))
    if h <= 0 or far <= near:
        return None
    foot = np.array([lamp.x, lamp.y])
    ends = [
        shapely.transform(body.outline, lambda p, s=h / (h - d): foot + (p - foot) * s)  # type: ignore[misc]
        for d in (near, far)
    ]
    hull = shapely.convex_hull(shapely.union_all(ends))
    return hull if isinstance(hull, shapely.Polygon) else None


def lit_share(lamp: Lamp, bodies: Sequence[Body], grid: Grid, plane: float) -> Field:
    """How much of each square of a grid a lamp reaches, 0 to 1, rows × columns."""
    size = (grid.columns * FINE, grid.rows * FINE)
    mask = Image.new("L", size, 1)
    pen = ImageDraw.Draw(mask)
    x0, y0 = grid.x0 - grid.step / 2, grid.y0 - grid.step / 2
    for body in bodies:
        found = shadow(lamp, body, plane)
        inner = found.buffer(-grid.step / FINE / 2) if found is not None else None  # the pen is a point wide
        if isinstance(inner, shapely.Polygon) and not inner.is_empty:
            points = (np.asarray(inner.exterior.coords) - (x0, y0)) / grid.step * FINE - 0.5
            pen.polygon([(float(x), float(y)) for x, y in points.tolist()], fill=0)
    drawn = np.asarray(mask, dtype=np.float64)
    share: Field = drawn.reshape(grid.rows, FINE, grid.columns, FINE).mean(axis=(1, 3))
    return share
