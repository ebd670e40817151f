"""Runs of strip: rows between the bodies, chosen one after the other by what they light, or round the edge."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.light.emission import Field
from wingboard.core.light.kinds import STRIPS
from wingboard.core.light.room import EDGE, at_points, free_for
from wingboard.core.light.scene import Scene, lamps_of_strip
from wingboard.core.record.lights import Strip, StripKind
from wingboard.core.resolved.boards import STRIP_WIDE
from wingboard.core.resolved.module import ResolvedModule

ROWS = 4.0
"""Runs are tried so far from each other (mm), and no more of them than :data:`MOST_ROWS`."""
ENOUGH = 0.35
"""A point is well lit with this share of what is right before a strip."""
MOST_RUNS, MOST_ROWS = 12, 60
BESIDE = 0.5
"""Strips lie so far from each other at least (mm)."""
Report = Callable[[float, str], object]
"""Told how far it is, 0 to 1, and in words; raises to stop."""


def _runs(free: BaseGeometry, y: float, bounds: tuple[float, float, float, float], step: float) -> list[Strip]:
    line = shapely.LineString([(bounds[0], y), (bounds[2], y)])
    met = shapely.intersection(free, line)
    made = []
    for piece in getattr(met, "geoms", (met,)):
        if piece.geom_type != "LineString" or piece.is_empty:
            continue
        x0, _, x1, _ = piece.bounds
        many = int((x1 - x0) / step + 1e-9)
        if many >= 1:
            left = (x0 + x1 - many * step) / 2
            x, x2 = round(left, 2), round(left + many * step + 0.005, 2)
            made.append(Strip(id="new", x=x, y=round(y, 2), x2=x2, y2=round(y, 2)))
    return made


def rows_of_strips(
    module: ResolvedModule, scene: Scene, points: Field, kind: StripKind, depth: float, report: Report
) -> list[Strip]:
    """Rows between the bodies, each where it lights most of what is dark yet."""
    free = free_for(module, scene, depth, STRIP_WIDE)
    x0, y0, x1, y1 = module.area.bounds
    rows, apart = [], max(ROWS, (y1 - y0) / MOST_ROWS)
    for n in range(int((y1 - y0) / apart)):
        report(0.05 + 0.25 * n * apart / (y1 - y0), "Trying rows")
        runs = _runs(free, y0 + apart * (n + 0.5), (x0, y0, x1, y1), STRIPS[kind].step)
        if runs:
            lamps = tuple(lamp for run in runs for lamp in lamps_of_strip(run.model_copy(update={"kind": kind}), depth))
            rows.append((runs, at_points(lamps, scene, points)))
    if not rows:
        return []
    wanted = ENOUGH * max(float(field.max()) for _, field in rows)

    def worth(field: Field) -> float:
        return float(np.minimum(wanted, field).sum() - np.maximum(0.0, field - 2 * wanted).sum() / 2)

    total, chosen = np.zeros(len(points)), list[Strip]()
    for _ in range(MOST_RUNS):
        # A strip is as wide as two or three rows are apart: none is laid on another.
        free_rows = [row for row in rows if all(abs(row[0][0].y - run.y) >= STRIP_WIDE + BESIDE for run in chosen)]
        gains = [worth(total + field) - worth(total) for _, field in free_rows]
        if not gains or max(gains) < 0.03 * wanted * len(points):
            break
        runs, field = free_rows[int(np.argmax(gains))]
        chosen += runs
        total = total + field
    return [run.model_copy(update={"kind": kind}) for run in chosen]


def strips_round_the_edge(module: ResolvedModule, kind: StripKind, depth: float) -> list[Strip]:
    """A strip along each side, leaning inwards by 45°, as on a shelf round the wall."""
    x0, y0, x1, y1 = module.area.buffer(-EDGE - STRIP_WIDE / 2).bounds
    corners = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    made = []
    for (ax, ay), (bx, by) in zip(corners, corners[1:] + corners[:1], strict=True):
        if ax == bx:  # those at the sides end before those at foot and head
            ay, by = (v + math.copysign(STRIP_WIDE + BESIDE, w - v) for v, w in ((ay, by), (by, ay)))
            if (by - ay) * (y1 - y0) * (1 if ax == x1 else -1) <= 0:
                continue  # too low a plate for any
        length, step = math.dist((ax, ay), (bx, by)), STRIPS[kind].step
        share = int(length / step + 1e-9) * step / length
        if share > 0:
            x, y = ax + (bx - ax) * (1 - share) / 2, ay + (by - ay) * (1 - share) / 2
            x2, y2 = x + (bx - ax) * share, y + (by - ay) * share
            far = {"x2": round(x2 + math.copysign(0.01, bx - ax) * (bx != ax), 2)}
            far["y2"] = round(y2 + math.copysign(0.01, by - ay) * (by != ay), 2)
            made.append(Strip(id="new", kind=kind, x=round(x, 2), y=round(y, 2), **far, z=depth, tilt=45))
    return made
