"""How many of each part: in use, with spares, on hand, to buy, and what that costs."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.record.lamps import made_for
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved


class Count(NamedTuple):
    """One part, in one colour, in numbers.

    ``sample`` is one to buy and try first, when the part asks for that and none is on hand.
    """

    part: Part
    functions: tuple[str, ...]
    needed: int
    on_hand: int
    sample: int

    @property
    def used(self) -> int:
        """How many are fitted."""
        return len(self.functions)

    @property
    def to_buy(self) -> int:
        """How many are missing, spares included."""
        return max(0, self.needed - self.on_hand)

    @property
    def cost(self) -> int:
        """Of those to buy, new, in minor units."""
        return self.to_buy * self.part.price

    @property
    def cost_used(self) -> tuple[int, int]:
        """Least and most paid when they are bought used; the new price where none is known."""
        used = self.part.used
        low, high = (used.low, used.high) if used else (self.part.price, self.part.price)
        return self.to_buy * low, self.to_buy * high


def counts(r: Resolved) -> tuple[Count, ...]:
    """Every part that a function uses, in the order of first use. An alias adds none."""

    def compute() -> tuple[Count, ...]:
        users: dict[tuple[str, str], tuple[Part, list[str]]] = {}
        for f in r.design.functions:
            if f.part is not None and f.state != "alias":
                part = made_for(f, r.parts[f.part])
                users.setdefault((part.id, part.colour), (part, []))[1].append(f.id)
        have = {p.part: p.count for p in r.design.workshop.parts}
        found = []
        for part, ids in users.values():
            count = _count(part, tuple(ids), have.get(part.id, 0))
            have[part.id] = max(0, count.on_hand - count.needed)
            found.append(count)
        return tuple(found)

    return r.once("counts", compute)


def _count(part: Part, functions: tuple[str, ...], on_hand: int) -> Count:
    needed = len(functions) * part.times
    sample = 1 if part.sample_first and len(functions) > 1 and on_hand == 0 else 0
    return Count(part, functions, needed, on_hand, sample)


SHOPPING = (
    "part",
    "summary",
    "in use",
    "with spares",
    "on hand",
    "to buy",
    "sample first",
    "each",
    "together",
    "currency",
)


def shopping_rows(r: Resolved) -> list[tuple[str, ...]]:
    """The parts to buy as cells under :data:`SHOPPING`; money in major units with two decimals."""
    rows = []
    for count in counts(r):
        figures = (count.used, count.needed, count.on_hand, count.to_buy)
        sample = "buy one, try it, then the rest" if count.sample and count.to_buy else ""
        money = (f"{count.part.price / 100:.2f}", f"{count.cost / 100:.2f}")
        rows.append(
            (count.part.name, count.part.summary, *(str(n) for n in figures), sample, *money, r.design.brief.currency)
        )
    return rows
