"""The lines by which controllers drive loads, and see whether they are on."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from wingboard.core.findings.limits import limit
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.carried import Carried, carried, has_load, undriven, unseen, unthrown
from wingboard.core.wire.signals import Line


def load_lines(r: Resolved) -> Iterator[Line]:
    """All of them, in the order of the functions."""
    for placed in r.placed:
        if not has_load(placed) or not placed.function.switches.volts or undriven(placed):
            continue
        load = placed.function.switches
        for one in (one for one in carried(placed) if not unthrown(placed, one)[0]):
            if load.driven == "controller":
                yield _line(r, placed, one, "drive")
            if load.seen in ("auxiliary", "divider") and not unseen(placed, load.seen):
                yield _line(r, placed, one, "seen")


def _line(r: Resolved, placed: Placed, one: Carried, does: Literal["drive", "seen"]) -> Line:
    amps = limit(r.design, "drive-current") if does == "drive" else 0.0
    return Line(
        id=f"{one.id}-{does}",
        function=placed.function.id,
        name=placed.function.name,
        terminal=f"load{one.at}" if does == "drive" else f"load{one.at} is on",
        module=placed.place.module,
        direction="out" if does == "drive" else "in",
        analogue=False,
        prefers=None,
        current=0.0,
        drop=0.0,
        volts=0.0,
        lamp=False,
        bus=None,
        pin_current=amps,
        chip_current=amps,
        transistor=does == "drive",
        divided=does == "seen" and placed.function.switches.seen == "divider",
    )
