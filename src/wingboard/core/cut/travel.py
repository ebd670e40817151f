"""The order in which places are visited, so that a tool travels little between them. Lengths in mm.

Nearest neighbour first, then 2-opt and or-opt moves while any shortens the way (Croes 1958; Or 1976; from memory). The
way begins at a given place and ends anywhere.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import numpy.typing as npt

Place = tuple[float, float]
Points = npt.NDArray[np.float64]
ROUNDS = 60
"""Sweeps over all places, at most."""
MANY, FEW, MOST = 400, 6, 1500
"""Of more than so many places only a few sweeps are made; of more still, none."""
WORTH = 1e-6
"""A move that saves less (mm) is none."""


def short_way(places: Sequence[Place], start: Place) -> list[int]:
    """The places' numbers in an order that makes a short way from the start through all of them."""
    if len(places) < 2:
        return list(range(len(places)))
    at = np.array([start, *places], dtype=np.float64)
    apart = np.hypot(at[:, None, 0] - at[None, :, 0], at[:, None, 1] - at[None, :, 1])
    way = _nearest_first(apart)
    for _ in range(ROUNDS if len(places) <= MANY else 0 if len(places) > MOST else FEW):
        if not (_uncrossed(way, apart) | _moved(way, apart)):
            break
    return [int(n) - 1 for n in way[1:]]


def length_of(places: Sequence[Place], order: Sequence[int], start: Place) -> float:
    """How long (mm) the way from the start through the places in that order is."""
    stops = [start, *(places[n] for n in order)]
    return sum(math.dist(a, b) for a, b in pairwise(stops))


def bound(places: Sequence[Place], start: Place) -> float:
    """No way from the start through all places is shorter (mm): the least tree that joins them (Prim 1957)."""
    if not places:
        return 0.0
    at = np.array([start, *places], dtype=np.float64)
    nearest = np.hypot(*(at - at[0]).T)
    inside = np.zeros(len(at), dtype=bool)
    inside[0] = True
    total = 0.0
    for _ in range(len(at) - 1):
        n = int(np.where(inside, np.inf, nearest).argmin())
        total += float(nearest[n])
        inside[n] = True
        nearest = np.minimum(nearest, np.hypot(*(at - at[n]).T))
    return total


def _nearest_first(apart: Points) -> npt.NDArray[np.intp]:
    many = len(apart)
    free = np.ones(many, dtype=bool)
    way = np.zeros(many, dtype=np.intp)
    free[0] = False
    for n in range(1, many):
        way[n] = np.where(free, apart[way[n - 1]], np.inf).argmin()
        free[way[n]] = False
    return way


def _uncrossed(way: npt.NDArray[np.intp], apart: Points) -> bool:
    """Turn stretches round (2-opt) where that shortens the way; whether any was."""
    many, changed = len(way), False
    for i in range(1, many - 1):
        a, b = way[i - 1], way[i]
        ends = way[i + 1 :]
        after = np.append(way[i + 2 :], -1)
        open_end = after < 0
        gained = apart[a, b] + np.where(open_end, 0.0, apart[ends, after])
        gained = gained - apart[a, ends] - np.where(open_end, 0.0, apart[b, after])
        k = int(gained.argmax())
        if gained[k] > WORTH:
            way[i : i + k + 2] = way[i : i + k + 2][::-1].copy()
            changed = True
    return changed


def _moved(way: npt.NDArray[np.intp], apart: Points) -> bool:
    """Put runs of one to three places elsewhere (or-opt) where that shortens the way; whether any was."""
    many, changed = len(way), False
    for size in (1, 2, 3):
        for i in range(1, many - size + 1):
            run = way[i : i + size]
            before, last = way[i - 1], i + size == many
            after = -1 if last else way[i + size]
            taken = apart[before, run[0]] + (0.0 if last else apart[run[-1], after] - apart[before, after])
            rest = np.concatenate([way[:i], way[i + size :]])
            following = np.append(rest[1:], -1)
            open_end = following < 0
            gap = np.where(open_end, 0.0, apart[rest, following])
            straight = apart[rest, run[0]] + np.where(open_end, 0.0, apart[run[-1], following]) - gap
            turned = apart[rest, run[-1]] + np.where(open_end, 0.0, apart[run[0], following]) - gap
            added = np.minimum(straight, turned)
            k = int(added.argmin())
            if taken - added[k] > WORTH:
                put = run if straight[k] <= turned[k] else run[::-1]
                way[:] = np.concatenate([rest[: k + 1], put, rest[k + 1 :]])
                changed = True
    return changed
