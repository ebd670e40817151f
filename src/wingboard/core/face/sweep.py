"""One sweep of a hand: which way each control points when it is off, and the path of a procedure."""

from __future__ import annotations

import math
from collections import Counter
from itertools import pairwise
from statistics import median
from typing import NamedTuple

from wingboard.core.record.functions import Function
from wingboard.core.record.part import Part
from wingboard.core.record.procedures import Procedure
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

OFF = frozenset({"OFF", "0", "CLOSED", "SHUT", "STOP", "SAFE", "OUT", "AUS", "DOWN"})
"""Words that say that a control is off (common practice)."""
LEVERS = frozenset({"toggle", "rocker"})
_WAYS = {0.0: "right", 90.0: "up", 180.0: "left", 270.0: "down"}
JUMP = 2.5
"""A step longer than this many of the usual ones is a gap in the sweep (common practice)."""


class Sweep(NamedTuple):
    """A procedure on one module: its placed steps in order, those that point another way when off, and its gaps."""

    procedure: Procedure
    steps: tuple[Placed, ...]
    odd: tuple[Placed, ...]
    gaps: tuple[tuple[Placed, Placed], ...]
    back: tuple[tuple[Placed, Placed], ...]


def off_direction(placed: Placed) -> float | None:
    """Where a lever points when it is off (degrees, counter-clockwise from the right, on the module); else None.

    The word that says off counts; a two-way lever without words is off when it is down.
    """
    part, words = placed.part, placed.function.positions
    if part.family not in LEVERS or part.ways != 2:
        return None  # a lever of three ways is off in its middle, which tells itself
    angles = part.angles(part.ways)
    named = next((angle for word, angle in zip(words, angles, strict=False) if word.upper() in OFF), None)
    if named is None and words:
        return None
    return ((angles[-1] if named is None else named) + placed.place.turn) % 360


def lever_ways(function: Function, part: Part) -> tuple[str, ...]:
    """Where a lever or key stands at each word of a function, as it comes to lie: up, down, left, right, in the middle.

    Empty for what is pressed or has detents all round, and where one points aslant or has no place.
    """
    words = len(function.positions)
    if part.family not in LEVERS | {"key"} or part.detents or words < 2 or len(part.positions) < words:
        return ()
    turn = function.place.turn if function.place else 0.0
    angles = part.angles(words)
    ways = [_WAYS.get(round((angle + turn) % 360, 6)) for angle in angles]
    if part.family in LEVERS and part.ways == 3:
        ways[1] = "in the middle"  # its word stands beside it
    return tuple(way for way in ways if way) if all(ways) else ()


def odd_ones(placed: list[Placed]) -> tuple[Placed, ...]:
    """Of several levers, those that point another way than most when off."""
    known = [(p, round((off_direction(p) or 0) / 45) % 8) for p in placed if off_direction(p) is not None]
    if len(known) < 3:
        return ()
    most, count = Counter(way for _, way in known).most_common(1)[0]
    return tuple(p for p, way in known if way != most) if count * 2 > len(known) else ()


def sweeps_on(r: Resolved, module: ResolvedModule) -> tuple[Sweep, ...]:
    """Every procedure's path over a module."""
    by_id = {p.function.id: p for p in module.placed}
    found = []
    for procedure in r.design.procedures:
        steps = [by_id[i] for i in procedure.steps if i in by_id]
        if len(steps) > 1:
            found.append(_sweep(procedure, steps))
    return tuple(found)


def _sweep(procedure: Procedure, steps: list[Placed]) -> Sweep:
    pairs = list(pairwise(steps))
    lengths = [math.hypot(b.place.x - a.place.x, b.place.y - a.place.y) for a, b in pairs]
    usual = median(lengths)
    gaps = tuple(pair for pair, length in zip(pairs, lengths, strict=True) if len(pairs) > 2 and length > JUMP * usual)
    across = sum(abs(b.place.x - a.place.x) for a, b in pairs) >= sum(abs(b.place.y - a.place.y) for a, b in pairs)
    moves = [(b.place.x - a.place.x) if across else (b.place.y - a.place.y) for a, b in pairs]
    onward = 1 if sum(1 for m in moves if m > 0) * 2 >= len(moves) else -1
    back = tuple(pair for pair, m in zip(pairs, moves, strict=True) if m * onward < -1.0)
    return Sweep(procedure, tuple(steps), odd_ones(steps), gaps, back)
