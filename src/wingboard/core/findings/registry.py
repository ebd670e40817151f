"""Checks register themselves here with their code, station, severity, limits and source."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from wingboard.core.findings.facets import FACETS, Facet
from wingboard.core.findings.finding import Finding, Fix, FixMaker, Measure, Severity, Spot, Station
from wingboard.core.findings.limits import LIMITS, limit
from wingboard.core.record.base import Source
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved

FixOver = Callable[[Sequence[Function]], Fix | None]
"""What proposes a fix for some of the functions that a finding is over."""


class Figures(NamedTuple):
    """What a finding over many functions says where it is not how many they are."""

    detail: str
    measured: Measure
    needed: Measure


FiguresOver = Callable[[Sequence[Function]], Figures]
Generator = Callable[[Resolved, "Check"], Iterator[Finding]]


class Check(NamedTuple):
    """A rule that is applied to every revision."""

    code: str
    station: Station
    severity: Severity
    title: str
    measures: str
    limits: tuple[str, ...]
    source: Source
    fixes: str
    reads: tuple[Facet, ...]
    hurts: bool
    run: Generator
    fresh: bool = False

    def limit(self, design: Design, n: int = 0) -> float:
        """The n-th of its limits, as in force for the design."""
        return limit(design, self.limits[n])

    def finding(
        self,
        *subjects: str,
        detail: str,
        spot: Spot | None = None,
        measured: Measure | None = None,
        needed: Measure | None = None,
        most: bool = False,
        below: bool = False,
        source: Source | None = None,
        fix: Fix | FixMaker | None = None,
        title: str | None = None,
        severity: Severity | None = None,
        extra: str = "",
    ) -> Finding:
        """A finding of this check about these subjects; ``extra`` tells two about the same subjects apart."""
        found = Finding(
            id=identity(self.code, *subjects, *([extra] if extra else [])),
            code=self.code,
            station=self.station,
            severity=severity or self.severity,
            title=title or self.title,
            detail=detail,
            subjects=subjects,
            spot=spot,
            measured=measured,
            needed=needed,
            bound="below" if below else "most" if most else "least",
            source=source or self.source,
            overridable=not self.hurts,
        )
        if fix is None:
            return found
        return found.with_maker((lambda: fix) if isinstance(fix, Fix) else fix)

    def over(
        self,
        r: Resolved,
        functions: Sequence[Function],
        unit: str = "",
        fix: FixOver | None = None,
        figures: FiguresOver | None = None,
    ) -> Iterator[Finding]:
        """One finding over many functions: how many, the first four by name; none over no function.

        :param unit: of how many they are; :param figures: what to say of some of them instead.
        Those that were accepted are told apart, as they were accepted: a new one is never accepted with them. A check
        that uses this reads ``accepted``.
        """
        left = list(functions)
        for acceptance in r.design.accepted:
            if acceptance.subjects and acceptance.finding.partition(":")[0] == self.code:
                mine = [f for f in left if f.id in acceptance.subjects]
                left = [f for f in left if f not in mine]
                if mine:
                    yield self._over(mine, unit, None, figures).model_copy(update={"id": acceptance.finding})
        if left:
            yield self._over(left, unit, fix, figures)

    def _over(
        self, functions: Sequence[Function], unit: str, fix: FixOver | None, figures: FiguresOver | None
    ) -> Finding:
        names = ", ".join(f.name for f in functions[:4]) + (" …" if len(functions) > 4 else "")
        counted = Figures(names, Measure(value=len(functions), unit=unit), Measure(value=0, unit=unit))
        said = figures(functions) if figures else counted
        found = self.finding(
            detail=said.detail,
            measured=said.measured,
            needed=said.needed,
            most=figures is None,
            fix=None if fix is None else lambda: fix(functions),
        )
        return found.model_copy(update={"subjects": tuple(f.id for f in functions)})


CHECKS: dict[str, Check] = {}
LONGEST_ID = 200


def identity(code: str, *subjects: str) -> str:
    """A finding's id: its code and its subjects; a long list of them is shortened to what still tells it apart."""
    whole = ":".join((code, *subjects))
    if len(whole) <= LONGEST_ID:
        return whole
    return f"{whole[:150]}:{hashlib.sha256(whole.encode()).hexdigest()[:16]}"


def check(
    code: str,
    *,
    severity: Severity,
    title: str,
    measures: str,
    limits: tuple[str, ...] = (),
    source: Source | None = None,
    fixes: str = "",
    reads: tuple[Facet, ...] = FACETS,
    hurts: bool = False,
    fresh: bool = False,
) -> Callable[[Generator], Generator]:
    """Register a generator of findings. The station is the code's first word.

    :param reads: the facets of a design that it looks at; its findings are kept while those stay the same.
    :param hurts: what it finds can hurt someone, and is never overridden.
    :param fresh: it looks at what became known beside the design, so what it found before is not kept.

    :raises ValueError: the code is taken or a limit is unknown (programming errors).
    """
    station: Station = code.split(".")[0]  # type: ignore[assignment]

    def register(run: Generator) -> Generator:
        unknown = [name for name in limits if name not in LIMITS]
        if code in CHECKS or unknown:
            raise ValueError(f"check {code}: registered twice, or unknown limits {unknown}")
        rests_on = source or (LIMITS[limits[0]].source if limits else Source(kind="practice"))
        CHECKS[code] = Check(
            code, station, severity, title, measures, limits, rests_on, fixes, reads, hurts, run, fresh
        )
        return run

    return register
