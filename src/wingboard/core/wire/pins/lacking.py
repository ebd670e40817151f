"""What a board lacks for the lines of a function that got no pins: by Hall's theorem, over what pins can do.

A function's lines fit on a board if, and only if, for any few of the things they ask of pins there are as many pins
that can do one of these as there are lines that ask for one (P. Hall, "On representatives of subsets", 1935).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from itertools import combinations

from wingboard.core.wire.pins.kinds import PinDemand, PinKind, can

DOES = {"coder": "reads coders", "measures": "measures", "drives": "drives", "reads": "reads"}
DO = {"coder": "read coders", "measures": "measure", "drives": "drive", "reads": "read"}


def asks(need: PinDemand) -> str:
    """What a line asks of its pin before all else: one of the keys of ``DOES``."""
    if need.coder:
        return "coder"
    return "measures" if need.analogue else "drives" if need.out else "reads"


def lacking(wanted: Mapping[PinDemand, int], left: Mapping[PinKind, int]) -> str | None:
    """What a board lacks for so many lines of each need, of none that takes a shared pin of a bus.

    :param left: how many pins of each kind are left on it.
    :returns: such as "2 left, none of which drives"; None where pins are not what it lacks.
    """
    lines = Counter[str]()
    needs: dict[str, PinDemand] = {}
    for need, many in wanted.items():
        lines[asks(need)] += many
        needs[asks(need)] = need

    def able(some: tuple[str, ...]) -> int:
        return sum(many for kind, many in left.items() if any(can(needs[one], kind) for one in some))

    kinds = tuple(one for one in DOES if lines[one])
    there = sum(many for kind, many in left.items() if lines["coder"] or not kind.coder)
    if there < lines.total():
        return f"{there} left" if there else "nothing left"
    for many in range(1, len(kinds) + 1):
        for some in combinations(kinds, many):
            enough = able(some)
            if enough < sum(lines[one] for one in some):
                can_do = " or ".join((DOES if enough < 2 else DO)[one] for one in some)
                return f"{there} left, {enough or 'none'} of which {can_do}"
    return None
