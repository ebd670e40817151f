"""How far a plate gives under a finger, between the screws that hold it.

A rectangular plate simply supported along its edges with a load at any point: Navier's double series (Timoshenko and
Woinowsky-Krieger, Theory of Plates and Shells, article 34, from memory; its table for a load in the middle is among
the tests). The edges are those of the rectangle round the screws. Sheets bolted together slide on each other, so that
their stiffnesses add up; glued ones bend as one. The width of the openings that a line through the control meets, up
and across, is taken off (computed).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from wingboard.core.findings.limits import limit
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

TERMS = 80
"""Of the series, each way: within 0.1 % of its limit."""
LEAST_SHARE = 0.1
"""No less than this of a sheet is taken to be left beside its openings."""


class Bend(NamedTuple):
    """What a plate does under one control: the force (N), how far it gives (mm) and between which sides (mm)."""

    placed: Placed
    force: float
    sag: float
    across: float
    up: float
    left: float
    """The share of the plate that is left beside the openings."""


def deflection(a: float, b: float, x: float, y: float, rigidity: float, force: float) -> float:
    """How far (mm) a plate of ``a`` × ``b`` mm gives at the point of a load, simply supported along its edges.

    :param x: of the load from one corner (mm), as ``y``.
    :param rigidity: D = E·t³ / 12(1 − ν²), N·mm.
    :param force: N.
    """
    n = np.arange(1, TERMS + 1)
    sx, sy = np.sin(n * math.pi * x / a) ** 2, np.sin(n * math.pi * y / b) ** 2
    series = np.outer(sx, sy) / np.add.outer((n / a) ** 2, (n / b) ** 2) ** 2
    return float(4 * force / (math.pi**4 * rigidity * a * b) * series.sum())


def rigidity(layers: Sequence[Layer]) -> float:
    """Flexural rigidity (N·mm) of a plate's sheets: bolted ones add up, glued ones bend about their common middle."""
    groups: list[list[Layer]] = []
    for layer in layers:
        if groups and layer.join == "glue" and not layer.gap:
            groups[-1].append(layer)
        else:
            groups.append([layer])
    return sum(_as_one(group) for group in groups)


def _as_one(glued: Sequence[Layer]) -> float:
    """∫ E/(1−ν²) (z − z₀)² dz over the sheets, z₀ the middle weighed by stiffness."""
    z, pieces = 0.0, []
    for layer in glued:
        known = materials()[layer.material].stiff
        pieces.append((known.e * 1000 / (1 - known.nu**2), z, z + layer.thickness))
        z += layer.thickness
    middle = sum(e * (z1**2 - z0**2) / 2 for e, z0, z1 in pieces) / sum(e * (z1 - z0) for e, z0, z1 in pieces)
    return sum(e * ((z1 - middle) ** 3 - (z0 - middle) ** 3) / 3 for e, z0, z1 in pieces)


def bends(r: Resolved, module: ResolvedModule) -> list[Bend]:
    """How far a module gives under each control that is pressed, the worst first; none with less than three screws."""
    xs, ys = [f.x for f in module.fixings], [f.y for f in module.fixings]
    if len(xs) < 3 or min(max(xs) - min(xs), max(ys) - min(ys)) < 1:
        return []
    x0, y0, a, b = min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    whole = rigidity(module.plates)
    found = []
    for p in module.placed:
        x, y = p.place.x - x0, p.place.y - y0
        kind = p.part.hand.kind if p.part.hand else None
        if kind in ("button", "emergency") and 0 < x < a and 0 < y < b:
            force = limit(r.design, "hit-force" if kind == "emergency" else "press-force")
            left = _left(module, p.place.x, p.place.y, (x0, x0 + a), (y0, y0 + b))
            found.append(Bend(p, force, deflection(a, b, x, y, whole * left, force), a, b, left))
    return sorted(found, key=lambda bend: -bend.sag)


def _left(module: ResolvedModule, x: float, y: float, across: tuple[float, float], up: tuple[float, float]) -> float:
    """The lesser share of the sheets left along the two lines through a point, over all sheets of the plate."""
    shares = []
    for layer in module.plates:
        bounds = module.openings(layer.id).bounds
        for at, low, high, (start, end) in ((y, 1, 0, across), (x, 0, 1, up)):
            met = bounds[(bounds[:, low] < at) & (bounds[:, low + 2] > at)]
            gone = _covered(met[:, [high, high + 2]], start, end)
            shares.append(1 - gone / (end - start))
    return max(LEAST_SHARE, min(shares, default=1.0))


def _covered(spans: np.ndarray[tuple[int, int], np.dtype[np.float64]], start: float, end: float) -> float:
    """How much of a line from ``start`` to ``end`` these spans cover together."""
    total, reached = 0.0, start
    for a, b in sorted(spans.tolist()):
        a, b = max(a, reached), min(b, end)
        total, reached = total + max(0.0, b - a), max(reached, b)
    return total
