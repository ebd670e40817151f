"""The small parts between a pin and what it drives: resistors in series, transistors with theirs. Ohms, volts."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.light.resistor import next_e24, series_resistor
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.signals import Line

ACROSS = ("-relay-d", "-load-d", "-coil-d")
"""How the names of diodes end that lie across a coil, a load, or what may be a coil: current of the supply never passes
them."""


LAMP_RELAY = "-lamp-relay"
"""How the name of the relay ends that lights a lamp at a dangerous voltage, or on AC."""


class Series(NamedTuple):
    """The resistor in series with a lamp, None where one cannot serve or none is wanted, and the supply it is on."""

    ohms: float | None
    supply: float


def in_series(line: Line, volts: float, over: float) -> Series:
    """What a lamp is driven through.

    :param volts: the supply that the brief gives the lamp. :param over: volts over it and its resistor.
    """
    if line.volts:
        return Series(None, max(line.volts, volts))
    return Series(series_resistor(over, line.drop, line.current), over)


def at_base(r: Resolved, supply: float, base: float) -> float:
    """The resistor between what turns a transistor on (V) and its base (V): for the current that one plans with, E24.

    A supply that is hardly above the base's own volts is taken as half a volt above them.
    """
    return next_e24(max(supply - base, 0.5) / limit(r.design, "drive-current"))
