"""What is commonly forgotten for this kind of panel; each suggestion adds its row, or is dismissed with a reason."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import lru_cache

from wingboard.core.brief.packs import Expectation, expectations
from wingboard.core.brief.wanted import duty_of
from wingboard.core.findings.finding import Finding, Fix
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved

PRACTICE = Source(kind="practice", note="what panels of this kind have")


@check(
    "brief.forgotten",
    severity="judge",
    title="Often forgotten",
    measures="what panels of this kind commonly have, against the names and wishes on the list",
    source=PRACTICE,
    fixes="adds the function",
    reads=("brief", "wishes", "parts", "limits"),
)
def forgotten(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Each expectation of this kind of panel that nothing on the list meets."""
    for expected in expectations():
        if r.design.brief.kind in expected.kinds and _applies(r, expected) and not _met(r, expected):
            yield rule.finding(
                title=expected.title,
                detail=expected.why,
                fix=Fix(label=f"Add “{expected.add.name}”", commands=(expected.add,)),
                extra=expected.id,
            )


def _applies(r: Resolved, expected: Expectation) -> bool:
    functions = r.design.functions
    if expected.when == "one row":
        return bool(functions)
    if expected.when == "five rows":
        return len(functions) >= 5
    if expected.when == "loads":
        return any(f.switches.amps > 0 for f in functions)
    lights = sum(1 for f in functions if duty_of(f, r.parts.get(f.part or "")) == "indicator" or f.indicator)
    return lights >= 3


def _met(r: Resolved, expected: Expectation) -> bool:
    return _spoken_of(expected.words, r.once("words of the list", lambda: _words(r)))


@lru_cache(maxsize=1024)
def _spoken_of(words: str, text: str) -> bool:
    return re.search(words, text, re.I) is not None


def _words(r: Resolved) -> str:
    """A line a function: its name, wish, indicator and event."""
    return "\n".join(f"{f.name} {f.want} {f.indicator} {f.switches.event}" for f in r.design.functions)
