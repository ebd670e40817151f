"""The whole panel: every module at its place in the opening, in the opening's coordinates."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property
from math import inf

import numpy as np

from wingboard.core.geometry.rounded import Rounded, disc
from wingboard.core.geometry.shapeset import NOBODY, Lengths, Near, ShapeSet
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Body, Envelope, Placed


class Bodies:
    """What lies behind the panel, by depth: pieces of two owners meet where their outlines do at the same depth.

    A screw's nut wants a spanner, so that nothing may lie behind it however deep.
    """

    def __init__(self, pieces: Sequence[Body], owners: Sequence[int], at: Sequence[tuple[float, float]]) -> None:
        """:param pieces: n pieces about their own origins; :param owners: n numbers; :param at: n (x, y) in mm."""
        self.shapes = ShapeSet([piece.outline for piece in pieces], owners, at)
        self.z0: Lengths = np.asarray([piece.z0 for piece in pieces], dtype=np.float64)
        self.z1: Lengths = np.asarray([piece.z1 for piece in pieces], dtype=np.float64)

    def of(self, owner: int) -> list[int]:
        """The pieces of one owner, by index."""
        return [int(i) for i in np.flatnonzero(self.shapes.owners == owner)]

    def closer_than(self, limit: float) -> list[Near]:
        """Of each two owners the pieces that are nearest, where nearer than ``limit`` mm at one depth."""
        worst: dict[tuple[int, int], Near] = {}
        for near in self.shapes.closer_than(limit):
            pair = (int(self.shapes.owners[near.a]), int(self.shapes.owners[near.b]))
            known = worst.get(pair)
            if self._meet(near.a, near.b) and (known is None or near.gap < known.gap):
                worst[pair] = near
        return list(worst.values())

    def _meet(self, a: int, b: int) -> bool:
        return bool(self.z0[a] < self.z1[b] and self.z0[b] < self.z1[a])

    def against(
        self, shape: Rounded, limit: float, owner: int = NOBODY, z0: float = -inf, z1: float = inf
    ) -> list[tuple[int, float]]:
        """Pieces of others nearer to a shape between two depths than ``limit`` mm, nearest first."""
        found = self.shapes.against(shape, limit, owner)
        return [(i, apart) for i, apart in found if self.z0[i] < z1 and z0 < self.z1[i]]


class ResolvedPanel:
    """All modules as one. Hands, covers, swings, bodies, plugs and cables are judged here, across seams."""

    def __init__(self, modules: tuple[ResolvedModule, ...]) -> None:
        self.modules = modules
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
        """Hand room or covered face of all parts; screws with their heads, except for hands."""
        if what not in self._sets:
            self._sets[what] = self._set(what)
        return self._sets[what]

    def _set(self, what: Envelope) -> ShapeSet:
        shapes: list[Rounded] = []
        owners: list[int] = []
        at: list[tuple[float, float]] = []
        for module in self.modules:
            for p in module.placed:
                shape = module.templates.envelope(p, what)
                if shape is not None:
                    shapes.append(shape)
                    owners.append(p.number)
                    at.append(module.frame.point(p.place.x, p.place.y))
            if what != "hand":
                shapes += [disc(f.head) for f in module.fixings]
                owners += module.screw_numbers
                at += [module.frame.point(f.x, f.y) for f in module.fixings]
        return ShapeSet(shapes, owners, at)

    @cached_property
    def bodies(self) -> Bodies:
        """What all parts take behind the panel, by depth, and the screws with their nuts."""
        pieces: list[Body] = []
        owners: list[int] = []
        at: list[tuple[float, float]] = []
        for module in self.modules:
            for p in module.placed:
                mine = module.templates.bodies(p)
                pieces += mine
                owners += [p.number] * len(mine)
                at += [module.frame.point(p.place.x, p.place.y)] * len(mine)
            pieces += [Body(disc(f.head), module.thickness, inf) for f in module.fixings]
            owners += module.screw_numbers
            at += [module.frame.point(f.x, f.y) for f in module.fixings]
        return Bodies(pieces, owners, at)
