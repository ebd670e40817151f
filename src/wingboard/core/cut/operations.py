"""What is done to a sheet, in which order: a trial, words, lines, pockets, drilled holes, openings, the outlines last.

Operations are kept apart by what they are and by their tool, so that each can be run again by itself; all start from
one marked origin, the sheet's lower left corner. Lengths in mm.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import groupby
from typing import Literal, NamedTuple

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import beside, filled, inside, outside, polygons, region_of
from wingboard.core.cut.feeds import (
    THROUGH,
    Feeds,
    burning,
    engraved_width,
    engraving,
    lasering,
    milling,
)
from wingboard.core.cut.sheets import Sheet
from wingboard.core.cut.timing import Way, times
from wingboard.core.cut.toolpath import (
    Cut,
    Levels,
    Step,
    burnt,
    circle_loop,
    drilled,
    edges_of,
    milled_line,
    milled_loop,
    started_near,
)
from wingboard.core.cut.travel import Place, bound, short_way
from wingboard.core.files.gcode import CLEAR, SAFE
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, Vertex, area_of, reversed_loop
from wingboard.core.record.cutting import Fitted
from wingboard.core.record.design import Design
from wingboard.core.record.workshop import Machine, Material, Tool

Kind = Literal["trial", "words", "lines", "pocket", "drill", "inner", "outline", "pins"]
ORDER: tuple[Kind, ...] = ("pins", "trial", "words", "lines", "pocket", "drill", "inner", "outline")
"""Outlines last, so that the piece stays held; a trial first, where it is cut away later (common practice)."""
TITLES: dict[Kind, str] = {
    "pins": "Holes to turn it over by", "trial": "Trial engraving", "words": "Engrave words", "lines": "Engrave lines",
    "pocket": "Pockets", "drill": "Drill holes", "inner": "Inner openings", "outline": "Outlines, last",
}  # fmt: skip
ENGRAVED = 0.3
"""How deep (mm) words are engraved where no coupon said (common practice)."""
READS = 0.75
"""A pointed cutter that covers less than this share of the letters goes less deep, so that it is thinner."""
SHALLOWEST = 0.1
LEAD = 1.0
"""A laser's cut begins so far (mm) beside its line, in what falls out (common practice: the mark of the start)."""
ROUNDING = 0.7
"""A cutter that leaves more than this (mm) in a corner gives way to a thinner one, where there is one."""
PLAY = 0.02
"""A cutter that has less room than this (mm) on each side is too thick for an opening (common practice)."""
DRILLS = 0.1
"""A drill takes a hole that is wider or narrower by so much (mm)."""
HAIR = 0.05
"""Engraving is filled by lines no nearer to each other than this (mm), …"""
MOST_WAY = 200_000.0
"""… and no longer in all than this (mm)."""
DEEPEST = 10.0
"""An end mill that would have to go deeper than so many times its diameter is not taken (common practice: four)."""
TURN = 0.1
"""A mill that goes round a narrow hole goes down by this share of its diameter a turn, at least (common practice)."""
PIN = 3.0
"""Diameter (mm) of the holes that a sheet is turned over by (common practice)."""
TAB_EVERY = 150.0
TABS = {"mill": (4.0, 1.0), "laser": (0.6, math.inf)}
"""How wide tabs are, and how high they stand (mm): a mill leaves them at the bottom, a laser all through."""


class Fit(NamedTuple):
    """What is known of a machine and a kind of sheet: its kerf, what holes are wider, how deep it engraves."""

    kerf: float
    wider: float
    engraved: float
    tried: bool


def fit_of(design: Design, machine: Machine, material: Material, thickness: float) -> Fit:
    """What a coupon showed, else what the machine is said to do."""
    found: Fitted | None = next(
        (
            f
            for f in design.cutting.fitted
            if (f.machine, f.material) == (machine.id, material) and abs(f.thickness - thickness) < 1e-6
        ),
        None,
    )
    if found is None:
        return Fit(machine.kerf, 0.0, ENGRAVED, False)
    kerf = machine.kerf if found.kerf is None else found.kerf
    return Fit(kerf, found.wider, found.engraved or ENGRAVED, found.kerf is not None)


