"""How far each function has got."""

from __future__ import annotations

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
