"""From one thing's own coordinates to those of what holds it: a part on its module, a module in the opening."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.geometry.outline import Loop, moved, turned
from wingboard.core.geometry.rounded import Rounded

Point = tuple[float, float]


class Frame(NamedTuple):
    """Where something lies in what holds it: turned counter-clockwise (degrees) about its own origin, then moved (mm).

    >>> part, module = Frame(10, 20, 90), Frame(100, 0)
    >>> part.within(module).point(5, 0)
    (110.0, 25.0)
    """

    x: float = 0.0
    y: float = 0.0
    turn: float = 0.0

    def point(self, x: float, y: float) -> Point:
        """A point of its own, as what holds it sees it."""
        if self.turn % 360 == 0:
            return self.x + x, self.y + y
        c, s = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        return self.x + x * c - y * s, self.y + x * s + y * c

    def back(self, x: float, y: float) -> Point:
        """A point of what holds it, in its own coordinates; undoes :meth:`point`."""
        dx, dy = x - self.x, y - self.y
        if self.turn % 360 == 0:
            return dx, dy
        c, s = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        return dx * c + dy * s, dy * c - dx * s

    def shape(self, shape: Rounded) -> Rounded:
        """A shape of its own, as what holds it sees it."""
        return shape.turned(self.turn).moved(self.x, self.y)

    def loop(self, loop: Loop) -> Loop:
        """An outline of its own, as what holds it sees it."""
        return moved(turned(loop, self.turn) if self.turn % 360 else loop, self.x, self.y)

    def within(self, holder: Frame) -> Frame:
        """Where it lies in what holds its holder."""
        x, y = holder.point(self.x, self.y)
        return Frame(x, y, self.turn + holder.turn)
