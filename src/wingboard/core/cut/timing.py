"""How long a machine takes: moves with limited acceleration, slower round corners. Seconds; lengths in mm.

Each move speeds up, runs and slows down (trapezium of speed). How fast it may go round the corner to the next follows
from a little deviation δ allowed there: v² = a · δ · sin(θ/2) / (1 − sin(θ/2)), θ the angle between the two moves
(common practice of small controllers).
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

Numbers = npt.NDArray[np.float64]

DEVIATION = 0.02
"""Allowed at a corner (mm, common practice)."""


class Way(NamedTuple):
    """A move: from where to where (mm), its arc's bulge, its feed (mm/min); ``rest``: the tool stands before it."""

    x0: float
    y0: float
    z0: float
    x1: float
    y1: float
    z1: float
    bulge: float
    feed: float
    rest: bool = False


FIELDS = len(Way._fields)


def times(moves: Sequence[Way], acceleration: float) -> Numbers:
    """How long (s) each of the moves takes, one after the other, at rest before the first and after the last."""
    return times_of(np.array(moves, dtype=np.float64).reshape(-1, FIELDS), acceleration)


def times_of(ways: Numbers, acceleration: float) -> Numbers:
    """The same for moves as rows of an array, their columns the fields of :class:`Way`."""
    if not len(ways):
        return np.zeros(0)
    length, leaves, arrives = _measured(ways)
    feed = ways[:, 7] / 60
    corner = np.zeros(len(ways) + 1)
    corner[1:-1] = _at_corners(leaves, arrives, feed, acceleration)
    corner[:-1][ways[:, 8] > 0] = 0.0
    # A move that goes nowhere has no direction: the tool stands there.
    nowhere = length < 1e-9
    corner[:-1][nowhere] = 0.0
    corner[1:][nowhere] = 0.0
    return _run(length.tolist(), (feed**2).tolist(), (corner**2).tolist(), acceleration)


def seconds(moves: Sequence[Way], acceleration: float) -> float:
    """How long the moves take together."""
    return float(times(moves, acceleration).sum())


def _measured(ways: Numbers) -> tuple[Numbers, Numbers, Numbers]:
    """The moves' lengths, and unit vectors along them at their starts and their ends."""
    dx, dy, dz = (ways[:, 3 + k] - ways[:, k] for k in range(3))
    chord = np.hypot(dx, dy)
    half = 2 * np.arctan(ways[:, 6])  # half the arc's angle
    bent = np.abs(half) > 1e-9
    flat = np.where(bent, chord * half / np.sin(np.where(bent, half, 1.0)), chord)
    length = np.hypot(flat, dz)
    whole = np.where(length < 1e-9, 1.0, length)
    along = np.arctan2(dy, dx)
    ends = [
        np.stack([flat / whole * np.cos(a), flat / whole * np.sin(a), dz / whole], axis=1)
        for a in (along - half, along + half)
    ]
    return length, ends[0], ends[1]


def _at_corners(leaves: Numbers, arrives: Numbers, feed: Numbers, acceleration: float) -> Numbers:
    """How fast (mm/s) the tool may go from each move to the next."""
    turn = np.clip((arrives[:-1] * leaves[1:]).sum(axis=1), -1.0, 1.0)  # cosine of the change of direction; θ = π − it
    sine = np.sqrt((1 + turn) / 2)
    straight = turn > 1 - 1e-6
    free = np.sqrt(acceleration * DEVIATION * sine / np.where(straight, 1.0, 1 - sine))
    most = np.minimum(feed[:-1], feed[1:])
    return np.asarray(np.where(straight, most, np.minimum(most, free)), dtype=np.float64)


def _run(length: list[float], top: list[float], corner: list[float], acceleration: float) -> Numbers:
    """Times of the moves; speeds are squared. Backwards: what can still be braked for; forwards: what is reached."""
    double = 2 * acceleration
    reached = 0.0
    for n in range(len(length) - 1, -1, -1):
        corner[n + 1] = reached
        reached = min(corner[n], reached + double * length[n])
    starts, start = [], 0.0
    for n, way in enumerate(length):
        starts.append(start)
        start = min(corner[n + 1], start + double * way) if way >= 1e-9 else 0.0
    ways, start2 = np.array(length), np.array(starts)
    end2 = np.append(start2[1:], start)
    most = np.maximum(np.minimum(np.array(top), (double * ways + start2 + end2) / 2), 1e-18)
    v0, v1, v2 = np.sqrt(start2), np.sqrt(most), np.sqrt(end2)
    rest = np.maximum(0.0, ways - (2 * most - start2 - end2) / double)
    return np.where(ways < 1e-9, 0.0, (2 * v1 - v0 - v2) / acceleration + rest / v1)
