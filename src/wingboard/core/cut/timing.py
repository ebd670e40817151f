"""How long a machine takes: moves with limited acceleration, slower round corners. Seconds; lengths in mm.

Each move speeds up, runs and slows down (trapezium of speed). How fast it may go round the corner to the next follows
from a little deviation δ allowed there: v² = a · δ · sin(θ/2) / (1 − sin(θ/2)), θ the angle between the two moves
(common practice of small controllers).
"""

from __future__ import annotations

import math
from typing import NamedTuple

DEVIATION = 0.02
"""Allowed at a corner (mm, common practice)."""


class Moved(NamedTuple):
    """A move: its length (mm), its feed (mm/min), the directions (unit vectors) at its start and its end."""

    length: float
    feed: float
    leaves: tuple[float, float, float]
    arrives: tuple[float, float, float]


def moved(
    x0: float, y0: float, z0: float, x1: float, y1: float, z1: float, bulge: float, feed: float
) -> Moved | None:  # fmt: skip
    """A straight move or an arc (by its bulge); None where it goes nowhere."""
    dx, dy, dz = x1 - x0, y1 - y0, z1 - z0
    chord = math.hypot(dx, dy)
    half = 2 * math.atan(bulge)  # half the arc's angle
    way = chord * half / math.sin(half) if abs(half) > 1e-9 else chord
    length = math.hypot(way, dz)
    if length < 1e-9:
        return None
    if chord < 1e-9:
        up = (0.0, 0.0, math.copysign(1.0, dz))
        return Moved(length, feed, up, up)
    flat = way / length
    along = math.atan2(dy, dx)
    ends = [(flat * math.cos(a), flat * math.sin(a), dz / length) for a in (along - half, along + half)]
    return Moved(length, feed, ends[0], ends[1])


def seconds(moves: list[Moved], acceleration: float) -> float:
    """How long the moves take one after the other, at rest before and after."""
    if not moves:
        return 0.0
    double, free = 2 * acceleration, acceleration * DEVIATION
    corner = [0.0]
    before = moves[0]
    for after in moves[1:]:
        (ax, ay, az), (bx, by, bz) = before.arrives, after.leaves
        turn = ax * bx + ay * by + az * bz  # cosine of the change of direction; θ = π − that angle
        most = min(before.feed, after.feed) / 60
        if turn < 1 - 1e-6:
            sine = math.sqrt(max(0.0, (1 + turn) / 2))
            most = min(most, math.sqrt(free * sine / (1 - sine)))
        corner.append(most)
        before = after
    reached = 0.0
    ends = [0.0] * len(moves)
    for n in range(len(moves) - 1, -1, -1):
        ends[n] = reached  # square of the speed at the move's end, as far as what follows can still be braked for
        reached = min(corner[n] ** 2, reached + double * moves[n].length)
    total, start = 0.0, 0.0
    for move, wanted in zip(moves, ends, strict=True):
        length = move.length
        end = min(wanted, start + double * length)
        top = min((move.feed / 60) ** 2, (double * length + start + end) / 2)
        v0, v1, v2 = math.sqrt(start), math.sqrt(top), math.sqrt(end)
        ramps = (2 * top - start - end) / double
        total += (2 * v1 - v0 - v2) / acceleration
        if length > ramps:
            total += (length - ramps) / v1
        start = end
    return total
