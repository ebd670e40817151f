"""Solids as a picture, seen from above: shaded by how they face the light, clear where there is nothing."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence

import numpy as np
import numpy.typing as npt
from PIL import Image

from wingboard.core.stack.shell import Solid

Points = npt.NDArray[np.float64]

TURN, TILT = math.radians(-35.0), math.radians(55.0)
SUN = np.array([0.3, 0.4, 0.86])
APART = 26.0
"""Pieces are drawn so far (mm) from where they stand in the whole, for each that comes before."""
SHADES = (0.36, 0.72)
"""How bright a face is that is turned away from the light, and how much more one that faces it."""
PALE = (200.0, 206.0, 210.0)
"""Dark stuff is drawn in this, so that its edges are seen."""


def portrait(solids: Sequence[Solid], width: int = 1100, height: int = 760) -> bytes:
    """A PNG of solids, each a little away from the one before."""
    corners = np.concatenate(
        [
            np.asarray(s.points, dtype=np.float64)[np.asarray(s.triangles)] + (n * APART, 0.0, 0.0)
            for n, s in enumerate(solids)
        ]
    )
    seen = corners @ _view().T
    normals = np.cross(seen[:, 1] - seen[:, 0], seen[:, 2] - seen[:, 0])
    length = np.linalg.norm(normals, axis=1)
    front = (length > 1e-9) & (normals[:, 2] > 0)
    seen, normals = seen[front], normals[front] / length[front, None]
    low, high = seen[:, :, :2].min(axis=(0, 1)), seen[:, :, :2].max(axis=(0, 1))
    scale = min((width - 20) / (high[0] - low[0]), (height - 20) / (high[1] - low[1]))
    at = (np.array([width, height]) - (high - low) * scale) / 2
    flat = np.empty_like(seen)
    flat[:, :, 0] = (seen[:, :, 0] - low[0]) * scale + at[0]
    flat[:, :, 1] = height - at[1] - (seen[:, :, 1] - low[1]) * scale
    flat[:, :, 2] = seen[:, :, 2]
    shade = SHADES[0] + SHADES[1] * np.clip(normals @ SUN, 0.0, 1.0)
    return _drawn(flat, shade, width, height)


def _view() -> Points:
    c, s, e, f = math.cos(TURN), math.sin(TURN), math.cos(-TILT), math.sin(-TILT)
    tilted: Points = np.array([[1, 0, 0], [0, e, -f], [0, f, e]], dtype=np.float64)
    turned: Points = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]], dtype=np.float64)
    return np.asarray(tilted @ turned, dtype=np.float64)


def _drawn(flat: Points, shade: Points, width: int, height: int) -> bytes:
    """The nearest triangle at each point of the picture, by its depth there."""
    depth = np.full((height, width), -np.inf)
    image = np.zeros((height, width, 4), dtype=np.uint8)
    colours = np.clip(shade[:, None] * PALE, 0, 255).astype(np.uint8)
    for corner, colour in zip(flat, colours, strict=True):
        x, y, z = corner.T
        x0, x1 = max(0, int(x.min())), min(width - 1, int(x.max()) + 1)
        y0, y1 = max(0, int(y.min())), min(height - 1, int(y.max()) + 1)
        area = (y[1] - y[2]) * (x[0] - x[2]) + (x[2] - x[1]) * (y[0] - y[2])
        if x1 < x0 or y1 < y0 or abs(area) < 1e-9:
            continue
        across, down = np.arange(x0, x1 + 1)[None, :], np.arange(y0, y1 + 1)[:, None]
        a = ((y[1] - y[2]) * (across - x[2]) + (x[2] - x[1]) * (down - y[2])) / area
        b = ((y[2] - y[0]) * (across - x[2]) + (x[0] - x[2]) * (down - y[2])) / area
        near = a * z[0] + b * z[1] + (1 - a - b) * z[2]
        there = depth[y0 : y1 + 1, x0 : x1 + 1]
        wins = (a >= -1e-3) & (b >= -1e-3) & (a + b <= 1 + 1e-3) & (near > there)
        there[wins] = near[wins]
        image[y0 : y1 + 1, x0 : x1 + 1][wins] = (*colour, 255)
    made = io.BytesIO()
    Image.fromarray(image).save(made, "PNG")
    return made.getvalue()
