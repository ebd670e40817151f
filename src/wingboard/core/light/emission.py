"""What lamps throw on a plane before them: inverse square, and the law of a flat emitter.

A lamp of axial intensity I₀ sends I₀·cosᵐθ in a direction θ off its axis; m = 1 is Lambert's law. On a plane at a
distance h across its axis, d mm aside, E = I₀·cosᵐ⁺¹θ / r², r² = h² + d², cos θ = h / r. Where its axis leans, the m-th
power is of the angle off the axis and the last cosine that of the plane.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

Field = npt.NDArray[np.float64]


class Lamp(NamedTuple):
    """A single lamp: where (mm, module's coordinates), how deep behind the front, axial intensity (cd), exponent m.

    ``aside`` is what its axis has of x and y, as a unit vector; the rest of it points to the front.
    """

    x: float
    y: float
    z: float
    intensity: float
    exponent: float = 1.0
    aside: tuple[float, float] = (0.0, 0.0)

    @property
    def flux(self) -> float:
        """All it gives off to its front (lm): ∫ I₀ cosᵐθ dΩ = 2π I₀ / (m + 1)."""
        return 2 * math.pi * self.intensity / (self.exponent + 1)


class Grid(NamedTuple):
    """The points of a plane that are looked at (mm): from (x0, y0), so many each way, one every ``step``."""

    x0: float
    y0: float
    columns: int
    rows: int
    step: float

    @property
    def xs(self) -> Field:
        """x of the columns."""
        return np.asarray(self.x0 + self.step * np.arange(self.columns), dtype=np.float64)

    @property
    def ys(self) -> Field:
        """y of the rows, upwards."""
        return np.asarray(self.y0 + self.step * np.arange(self.rows), dtype=np.float64)


REACH = 12.0
"""A lamp is followed so many of its heights to each side: beyond lies less than a hundredth of its light."""


def window(grid: Grid, x: float, y: float, reach: float) -> tuple[Grid, slice, slice]:
    """The part of a grid within so much (mm) of a point, and its rows and columns in the whole."""
    i0 = min(grid.columns, max(0, math.ceil((x - reach - grid.x0) / grid.step)))
    i1 = max(i0, min(grid.columns, math.floor((x + reach - grid.x0) / grid.step) + 1))
    j0 = min(grid.rows, max(0, math.ceil((y - reach - grid.y0) / grid.step)))
    j1 = max(j0, min(grid.rows, math.floor((y + reach - grid.y0) / grid.step) + 1))
    part = Grid(grid.x0 + i0 * grid.step, grid.y0 + j0 * grid.step, i1 - i0, j1 - j0, grid.step)
    return part, slice(j0, j1), slice(i0, i1)


def grid_over(x0: float, y0: float, x1: float, y1: float, step: float) -> Grid:
    """A grid over a rectangle, its points in the middles of squares of ``step`` mm."""
    columns, rows = max(1, math.ceil((x1 - x0) / step)), max(1, math.ceil((y1 - y0) / step))
    return Grid(x0 + step / 2, y0 + step / 2, columns, rows, step)


def exponent_of(half_angle: float) -> float:
    """m of a lamp whose intensity has fallen to a half at so many degrees off its axis: ln ½ / ln cos θ½.

    :raises ValueError: the angle is not between 0 and 90.
    """
    if not 0 < half_angle < 90:
        raise ValueError("a half angle lies between 0 and 90 degrees")
    return math.log(0.5) / math.log(math.cos(math.radians(half_angle)))


def irradiance(lamp: Lamp, grid: Grid, plane: float) -> Field:
    """Illuminance (lx) of a plane at a depth (mm) before a lamp, rows × columns; none on a plane behind it."""
    h = lamp.z - plane
    if h <= 0:
        return np.zeros((grid.rows, grid.columns))
    dx, dy = grid.xs[None, :] - lamp.x, grid.ys[:, None] - lamp.y
    square = h * h + dx**2 + dy**2
    far = np.sqrt(square)
    ax, ay = lamp.aside
    along = h / far if (ax, ay) == (0.0, 0.0) else _along(dx, dy, h, (ax, ay)) / far
    made: Field = lamp.intensity * along**lamp.exponent * (h / far) / square * 1e6
    return made


def _along(dx: Field, dy: Field, h: float, aside: tuple[float, float]) -> Field:
    """How far points lie along a lamp's axis (mm), none where they lie behind it."""
    forward = math.sqrt(max(0.0, 1 - aside[0] ** 2 - aside[1] ** 2))
    ahead: Field = np.maximum(0.0, dx * aside[0] + dy * aside[1] + h * forward)
    return ahead


def strip(
    start: tuple[float, float], end: tuple[float, float], z: float, pitch: float, one: Lamp, group: int = 1
) -> Sequence[Lamp]:
    """The lamps of a strip laid from one point towards another, the first half a pitch from its end.

    :param one: what each of them gives; its place is not looked at.
    :param group: LEDs from one cut mark to the next: only whole groups are laid.
    """
    length = math.dist(start, end)
    many = int(length / (pitch * group) + 1e-9) * group
    shares = [(n + 0.5) * pitch / length for n in range(many)]
    places = [(start[0] + s * (end[0] - start[0]), start[1] + s * (end[1] - start[1])) for s in shares]
    return tuple(one._replace(x=x, y=y, z=z) for x, y in places)
