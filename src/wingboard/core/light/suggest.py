"""Where lamps would have to lie so that every legend reads: runs of strip between the bodies, single LEDs where they
shade a legend.

Runs are chosen one after the other, each where it lights most of what is still dark. How bright single LEDs behind the
words and round the bodies have to be is solved for all together: bounded least squares of what the letters lack.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Iterable
from typing import Literal, NamedTuple

import numpy as np
import numpy.typing as npt
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.changes.commands.lights import AddLeds, AddStrip, Point
from wingboard.core.light.emission import REACH as FOLLOWED
from wingboard.core.light.emission import Field, Lamp
from wingboard.core.light.figures import LegendLight, Night, legends_lit, uncovered
from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.mapping import map_of
from wingboard.core.light.scene import Group, Scene, lamps_of_strip, scene_of
from wingboard.core.light.shadows import shadows
from wingboard.core.light.words import lit_words
from wingboard.core.record.lights import Backlight, LedKind, Strip, StripKind
from wingboard.core.resolved.boards import LED_WIDE, STRIP_WIDE, board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

EDGE = 4.0
"""Strips and LEDs keep so far inside the plate's edge (mm)."""
ROWS = 4.0
"""Runs are tried so far from each other (mm)."""
ENOUGH = 0.35
"""A point is well lit with this share of what is right before a strip."""
BATCH = 24
"""Legends that LEDs are looked for together, the worst first."""
MOST_RUNS, MOST_ROWS, MOST_TRIED = 12, 60, 1500
REACH = (0.0, 8.0, 14.0)
"""How far from the middle of a word LEDs are tried (mm)."""
LEVELS = (1.0, 0.5, 0.25, 0.1)
"""Brightnesses of single LEDs, each by its resistor: few values to buy."""
SPARE = 0.002
"""What an LED more has to be worth, as a share of what one gives."""
RING, SWEEPS, WORTH = 12, 3, 0.004
MARGINS = (0.05, 0.15, 0.25)
"""More than is wanted, round by round: what the diffuser blurs is not known while LEDs are laid."""
DIM = 0.5
"""Legends with less of the usual light than this get more."""
HIGH = 3.0
"""LEDs and strips stand so high on their board (mm)."""
Way = Literal["rows", "edge"]
"""Strips in rows between the bodies, or round the edge, tilted inwards by 45°."""
Report = Callable[[float, str], object]


class Ring(NamedTuple):
    """A single LED beside others round a control: where (mm), and at which share of its usual current."""

    x: float
    y: float
    level: float


class Suggested(NamedTuple):
    """Commands that light a module, and its legends before and after."""

    commands: tuple[AddStrip | AddLeds, ...]
    before: tuple[LegendLight, ...]
    after: tuple[LegendLight, ...]


def taken_at(scene: Scene, depth: float) -> BaseGeometry:
    """What bodies take of the plane that lamps lie in, a strip's height before it included."""
    b = scene.bodies
    there = [n for n in range(len(b.z0)) if b.z0[n] < depth and b.z1[n] > depth - HIGH]
    found: BaseGeometry = (
        shapely.union_all(shapely.convex_hull(shapely.linestrings(b.corners[there]))) if there else shapely.Polygon()
    )
    return found


def free_for(module: ResolvedModule, scene: Scene, depth: float, wide: float) -> BaseGeometry:
    """Where the middle of something so wide (mm) may lie among the bodies, inside the plate."""
    inside = module.area.buffer(-EDGE - wide / 2)
    screws = shapely.union_all([shapely.Point(f.x, f.y).buffer(f.hole / 2 + 1) for f in module.fixings])
    return inside.difference(taken_at(scene, depth).buffer(wide / 2 + 0.5)).difference(screws.buffer(wide / 2))


def _runs(free: BaseGeometry, y: float, bounds: tuple[float, float, float, float], step: float) -> list[Strip]:
    line = shapely.LineString([(bounds[0], y), (bounds[2], y)])
    met = shapely.intersection(free, line)
    made = []
    for piece in getattr(met, "geoms", (met,)):
        if piece.geom_type != "LineString" or piece.is_empty:
            continue
        x0, _, x1, _ = piece.bounds
        many = int((x1 - x0) / step + 1e-9)
        if many >= 1:
            left = (x0 + x1 - many * step) / 2
            x, x2 = round(left, 2), round(left + many * step + 0.005, 2)
            made.append(Strip(id="new", x=x, y=round(y, 2), x2=x2, y2=round(y, 2)))
    return made


