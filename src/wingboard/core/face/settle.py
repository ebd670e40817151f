"""Finding the smallest move that settles a clash without making another of any kind."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.design.commands import MoveItems
from wingboard.core.design.profile import plates
from wingboard.core.design.resolved import Placed, Resolved, ResolvedPanel
from wingboard.core.face.legend import Lettering, lettering, words_on
from wingboard.core.face.rules import bridge_needed, spacing_needed, widest_spacing
from wingboard.core.findings.finding import Fix
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.quantity import TOUCH

FARTHEST = 60.0
"""No fix moves a part further than this (mm)."""
_WAYS = {"right": (1, 0), "left": (-1, 0), "up": (0, 1), "down": (0, -1)}


class Shortfalls(NamedTuple):
    """By how much (mm) each kind of rule fails for one part at one place; nothing or less where it holds."""

    hands: float
    openings: float
    bodies: float
    words: float

    def no_worse_than(self, other: Shortfalls) -> bool:
        """Whether each kind holds here, or fails by no more than there."""
        return all(mine <= max(TOUCH, theirs + TOUCH) for mine, theirs in zip(self, other, strict=True))


class Mover:
    """Judges a part of a panel at other places, everything else standing still."""

    def __init__(self, r: Resolved, panel: ResolvedPanel, placed: Placed) -> None:
        self.r, self.panel, self.placed = r, panel, placed
        self.design = r.design
        self.widest = widest_spacing(r.design)

    def shortfalls(self, dx: float, dy: float) -> Shortfalls:
        """How each kind of rule fares with the part shifted by (dx, dy) mm."""
        return Shortfalls(self._hands(dx, dy), self._openings(dx, dy), self._bodies(dx, dy), self._words(dx, dy))

    def _own(self, shapes: ShapeSet, dx: float, dy: float) -> list[Rounded]:
        mine = (shapes.owners == self.placed.number).nonzero()[0]
        return [shapes.shape(int(i)).moved(dx, dy) for i in mine]

    def _hands(self, dx: float, dy: float) -> float:
        worst, shapes = -math.inf, self.panel.envelopes("hand")
        for shape in self._own(shapes, dx, dy):
            for i, gap in shapes.against(shape, self.widest, self.placed.number):
                other = self.panel.by_number[int(shapes.owners[i])].part
                need = spacing_needed(self.design, self.placed.part, other)
                worst = max(worst, need.value - gap if need else -math.inf)
        return worst

    def _openings(self, dx: float, dy: float) -> float:
        worst = -math.inf
        for layer in plates(self.design.stack):
            need, shapes = bridge_needed(self.design, layer).value, self.panel.openings(layer.id)
            for shape in self._own(shapes, dx, dy):
                near = shapes.against(shape, need, self.placed.number)
                worst = max(worst, need - near[0][1] if near else -math.inf)
                inside = self.panel.area.covers(shape.core)
                edge = float(self.panel.area.exterior.distance(shape.core)) * (1 if inside else -1) - shape.radius
                worst = max(worst, need - edge)
        return worst

    def _bodies(self, dx: float, dy: float) -> float:
        need, shapes, worst = limit(self.design, "body-clearance"), self.panel.envelopes("body"), -math.inf
        for shape in self._own(shapes, dx, dy):
            near = shapes.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst

    def _words(self, dx: float, dy: float) -> float:
        words, _ = words_on(self.r, self.panel)
        covers, need = self.panel.envelopes("cover"), limit(self.design, "legend-clearance")
        worst = self.words_of(lettering(self.placed), dx, dy)
        for shape in self._own(covers, dx, dy):
            near = words.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst

    def words_of(self, letters: Lettering, dx: float = 0.0, dy: float = 0.0) -> float:
        """The worst shortfall (mm) of these words, shifted by (dx, dy), against all else on the face."""
        words, _ = words_on(self.r, self.panel)
        covers, need = self.panel.envelopes("cover"), limit(self.design, "legend-clearance")
        x, y, worst = self.placed.place.x + dx, self.placed.place.y + dy, -math.inf
        for word in () if letters.inside else letters.words:
            shape = word.box.moved(x, y)
            for others in (words, covers):
                near = others.against(shape, need, self.placed.number)
                worst = max(worst, need - near[0][1] if near else -math.inf)
            edge = float(self.panel.area.exterior.distance(shape.core))
            worst = max(worst, edge if not self.panel.area.covers(shape.core) else -math.inf)
        return worst


def move_to_settle(r: Resolved, panel: ResolvedPanel, candidates: list[Placed], kind: str) -> Fix | None:
    """The shortest move right, left, up or down of one of the candidates after which the kind of rule holds.

    :param kind: a field of :class:`Shortfalls`.
    :returns: None when every such move would run into something else, or further than :data:`FARTHEST`.
    """
    best: tuple[float, int, str, Placed] | None = None
    for order, placed in enumerate(reversed(candidates)):
        mover = Mover(r, panel, placed)
        before = mover.shortfalls(0, 0)
        for way, (sx, sy) in _WAYS.items():
            farthest = best[0] if best else FARTHEST
            distance = _shortest(mover, before, kind, sx, sy, farthest)
            if distance is not None and (best is None or distance < best[0] - 1e-9):
                best = (distance, order, way, placed)
    if best is None:
        return None
    distance, _, way, placed = best
    sx, sy = _WAYS[way]
    command = MoveItems(functions=(placed.function.id,), dx=round(sx * distance, 2), dy=round(sy * distance, 2))
    return Fix(label=f"Move {placed.function.name} {distance:.1f} mm {way}", commands=(command,))


def _shortest(mover: Mover, before: Shortfalls, kind: str, sx: int, sy: int, farthest: float) -> float | None:
    distance = max(0.1, _up(getattr(before, kind)))
    for _ in range(8):
        if distance > farthest:
            return None
        after = mover.shortfalls(sx * distance, sy * distance)
        left = getattr(after, kind)
        if left <= TOUCH:
            return distance if after.no_worse_than(before) else None
        distance = round(distance + max(0.1, _up(left)), 2)
    return None


def _up(value: float) -> float:
    return math.ceil(round(min(value, 1e4) * 10, 6)) / 10
