"""The frame of a wooden console: battens round the opening and under the seams, squared by its diagonals.

The battens reach a ledge's width into the opening, so that the modules rest on them; one stands upright under every
seam between two modules. They are screwed from outside through the skin, along lines that can be marked from the
opening's edge. Everything is in the opening's coordinates, seen from the front (mm).
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from shapely import Polygon, box

from wingboard.core.geometry.outline import area_of
from wingboard.core.record.space import ConsoleFrame
from wingboard.core.resolved.design import Resolved

END = 20.0
"""The first screw of a batten is so far from its end (mm, common practice)."""
SEAM = 3.0
"""Modules no further apart than this (mm) meet at a seam."""


class Batten(NamedTuple):
    """A batten: where it lies (from, to), whether it stands upright, and its screws."""

    name: str
    x0: float
    y0: float
    x1: float
    y1: float
    screws: tuple[tuple[float, float], ...]

    @property
    def upright(self) -> bool:
        """Whether it is longer than wide upwards."""
        return self.y1 - self.y0 > self.x1 - self.x0

    @property
    def length(self) -> float:
        """Its longer side (mm)."""
        return max(self.x1 - self.x0, self.y1 - self.y0)

    def area(self) -> Polygon:
        """What it covers."""
        return box(self.x0, self.y0, self.x1, self.y1)


class FrameMade(NamedTuple):
    """A frame: its battens, the clear inside, its diagonal, how much the two may differ, its screws' lines.

    ``from_edge`` is how far outside the opening's edge the screws' line runs, on the console's outer face.
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
    battens = [
        _batten("Top batten", left - w, high, right + w, high + w, frame),
        _batten("Bottom batten", left - w, low - w, right + w, low, frame),
        _batten("Left batten", left - w, low, left, high, frame),
        _batten("Right batten", right, low, right + w, high, frame),
    ]
    for n, x in enumerate(seams(r), 1):
        battens.append(_batten(f"Seam batten {n}", x - w / 2, low, x + w / 2, high, frame))
    clear = (right - left, high - low)
    diagonal = math.hypot(*clear)
    # d² − e² = 4 w · lean; the modules have their gap on both sides to lean in.
    differ = 4 * clear[0] * 2 * r.design.brief.gap / (2 * diagonal) if diagonal else 0.0
    return FrameMade(frame, tuple(battens), clear, diagonal, differ, w / 2 - ledge)


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


FRAME_LIST = ("piece", "length", "wide", "deep", "screws", "how it goes in")


def frame_list(made: FrameMade) -> list[tuple[str, ...]]:
    """The battens as cells under :data:`FRAME_LIST`."""
    f = made.frame
    return [
        (
            b.name, f"{b.length:.1f}", f"{f.wide:g}", f"{f.deep:g}", str(len(b.screws)),
            "upright, between top and bottom" if b.upright else "over the whole width",
        )
        for b in made.battens
    ]  # fmt: skip
