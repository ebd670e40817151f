"""Running every check over a design."""

from __future__ import annotations

import logging
import pkgutil
from collections.abc import Iterable
from functools import cache
from importlib import import_module

import wingboard.core as core
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import CHECKS, Check
from wingboard.core.overview.memory import Memory
from wingboard.core.record.base import Source
from wingboard.core.record.judgement import Acceptance
from wingboard.core.resolved.design import Resolved

log = logging.getLogger(__name__)

_ORDER = {"must": 0, "judge": 1, "note": 2}
_WORSE = 0.05
"""An accepted finding comes back when its figure got worse by more than this (in its own unit)."""
MOST_FINDINGS = 200
"""Findings of one check that are listed; one more then says that there are more."""


@cache
def all_checks() -> tuple[Check, ...]:
    """Every check there is, found in the ``checks`` packages of the stations, by code."""
    for module in pkgutil.walk_packages(core.__path__, core.__name__ + "."):
        if ".checks." in module.name:
            import_module(module.name)
    return tuple(CHECKS[code] for code in sorted(CHECKS))


def review(r: Resolved, memory: Memory | None = None) -> tuple[Finding, ...]:
    """All findings, those to fix first, then what was overridden, accepted ones last. The same for the same design.

    :param memory: keeps what checks found, for as long as what they read stays the same.
    """
    kept = memory or Memory()
    found = [finding for rule in all_checks() for finding in kept.found(rule, r, judged)]
    marked = _marked(found, r.design.accepted)
    return tuple(sorted(marked, key=lambda f: (f.accepted is not None, _ORDER[f.severity], f.code, f.subjects, f.id)))


def judged(rule: Check, r: Resolved) -> tuple[Finding, ...]:
    """What one check finds. One that fails gives a finding that says so, and a line in the log."""
    found: list[Finding] = []
    try:
        for finding in rule.run(r, rule):
            if len(found) == MOST_FINDINGS:
                return (*found, _and_more(rule))
            found.append(finding.told())
    except Exception:
        log.exception("check %s could not judge “%s”", rule.code, r.design.name)
        return (*found, _not_judged(rule))
    return tuple(found)


def _and_more(rule: Check) -> Finding:
    many = rule.finding(
        detail=f"Only the first {MOST_FINDINGS} of this kind are listed; settle some, and the others follow",
        title=f"{rule.title}, more of them",
        extra="more",
    )
    return many.model_copy(update={"source": Source(kind="computed", note="counted")})


def _not_judged(rule: Check) -> Finding:
    return Finding(
        id=f"{rule.code}:not-judged",
        code=rule.code,
        station=rule.station,
        severity="judge",
        title="Could not be judged",
        detail=f"“{rule.title}” could not be worked out for this design; the log says why. Everything else was",
        source=Source(kind="computed", note="the check itself failed"),
    )


def clashes(r: Resolved, function: str) -> tuple[Finding, ...]:
    """What the Face finds wrong about one function where it stands, unsettled: quick enough for a drag."""
    found = [f for rule in all_checks() if rule.station == "face" for f in _about(rule, r, function)]
    counted = [f for f in _marked(found, r.design.accepted) if f.unsettled and f.severity != "note" and f.spot]
    return tuple(sorted(counted, key=lambda f: (_ORDER[f.severity], f.code, f.id)))


def _about(rule: Check, r: Resolved, function: str) -> list[Finding]:
    """What a check finds about one function, without fixes."""
    try:
        return [f.told() for f in rule.run(r, rule) if function in f.subjects][:MOST_FINDINGS]
    except Exception:
        log.exception("check %s could not judge “%s”", rule.code, r.design.name)
        return []


def _marked(found: Iterable[Finding], accepted: tuple[Acceptance, ...]) -> list[Finding]:
    by_id = {a.finding: a for a in accepted}
    return [_with_reason(f, by_id.get(f.id)) for f in found]


def _with_reason(finding: Finding, acceptance: Acceptance | None) -> Finding:
    if acceptance is None or not finding.acceptable or _got_worse(finding, acceptance.measured):
        return finding
    return finding.model_copy(update={"accepted": acceptance.reason})


def _got_worse(finding: Finding, then: float | None) -> bool:
    if finding.measured is None or then is None:
        return False
    change = finding.measured.value - then
    return change < -_WORSE if finding.bound == "least" else change > _WORSE


def left_to_fix(findings: Iterable[Finding]) -> int:
    """How many findings still have to be fixed before cutting."""
    return sum(1 for f in findings if f.severity == "must" and f.unsettled)
