"""The tolerance chain across modules side by side: worst case the sum, likely case the root of squares."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.geometry.outline import area_of
from wingboard.core.record.space import fitting_opening
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


class Chain(NamedTuple):
    """A row of modules in the opening. ``clear`` is the width (mm) they leave; the tolerances are of their sum."""

    modules: tuple[ResolvedModule, ...]
    opening: float
    taken: float
    worst: float
    likely: float

    @property
    def clear(self) -> float:
        """What is left for all gaps together when every module comes out as drawn."""
        return self.opening - self.taken

    @property
    def clear_worst(self) -> float:
        """What is left when every module comes out at its widest."""
        return self.clear - self.worst

    @property
    def clear_likely(self) -> float:
        """What is likely left: the tolerances added as independent ones."""
        return self.clear - self.likely


def chain(r: Resolved) -> Chain | None:
    """The widest row of modules across the opening, left to right; None when there is no module."""
    modules = sorted(r.modules.values(), key=lambda p: p.module.x)
    rows = [[q for q in modules if _beside(p, q)] for p in modules]
    if not rows:
        return None
    row = max(rows, key=lambda each: sum(p.size[0] for p in each))
    x0, _, x1, _ = area_of(fitting_opening(r.design.brief).loop()).bounds
    tolerances = [p.module.tolerance for p in row]
    likely = math.sqrt(math.fsum(t * t for t in tolerances))
    return Chain(tuple(row), x1 - x0, sum(p.size[0] for p in row), math.fsum(tolerances), likely)


def _beside(a: ResolvedModule, b: ResolvedModule) -> bool:
    low = max(a.module.y, b.module.y)
    return min(a.module.y + a.size[1], b.module.y + b.size[1]) - low > min(a.size[1], b.size[1]) / 2
