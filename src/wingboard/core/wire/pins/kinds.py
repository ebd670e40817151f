"""What pins can do and lines need, as the solver counts them: what is alike counts as one. Tenths of a milliampere."""

from __future__ import annotations

from collections.abc import Set
from typing import NamedTuple

from wingboard.core.record.controllers import Pin
from wingboard.core.wire.signals import Line

NO_INTERRUPT, NO_PWM, FLASHES, SPENT = 6, 4, 3, 1
"""Cost of an encoder without interrupt, a dimmed lamp without PWM, an output that flashes at reset, and of spending
a pin that can do more than is needed."""


COMES_ON = 60
"""Cost of a load on a pin that flashes at reset: another board rather than that."""
STRAP, RADIO, PULL_UP, MEASURES = 20, 12, 5, 3
"""Cost of a pin whose level at power-up chooses how the chip starts, of measuring where the radio must be off, of a
contact at a pin without a pull-up of its own, and of spending a pin that measures."""


class PinKind(NamedTuple):
    """Pins that can do the same."""

    analogue: bool
    pwm: bool
    interrupt: bool
    flashes: bool
    bus: str | None
    """What it is of a bus, where some line wants that."""
    reads: bool
    drives: bool
    pull_up: bool
    strap: bool
    radio: bool
    coder: bool


class PinDemand(NamedTuple):
    """Lines that need the same."""

    analogue: bool
    prefers: str | None
    out: bool
    bus: str | None
    coder: bool
    pulled: bool
    """Read by a pin that wants a pull-up."""
    steady: bool
    """Drives a load, which must not come on while the chip starts."""


def tenths(line: Line) -> int:
    """What the line adds to the chip's current, in tenths of a milliampere."""
    return round(line.chip_current * 10_000)


def tenths_of_pin(line: Line) -> int:
    """What goes through its pin, in tenths of a milliampere."""
    return round(line.pin_current * 10_000)


def kind_of(pin: Pin, wanted_of_buses: Set[str]) -> PinKind:
    """What a pin can do; what it is of a bus counts only where some line wants that."""
    bus = pin.bus if pin.bus in wanted_of_buses else None
    does = pin.reads, pin.drives, pin.pull_up, pin.strap, pin.radio, pin.coder
    return PinKind(pin.analogue, pin.pwm, pin.interrupt, pin.flashes, bus, *does)


def need_of(line: Line) -> PinDemand:
    """What a line needs."""
    out = line.direction != "in"
    pulled = not (out or line.analogue or line.coder or line.divided)
    return PinDemand(line.analogue, line.prefers, out, line.bus, line.coder, pulled, line.id.endswith("-drive"))


def can(need: PinDemand, kind: PinKind) -> bool:
    """Whether pins of a kind can do what is asked, as ``lines.serves`` has it for a line and a pin."""
    if need.coder or kind.coder:
        return need.coder and kind.coder
    if need.analogue:
        return kind.analogue
    return kind.drives if need.out else kind.reads


def comfort(need: PinDemand, kind: PinKind) -> int:
    """What it costs to give a line a pin that can do what it needs."""
    cost = 0
    cost += NO_INTERRUPT if need.prefers == "interrupt" and not kind.interrupt else 0
    cost += NO_PWM if need.prefers == "PWM" and not kind.pwm else 0
    cost += (COMES_ON if need.steady else FLASHES) if need.out and kind.flashes else 0
    cost += STRAP if kind.strap else 0
    cost += RADIO if kind.radio and need.analogue else 0
    cost += PULL_UP if need.pulled and not kind.pull_up else 0
    cost += MEASURES if kind.analogue and not need.analogue else 0
    cost += SPENT if kind.interrupt and need.prefers != "interrupt" else 0
    cost += SPENT if kind.pwm and need.prefers != "PWM" else 0
    return cost
