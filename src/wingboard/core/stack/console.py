"""The frame of a wooden console: battens round the opening and under the seams, squared by its diagonals.

The battens reach a ledge's width into the opening, so that the modules rest on them; one stands upright under every
seam between two modules. Over an arched top the batten is sawn along the arch from a wider piece, so that the ledge
is as wide there as anywhere. They are screwed from outside through the skin, along lines that can be marked from the
opening's edge. Everything is in the opening's coordinates, seen from the front (mm).
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from shapely import LineString, Polygon

from wingboard.core.geometry.outline import Loop, Vertex, area_of, flattened, rounded_rectangle
from wingboard.core.record.outlines import ArchOutline
from wingboard.core.record.space import ConsoleFrame
from wingboard.core.resolved.design import Resolved

END = 20.0
"""The first screw of a batten is so far from its end (mm, common practice)."""
SEAM = 3.0
"""Modules no further apart than this (mm) meet at a seam."""


class Batten(NamedTuple):
    """A batten: the box it is sawn from (from, to), its screws, and its outline where that is no rectangle."""

    name: str
    x0: float
    y0: float
    x1: float
    y1: float
    screws: tuple[tuple[float, float], ...]
    sawn: Loop | None = None

    @property
    def upright(self) -> bool:
        """Whether it is longer than wide upwards."""
        return self.y1 - self.y0 > self.x1 - self.x0

    @property
    def length(self) -> float:
        """Its longer side (mm)."""
        return max(self.x1 - self.x0, self.y1 - self.y0)

    @property
    def wide(self) -> float:
        """Its shorter side (mm): as wide a piece it is sawn from."""
        return min(self.x1 - self.x0, self.y1 - self.y0)

    def loop(self) -> Loop:
        """Its outline."""
        return self.sawn or rounded_rectangle(self.x1 - self.x0, self.y1 - self.y0, 0.0, self.x0, self.y0)

    def area(self) -> Polygon:
        """What it covers."""
        return area_of(self.loop())


class FrameMade(NamedTuple):
    """A frame: its battens, the clear inside, its diagonal, how much the two may differ, its screws' lines.

    ``clear`` are width and height between the four inner corners, under an arch to where it begins. ``from_edge`` is
    how far outside the opening's edge the screws' line runs, on the console's outer face.
    """

    frame: ConsoleFrame
    battens: tuple[Batten, ...]
    clear: tuple[float, float]
    diagonal: float
    differ: float
    from_edge: float


def frame_of(r: Resolved) -> FrameMade | None:
    """The frame of the design's opening, over its whole width and height; None where it has none."""
    frame = r.design.brief.frame
    if frame is None:
        return None
    x0, y0, x1, y1 = area_of(r.design.brief.opening.loop()).bounds
    ledge = min(frame.ledge, (x1 - x0) / 4, (y1 - y0) / 4)  # of a small opening half is left clear
    left, low, right, high = x0 + ledge, y0 + ledge, x1 - ledge, y1 - ledge
    w = frame.wide
    arch = _Arch.under(r.design.brief.opening, ledge)
    corner = arch.at(left) if arch else high
    top = _batten("Top batten", left - w, high, right + w, high + w, frame)
    battens = [
        _sawn(top, arch, left, right, frame) if arch else top,
        _batten("Bottom batten", left - w, low - w, right + w, low, frame),
        _batten("Left batten", left - w, low, left, corner, frame),
        _batten("Right batten", right, low, right + w, corner, frame),
    ]
    for n, x in enumerate(seams(r), 1):
        at, end = x - w / 2, x + w / 2
        ends = max(arch.at(at), arch.at(end)) if arch else high
        upright = _batten(f"Seam batten {n}", at, low, end, ends, frame)
        battens.append(_scribed(upright, arch) if arch else upright)
    clear = (right - left, corner - low)
    diagonal = math.hypot(*clear)
    # d² − e² = 4 w · lean; the modules have their gap on both sides to lean in.
    differ = 4 * clear[0] * 2 * r.design.brief.gap / (2 * diagonal) if diagonal else 0.0
    return FrameMade(frame, tuple(battens), clear, diagonal, differ, w / 2 - ledge)


