"""Read-outs and screens: what a film over one lets through, and from how far aside it can be read."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.brief.side import at, eye_point
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.functions import Film
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

CONE = {"led": 60.0, "lcd": 40.0, "tft": 50.0, "oled": 80.0}
"""Degrees off square from which a screen is still read well (from memory of data sheets; measure yours)."""
GLOWS = {"led": "LED digits", "lcd": "liquid crystal", "tft": "colour screen", "oled": "OLED"}
CLEAR, OWN, OTHER, GREY = 0.9, 0.8, 0.05, 0.3
"""The share of light that passes a clear cover, a film of the light's own colour, one of another, a grey one (from
memory of filter makers' tables)."""
MIXED = {"clear": CLEAR, "grey": GREY, "red": 0.25, "amber": 0.4, "green": 0.3, "blue": 0.2}
"""The same for white light, of which a tinted film takes most."""
KIN = ({"red", "amber"}, {"amber", "yellow"}, {"yellow", "green"})
"""Colours that pass each other's films."""
LAP = 3.0
"""A film reaches so far (mm) beyond its window on each side, to be held (common practice)."""


class Screen(NamedTuple):
    """A read-out or screen: what it glows by, in what colour; its film and the share that passes; how far off square
    the eye looks at it (degrees; None: not known), from how far it reads; the film to cut (width, height; mm)."""

    placed: Placed
    glow: str
    colour: str
    film: Film | None
    passes: float
    aslant: float | None
    cone: float
    size: tuple[float, float]


def glow_of(part: Part) -> str:
    """What a part shows itself by; empty for what is no read-out and no screen."""
    return part.glow or ("led" if part.family == "readout" else "")


def passes(colour: str, film: Film | None) -> float:
    """The share of a light that a film lets through; of white where its colour is none."""
    if film is None:
        return 1.0
    if not colour or colour == "white" or film in ("clear", "grey"):
        return MIXED[film]
    return OWN if film == colour or any({film, colour} <= kin for kin in KIN) else OTHER


def screens_of(r: Resolved) -> tuple[Screen, ...]:
    """The read-outs and screens on the panel, in the order of the list."""

    def compute() -> tuple[Screen, ...]:
        made = []
        for p in r.placed:
            glow = glow_of(p.part)
            if glow:
                colour = (p.function.colour or p.part.colour) if glow == "led" else ""
                wide, high = p.part.window(p.function.digits)[0].span
                size = wide + 2 * LAP, high + 2 * LAP
                film = p.function.film
                made.append(Screen(p, glow, colour, film, passes(colour, film), _aslant(r, p), CONE[glow], size))
        return tuple(made)

    return r.once("screens", compute)


def _aslant(r: Resolved, placed: Placed) -> float | None:
    """How far (degrees) off square the eye, which is before the panel's middle, looks at a part."""
    brief = r.design.brief
    _, _, width, height = area_of(brief.opening.loop()).bounds
    eye = eye_point(brief, height)
    if eye is None:
        return None
    x, y = r.panel.point(placed)
    spot, normal = at(brief.pitch, y, 0), at(brief.pitch, 0, -1)
    aside, back, up = width / 2 - x, eye[0] - spot[0], eye[1] - spot[1]
    cosine = (back * normal[0] + up * normal[1]) / math.hypot(aside, back, up)
    return math.degrees(math.acos(max(-1.0, min(1.0, cosine))))
