"""How a wire runs, and how long it is: to the trunk of its loom, along that, out at the exit, and on. Lengths in mm."""

from __future__ import annotations

import math
from statistics import median
from typing import NamedTuple

from wingboard.core.record.harness import Loom
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.places import Spot, places
from wingboard.core.wire.wires import Wire, runs

NEAR = 60.0
"""Between neighbours so near (mm) a wire goes straight, not by the loom."""
STEP = 5.0
"""Lengths are cut to whole steps (mm), rounded up."""
Point = tuple[float, float]


class Trunk(NamedTuple):
    """The trunk of a module's loom: from ``start`` to ``end`` in its coordinates, and where it leaves the module."""

    module: str
    across: bool
    at: float
    start: Point
    end: Point
    exit: Point

    def meets(self, x: float, y: float) -> Point:
        """Where a wire from a place comes to the trunk: straight across to it."""
        return (x, self.at) if self.across else (self.at, y)


def trunks(r: Resolved) -> dict[str, Trunk]:
    """The trunk of every module on which wires end."""
    return r.once("trunks", lambda: _trunks(r))


def _trunks(r: Resolved) -> dict[str, Trunk]:
    ends: dict[str, list[Spot]] = {}
    for wire in runs(r):
        for port in (wire.start, wire.end):
            spot = places(r).spot(port)
            if spot.module and wire.how == "wire":
                ends.setdefault(spot.module, []).append(spot)
    return {module: _trunk(r, module, ends[module]) for module in r.modules if module in ends}


def _trunk(r: Resolved, module: str, ends: list[Spot]) -> Trunk:
    loom: Loom = r.modules[module].module.loom
    width, height = r.modules[module].size
    across = loom.trunk == "across"
    usual = median(spot.y if across else spot.x for spot in ends)
    at = min(max(loom.at if loom.at is not None else usual, 0.0), height if across else width)
    along = [spot.x if across else spot.y for spot in ends]
    out = _exit(loom, width, height, at)
    first, last = min(along), max(along)
    leaves = out[0] if across else out[1]
    first, last = min(first, leaves), max(last, leaves)
    start, end = ((first, at), (last, at)) if across else ((at, first), (at, last))
    return Trunk(module, across, at, start, end, out)


def _exit(loom: Loom, width: float, height: float, at: float) -> Point:
    """Where the loom leaves: at the end of its trunk, or from the trunk's middle straight to the side that is said."""
    if loom.trunk == "across":
        return {"left": (0.0, at), "right": (width, at), "top": (width / 2, height), "bottom": (width / 2, 0.0)}[
            loom.leaves
        ]
    return {"left": (0.0, height / 2), "right": (width, height / 2), "top": (at, height), "bottom": (at, 0.0)}[
        loom.leaves
    ]


class Route(NamedTuple):
    """Millimetres of a wire before and behind the exits of the modules that it leaves, its ends apart.

    ``inside``: by module, on the way to or from its exit (or between two terminals of one module); ``outside``: from
    one exit on. ``said``: whether both ends are where the record says.
    """

    inside: dict[str, float]
    outside: float
    said: bool
    straight: bool


def route(r: Resolved, wire: Wire) -> Route:
    """The way of a wire, without slack and what is bared."""
    where = places(r)
    one, other = where.spot(wire.start), where.spot(wire.end)
    if wire.how != "wire":
        return Route({}, 0.0, True, True)
    if one.module and one.module == other.module:
        direct = abs(one.x - other.x) + abs(one.y - other.y)
        if direct <= NEAR:
            return Route({one.module: direct + abs(one.z - other.z)}, 0.0, True, True)
        return Route({one.module: _along(r, one, other)}, 0.0, True, False)
    inside = {spot.module: _to_exit(r, spot) for spot in (one, other) if spot.module}
    said = one.said and other.said
    if not said:
        return Route(inside, r.design.harness.away, False, False)
    a, b = (_leaves(r, spot) for spot in (one, other))
    return Route(inside, sum(abs(p - q) for p, q in zip(a, b, strict=True)), True, False)


def _leaves(r: Resolved, spot: Spot) -> tuple[float, float, float]:
    """Where a wire from a place comes out, in the opening's coordinates."""
    if spot.module:
        x, y = trunks(r)[spot.module].exit
        spot = Spot(spot.module, x, y, places(r).backs[spot.module])
    return places(r).in_opening(spot)


def _down(r: Resolved, spot: Spot) -> float:
    """From a terminal to the loom, which is tied to the back of the plate."""
    return abs(spot.z - places(r).backs[spot.module])


def _along(r: Resolved, one: Spot, other: Spot) -> float:
    trunk = trunks(r)[one.module]
    a, b = trunk.meets(one.x, one.y), trunk.meets(other.x, other.y)
    drops = math.dist((one.x, one.y), a) + math.dist((other.x, other.y), b)
    return drops + math.dist(a, b) + _down(r, one) + _down(r, other)


def _to_exit(r: Resolved, spot: Spot) -> float:
    """From a terminal along the trunk and out, with the loop that lets the module swing out."""
    trunk = trunks(r)[spot.module]
    joins, out = trunk.meets(spot.x, spot.y), trunk.exit
    way = math.dist((spot.x, spot.y), joins) + abs(joins[0] - out[0]) + abs(joins[1] - out[1])
    return way + _down(r, spot) + r.modules[spot.module].module.loom.service


def cut_length(r: Resolved, way: float) -> float:
    """How long a wire is cut (mm): its way, slack and what is bared at both ends, up to the next whole step."""
    h = r.design.harness
    return STEP * math.ceil((way + 2 * (h.slack + h.strip)) / STEP - 1e-9)
