"""One controller for all, one for each module, or one for each kind of signal: what each takes on this panel.

Pins are counted here, not given: a board holds lines when their numbers fit its pins, with the reserve that is kept.
Money in minor units.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import Board, board_of, boards
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.remedies import PRICES
from wingboard.core.wire.signals import Line

USB_CARRIED = 2
"""Wires that every board's supply and ground add to those of a module that it feeds from elsewhere: 5 V and GND."""
D_SUB = (9, 15, 25, 37, 50)
"""Contacts of D-sub plugs (MIL-DTL-24308, from memory)."""
OFFERED: tuple[BoardKind, ...] = ("atmega328p-30", "atmega32u4", "atmega2560")
"""Kinds of 5 V that are offered, the smallest first; of 3.3 V where the design has only such boards."""
OFFERED_LOW: tuple[BoardKind, ...] = ("rp2040", "esp32")


class Topology(NamedTuple):
    """A way to spread the lines over controllers.

    ``boards``: how many of which; ``ports``: USB ports on the computer; ``crossing``: wires from one module to another,
    supplies and grounds included; ``plugs``: the D-sub plugs at these joints, by their contacts. ``not_for``: why it
    cannot be; then everything else is empty.
    """

    name: str
    boards: tuple[tuple[int, str], ...]
    money: int
    ports: int
    crossing: int
    plugs: tuple[int, ...]
    not_for: str


class _Bunch(NamedTuple):
    """Lines on one controller, and the module at which it sits."""

    board: Board
    lines: tuple[Line, ...]
    at: str


def topologies(r: Resolved) -> tuple[Topology, ...]:
    """As it is (where every line has a pin), and the three usual ways. Empty while there are no lines."""
    every = lines(r)
    if not every:
        return ()
    modules = {m: tuple(line for line in every if line.module == m) for m in dict.fromkeys(x.module for x in every)}
    kinds = {
        "contacts": tuple(line for line in every if line.direction == "in"),
        "lamps and displays": tuple(line for line in every if line.direction != "in"),
    }
    ways = [
        _spread(r, "one controller for all", {"all lines": every}),
        _spread(r, "one for each module", modules),
        _spread(r, "contacts on one, lamps and displays on another", {k: v for k, v in kinds.items() if v}),
    ]
    now = _as_it_is(r, every)
    return (now, *ways) if now else tuple(ways)


def _as_it_is(r: Resolved, every: Sequence[Line]) -> Topology | None:
    given = {p.line: p.controller for p in r.design.pins}
    if any(line.id not in given for line in every):
        return None
    found = []
    for controller in r.design.controllers:
        mine = tuple(line for line in every if given[line.id] == controller.id)
        if mine:
            found.append(_Bunch(board_of(r.design, controller.board), mine, _most(mine)))
    return _counted(r, "as it is", found)


def _spread(r: Resolved, name: str, parts: dict[str, tuple[Line, ...]]) -> Topology:
    """Each part on the cheapest board that holds it."""
    found = []
    for part, mine in parts.items():
        board = next((b for b in _offered(r) if holds(r, b, mine)), None)
        if board is None:
            label = r.modules[part].module.name if part in r.modules else part
            return Topology(name, (), 0, 0, 0, (), f"{label}: {_why_not(r, mine)}")
        found.append(_Bunch(board, mine, _most(mine)))
    return _counted(r, name, found)


def _why_not(r: Resolved, mine: Sequence[Line]) -> str:
    """What keeps these lines from the largest board that is offered."""
    largest = max(_offered(r), key=lambda board: len(board.pins))
    wanted = {line.bus or line.id: line for line in mine}.values()
    coded, measured = sum(line.coder for line in wanted), sum(line.analogue for line in wanted)
    amps = math.fsum(line.chip_current for line in mine)
    most = largest.whole.plan if largest.whole else limit(r.design, "chip-current")
    if coded and not any(pin.coder for pin in largest.pins):
        return "an input coder wants a HID card beside it"
    if measured > sum(pin.analogue for pin in largest.pins):
        return f"{measured} pins that measure, {largest.name} has {sum(pin.analogue for pin in largest.pins)}"
    if amps > most + 1e-9:
        return f"{1000 * amps:.0f} mA at once, {largest.name} is planned with {1000 * most:.0f}"
    return f"{_pins(mine)} pins and the reserve, the largest board here has {len(largest.pins)}"


def _offered(r: Resolved) -> list[Board]:
    volts = {board_of(r.design, c.board).volts for c in r.design.controllers}
    kinds = OFFERED_LOW if volts == {3.3} else OFFERED
    return sorted((boards()[kind] for kind in kinds), key=lambda board: _price(board.kind))


def _price(kind: str) -> int:
    return next((money for known, money in PRICES.items() if known == kind), 0)


def _most(mine: Sequence[Line]) -> str:
    modules = [line.module for line in mine]
    return max(dict.fromkeys(modules), key=modules.count)


def _pins(mine: Iterable[Line]) -> int:
    return len({line.bus or line.id for line in mine})


def holds(r: Resolved, board: Board, mine: Sequence[Line]) -> bool:
    """Whether a board has the pins for these lines, by their numbers, with the reserve, and carries their current."""
    wanted = {line.bus or line.id: line for line in mine}
    measured = sum(line.analogue for line in wanted.values())
    coded = sum(line.coder for line in wanted.values())
    driven = sum(line.direction != "in" for line in wanted.values())
    pins = [p for p in board.pins if not p.coder]
    only_read = sum(p.analogue and not p.drives for p in pins)
    free_to_drive = sum(p.drives for p in pins) - max(0, measured - only_read)
    room = math.floor(len(pins) * (1 - limit(r.design, "pin-reserve") / 100) + 1e-9)
    most = board.whole.plan if board.whole else limit(r.design, "chip-current")
    return (
        len(wanted) - coded <= room
        and measured <= sum(p.analogue for p in pins)
        and driven <= free_to_drive
        and coded <= sum(p.coder for p in board.pins)
        and all(board.bus_pin(bus) for bus in {line.bus for line in mine if line.bus})
        and math.fsum(line.chip_current for line in mine) <= most + 1e-9
    )


def _counted(r: Resolved, name: str, bunches: Sequence[_Bunch]) -> Topology:
    crossing: dict[tuple[str, str], int] = {}
    for bunch in bunches:
        away = {line.module for line in bunch.lines} - {bunch.at}
        for module in away:
            many = _pins(line for line in bunch.lines if line.module == module) + USB_CARRIED
            crossing[module, bunch.at] = crossing.get((module, bunch.at), 0) + many
    counted: dict[str, int] = {}
    for bunch in bunches:
        counted[bunch.board.name] = counted.get(bunch.board.name, 0) + 1
    return Topology(
        name=name,
        boards=tuple((many, board) for board, many in counted.items()),
        money=sum(_price(bunch.board.kind) for bunch in bunches),
        ports=len(bunches),
        crossing=sum(crossing.values()),
        plugs=tuple(plug for many in crossing.values() for plug in plugs_for(many)),
        not_for="",
    )


def plugs_for(wires: int) -> tuple[int, ...]:
    """The D-sub plugs for so many wires: full ones of the largest, then the next that takes the rest."""
    full, rest = divmod(wires, D_SUB[-1])
    return (*([D_SUB[-1]] * full), *([next(size for size in D_SUB if size >= rest)] if rest else ()))