class Operation(NamedTuple):
    """One operation of a sheet.

    ``width`` is what the tool or the beam takes away at the surface; ``depth`` how deep it goes, more than the sheet
    where it goes through; ``side`` the side that is up; ``times`` how long each cut takes (s); ``travel`` and ``bound``
    how far it moves without cutting, and the least that any order of the same cuts would.
    """

    kind: Kind
    title: str
    side: str
    tool: Tool | None
    number: int
    feeds: Feeds
    width: float
    depth: float
    cuts: tuple[Cut, ...]
    times: tuple[float, ...]
    travel: float
    bound: float
    left_out: tuple[str, ...] = ()

    @property
    def seconds(self) -> float:
        """How long it takes, by the plan."""
        return sum(self.times)


class Target(NamedTuple):
    """What is done in one go: whose it is, where it begins, and the cut, made when it is known where the tool is."""

    label: str
    at: Place
    make: Callable[[Place], list[Cut]]


class Work(NamedTuple):
    """A sheet with what is known of it."""

    sheet: Sheet
    fit: Fit

    @property
    def laser(self) -> bool:
        """Whether a beam cuts it."""
        return self.sheet.machine.kind == "laser"


def operations(design: Design, sheet: Sheet) -> tuple[Operation, ...]:
    """All operations of a sheet in their order (:data:`ORDER`); what there is no tool for is named in ``left_out``."""
    fit = fit_of(design, sheet.machine, sheet.material, sheet.thickness)
    work = Work(sheet, fit)
    items = [item for laid in sheet.laid for item in laid.items()]
    front = [i for i in items if i.operation != "pocket"]
    made: list[Operation] = []
    turned = any(laid.piece.turned_over for laid in sheet.laid)
    pockets = [i for i in items if i.operation == "pocket"]
    if turned:
        made += _turned_over(work, pockets)
        pockets = []
    made += _engravings(work, front)
    made += _pockets(work, pockets, "behind" if any(p.piece.side == "behind" for p in sheet.laid) else "front")
    made += _openings(work, [i for i in front if i.operation == "inner"])
    made += _outlines(work, [i for i in front if i.operation == "outline"])
    return tuple(made)


# ---- Tools ----------------------------------------------------------------------------------------------------------


def _mills(machine: Machine, deep: float) -> list[tuple[int, Tool]]:
    """The end mills that go so deep (mm), the thickest first, with their numbers in the machine's list, from 1."""
    found = [(n, t) for n, t in enumerate(machine.tools, 1) if t.kind == "mill" and deep <= DEEPEST * t.diameter]
    return sorted(found, key=lambda nt: -nt[1].diameter)


def unreached(path: CirclePath | Loop, diameter: float) -> float:
    """How far (mm) from the furthest place of an opening a cutter stays: in its corners, or in a notch too narrow."""
    if isinstance(path, CirclePath):
        return 0.0 if path.diameter >= diameter else math.inf
    area, half = area_of(path), diameter / 2
    opened = area.buffer(-half, quad_segs=16).buffer(half, quad_segs=16)
    if opened.is_empty:
        return math.inf
    corners = shapely.points(shapely.get_coordinates(area.exterior))
    return float(shapely.distance(corners, opened).max())


def _tool_for(machine: Machine, path: CirclePath | Loop, deep: float) -> tuple[int, Tool] | None:
    """The thickest end mill that goes in and leaves little in the corners; else the thinnest that goes in."""
    play = 2 * PLAY
    fitting = [(n, t) for n, t in _mills(machine, deep) if inside(path, t.diameter / 2 + PLAY)]
    good = [(n, t) for n, t in fitting if unreached(path, t.diameter + play) <= ROUNDING]
    return good[0] if good else (fitting[-1] if fitting else None)


# ---- Making operations ----------------------------------------------------------------------------------------------


