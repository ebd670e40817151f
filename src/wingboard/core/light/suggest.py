"""Where lamps would have to lie so that every legend reads: strips where there are none, then LEDs for what lacks."""

from __future__ import annotations

import math
from collections import Counter
from typing import Literal, NamedTuple

import numpy as np

from wingboard.core.changes.commands.lights import AddLeds, AddStrip
from wingboard.core.light.figures import LegendLight, Night, legends_lit
from wingboard.core.light.mapping import map_of
from wingboard.core.light.rings import MARGINS, Ring, lamp_at, leds_added, leds_for
from wingboard.core.light.runs import Report, rows_of_strips, strips_round_the_edge
from wingboard.core.light.scene import Group, scene_of
from wingboard.core.light.words import lit_words
from wingboard.core.record.lights import Backlight, StripKind
from wingboard.core.resolved.boards import board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

BATCH = 24
"""Legends that LEDs are looked for together, the worst first."""
MOST_TRIED = 1500
"""Points of letters that rows of strip are tried at."""
DIM = 0.5
"""Legends with less of the usual light than this get more."""
Way = Literal["rows", "edge"]
"""Strips in rows between the bodies, or round the edge, tilted inwards by 45°."""


class Suggested(NamedTuple):
    """Commands that light a module, and its legends before and after."""

    commands: tuple[AddStrip | AddLeds, ...]
    before: tuple[LegendLight, ...]
    after: tuple[LegendLight, ...]


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
        found = rows_of_strips(module, before.scene, points, kind, depth, report) if way == "rows" else None
        for n, strip in enumerate(strips_round_the_edge(module, kind, depth) if found is None else found, 1):
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
        more = leds_for(r, module, night, set(batch), wanted + margin, strips)
        if not more:
            continue
        tried = [*leds, *more]
        groups = tuple(Group(f"new-led-{n}", (lamp_at(led, depth),)) for n, led in enumerate(tried))
        lit = scene._replace(groups=(*scene.groups, *groups))  # where LEDs lie now, no more are laid
        made = map_of(lit)
        after = Night(lit, made, legends_lit(r, module, lit, made))
        if _lacking(after, wanted) < _lacking(night, wanted):
            leds, night = tried, after
    commands += leds_added(module.module.id, leds)
    return Suggested(tuple(commands), before.legends, night.legends)
