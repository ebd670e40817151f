"""Where the light on a face is uneven whatever is written there: hot spots before lamps, dark rings round bodies."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import shapely

from wingboard.core.geometry.rounded import polygon
from wingboard.core.light.emission import Field
from wingboard.core.light.figures import UNREADABLE, Night
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import seated

HOT = 2.0
"""A spot so many times as bright as the usual legend is seen as a spot (common practice)."""
APART = 25.0
"""Two spots nearer to each other than this (mm) count as one."""
MOST_SPOTS = 12
ROUND = (3.0, 7.0)
"""A ring is looked at so far (mm) from a body: where its legends usually stand."""
BEYOND = (16.0, 22.0)
"""… and compared with what is so far from it: where that is dark too, it is not the body that keeps the light."""
POINTS = 48
SOME = 0.25
"""A ring is dark when this share of it is."""


class HotSpot(NamedTuple):
    """The brightest point of a patch (mm), and how many times the usual legend's light it has."""

    x: float
    y: float
    times: float


class DarkRing(NamedTuple):
    """A part with darkness round its body: its middle (mm), the share of the ring that is dark, and the least light
    there as a share of what there is beyond."""

    function: str
    name: str
    x: float
    y: float
    dark: float
    least: float


def hot_spots(night: Night, module: ResolvedModule) -> tuple[HotSpot, ...]:
    """The spots on a module's plate that are seen as such, the brightest first."""
    usual = night.usual
    if usual <= 0:
        return ()
    grid = night.map.grid
    x, y = np.meshgrid(grid.xs, grid.ys)
    left = np.where(shapely.contains_xy(module.area, x, y), night.map.field / usual, 0.0)
    found: list[HotSpot] = []
    while len(found) < MOST_SPOTS:
        at = np.unravel_index(int(left.argmax()), left.shape)
        times = float(left[at])
        if times < HOT:
            break
        spot = HotSpot(float(x[at]), float(y[at]), times)
        found.append(spot)
        left[np.hypot(x - spot.x, y - spot.y) < APART] = 0.0
    return tuple(found)


def dark_rings(night: Night, module: ResolvedModule) -> tuple[DarkRing, ...]:
    """The parts whose bodies keep the light from what is round them, the darkest first."""
    usual = night.usual
    if usual <= 0:
        return ()
    found = []
    for p in module.placed:
        solid = [s for s in seated(p.part, p.stack, p.function.pocket) if s.kind not in ("front", "plug")]
        outlines = [p.frame.shape(s.outline()).drawn() for s in solid if s.z1 > module.thickness]
        if not outlines:
            continue
        body = polygon(shapely.union_all(outlines).convex_hull)
        ring, outer = (_round(night, module, body, away) for away in (ROUND, BEYOND))
        if len(ring) == 0 or len(outer) == 0 or outer.mean() < UNREADABLE * usual:
            continue
        light = ring / outer.mean()
        dark = float((light < UNREADABLE).mean())
        if dark >= SOME:
            found.append(DarkRing(p.function.id, p.function.name, p.place.x, p.place.y, dark, float(light.min())))
    return tuple(sorted(found, key=lambda ring: -ring.dark))


def _round(night: Night, module: ResolvedModule, body: shapely.Polygon, ways: tuple[float, float]) -> Field:
    """The light (cd/m²) on a plate at points so far from a body."""
    rings = [
        ring.interpolate((np.arange(POINTS) + 0.5) / POINTS, normalized=True)
        for ring in (body.buffer(away).exterior for away in ways)
    ]
    points = shapely.get_coordinates(np.concatenate(rings))
    return night.map.at(points[shapely.contains_xy(module.area, points)])