def at_points(lamps: tuple[Lamp, ...], scene: Scene, points: Field, shaded: bool) -> Field:
    """Illuminance (lx) that lamps throw on points of the plate, with the bodies' shadows or without."""
    total = np.zeros(len(points))
    for lamp in lamps:
        h = lamp.z - scene.way.plane
        dx, dy = points[:, 0] - lamp.x, points[:, 1] - lamp.y
        near = np.flatnonzero(np.maximum(np.abs(dx), np.abs(dy)) < FOLLOWED * h)
        if not len(near):
            continue
        dx, dy = dx[near], dy[near]
        square = h * h + dx**2 + dy**2
        far = np.sqrt(square)
        forward = math.sqrt(max(0.0, 1 - lamp.aside[0] ** 2 - lamp.aside[1] ** 2))
        along = np.maximum(0.0, dx * lamp.aside[0] + dy * lamp.aside[1] + h * forward) / far
        lit = lamp.intensity * along**lamp.exponent * (h / far) / square * 1e6
        if shaded:
            hulls = shadows(lamp, scene.bodies.near(lamp.x, lamp.y, FOLLOWED * h), scene.way.plane)
            if len(hulls):
                found = shapely.STRtree(hulls).query(shapely.points(points[near]), predicate="intersects")
                lit[np.unique(found[0])] = 0.0
        total[near] += lit
    return total


def _strips(
    module: ResolvedModule, scene: Scene, points: Field, kind: StripKind, depth: float, report: Report
) -> list[Strip]:
    """Rows between the bodies, each where it lights most of what is dark yet."""
    free = free_for(module, scene, depth, STRIP_WIDE)
    x0, y0, x1, y1 = module.area.bounds
    rows, apart = [], max(ROWS, (y1 - y0) / MOST_ROWS)
    for n in range(int((y1 - y0) / apart)):
        report(0.05 + 0.25 * n * apart / (y1 - y0), "Trying rows")
        runs = _runs(free, y0 + apart * (n + 0.5), (x0, y0, x1, y1), STRIPS[kind].step)
        if runs:
            lamps = tuple(lamp for run in runs for lamp in lamps_of_strip(run.model_copy(update={"kind": kind}), depth))
            rows.append((runs, at_points(lamps, scene, points, shaded=True)))
    if not rows:
        return []
    wanted = ENOUGH * max(float(field.max()) for _, field in rows)

    def worth(field: Field) -> float:
        return float(np.minimum(wanted, field).sum() - np.maximum(0.0, field - 2 * wanted).sum() / 2)

    total, chosen = np.zeros(len(points)), []
    for _ in range(MOST_RUNS):
        gains = [worth(total + field) - worth(total) for _, field in rows]
        best = int(np.argmax(gains))
        if gains[best] < 0.03 * wanted * len(points):
            break
        chosen += rows[best][0]
        total = total + rows[best][1]
    return [run.model_copy(update={"kind": kind}) for run in chosen]


def _round_the_edge(module: ResolvedModule, kind: StripKind, depth: float) -> list[Strip]:
    """A strip along each side, leaning inwards by 45°, as on a shelf round the wall."""
    x0, y0, x1, y1 = module.area.buffer(-EDGE - STRIP_WIDE / 2).bounds
    corners = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    made = []
    for (ax, ay), (bx, by) in zip(corners, corners[1:] + corners[:1], strict=True):
        length, step = math.dist((ax, ay), (bx, by)), STRIPS[kind].step
        share = int(length / step + 1e-9) * step / length
        if share > 0:
            x, y = ax + (bx - ax) * (1 - share) / 2, ay + (by - ay) * (1 - share) / 2
            x2, y2 = x + (bx - ax) * share, y + (by - ay) * share
            far = {"x2": round(x2 + math.copysign(0.01, bx - ax) * (bx != ax), 2)}
            far["y2"] = round(y2 + math.copysign(0.01, by - ay) * (by != ay), 2)
            made.append(Strip(id="new", kind=kind, x=round(x, 2), y=round(y, 2), **far, z=depth, tilt=45))
    return made


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


def _under_strips(scene: Scene) -> BaseGeometry:
    """Where the middle of an LED would lie on a strip."""
    runs = [shapely.LineString([(p.x, p.y) for p in g.lamps]) for g in scene.groups if len(g.lamps) > 1]
    return shapely.union_all([run.buffer((STRIP_WIDE + LED_WIDE) / 2) for run in runs])


