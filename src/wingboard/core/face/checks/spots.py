"""Where on a module a finding points to."""

from __future__ import annotations

import shapely

from wingboard.core.findings.finding import Spot
from wingboard.core.geometry.shapeset import Near, ShapeSet
from wingboard.core.resolved.design import ResolvedModule


def between(module: ResolvedModule, shapes: ShapeSet, near: Near) -> Spot:
    """The middle of the shortest way between two shapes' cores."""
    way = shapely.shortest_line(shapes.cores[near.a], shapes.cores[near.b])
    middle = way.interpolate(0.5, normalized=True)
    return Spot(module=module.module.id, x=round(middle.x, 2), y=round(middle.y, 2))


def at(module: ResolvedModule, x: float, y: float) -> Spot:
    """A point of a module."""
    return Spot(module=module.module.id, x=round(x, 2), y=round(y, 2))
