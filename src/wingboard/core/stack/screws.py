"""Screws proposed along the rim and in the field, no further apart than the plate's material and thickness want.

The span is common practice: sixty times the plate's thickness in plastics and wood, a hundred times in metal, and
between 60 and 300 mm. A place is taken only where it leaves sound bridges in every layer and touches no cap, no words
and no body behind.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from shapely import Point

from wingboard.core.face.legend import words_on_panel
from wingboard.core.face.rules import bridge_needed
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import disc, margin_inside
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.screws import SCREW_HEAD, SCREW_HOLE

IN_THICKNESSES = {"plastic": 60.0, "metal": 100.0}
LEAST, MOST = 60.0, 300.0
ASIDE = (0.0, 5.0, -5.0, 10.0, -10.0, 15.0, -15.0, 20.0, -20.0)
"""A screw of the rim may lie so far (mm) from the middle of its stretch."""
GRID = 5.0
MOST_PROPOSED = 24

Spot = tuple[float, float]


class Proposal(NamedTuple):
    """Where screws would go (mm), no further apart than ``span``, and how many stretches have no room for one."""

    span: float
    spots: tuple[Spot, ...]
    no_room: int


def usual_span(module: ResolvedModule) -> float:
    """How far apart (mm) the screws of a module's plate may be: of its layers the weakest counts."""
    conducts = all(materials()[layer.material].conducts for layer in module.plates)
    wanted = IN_THICKNESSES["metal" if conducts else "plastic"] * module.thickness
    return round(min(MOST, max(LEAST, wanted)))


def proposed_screws(r: Resolved, module: ResolvedModule, span: float) -> Proposal:
    """Screws to add so that neighbours along the rim, and any place of the plate and a screw, are within a span."""
    fixings = module.module.fixings
    if fixings is None:
        return Proposal(span, (), 0)
    free = _Free(r, module, SCREW_HOLE[fixings.screw], SCREW_HEAD[fixings.screw])
    there: list[Spot] = [(f.x, f.y) for f in module.fixings]
    made: list[Spot] = []
    no_room = 0
    for a, b in _rim(there, module):
        pieces = math.ceil(math.dist(a, b) / span - 1e-9)
        for n in range(1, pieces):
            spot = free.near(_between(a, b, n / pieces), math.atan2(b[1] - a[1], b[0] - a[0]))
            if spot is None:
                no_room += 1
            else:
                made.append(spot)
    made += _field(free, [*there, *made], span)
    return Proposal(span, tuple(made[:MOST_PROPOSED]), no_room)


def _rim(there: list[Spot], module: ResolvedModule) -> Iterator[tuple[Spot, Spot]]:
    """Neighbours along the rim: the screws near the edge in the order of their angle about the plate's middle."""
    rim = [s for s in there if module.area.exterior.distance(Point(*s)) < 20]
    middle = module.area.centroid
    rim.sort(key=lambda s: math.atan2(s[1] - middle.y, s[0] - middle.x))
    return pairwise([*rim, rim[0]]) if len(rim) > 1 else iter(())


def _between(a: Spot, b: Spot, share: float) -> Spot:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _field(free: _Free, there: list[Spot], span: float) -> list[Spot]:
    """The free places furthest from every screw, one after the other, while one is further than a span."""
    x0, y0, x1, y1 = free.module.area.bounds
    grid = [
        (x0 + i * GRID, y0 + j * GRID) for i in range(1, int((x1 - x0) / GRID)) for j in range(1, int((y1 - y0) / GRID))
    ]
    made: list[Spot] = []
    while grid and len(made) < MOST_PROPOSED:
        grid.sort(key=lambda g: min((math.dist(g, s) for s in (*there, *made)), default=math.inf))
        spot = grid.pop()
        if min((math.dist(spot, s) for s in (*there, *made)), default=math.inf) <= span:
            break
        if free.at(spot):
            made.append(spot)
    return made


class _Free:
    """Whether a screw may go somewhere."""

    def __init__(self, r: Resolved, module: ResolvedModule, hole: float, head: float) -> None:
        self.r, self.module, self.hole, self.head = r, module, disc(hole), disc(head)

    def at(self, spot: Spot) -> bool:
        """Sound bridges in every layer, clear of caps, words and bodies."""
        hole, head = self.hole.moved(*spot), self.head.moved(*spot)
        for layer in self.module.stack:
            need = bridge_needed(self.r.design, layer).value
            if self.module.openings(layer.id).against(hole, need):
                return False
            if margin_inside(hole, self.module.area_of(layer)) < need:
                return False
        there = head.moved(self.module.module.x, self.module.module.y)
        cover, words = limit(self.r.design, "cover-clearance"), limit(self.r.design, "legend-clearance")
        bodies = limit(self.r.design, "body-clearance")
        return not (
            self.r.panel.envelopes("cover").against(there, cover)
            or words_on_panel(self.r)[0].against(there, words)
            or self.r.panel.bodies.against(there, bodies)
        )

    def near(self, spot: Spot, along: float) -> Spot | None:
        """The first free place beside a spot, to and fro along a direction (radians)."""
        for aside in ASIDE:
            tried = spot[0] + aside * math.cos(along), spot[1] + aside * math.sin(along)
            if self.at(tried):
                return tried
        return None
