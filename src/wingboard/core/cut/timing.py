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
    fastest = [m.feed / 60 for m in moves]
    corner = [0.0]
    for before, after, v, u in zip(moves, moves[1:], fastest, fastest[1:], strict=False):
        a, b = before.arrives, after.leaves
        turn = a[0] * b[0] + a[1] * b[1] + a[2] * b[2]  # cosine of the change of direction; θ = π − that angle
        sine = math.sqrt(max(0.0, (1 + turn) / 2))
        free = acceleration * DEVIATION * sine / (1 - sine) if sine < 1 - 1e-9 else math.inf
        corner.append(min(v, u, math.sqrt(free)))
    corner.append(0.0)
    for n in range(len(moves) - 1, -1, -1):
        corner[n] = min(corner[n], math.sqrt(corner[n + 1] ** 2 + 2 * acceleration * moves[n].length))
    total = 0.0
    for n, move in enumerate(moves):
        start = corner[n]
        end = corner[n + 1] = min(corner[n + 1], math.sqrt(start * start + 2 * acceleration * move.length))
        top = min(fastest[n], math.sqrt((2 * acceleration * move.length + start * start + end * end) / 2))
        ramps = (2 * top * top - start * start - end * end) / (2 * acceleration)
        total += (2 * top - start - end) / acceleration + max(0.0, move.length - ramps) / top
    return total
