"""The side elevation: eye, plate, bodies and knees. Origin at the panel's lower front edge.

x runs away from the person, y up.
A panel leaning back by θ from upright rises along (sin θ, cos θ); what is behind it lies along (cos θ, −sin θ).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from shapely import LineString, Polygon, unary_union

from wingboard.core.geometry.outline import area_of
from wingboard.core.record.space import Brief, Seat
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

LEG = 65.0
"""Half the thickness (mm) of a thigh and a shin (from memory: body dimensions of adults, 95th percentile)."""
Point = tuple[float, float]


class Elevation(NamedTuple):
    """Everything seen from the side (mm)."""

    plate: tuple[Point, Point]
    back: tuple[Point, Point]
    bodies: tuple[tuple[str, tuple[Point, ...]], ...]
    boxes: tuple[tuple[str, tuple[Point, ...]], ...]
    eye: Point | None
    knees: tuple[Point, ...]
    clearance: float | None


def at(pitch: float, up: float, behind: float) -> Point:
    """The side view's point that lies ``up`` mm along the plate and ``behind`` mm behind its front."""
    s, c = math.sin(math.radians(pitch)), math.cos(math.radians(pitch))
    return up * s + behind * c, up * c - behind * s


def elevation(r: Resolved) -> Elevation:
    """The side view of a design."""
    brief = r.design.brief
    _, _, _, top = area_of(brief.opening.loop()).bounds
    bodies = tuple((p.function.id, points) for p in r.placed for points in _bodies(r, p))
    knees = knee_line(brief.seat)
    return Elevation(
        plate=(at(brief.pitch, 0, 0), at(brief.pitch, top, 0)),
        back=(at(brief.pitch, 0, brief.depth), at(brief.pitch, top, brief.depth)),
        bodies=bodies,
        boxes=tuple(
            (k.id, _quad(brief.pitch, k.y, k.y + k.height, *_reach(brief, k.clear, k.side))) for k in brief.keepouts
        ),
        eye=eye_point(brief, top),
        knees=knees,
        clearance=_clearance(r, knees, bodies, top),
    )


def _reach(brief: Brief, clear: float, side: str) -> tuple[float, float]:
    return (clear, max(brief.depth, clear + 1)) if side == "behind" else (-clear - 40.0, -clear)


def _quad(pitch: float, low: float, high: float, front: float, back: float) -> tuple[Point, ...]:
    return at(pitch, low, front), at(pitch, high, front), at(pitch, high, back), at(pitch, low, back)


def _bodies(r: Resolved, p: Placed) -> Iterator[tuple[Point, ...]]:
    """What a part takes behind the plate, a quadrangle for each of its steps."""
    module = r.modules[p.place.module]
    for s in p.behind:
        _, low, _, high = p.frame.within(module.frame).shape(s.outline()).bounds
        yield _quad(r.design.brief.pitch, low, high, max(s.z0, module.thickness), s.z1)


def eye_point(brief: Brief, top: float) -> Point | None:
    """Where the eye is, from its distance to the panel's middle (by tape) and its height above it."""
    if brief.eye_distance is None:
        return None
    mx, my = at(brief.pitch, top / 2, 0)
    level = math.sqrt(max(0.0, brief.eye_distance**2 - min(brief.eye_height**2, brief.eye_distance**2)))
    return mx - level, my + brief.eye_height


def knee_line(seat: Seat | None) -> tuple[Point, ...]:
    """The middle line of thigh and shin, from the seat to the floor; empty when nobody sits there."""
    if seat is None:
        return ()
    knee = (seat.knee_reach - LEG, seat.knee_height - seat.edge_height - LEG)
    return (knee[0] - 420.0, knee[1]), knee, (knee[0], -seat.edge_height)


def _clearance(
    r: Resolved, knees: tuple[Point, ...], bodies: tuple[tuple[str, tuple[Point, ...]], ...], top: float
) -> float | None:
    """From the legs to the nearest of plate and bodies (mm), less than nothing when they would touch."""
    if not knees:
        return None
    solid = max([1.0, *(m.thickness for m in r.modules.values())])
    pieces = [Polygon(_quad(r.design.brief.pitch, 0, top, 0, solid)), *(Polygon(points) for _, points in bodies)]
    return float(LineString(knees).distance(unary_union(pieces))) - LEG
