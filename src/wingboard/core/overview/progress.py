"""How far each function has got."""

from __future__ import annotations

from wingboard.core.record.base import Record
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import bare_functions


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
    bare = bare_functions(r)
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
