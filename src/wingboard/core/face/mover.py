"""How a part fares at other places of its module, every rule of the face asked at once."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from wingboard.core.face.cables import cable_rooms
from wingboard.core.face.graphics import graphic_shapes
from wingboard.core.face.legend import Lettering, letterings, words_on_panel
from wingboard.core.face.rules import behind_boxes, bridge_needed, spacing_needed, widest_spacing
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import Rounded, gap, margin_inside
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.quantity import TOUCH, VISIBLE
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Envelope, Placed


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
