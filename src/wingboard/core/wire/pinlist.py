"""The pin list: what to solder from."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.record.controllers import BUS_NAMES, board_of
from wingboard.core.record.functions import emergency
from wingboard.core.record.lamps import lamp_volts
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.logic import over_lamp
from wingboard.core.wire.helpers import in_series
from wingboard.core.wire.lines import lines
from wingboard.core.wire.schemes.chips import CHIPS
from wingboard.core.wire.schemes.coder import numbers
from wingboard.core.wire.schemes.networks import NAMES, Network, networks
from wingboard.core.wire.schemes.shift import chip_id, places
from wingboard.core.wire.signals import Line
from wingboard.core.wire.traits import traits
from wingboard.core.wire.wires import names_of


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
    via: str = ""
    """The network that reads or drives it; its board is then that network, or a chip of it."""
    kind: str = ""
    milliamps: float = 0.0
    boot: str = ""
    common: str = ""


BY = {"hand": "set by hand", "found": "found so, soldered already"}
COLUMNS = (
    "board", "pin", "direction", "kind", "milliamps", "boot", "common", "function", "terminal", "module", "note",
)  # fmt: skip


def pin_list(r: Resolved) -> tuple[Row, ...]:
    """A row for every line: by board and pin in their natural order, those without a pin after them; then what is read
    or driven by networks."""
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
            found = board_of(r.design, owner.board).pin(choice.pin)
            key = (order[owner.id], found.number if found else 99)
            board, pin, controller, by = owner.name, choice.pin, owner.id, choice.by
        note = _note(r, line, controller, pin, by)
        cells = (board, pin, line.direction, line.name, line.terminal, names[line.module], note)
        rows.append((key, Row(*cells, line.id, controller, by, line.bus, line.function)))
    known = traits(r)
    every = (*(row for _, row in sorted(rows, key=lambda pair: pair[0])), *_pooled(r, names))
    return (*(row._replace(**known[row.line]._asdict()) for row in every), *_plugged(r, names))


ALL_OF_IT = "all"
"""The pin of what plugs onto a board."""


def _plugged(r: Resolved, modules: dict[str, str]) -> Iterator[Row]:
    """What plugs onto a board of its own, after all others."""
    reserved = {c.reserved: c for c in r.design.controllers if c.reserved is not None}
    for p in r.placed:
        board = reserved.get(p.function.id)
        if board is None or not p.part.plugs_on:
            continue
        cells = (board.name, ALL_OF_IT, "both", p.function.name, "plug", modules[p.place.module],
                 "plugs onto it and takes all its pins")  # fmt: skip
        yield Row(*cells, f"{p.function.id}.board", board.id, "", None, p.function.id, "", "a board of its own")


def _pooled(r: Resolved, modules: dict[str, str]) -> Iterator[Row]:
    """The terminals that networks read or drive, each with its place there."""
    marks = names_of(r) if networks(r) else {}
    for network in networks(r):
        found = places_in(network)
        for signal in network.signals:
            line, (chip, place) = signal.line, found[signal.id]
            board = marks[chip_id(network, chip)] if chip else NAMES[network.kind]
            note = _lamp(r, line) if line.lamp else ""
            cells = (board, place, line.direction, line.name, line.terminal, modules[line.module], note)
            yield Row(*cells, line.id, "", "", None, line.function, network.id)


def places_in(network: Network) -> dict[str, tuple[int, str]]:
    """For each terminal of a network, by its line, the number of its chip (0 in a matrix) and its place: a pin of that,
    or its row and column."""
    if network.kind in ("digits", "pixels"):
        order = list(dict.fromkeys(s.line.function for s in network.signals))
        return {s.id: (0, f"{order.index(s.line.function) + 1}, {s.terminal}") for s in network.signals}
    if network.kind in ("matrix", "matrix-bare"):
        rows = enumerate(network.grid.rows, 1)
        return {s.id: (0, f"row {n}, column {k}") for n, row in rows for k, s in enumerate(row, 1)}
    return places(network, CHIPS[network.kind])


OF_NETWORKS = {
    "row": "pulled down in turn, else left open",
    "column": "pull-up, read while a row is down",
    "light data": "data of the chain of lamps behind, in the order of its strips",
    "light dimmer": "PWM: the share of time that the light behind is on",
    "load": "for a moment: the chips take what is on their inputs, or show what they were told",
    "latch": "high for a moment: the chips give what they were told",
    "clock": "one pulse a terminal",
    "data": "one terminal a pulse",
    "lamps": "the colours of its lamps, one after the other from the first",
}
"""What each line of a network does."""


def _note(r: Resolved, line: Line, controller: str, pin: str, by: str) -> str:
    notes = []
    if line.network and not line.bus:
        addressed = "lamps" if line.network.startswith("~pixels-") else ""
        notes.append(OF_NETWORKS.get(addressed or line.terminal) or OF_NETWORKS[line.terminal.split()[0]])
        kind = next((c.board for c in r.design.controllers if c.id == controller), None)
        given = board_of(r.design, kind).pin(pin) if kind else None
        if line.prefers == "PWM" and given and not given.pwm:
            notes.append("on or off only, no PWM here")
        return "; ".join([*notes, *([BY[by]] if by in BY else [])])
    function = r.functions[line.function]
    if line.lamp:
        notes.append(_lamp(r, line))
    elif line.bus:
        notes.append(f"{BUS_NAMES[line.bus]}, shared: each device with an address or a select line of its own")
    elif line.divided:
        notes.append(f"a divider from the load's {function.switches.volts:g} V; no pull-up")
    elif line.id.endswith("-seen"):
        notes.append("pull-up, an auxiliary contact closes to ground while the load is on")
    elif line.id.endswith("-drive"):
        switched = function.switches.through
        notes.append("high turns on its transistor" + (f", that its {switched}" if switched != "transistor" else ""))
    elif line.direction == "in" and not line.analogue:
        stop = emergency(function, r.parts[function.part or ""])
        notes.append("pull-up, normally closed: open is pressed" if stop else "pull-up, closes to ground")
    elif line.id.endswith("-ladder"):
        steps = len(function.positions) or r.parts[function.part or ""].ways
        notes.append(f"{steps - 1} resistors of {function.step:g} Ω between supply and ground, a tap a position")
    elif line.coder:
        notes.append("an input coder on its tags; its supply and ground beside it")
    elif line.transistor:
        notes.append("through a transistor, with a diode across it")
    kind = next((c.board for c in r.design.controllers if c.id == controller), None)
    board = board_of(r.design, kind) if kind else None
    found = board.pin(pin) if board else None
    known = numbers(board, pin) if board and found else range(0)
    if known:
        ways = f"numbers {known[0]} to {known[-1]} to the computer, way 1 is {known[0]}"
        notes.append(ways if len(known) > 1 else f"number {known[0]} to the computer")
    wants = line.direction == "in" and not (line.analogue or line.coder or line.bus or line.divided)
    if found and wants and not found.pull_up:
        notes.append("this pin has no pull-up: 10 kΩ to the logic's volts")
    if found and found.analogue and not line.analogue and found.drives and not line.bus:
        notes.append("a pin that measures, used as a digital one")
    if found and line.prefers == "PWM":
        notes.append("PWM" if found.pwm else "on or off only, no PWM here")
    if found and line.prefers == "interrupt":
        notes.append("interrupt" if found.interrupt else "polled, no interrupt here")
    if by in BY:
        notes.append(BY[by])
    return "; ".join(notes)


def _lamp(r: Resolved, line: Line) -> str:
    """How a lamp is driven: by its pin, or by a transistor where it has a supply of its own above the board's."""
    if line.volts:
        return f"made for {line.volts:g} V" + (", through a transistor" if line.transistor else "")
    f = r.functions[line.function]
    ohms, supply = in_series(line, lamp_volts(f, r.parts[f.part or ""]), over_lamp(r, f, line.id))
    if ohms is None:
        return "its supply leaves too little over the lamp for a resistor: a higher one, and a transistor"
    return f"{ohms:g} Ω in series" + (f", on {supply:g} V through a transistor" if line.transistor else "")
