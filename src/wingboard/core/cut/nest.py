"""Pieces laid on blanks: rectangles round them, each as low and as far left as it goes, turned where that helps.

Clamps and old holes are rectangles too, that are there already. Several orders are tried; the one that needs the fewest
blanks counts, then the one that leaves the most in one piece. Lengths in mm; a blank's origin is its lower left corner.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
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
    """A rectangle to be laid; ``turns``: a quarter turn is allowed."""

    name: str
    width: float
    height: float
    turns: bool = True


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
)
"""In which orders the pieces are tried: by area, longest side, height, width."""


def nested(wants: Sequence[Want], blanks: Sequence[Blank], gap: float) -> tuple[tuple[Filled, ...], tuple[Want, ...]]:
    """The blanks that are needed with what lies on each, and what goes on none of them.

    :param gap: between two pieces, and between a piece and what is taken (mm).
    """
    best: tuple[tuple[int, int, float], tuple[Filled, ...], tuple[Want, ...]] | None = None
    for order in ORDERS:
        filled, left = _in_order(sorted(wants, key=lambda w: (*order(w), w.name)), blanks, gap)
        largest = max((b.width * b.height for f in filled[-1:] for b in (rest(f, gap),) if b is not None), default=0.0)
        score = len(left), len(filled), -largest
        if best is None or score < best[0]:
            best = score, filled, left
    assert best is not None
    return best[1], best[2]


def _in_order(
    wants: Iterable[Want], blanks: Sequence[Blank], gap: float
) -> tuple[tuple[Filled, ...], tuple[Want, ...]]:
    open_ones: list[tuple[Blank, list[Put]]] = []
    used: dict[str, int] = {}
    left: list[Want] = []
    for want in wants:
        for blank, puts in open_ones:
            found = _place(want, blank, puts, gap)
            if found is not None:
                puts.append(found)
                break
        else:
            for blank in blanks:
                found = _place(want, blank, [], gap) if used.get(blank.name, 0) < blank.many else None
                if found is not None:
                    used[blank.name] = used.get(blank.name, 0) + 1
                    open_ones.append((blank, [found]))
                    break
            else:
                left.append(want)
    return tuple(Filled(blank, tuple(puts)) for blank, puts in open_ones), tuple(left)


def _place(want: Want, blank: Blank, puts: Sequence[Put], gap: float) -> Put | None:
    """The lowest place, then the one furthest left, either way round."""
    taken = [*blank.taken, *(p.box for p in puts)]
    u = blank.usable
    xs = sorted({u.x, *(b.x + b.width + gap for b in taken)})
    ys = sorted({u.y, *(b.y + b.height + gap for b in taken)})
    best: tuple[tuple[float, float, bool], Put] | None = None
    ways = (False, True) if want.turns and abs(want.width - want.height) > VISIBLE else (False,)
    for turned in ways:
        for y in ys:
            for x in xs:
                put = Put(want, x, y, turned)
                box = put.box
                if not box.within(u) or any(box.meets(other, gap) for other in taken):
                    continue
                score = y + box.height, x, turned
                if best is None or score < best[0]:
                    best = score, put
                break
    return best[1] if best else None


LEAST_REST = 40.0
"""What is left of a blank is worth keeping when neither side is shorter (mm, common practice)."""


def rest(filled: Filled, gap: float) -> Box | None:
    """The largest rectangle that is left whole; None where it is not worth keeping."""
    u = filled.blank.usable
    taken = [*filled.blank.taken, *(p.box for p in filled.puts)]
    xs = sorted({u.x, *(b.x + b.width + gap for b in taken)})
    ys = sorted({u.y, *(b.y + b.height + gap for b in taken)})
    best: Box | None = None
    for x in xs:
        for y in ys:
            # Upwards as far as it goes at every width that something ends it at.
            ends = sorted({u.x + u.width, *(b.x - gap for b in taken if b.x - gap > x + LEAST_REST)})
            for end in ends:
                across = Box(x, y, end - x, 0.01)
                over = [b.y - gap for b in taken if b.x < end + gap and b.x + b.width + gap > x and b.y + b.height > y]
                high = min([u.y + u.height, *over]) - y
                if across.width < LEAST_REST or high < LEAST_REST:
                    continue
                found = Box(x, y, across.width, high)
                if best is None or found.width * found.height > best.width * best.height:
                    best = found
    return best
