"""The luminance of a lit module over its face: every lamp's own share, what the walls throw back, what the sheets do.

Each lamp's share is kept, so that only what changed is computed anew: a lamp that moved, or all of them when a body
did.
"""

from __future__ import annotations

import hashlib
import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from wingboard.core.light.diffuser import luminance, reflected, spread
from wingboard.core.light.emission import REACH, Field, Grid, Lamp, irradiance, window
from wingboard.core.light.scene import Scene
from wingboard.core.light.shadows import lit_share

FAR = 1e7
"""From a lamp so far behind (mm), a shadow is as large as its body."""
FOOT = 8.0
"""Bodies that begin no further behind the plate than this (mm) keep the room's light from it."""
KEPT_BYTES = 200_000_000
"""Shares of lamps that are kept, all together."""
Report = Callable[[float], object]
"""Told how much of a map is done, 0 to 1; raises to stop it."""


class Map(NamedTuple):
    """Luminance (cd/m²) at the points of a grid, rows (upwards) × columns, were every point of the face open.

    ``flux`` is what all lamps give (lm), ``arrived`` what of it meets the plate directly, ``thrown`` the mean
    illuminance that the walls add (lx).
    """

    grid: Grid
    field: Field
    flux: float
    arrived: float
    thrown: float

    def at(self, points: Field) -> Field:
        """Luminance at points (n × 2, mm), between the four nearest of the grid."""
        g = self.grid
        u = np.clip((points[:, 0] - g.x0) / g.step, 0, g.columns - 1)
        v = np.clip((points[:, 1] - g.y0) / g.step, 0, g.rows - 1)
        i, j = np.minimum(u.astype(int), max(0, g.columns - 2)), np.minimum(v.astype(int), max(0, g.rows - 2))
        i2, j2 = np.minimum(i + 1, g.columns - 1), np.minimum(j + 1, g.rows - 1)
        a, b = u - i, v - j
        f = self.field
        made: Field = (f[j, i] * (1 - a) + f[j, i2] * a) * (1 - b) + (f[j2, i] * (1 - a) + f[j2, i2] * a) * b
        return made


class Share(NamedTuple):
    """What one lamp throws on some rows and columns of a grid (lx)."""

    rows: slice
    columns: slice
    field: Field


class Shares:
    """What single lamps throw on a plate, kept by lamp and by what stands before it. Safe from several threads."""

    def __init__(self, most: int = KEPT_BYTES) -> None:
        """:param most: bytes that are kept."""
        self._most, self._bytes = most, 0
        self._lock = threading.Lock()
        self._kept: OrderedDict[tuple[bytes, Lamp], Share] = OrderedDict()

    def of(self, lamp: Lamp, scene: Scene, key: bytes) -> Share:
        """Illuminance (lx) of the plate by one lamp, with its shadows."""
        with self._lock:
            known = self._kept.get((key, lamp))
            if known is not None:
                self._kept.move_to_end((key, lamp))
                return known
        made = self._made(lamp, scene)
        with self._lock:
            if (key, lamp) not in self._kept:
                self._kept[key, lamp] = made
                self._bytes += made.field.nbytes
            while self._bytes > self._most and len(self._kept) > 1:
                self._bytes -= self._kept.popitem(last=False)[1].field.nbytes
        return made

    def _made(self, lamp: Lamp, scene: Scene) -> Share:
        plane = scene.way.plane_of(lamp.z)
        reach = REACH * max(1.0, lamp.z - plane)
        grid, rows, columns = window(scene.grid, lamp.x, lamp.y, reach)
        if grid.rows == 0 or grid.columns == 0 or lamp.z <= plane:
            return Share(rows, columns, np.zeros((grid.rows, grid.columns)))
        bodies = scene.bodies.near(lamp.x, lamp.y, reach)
        return Share(rows, columns, irradiance(lamp, grid, plane) * lit_share(lamp, bodies, grid, plane))


SHARES = Shares()
"""Of this process."""


def _open(scene: Scene) -> Field:
    """How much of the room behind each point sees: less beside a body on the plate, next to nothing before one.

    The body's foot, softened over its distance from what spreads the light.
    """
    plane = scene.way.plane
    near = scene.bodies.z0 < plane + FOOT
    if not near.any():
        return np.ones((scene.grid.rows, scene.grid.columns))
    seen = lit_share(Lamp(0, 0, FAR, 1.0), scene.bodies.only(near), scene.grid, plane)
    apart = float(np.maximum(0.0, scene.bodies.z0[near] - plane).mean())
    made: Field = 1 - spread(1 - seen, scene.grid.step, 2 * apart)
    return made


def map_of(scene: Scene, report: Report | None = None, shares: Shares = SHARES) -> Map:
    """The luminance map of a lit module."""
    key = hashlib.sha256(scene.bodies.key + repr((scene.grid, scene.way.plane, scene.way.clear)).encode()).digest()
    direct = np.zeros((scene.grid.rows, scene.grid.columns))
    lamps = [lamp for group in scene.groups for lamp in group.lamps]
    for n, lamp in enumerate(lamps):
        if report is not None:
            report(n / len(lamps))
        share = shares.of(lamp, scene, key)
        direct[share.rows, share.columns] += share.field
    flux = sum(lamp.flux for lamp in lamps)
    arrived = float(direct.sum()) * (scene.grid.step / 1000) ** 2
    thrown = reflected(flux - arrived, scene.inside, scene.white, scene.mean)
    way = scene.way
    field = spread(direct + thrown * _open(scene), scene.grid.step, way.spreads)
    return Map(scene.grid, luminance(field, way.transmission if way.lit else 0.0), flux, arrived, thrown)
