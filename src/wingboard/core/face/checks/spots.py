"""Where on a module a finding points to."""

from __future__ import annotations

import shapely

from wingboard.core.findings.finding import Spot
from wingboard.core.geometry.shapeset import Near, ShapeSet
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed


def between(module: ResolvedModule, shapes: ShapeSet, near: Near) -> Spot:
    """The middle of the shortest way between two shapes' cores, both in the module's coordinates."""
    return at(module, *_halfway(shapes, near))


def across(r: Resolved, shapes: ShapeSet, near: Near) -> Spot:
    """As :func:`between` with shapes in the opening's coordinates; said on the module of the first, or of the part."""
    owners = [int(shapes.owners[i]) for i in near[:2]]
    module = r.panel.module_of(owners[0] if owners[0] >= 0 else owners[1])
    return at(module, *module.frame.back(*_halfway(shapes, near)))


def at(module: ResolvedModule, x: float, y: float) -> Spot:
    """A point of a module."""
    return Spot(module=module.module.id, x=round(x, 2), y=round(y, 2))


def of(placed: Placed) -> Spot:
    """The middle of a placed part."""
    return Spot(module=placed.place.module, x=round(placed.place.x, 2), y=round(placed.place.y, 2))


def _halfway(shapes: ShapeSet, near: Near) -> tuple[float, float]:
    way = shapely.shortest_line(shapes.cores[near.a], shapes.cores[near.b])
    middle = way.interpolate(0.5, normalized=True)
    return middle.x, middle.y
