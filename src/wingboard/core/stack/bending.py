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
import numpy.typing as npt

from wingboard.core.findings.limits import limit
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

Points = npt.NDArray[np.float64]
Lengths = npt.NDArray[np.float64]
Span = tuple[float, float]
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
    return float(compliance(a, b, np.array([[x, y]]))[0]) * force / rigidity


def compliance(a: float, b: float, at: Points) -> Lengths:
    """Deflection at the point of a load, times D over the load (mm²), for n points: an n × 2 array of (x, y) in mm."""
    n = np.arange(1, TERMS + 1)
    sx = np.sin(np.outer(at[:, 0], n) * math.pi / a) ** 2
    sy = np.sin(np.outer(at[:, 1], n) * math.pi / b) ** 2
    terms = 1 / np.add.outer((n / a) ** 2, (n / b) ** 2) ** 2
    found: Lengths = 4 / (math.pi**4 * a * b) * ((sx @ terms) * sy).sum(axis=1)
    return found


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
    pressed = [p for p in module.placed if p.part.hand is not None and p.part.hand.kind in ("button", "emergency")]
    pressed = [p for p in pressed if 0 < p.place.x - x0 < a and 0 < p.place.y - y0 < b]
    if not pressed:
        return []
    at = np.array([[p.place.x, p.place.y] for p in pressed])
    left = _left(module, at, (x0, x0 + a), (y0, y0 + b))
    soft = compliance(a, b, at - (x0, y0))
    found = []
    for p, share, give in zip(pressed, left.tolist(), soft.tolist(), strict=True):
        emergency = p.part.hand is not None and p.part.hand.kind == "emergency"
        force = limit(r.design, "hit-force" if emergency else "press-force")
        found.append(Bend(p, force, give * force / (whole * share), a, b, share))
    return sorted(found, key=lambda bend: -bend.sag)


def _left(module: ResolvedModule, at: Points, across: Span, up: Span) -> Lengths:
    """The lesser share of the sheets left along the two lines through each of n points, over all of the plate."""
    least = np.ones(len(at))
    for layer in module.plates:
        bounds = module.openings(layer.id).bounds
        for along, other, (start, end) in ((0, 1, across), (1, 0, up)):
            met = (bounds[:, other] < at[:, other, None]) & (bounds[:, other + 2] > at[:, other, None])
            order = np.argsort(bounds[:, along], kind="stable")
            low = np.clip(bounds[order, along], start, end)
            high = np.clip(bounds[order, along + 2], start, end)
            ends = np.where(met[:, order], high, start)
            before = np.maximum.accumulate(np.concatenate([np.full((len(at), 1), start), ends], axis=1), axis=1)[:, :-1]
            gone = np.clip(ends - np.maximum(low, before), 0, None).sum(axis=1)
            least = np.minimum(least, 1 - gone / (end - start))
    shares: Lengths = np.maximum(least, LEAST_SHARE)
    return shares
