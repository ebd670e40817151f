"""What is cut in a sheet already, asked how near a place for a further hole is to it."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
import shapely

from wingboard.core.geometry.rounded import Rounded


class Taken:
    """Openings of one sheet, or of several that are drilled together."""

    def __init__(self, shapes: Iterable[Rounded]) -> None:
        """:param shapes: the openings, in the module's coordinates."""
        kept = list(shapes)
        self._cores = np.array([s.core for s in kept], dtype=object)
        self._radii = np.array([s.radius for s in kept])
        self._tree = shapely.STRtree(self._cores)
        self._widest = float(self._radii.max(initial=0.0))

    def leaves(self, x: float, y: float, room: float) -> bool:
        """Whether every opening is at least ``room`` mm from a point."""
        point = shapely.Point(x, y)
        near = self._tree.query(point, predicate="dwithin", distance=room + self._widest)
        return bool(np.all(shapely.distance(self._cores[near], point) >= room + self._radii[near]))
