"""The volts of what a line is read or driven with: of the board that it is on."""

from __future__ import annotations

from wingboard.core.record.controllers import logic_of
from wingboard.core.record.functions import POOLED, Function
from wingboard.core.record.lamps import lights
from wingboard.core.resolved.design import Resolved

DIODE = 0.7
"""Volts over a diode that conducts (common practice)."""


def tests_lamps(r: Resolved) -> bool:
    """Whether some control that is placed lights all lamps by itself: each then hangs behind two diodes."""

    def found() -> bool:
        return any(p.function.tests_lamps and p.function.state not in ("alias", "dummy") for p in r.placed)

    return r.once("tests lamps", found)


def over_lamp(r: Resolved, function: Function, line: str) -> float:
    """Volts over a lamp and its resistor: of the supply that the brief gives it where that is above the board's logic;
    else of that logic, less what a diode takes where it hangs behind those of a lamp test and on no transistor."""
    logic = logic_for(r, function, line)
    part = r.parts[function.part] if function.part else None
    its_own = part is None or lights(function, part)
    if its_own and function.switches.volts > logic:
        return function.switches.volts
    return logic if (its_own and function.switches.through) or not tests_lamps(r) else logic - DIODE


def logic_for(r: Resolved, function: Function, line: str) -> float:
    """Volts of the logic at a function's line (its id): of the board on whose pin it is, or on which the network hangs
    that reads or drives it; of the first board while it has no pin, 5 without any board."""
    homes = r.once("boards of lines", lambda: {p.line: p.controller for p in r.design.pins})
    controller = homes.get(line)
    if controller is None and function.scheme in POOLED and function.place is not None:
        module = function.place.module
        hangs = r.once("boards of networks", lambda: {k.split(".")[0]: c for k, c in homes.items() if k[0] == "~"})
        kinds = {"shift": ("shift-out", "shift-in"), "digits": ("digits", "pixels")}.get(
            function.scheme, (function.scheme,)
        )
        controller = next((hangs[net] for kind in kinds if (net := f"~{kind}-{module}") in hangs), None)
    return r.once(f"logic of {controller}", lambda: logic_of(r.design, controller))
