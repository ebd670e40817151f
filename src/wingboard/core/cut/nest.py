"""Pieces laid on blanks: rectangles round them, each as low and as far left as it goes, turned where that helps.

Clamps and old holes are rectangles too, that are there already. Several orders are tried; the one that needs the fewest
blanks counts, then the one that leaves the most in one piece. Lengths in mm; a blank's origin is its lower left corner.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import NamedTuple

from wingboard.core.quantity import VISIBLE


class Box(NamedTuple):
    """A rectangle from its lower left corner."""

    x: float
    y: float
    width: float
    height: float

    def meets(self, other: Box, apart: float = 0.0) -> bool:
        """Whether two are nearer than ``apart``."""
        return (
            self.x < other.x + other.width + apart - VISIBLE
            and other.x < self.x + self.width + apart - VISIBLE
            and self.y < other.y + other.height + apart - VISIBLE
            and other.y < self.y + self.height + apart - VISIBLE
        )

    def within(self, other: Box) -> bool:
        """Whether it lies inside another."""
        return (
            self.x >= other.x - VISIBLE
            and self.y >= other.y - VISIBLE
            and self.x + self.width <= other.x + other.width + VISIBLE
            and self.y + self.height <= other.y + other.height + VISIBLE
        )


class Want(NamedTuple):
    """A rectangle to be laid; ``ways``: as it is (False), turned by a quarter (True), or either."""

    name: str
    width: float
    height: float
    ways: tuple[bool, ...] = (False, True)


class Put(NamedTuple):
    """A rectangle as it lies: its lower left corner, and whether it is turned by a quarter."""

    want: Want
    x: float
    y: float
    turned: bool

    @property
    def box(self) -> Box:
        """What it covers."""
        wide, high = (self.want.height, self.want.width) if self.turned else (self.want.width, self.want.height)
        return Box(self.x, self.y, wide, high)


class Blank(NamedTuple):
    """A sheet or a part of one: what of it can be used, what is taken, how often it is there."""

    name: str
    usable: Box
    taken: tuple[Box, ...] = ()
    many: int = 10_000


class Filled(NamedTuple):
    """A blank with what lies on it."""

    blank: Blank
    puts: tuple[Put, ...]


ORDERS: tuple[Callable[[Want], tuple[float, ...]], ...] = (
    lambda w: (-w.width * w.height,),
    lambda w: (-max(w.width, w.height), -min(w.width, w.height)),
    lambda w: (-w.height, -w.width),
    lambda w: (-w.width, -w.height),
    lambda w: (-w.width - w.height,),
)
"""In which orders the pieces are tried: by area, longest side, height, width, half their way round."""
MANY = 80
"""Of more pieces than this only one order is tried, …"""
LATEST = 12
"""… and only the blanks that were begun last are looked at again."""
Score = tuple[float, ...]
FITS: tuple[Callable[[Box, Box], Score], ...] = (
    lambda free, box: (box.y + box.height, box.x),
    lambda free, box: (min(free.width - box.width, free.height - box.height), box.y, box.x),
    lambda free, box: (free.width * free.height - box.width * box.height, box.y, box.x),
)
"""What makes a place good: low and left; a short side that is filled; little of the room wasted."""


def nested(wants: Sequence[Want], blanks: Sequence[Blank], gap: float) -> tuple[tuple[Filled, ...], tuple[Want, ...]]:
    """The blanks that are needed with what lies on each, and what goes on none of them.

    Free room is kept as the largest rectangles in it (maximal rectangles, Jylänki 2010; from memory).

    :param gap: between two pieces, and between a piece and what is taken (mm).
    """
    return _nested(tuple(wants), tuple(blanks), gap)


@lru_cache(maxsize=64)
def _nested(
    wants: tuple[Want, ...], blanks: tuple[Blank, ...], gap: float
) -> tuple[tuple[Filled, ...], tuple[Want, ...]]:
    """Kept, because a part that is moved changes no piece's size."""
    best: tuple[tuple[int, int, float], tuple[Filled, ...], tuple[Want, ...]] | None = None
    few = len(wants) <= MANY
    for order in ORDERS if few else ORDERS[:1]:
        wanted = sorted(wants, key=lambda w: (*order(w), w.name))
        for fit in FITS if few else FITS[:1]:
            filled, left = _in_order(wanted, blanks, gap, fit)
            last = rest(filled[-1], gap) if filled else None
            score = len(left), len(filled), -(last.width * last.height if last else 0.0)
            if best is None or score < best[0]:
                best = score, filled, left
    assert best is not None
    return best[1], best[2]


