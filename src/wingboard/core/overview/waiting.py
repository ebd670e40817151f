"""What each station still waits for, and whether the panel is ready to be cut."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import Field

from wingboard.core.findings.finding import Finding, Station
from wingboard.core.record.base import Record
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines


class Wait(Record):
    """What a station waits for before its work is done: how many, and in words."""

    station: Station
    many: int = Field(ge=0)
    words: str


class Readiness(Record):
    """What is left before cutting."""

    to_fix: int = Field(ge=0)
    to_judge: int = Field(ge=0)
    overridden: int = Field(ge=0, description="To fix, but the builder knows better and said why")
    notes: int = Field(ge=0)
    ready: bool = Field(description="Everything wanted is on a module, and nothing is left to fix")
    waits: tuple[Wait, ...] = Field(description="Stations whose work is not done; the others are")


def readiness(r: Resolved, findings: Sequence[Finding]) -> Readiness:
    """Findings by severity, and what is still to be listed, chosen, placed and wired."""
    left = [f.severity for f in findings if f.unsettled]
    to_fix = left.count("must")
    before = _before_cutting(r)
    return Readiness(
        to_fix=to_fix,
        to_judge=left.count("judge"),
        notes=left.count("note"),
        overridden=sum(1 for f in findings if f.overridden),
        ready=to_fix == 0 and not before and not r.missed,
        waits=(*before, *_judging(r), *_cutting(to_fix, before), *_wiring(r)),
    )


def _before_cutting(r: Resolved) -> tuple[Wait, ...]:
    wanted = [f for f in r.design.functions if f.state != "alias"]
    bare = sum(f.part is None for f in wanted)
    loose = sum(f.place is None and f.part is not None for f in wanted)
    found = []
    if not wanted:
        found.append(Wait(station="brief", many=0, words="Nothing is listed yet"))
        found.append(Wait(station="face", many=0, words="Nothing is on a module yet"))
        found.append(Wait(station="stack", many=0, words="Nothing is on a module yet"))
    if bare:
        found.append(Wait(station="parts", many=bare, words=f"{_count(bare, 'function')} without a part"))
    if loose or bare:
        found.append(Wait(station="face", many=loose + bare, words=f"{_count(loose + bare, 'function')} to be placed"))
    return tuple(found)


def _judging(r: Resolved) -> tuple[Wait, ...]:
    return (Wait(station="light", many=0, words="Light is being worked out"),) if r.missed else ()


def _cutting(to_fix: int, before: Sequence[Wait]) -> tuple[Wait, ...]:
    if to_fix == 0 and not before:
        return ()
    words = [wait.words for wait in before if wait.station == "face"] or [f"{to_fix} to fix"]
    return (Wait(station="cut", many=0, words=f"Waits: {words[0][0].lower()}{words[0][1:]}"),)


def _wiring(r: Resolved) -> tuple[Wait, ...]:
    if not r.placed:
        return (Wait(station="wire", many=0, words="Nothing to wire yet"),)
    given = {p.line for p in r.design.pins}
    bare = sum(line.id not in given for line in lines(r))
    return (Wait(station="wire", many=bare, words=f"{_count(bare, 'line')} without a pin"),) if bare else ()


def _count(many: int, what: str) -> str:
    return f"{many} {what}" if many == 1 else f"{many} {what}s"
