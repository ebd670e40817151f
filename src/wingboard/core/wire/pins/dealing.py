"""Dealing pins to the lines of a board: each the one that lies where it comes along the loom.

So neighbours in the harness have neighbouring pins, a plug between is straight, and wires do not cross.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence, Set

from ortools.graph.python.linear_sum_assignment import SimpleLinearSumAssignment

from wingboard.core.record.controllers import Board, Pin, rank
from wingboard.core.wire.pins.kinds import can, comfort, kind_of, need_of, tenths_of_pin
from wingboard.core.wire.signals import Line

DEAR = 1_000_000
"""Weight of comfort against the places of pins: no straight wire is worth a worse pin."""


def deal(
    board: Board, wanted: Sequence[tuple[int, Line]], free: Sequence[Pin], given: Mapping[str, Line], buses: Set[str]
) -> dict[str, Pin]:
    """A free pin for each line: the best there are, and among these the ones nearest to the lines' places.

    :param wanted: each line with its place along the loom, counted over all lines of the board. :param free: at least
    as many pins, of kinds for all of them. :param given: the lines that have pins already, by these.
    :param buses: those that some line wants.
    :returns: by line; no port carries more than it may where that can be had.
    """
    places = rank(board)
    solver = SimpleLinearSumAssignment()
    for k, (place, line) in enumerate(wanted):
        need = need_of(line)
        for n, pin in enumerate(free):
            kind = kind_of(pin, buses)
            if can(need, kind):
                solver.add_arc_with_cost(k, n, DEAR * comfort(need, kind) + (places[pin.name] - place) ** 2)
    for k in range(len(wanted), len(free)):  # pins that stay free
        for n in range(len(free)):
            solver.add_arc_with_cost(k, n, 0)
    if solver.solve() != SimpleLinearSumAssignment.OPTIMAL:
        raise AssertionError("the counts of the solver do not fit the pins")
    dealt = {line.id: free[solver.right_mate(k)] for k, (_, line) in enumerate(wanted)}
    return _Spread(board, dict(wanted_by_id(wanted)), dealt, free, given, buses).spread()


def wanted_by_id(wanted: Sequence[tuple[int, Line]]) -> Mapping[str, Line]:
    """The lines by their ids."""
    return {line.id: line for _, line in wanted}


class _Spread:
    """Lamps off ports that would carry too much, to pins that are as good."""

    def __init__(
        self, board: Board, lines: Mapping[str, Line], dealt: dict[str, Pin], free: Sequence[Pin],
        given: Mapping[str, Line], buses: Set[str],
    ) -> None:  # fmt: skip
        self.board, self.lines, self.dealt, self.buses = board, lines, dealt, buses
        self.users: dict[str, str | None] = {pin.name: None for pin in free}
        self.users |= {pin.name: ident for ident, pin in dealt.items()}
        self.pins = {pin.name: pin for pin in free}
        self.amps: Counter[object] = Counter()
        for name, line in given.items():
            pin = board.pin(name)
            if pin:
                self.amps[board.group(pin)] += tenths_of_pin(line)
        for ident, pin in dealt.items():
            self.amps[board.group(pin)] += tenths_of_pin(lines[ident])

    def spread(self) -> dict[str, Pin]:
        """All lines with their pins, those moved that had to."""
        for group in self.board.groups:
            heavy = [i for i, pin in self.dealt.items() if self.board.group(pin) == group]
            for ident in sorted(heavy, key=lambda i: -tenths_of_pin(self.lines[i])):
                if self.amps[group] > round(group.most * 10_000) and tenths_of_pin(self.lines[ident]):
                    self._elsewhere(ident)
        return self.dealt

    def _elsewhere(self, ident: str) -> None:
        """One line to another port, in exchange with one that draws nothing where no pin there is free."""
        mine, amps = self.dealt[ident], tenths_of_pin(self.lines[ident])
        for name, pin in self.pins.items():
            group, other = self.board.group(pin), self.users[name]
            if group == self.board.group(mine) or not self._alike(ident, mine, pin):
                continue
            if group and self.amps[group] + amps > round(group.most * 10_000):
                continue
            if other and (tenths_of_pin(self.lines[other]) or not self._alike(other, pin, mine)):
                continue
            self.dealt[ident], self.users[name], self.users[mine.name] = pin, ident, other
            if other:
                self.dealt[other] = mine
            self.amps[self.board.group(mine)] -= amps
            self.amps[group] += amps
            return

    def _alike(self, ident: str, one: Pin, other: Pin) -> bool:
        """Whether a pin is as good for a line as the one that it has."""
        need, kind = need_of(self.lines[ident]), kind_of(other, self.buses)
        return can(need, kind) and comfort(need, kind) == comfort(need, kind_of(one, self.buses))
