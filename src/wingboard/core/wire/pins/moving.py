"""The least change: which lines give up pins that they have, where that lets everything fit."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from wingboard.core.record.wiring import PinChoice
from wingboard.core.wire.pins.kinds import PinDemand, PinKind, need_of, tenths
from wingboard.core.wire.signals import Line

MOVED = 10_000
"""Cost of a line that gives up its pin: more than any comfort."""


class Loose:
    """Lines that may give up their pins, in a model that has the others.

    A line by itself stays on its controller; all of a function's may go to another one together, where none of them is
    held there. Those on a bus stay: its pin is not theirs alone.
    """

    def __init__(
        self, model: Any, lines: Iterable[Line], held: Mapping[str, PinChoice],
        controllers: Iterable[str], kind_at: Callable[[str, str], PinKind],
    ) -> None:  # fmt: skip
        """:param held: the pins of those that may move; :param kind_at: what the pin of a controller can do."""
        self.lines = {line.id: line for line in lines if line.id in held and not line.bus}
        self.held = {ident: held[ident] for ident in self.lines}
        self.kinds = {ident: kind_at(p.controller, p.pin) for ident, p in self.held.items()}
        self.controllers = tuple(controllers)
        self.gives_up = {ident: model.new_bool_var(f"{ident} gives up its pin") for ident in self.lines}
        self.on: dict[tuple[str, str], Any] = {}
        self.units: dict[str, list[Line]] = defaultdict(list)
        for line in self.lines.values():
            self.units[line.unit].append(line)
        whole: Counter[str] = Counter(line.unit for line in lines)
        for unit, mine in self.units.items():
            homes = {self.held[line.id].controller for line in mine}
            bound = len(mine) < whole[unit] or len(homes) > 1
            for controller in self.controllers:
                self.on[unit, controller] = model.new_bool_var(f"{unit} on {controller}")
            model.add(sum(self.on[unit, c] for c in self.controllers) == 1)
            home = self.held[mine[0].id].controller
            if bound:
                model.add(self.on[unit, home] == 1)
            for line in mine:
                model.add(self.gives_up[line.id] >= 1 - self.on[unit, home])

    @property
    def cost(self) -> Any:
        """What is to be as small as can be before all else."""
        return MOVED * sum(self.gives_up.values())

    @property
    def needs(self) -> set[PinDemand]:
        """What these lines need."""
        return {need_of(line) for line in self.lines.values()}

    def pools(self) -> Counter[tuple[str, PinKind]]:
        """How many pins of each kind would be free on each controller if all of them moved."""
        return Counter((p.controller, self.kinds[ident]) for ident, p in self.held.items())

    def wanted(self, controller: str, need: PinDemand) -> list[Any]:
        """The pins of a kind that they want anew on a controller."""
        found: list[Any] = []
        for unit, mine in self.units.items():
            alike = [line for line in mine if need_of(line) == need]
            here = [self.gives_up[line.id] for line in alike if self.held[line.id].controller == controller]
            if here:
                bound = len({self.held[line.id].controller for line in mine}) > 1
                found += here if bound else [sum(here) - len(alike) * (1 - self.on[unit, controller])]
            elif alike and all(self.held[line.id].controller != controller for line in mine):
                found.append(len(alike) * self.on[unit, controller])
        return found

    def freed(self, controller: str, kind: PinKind) -> list[Any]:
        """The pins of a kind that they give up on a controller."""
        mine = (i for i, p in self.held.items() if p.controller == controller and self.kinds[i] == kind)
        return [self.gives_up[ident] for ident in mine]

    def drawn(self, controller: str) -> list[Any]:
        """What they add to the current of a controller's chip (tenths of a mA), below nothing where they leave it."""
        found: list[Any] = []
        for unit, mine in self.units.items():
            amps = sum(tenths(line) for line in mine)
            home = self.held[mine[0].id].controller
            if amps and len({self.held[line.id].controller for line in mine}) == 1:
                on = self.on[unit, controller]
                found.append(amps * (on - 1) if controller == home else amps * on)
        return found

    def moved(self, value: Callable[[Any], int]) -> dict[str, str]:
        """In a solution: the lines that give up their pins, and the controllers on which they are from then on."""
        found = {}
        for unit, mine in self.units.items():
            homes = {self.held[line.id].controller for line in mine}
            at = next(c for c in self.controllers if value(self.on[unit, c]))
            for line in mine:
                if value(self.gives_up[line.id]):
                    found[line.id] = at if len(homes) == 1 else self.held[line.id].controller
        return found
