"""Openings, drilled holes and outlines: half a cut beside their lines, outlines with tabs. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import shapely

from wingboard.core.cut.beside import beside, outside
from wingboard.core.cut.bones import bones, with_bones
from wingboard.core.cut.cutters import drill_for, mills, tool_for
from wingboard.core.cut.feeds import (
    THROUGH,
    Feeds,
    lasering,
    milling,
)
from wingboard.core.cut.sheets import Sheet
from wingboard.core.cut.toolpath import (
    Cut,
    Levels,
    Step,
    burnt,
    drilled,
    edges_of,
    milled_loop,
    started_near,
)
from wingboard.core.cut.travel import Place
from wingboard.core.cut.work import Kind, Operation, Target, Work, as_loop, first_of, operation
from wingboard.core.files.gcode import CLEAR
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, reversed_loop

LEAD = 1.0
"""A laser's cut begins so far (mm) beside its line, in what falls out (common practice: the mark of the start)."""
TURN = 0.1
"""A mill that goes round a narrow hole goes down by this share of its diameter a turn, at least (common practice)."""
TAB_EVERY = 150.0
TABS = {"mill": (4.0, 1.0), "laser": (0.6, math.inf)}
"""How wide tabs are, and how high they stand (mm): a mill leaves them at the bottom, a laser all through."""


def openings(work: Work, items: Sequence[Item]) -> list[Operation]:
    """What is cut out within the pieces: by drill where one fits, else half a cut inside each line."""
    sheet, machine = work.sheet, work.sheet.machine
    wider = work.fit.wider / 2
    if work.laser:
        feeds, passes = lasering(sheet.material, sheet.thickness, machine)
        by = (0.0 if machine.offsets else work.fit.kerf / 2) - wider
        lines = [(item.label, beside(item.path, by)) for item in items]
        targets = [
            Target(label, first_of(line), _laser_cut(label, line, feeds, passes, inwards=True))
            for label, mine in lines
            for line in mine
        ]
        lost = [label for label, mine in lines if not mine]
        return (
            [operation(work, "inner", targets, None, feeds, work.fit.kerf, sheet.thickness, "front", lost)]
            if items
            else []
        )
    made = _drills(work, items)
    drilled_items = {id(i) for i in items if drill_for(machine, i)}
    by_tool: dict[int, list[Item]] = {}
    lost = []
    for item in items:
        if id(item) in drilled_items:
            continue
        fitting = tool_for(machine, item.path, sheet.thickness)
        if fitting is None:
            lost.append(item.label)
        else:
            by_tool.setdefault(fitting[0], []).append(item)
    for number in sorted(by_tool, key=lambda n: -machine.tools[n - 1].diameter):
        tool = machine.tools[number - 1]
        feeds = milling(sheet.material, tool, machine)
        levels = Levels(-(sheet.thickness + THROUGH), feeds.step, TURN * tool.diameter)
        half = tool.diameter / 2
        ways = [
            (item.label, with_bones(line, bones(item.path, half) if machine.bones else (), half))
            for item in by_tool[number]
            for line in beside(item.path, half - wider)
        ]
        targets = [
            Target(label, first_of(way), _mill_cut(label, way, levels, feeds, clockwise=not machine.climb))
            for label, way in ways
        ]
        made.append(
            operation(work, "inner", targets, (number, tool), feeds, tool.diameter, -levels.bottom, "front", lost)
        )
        lost = []
    if lost:
        made.append(operation(work, "inner", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost))
    return made


def _drills(work: Work, items: Sequence[Item], kind: Kind = "drill", side: str = "front") -> list[Operation]:
    machine, sheet = work.sheet.machine, work.sheet
    by_drill: dict[int, list[CirclePath]] = {}
    labels: dict[CirclePath, str] = {}
    for item in items:
        found = drill_for(machine, item)
        if found is not None and isinstance(item.path, CirclePath):
            by_drill.setdefault(found[0], []).append(item.path)
            labels[item.path] = item.label
    made = []
    for number, holes in by_drill.items():
        tool = machine.tools[number - 1]
        feeds = milling(sheet.material, tool, machine)
        levels = Levels(-(sheet.thickness + THROUGH + tool.diameter * 0.3), tool.diameter)
        targets = [Target(labels[h], (h.x, h.y), _drill_cut(labels[h], h, levels, feeds)) for h in holes]
        made.append(
            operation(work, kind, targets, (number, tool), feeds, tool.diameter, -levels.bottom, side)
        )  # fmt: skip
    return made


def _drill_cut(label: str, hole: CirclePath, levels: Levels, feeds: Feeds) -> Callable[[Place], list[Cut]]:
    return lambda _: [Cut(label, hole.x, hole.y, tuple(drilled(hole.x, hole.y, levels, feeds.plunge, CLEAR)))]


