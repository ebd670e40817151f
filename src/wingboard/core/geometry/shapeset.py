"""Many rounded shapes at once: who owns each, which are near each other, and by how much.

Everything is vectorised over numpy arrays of shapely geometries, so that a panel of 400 parts is judged in
milliseconds.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property
from typing import NamedTuple

import numpy as np
import numpy.typing as npt
import shapely

from wingboard.core.geometry.rounded import Rounded, margin_inside, sunk_pairs

Indices = npt.NDArray[np.int64]
Lengths = npt.NDArray[np.float64]
NOBODY = -10_000_000
"""An owner number that no shape of a panel has."""
MOST_PAIRS = 6000
"""Pairs that clash which are told at once: a module where more do is past telling one by one."""


class Near(NamedTuple):
    """Two shapes of a set by index, and their edge-to-edge distance (mm, negative when they overlap)."""

    a: int
    b: int
    gap: float


class ShapeSet:
    """Rounded shapes in the module's coordinates, each with an owner number (shapes of one owner never clash)."""

    def __init__(self, templates: Sequence[Rounded], owners: Sequence[int], at: Sequence[tuple[float, float]]) -> None:
        """:param templates: n shapes about their own origins; :param owners: n numbers; :param at: n (x, y) in mm."""
        self.owners: Indices = np.asarray(owners, dtype=np.int64)
        self.radii: Lengths = np.asarray([t.radius for t in templates], dtype=np.float64)
        self.cores = _shifted([t.core for t in templates], np.asarray(at, dtype=np.float64).reshape(-1, 2))

    def __len__(self) -> int:
        return len(self.owners)

    def shape(self, index: int) -> Rounded:
        """One shape of the set."""
        return Rounded(self.cores[index], float(self.radii[index]))

    @cached_property
    def bounds(self) -> Lengths:
        """n × 4 array: least x, least y, greatest x, greatest y (mm), radii included."""
        spread = self.radii[:, None] * np.array([-1.0, -1.0, 1.0, 1.0])
        found: Lengths = np.asarray(shapely.bounds(self.cores), dtype=np.float64).reshape(-1, 4) + spread
        return found

    @cached_property
    def _tree(self) -> shapely.STRtree:
        return shapely.STRtree(_boxes(self.bounds))

    def closer_than(self, limit: float) -> list[Near]:
        """Pairs of different owners whose edges are nearer than ``limit`` mm, lower index first."""
        if len(self) < 2:
            return []
        reach = np.array([-limit, -limit, limit, limit])
        a, b = self._tree.query(_boxes(self.bounds + reach))
        keep = (a < b) & (self.owners[a] != self.owners[b])
        a, b = a[keep], b[keep]
        gaps = _gaps(self.cores[a], self.cores[b]) - self.radii[a] - self.radii[b]
        return _nearest(a, b, gaps, limit)

    def near(self, others: ShapeSet, limit: float) -> list[Near]:
        """Pairs of a shape of this set and one of ``others``, owners differing, nearer than ``limit`` mm."""
        if not len(self) or not len(others):
            return []
        reach = np.array([-limit, -limit, limit, limit])
        a, b = others._tree.query(_boxes(self.bounds + reach))
        keep = self.owners[a] != others.owners[b]
        a, b = a[keep], b[keep]
        gaps = _gaps(self.cores[a], others.cores[b]) - self.radii[a] - others.radii[b]
        return _nearest(a, b, gaps, limit)

    def against(self, shape: Rounded, limit: float, owner: int = NOBODY) -> list[tuple[int, float]]:
        """Shapes of other owners nearer to ``shape`` than ``limit`` mm, with their distances, nearest first."""
        if not len(self):
            return []
        x0, y0, x1, y1 = shape.bounds
        found = self._tree.query(shapely.box(x0 - limit, y0 - limit, x1 + limit, y1 + limit))
        found = found[self.owners[found] != owner]
        others = np.full(len(found), shape.core, dtype=object)
        gaps = _gaps(self.cores[found], others) - self.radii[found] - shape.radius
        return sorted(((int(i), float(g)) for i, g in zip(found, gaps, strict=True) if g < limit), key=lambda p: p[1])

    def margins_inside(self, area: shapely.Polygon) -> Lengths:
        """For each shape, how far (mm) it stays inside ``area``; negative by how far its edge pokes out or beyond."""
        return self.margins_of(np.arange(len(self)), area)

    def margins_of(self, which: Indices, area: shapely.Polygon) -> Lengths:
        """As :meth:`margins_inside`, for the shapes with these indices only."""
        if not len(which):
            return np.zeros(0)
        margins: Lengths = shapely.distance(self.cores[which], area.exterior) - self.radii[which]
        for i in np.flatnonzero(~shapely.covers(area, self.cores[which])):
            margins[i] = margin_inside(self.shape(int(which[i])), area)
        return margins


def _nearest(a: Indices, b: Indices, gaps: Lengths, limit: float) -> list[Near]:
    """The pairs nearer than ``limit``, in order; no more than :data:`MOST_PAIRS`."""
    near = np.flatnonzero(gaps < limit)
    near = near[np.lexsort((b[near], a[near]))][:MOST_PAIRS]
    return [Near(int(a[k]), int(b[k]), float(gaps[k])) for k in near]


def _gaps(a: npt.NDArray[np.object_], b: npt.NDArray[np.object_]) -> Lengths:
    """Distances of cores pair by pair; for those that touch, minus how far they reach into each other."""
    gaps: Lengths = np.asarray(shapely.distance(a, b), dtype=np.float64)
    touching = np.flatnonzero(gaps == 0)
    if len(touching):
        gaps[touching] = -sunk_pairs(a[touching], b[touching])
    return gaps


def _boxes(bounds: Lengths) -> npt.NDArray[np.object_]:
    """Their diagonals, which a tree takes for the boxes that they are, and which are made in a third of the time."""
    diagonals: npt.NDArray[np.object_] = np.asarray(shapely.linestrings(bounds.reshape(-1, 2, 2)), dtype=object)
    return diagonals


def _shifted(cores: Sequence[shapely.Geometry], at: Lengths) -> npt.NDArray[np.object_]:
    geometries = np.asarray(cores, dtype=object)
    if not len(geometries):
        return geometries
    points, index = shapely.get_coordinates(geometries, return_index=True)
    return np.asarray(shapely.set_coordinates(geometries.copy(), points + at[index]), dtype=object)