class _Arch(NamedTuple):
    """An arc over the opening (mm): its middle and radius."""

    x: float
    y: float
    radius: float

    @classmethod
    def under(cls, opening: object, ledge: float) -> _Arch | None:
        """The arched top of an opening, a ledge's width further in; None where its top is no arch.

        A chord c with rise h is cut from a circle of radius (c²/4 + h²) / 2h (sagitta, geometry).
        """
        if not isinstance(opening, ArchOutline):
            return None
        radius = (opening.width**2 / 4 + opening.rise**2) / (2 * opening.rise)
        return cls(opening.width / 2, opening.height + opening.rise - radius, radius - ledge)

    def at(self, x: float) -> float:
        """How high it is over a place."""
        return self.y + math.sqrt(max(0.0, self.radius**2 - (x - self.x) ** 2))

    def bulge(self, from_x: float, to_x: float) -> float:
        """From one place to another along it: the tangent of a quarter of the angle, clockwise (DXF Reference)."""
        a, b = (math.atan2(self.at(x) - self.y, x - self.x) for x in (from_x, to_x))
        return math.tan((b - a) / 4)


def _sawn(whole: Batten, arch: _Arch, left: float, right: float, frame: ConsoleFrame) -> Batten:
    """The top batten from a wider piece, its lower edge along the arch; its screws run beside that edge."""
    corner = arch.at(left)
    outline = (
        Vertex(whole.x0, corner), Vertex(left, corner, arch.bulge(left, right)), Vertex(right, corner),
        Vertex(whole.x1, corner), Vertex(whole.x1, whole.y1), Vertex(whole.x0, whole.y1),
    )  # fmt: skip
    edge = [p for p in flattened(outline) if p[1] < whole.y1 - frame.wide / 2]
    line = LineString(edge).offset_curve(frame.wide / 2)
    room = max(0.0, line.length - 2 * END)
    pieces = max(1, math.ceil(room / frame.screws - 1e-9))
    spots = [line.interpolate(min(END, line.length / 2) + room * n / pieces) for n in range(pieces + 1)]
    screws = tuple((p.x, p.y) for p in spots)
    return Batten(whole.name, whole.x0, corner, whole.x1, whole.y1, screws, outline)


def _scribed(upright: Batten, arch: _Arch) -> Batten:
    """An upright batten whose upper end is sawn along the arch."""
    b = upright
    outline = (
        Vertex(b.x0, b.y0), Vertex(b.x1, b.y0), Vertex(b.x1, arch.at(b.x1), arch.bulge(b.x1, b.x0)),
        Vertex(b.x0, arch.at(b.x0)),
    )  # fmt: skip
    y1 = max(y for _, y in flattened(outline))
    reach = min(arch.at(b.x0), arch.at(b.x1)) - END / 2
    return b._replace(y1=y1, screws=tuple((x, min(y, reach)) for x, y in b.screws), sawn=outline)


def seams(r: Resolved) -> list[float]:
    """The upright seams between modules side by side (x), from the left."""
    spans = sorted((m.area_in_opening.bounds[0], m.area_in_opening.bounds[2]) for m in r.modules.values())
    found = []
    for (_, end), (start, _) in pairwise(spans):
        if abs(start - end) <= SEAM:
            found.append((start + end) / 2)
    return found


def _batten(name: str, x0: float, y0: float, x1: float, y1: float, frame: ConsoleFrame) -> Batten:
    along = max(x1 - x0, y1 - y0)
    room = max(0.0, along - 2 * END)
    pieces = max(1, math.ceil(room / frame.screws - 1e-9))
    spots = []
    for n in range(pieces + 1):
        at = min(END, along / 2) + room * n / pieces
        spots.append((x0 + at, (y0 + y1) / 2) if x1 - x0 > y1 - y0 else ((x0 + x1) / 2, y0 + at))
    return Batten(name, x0, y0, x1, y1, tuple(spots if room else spots[:1]))


def _how(b: Batten) -> str:
    """How a batten goes in."""
    way = "upright, between top and bottom" if b.upright else "over the whole width"
    if b.sawn is None:
        return way
    return f"{way}, its end sawn along the arch" if b.upright else f"{way}, sawn along the arch by the drawing"


FRAME_LIST = ("piece", "length", "wide", "deep", "screws", "how it goes in")


def frame_list(made: FrameMade) -> list[tuple[str, ...]]:
    """The battens as cells under :data:`FRAME_LIST`."""
    f = made.frame
    return [
        (
            b.name, f"{b.length:.1f}", f"{b.wide:.1f}".removesuffix(".0"), f"{f.deep:g}", str(len(b.screws)),
            _how(b),
        )
        for b in made.battens
    ]  # fmt: skip
