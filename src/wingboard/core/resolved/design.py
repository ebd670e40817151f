"""What follows from a design, computed once a revision and only read afterwards."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import cached_property
from typing import Any, Literal, NamedTuple, TypeVar

import shapely

from wingboard.core.geometry.outline import Loop, area_of
from wingboard.core.geometry.rounded import Rounded, disc
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function, Place
from wingboard.core.record.modules import Layer, Module
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Circle, Shape
from wingboard.core.resolved.profile import Cutout, Purpose, cutouts, plates

T = TypeVar("T")

SCREW_HOLE = {"M2": 2.4, "M2.5": 2.9, "M3": 3.4, "M4": 4.5, "M5": 5.5, "M6": 6.6}
"""Clearance holes, medium series (mm): ISO 273."""
SCREW_HEAD = {"M2": 4.0, "M2.5": 5.0, "M3": 6.0, "M4": 8.0, "M5": 10.0, "M6": 12.0}
"""Pan heads (mm), rounded up: ISO 7045, from memory. The nut behind is no wider across its corners, within 0.5 mm."""

Envelope = Literal["body", "hand", "cover"]


class Placed(NamedTuple):
    """A function's part at its place."""

    number: int
    function: Function
    part: Part
    place: Place


class PlacedCutout(NamedTuple):
    """An opening in a layer, in the module's coordinates. ``owner`` is a function's id, or a fixing's name."""

    owner: str
    purpose: Purpose
    shape: Shape
    x: float
    y: float
    turn: float
    depth: float | None


class Fixing(NamedTuple):
    """A screw through every layer (mm)."""

    name: str
    x: float
    y: float
    hole: float
    head: float


class Templates:
    """The shapes of each type of part at each turn, about its own centre, made once a revision."""

    def __init__(self, stack: tuple[Layer, ...]) -> None:
        self._stack = stack
        self._profiles: dict[tuple[str, float, int | None], tuple[Cutout, ...]] = {}
        self._openings: dict[tuple[str, float, int | None, float], dict[str, list[tuple[Purpose, Rounded]]]] = {}
        self._envelopes: dict[tuple[str, Envelope, float], Rounded | None] = {}

    def profile(self, placed: Placed) -> tuple[Cutout, ...]:
        """The openings of a placed part, in the part's coordinates."""
        key = (placed.part.id, placed.function.pocket, placed.function.digits)
        if key not in self._profiles:
            self._profiles[key] = cutouts(placed.part, self._stack, placed.function.pocket, placed.function.digits)
        return self._profiles[key]

    def openings(self, placed: Placed, layer: str) -> list[tuple[Purpose, Rounded]]:
        """Purpose and shape of the openings in a layer, turned as the part is."""
        key = (placed.part.id, placed.function.pocket, placed.function.digits, placed.place.turn)
        if key not in self._openings:
            made: dict[str, list[tuple[Purpose, Rounded]]] = {}
            for cut in self.profile(placed):
                shape = cut.shape.rounded().turned(cut.turn).moved(cut.x, cut.y).turned(placed.place.turn)
                made.setdefault(cut.layer, []).append((cut.purpose, shape))
            self._openings[key] = made
        return self._openings[key].get(layer, [])

    def envelope(self, placed: Placed, what: Envelope) -> Rounded | None:
        """An envelope, turned as the part is; None for the hand of a part that is not touched."""
        key = (placed.part.id, what, placed.place.turn)
        if key not in self._envelopes:
            self._envelopes[key] = _envelope(placed.part, what, placed.place.turn)
        return self._envelopes[key]


def _envelope(part: Part, what: Envelope, turn: float) -> Rounded | None:
    if what == "hand":
        return part.hand.shape.rounded().turned(turn) if part.hand else None
    if what == "cover":
        return part.cover.rounded().turned(turn)
    body = part.body.grown(part.clamp) if part.clamp else part.body
    shape = body.rounded()
    if part.behind_x or part.behind_y:
        shape = shape.moved(part.behind_x, part.behind_y)
    return shape.turned(turn)


