"""How far each function has got, and how ready the panel is to be cut."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import Field

from wingboard.core.design.base import Record
from wingboard.core.design.resolved import Resolved
from wingboard.core.findings.finding import Finding
from wingboard.core.wire.signals import signals


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

    stops: int = Field(ge=0)
    looks: int = Field(ge=0)
    notes: int = Field(ge=0)


def threads(r: Resolved) -> dict[str, Thread]:
    """The stages passed by each function, by its id. A part without electrical lines needs no pin."""
    given = {p.signal for p in r.design.pins}
    bare = {s.function for s in signals(r) if s.id not in given}
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
    """Unsettled findings by weight."""
    left = [f.weight for f in findings if f.unsettled]
    return Readiness(stops=left.count("stop"), looks=left.count("look"), notes=left.count("note"))
