"""Findings lived with, and limits of the builder's own."""

from __future__ import annotations

from wingboard.core.changes.commands.judgement import AcceptFinding, RetractAcceptance, SetLimit
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, with_changes
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.judgement import Acceptance, LimitChoice
from wingboard.core.record.limits import LIMITS


@carry_out.register
def handle_accept_finding(command: AcceptFinding, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    acceptance = Acceptance(
        finding=command.finding, subjects=command.subjects, reason=command.reason, measured=command.measured
    )
    return with_changes(design, accepted=(*others, acceptance))


@carry_out.register
def handle_retract_acceptance(command: RetractAcceptance, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    if len(others) == len(design.accepted):
        raise UnknownThing("That finding was not accepted", "finding")
    return with_changes(design, accepted=others)


@carry_out.register
def handle_set_limit(command: SetLimit, design: Design, catalogue: Catalogue) -> Design:
    if command.limit not in LIMITS:
        raise UnknownThing(f"There is no limit “{command.limit}”", "limit")
    others = tuple(limit for limit in design.limits if limit.limit != command.limit)
    if command.value is None:
        return with_changes(design, limits=others)
    if not command.reason:
        raise NotPossible("Say why the limit is another one here", "reason")
    choice = LimitChoice(limit=command.limit, value=command.value, reason=command.reason)
    return with_changes(design, limits=(*others, choice))
