"""Corners that a round cutter leaves round, and the little excursions into them that let a square part seat. In mm.

In a corner of half-angle h a cutter of radius r stays r (1 / sin h − 1) away: 0.41 r in a square one. Going on along
the bisector until it touches the corner, it cuts up to r (1 − sin h) beyond both edges: 0.29 r.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import shapely
from shapely import Point
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import polygons
from wingboard.core.files.scene import CirclePath
from wingboard.core.geometry.outline import Loop, Vertex, area_of

SHARP = math.radians(150)
"""A corner that turns less than 30° is none."""
LEAST = 0.02
"""A corner that keeps less than this (mm²) is as good as reached."""
SEEN = 0.1
"""A corner that stays round by less (mm) is not spoken of."""


class Bone(NamedTuple):
    """The furthest place of a corner, and where the middle of the cutter has to come to touch it (mm)."""

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
    for before, start, end, after in _corners(path):
        ax, ay, bx, by = before.x - start.x, before.y - start.y, after.x - end.x, after.y - end.y
        a, b = math.hypot(ax, ay), math.hypot(bx, by)
        if min(a, b) < 2 * radius or ay * bx - ax * by <= 0:  # a corner that looks into the opening has nothing left
            continue
        angle = math.acos(max(-1.0, min(1.0, (ax * bx + ay * by) / (a * b))))
        half = math.sin(angle / 2)
        ux, uy = ax / a + bx / b, ay / a + by / b
        long = math.hypot(ux, uy)
        if angle > SHARP or long < 1e-9:
            continue
        # Both edges are tangents of the corner's own rounding: its apex, its radius.
        chord = math.dist((start.x, start.y), (end.x, end.y))
        apex = chord / (2 * half)  # from the apex to where the rounding begins
        own = apex * math.tan(angle / 2)
        if (radius - own) * (1 / half - 1) < SEEN:
            continue
        px, py = start.x - ax / a * apex, start.y - ay / a * apex
        away = own * (1 / half - 1) + radius
        tip = own * (1 / half - 1)
        found.append(
            Bone(px + ux / long * tip, py + uy / long * tip, px + ux / long * away, py + uy / long * away)
        )  # fmt: skip
    return tuple(found)


def _corners(path: Loop) -> Iterator[tuple[Vertex, Vertex, Vertex, Vertex]]:
    """Sharp corners, and roundings between straight edges: the vertex before, both ends of it, the one after."""
    many = len(path)
    for n, here in enumerate(path):
        before, after = path[n - 1], path[(n + 1) % many]
        if before.bulge:
            continue
        if not here.bulge:
            yield before, here, here, after
        elif not after.bulge and here.bulge > 0:
            yield before, here, after, path[(n + 2) % many]


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


def left_round(path: CirclePath | Loop, radius: float, gone_into: bool = False) -> list[shapely.Polygon]:
    """What of an opening a cutter leaves standing in its corners; ``gone_into``: but in those that it goes into."""
    if isinstance(path, CirclePath):
        return []
    area = area_of(path)
    reached: BaseGeometry = area.buffer(-radius, quad_segs=16).buffer(radius, quad_segs=16)
    if gone_into:
        reached = reached.union(cut_beyond(path, radius))
    return [p for p in polygons(area.difference(reached)) if p.area > LEAST]
