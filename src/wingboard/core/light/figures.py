"""How each legend reads at night: least and mean light over its letters, how even, and words that stay half dark."""

from __future__ import annotations

from collections.abc import Hashable
from typing import Literal, NamedTuple

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.light.mapping import Map, Report, map_of
from wingboard.core.light.scene import STEP, Scene, scene_of
from wingboard.core.light.through import way_through
from wingboard.core.light.words import Lit, lit_words
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

UNREADABLE = 0.4
"""Letters below this share of the mean are patches that cannot be read (common practice)."""


SEEN = 0.005
"""Evenness is shown in hundredths: nearer to its limit than this it holds."""


def standing(evenness: float, even: float, patches: float) -> Literal["must", "judge", "ok"]:
    """What a legend's evenness means: to fix when patches cannot be read, to judge when it is not even enough."""
    if evenness >= even - SEEN:
        return "ok"
    return "must" if evenness < patches - SEEN else "judge"


class WordLight(NamedTuple):
    """One word of a legend: least and mean luminance (cd/m²), and where the least is (mm)."""

    text: str
    least: float
    mean: float
    x: float
    y: float


class LegendLight(NamedTuple):
    """A function's legend: over all of its words, and word by word."""

    function: str
    name: str
    least: float
    mean: float
    words: tuple[WordLight, ...]
    uncovered: float
    """The share of its points where a milky sheet is cut away before the lamp, so that nothing spreads the light."""

    @property
    def evenness(self) -> float:
        """Least over mean, 0 to 1."""
        return self.least / self.mean if self.mean > 0 else 0.0

    @property
    def dark(self) -> tuple[str, ...]:
        """The words that are, or hold patches, below what reads beside the rest of the legend."""
        return tuple(w.text for w in self.words if w.least < UNREADABLE * self.mean or self.mean == 0)

    @property
    def worst(self) -> tuple[float, float]:
        """Where it is darkest (mm)."""
        word = min(self.words, key=lambda w: w.least)
        return word.x, word.y


class Night(NamedTuple):
    """A module at night: its scene, its map, its legends in the order of the functions."""

    scene: Scene
    map: Map
    legends: tuple[LegendLight, ...]

    @property
    def usual(self) -> float:
        """The middle of all legends' means (cd/m²)."""
        return float(np.median([legend.mean for legend in self.legends])) if self.legends else 0.0


def uncovered(module: ResolvedModule, scene: Scene) -> BaseGeometry:
    """Where a milky sheet is open: light comes through a hole, or a nut stands there."""
    gone = [
        shapely.union_all([shapely.buffer(s.cores[i], s.radii[i]) for i in range(len(s))])
        for layer in scene.way.milky
        if len(s := module.openings(layer.id))
    ]
    found: BaseGeometry = shapely.union_all(gone) if gone else shapely.Polygon()
    return found


def legends_lit(r: Resolved, module: ResolvedModule, scene: Scene, made: Map) -> tuple[LegendLight, ...]:
    """The figures of every legend on the face of a module, from its map."""
    by_function: dict[str, list[tuple[Lit, np.ndarray]]] = {}
    gone = uncovered(module, scene)
    shapely.prepare(gone)
    for lit in lit_words(r, module):
        values = made.at(lit.points)
        if not gone.is_empty:
            values = np.where(shapely.contains_xy(gone, lit.points), 0.0, values)
        by_function.setdefault(lit.placed.function.id, []).append((lit, values))
    return tuple(_legend(found) for found in by_function.values())


def _legend(found: list[tuple[Lit, np.ndarray]]) -> LegendLight:
    function = found[0][0].placed.function
    every = np.concatenate([values for _, values in found])
    words = []
    for lit, values in found:
        darkest = int(values.argmin())
        x, y = lit.points[darkest]
        words.append(WordLight(lit.text, float(values[darkest]), float(values.mean()), float(x), float(y)))
    uncovered = float((every == 0).mean())
    return LegendLight(function.id, function.name, float(every.min()), float(every.mean()), tuple(words), uncovered)


class _Same:
    """Two are equal when they stand for the same object."""

    def __init__(self, thing: object) -> None:
        self.thing = thing

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and other.thing is self.thing

    def __hash__(self) -> int:
        return id(self.thing)


def _follows_from(r: Resolved, module: ResolvedModule, step: float) -> Hashable:
    """All that a module's night follows from."""
    on = tuple(
        (p.function.name, p.place, p.function.legend, p.function.positions, p.function.pocket, p.function.digits)
        for p in module.placed
    )
    parts = tuple(_Same(p.part) for p in module.placed)
    return step, module.module, module.stack, r.design.style, on, parts


def night_of(r: Resolved, module: ResolvedModule, step: float = STEP, report: Report | None = None) -> Night | None:
    """A module at night; None where no light comes through from behind, or while it is being worked out elsewhere."""
    light = module.module.light
    if light is None or not (light.strips or light.leds) or not way_through(module.stack, module.plates).lit:
        return None

    def compute() -> Night:
        scene = scene_of(module, light, step)
        made = map_of(scene, report)
        return Night(scene, made, legends_lit(r, module, scene, made))

    return r.costly(f"night of {module.module.id} at {step}", _follows_from(r, module, step), compute)
