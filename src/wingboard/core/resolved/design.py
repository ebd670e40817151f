"""What follows from a design, computed once a revision and only read afterwards."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import cached_property
from typing import Any, Protocol, TypeVar

from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function
from wingboard.core.record.lamps import made_for
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.layers import LayerUse, layer_uses
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.panel import ResolvedPanel
from wingboard.core.resolved.placed import Placed, Templates

T = TypeVar("T")


class Later(Protocol):
    """What works costly things out in its own time: gives what it has under a key, or None and has it made."""

    def __call__(self, name: str, key: Hashable, compute: Callable[[], T]) -> T | None:
        """The value, or None while it is being made."""


class Resolved:
    """A design with its parts looked up and its shapes placed. Stations keep their own results in :meth:`once`."""

    def __init__(self, design: Design, later: Later | None = None) -> None:
        """:param later: makes costly things while others go on; without it they are made when they are asked for."""
        self.design = design
        self.missed = False
        self._later = later
        self.parts = {p.id: p for p in design.parts}
        self.functions = {f.id: f for f in design.functions}
        self._kept: dict[str, Any] = {}

    def once(self, key: str, compute: Callable[[], T]) -> T:
        """The value of ``compute()``, computed the first time ``key`` is asked for."""
        if key not in self._kept:
            self._kept[key] = compute()
        value: T = self._kept[key]
        return value

    def costly(self, name: str, key: Hashable, compute: Callable[[], T]) -> T | None:
        """A value that takes long; None, and :attr:`missed`, while it is being worked out elsewhere.

        :param name: of it in this design; :param key: all that it follows from: equal keys have equal values.
        """
        if self._later is None or name in self._kept:
            return self.once(name, compute)
        found = self._later(name, key, compute)
        if found is None:
            self.missed = True
            return None
        return self.once(name, lambda: found)

    @cached_property
    def placed(self) -> tuple[Placed, ...]:
        """Every placed part, in the order of the functions."""
        stacks = {m.id: self.design.stack_of(m) for m in self.design.modules}
        return tuple(
            Placed(i, f, made_for(f, self.parts[f.part]), f.place, stacks[f.place.module])
            for i, f in enumerate(self.design.functions)
            if f.place is not None and f.part is not None
        )

    @cached_property
    def modules(self) -> dict[str, ResolvedModule]:
        """Every module by id."""
        on: dict[str, list[Placed]] = {module.id: [] for module in self.design.modules}
        for placed in self.placed:
            on[placed.place.module].append(placed)
        usual = Templates()
        return {
            m.id: ResolvedModule(
                n, m, self.design.stack_of(m), tuple(on[m.id]), usual if m.stack is None else Templates()
            )
            for n, m in enumerate(self.design.modules)
        }

    @cached_property
    def panel(self) -> ResolvedPanel:
        """All modules in the opening, as one: what hands, eyes and bodies behind meet ends at no seam."""
        return ResolvedPanel(tuple(self.modules.values()))

    @cached_property
    def layers(self) -> tuple[LayerUse, ...]:
        """Every layer that is made, with the modules it is made for."""
        return layer_uses(self.design)

    def stack_for(self, function: Function | None) -> tuple[Layer, ...]:
        """The layers a function's part has to go through: of its module, or of the first while it is in the tray."""
        modules = self.design.modules
        ident = function.place.module if function and function.place else None
        return self.design.stack_of(next((m for m in modules if m.id == ident), modules[0] if modules else None))
