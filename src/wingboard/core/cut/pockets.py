"""Pockets, cleared from their middle outwards. Lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence

import shapely

from wingboard.core.cut.beside import inside, polygons, region_of
from wingboard.core.cut.cutters import tool_for
from wingboard.core.cut.feeds import (
    Feeds,
    milling,
)
from wingboard.core.cut.openings import TURN
from wingboard.core.cut.toolpath import (
    Cut,
    Levels,
    milled_loop,
)
from wingboard.core.cut.travel import Place
from wingboard.core.cut.work import Operation, Target, Work, as_loop, first_of, operation
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, Vertex, reversed_loop
from wingboard.core.record.workshop import Tool


def pockets(work: Work, items: Sequence[Item], side: str) -> list[Operation]:
    """Pockets, by the thickest cutter that goes in; what none goes into is named."""
    if not items:
        return []
    machine, sheet = work.sheet.machine, work.sheet
    by_tool: dict[int, list[Item]] = {}
    lost = []
    for item in items:
        fitting = tool_for(machine, item.path, item.depth or 0.0)
        if fitting is None:
            lost.append(item.label)
        else:
            by_tool.setdefault(fitting[0], []).append(item)
    made = []
    for number, mine in by_tool.items():
        tool = machine.tools[number - 1]
        feeds = milling(sheet.material, tool, machine)
        targets = [_pocketed(item, tool, feeds, machine.climb) for item in mine]
        deepest = max(i.depth or 0.0 for i in mine)
        made.append(
            operation(work, "pocket", targets, (number, tool), feeds, tool.diameter, deepest, side, lost)
        )  # fmt: skip
        lost = []
    if lost:
        made.append(operation(work, "pocket", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, side, lost))
    return made


def _pocketed(item: Item, tool: Tool, feeds: Feeds, climb: bool) -> Target:
    """A pocket from its middle outwards: each way round overlaps the one before by half the cutter.

    Climb milling goes round counter-clockwise: the wall is on the right.
    """
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
                ring = shapely.get_coordinates(part.exterior)[:-1].tolist()
                within.append(tuple(Vertex(x, y) for x, y in (ring if part.exterior.is_ccw else ring[::-1])))
                following += polygons(part.buffer(-tool.diameter / 2))
            left = following
        break

    def make(at: Place) -> list[Cut]:
        loops = [*reversed(within), *(as_loop(wall, at) for wall in walls)]
        if not climb:
            loops = [reversed_loop(loop) for loop in loops]
        return [
            Cut(
                item.label, loop[0].x, loop[0].y, tuple(milled_loop(loop, levels, feeds.feed, feeds.plunge))
            )
            for loop in loops
        ]  # fmt: skip

    return Target(item.label, first_of(item.path), make)
