"""The lines a design needs, derived from its placed parts."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.part import BUS_LINES, PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.boards import Pin

LOGIC_SUPPLY = 5.0
"""Volts of the boards considered here (ATmega328P and 2560 at 16 MHz)."""


class Line(NamedTuple):
    """One line between a terminal and a pin. ``id`` is the function's id, a dot, and the line's."""

    id: str
    function: str
    name: str
    terminal: str
    module: str
    direction: Literal["in", "out", "both"]
    analogue: bool
    prefers: Literal["interrupt", "PWM"] | None
    current: float
    drop: float
    volts: float
    """Supply that a lamp is made for, without a resistor; 0: it needs one."""
    lamp: bool
    bus: str | None
    pin_current: float
    """Amperes through its pin: its own, or what a transistor wants that drives it."""
    chip_current: float
    """Amperes that it adds to those of the chip: nothing where it takes back what another line gives."""
    transistor: bool


def serves(line: Line, pin: Pin | None) -> bool:
    """Whether a pin can do what a line needs at all; preferences do not count."""
    return pin is not None and (pin.analogue or not line.analogue) and line.bus in (None, pin.bus)


def lines(r: Resolved) -> tuple[Line, ...]:
    """Every line of the placed parts, in the order of the functions."""
    return r.once("lines", lambda: tuple(s for placed in r.placed for s in _of(r, placed)))


def _of(r: Resolved, placed: Placed) -> Iterator[Line]:
    if placed.function.state == "dummy":
        return
    for line in placed.part.lines:
        if line.does == "switch" and placed.function.switches.amps > 0:
            continue  # this contact is in the circuit of its load; a controller sees it only through another one
        if line.each_position and placed.function.scheme == "ladder":
            yield _line(r, placed, line.model_copy(update={"does": "analogue"}), f"{line.id}-ladder", "ladder tap")
        elif not line.each_position:
            yield _line(r, placed, line, line.id, line.terminal)
        else:
            for n in range(1, (len(placed.function.positions) or placed.part.ways) + 1):
                yield _line(r, placed, line, f"{line.id}-{n}", f"{line.terminal} {n}")


def _line(r: Resolved, placed: Placed, line: PartLine, ident: str, terminal: str) -> Line:
    out = line.does in ("lamp", "driver", "scl", "sck", "mosi")
    driven = out and line.does not in BUS_LINES and _transistor(placed, line)
    through = limit(r.design, "drive-current") if driven else line.current
    prefers: Literal["interrupt", "PWM"] | None = None
    if line.does == "encoder":
        prefers = "interrupt"
    elif line.does == "lamp" and line.dims:
        prefers = "PWM"
    return Line(
        id=f"{placed.function.id}.{ident}",
        function=placed.function.id,
        name=placed.function.name,
        terminal=terminal,
        module=placed.place.module,
        direction="both" if line.does == "sda" else "out" if out else "in",
        analogue=line.does == "analogue",
        prefers=prefers,
        current=line.current,
        drop=line.drop,
        volts=line.volts,
        lamp=line.does == "lamp",
        bus=line.does if line.does in BUS_LINES else None,
        pin_current=through,
        chip_current=0.0 if line.returns else through,
        transistor=driven,
    )


def _transistor(placed: Placed, line: PartLine) -> bool:
    """Whether a pin drives a line through a transistor, a relay or a contactor: when that is said, or when what it
    drives has a supply of its own above the board's."""
    load, feed = placed.function.switches, placed.part.feed
    higher = (load.volts or line.volts) if line.does == "lamp" else (feed.volts if feed and not line.current else 0.0)
    return bool(load.through) or higher > LOGIC_SUPPLY
