"""The pin list: what to solder from."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.record.functions import emergency
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.boards import BUS_NAMES, boards
from wingboard.core.wire.helpers import in_series
from wingboard.core.wire.lines import Line, lines


class Row(NamedTuple):
    """One line of the list, ``owner`` its function's id. ``pin`` and ``board`` are empty for a line without a pin."""

    board: str
    pin: str
    direction: str
    function: str
    terminal: str
    module: str
    note: str
    line: str
    controller: str
    by: str
    bus: str | None
    owner: str


COLUMNS = ("board", "pin", "direction", "function", "terminal", "module", "note")


def pin_list(r: Resolved) -> tuple[Row, ...]:
    """A row for every line: by board and pin in their natural order, those without a pin last."""
    choices = {p.line: p for p in r.design.pins}
    controllers = {c.id: c for c in r.design.controllers}
    order = {c.id: n for n, c in enumerate(r.design.controllers)}
    names = {p.id: p.name for p in r.design.modules}
    rows: list[tuple[tuple[int, int], Row]] = []
    for line in lines(r):
        choice = choices.get(line.id)
        if choice is None:
            key = (len(order), len(rows))
            board, pin, controller, by = "", "", "", ""
        else:
            owner = controllers[choice.controller]
            found = boards()[owner.board].pin(choice.pin)
            key = (order[owner.id], found.number if found else 99)
            board, pin, controller, by = owner.name, choice.pin, owner.id, choice.by
        note = _note(r, line, controller, pin, by)
        cells = (board, pin, line.direction, line.name, line.terminal, names[line.module], note)
        rows.append((key, Row(*cells, line.id, controller, by, line.bus, line.function)))
    return tuple(row for _, row in sorted(rows, key=lambda pair: pair[0]))


def _note(r: Resolved, line: Line, controller: str, pin: str, by: str) -> str:
    notes = []
    function = r.functions[line.function]
    if line.lamp:
        notes.append(_lamp(line, function.switches.volts))
    elif line.bus:
        notes.append(f"{BUS_NAMES[line.bus]}, shared: each device with an address or a select line of its own")
    elif line.direction == "in" and not line.analogue:
        stop = emergency(function, r.parts[function.part or ""])
        notes.append("pull-up, normally closed: open is pressed" if stop else "pull-up, closes to ground")
    elif line.id.endswith("-ladder"):
        steps = len(function.positions) or r.parts[function.part or ""].ways
        notes.append(f"{steps - 1} equal resistors between supply and ground, a tap a position")
    elif line.transistor:
        notes.append("through a transistor, with a diode across a coil")
    kind = next((c.board for c in r.design.controllers if c.id == controller), None)
    found = boards()[kind].pin(pin) if kind else None
    if found and line.prefers == "PWM":
        notes.append("PWM" if found.pwm else "on or off only, no PWM here")
    if found and line.prefers == "interrupt":
        notes.append("interrupt" if found.interrupt else "polled, no interrupt here")
    if by == "hand":
        notes.append("set by hand")
    return "; ".join(notes)


def _lamp(line: Line, volts: float) -> str:
    """How a lamp is driven: by its pin, or by a transistor where it has a supply of its own above the board's."""
    if line.volts:
        return f"made for {line.volts:g} V" + (", through a transistor" if line.transistor else "")
    ohms, supply = in_series(line, volts)
    if ohms is None:
        return "its supply leaves too little over the lamp for a resistor: a higher one, and a transistor"
    return f"{ohms:g} Ω in series" + (f", on {supply:g} V through a transistor" if line.transistor else "")
