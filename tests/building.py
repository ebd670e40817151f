"""Small designs said in one line: a plate of 200 × 120 mm with the named parts at the given places."""

from __future__ import annotations

from typing import Any

from wingboard.core.design import commands as c
from wingboard.core.design.apply import apply
from wingboard.core.design.model import Design
from wingboard.core.design.outlines import RectOutline
from wingboard.core.design.resolved import Resolved
from wingboard.core.design.space import Brief
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue

Spot = tuple[str, float, float]


def plate(*parts: Spot, commands: tuple[c.Command, ...] = (), **brief: Any) -> Design:
    """Functions ``f1``, ``f2`` … named “F1” …, each with its part placed; then the commands."""
    opening = RectOutline(width=201, height=121)
    start = Design(name="Test plate", brief=Brief(opening=opening, **brief))
    batch: list[c.Command] = [
        c.AddPanel(id="plate", name="Plate", outline=RectOutline(width=200, height=120), x=0.5, y=0.5)
    ]
    for n, (part, x, y) in enumerate(parts, 1):
        batch += [
            c.AddFunction(id=f"f{n}", name=f"F{n}"),
            c.ChoosePart(function=f"f{n}", part=part),
            c.PlacePart(function=f"f{n}", panel="plate", x=x, y=y),
        ]
    return apply(start, [*batch, *commands], catalogue())


def found(design: Design, code: str) -> list[Finding]:
    """The findings of one check."""
    return [f for f in review(Resolved(design)) if f.code == code]


def settled(design: Design, finding: Finding) -> Design:
    """The design after the finding's fix."""
    assert finding.fix is not None, finding
    return apply(design, finding.fix.commands, catalogue())
