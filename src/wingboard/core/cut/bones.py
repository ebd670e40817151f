"""Corners that a round cutter leaves round, and the little excursions into them that let a square part seat. In mm.

In a corner of half-angle h a cutter of radius r stays r (1 / sin h − 1) away: 0.41 r in a square one. Going on along
the bisector until it touches the corner, it cuts up to r (1 − sin h) beyond both edges: 0.29 r.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import shapely
from shapely import Point
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import polygons
from wingboard.core.files.scene import CirclePath
from wingboard.core.geometry.outline import Loop, Vertex, area_of

SHARP = math.radians(150)
"""A corner that turns less than 30° is none."""
SEEN = 0.1
"""A corner that stays round by less (mm) is not spoken of."""


class Bone(NamedTuple):
    """A corner of an opening, and where the middle of the cutter has to come to touch it (mm)."""

    x: float
    y: float
    cx: float
    cy: float


def bones(path: CirclePath | Loop, radius: float) -> tuple[Bone, ...]:
    """The corners of an opening that a cutter does not reach, between straight edges that are long enough for it.

    :param path: counter-clockwise, as openings are. :param radius: of the cutter.
    """
    if isinstance(path, CirclePath) or len(path) < 3:
        return ()
    found = []
    for n, here in enumerate(path):
        before, after = path[n - 1], path[(n + 1) % len(path)]
        if before.bulge or here.bulge:
            continue
        ax, ay, bx, by = before.x - here.x, before.y - here.y, after.x - here.x, after.y - here.y
        a, b = math.hypot(ax, ay), math.hypot(bx, by)
        if min(a, b) < 2 * radius or ay * bx - ax * by <= 0:  # a corner that looks into the opening has nothing left
            continue
        ux, uy = ax / a + bx / b, ay / a + by / b
        long = math.hypot(ux, uy)
        angle = math.acos(max(-1.0, min(1.0, (ax * bx + ay * by) / (a * b))))
        if angle > SHARP or long < 1e-9 or radius * (1 / math.sin(angle / 2) - 1) < SEEN:
            continue
        found.append(Bone(here.x, here.y, here.x + ux / long * radius, here.y + uy / long * radius))
    return tuple(found)


def with_bones(line: CirclePath | Loop, found: tuple[Bone, ...], radius: float) -> CirclePath | Loop:
    """The way of the cutter's middle with an excursion into each corner, from where it comes nearest to it."""
    if isinstance(line, CirclePath) or not found:
        return line
    made: list[Vertex] = []
    for v in line:
        made.append(v)
        near = [b for b in found if math.hypot(v.x - b.cx, v.y - b.cy) < radius]
        if near and not v.bulge:
            bone = min(near, key=lambda b: math.hypot(v.x - b.cx, v.y - b.cy))
            made += [Vertex(bone.cx, bone.cy), v]
    return tuple(made)


def cut_beyond(path: CirclePath | Loop, radius: float) -> BaseGeometry:
    """What excursions into an opening's corners take beyond it."""
    discs = [Point(b.cx, b.cy).buffer(radius + 0.01, quad_segs=32) for b in bones(path, radius)]
    return shapely.union_all(discs)


def left_round(path: CirclePath | Loop, radius: float) -> list[shapely.Polygon]:
    """What of an opening a cutter leaves standing in its corners."""
    if isinstance(path, CirclePath):
        return []
    area = area_of(path)
    reached = area.buffer(-radius, quad_segs=16).buffer(radius, quad_segs=16)
    return [p for p in polygons(area.difference(reached)) if p.area > 0.02]
