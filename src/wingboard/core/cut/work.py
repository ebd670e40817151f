"""What an operation is, and how one is made: cuts in an order that needs little travel, and how long they take."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Literal, NamedTuple

import numpy as np

from wingboard.core.cut.feeds import USUAL_DEPTH, Feeds
from wingboard.core.cut.sheets import Sheet
from wingboard.core.cut.timing import FIELDS, times_of
from wingboard.core.cut.toolpath import (
    Cut,
    circle_loop,
    edges_of,
)
from wingboard.core.cut.travel import Place, bound, short_way
from wingboard.core.files.gcode import CLEAR, SAFE
from wingboard.core.files.scene import CirclePath
from wingboard.core.geometry.outline import Loop, Vertex
from wingboard.core.record.cutting import Fitted
from wingboard.core.record.design import Design
from wingboard.core.record.workshop import Machine, Material, Tool

Kind = Literal["mask", "trial", "words", "lines", "pocket", "drill", "inner", "outline", "pins"]
ORDER: tuple[Kind, ...] = ("pins", "mask", "trial", "words", "lines", "pocket", "drill", "inner", "outline")
"""Outlines last, so that the piece stays held; a trial first, where it is cut away later (common practice)."""
TITLES: dict[Kind, str] = {
    "pins": "Holes to turn it over by", "mask": "Kiss cuts in the film",
    "trial": "Trial engraving", "words": "Engrave words", "lines": "Engrave lines",
    "pocket": "Pockets", "drill": "Drill holes", "inner": "Inner openings", "outline": "Outlines, last",
}  # fmt: skip


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
        return Fit(machine.kerf, 0.0, USUAL_DEPTH, False)
    kerf = machine.kerf if found.kerf is None else found.kerf
    return Fit(kerf, found.wider, found.engraved or USUAL_DEPTH, found.kerf is not None)


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


def operation(
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
    travel, ends = 0.0, []
    moves: list[float] = []  # as in Way, one after the other: a plan has tens of thousands
    x, y = 0.0, 0.0
    for cut in cuts:
        travel += math.hypot(cut.x - x, cut.y - y)
        high, z = (0.0, 0.0) if laser else (SAFE, CLEAR)
        moves += (x, y, high, cut.x, cut.y, high, 0.0, machine.feed, 1.0)
        moves += (cut.x, cut.y, high, cut.x, cut.y, z, 0.0, machine.feed, 1.0)
        x, y = cut.x, cut.y
        for step in cut.steps:
            moves += (x, y, z, step.x, step.y, step.z, step.bulge, step.feed, 0.0)
            x, y, z = step.x, step.y, step.z
        moves += (x, y, z, x, y, high, 0.0, machine.feed, 0.0)
        ends.append(len(moves) // FIELDS)
    lasts = times_of(np.array(moves).reshape(-1, FIELDS), machine.acceleration)
    taken = np.concatenate([[0.0], lasts.cumsum()])
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


def as_loop(path: CirclePath | Loop, towards: Place) -> Loop:
    """A path as a closed loop: a circle begins nearest to a place, any other in the middle of its longest edge."""
    if isinstance(path, CirclePath):
        return circle_loop(path.x, path.y, path.diameter / 2, towards)
    return _middle_of_longest(path)


def first_of(path: CirclePath | Loop) -> Place:
    """Where the way to a path is reckoned to: a circle's middle, else where its loop begins."""
    if isinstance(path, CirclePath):
        return path.x, path.y
    loop = _middle_of_longest(path)
    return loop[0].x, loop[0].y