def _operation(
    work: Work, kind: Kind, targets: Sequence[Target], tool: tuple[int, Tool] | None, feeds: Feeds, width: float,
    depth: float, side: str, left_out: Sequence[str] = (),
) -> Operation:  # fmt: skip
    """An operation whose cuts are in an order that needs little travel."""
    places = [t.at for t in targets]
    order = short_way(places, (0.0, 0.0))
    cuts: list[Cut] = []
    at: Place = (0.0, 0.0)
    for n in order:
        for cut in targets[n].make(at):
            if cut.steps:
                cuts.append(cut)
                at = cut.end
    travel, lasts = _times(cuts, work.sheet.machine, work.laser)
    return Operation(
        kind, TITLES[kind], side, tool[1] if tool else None, tool[0] if tool else 0, feeds, width, depth, tuple(cuts),
        lasts, travel, bound(places, (0.0, 0.0)), tuple(left_out),
    )  # fmt: skip


def _times(cuts: Sequence[Cut], machine: Machine, laser: bool) -> tuple[float, tuple[float, ...]]:
    """How far (mm) the tool travels between cuts, and how long each takes with the way to it (s)."""
    travel, moves, ends = 0.0, [], []
    x, y = 0.0, 0.0
    for cut in cuts:
        travel += math.hypot(cut.x - x, cut.y - y)
        high, z = (0.0, 0.0) if laser else (SAFE, CLEAR)
        moves.append(Way(x, y, high, cut.x, cut.y, high, 0.0, machine.feed, True))
        moves.append(Way(cut.x, cut.y, high, cut.x, cut.y, z, 0.0, machine.feed, True))
        x, y = cut.x, cut.y
        for step in cut.steps:
            moves.append(Way(x, y, z, step.x, step.y, step.z, step.bulge, step.feed))
            x, y, z = step.x, step.y, step.z
        moves.append(Way(x, y, z, x, y, high, 0.0, machine.feed))
        ends.append(len(moves))
    taken = np.concatenate([[0.0], times(moves, machine.acceleration).cumsum()])
    return travel, tuple(np.diff(taken[[0, *ends]]).tolist())


def _middle_of_longest(loop: Loop) -> Loop:
    """The closed loop beginning in the middle of its longest edge."""
    if len(loop) == 2:
        return loop
    edges = edges_of(loop, closed=True)
    if not edges:
        return loop
    longest = max(range(len(edges)), key=lambda k: edges[k].length)
    one, two = edges[longest].part(0.0, 0.5), edges[longest].part(0.5, 1.0)
    run = [two, *edges[longest + 1 :], *edges[:longest], one]
    return tuple(Vertex(e.x0, e.y0, e.bulge) for e in run)


def _as_loop(path: CirclePath | Loop, towards: Place) -> Loop:
    if isinstance(path, CirclePath):
        return circle_loop(path.x, path.y, path.diameter / 2, towards)
    return _middle_of_longest(path)


def _first(path: CirclePath | Loop) -> Place:
    if isinstance(path, CirclePath):
        return path.x, path.y
    loop = _middle_of_longest(path)
    return loop[0].x, loop[0].y


# ---- Openings and outlines ------------------------------------------------------------------------------------------


def _openings(work: Work, items: Sequence[Item]) -> list[Operation]:
    sheet, machine = work.sheet, work.sheet.machine
    wider = work.fit.wider / 2
    if work.laser:
        feeds, passes = lasering(sheet.material, sheet.thickness, machine)
        by = (0.0 if machine.offsets else work.fit.kerf / 2) - wider
        targets = [
            Target(item.label, _first(line), _laser_cut(item.label, line, feeds, passes, inwards=True))
            for item in items
            for line in beside(item.path, by)
        ]
        lost = [i.label for i in items if not beside(i.path, by)]
        return (
            [_operation(work, "inner", targets, None, feeds, work.fit.kerf, sheet.thickness, "front", lost)]
            if items
            else []
        )
    made = _drills(work, items)
    drilled_items = {id(i) for i in items if _drill_for(machine, i)}
    by_tool: dict[int, list[Item]] = {}
    lost = []
    for item in items:
        if id(item) in drilled_items:
            continue
        fitting = _tool_for(machine, item.path, sheet.thickness)
        if fitting is None:
            lost.append(item.label)
        else:
            by_tool.setdefault(fitting[0], []).append(item)
    for number in sorted(by_tool, key=lambda n: -machine.tools[n - 1].diameter):
        tool = machine.tools[number - 1]
        feeds = milling(sheet.material, tool, machine)
        levels = Levels(-(sheet.thickness + THROUGH), feeds.step, TURN * tool.diameter)
        targets = [
            Target(item.label, _first(line), _mill_cut(item.label, line, levels, feeds, climb=False))
            for item in by_tool[number]
            for line in beside(item.path, tool.diameter / 2 - wider)
        ]
        made.append(
            _operation(work, "inner", targets, (number, tool), feeds, tool.diameter, -levels.bottom, "front", lost)
        )
        lost = []
    if lost:
        made.append(_operation(work, "inner", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost))
    return made


