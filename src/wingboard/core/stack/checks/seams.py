"""Seams between modules: what lets light through on one side and not on the other."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from wingboard.core.changes.commands.layers import SetSchool
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import sheets

SEAM = 3.0
"""Modules no further apart than this (mm) meet at a seam."""
LEAST = 0.05
"""Layers that differ over less than this (mm) of their depth match."""


def passes_light(layer: Layer) -> bool:
    """Whether light goes through a sheet: as said, else as its role has it: a diffuser lets it through."""
    return layer.opacity != "opaque" if layer.opacity else layer.role == "diffuser"


def unlike(a: ResolvedModule, b: ResolvedModule) -> float:
    """Over how much of their depth (mm) one of two plates lets light through and the other does not, or ends."""
    mine, other = _lit(a), _lit(b)
    both = sum(max(0.0, min(m1, o1) - max(m0, o0)) for m0, m1 in mine for o0, o1 in other)
    return sum(m1 - m0 for m0, m1 in mine) + sum(o1 - o0 for o0, o1 in other) - 2 * both


def _lit(module: ResolvedModule) -> list[tuple[float, float]]:
    """The depths over which a plate lets light through."""
    return [(s.z0, s.z1) for s in sheets(module.plates) if passes_light(s.layer)]


@check(
    "stack.seam-unlike",
    severity="judge",
    title="Layers do not match at a seam",
    measures="over how much of their depth one of two neighbours lets light through and the other does not",
    source=Source(kind="practice", note="the layers at a seam match in opacity, or light leaks there"),
    fixes="makes one as the other",
    reads=("modules", "stack"),
)
def seam_unlike(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Neighbours with unlike stacks."""
    for a, b in combinations(r.modules.values(), 2):
        if a.area_in_opening.distance(b.area_in_opening) > SEAM:
            continue
        depth = unlike(a, b)
        if depth > LEAST:
            yield rule.finding(
                a.module.id,
                b.module.id,
                detail=f"{a.module.name} and {b.module.name}",
                measured=Measure(value=depth),
                needed=Measure(value=0),
                most=True,
                fix=lambda a=a, b=b: [*_as(b, a), *_as(a, b)],  # type: ignore[misc]
            )


def _as(module: ResolvedModule, other: ResolvedModule) -> list[Fix]:
    """A module made by the school that made its neighbour."""
    wanted = other.module.school if other.module.stack is not None else None
    if wanted is None and other.module.stack is not None:
        return []
    command = SetSchool(module=module.module.id, school=wanted)
    return [Fix(label=f"Make {module.module.name} as {other.module.name}", commands=(command,))]
