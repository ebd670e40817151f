"""Single LEDs behind words and round bodies: where they may lie, and how bright they have to be, all together.

Bounded least squares of what the letters lack, dark points counted more; then steps of a few resistors, each LED's the
best beside the others.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.changes.commands.lights import AddLeds, Point
from wingboard.core.light.emission import Field, Lamp
from wingboard.core.light.figures import Night, uncovered
from wingboard.core.light.kinds import LEDS
from wingboard.core.light.room import at_points, free_for
from wingboard.core.light.words import lit_words
from wingboard.core.record.lights import LedKind, Strip
from wingboard.core.resolved.boards import LED_WIDE, STRIP_WIDE, board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

REACH = (0.0, 8.0, 14.0)
"""How far from the middle of a word LEDs are tried (mm)."""
LEVELS = (1.0, 0.5, 0.25, 0.1)
"""Brightnesses of single LEDs, each by its resistor: few values to buy."""
SPARE = 0.002
"""What an LED more has to be worth, as a share of what one gives."""
RING, SWEEPS, WORTH = 12, 3, 0.004
MARGINS = (0.05, 0.15, 0.25)
"""More than is wanted, round by round: what the diffuser blurs is not known while LEDs are laid."""


class Ring(NamedTuple):
    """A single LED beside others round a control: where (mm), and at which share of its usual current."""

    x: float
    y: float
    level: float


class _Points(NamedTuple):
    """The points of all legends where a milky sheet lies before them: whose they are, where, how bright (cd/m²)."""

    owner: npt.NDArray[np.int64]
    functions: tuple[str, ...]
    at: Field
    values: Field

    def evenness(self, values: Field) -> Field:
        """Least over mean of each legend; the points of one stand together."""
        starts = np.flatnonzero(np.diff(self.owner, prepend=-1))
        many = np.diff(np.append(starts, len(values)))
        mean = np.add.reduceat(values, starts) / many
        made: Field = np.minimum.reduceat(values, starts) / np.maximum(mean, 1e-9)
        return made

    def only(self, owners: set[int], gives: Field) -> tuple[_Points, Field]:
        """The points of some legends, and what lamps give them."""
        which = np.isin(self.owner, sorted(owners))
        found, owner = np.unique(self.owner[which], return_inverse=True)
        names = tuple(self.functions[n] for n in found.tolist())
        return _Points(owner.astype(np.int64), names, self.at[which], self.values[which]), gives[which]


def _points(r: Resolved, module: ResolvedModule, night: Night) -> _Points:
    gone = uncovered(module, night.scene)
    shapely.prepare(gone)
    names = tuple(dict.fromkeys(lit.placed.function.id for lit in lit_words(r, module)))
    owners, found = [], []
    for lit in lit_words(r, module):
        open_ = lit.points[~shapely.contains_xy(gone, lit.points)][::2]
        found.append(open_)
        owners.append(np.full(len(open_), names.index(lit.placed.function.id)))
    at = np.concatenate(found) if found else np.zeros((0, 2))
    return _Points(
        np.concatenate(owners).astype(np.int64) if owners else np.zeros(0, np.int64), names, at, night.map.at(at)
    )


def _under_strips(strips: Sequence[Strip]) -> BaseGeometry:
    """Where the middle of an LED would lie on a strip."""
    runs = [shapely.LineString([(s.x, s.y), (s.x2, s.y2)]) for s in strips]
    return shapely.union_all([run.buffer((STRIP_WIDE + LED_WIDE) / 2 + 0.1) for run in runs])


def _places(
    r: Resolved, module: ResolvedModule, night: Night, functions: set[str], strips: Sequence[Strip], depth: float
) -> list[tuple[float, float]]:
    """Where single LEDs may lie for some legends: behind their words, and round the bodies of their controls."""
    free = free_for(module, night.scene, depth, LED_WIDE).difference(_under_strips(strips))
    shapely.prepare(free)
    found: list[tuple[float, float]] = []
    there = [(lamp.x, lamp.y) for group in night.scene.groups for lamp in group.lamps]
    for lit in lit_words(r, module):
        if lit.placed.function.id not in functions:
            continue
        middle = lit.points.mean(axis=0)
        here = lit.placed.frame
        radius = (
            max(
                (
                    float(np.hypot(*np.abs(b.outline.bounds).reshape(2, 2).max(axis=0)) / math.sqrt(2))
                    for b in module.templates.bodies(lit.placed)
                ),
                default=0.0,
            )
            + LED_WIDE
        )
        ring = [
            (here.x + radius * math.cos(a), here.y + radius * math.sin(a)) for a in np.arange(RING) * 2 * math.pi / RING
        ]
        near = [
            (middle[0] + far * math.cos(a), middle[1] + far * math.sin(a))
            for far in REACH
            for a in np.arange(1 if far == 0 else 8) * math.pi / 4
        ]
        for x, y in [*near, *ring]:
            point = round(float(x), 1), round(float(y), 1)
            if all(math.dist(point, other) >= LED_WIDE for other in (*found, *there)) and shapely.contains_xy(
                free, *point
            ):
                found.append(point)
    return found


def _solved(gives: Field, base: Field, target: float) -> Field:
    """How bright each lamp has to be, 0 to 1: least squares of what every point lacks, dark points counted more.

    :param gives: points × lamps, luminance at full brightness; :param base: what the points have without them.
    """
    many = gives.shape[1]
    x, weight = np.zeros(many), np.ones(len(base))
    cost = SPARE * float((gives**2).sum(axis=0).mean()) if many else 0.0
    for _ in range(6):
        gram = (gives * weight[:, None]).T @ gives
        wanted = (gives * weight[:, None]).T @ (target - base) - cost
        for _ in range(60):
            for n in np.flatnonzero(gram.diagonal() > 0):
                x[n] = min(1.0, max(0.0, x[n] + (wanted[n] - gram[n] @ x) / gram[n, n]))
        values = base + gives @ x
        weight = np.where(values < 0.8 * target, 8.0, np.where(values > target, 0.3, 1.0))
    return x


def _missing(points: _Points, values: Field, mine: npt.NDArray[np.bool_], wanted: float) -> float:
    """How far the legends are from even, all together; those that are asked for count three times."""
    lacks = np.maximum(0.0, wanted - points.evenness(values))
    return float(lacks.sum() + 2 * lacks[mine].sum())


def _stepped(points: _Points, gives: Field, levels: Field, mine: npt.NDArray[np.bool_], wanted: float) -> Field:
    """Brightnesses in the steps that there are resistors for, each the best beside the others as they are."""
    steps = np.array([*LEVELS, 0.0])
    made: Field = steps[np.abs(levels[:, None] - steps).argmin(axis=1)]
    values = points.values + gives @ made
    for _ in range(SWEEPS):
        for n in range(len(made)):
            tried = [
                _missing(points, values + gives[:, n] * (step - made[n]), mine, wanted) + WORTH * float(step > 0)
                for step in steps
            ]
            best = float(steps[int(np.argmin(tried))])
            values, made[n] = values + gives[:, n] * (best - made[n]), best
    return made


def leds_for(
    r: Resolved, module: ResolvedModule, night: Night, functions: set[str], wanted: float, strips: Sequence[Strip],
    kind: LedKind = "led-flat",
) -> tuple[Ring, ...]:  # fmt: skip
    """Single LEDs that make some legends as even as wanted, or as even as they can, and no other one worse.

    None lies on one of the strips, nor on a lamp of ``night``.

    What they add is worked out at the points of all legends of the module, shadows included; of several brightnesses
    to strive for, that is taken which leaves the fewest legends uneven.
    """
    if not night.scene.way.lit:
        return ()
    depth = board_front(module.stack)
    points = _points(r, module, night)
    places = _places(r, module, night, functions, strips, depth)
    if not len(points.at) or not places:
        return ()
    lamps = [lamp_at(Ring(x, y, 1.0), depth, kind) for x, y in places]
    passed = night.scene.way.transmission / math.pi
    gives = np.column_stack([at_points((lamp,), night.scene, points.at) * passed for lamp in lamps])
    reached = set(points.owner[gives.max(axis=1) > 0].tolist())
    points, gives = points.only(reached, gives)
    mine = np.array([f in functions for f in points.functions])
    looked = mine[points.owner] | (gives.max(axis=1) > 0.05 * max(1.0, float(np.median(points.values))))
    best: tuple[float, Field] | None = None
    bright = float(np.quantile(points.values, 0.9)) or float(gives.max()) / 4
    for share in (0.3, 0.5, 0.75, 1.0, 1.5, 2.5):
        target = share * bright
        levels = _solved(gives[looked], points.values[looked], target)
        levels = _stepped(points, gives, levels, mine, wanted)
        score = _missing(points, points.values + gives @ levels, mine, wanted) + WORTH * float((levels > 0).sum())
        if best is None or score < best[0]:
            best = score, levels
    assert best is not None
    return tuple(Ring(x, y, round(float(v), 2)) for (x, y), v in zip(places, best[1], strict=True) if v > 0)


def lamp_at(ring: Ring, depth: float, kind: LedKind = "led-flat") -> Lamp:
    return Lamp(ring.x, ring.y, depth, LEDS[kind].intensity * ring.level, LEDS[kind].exponent)


def leds_added(module: str, ring: Iterable[Ring]) -> list[AddLeds]:
    """The commands that lay single LEDs, one for each brightness."""
    alike: dict[float, list[Point]] = {}
    for led in ring:
        alike.setdefault(led.level, []).append(Point(x=led.x, y=led.y))
    return [AddLeds(module=module, at=tuple(at), level=level) for level, at in sorted(alike.items(), reverse=True)]
