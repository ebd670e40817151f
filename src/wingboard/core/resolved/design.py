"""What follows from a design, computed once a revision and only read afterwards."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import Any, TypeVar

from wingboard.core.record.design import Design
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.panel import ResolvedPanel
from wingboard.core.resolved.placed import Placed, Templates
from wingboard.core.resolved.profile import plates

T = TypeVar("T")


class Resolved:
    """A design with its parts looked up and its shapes placed. Stations keep their own results in :meth:`once`."""

    def __init__(self, design: Design) -> None:
        self.design = design
        self.parts = {p.id: p for p in design.parts}
        self.functions = {f.id: f for f in design.functions}
        self._kept: dict[str, Any] = {}
        self._templates = Templates(design.stack)

    def once(self, key: str, compute: Callable[[], T]) -> T:
        """The value of ``compute()``, computed the first time ``key`` is asked for."""
        if key not in self._kept:
            self._kept[key] = compute()
        value: T = self._kept[key]
        return value

    @cached_property
    def placed(self) -> tuple[Placed, ...]:
        """Every placed part, in the order of the functions."""
        return tuple(
            Placed(i, f, self.parts[f.part], f.place)
            for i, f in enumerate(self.design.functions)
            if f.place is not None and f.part is not None
        )

    @cached_property
    def modules(self) -> dict[str, ResolvedModule]:
        """Every module by id."""
        on: dict[str, list[Placed]] = {module.id: [] for module in self.design.modules}
        for placed in self.placed:
            on[placed.place.module].append(placed)
        return {
            module.id: ResolvedModule(n, module, tuple(on[module.id]), self._templates)
            for n, module in enumerate(self.design.modules)
        }

    @cached_property
    def panel(self) -> ResolvedPanel:
        """All modules in the opening, as one: what hands, eyes and bodies behind meet ends at no seam."""
        return ResolvedPanel(tuple(self.modules.values()), self._templates)

    @property
    def layers(self) -> tuple[str, ...]:
        """The ids of the layers that are screwed together, from the front."""
        return tuple(layer.id for layer in plates(self.design.stack))
