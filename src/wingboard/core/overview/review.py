"""Running every check over a design."""

from __future__ import annotations

import pkgutil
from collections.abc import Iterable
from functools import cache
from importlib import import_module

import wingboard.core as core
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import CHECKS, Check
from wingboard.core.record.judgement import Acceptance
from wingboard.core.resolved.design import Resolved

_ORDER = {"must": 0, "judge": 1, "note": 2}
_WORSE = 0.05
"""An accepted finding comes back when its figure got worse by more than this (in its own unit)."""


@cache
def all_checks() -> tuple[Check, ...]:
    """Every check there is, found in the ``checks`` packages of the stations, by code."""
    for module in pkgutil.walk_packages(core.__path__, core.__name__ + "."):
        if ".checks." in module.name:
            import_module(module.name)
    return tuple(CHECKS[code] for code in sorted(CHECKS))


def review(r: Resolved) -> tuple[Finding, ...]:
    """All findings, those to fix first, accepted ones last of each severity. The same design, the same findings."""
    found = [finding for rule in all_checks() for finding in rule.run(r, rule)]
    marked = _marked(found, r.design.accepted)
    return tuple(sorted(marked, key=lambda f: (f.accepted is not None, _ORDER[f.severity], f.code, f.subjects, f.id)))


def clashes(r: Resolved, function: str) -> tuple[Finding, ...]:
    """What the Face finds wrong about one function where it stands, unsettled: quick enough for a drag."""
    found = [f for rule in all_checks() if rule.station == "face" for f in rule.run(r, rule) if function in f.subjects]
    counted = [f for f in _marked(found, r.design.accepted) if f.unsettled and f.severity != "note" and f.spot]
    return tuple(sorted(counted, key=lambda f: (_ORDER[f.severity], f.code, f.id)))


def _marked(found: Iterable[Finding], accepted: tuple[Acceptance, ...]) -> list[Finding]:
    by_id = {a.finding: a for a in accepted}
    return [_with_reason(f, by_id.get(f.id)) for f in found]


def _with_reason(finding: Finding, acceptance: Acceptance | None) -> Finding:
    if acceptance is None or finding.severity != "judge" or _got_worse(finding, acceptance.measured):
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
