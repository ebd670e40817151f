"""A fix is offered only when the whole review of the design that it would make is better for it."""

from __future__ import annotations

import logging
from collections import Counter
from collections.abc import Iterable

from wingboard.core.changes.apply import apply
from wingboard.core.findings.finding import Finding, Fix
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import all_checks, review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError
from wingboard.core.resolved.design import Resolved

log = logging.getLogger(__name__)


def fix_of(r: Resolved, ident: str, memory: Memory | None = None) -> Finding | None:
    """A finding by its id, with its fix when there is one that may be offered; None when the finding is not there."""
    kept = memory or Memory()
    rule = next((rule for rule in all_checks() if ident.split(":")[0] == rule.code), None)
    try:
        found = next((f for f in rule.run(r, rule) if f.id == ident), None) if rule else None
        fix = found.proposed() if found else None
    except Exception:
        log.exception("check %s could not judge “%s”", rule.code if rule else "", r.design.name)
        return None
    if found is None or fix is None or not harmless(r, found, fix, kept):
        return found.told() if found else None
    return found.told().model_copy(update={"fix": fix})


def harmless(r: Resolved, finding: Finding, fix: Fix, memory: Memory) -> bool:
    """Whether a fix settles its finding, brings nothing new to fix and moves nothing that is locked.

    What is left must be less, counted by weight: first what is to fix, then what is to judge, then the notes. So no two
    fixes undo each other for ever.
    """
    try:
        after = Resolved(apply(r.design, fix.commands, catalogue()))
    except DesignError:
        return False
    if not _locked_stay(r.design, after.design):
        return False
    before_left, after_left = _left(review(r, memory)), _left(review(after, memory))
    new_musts = {f.id for f in after_left if f.severity == "must"} - {f.id for f in before_left if f.severity == "must"}
    gone = all(f.id != finding.id for f in after_left)
    return gone and not new_musts and _weight(after_left) < _weight(before_left)


def _left(findings: Iterable[Finding]) -> list[Finding]:
    return [f for f in findings if f.unsettled]


def _weight(findings: Iterable[Finding]) -> tuple[int, int, int]:
    many = Counter(f.severity for f in findings)
    return many["must"], many["judge"], many["note"]


def _locked_stay(before: Design, after: Design) -> bool:
    there = {f.id: f.place for f in after.functions}
    return all(there.get(f.id) == f.place for f in before.functions if f.locked)
