"""Which cutter of a mill goes into what has to be cut out. Lengths in mm."""

from __future__ import annotations

import math

import shapely

from wingboard.core.cut.beside import inside
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, area_of
from wingboard.core.record.workshop import Machine, Tool

ROUNDING = 0.7
"""A cutter that leaves more than this (mm) in a corner gives way to a thinner one, where there is one."""
PLAY = 0.02
"""A cutter that has less room than this (mm) on each side is too thick for an opening (common practice)."""
DRILLS = 0.1
"""A drill takes a hole that is wider or narrower by so much (mm)."""
DEEPEST = 10.0
"""An end mill that would have to go deeper than so many times its diameter is not taken (common practice: four)."""


def mills(machine: Machine, deep: float) -> list[tuple[int, Tool]]:
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


def tool_for(machine: Machine, path: CirclePath | Loop, deep: float) -> tuple[int, Tool] | None:
    """The thickest end mill that goes in and leaves little in the corners; else the thinnest that goes in."""
    play = 2 * PLAY
    fitting = [(n, t) for n, t in mills(machine, deep) if inside(path, t.diameter / 2 + PLAY)]
    good = [(n, t) for n, t in fitting if unreached(path, t.diameter + play) <= ROUNDING]
    return good[0] if good else (fitting[-1] if fitting else None)


def drill_for(machine: Machine, item: Item) -> tuple[int, Tool] | None:
    """The drill that makes a round hole, where one is as wide."""
    if not isinstance(item.path, CirclePath):
        return None
    wanted = item.path.diameter
    found = [(n, t) for n, t in enumerate(machine.tools, 1) if t.kind == "drill" and abs(t.diameter - wanted) <= DRILLS]
    return min(found, key=lambda nt: abs(nt[1].diameter - wanted), default=None)
