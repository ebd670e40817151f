"""Small designs said in one line: a plate of 200 × 120 mm with the named parts at the given places."""

from __future__ import annotations

from typing import Any

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.face import AddModule, PlacePart
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief
from wingboard.core.resolved.design import Resolved

PlacedAt = tuple[str, float, float]


def plate(*parts: PlacedAt, commands: tuple[Command, ...] = (), **brief: Any) -> Design:
    """Functions ``f1``, ``f2`` … named “F1” …, each with its part placed; then the commands."""
    opening = RectOutline(width=201, height=121)
    start = Design(name="Test plate", brief=Brief(opening=opening, **brief))
    batch: list[Command] = [
        AddModule(id="plate", name="Plate", outline=RectOutline(width=200, height=120), x=0.5, y=0.5)
    ]
    for n, (part, x, y) in enumerate(parts, 1):
        batch += [
            AddFunction(id=f"f{n}", name=f"F{n}"),
            ChoosePart(function=f"f{n}", part=part),
            PlacePart(function=f"f{n}", module="plate", x=x, y=y),
        ]
    return apply(start, [*batch, *commands], catalogue())


def found(design: Design, code: str) -> list[Finding]:
    """The findings of one check."""
    return [f for f in review(Resolved(design)) if f.code == code]


def settled(design: Design, finding: Finding) -> Design:
    """The design after the finding's fix."""
    assert finding.fix is not None, finding
    return apply(design, finding.fix.commands, catalogue())
