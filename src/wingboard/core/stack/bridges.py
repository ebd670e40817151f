"""The material that is left between two openings of a sheet, and between an opening and its edge."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import shapely
from shapely import LineString
from shapely.geometry.base import BaseGeometry

from wingboard.core.face.rules import bridge_needed
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

Point = tuple[float, float]
SHOWN = 3.0
"""Bridges up to so many times what is needed are shown."""
MOST_SHOWN = 40
SAME = 0.05
"""A bridge that comes as near to a run as this (mm) ends on it."""


class Bridge(NamedTuple):
    """The shortest way (mm) through material from an opening to another, or to the edge of its sheet.

    ``a`` and ``b`` are owner numbers, ``b`` None for the edge; ``gap`` is negative where they run into each other.
    """

    a: int
    b: int | None
    gap: float
    start: Point
    end: Point


def bridges(module: ResolvedModule, layer: Layer, below: float) -> list[Bridge]:
    """Every bridge of a sheet that is narrower than ``below`` mm, the narrowest first; of each pair the narrowest."""
    shapes, area = module.openings(layer.id), module.area_of(layer)
    worst: dict[tuple[int, int | None], Bridge] = {}
    for near in shapes.closer_than(below):
        a, b = int(shapes.owners[near.a]), int(shapes.owners[near.b])
        key = (min(a, b), max(a, b))
        if key not in worst or near.gap < worst[key].gap:
            start, end = _trimmed(shapes, near.a, shapes.cores[near.b], float(shapes.radii[near.b]))
            worst[key] = Bridge(a, b, near.gap, start, end)
    margins = shapes.margins_inside(area)
    for i in np.flatnonzero(margins < below):
        owner = int(shapes.owners[i])
        if (owner, None) not in worst or margins[i] < worst[owner, None].gap:
            start, end = _trimmed(shapes, int(i), area.exterior, 0.0)
            worst[owner, None] = Bridge(owner, None, float(margins[i]), start, end)
    return sorted(worst.values(), key=lambda b: (b.gap, b.a, b.b is None, b.b or 0))


def _trimmed(shapes: ShapeSet, a: int, other: BaseGeometry, radius: float) -> tuple[Point, Point]:
    """The shortest line from one shape to another core, less both radii."""
    way = shapely.shortest_line(shapes.cores[a], other)
    start, end = way.interpolate(float(shapes.radii[a])), way.interpolate(max(0.0, way.length - radius))
    return (start.x, start.y), (end.x, end.y)


def thin_bridges(r: Resolved, module: ResolvedModule, layer: Layer) -> list[Bridge]:
    """The bridges of a sheet that are narrower than its material needs."""
    key = f"thin bridges of {module.module.id}, {layer.id}"
    return r.once(key, lambda: bridges(module, layer, bridge_needed(r.design, layer).value))


def every_thin_bridge(r: Resolved, module: ResolvedModule, layer: Layer) -> list[Bridge]:
    """Every place where a sheet is narrower than its material needs: a slot has two ends, and a part several holes.

    :func:`thin_bridges` has one for each two neighbours; here each run along which they are near has its own.
    """

    def compute() -> list[Bridge]:
        need = bridge_needed(r.design, layer).value
        shapes, area = module.openings(layer.id), module.area_of(layer)
        found = [b for b in thin_bridges(r, module, layer) if b.gap >= 0]
        near: list[tuple[int, int | None]] = [(n.a, n.b) for n in shapes.closer_than(need) if n.gap >= 0]
        margins = shapes.margins_inside(area)
        near += [(int(i), None) for i in np.flatnonzero((margins >= 0) & (margins < need))]
        for a, b in near:
            one = shapes.cores[a].buffer(shapes.radii[a])
            other = area.exterior if b is None else shapes.cores[b].buffer(shapes.radii[b]).exterior
            runs = other.intersection(one.buffer(need))
            merged = shapely.line_merge(runs)
            for run in getattr(merged, "geoms", (merged,)):
                if any(run.distance(LineString([k.start, k.end])) < SAME for k in found):
                    continue  # that run has its bridge
                way = shapely.shortest_line(one, run)
                start, end = shapely.get_coordinates(way).tolist()
                owner = None if b is None else int(shapes.owners[b])
                found.append(Bridge(int(shapes.owners[a]), owner, way.length, tuple(start), tuple(end)))
        return found

    return r.once(f"every thin bridge of {module.module.id}, {layer.id}", compute)


def shown_bridges(r: Resolved, module: ResolvedModule, layer: Layer) -> list[Bridge]:
    """The narrowest bridges of a sheet, for the drawing: at least one where there is any opening."""
    need = bridge_needed(r.design, layer).value
    found = bridges(module, layer, SHOWN * need)
    more = every_thin_bridge(r, module, layer)
    found = sorted({*found, *more}, key=lambda b: b.gap) if more else found
    return (found or bridges(module, layer, 1000.0)[:1])[:MOST_SHOWN]


def solid(r: Resolved, module: ResolvedModule, layer: Layer) -> BaseGeometry:
    """What is left of a sheet when all is cut that goes through: one polygon, or several where pieces fall out."""

    def compute() -> BaseGeometry:
        cuts = [c for c in module.cutouts(layer.id) if c.depth is None]
        if not cuts:
            return module.area_of(layer)
        gone = [c.shape.rounded().turned(c.turn).moved(c.x, c.y) for c in cuts]
        return module.area_of(layer).difference(shapely.unary_union([g.core.buffer(g.radius) for g in gone]))

    return r.once(f"solid of {module.module.id}, {layer.id}", compute)
