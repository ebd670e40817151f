"""Finding the smallest move that settles a clash without making another of any kind."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.face.graphics import graphic_shapes
from wingboard.core.face.legend import Lettering, letterings, words_on
from wingboard.core.face.rules import behind_boxes, bridge_needed, keep_out_on, spacing_needed, widest_spacing
from wingboard.core.findings.finding import Fix
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import Rounded, gap, margin_inside
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.quantity import TOUCH, VISIBLE
from wingboard.core.resolved.design import Placed, Resolved, ResolvedModule
from wingboard.core.resolved.profile import depth_behind_front, plates

FARTHEST = 60.0
"""No fix moves a part further than this (mm)."""
_WAYS = {"right": (1, 0), "left": (-1, 0), "up": (0, 1), "down": (0, -1)}


class Shortfalls(NamedTuple):
    """By how much (mm) each kind of rule fails for one part at one place; nothing or less where it holds."""

    hands: float
    openings: float
    edge: float
    bodies: float
    words: float
    words_edge: float
    keepouts: float
    graphics: float
    covers: float

    def no_worse_than(self, other: Shortfalls) -> bool:
        """Whether each kind holds here, or fails by no more than there."""
        return all(mine <= max(TOUCH, theirs + TOUCH) for mine, theirs in zip(self, other, strict=True))


class Mover:
    """Judges a part of a module at other places, everything else standing still."""

    def __init__(self, r: Resolved, module: ResolvedModule, placed: Placed) -> None:
        self.r, self.module, self.placed = r, module, placed
        self.design = r.design
        self.widest = widest_spacing(r.design)

    def shortfalls(self, dx: float, dy: float) -> Shortfalls:
        """How each kind of rule fares with the part shifted by (dx, dy) mm."""
        openings, edge = self._openings(dx, dy)
        words, words_edge = self._words(dx, dy)
        hands, bodies, keepouts = self._hands(dx, dy), self._bodies(dx, dy), self._keepouts(dx, dy)
        return Shortfalls(
            hands, openings, edge, bodies, words, words_edge, keepouts, self._graphics(dx, dy), self._covers(dx, dy)
        )

    def _own(self, shapes: ShapeSet, dx: float, dy: float) -> list[Rounded]:
        mine = (shapes.owners == self.placed.number).nonzero()[0]
        return [shapes.shape(int(i)).moved(dx, dy) for i in mine]

    def _hands(self, dx: float, dy: float) -> float:
        worst, shapes = -math.inf, self.module.envelopes("hand")
        for shape in self._own(shapes, dx, dy):
            for i, apart in shapes.against(shape, self.widest, self.placed.number):
                other = self.module.by_number[int(shapes.owners[i])].part
                need = spacing_needed(self.design, self.placed.part, other)
                worst = max(worst, need.value - apart if need else -math.inf)
        return worst

    def _openings(self, dx: float, dy: float) -> tuple[float, float]:
        worst = worst_edge = -math.inf
        for layer in plates(self.design.stack):
            need, shapes = bridge_needed(self.design, layer).value, self.module.openings(layer.id)
            for shape in self._own(shapes, dx, dy):
                near = shapes.against(shape, need, self.placed.number)
                worst = max(worst, need - near[0][1] if near else -math.inf)
                worst_edge = max(worst_edge, need - margin_inside(shape, self.module.area))
        return worst, worst_edge

    def _bodies(self, dx: float, dy: float) -> float:
        need, shapes, worst = limit(self.design, "body-clearance"), self.module.envelopes("body"), -math.inf
        for shape in self._own(shapes, dx, dy):
            near = shapes.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst

    def _keepouts(self, dx: float, dy: float) -> float:
        depth = depth_behind_front(self.placed.part, self.design.stack, self.placed.function.pocket)
        boxes = [keep_out_on(k, self.module) for k in behind_boxes(self.design) if k.clear < depth - VISIBLE]
        bodies = self._own(self.module.envelopes("body"), dx, dy)
        return max((-gap(body, Rounded(box, 0.0)) for body in bodies for box in boxes), default=-math.inf)

    def _covers(self, dx: float, dy: float) -> float:
        need, shapes, worst = limit(self.design, "cover-clearance"), self.module.envelopes("cover"), -math.inf
        for shape in self._own(shapes, dx, dy):
            near = shapes.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst

    def _graphics(self, dx: float, dy: float) -> float:
        """Against brackets, boxes, texts and placards, for what covers the face and for the part's words."""
        shapes, _ = graphic_shapes(self.r, self.module)
        if not len(shapes):
            return -math.inf
        need, worst = limit(self.design, "legend-clearance"), -math.inf
        letters = letterings(self.r)[self.placed.number]
        x, y = self.placed.place.x + dx, self.placed.place.y + dy
        own = self._own(self.module.envelopes("cover"), dx, dy)
        own += [word.box.moved(x, y) for word in letters.words if not letters.inside]
        for shape in own:
            near = shapes.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst

    def _words(self, dx: float, dy: float) -> tuple[float, float]:
        words, _ = words_on(self.r, self.module)
        covers, need = self.module.envelopes("cover"), limit(self.design, "legend-clearance")
        worst, edge = self.words_of(letterings(self.r)[self.placed.number], dx, dy)
        for shape in self._own(covers, dx, dy):
            near = words.against(shape, need, self.placed.number)
            worst = max(worst, need - near[0][1] if near else -math.inf)
        return worst, edge

    def words_of(self, letters: Lettering, dx: float = 0.0, dy: float = 0.0) -> tuple[float, float]:
        """The worst shortfalls (mm) of these words, shifted by (dx, dy): against all else on the face, and the edge."""
        words, _ = words_on(self.r, self.module)
        covers, need = self.module.envelopes("cover"), limit(self.design, "legend-clearance")
        x, y, worst, worst_edge = self.placed.place.x + dx, self.placed.place.y + dy, -math.inf, -math.inf
        for word in () if letters.inside else letters.words:
            shape = word.box.moved(x, y)
            for others in (words, covers):
                near = others.against(shape, need, self.placed.number)
                worst = max(worst, need - near[0][1] if near else -math.inf)
            worst_edge = max(worst_edge, -margin_inside(shape, self.module.area))
        return worst, worst_edge


