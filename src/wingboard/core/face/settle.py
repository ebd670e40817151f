"""Finding the smallest move that settles a clash without making another of any kind."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.face.cables import cable_rooms
from wingboard.core.face.graphics import graphic_shapes
from wingboard.core.face.legend import Lettering, letterings, words_on_panel
from wingboard.core.face.rules import behind_boxes, bridge_needed, spacing_needed, widest_spacing
from wingboard.core.findings.finding import Fix
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import Rounded, gap, margin_inside
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.quantity import TOUCH, VISIBLE
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Envelope, Placed

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
    boards: float
    cables: float

    def no_worse_than(self, other: Shortfalls) -> bool:
        """Whether each kind holds here, or fails by no more than there."""
        return all(mine <= max(TOUCH, theirs + TOUCH) for mine, theirs in zip(self, other, strict=True))


class Mover:
    """Judges a part at other places of its module, everything else standing still.

    Sheets are judged on the module; hands, covers, bodies and words in the opening, across seams. Modules are not
    turned in the opening, so a shift is the same in both.
    """

    def __init__(self, r: Resolved, placed: Placed) -> None:
        self.r, self.panel, self.placed = r, r.panel, placed
        self.module = r.modules[placed.place.module]
        self.design = r.design
        self.widest = widest_spacing(r.design)

    def shortfalls(self, dx: float, dy: float) -> Shortfalls:
        """How each kind of rule fares with the part shifted by (dx, dy) mm."""
        openings, edge = self._openings(self.module.plates, dx, dy)
        words, words_edge = self._words(dx, dy)
        hands, keepouts, graphics = self._hands(dx, dy), self._keepouts(dx, dy), self._graphics(dx, dy)
        bodies = self._bodies(limit(self.design, "body-clearance"), dx, dy)
        covers = self._against("cover", limit(self.design, "cover-clearance"), dx, dy)
        return Shortfalls(
            hands, openings, edge, bodies, words, words_edge, keepouts, graphics, covers, self._boards(dx, dy),
            self._cables(limit(self.design, "body-clearance"), dx, dy),
        )  # fmt: skip

    def _own(self, shapes: ShapeSet, dx: float, dy: float) -> list[Rounded]:
        mine = (shapes.owners == self.placed.number).nonzero()[0]
        return [shapes.shape(int(i)).moved(dx, dy) for i in mine]

    def _worst(self, own: list[Rounded], others: ShapeSet, need: float) -> float:
        """By how much the worst of these shapes is nearer than ``need`` to others' shapes."""
        nearest = (others.against(shape, need, self.placed.number)[:1] for shape in own)
        return max((need - apart for found in nearest for _, apart in found), default=-math.inf)

    def _against(self, what: Envelope, need: float, dx: float, dy: float) -> float:
        shapes = self.panel.envelopes(what)
        return self._worst(self._own(shapes, dx, dy), shapes, need)

    def _bodies(self, need: float, dx: float, dy: float) -> float:
        worst, bodies, number = -math.inf, self.panel.bodies, self.placed.number
        for i in bodies.of(number):
            shape, z0, z1 = bodies.shapes.shape(i).moved(dx, dy), bodies.z0[i], bodies.z1[i]
            worst = max([worst, *(need - apart for _, apart in bodies.against(shape, need, number, z0, z1)[:1])])
        return worst

    def _cables(self, need: float, dx: float, dy: float) -> float:
        """Its own cable against others' bodies, and its body against others' cables."""
        rooms, bodies = cable_rooms(self.r), self.panel.bodies
        own = [bodies.shapes.shape(i).moved(dx, dy) for i in bodies.of(self.placed.number)]
        return max(self._worst(self._own(rooms, dx, dy), bodies.shapes, need), self._worst(own, rooms, need))

    def _hands(self, dx: float, dy: float) -> float:
        worst, shapes = -math.inf, self.panel.envelopes("hand")
        for shape in self._own(shapes, dx, dy):
            for i, apart in shapes.against(shape, self.widest, self.placed.number):
                other = self.panel.by_number[int(shapes.owners[i])]
                need = spacing_needed(self.design, self.placed, other)
                worst = max(worst, need.value - apart if need else -math.inf)
        return worst

    def _boards(self, dx: float, dy: float) -> float:
        """Openings in the boards on standoffs, to each other and to their edge."""
        return max(self._openings([layer for layer in self.module.stack if not is_plate(layer)], dx, dy))

    def _openings(self, layers: Sequence[Layer], dx: float, dy: float) -> tuple[float, float]:
        worst = worst_edge = -math.inf
        for layer in layers:
            need, shapes = bridge_needed(self.design, layer).value, self.module.openings(layer.id)
            own = self._own(shapes, dx, dy)
            worst = max(worst, self._worst(own, shapes, need))
            worst_edge = max([worst_edge, *(need - margin_inside(shape, self.module.area_of(layer)) for shape in own)])
        return worst, worst_edge

    def _keepouts(self, dx: float, dy: float) -> float:
        bodies, boxes = self.panel.bodies, behind_boxes(self.design)
        own = [(bodies.shapes.shape(i).moved(dx, dy), float(bodies.z1[i])) for i in bodies.of(self.placed.number)]
        hits = ((body, box) for body, depth in own for box in boxes if box.clear < depth - VISIBLE)
        return max((-gap(body, box.area()) for body, box in hits), default=-math.inf)

    def _lettered(self, letters: Lettering, dx: float, dy: float) -> list[Rounded]:
        """The boxes of the part's words on the face, in the opening's coordinates."""
        x, y = self.panel.point(self.placed)
        return [word.box.moved(x + dx, y + dy) for word in letters.words if not letters.inside]

    def _graphics(self, dx: float, dy: float) -> float:
        """Against brackets, boxes, texts and placards, for what covers the face and for the part's words."""
        shapes, _ = graphic_shapes(self.r)
        if not len(shapes):
            return -math.inf
        own = self._own(self.panel.envelopes("cover"), dx, dy)
        own += self._lettered(letterings(self.r)[self.placed.number], dx, dy)
        return self._worst(own, shapes, limit(self.design, "legend-clearance"))

    def _words(self, dx: float, dy: float) -> tuple[float, float]:
        worst, edge = self.words_of(letterings(self.r)[self.placed.number], dx, dy)
        own = self._own(self.panel.envelopes("cover"), dx, dy)
        return max(worst, self._worst(own, words_on_panel(self.r)[0], limit(self.design, "legend-clearance"))), edge

    def words_of(self, letters: Lettering, dx: float = 0.0, dy: float = 0.0) -> tuple[float, float]:
        """The worst shortfalls (mm) of these words, shifted by (dx, dy): against all else on the face, and the edge."""
        need, own = limit(self.design, "legend-clearance"), self._lettered(letters, dx, dy)
        others = (words_on_panel(self.r)[0], self.panel.envelopes("cover"))
        area = self.module.area_in_opening
        return (
            max(self._worst(own, shapes, need) for shapes in others),
            max((-margin_inside(shape, area) for shape in own), default=-math.inf),
        )


