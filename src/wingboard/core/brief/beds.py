"""Which plate fits which machine's bed, as it lies or turned, and into how many pieces otherwise."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.quantity import VISIBLE
from wingboard.core.record.workshop import Machine


class BedFit(NamedTuple):
    """How a plate lies on a machine: turned by 0 or 90 degrees, or in pieces.

    ``short`` is how much too long it is as it lies so, ``least`` how much at least whichever way it lies (mm).
    """

    machine: Machine
    turn: int
    pieces: int
    short: float
    least: float

    @property
    def whole(self) -> bool:
        """Whether it can be made in one piece."""
        return self.pieces == 1


def usable(machine: Machine) -> tuple[float, float]:
    """Width and height (mm) of the bed without its margins; nothing when the margins leave none."""
    return max(0.0, machine.bed_width - 2 * machine.margin), max(0.0, machine.bed_height - 2 * machine.margin)


def over_bed(width: float, height: float, machine: Machine) -> float:
    """How much (mm) a piece is too long for the bed less its margins, the way it lies better; less than 0: it fits."""
    return over(width, height, *usable(machine))


def over(width: float, height: float, bed_width: float, bed_height: float) -> float:
    """How much (mm) a sheet is over a bed the way it lies better."""
    return min(max(w - bed_width, h - bed_height) for w, h in ((width, height), (height, width)))


def longest(height: float, machine: Machine) -> float:
    """How wide (mm) a plate so high may be to lie on the bed in one piece, as it is or turned; 0: none does."""
    bed_w, bed_h = usable(machine)
    ways = [wide for wide, high in ((bed_w, bed_h), (bed_h, bed_w)) if height <= high + VISIBLE]
    return max(ways, default=0.0)


def bed_fit(width: float, height: float, machine: Machine) -> BedFit:
    """The better of both ways a plate of that size (mm) can lie, with the pieces it must be cut into.

    A piece twice the bed is three pieces once the margins count.
    """
    choices = []
    for turn, (w, h) in ((0, (width, height)), (90, (height, width))):
        bed_w, bed_h = usable(machine)
        if bed_w < 1 or bed_h < 1:
            return BedFit(machine, 0, 9999, max(width, height), max(width, height))
        pieces = math.ceil((w - VISIBLE) / bed_w) * math.ceil((h - VISIBLE) / bed_h)
        short = max(w - bed_w, h - bed_h)
        choices.append(BedFit(machine, turn, pieces, short, short))
    best = min(choices, key=lambda c: (c.pieces, c.turn))
    return best._replace(least=min(c.short for c in choices))