class ResolvedModule:
    """One module with everything on it."""

    def __init__(self, module: Module, placed: tuple[Placed, ...], templates: Templates) -> None:
        self.module = module
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
    def fixings(self) -> tuple[Fixing, ...]:
        """The corner screws, moved in along the diagonal where a corner is rounded away."""
        wanted = self.module.fixings
        if wanted is None:
            return ()
        x0, y0, x1, y1 = self.area.bounds
        spots = {
            "lower left": (x0, y0, 1, 1),
            "lower right": (x1, y0, -1, 1),
            "upper right": (x1, y1, -1, -1),
            "upper left": (x0, y1, 1, -1),
        }
        hole, head = SCREW_HOLE[wanted.screw], SCREW_HEAD[wanted.screw]
        made = []
        for name, (x, y, sx, sy) in spots.items():
            px, py = self._inward(x, y, sx, sy, wanted.inset)
            made.append(Fixing(f"{name} screw", px, py, hole, head))
        return tuple(made)

    def _inward(self, x: float, y: float, sx: int, sy: int, inset: float) -> tuple[float, float]:
        width, height = self.size
        for k in range(int(min(width, height) * 2)):
            px, py = x + sx * inset, y + sy * (inset + k * 0.5)
            point = shapely.Point(px, py)
            if self.area.contains(point) and self.area.exterior.distance(point) >= inset - 1e-3:
                return round(px, 3), round(py, 3)
        return x + sx * inset, y + sy * inset

    def owner_name(self, owner: int) -> str:
        """What a person calls the owner of a shape: the function, or the screw."""
        return self.by_number[owner].function.name if owner >= 0 else self.fixings[-1 - owner].name

    def openings(self, layer: str) -> ShapeSet:
        """Everything cut in a layer, the outline apart."""
        return self._set(f"layer {layer}", lambda: self._opening_set(layer))

    def hides_nut(self, owner: int, layer: str) -> bool:
        """Whether the part with that number hides its nut in a layer."""
        placed = self.by_number.get(owner)
        return placed is not None and any(p == "nut" for p, _ in self._templates.openings(placed, layer))

    def envelopes(self, what: Envelope) -> ShapeSet:
        """Bodies behind, hand room or covered face, fixings included except for hands."""
        return self._set(what, lambda: self._envelope_set(what))

    def _set(self, key: str, make: Callable[[], ShapeSet]) -> ShapeSet:
        if key not in self._sets:
            self._sets[key] = make()
        return self._sets[key]

    def _opening_set(self, layer: str) -> ShapeSet:
        shapes, owners, at = [], [], []
        for p in self.placed:
            for _, shape in self._templates.openings(p, layer):
                shapes.append(shape)
                owners.append(p.number)
                at.append((p.place.x, p.place.y))
        return self._with_fixings(shapes, owners, at, lambda fixing: fixing.hole)

    def _envelope_set(self, what: Envelope) -> ShapeSet:
        shapes, owners, at = [], [], []
        for p in self.placed:
            shape = self._templates.envelope(p, what)
            if shape is not None:
                shapes.append(shape)
                owners.append(p.number)
                at.append((p.place.x, p.place.y))
        if what == "hand":
            return ShapeSet(shapes, owners, at)
        return self._with_fixings(shapes, owners, at, lambda fixing: fixing.head)

    def _with_fixings(
        self,
        shapes: list[Rounded],
        owners: list[int],
        at: list[tuple[float, float]],
        diameter: Callable[[Fixing], float],
    ) -> ShapeSet:
        fixings = self.fixings
        return ShapeSet(
            shapes + [disc(diameter(f)) for f in fixings],
            owners + [-1 - k for k in range(len(fixings))],
            at + [(f.x, f.y) for f in fixings],
        )

    def cutouts(self, layer: str) -> tuple[PlacedCutout, ...]:
        """Everything to be cut in a layer, the outline apart, in the order of the functions, fixings last."""
        made = []
        for p in self.placed:
            c, s = math.cos(math.radians(p.place.turn)), math.sin(math.radians(p.place.turn))
            for cut in self._templates.profile(p):
                if cut.layer == layer:
                    x = p.place.x + cut.x * c - cut.y * s
                    y = p.place.y + cut.x * s + cut.y * c
                    turn = (cut.turn + p.place.turn) % 360
                    made.append(PlacedCutout(p.function.id, cut.purpose, cut.shape, x, y, turn, cut.depth))
        for f in self.fixings:
            made.append(PlacedCutout(f.name, "fixing", Circle(diameter=f.hole), f.x, f.y, 0.0, None))
        return tuple(made)


class Resolved:
    """A design with its parts looked up and its shapes placed. Stations keep their own results in :meth:`once`."""

    def __init__(self, design: Design) -> None:
        self.design = design
        self.parts = {p.id: p for p in design.parts}
        self.functions = {f.id: f for f in design.functions}
        self._kept: dict[str, Any] = {}
        self._templates = Templates(design.stack)

    def once(self, key: str, compute: Callable[[], T]) -> T:
        """The value of ``compute()``, computed the first time ``key`` is asked for."""
        if key not in self._kept:
            self._kept[key] = compute()
        value: T = self._kept[key]
        return value

    @cached_property
    def placed(self) -> tuple[Placed, ...]:
        """Every placed part, in the order of the functions."""
        return tuple(
            Placed(i, f, self.parts[f.part], f.place)
            for i, f in enumerate(self.design.functions)
            if f.place is not None and f.part is not None
        )

    @cached_property
    def modules(self) -> dict[str, ResolvedModule]:
        """Every module by id."""
        on: dict[str, list[Placed]] = {module.id: [] for module in self.design.modules}
        for placed in self.placed:
            on[placed.place.module].append(placed)
        return {
            module.id: ResolvedModule(module, tuple(on[module.id]), self._templates) for module in self.design.modules
        }

    @property
    def layers(self) -> tuple[str, ...]:
        """The ids of the layers that are screwed together, from the front."""
        return tuple(layer.id for layer in plates(self.design.stack))