def move_to_settle(r: Resolved, candidates: list[Placed], *kinds: str) -> tuple[Fix, ...]:
    """Moves right, left, up or down of one of the candidates after which these kinds of rule hold.

    Those along the row or column that a part stands in come first, then the shortest.

    :param kinds: fields of :class:`Shortfalls`.
    :returns: none where every such move would run into something else, or further than :data:`FARTHEST`.
    """
    found: list[tuple[bool, float, Fix]] = []
    for placed in reversed([c for c in candidates if not c.function.locked]):
        mover = Mover(r, placed)
        before = mover.shortfalls(0, 0)
        level, upright = lines_of(r, placed)
        for way, (sx, sy) in _WAYS.items():
            distance = _shortest(mover, before, kinds, sx, sy, FARTHEST)
            if distance is not None:
                leaves = (level and sy != 0) or (upright and sx != 0)
                found.append((leaves, distance, _moved(placed, distance, way)))
    return tuple(fix for _, _, fix in sorted(found, key=lambda option: option[:2])[:MOST_MOVES])


MOST_MOVES = 4
"""So many moves are proposed at most."""
IN_LINE = 0.05
"""Parts whose centres differ by no more (mm) stand in one row, or one column; three make one."""


def lines_of(r: Resolved, placed: Placed) -> tuple[bool, bool]:
    """Whether a part stands in a row, and in a column, with two others of its module at least."""
    others = [p.place for p in r.modules[placed.place.module].placed if p.number != placed.number]
    row = sum(abs(p.y - placed.place.y) <= IN_LINE for p in others)
    column = sum(abs(p.x - placed.place.x) <= IN_LINE for p in others)
    return row >= 2, column >= 2


def _moved(placed: Placed, distance: float, way: str) -> Fix:
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