def move_to_settle(r: Resolved, module: ResolvedModule, candidates: list[Placed], *kinds: str) -> Fix | None:
    """The shortest move right, left, up or down of one of the candidates after which these kinds of rule hold.

    :param kinds: fields of :class:`Shortfalls`.
    :returns: None when every such move would run into something else, or further than :data:`FARTHEST`.
    """
    best: tuple[float, str, Placed] | None = None
    for placed in reversed([c for c in candidates if not c.function.locked]):
        mover = Mover(r, module, placed)
        before = mover.shortfalls(0, 0)
        for way, (sx, sy) in _WAYS.items():
            farthest = best[0] - 1e-9 if best else FARTHEST
            distance = _shortest(mover, before, kinds, sx, sy, farthest)
            if distance is not None:
                best = (distance, way, placed)
    if best is None:
        return None
    distance, way, placed = best
    sx, sy = _WAYS[way]
    command = MoveItems(functions=(placed.function.id,), dx=round(sx * distance, 2), dy=round(sy * distance, 2))
    return Fix(label=f"Move {placed.function.name} {distance:.1f} mm {way}", commands=(command,))


def _shortest(
    mover: Mover, before: Shortfalls, kinds: tuple[str, ...], sx: int, sy: int, farthest: float
) -> float | None:
    distance = max(0.1, *(_up(getattr(before, kind)) for kind in kinds))
    for _ in range(8):
        if distance > farthest:
            return None
        after = mover.shortfalls(sx * distance, sy * distance)
        left = max(getattr(after, kind) for kind in kinds)
        if left <= TOUCH:
            return distance if after.no_worse_than(before) else None
        distance = round(distance + max(0.1, _up(left)), 2)
    return None


def _up(value: float) -> float:
    return math.ceil(round(min(max(value, 0.0), 1e4) * 10, 6)) / 10