def _drill_for(machine: Machine, item: Item) -> tuple[int, Tool] | None:
    if not isinstance(item.path, CirclePath):
        return None
    wanted = item.path.diameter
    found = [(n, t) for n, t in enumerate(machine.tools, 1) if t.kind == "drill" and abs(t.diameter - wanted) <= DRILLS]
    return min(found, key=lambda nt: abs(nt[1].diameter - wanted), default=None)


def _drills(work: Work, items: Sequence[Item], kind: Kind = "drill", side: str = "front") -> list[Operation]:
    machine, sheet = work.sheet.machine, work.sheet
    by_drill: dict[int, list[CirclePath]] = {}
    labels: dict[CirclePath, str] = {}
    for item in items:
        found = _drill_for(machine, item)
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
            _operation(work, kind, targets, (number, tool), feeds, tool.diameter, -levels.bottom, side)
        )  # fmt: skip
    return made


def _drill_cut(label: str, hole: CirclePath, levels: Levels, feeds: Feeds) -> Callable[[Place], list[Cut]]:
    return lambda _: [Cut(label, hole.x, hole.y, tuple(drilled(hole.x, hole.y, levels, feeds.plunge, CLEAR)))]


def _outlines(work: Work, items: Sequence[Item]) -> list[Operation]:
    sheet, machine = work.sheet, work.sheet.machine
    if not items:
        return []
    if work.laser:
        feeds, passes = lasering(sheet.material, sheet.thickness, machine)
        by = 0.0 if machine.offsets else work.fit.kerf / 2
        lines = [(item.label, outside(item.path, by)) for item in items]
        wide = TABS["laser"][0] + work.fit.kerf
        targets = [
            Target(label, _first(line), _laser_cut(label, line, feeds, passes, inwards=False, tab=wide, sheet=sheet))
            for label, line in lines
        ]
        return [_operation(work, "outline", targets, None, feeds, work.fit.kerf, sheet.thickness, "front")]
    mills = _mills(machine, sheet.thickness)
    if not mills:
        lost = [i.label for i in items]
        return [_operation(work, "outline", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost)]
    number, tool = mills[0]
    feeds = milling(sheet.material, tool, machine)
    levels = Levels(-(sheet.thickness + THROUGH), feeds.step, TURN * tool.diameter)
    wide, high = TABS["mill"]
    high = min(high, sheet.thickness / 2)
    targets = [
        Target(
            item.label, _first(line),
            _mill_cut(item.label, line, levels, feeds, climb=True, tab=(wide + tool.diameter, high - sheet.thickness)),
        )
        for item in items
        for line in [outside(item.path, tool.diameter / 2)]
    ]  # fmt: skip
    return [
        _operation(work, "outline", targets, (number, tool), feeds, tool.diameter, -levels.bottom, "front")
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
        loop = _as_loop(line, at)
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
    label: str, line: CirclePath | Loop, levels: Levels, feeds: Feeds, *, climb: bool,
    tab: tuple[float, float] = (0.0, 0.0),
) -> Callable[[Place], list[Cut]]:  # fmt: skip
    """Climb milling: what stays is on the right of the way; inside openings counter-clockwise, outside clockwise."""

    def make(at: Place) -> list[Cut]:
        loop = _as_loop(line, at)
        if climb:
            loop = started_near(reversed_loop(loop), loop[0].x, loop[0].y)
        total = sum(e.length for e in edges_of(loop, closed=True))
        tabs = tabs_along(total, tab[0]) if tab[0] else []
        steps = milled_loop(loop, levels, feeds.feed, feeds.plunge, tabs, tab[1])
        return [Cut(label, loop[0].x, loop[0].y, tuple(steps))]

    return make


