"""How far each function has got, and how ready the panel is to be cut."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import Field

from wingboard.core.findings.finding import Finding
from wingboard.core.record.base import Record
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines


class Thread(Record):
    """The stages one function has passed."""

    part: bool
    place: bool
    legend: bool
    pin: bool
    wire: bool
    proof: bool


class Readiness(Record):
    """What is left before cutting."""

    to_fix: int = Field(ge=0)
    to_judge: int = Field(ge=0)
    overridden: int = Field(ge=0, description="To fix, but the builder knows better and said why")
    notes: int = Field(ge=0)


def threads(r: Resolved) -> dict[str, Thread]:
    """The stages passed by each function, by its id. A part without electrical lines needs no pin."""
    given = {p.line for p in r.design.pins}
    bare = {s.function for s in lines(r) if s.id not in given}
    return {
        f.id: Thread(
            part=f.part is not None,
            place=f.place is not None,
            legend=f.place is not None and f.legend is not None,
            pin=f.place is not None and f.id not in bare,
            wire=f.state in ("wired", "proven"),
            proof=f.state == "proven",
        )
        for f in r.design.functions
    }


def readiness(findings: Sequence[Finding]) -> Readiness:
    """Unsettled findings by severity."""
    left = [f.severity for f in findings if f.unsettled]
    overridden = sum(1 for f in findings if f.overridden)
    return Readiness(
        to_fix=left.count("must"), to_judge=left.count("judge"), notes=left.count("note"), overridden=overridden
    )
