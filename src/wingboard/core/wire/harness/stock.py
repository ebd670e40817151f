"""Wire on hand given to what is cut: from which piece each wire comes, what is left, what is to be bought. In mm.

The longest first, each from the shortest piece that it still fits on, of its own colour and as thick as it must be. A
signal takes another free colour before a new spool is bought; grounds, supplies and loads keep theirs.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from wingboard.core.record.harness import WireColour, WireOnHand
from wingboard.core.wire.harness.gauge import gauge_for

TOO_THICK = 2.5
"""Wire of more than so many times the cross-section that is asked for is not taken: it bends and fits badly."""


class Wanted(NamedTuple):
    """A wire that is cut: by its id, in a colour that may be another where ``free``, at least so thick, so long."""

    id: str
    colour: WireColour
    free: bool
    area: float
    length: float


class Given(NamedTuple):
    """What a wire is cut from: the entry of the workshop, the number of its piece from 1, and what that is."""

    stock: str
    piece: int
    colour: WireColour
    area: float


class Rest(NamedTuple):
    """A piece of wire on hand: how long it was and what is left (mm)."""

    stock: str
    piece: int
    whole: float
    left: float


class Assigned(NamedTuple):
    """By wire what it is cut from (those to be bought left out), and what is left of every piece."""

    given: dict[str, Given]
    rests: tuple[Rest, ...]


def assigned(wanted: Sequence[Wanted], on_hand: Sequence[WireOnHand], reserved: frozenset[WireColour]) -> Assigned:
    """Give every wire a piece, where one is left.

    :param reserved: colours that mean something else: no signal takes them.
    """
    left = {(w.id, n): 1000.0 * w.metres for w in on_hand for n in range(1, w.count + 1)}
    by_id = {w.id: w for w in on_hand}
    given: dict[str, Given] = {}
    for want in sorted(wanted, key=lambda w: (-w.length, w.id)):
        fits = [key for key, rest in left.items() if rest >= want.length and _serves(want, by_id[key[0]], reserved)]
        if not fits:
            continue
        best = min(fits, key=lambda key: (by_id[key[0]].colour != want.colour, by_id[key[0]].area, left[key], key))
        left[best] -= want.length
        given[want.id] = Given(*best, by_id[best[0]].colour, by_id[best[0]].area)
    rests = tuple(Rest(ident, n, 1000.0 * by_id[ident].metres, rest) for (ident, n), rest in left.items())
    return Assigned(given, rests)


def _serves(want: Wanted, wire: WireOnHand, reserved: frozenset[WireColour]) -> bool:
    right = wire.colour == want.colour or (want.free and wire.colour not in reserved)
    thick = gauge_for(want.area).area
    return right and want.area - 1e-9 <= wire.area <= TOO_THICK * thick
