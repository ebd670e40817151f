"""The whole panel: every module at its place in the opening, in the opening's coordinates."""

from __future__ import annotations

from wingboard.core.geometry.rounded import Rounded, disc
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Envelope, Placed, Templates


class ResolvedPanel:
    """All modules as one. Hands, covers, swings, bodies, plugs and cables are judged here, across seams."""

    def __init__(self, modules: tuple[ResolvedModule, ...], templates: Templates) -> None:
        self.modules = modules
        self._templates = templates
        self.by_number: dict[int, Placed] = {n: p for m in modules for n, p in m.by_number.items()}
        self._on = {n: m for m in modules for n in (*m.by_number, *m.screw_numbers)}
        self._sets: dict[Envelope, ShapeSet] = {}

    def module_of(self, owner: int) -> ResolvedModule:
        """The module that a part, or a screw, is on, by its owner number."""
        return self._on[owner]

    def owner_name(self, owner: int) -> str:
        """What a person calls the owner of a shape: the function, or the screw."""
        return self._on[owner].owner_name(owner)

    def point(self, placed: Placed, x: float = 0.0, y: float = 0.0) -> tuple[float, float]:
        """A point of a part's own coordinates (its centre, when none is given) in the opening's."""
        return placed.frame.within(self._on[placed.number].frame).point(x, y)

    def envelopes(self, what: Envelope) -> ShapeSet:
        """Bodies behind, hand room or covered face of all parts; screws with their heads, except for hands."""
        if what not in self._sets:
            self._sets[what] = self._set(what)
        return self._sets[what]

    def _set(self, what: Envelope) -> ShapeSet:
        shapes: list[Rounded] = []
        owners: list[int] = []
        at: list[tuple[float, float]] = []
        for module in self.modules:
            for p in module.placed:
                shape = self._templates.envelope(p, what)
                if shape is not None:
                    shapes.append(shape)
                    owners.append(p.number)
                    at.append(module.frame.point(p.place.x, p.place.y))
            if what != "hand":
                shapes += [disc(f.head) for f in module.fixings]
                owners += module.screw_numbers
                at += [module.frame.point(f.x, f.y) for f in module.fixings]
        return ShapeSet(shapes, owners, at)
