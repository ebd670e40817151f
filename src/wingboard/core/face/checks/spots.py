"""Where on a panel a finding points to."""

from __future__ import annotations

import shapely

from wingboard.core.design.resolved import ResolvedPanel
from wingboard.core.findings.finding import Spot
from wingboard.core.geometry.shapeset import Near, ShapeSet


def between(panel: ResolvedPanel, shapes: ShapeSet, near: Near) -> Spot:
    """The middle of the shortest way between two shapes' cores."""
    way = shapely.shortest_line(shapes.cores[near.a], shapes.cores[near.b])
    middle = way.interpolate(0.5, normalized=True)
    return Spot(panel=panel.panel.id, x=round(middle.x, 2), y=round(middle.y, 2))


def at(panel: ResolvedPanel, x: float, y: float) -> Spot:
    """A point of a panel."""
    return Spot(panel=panel.panel.id, x=round(x, 2), y=round(y, 2))
