"""What the harness takes in all: wire by cross-section and colour, plugs, ties, sleeves, joints, ferrules."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from wingboard.core.parts.tags import TagKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.bundles import looms
from wingboard.core.wire.harness.laid import fixed, laid
from wingboard.core.wire.harness.plugs import plugs

MORE = 1.1
"""Wire bought over what is cut (common practice: a tenth)."""


class Metres(NamedTuple):
    """Wire of one colour and cross-section: how many pieces, metres in all, and of these what is to be bought."""

    colour: str
    area: float
    pieces: int
    metres: float
    to_buy: float


class Totals(NamedTuple):
    """Everything: wire, plugs by title, ends by how they are fixed, joints to solder, sleeves over them, ties."""

    wire: tuple[Metres, ...]
    plugs: int
    ends: dict[TagKind, int]
    joints: int
    sleeves: int
    ties: int
    guessed: int
    """Wires of which the length is a guess."""

    @property
    def metres(self) -> float:
        """Of wire in all."""
        return sum(w.metres for w in self.wire)


def totals(r: Resolved) -> Totals:
    """What is cut, soldered and tied."""
    return r.once("harness totals", lambda: _totals(r))


def _totals(r: Resolved) -> Totals:
    wire: dict[tuple[str, float], list[tuple[float, bool]]] = {}
    ends: Counter[TagKind] = Counter()
    legs = 0
    for piece in laid(r):
        for port in (piece.wire.start, piece.wire.end):
            if piece.wire.how == "wire":
                ends[fixed(r, port)] += 1
        if piece.wire.how == "wire":
            colour = f"{piece.colour}-{piece.stripe}" if piece.stripe else piece.colour
            wire.setdefault((colour, piece.area), []).append((piece.length / 1000, piece.given is None))
        elif piece.wire.how == "leg":
            legs += 1
    made = tuple(
        Metres(colour, area, len(some), sum(m for m, _ in some), MORE * sum(m for m, buy in some if buy))
        for (colour, area), some in sorted(wire.items(), key=lambda item: (item[0][1], item[0][0]))
    )
    guessed = sum(p.wire.how == "wire" and not p.said for p in laid(r))
    ties = sum(len(loom.ties) for loom in looms(r))
    return Totals(made, len(plugs(r)), dict(ends), ends["solder"] + legs, ends["solder"] + legs, ties, guessed)
