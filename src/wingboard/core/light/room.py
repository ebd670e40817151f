"""Where strips and LEDs may lie behind a plate, and what light they would throw on points of it."""

from __future__ import annotations

import math

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.light.emission import REACH, Field, Lamp
from wingboard.core.light.scene import Scene
from wingboard.core.light.shadows import shadows
from wingboard.core.resolved.module import ResolvedModule

EDGE = 4.0
"""Strips and LEDs keep so far inside the plate's edge (mm)."""
HIGH = 3.0
"""LEDs and strips stand so high on their board (mm)."""


def taken_at(scene: Scene, depth: float) -> BaseGeometry:
    """What solid bodies take of the plane that lamps lie in, a strip's height before it included."""
    b = scene.solid
    there = [n for n in range(len(b.z0)) if b.z0[n] < depth and b.z1[n] > depth - HIGH]
    found: BaseGeometry = (
        shapely.union_all(shapely.convex_hull(shapely.linestrings(b.corners[there]))) if there else shapely.Polygon()
    )
    return found


def free_for(module: ResolvedModule, scene: Scene, depth: float, wide: float) -> BaseGeometry:
    """Where the middle of something so wide (mm) may lie among the bodies, inside the plate."""
    inside = module.area.buffer(-EDGE - wide / 2)
    screws = shapely.union_all([shapely.Point(f.x, f.y).buffer(f.hole / 2 + 1) for f in module.fixings])
    return inside.difference(taken_at(scene, depth).buffer(wide / 2 + 0.5)).difference(screws.buffer(wide / 2))


def at_points(lamps: tuple[Lamp, ...], scene: Scene, points: Field) -> Field:
    """Illuminance (lx) that lamps throw on points of the plate, less the bodies' shadows."""
    total = np.zeros(len(points))
    for lamp in lamps:
        plane = scene.way.plane_of(lamp.z)
        h = lamp.z - plane
        dx, dy = points[:, 0] - lamp.x, points[:, 1] - lamp.y
        near = np.flatnonzero(np.maximum(np.abs(dx), np.abs(dy)) < REACH * h)
        if not len(near):
            continue
        dx, dy = dx[near], dy[near]
        square = h * h + dx**2 + dy**2
        far = np.sqrt(square)
        forward = math.sqrt(max(0.0, 1 - lamp.aside[0] ** 2 - lamp.aside[1] ** 2))
        along = np.maximum(0.0, dx * lamp.aside[0] + dy * lamp.aside[1] + h * forward) / far
        lit = lamp.intensity * along**lamp.exponent * (h / far) / square * 1e6
        hulls = shadows(lamp, scene.bodies.near(lamp.x, lamp.y, REACH * h), plane)
        if len(hulls):
            found = shapely.STRtree(hulls).query(shapely.points(points[near]), predicate="intersects")
            lit[np.unique(found[0])] = 0.0
        total[near] += lit
    return total