def _places(
    r: Resolved, module: ResolvedModule, night: Night, functions: set[str], depth: float
) -> list[tuple[float, float]]:
    """Where single LEDs may lie for some legends: behind their words, and round the bodies of their controls."""
    free = free_for(module, night.scene, depth, LED_WIDE).difference(_under_strips(night.scene))
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
    r: Resolved, module: ResolvedModule, night: Night, functions: set[str], wanted: float, kind: LedKind = "led-flat"
) -> tuple[Ring, ...]:
    """Single LEDs that make some legends as even as wanted, or as even as they can, and no other one worse.

    What they add is worked out at the points of all legends of the module, shadows included; of several brightnesses
    to strive for, that is taken which leaves the fewest legends uneven.
    """
    if not night.scene.way.lit:
        return ()
    depth = board_front(module.stack)
    points = _points(r, module, night)
    places = _places(r, module, night, functions, depth)
    if not len(points.at) or not places:
        return ()
    lamps = [_lamp(Ring(x, y, 1.0), depth, kind) for x, y in places]
    passed = night.scene.way.transmission / math.pi
    gives = np.column_stack([at_points((lamp,), night.scene, points.at, shaded=True) * passed for lamp in lamps])
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


def _lamp(ring: Ring, depth: float, kind: LedKind = "led-flat") -> Lamp:
    return Lamp(ring.x, ring.y, depth, LEDS[kind].intensity * ring.level, LEDS[kind].exponent)


def leds_added(module: str, ring: Iterable[Ring]) -> list[AddLeds]:
    """The commands that lay single LEDs, one for each brightness."""
    alike: dict[float, list[Point]] = {}
    for led in ring:
        alike.setdefault(led.level, []).append(Point(x=led.x, y=led.y))
    return [AddLeds(module=module, at=tuple(at), level=level) for level, at in sorted(alike.items(), reverse=True)]


def _lacks(legend: LegendLight, night: Night, wanted: float) -> float:
    """How far a legend is from even, and from nearly as bright as the others have in the middle."""
    share = legend.mean / night.usual if night.usual > 0 else 0.0
    return max(0.0, wanted - legend.evenness) + max(0.0, DIM - share)


def _lacking(night: Night, wanted: float) -> float:
    return sum(_lacks(legend, night, wanted) for legend in night.legends)


def _night(r: Resolved, module: ResolvedModule, light: Backlight) -> Night:
    scene = scene_of(module, light)
    made = map_of(scene)
    return Night(scene, made, legends_lit(r, module, scene, made))


def suggest(
    r: Resolved, module: ResolvedModule, wanted: float, way: Way = "rows", kind: StripKind = "strip-60",
    report: Report = lambda done, words: None,
) -> Suggested:  # fmt: skip
    """Strips where a module has none, then LEDs for the legends that are not even enough.

    :param wanted: least over mean of every legend. :param report: told how far it is; raises to stop.
    """
    light = module.module.light or Backlight()
    depth = board_front(module.stack)
    before = _night(r, module, light)
    commands: list[AddStrip | AddLeds] = []
    strips = list(light.strips)
    if not strips:
        report(0.05, "Laying strips")
        words = lit_words(r, module)
        points = np.concatenate([lit.points[::3] for lit in words]) if words else np.zeros((0, 2))
        points = points[:: max(1, len(points) // MOST_TRIED)]
        found = _strips(module, before.scene, points, kind, depth, report) if way == "rows" else None
        for n, strip in enumerate(_round_the_edge(module, kind, depth) if found is None else found, 1):
            strips.append(strip.model_copy(update={"id": f"new-{n}"}))
            said = strip.model_dump(exclude={"id"}, exclude_defaults=True)
            commands.append(AddStrip(module=module.module.id, **said))
    night = _night(r, module, light.model_copy(update={"strips": tuple(strips)}))
    scene = night.scene
    leds: list[Ring] = []
    tries: Counter[str] = Counter()
    together = BATCH if len(night.legends) <= 2 * BATCH else BATCH // 3
    turns = len(MARGINS) * math.ceil(len(night.legends) / together)
    for turn in range(turns):
        report(0.3 + 0.7 * turn / turns, f"{len(leds)} LEDs so far")
        left = [x for x in night.legends if tries[x.function] < len(MARGINS) and x.uncovered < 1]
        lacking = {x.function: _lacks(x, night, wanted) for x in left}
        batch = sorted((f for f in lacking if lacking[f] > 0), key=lambda f: (tries[f], -lacking[f]))[:together]
        if not batch:
            break
        margin = MARGINS[min(tries[f] for f in batch)]
        tries.update(batch)
        more = leds_for(r, module, night, set(batch), wanted + margin)
        if not more:
            continue
        tried = [*leds, *more]
        groups = tuple(Group(f"new-led-{n}", (_lamp(led, depth),)) for n, led in enumerate(tried))
        made = map_of(scene._replace(groups=(*scene.groups, *groups)))
        after = Night(scene, made, legends_lit(r, module, scene, made))
        if _lacking(after, wanted) < _lacking(night, wanted):
            leds, night = tried, after
    commands += leds_added(module.module.id, leds)
    return Suggested(tuple(commands), before.legends, night.legends)