# ---- Engraving ------------------------------------------------------------------------------------------------------


def _engravings(work: Work, items: Sequence[Item]) -> list[Operation]:
    words = [i for i in items if i.operation == "engrave" and not i.graphic]
    lines = [i for i in items if i.operation == "engrave" and i.graphic]
    if not words and not lines:
        return []
    machine, sheet = work.sheet.machine, work.sheet
    tool: tuple[int, Tool] | None = None
    if work.laser:
        feeds, width, depth = burning(machine), work.fit.kerf, work.fit.engraved
    else:
        tool = next(((n, t) for n, t in enumerate(machine.tools, 1) if t.kind == "engraver"), None)
        if tool is None:
            lost = sorted({i.label for i in (*words, *lines)})
            return [_operation(work, "words", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost)]
        depth = engraving_depth(tool[1], [*words, *lines], work.fit.engraved)
        width = engraved_width(tool[1], depth)
        feeds = engraving(sheet.material, tool[1], machine, depth)
    # A hair-thin beam or tip would go round for ever; so much engraving is laid wider apart instead.
    width = max(width, HAIR, region_of([*words, *lines]).area / MOST_WAY)
    made = []
    groups: dict[Kind, list[Target]] = {}
    kinds: list[tuple[Kind, Sequence[Item]]] = [
        ("trial", _trial(words, [i for i in items if i.operation == "inner"])),
        ("words", words),
        ("lines", lines),
    ]
    for kind, some in kinds:
        for label, mine in groupby(some, key=lambda i: i.label):
            target = _engraved(label, list(mine), width, depth, feeds, work.laser)
            if target is not None:
                groups.setdefault(kind, []).append(target)
        if groups.get(kind):
            made.append(_operation(work, kind, groups[kind], tool, feeds, width, depth, "front"))
    return made


def engraving_depth(tool: Tool, items: Sequence[Item], wanted: float) -> float:
    """How deep (mm) a pointed cutter may go so that the lines of the letters are still wider than it cuts."""
    region = region_of(items)
    if region.is_empty:
        return wanted
    depth = wanted
    while depth > SHALLOWEST + 1e-9:
        half = engraved_width(tool, depth) / 2
        if region.buffer(-half, quad_segs=2).buffer(half, quad_segs=2).area >= READS * region.area:
            break
        depth = max(SHALLOWEST, depth - 0.05)
    return round(depth, 3)


def _trial(words: Sequence[Item], openings: Sequence[Item]) -> list[Item]:
    """A word once more, where the sheet is cut out later; nothing where no opening has room for one."""
    best: tuple[float, BaseGeometry] | None = None
    for item in openings:
        area = region_of([item])
        if best is None or area.area > best[0]:
            best = area.area, area
    if best is None:
        return []
    room = best[1].buffer(-2.0)
    for _, mine in groupby(words, key=lambda i: i.label):
        some = list(mine)
        region = region_of(some)
        if region.is_empty or any(i.open for i in some):
            continue
        x0, y0, x1, y1 = region.bounds
        for part in polygons(room):
            cx, cy = part.centroid.x, part.centroid.y
            dx, dy = cx - (x0 + x1) / 2, cy - (y0 + y1) / 2
            if part.contains(shapely.box(x0 + dx, y0 + dy, x1 + dx, y1 + dy)):
                return [_moved(item, dx, dy) for item in some]
    return []


def _moved(item: Item, dx: float, dy: float) -> Item:
    path = item.path
    if isinstance(path, CirclePath):
        return item._replace(path=path._replace(x=path.x + dx, y=path.y + dy))
    return item._replace(path=tuple(v._replace(x=v.x + dx, y=v.y + dy) for v in path))


