"""Whether the programs of the boards do all that the panel is wired for."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.finding import Finding, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.program.channels import channels, programmed
from wingboard.core.wire.program.differing import LAMPS, tests_lamps


@check(
    "wire.lamp-test-elsewhere",
    severity="note",
    title="Lamps that a lamp test does not light",
    measures="lamps on other boards than the contact that makes its board's program light them",
    source=Source(kind="computed", note="a program lights what is on its own board"),
    reads=READS,
)
def lamp_test_elsewhere(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps of other boards than that of a lamp test by program."""
    there = channels(r).channels
    for tester in (c for c in there if tests_lamps(r, c)):
        others = [c for c in there if c.kind in LAMPS and c.controller != tester.controller]
        if others:
            yield rule.finding(
                tester.function,
                detail=f"{r.functions[tester.function].name}: a host passes it on with “test on”, or wires over two "
                "diodes a lamp light them all",
                measured=Measure(value=len(others), unit="lamps elsewhere"),
                needed=Measure(value=0, unit="lamps elsewhere"),
                most=True,
            )


@check(
    "wire.unprogrammed",
    severity="note",
    title="Wired, but no program drives it",
    measures="lines on a board's pins that its program neither reads nor drives",
    source=Source(kind="computed", note="the blocks that programs are made of"),
    reads=READS,
)
def unprogrammed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Functions whose lines end on a board, and are left to a program of one's own."""
    homes = {p.line: p.controller for p in r.design.pins}
    boards = set(programmed(r))
    left: dict[str, list[str]] = {}
    for one in channels(r).unserved:
        if one.line.function and homes.get(one.line.id) in boards:
            left.setdefault(one.line.function, []).append(one.why)
    for function, why in left.items():
        yield rule.finding(
            function,
            detail=f"{r.functions[function].name}: {why[0]}; write it beside the other files of the folder",
            measured=Measure(value=len(why), unit="lines"),
            needed=Measure(value=0, unit="lines"),
            most=True,
        )
