"""Findings lived with, and limits of the builder's own."""

from __future__ import annotations

from wingboard.core.design import commands as c
from wingboard.core.design.carry.steps import (
    Catalogue,
    carry_out,
    with_changes,
)
from wingboard.core.design.errors import NotPossible, UnknownThing
from wingboard.core.design.model import Acceptance, Design, LimitChoice


@carry_out.register
def _(command: c.AcceptFinding, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    acceptance = Acceptance(finding=command.finding, reason=command.reason, measured=command.measured)
    return with_changes(design, accepted=(*others, acceptance))


@carry_out.register
def _(command: c.RetractAcceptance, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    if len(others) == len(design.accepted):
        raise UnknownThing("That finding was not accepted", "finding")
    return with_changes(design, accepted=others)


@carry_out.register
def _(command: c.SetLimit, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(limit for limit in design.limits if limit.limit != command.limit)
    if command.value is None:
        return with_changes(design, limits=others)
    if not command.reason:
        raise NotPossible("Say why the limit is another one here", "reason")
    choice = LimitChoice(limit=command.limit, value=command.value, reason=command.reason)
    return with_changes(design, limits=(*others, choice))