def _engraved(
    label: str, items: Sequence[Item], width: float, depth: float, feeds: Feeds, laser: bool
) -> Target | None:  # fmt: skip
    region = region_of(items)
    closed = filled(region, width) if not region.is_empty else []
    opened = [i.path for i in items if i.open and not isinstance(i.path, CirclePath)]
    lines: list[tuple[Loop, bool]] = [(loop, True) for loop in closed] + [(path, False) for path in opened]
    if not lines:
        return None
    levels = Levels(-depth, depth)

    def make(at: Place) -> list[Cut]:
        cuts, left, here = [], list(lines), at
        while left:
            n = min(range(len(left)), key=lambda k: math.dist(here, (left[k][0][0].x, left[k][0][0].y)))
            loop, is_closed = left.pop(n)
            if is_closed:
                loop = started_near(loop, *here)
            if laser:
                steps = burnt(loop, is_closed, feeds.feed)
            else:
                run = (*loop, loop[0]) if is_closed else loop
                steps = milled_line(run, levels, feeds.feed, feeds.plunge)
            cuts.append(Cut(label, loop[0].x, loop[0].y, tuple(steps)))
            here = cuts[-1].end
        return cuts

    first = lines[0][0][0]
    return Target(label, (first.x, first.y), make)


# ---- Pockets --------------------------------------------------------------------------------------------------------


def _pockets(work: Work, items: Sequence[Item], side: str) -> list[Operation]:
    if not items:
        return []
    machine, sheet = work.sheet.machine, work.sheet
    by_tool: dict[int, list[Item]] = {}
    lost = []
    for item in items:
        fitting = _tool_for(machine, item.path, item.depth or 0.0)
        if fitting is None:
            lost.append(item.label)
        else:
            by_tool.setdefault(fitting[0], []).append(item)
    made = []
    for number, mine in by_tool.items():
        tool = machine.tools[number - 1]
        feeds = milling(sheet.material, tool, machine)
        targets = [_pocketed(item, tool, feeds) for item in mine]
        deepest = max(i.depth or 0.0 for i in mine)
        made.append(
            _operation(work, "pocket", targets, (number, tool), feeds, tool.diameter, deepest, side, lost)
        )  # fmt: skip
        lost = []
    if lost:
        made.append(_operation(work, "pocket", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, side, lost))
    return made


def _pocketed(item: Item, tool: Tool, feeds: Feeds) -> Target:
    """A pocket from its middle outwards: each way round overlaps the one before by half the cutter."""
    levels = Levels(-(item.depth or 0.0), feeds.step, TURN * tool.diameter)
    walls = inside(item.path, tool.diameter / 2)
    within: list[Loop] = []
    for wall in walls:
        area = region_of([item._replace(path=wall)]) if isinstance(wall, CirclePath) else shapely.Polygon(
            [(v.x, v.y) for v in wall]
        )  # fmt: skip
        left = polygons(region_of([item]).buffer(-tool.diameter / 2).buffer(-tool.diameter / 2)) if area else []
        while left:
            following = []
            for part in left:
                within.append(tuple(Vertex(x, y) for x, y in shapely.get_coordinates(part.exterior)[:-1].tolist()))
                following += polygons(part.buffer(-tool.diameter / 2))
            left = following
        break

    def make(at: Place) -> list[Cut]:
        loops = [*reversed(within), *(_as_loop(wall, at) for wall in walls)]
        return [
            Cut(
                item.label, loop[0].x, loop[0].y, tuple(milled_loop(loop, levels, feeds.feed, feeds.plunge))
            )
            for loop in loops
        ]  # fmt: skip

    return Target(item.label, _first(item.path), make)


def _turned_over(work: Work, pockets: Sequence[Item]) -> list[Operation]:
    """What is done from behind before the sheet is turned over about its upright middle: two holes, then pockets."""
    width = work.sheet.width
    pins = [Item("inner", CirclePath(x, y, PIN), f"turn over, {n}") for n, (x, y) in enumerate(work.sheet.pins, 1)]
    mirrored = [i._replace(path=_over(i.path, width)) for i in pockets]
    made = [
        op._replace(kind="pins", title=TITLES["pins"], side="behind") for op in _openings(work, pins)
    ]  # fmt: skip
    return [*made, *_pockets(work, mirrored, "behind")]


def _over(path: CirclePath | Loop, width: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return path._replace(x=width - path.x)
    mirrored = tuple(Vertex(width - v.x, v.y, -v.bulge) for v in path)
    return reversed_loop(mirrored)