class _Open:
    """A blank in use: what lies on it, and the largest rectangles that are free."""

    def __init__(self, blank: Blank, gap: float) -> None:
        self.blank, self.gap = blank, gap
        self.puts: list[Put] = []
        self.free = [blank.usable]
        for box in blank.taken:
            self._without(box)

    def _without(self, box: Box) -> None:
        """Take a rectangle and the gap round it out of what is free."""
        g = self.gap
        x0, y0, x1, y1 = box.x - g, box.y - g, box.x + box.width + g, box.y + box.height + g
        left: list[Box] = []
        for f in self.free:
            fx1, fy1 = f.x + f.width, f.y + f.height
            if x0 >= fx1 - VISIBLE or x1 <= f.x + VISIBLE or y0 >= fy1 - VISIBLE or y1 <= f.y + VISIBLE:
                left.append(f)
                continue
            if x0 > f.x:
                left.append(Box(f.x, f.y, x0 - f.x, f.height))
            if x1 < fx1:
                left.append(Box(x1, f.y, fx1 - x1, f.height))
            if y0 > f.y:
                left.append(Box(f.x, f.y, f.width, y0 - f.y))
            if y1 < fy1:
                left.append(Box(f.x, y1, f.width, fy1 - y1))
        self.free = [
            f for n, f in enumerate(left) if not any(_hides(g, f, m < n) for m, g in enumerate(left) if m != n)
        ]

    def place(self, want: Want, fit: Callable[[Box, Box], Score]) -> tuple[Score, Put] | None:
        """The best place for a piece, either way round."""
        ways = want.ways if abs(want.width - want.height) > VISIBLE else want.ways[:1]
        found: list[tuple[Score, Put]] = []
        for turned in ways:
            wide, high = (want.height, want.width) if turned else (want.width, want.height)
            for free in self.free:
                if wide <= free.width + VISIBLE and high <= free.height + VISIBLE:
                    put = Put(want, free.x, free.y, turned)
                    found.append((fit(free, put.box), put))
        return min(found, key=lambda f: (f[0], f[1].turned), default=None)

    def put(self, put: Put) -> None:
        """Lay a piece."""
        self.puts.append(put)
        self._without(put.box)


def _hides(one: Box, other: Box, first: bool) -> bool:
    """Whether a free rectangle holds another; of two alike the first does."""
    return other.within(one) and (first or not one.within(other))


def _in_order(
    wants: Sequence[Want], blanks: Sequence[Blank], gap: float, fit: Callable[[Box, Box], Score]
) -> tuple[tuple[Filled, ...], tuple[Want, ...]]:
    open_ones: list[_Open] = []
    used: dict[str, int] = {}
    left: list[Want] = []
    many = len(wants) > MANY
    for want in wants:
        first = max(0, len(open_ones) - LATEST) if many else 0
        good = [(*place, n) for n, o in enumerate(open_ones[first:], first) if (place := o.place(want, fit))]
        if good:
            _, put, n = min(good, key=lambda g: (g[0], g[2]))
            open_ones[n].put(put)
            continue
        for blank in blanks:
            fresh = _Open(blank, gap) if used.get(blank.name, 0) < blank.many else None
            found = fresh.place(want, fit) if fresh else None
            if fresh is not None and found is not None:
                fresh.put(found[1])
                used[blank.name] = used.get(blank.name, 0) + 1
                open_ones.append(fresh)
                break
        else:
            left.append(want)
    return tuple(Filled(o.blank, tuple(o.puts)) for o in open_ones), tuple(left)


LEAST_REST = 40.0
"""What is left of a blank is worth keeping when neither side is shorter (mm, common practice)."""


def rest(filled: Filled, gap: float) -> Box | None:
    """The largest rectangle that is left whole; None where it is not worth keeping."""
    left = _Open(filled.blank, gap)
    for put in filled.puts:
        left.put(put)
    worth = [f for f in left.free if min(f.width, f.height) >= LEAST_REST]
    return max(worth, key=lambda f: f.width * f.height, default=None)
