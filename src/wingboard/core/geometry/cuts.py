"""Where a length is best cut: off what stands along it, as near to equal pieces as that allows."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

Lengths = npt.NDArray[np.float64]

CLEAR = 8.0
"""Further than this (mm) from anything a cut is as good as any other (common practice: a screw beside it)."""
PACE = 0.5
"""Cuts are looked for at every so many mm, …"""
MOST = 1200
"""… but at no more places than these."""
WORTH = 100.0
"""A millimetre nearer to something outweighs so many of unequal length."""


def free_cuts(
    length: float, spans: Sequence[tuple[float, float]], widest: float, pieces: int, least: float, seam: float = 0.0
) -> tuple[float, ...] | None:
    """The middles (mm from the start) of the cuts that part a length in so many pieces of ``least`` to ``widest``.

    Each keeps as far as it can, up to :data:`CLEAR`, from the spans (from, to; mm) that are taken; of equally good
    ones the nearest to equal lengths count. ``seam`` is what each cut takes away. None where pieces so wide do not
    reach.
    """
    pace = max(PACE, length / MOST)
    x = np.arange(pace, length, pace)
    if len(x) == 0:
        return None
    clear = np.minimum(_clearance(spans, x), CLEAR)
    longest, least = widest + seam, min(least, widest / 2)
    span = x[:, None] - x[None, :]  # from an earlier cut (across) to a later one (down)
    allowed = (span >= least) & (span <= longest)
    cost = np.where((x >= least) & (x <= widest + seam / 2), 0.0, np.inf)
    before: list[npt.NDArray[np.intp]] = []
    for n in range(1, pieces):
        if n > 1:
            ways = np.where(allowed, cost[None, :], np.inf)
            before.append(ways.argmin(axis=1))
            cost = ways.min(axis=1)
        cost = cost + WORTH * (CLEAR - clear) + np.abs(x - length * n / pieces)
    rest = length - x
    cost = np.where((rest >= least) & (rest <= widest + seam / 2), cost, np.inf)
    at = int(cost.argmin())
    if not np.isfinite(cost[at]):
        return None
    found = [at]
    for step in reversed(before):
        found.append(int(step[found[-1]]))
    return tuple(round(float(x[k]), 1) for k in reversed(found))


def _clearance(spans: Sequence[tuple[float, float]], x: Lengths) -> Lengths:
    """How far (mm) each place is from every span; negative within one."""
    if not spans:
        return np.full_like(x, CLEAR)
    low, high = np.array(spans, dtype=np.float64).T
    return np.asarray(np.maximum(low[:, None] - x, x - high[:, None]).min(axis=0), dtype=np.float64)