def outlines(work: Work, items: Sequence[Item]) -> list[Operation]:
    """The outlines, half a cut outside, with tabs."""
    sheet, machine = work.sheet, work.sheet.machine
    if not items:
        return []
    if work.laser:
        feeds, passes = lasering(sheet.material, sheet.thickness, machine)
        by = 0.0 if machine.offsets else work.fit.kerf / 2
        lines = [(item.label, outside(item.path, by)) for item in items]
        wide = TABS["laser"][0] + work.fit.kerf
        targets = [
            Target(label, first_of(line), _laser_cut(label, line, feeds, passes, inwards=False, tab=wide, sheet=sheet))
            for label, line in lines
        ]
        return [operation(work, "outline", targets, None, feeds, work.fit.kerf, sheet.thickness, "front")]
    thick = mills(machine, sheet.thickness)
    if not thick:
        lost = [i.label for i in items]
        return [operation(work, "outline", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost)]
    number, tool = thick[0]
    feeds = milling(sheet.material, tool, machine)
    levels = Levels(-(sheet.thickness + THROUGH), feeds.step, TURN * tool.diameter)
    wide, high = TABS["mill"]
    high = min(high, sheet.thickness / 2)
    tab = wide + tool.diameter, high - sheet.thickness
    targets = [
        Target(
            item.label, first_of(line),
            _mill_cut(item.label, line, levels, feeds, clockwise=machine.climb, tab=tab),
        )
        for item in items
        for line in [outside(item.path, tool.diameter / 2)]
    ]  # fmt: skip
    return [
        operation(work, "outline", targets, (number, tool), feeds, tool.diameter, -levels.bottom, "front")
    ]  # fmt: skip


def tabs_along(total: float, wide: float) -> list[tuple[float, float]]:
    """Where tabs stand along a path (mm): three or more, even, none where the path begins."""
    many = max(3, math.ceil(total / TAB_EVERY))
    if total < many * wide * 2:
        return []
    return [(total * (n + 0.5) / many - wide / 2, total * (n + 0.5) / many + wide / 2) for n in range(many)]


def _laser_cut(
    label: str, line: CirclePath | Loop, feeds: Feeds, passes: int, *, inwards: bool, tab: float = 0.0,
    sheet: Sheet | None = None,
) -> Callable[[Place], list[Cut]]:  # fmt: skip
    def make(at: Place) -> list[Cut]:
        loop = as_loop(line, at)
        edges = edges_of(loop, closed=True)
        gaps = tabs_along(sum(e.length for e in edges), tab) if tab else []
        start = _lead(loop, inwards, sheet)
        steps = burnt(loop, True, feeds.feed, passes, gaps)
        lead = [Step(loop[0].x, loop[0].y, 0.0, 0.0, feeds.feed)] if start != (loop[0].x, loop[0].y) else []
        return [Cut(label, *start, (*lead, *steps))]

    return make


def _lead(loop: Loop, inwards: bool, sheet: Sheet | None) -> Place:
    """Where the beam lights: beside the line, in what falls out, or on the line where there is no room for that."""
    edge = edges_of(loop, closed=True)[0]
    along = math.atan2(edge.y1 - edge.y0, edge.x1 - edge.x0) - 2 * math.atan(edge.bulge)
    by = LEAD if inwards else -LEAD
    x, y = loop[0].x - by * math.sin(along), loop[0].y + by * math.cos(along)
    if inwards:
        points = [(e.x0, e.y0) for e in edges_of(loop, True)]
        room = shapely.Polygon(points) if len(points) > 2 else None
        if room is None:  # a circle of two arcs
            radius = math.dist((loop[0].x, loop[0].y), (loop[1].x, loop[1].y)) / 2
            return (x, y) if radius > 1.5 * LEAD else (loop[0].x, loop[0].y)
        fits = room.contains(shapely.Point(x, y)) and room.exterior.distance(shapely.Point(x, y)) > LEAD / 2
        return (x, y) if fits else (loop[0].x, loop[0].y)
    margin = sheet.machine.margin if sheet else 0.0
    if sheet is not None:
        bx, by_ = x + sheet.at[0], y + sheet.at[1]
        on_bed = margin <= bx <= sheet.machine.bed_width - margin and margin <= by_ <= sheet.machine.bed_height - margin
        if not on_bed:
            return loop[0].x, loop[0].y
    return x, y


def _mill_cut(
    label: str, line: CirclePath | Loop, levels: Levels, feeds: Feeds, *, clockwise: bool,
    tab: tuple[float, float] = (0.0, 0.0),
) -> Callable[[Place], list[Cut]]:  # fmt: skip
    """A line gone round, either way. Climb milling keeps what stays on the right: openings counter-clockwise."""

    def make(at: Place) -> list[Cut]:
        loop = as_loop(line, at)
        if clockwise:
            loop = started_near(reversed_loop(loop), loop[0].x, loop[0].y)
        total = sum(e.length for e in edges_of(loop, closed=True))
        tabs = tabs_along(total, tab[0]) if tab[0] else []
        steps = milled_loop(loop, levels, feeds.feed, feeds.plunge, tabs, tab[1])
        return [Cut(label, loop[0].x, loop[0].y, tuple(steps))]

    return make
