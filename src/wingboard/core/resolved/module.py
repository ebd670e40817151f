"""One module with everything on it, in its own coordinates: what its sheets are cut from."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property
from typing import NamedTuple

import shapely
from shapely import affinity

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.outline import Loop, area_of
from wingboard.core.geometry.rounded import Rounded, disc, polygon
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.lights import MOST_LEDS, MOST_STRIPS
from wingboard.core.record.modules import (
    MOST_FEATURES,
    MOST_HOLES,
    MOST_LAYERS,
    MOST_MOUNTED,
    MOST_SCREWS,
    Feature,
    Layer,
    Module,
    is_plate,
)
from wingboard.core.record.shapes import Circle, Shape
from wingboard.core.resolved.boards import board_holes
from wingboard.core.resolved.lampholes import lamp_pockets, lamp_wires
from wingboard.core.resolved.layers import layer_loop
from wingboard.core.resolved.pins import pin_holes, pin_spots, pinned
from wingboard.core.resolved.placed import Placed, Templates
from wingboard.core.resolved.profile import Purpose, plates, sheets, thickness
from wingboard.core.resolved.screws import Fixing, screws_of
from wingboard.core.resolved.taken import Taken

OWNERS = MOST_SCREWS + MOST_LAYERS * (MOST_FEATURES + 2 + MOST_LEDS + MOST_STRIPS) + MOST_MOUNTED * MOST_HOLES
"""Owner numbers kept for what a module has beside its parts."""


class PlacedCutout(NamedTuple):
    """An opening in a layer, in the module's coordinates. ``owner`` is a function's id, or what else it is of."""

    owner: str
    purpose: Purpose
    shape: Shape
    x: float
    y: float
    turn: float
    depth: float | None


class ResolvedModule:
    """One module with everything on it."""

    def __init__(
        self,
        number: int,
        module: Module,
        stack: tuple[Layer, ...],
        placed: tuple[Placed, ...],
        templates: Templates,
    ) -> None:
        """:param number: of the module in the design, from 0; the owner numbers of its screws follow from it."""
        self.module = module
        self.stack = stack
        self._first_screw = -1 - number * OWNERS
        self.placed = placed
        self.templates = templates
        self.by_number = {p.number: p for p in placed}
        self._sets: dict[str, ShapeSet] = {}
        self._loops: dict[str, Loop] = {}
        self._areas: dict[str, shapely.Polygon] = {}
        self._by_hand = [(layer.id, f) for layer in stack for f in layer.features if f.module == module.id]
        self._without = {(name, f.without) for name, f in self._by_hand}

    @cached_property
    def loop(self) -> Loop:
        """The outline."""
        return self.module.outline.loop()

    @cached_property
    def area(self) -> shapely.Polygon:
        """The plate as a polygon."""
        return area_of(self.loop)

    @cached_property
    def extent_in_opening(self) -> shapely.Polygon:
        """What any of its plates takes of the opening, seen from the front: one may reach beyond the module's edge."""
        if all(layer.outline is None and layer.inset >= 0 for layer in self.plates):
            return self.area_in_opening
        whole = shapely.unary_union([self.area, *(self.area_of(layer) for layer in self.plates)])
        return polygon(affinity.translate(whole, self.module.x, self.module.y))

    @cached_property
    def plates(self) -> tuple[Layer, ...]:
        """The layers screwed together as one plate, from the front."""
        return plates(self.stack)

    @cached_property
    def thickness(self) -> float:
        """Thickness (mm) of the plate."""
        return thickness(self.stack)

    def loop_of(self, layer: Layer) -> Loop:
        """The outline of one layer, in the module's coordinates."""
        if layer.id not in self._loops:
            self._loops[layer.id] = layer_loop(self.loop, layer)
        return self._loops[layer.id]

    def area_of(self, layer: Layer) -> shapely.Polygon:
        """One layer as a polygon, in the module's coordinates."""
        if layer.outline is None and not layer.inset:
            return self.area
        if layer.id not in self._areas:
            self._areas[layer.id] = area_of(self.loop_of(layer))
        return self._areas[layer.id]

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

    @cached_property
    def pins(self) -> tuple[tuple[float, float], ...]:
        """Where the two registration pins go through; none where none are wanted, or there is no room for both."""
        fixings = self.module.fixings
        if not fixings or not fixings.pins:
            return ()
        cut = Taken(shape for layer in pinned(self.plates) for shape in self._cut_already(layer))
        return pin_spots(fixings, self.area, self.fixings, cut)

    @cached_property
    def _features(self) -> list[tuple[str, Feature]]:
        """What is cut beside the parts' openings and the screws' holes, each with its layer."""
        pins = pin_holes(self.module, self.plates, self.pins)
        return [*self._by_hand, *self._of_boards, *pins, *self._of_lamps, *self._lamp_wires()]

    @cached_property
    def _of_lamps(self) -> list[tuple[str, Feature]]:
        return list(lamp_pockets(self.module, sheets(self.stack)))

    @cached_property
    def _of_boards(self) -> list[tuple[str, Feature]]:
        return board_holes(self.module, self.stack)

    def _lamp_wires(self) -> Iterator[tuple[str, Feature]]:
        """Holes for the wires of lamps in the boards they lie on."""
        if self.module.light is None:
            return iter(())
        screws = [disc(f.hole, f.x, f.y) for f in self.fixings]
        boards = [layer for layer in self.stack if not is_plate(layer)]
        taken = {layer.id: Taken((*self._cut_already(layer), *screws)) for layer in boards}
        return lamp_wires(self.module, self.area, sheets(self.stack), taken)

    def _cut_already(self, layer: Layer) -> Iterator[Rounded]:
        """The openings of the parts in a layer, those made by hand, the holes of boards and the pockets of lamps."""
        for p in self.placed:
            for _, shape in self.templates.openings(p, layer.id):
                yield shape.moved(p.place.x, p.place.y)
        for name, f in (*self._by_hand, *self._of_boards, *self._of_lamps):
            if name == layer.id and f.shape is not None:
                yield f.shape.rounded().turned(f.turn).moved(f.x, f.y)

    @property
    def screw_numbers(self) -> range:
        """The owner numbers of the screws, less than nothing and different on every module."""
        return range(self._first_screw, self._first_screw - len(self.fixings), -1)

    def owner_name(self, owner: int) -> str:
        """What a person calls the owner of a shape: the function, the screw, or the reason of an exception."""
        if owner >= 0:
            return self.by_number[owner].function.name
        nth = self._first_screw - owner
        return self.fixings[nth].name if nth < len(self.fixings) else self._added[nth - len(self.fixings)][1].reason

    @cached_property
    def _added(self) -> list[tuple[str, Feature]]:
        """Openings added by hand, holes of boards and pins, with their layers; their numbers follow the screws'."""
        return [(layer, f) for layer, f in self._features if f.shape is not None]

    def _added_to(self, layer: str) -> list[tuple[int, Feature, Shape]]:
        first = self._first_screw - len(self.fixings)
        added = enumerate(self._added)
        return [(first - n, f, f.shape) for n, (name, f) in added if f.shape is not None and name == layer]

    def feature(self, owner: int) -> Feature:
        """The opening added by hand that has an owner number."""
        return self._added[self._first_screw - owner - len(self.fixings)][1]

    def depth(self, placed: Placed) -> float:
        """How far (mm) a part reaches behind the panel's front surface, wires' bend included."""
        return max((body.z1 for body in self.templates.bodies(placed)), default=self.thickness)

    def is_screw(self, owner: int) -> bool:
        """Whether a shape belongs to a screw."""
        return owner in self.screw_numbers

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
        return placed is not None and any(p == "nut" for p, _ in self.templates.openings(placed, layer))

    def _opening_set(self, layer: str) -> ShapeSet:
        shapes, owners, at = [], [], []
        for p in self.placed:
            for _, shape in self.templates.openings(p, layer) if (layer, p.function.id) not in self._without else ():
                shapes.append(shape)
                owners.append(p.number)
                at.append((p.place.x, p.place.y))
        added = self._added_to(layer)
        return ShapeSet(
            shapes + [disc(f.hole) for f in self.fixings] + [s.rounded().turned(f.turn) for _, f, s in added],
            owners + list(self.screw_numbers) + [number for number, _, _ in added],
            at + [(f.x, f.y) for f in self.fixings] + [(f.x, f.y) for _, f, _ in added],
        )

    def cutouts(self, layer: str) -> tuple[PlacedCutout, ...]:
        """Everything to be cut in a layer, the outline apart: of the functions in order, fixings, what was added."""
        made = []
        for p in self.placed:
            for cut in self.templates.profile(p):
                if cut.layer == layer and (layer, p.function.id) not in self._without:
                    x, y = p.frame.point(cut.x, cut.y)
                    turn = (cut.turn + p.place.turn) % 360
                    made.append(PlacedCutout(p.function.id, cut.purpose, cut.shape, x, y, turn, cut.depth))
        for f in self.fixings:
            made.append(PlacedCutout(f.name, "fixing", Circle(diameter=f.hole), f.x, f.y, 0.0, None))
        by_hand = {id(f) for _, f in self._by_hand}
        for _, a, shape in self._added_to(layer):
            purpose: Purpose = "feature" if id(a) in by_hand else "derived"
            made.append(PlacedCutout(a.reason, purpose, shape, a.x, a.y, a.turn % 360, a.depth))
        return tuple(made)
