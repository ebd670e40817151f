"""A fix is offered only when the whole review of the design that it would make is better for it."""

from __future__ import annotations

import logging
from collections import Counter
from collections.abc import Iterable, Iterator

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
    """A finding by its id, with the first fix that may be offered, or why there is none; None when it is not there."""
    kept = memory or Memory()
    rule = next((rule for rule in all_checks() if ident.split(":")[0] == rule.code), None)
    try:
        found = next((f for f in rule.run(r, rule) if f.id == ident), None) if rule else None
    except Exception:
        log.exception("check %s could not judge “%s”", rule.code if rule else "", r.design.name)
        return None
    if found is None:
        return None
    against: list[str] = []
    for fix in _proposed(r, found):
        objection = objection_to(r, found, fix, kept)
        if objection is None:
            return found.told().model_copy(update={"fix": fix})
        against.append(f"“{fix.label}” {objection}")
    why = against[0] if against else "There is no place near it where every rule holds"
    return found.told().model_copy(update={"fixless": why if found.fixable else ""})


def _proposed(r: Resolved, found: Finding) -> Iterator[Fix]:
    """The fixes that its check proposes; one that cannot be worked out ends them, and is told of in the log."""
    try:
        yield from found.proposed()
    except Exception:
        log.exception("the fix of %s could not be worked out for “%s”", found.id, r.design.name)


def objection_to(r: Resolved, finding: Finding, fix: Fix, memory: Memory) -> str | None:
    """What speaks against a fix, in words; None when it may be offered.

    It must settle its finding, bring nothing new to fix and move nothing that is locked. What is left must be less,
    counted by weight: first what is to fix, then what is to judge, then the notes. So no two fixes undo each other for
    ever.
    """
    try:
        after = Resolved(apply(r.design, fix.commands, catalogue()))
    except DesignError as error:
        return f"cannot be done: {error.message}"
    if not _locked_stay(r.design, after.design):
        return "would move what is locked"
    before_left, after_left = _left(review(r, memory)), _left(review(after, memory))
    known = {f.id for f in before_left}
    new = [f for f in after_left if f.id not in known]
    musts = [f for f in new if f.severity == "must"]
    if any(f.id == finding.id for f in after_left):
        return "would not be enough"
    if musts or _weight(after_left) >= _weight(before_left):
        brought = list(dict.fromkeys(f.title.lower() for f in musts or new))
        return f"would bring: {', '.join(brought[:3])}" if brought else "would leave as much to settle"
    return None


def _left(findings: Iterable[Finding]) -> list[Finding]:
    return [f for f in findings if f.unsettled]


def _weight(findings: Iterable[Finding]) -> tuple[int, int, int]:
    many = Counter(f.severity for f in findings)
    return many["must"], many["judge"], many["note"]


def _locked_stay(before: Design, after: Design) -> bool:
    there = {f.id: f.place for f in after.functions}
    return all(there.get(f.id) == f.place for f in before.functions if f.locked)
