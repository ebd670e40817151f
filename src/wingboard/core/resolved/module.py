"""One module with everything on it, in its own coordinates: what its sheets are cut from."""

from __future__ import annotations

from functools import cached_property
from typing import NamedTuple

import shapely

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.outline import Loop, area_of
from wingboard.core.geometry.rounded import disc
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.modules import MOST_SCREWS, Module
from wingboard.core.record.shapes import Circle, Shape
from wingboard.core.resolved.placed import Placed, Templates
from wingboard.core.resolved.profile import Purpose
from wingboard.core.resolved.screws import Fixing, screws_of


class PlacedCutout(NamedTuple):
    """An opening in a layer, in the module's coordinates. ``owner`` is a function's id, or a fixing's name."""

    owner: str
    purpose: Purpose
    shape: Shape
    x: float
    y: float
    turn: float
    depth: float | None


class ResolvedModule:
    """One module with everything on it."""

    def __init__(self, number: int, module: Module, placed: tuple[Placed, ...], templates: Templates) -> None:
        """:param number: of the module in the design, from 0; the owner numbers of its screws follow from it."""
        self.module = module
        self._first_screw = -1 - number * MOST_SCREWS
        self.placed = placed
        self._templates = templates
        self.by_number = {p.number: p for p in placed}
        self._sets: dict[str, ShapeSet] = {}

    @cached_property
    def loop(self) -> Loop:
        """The outline."""
        return self.module.outline.loop()

    @cached_property
    def area(self) -> shapely.Polygon:
        """The plate as a polygon."""
        return area_of(self.loop)

    @cached_property
    def size(self) -> tuple[float, float]:
        """Width and height (mm) over all."""
        x0, y0, x1, y1 = self.area.bounds
        return x1 - x0, y1 - y0

    @cached_property
    def frame(self) -> Frame:
        """Where the module lies in the opening."""
        return Frame(self.module.x, self.module.y)

    @cached_property
    def area_in_opening(self) -> shapely.Polygon:
        """The plate as a polygon, in the opening's coordinates."""
        return area_of(self.frame.loop(self.loop))

    @cached_property
    def fixings(self) -> tuple[Fixing, ...]:
        """The screws: those of the corners first, then those placed by hand."""
        return screws_of(self.module.fixings, self.loop, self.area)

    @property
    def screw_numbers(self) -> range:
        """The owner numbers of the screws, less than nothing and different on every module."""
        return range(self._first_screw, self._first_screw - len(self.fixings), -1)

    def owner_name(self, owner: int) -> str:
        """What a person calls the owner of a shape: the function, or the screw."""
        return self.by_number[owner].function.name if owner >= 0 else self.screw(owner).name

    def screw(self, owner: int) -> Fixing:
        """The screw with that owner number."""
        return self.fixings[self._first_screw - owner]

    def openings(self, layer: str) -> ShapeSet:
        """Everything cut in a layer, the outline apart."""
        if layer not in self._sets:
            self._sets[layer] = self._opening_set(layer)
        return self._sets[layer]

    def hides_nut(self, owner: int, layer: str) -> bool:
        """Whether the part with that number hides its nut in a layer."""
        placed = self.by_number.get(owner)
        return placed is not None and any(p == "nut" for p, _ in self._templates.openings(placed, layer))

    def _opening_set(self, layer: str) -> ShapeSet:
        shapes, owners, at = [], [], []
        for p in self.placed:
            for _, shape in self._templates.openings(p, layer):
                shapes.append(shape)
                owners.append(p.number)
                at.append((p.place.x, p.place.y))
        return ShapeSet(
            shapes + [disc(f.hole) for f in self.fixings],
            owners + list(self.screw_numbers),
            at + [(f.x, f.y) for f in self.fixings],
        )

    def cutouts(self, layer: str) -> tuple[PlacedCutout, ...]:
        """Everything to be cut in a layer, the outline apart, in the order of the functions, fixings last."""
        made = []
        for p in self.placed:
            for cut in self._templates.profile(p):
                if cut.layer == layer:
                    x, y = p.frame.point(cut.x, cut.y)
                    turn = (cut.turn + p.place.turn) % 360
                    made.append(PlacedCutout(p.function.id, cut.purpose, cut.shape, x, y, turn, cut.depth))
        for f in self.fixings:
            made.append(PlacedCutout(f.name, "fixing", Circle(diameter=f.hole), f.x, f.y, 0.0, None))
        return tuple(made)
