"""Contacts in rows and columns: a row is pulled down at a time, and the columns tell what is closed in it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations
from typing import NamedTuple

from wingboard.core.wire.signals import Signal


class Grid(NamedTuple):
    """The contacts of each row, in the order of the columns."""

    rows: tuple[tuple[Signal, ...], ...]

    @property
    def columns(self) -> int:
        """As many as the longest row has contacts."""
        return max((len(row) for row in self.rows), default=0)

    @property
    def pins(self) -> int:
        """A pin for each row and each column."""
        return len(self.rows) + self.columns


def grid(signals: Sequence[Signal]) -> Grid:
    """The rows and columns that want the fewest pins; fewer rows where that is alike, for they are read in turn.

    Contacts that share a terminal share a row. Rows are filled by what is longest first.
    """
    bundles: dict[tuple[str, str], list[Signal]] = {}
    for signal in signals:
        bundles.setdefault((signal.line.function, signal.told.back), []).append(signal)
    if not bundles:
        return Grid(())
    longest = max(map(len, bundles.values()))
    best: Grid | None = None
    for width in range(longest, max(longest, len(signals)) + 1):
        if best is not None and width + 1 > best.pins:
            break  # wider ones want more pins for their columns alone
        made = Grid(tuple(map(tuple, _filled(list(bundles.values()), width))))
        if best is None or (made.pins, len(made.rows)) < (best.pins, len(best.rows)):
            best = made
    return best or Grid(())


def _filled(bundles: list[list[Signal]], width: int) -> list[list[Signal]]:
    rows: list[list[Signal]] = []
    for bundle in sorted(bundles, key=len, reverse=True):
        row = next((row for row in rows if len(row) + len(bundle) <= width), None)
        if row is None:
            rows.append(list(bundle))
        else:
            row.extend(bundle)
    return rows


class Ghost(NamedTuple):
    """Three contacts that are closed, and a fourth that then reads as closed when there are no diodes."""

    closed: tuple[Signal, Signal, Signal]
    seen: Signal


def ghosts(found: Grid) -> Iterator[Ghost]:
    """Every fourth contact that three closed ones would show: the corners of each rectangle.

    Ways of one selector are never closed together, so that no two of them are among the three.
    """
    for one, other in combinations(found.rows, 2):
        for a, b in combinations(range(min(len(one), len(other))), 2):
            corners = (one[a], one[b], other[a], other[b])
            for n, seen in enumerate(corners):
                x, y, z = (c for k, c in enumerate(corners) if k != n)
                ways = [(c.line.function, c.told.id) for c in (x, y, z) if c.way]
                if len(set(ways)) == len(ways):
                    yield Ghost((x, y, z), seen)
