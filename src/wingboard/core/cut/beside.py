"""Lines beside a line: where the middle of a tool or a beam goes so that its edge makes the drawn one. Lengths in mm.

Arcs stay arcs wherever the outline allows it; where an edge vanishes, the line is of straight pieces.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import lru_cache
from itertools import starmap

import numpy as np
import shapely
from shapely import MultiPolygon, Polygon
from shapely.geometry.base import BaseGeometry

from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.offset import inset
from wingboard.core.geometry.outline import Loop, Vertex, area_of, flattened

CLOSE = 0.004
"""How far (mm) a simplified line may stand off what it was simplified from."""
FINE = 0.01
"""So may one that engraves."""
SAME = 0.001
"""Two shapes whose corners lie as near (mm) as this are engraved alike."""
ROUND = 16
"""Pieces of a quarter of a circle, round corners that stay."""
AGREES = 0.01
"""An offset whose arcs are kept lies no further (mm) from the one made of straight pieces."""


def inside(path: CirclePath | Loop, by: float) -> list[CirclePath | Loop]:
    """The lines ``by`` mm inside a closed path; none where it is too narrow, several where it is pinched."""
    if by <= 0:
        return [path]
    if isinstance(path, CirclePath):
        return [path._replace(diameter=path.diameter - 2 * by)] if path.diameter > 2 * by + CLOSE else []
    area = area_of(path)
    wanted = polygons(area.buffer(-by, quad_segs=ROUND))
    if len(wanted) == 1 and not wanted[0].interiors:
        kept = _with_arcs(path, by, wanted[0])
        if kept is not None:
            return [kept]
    return [loop_of(p.exterior) for p in wanted]


def beside(path: CirclePath | Loop, by: float) -> list[CirclePath | Loop]:
    """The lines ``by`` mm inside a closed path, outside where that is less than nothing."""
    return inside(path, by) if by >= 0 else [outside(path, -by)]


def outside(path: CirclePath | Loop, by: float) -> CirclePath | Loop:
    """The line ``by`` mm outside a closed path."""
    if by <= 0:
        return path
    if isinstance(path, CirclePath):
        return path._replace(diameter=path.diameter + 2 * by)
    area = area_of(path)
    kept = _with_arcs(path, -by, polygons(area.buffer(by, join_style="mitre"))[0])
    return kept or loop_of(polygons(area.buffer(by, quad_segs=ROUND))[0].exterior)


def _with_arcs(path: Loop, by: float, wanted: Polygon) -> Loop | None:
    """The line beside with its arcs, where it agrees with the one of straight pieces."""
    if all(v.bulge == 0 for v in path):
        return None
    try:
        made = inset(path, by)
    except ValueError:
        return None
    area = Polygon(flattened(made))
    if not area.is_valid or area.is_empty:
        return None
    return made if area.exterior.hausdorff_distance(wanted.exterior) < AGREES else None


def polygons(geometry: BaseGeometry) -> list[Polygon]:
    """The polygons that a geometry is made of, those of no area left out."""
    parts: Iterable[BaseGeometry] = getattr(geometry, "geoms", (geometry,))
    return [p for p in parts if isinstance(p, Polygon) and p.area > 1e-6]


def loop_of(ring: shapely.LinearRing, close: float = CLOSE) -> Loop:
    """A ring as a counter-clockwise loop of straight pieces."""
    coords = shapely.get_coordinates(shapely.simplify(ring, close))[:-1]
    if not shapely.is_ccw(ring):
        coords = coords[::-1]
    return tuple(starmap(Vertex, coords.tolist()))


def disc(circle: CirclePath) -> Polygon:
    """A circle as a polygon within :data:`~wingboard.core.geometry.outline.SAG` of it."""
    half = circle.diameter / 2
    return area_of((Vertex(circle.x - half, circle.y, 1.0), Vertex(circle.x + half, circle.y, 1.0)))


def region_of(items: Sequence[Item]) -> BaseGeometry:
    """What closed paths cover: those that run counter-clockwise, less those that run clockwise (letters' counters)."""
    solid: list[BaseGeometry] = []
    holes: list[BaseGeometry] = []
    for item in items:
        if item.open:
            continue
        if isinstance(item.path, CirclePath):
            solid.append(disc(item.path))
            continue
        points = flattened(item.path)
        if len(points) < 3:
            continue
        area = Polygon(points)
        (solid if area.exterior.is_ccw else holes).append(area if area.is_valid else area.buffer(0))
    whole = shapely.union_all(solid)
    return whole.difference(shapely.union_all(holes)) if holes else whole


def across(shape: BaseGeometry) -> float:
    """How wide a shape is where it is narrowest (mm): the shorter side of the least rectangle round it."""
    around = shapely.minimum_rotated_rectangle(shape)
    if not isinstance(around, Polygon):
        return 0.0
    corners = shapely.get_coordinates(around.exterior)
    sides = np.hypot(*np.diff(corners[:3], axis=0).T)
    return float(sides.min())


def filled(region: BaseGeometry, width: float, overlap: float = 0.1) -> list[Loop]:
    """Lines along which a tool so wide (mm) covers a region, from its edge inwards, each overlapping the one before.

    The same letter at the same size has the same lines wherever it stands, within :data:`SAME`.
    """
    lines: list[Loop] = []
    for part in polygons(region):
        x, y, _, _ = part.bounds
        rings = tuple(
            np.rint((shapely.get_coordinates(ring) - (x, y)) / SAME).astype(np.int32).tobytes()
            for ring in (part.exterior, *part.interiors)
        )
        for line in _filled(rings, width, overlap):
            lines.append(tuple([Vertex(x + dx, y + dy) for dx, dy in line]))
    return lines


@lru_cache(maxsize=2000)
def _filled(rings: tuple[bytes, ...], width: float, overlap: float) -> tuple[tuple[tuple[float, float], ...], ...]:
    """The lines that cover one shape, its corners from its lower left in :data:`SAME`."""
    shell, *holes = (np.frombuffer(ring, np.int32).reshape(-1, 2) * SAME for ring in rings)
    whole: BaseGeometry = Polygon(shell, holes)
    if not whole.is_valid:
        whole = whole.buffer(0)
    lines: list[Loop] = []
    step = width * (1 - overlap)
    left = polygons(whole.buffer(-width / 2, quad_segs=4))
    while left:
        following: list[Polygon] = []
        for part in left:
            lines += [loop_of(ring, FINE) for ring in (part.exterior, *part.interiors) if ring.length > width / 4]
            inner = polygons(part.buffer(-step, quad_segs=4))
            # What the next way round would not cover: where it is too narrow for a whole step.
            bare: BaseGeometry = part.buffer(-width / 2, quad_segs=4)
            if inner and not bare.is_empty:
                bare = bare.difference(shapely.union_all(inner).buffer(width / 2, quad_segs=4))
            lines += [
                loop_of(ring, FINE)
                for core in polygons(bare)
                if core.area > width * width / 100
                for ring in (core.exterior, *core.interiors)
            ]
            following += inner
        left = following
    return tuple(tuple((v.x, v.y) for v in line) for line in lines if len(line) > 2)


def forget_fillings() -> None:
    """Fill anew what is engraved next: for measuring."""
    _filled.cache_clear()


def pieces(region: BaseGeometry) -> MultiPolygon:
    """A region as several polygons."""
    return MultiPolygon(polygons(region))
