"""What the free hand reaches, and what the eye sees: shoulder, zones on the plate, line of sight.

The person sits before the opening's middle. Everything follows from the eye, whose place the brief measures.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.brief.side import Point, at, eye_point
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.outline import area_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

SHOULDER_DOWN, SHOULDER_OUT = 230.0, 190.0
"""The shoulder's joint below the eye and beside the middle (mm, from memory: body dimensions of adults)."""
ARC_MINUTE = math.pi / 180 / 60


class Zone(NamedTuple):
    """A circle on the plate, in the opening's coordinates (mm), that a hand reaches."""

    hand: str
    name: str
    x: float
    y: float
    radius: float


class Sight(NamedTuple):
    """How the eye sees the panel: distance to its middle (mm), how far off square (degrees), how high it looks."""

    distance: float
    off_square: float
    foreshortening: float


def _opening(r: Resolved) -> tuple[float, float]:
    _, _, width, height = area_of(r.design.brief.opening.loop()).bounds
    return width, height


def sight(r: Resolved) -> Sight | None:
    """The line of sight to the opening's middle; None when the eye's place is not known.

    A panel pitched by φ to the line of sight shows its legends × cos φ high.
    """
    brief = r.design.brief
    _, height = _opening(r)
    eye = eye_point(brief, height)
    if eye is None or brief.eye_distance is None:
        return None
    middle = at(brief.pitch, height / 2, 0)
    normal = at(brief.pitch, 0, -1)
    towards = (eye[0] - middle[0], eye[1] - middle[1])
    cosine = (towards[0] * normal[0] + towards[1] * normal[1]) / math.hypot(*towards)
    cosine = max(0.05, min(1.0, cosine))
    return Sight(brief.eye_distance, math.degrees(math.acos(cosine)), cosine)


def cap_needed(seen: Sight, minutes: float) -> float:
    """Cap height (mm) to subtend an angle at the eye: h = 2·d·tan(α/2), over cos φ where it is seen aslant."""
    return 2 * seen.distance * math.tan(minutes * ARC_MINUTE / 2) / seen.foreshortening


def zones(r: Resolved) -> tuple[Zone, ...]:
    """The primary zone and the full reach of each free hand; none when the eye's place is not known."""
    brief = r.design.brief
    width, height = _opening(r)
    eye = eye_point(brief, height)
    if eye is None:
        return ()
    primary = limit(r.design, "reach-primary")
    found = []
    for hand, side in (("left", -1), ("right", 1)):
        if brief.free_hand in (hand, "both"):
            x = width / 2 + side * SHOULDER_OUT
            for name, share in (("primary", primary), ("full", 1.0)):
                zone = _zone(hand, name, x, _rel(brief.pitch, (eye[0], eye[1] - SHOULDER_DOWN)), brief.reach * share)
                found += [zone] if zone else []
    return tuple(found)


def _rel(pitch: float, point: Point) -> tuple[float, float]:
    """A point of the side view as (along the plate upwards, before the plate)."""
    ux, uy = at(pitch, 1, 0)
    nx, ny = at(pitch, 0, -1)
    return point[0] * ux + point[1] * uy, point[0] * nx + point[1] * ny


def _zone(hand: str, name: str, x: float, shoulder: tuple[float, float], reach: float) -> Zone | None:
    up, before = shoulder
    return Zone(hand, name, x, up, math.sqrt(reach**2 - before**2)) if reach > abs(before) else None


def beyond(r: Resolved, placed: Placed, name: str = "leaning") -> float | None:
    """How far (mm) a part lies outside what the nearest free hand reaches; less than nothing inside.

    Measured from the shoulder in a straight line, less the reach; None when the eye's place is not known. ``name`` is
    that of a zone, which is reached sitting upright; ``leaning`` lets the shoulder come forward, towards the plate.
    """
    brief = r.design.brief
    width, height = _opening(r)
    eye = eye_point(brief, height)
    if eye is None:
        return None
    x, y = r.panel.point(placed)
    up, before = _rel(brief.pitch, (eye[0], eye[1] - SHOULDER_DOWN))
    reach = brief.reach * (limit(r.design, "reach-primary") if name == "primary" else 1.0)
    lean = limit(r.design, "reach-lean") if name == "leaning" else 0.0
    sides = [side for hand, side in (("left", -1), ("right", 1)) if brief.free_hand in (hand, "both")]
    return (
        min(math.hypot(x - width / 2 - side * SHOULDER_OUT, y - up, max(0.0, before - lean)) for side in sides) - reach
    )
