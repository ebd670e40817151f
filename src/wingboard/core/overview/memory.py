"""What checks found, kept for as long as what they read stays the same."""

from __future__ import annotations

import threading
from collections.abc import Callable
from itertools import count
from typing import Any, NamedTuple

from wingboard.core.findings.facets import EVERY_FACET, Facet, facet_of
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import Check
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

Findings = tuple[Finding, ...]
REMEMBERED = 3
"""Results of one check that are kept: a design, the one tried while dragging, another tab's."""


_numbers = count()


class _Kept(NamedTuple):
    versions: dict[Facet, int]
    findings: Findings


class Memory:
    """Findings by check and by what it read. Safe to use from several threads."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._number = next(_numbers)  # a design's versions are counted by each memory for itself
        self._kept: dict[str, list[_Kept]] = {}
        self._values: dict[Facet, list[tuple[int, Any]]] = {facet: [] for facet in EVERY_FACET}
        self._next = 0

    def found(self, rule: Check, r: Resolved, judge: Callable[[Check, Resolved], Findings]) -> Findings:
        """What a check finds, judged only when something that it reads has changed."""
        if rule.fresh:
            return judge(rule, r)
        versions = r.once(f"facet versions of memory {self._number}", lambda: self._versions(r.design))
        with self._lock:
            known = self._kept.setdefault(rule.code, [])
            for kept in known:
                if all(kept.versions[facet] == versions[facet] for facet in rule.reads):
                    return kept.findings
        before, r.missed = r.missed, False
        findings = judge(rule, r)
        missed, r.missed = r.missed, r.missed or before
        if missed:  # something costly is not there yet: what it would find is not known
            return findings
        with self._lock:
            known.insert(0, _Kept(versions, findings))
            del known[REMEMBERED:]
        return findings

    def _versions(self, design: Design) -> dict[Facet, int]:
        return {facet: self._version(facet, facet_of(design, facet)) for facet in EVERY_FACET}

    def _version(self, facet: Facet, value: Any) -> int:
        """A number for these values: that of equal ones seen lately, or a new one."""
        with self._lock:
            seen = self._values[facet]
            for number, known in seen:
                if known is value or known == value:
                    return number
            self._next += 1
            seen.insert(0, (self._next, value))
            del seen[REMEMBERED * 4 :]
            return self._next
