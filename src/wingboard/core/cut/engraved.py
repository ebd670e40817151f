"""Words and lines that are engraved, filled to their edges, and a trial of them. Lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby
from typing import NamedTuple

import numpy as np
import shapely
from shapely.affinity import translate
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import filled, polygons, region_of
from wingboard.core.cut.feeds import (
    Feeds,
    burning,
    engraved_width,
    engraving,
)
from wingboard.core.cut.toolpath import (
    Cut,
    Levels,
    burnt,
    milled_line,
    started_near,
)
from wingboard.core.cut.travel import Place
from wingboard.core.cut.work import Kind, Operation, Target, Work, operation
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop
from wingboard.core.record.workshop import Tool

READS = 0.75
"""A pointed cutter that covers less than this share of the letters goes less deep, so that it is thinner."""
SHALLOWEST = 0.1
HAIR = 0.05
"""Engraving is filled by lines no nearer to each other than this (mm), …"""
MOST_WAY = 200_000.0
"""… and no longer in all than this (mm)."""


def engravings(work: Work, items: Sequence[Item]) -> list[Operation]:
    """A trial, the words and the lines, each by itself."""
    words = [i for i in items if i.operation == "engrave" and not i.graphic]
    lines = [i for i in items if i.operation == "engrave" and i.graphic]
    if not words and not lines:
        return []
    marks = {"words": _marks(words), "lines": _marks(lines)}
    every = [m.region for some in marks.values() for m in some]
    machine, sheet = work.sheet.machine, work.sheet
    tool: tuple[int, Tool] | None = None
    if work.laser:
        feeds, depth = burning(machine, work.fit.engraved)
        width = work.fit.kerf
    else:
        tool = next(((n, t) for n, t in enumerate(machine.tools, 1) if t.kind == "engraver"), None)
        if tool is None:
            lost = sorted({i.label for i in (*words, *lines)})
            return [operation(work, "words", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", lost)]
        depth = engraving_depth(tool[1], every, work.fit.engraved)
        width = engraved_width(tool[1], depth)
        feeds = engraving(sheet.material, tool[1], machine, depth)
    # A hair-thin beam or tip would go round for ever; so much engraving is laid wider apart instead.
    width = max(width, HAIR, sum(region.area for region in every) / MOST_WAY)
    made = []
    kinds: list[tuple[Kind, Sequence[Mark]]] = [
        ("trial", _trial(marks["words"], [i for i in items if i.operation == "inner"])),
        ("words", marks["words"]),
        ("lines", marks["lines"]),
    ]
    for kind, some in kinds:
        targets = [t for mark in some if (t := _engraved(mark, width, depth, feeds, work.laser)) is not None]
        if targets:
            made.append(operation(work, kind, targets, tool, feeds, width, depth, "front"))
    return made


class Mark(NamedTuple):
    """What is engraved under one label: its paths, and what the closed ones cover."""

    label: str
    items: Sequence[Item]
    region: BaseGeometry


def _marks(items: Sequence[Item]) -> list[Mark]:
    groups = [(label, list(mine)) for label, mine in groupby(items, key=lambda i: i.label)]
    return [Mark(label, mine, region_of(mine)) for label, mine in groups]


def engraving_depth(tool: Tool, regions: Sequence[BaseGeometry], wanted: float) -> float:
    """How deep (mm) a pointed cutter may go so that the lines of the letters are still wider than it cuts."""
    whole = sum(region.area for region in regions)
    depth = wanted
    while depth > SHALLOWEST + 1e-9 and whole:
        half = engraved_width(tool, depth) / 2
        covered = shapely.buffer(shapely.buffer(regions, -half, quad_segs=2), half, quad_segs=2)
        if shapely.area(covered).sum() >= READS * whole:
            break
        depth = max(SHALLOWEST, depth - 0.05)
    return round(depth, 3)


def _trial(words: Sequence[Mark], openings: Sequence[Item]) -> list[Mark]:
    """A word once more, where the sheet is cut out later; nothing where no opening has room for one."""
    best: tuple[float, BaseGeometry] | None = None
    for item in openings:
        area = region_of([item])
        if best is None or area.area > best[0]:
            best = area.area, area
    if best is None:
        return []
    room = best[1].buffer(-2.0)
    for label, some, region in words:
        if region.is_empty or any(i.open for i in some):
            continue
        x0, y0, x1, y1 = region.bounds
        for part in polygons(room):
            cx, cy = part.centroid.x, part.centroid.y
            dx, dy = cx - (x0 + x1) / 2, cy - (y0 + y1) / 2
            if part.contains(shapely.box(x0 + dx, y0 + dy, x1 + dx, y1 + dy)):
                return [Mark(label, [_moved(item, dx, dy) for item in some], translate(region, dx, dy))]
    return []


def _moved(item: Item, dx: float, dy: float) -> Item:
    path = item.path
    if isinstance(path, CirclePath):
        return item._replace(path=path._replace(x=path.x + dx, y=path.y + dy))
    return item._replace(path=tuple(v._replace(x=v.x + dx, y=v.y + dy) for v in path))


def _engraved(
    mark: Mark, width: float, depth: float, feeds: Feeds, laser: bool
) -> Target | None:  # fmt: skip
    label, items, region = mark
    closed = filled(region, width) if not region.is_empty else []
    opened = [i.path for i in items if i.open and not isinstance(i.path, CirclePath)]
    lines: list[tuple[Loop, bool]] = [(loop, True) for loop in closed] + [(path, False) for path in opened]
    if not lines:
        return None
    levels = Levels(-depth, depth)

    def make(at: Place) -> list[Cut]:
        cuts, left, here = [], list(lines), at
        starts = np.array([(loop[0].x, loop[0].y) for loop, _ in lines])
        while left:
            n = int(np.hypot(starts[:, 0] - here[0], starts[:, 1] - here[1]).argmin())
            starts = np.delete(starts, n, axis=0)
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
