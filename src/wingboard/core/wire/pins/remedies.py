"""What would make every line fit where some do not: another pin for one function, further boards, or fewer pins for the
same; each tried, with its price. Money in minor units, minutes."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.wire import AddController, SetPins, UnpinLines
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import board_of, boards, open_controllers
from wingboard.core.record.functions import Scheme
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.comparing import options
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.solve import Solution, Watch, least_change, solve
from wingboard.core.wire.schemes.choosing import suited, take_up

PRICES: dict[BoardKind, int] = {
    "atmega328p": 900, "atmega328p-30": 600, "atmega32u4": 1000, "atmega2560": 1800, "esp32": 900, "rp2040": 500,
    "hid-32": 3500,
}  # fmt: skip
"""Of a board, in minor units (from memory, the order of magnitude: look at your shop)."""
MOUNTING = 30.0
"""Minutes to mount a board and bring it its USB line (our own guess)."""
RELABEL = 1.0
"""Minutes to write another pin on a wire's label (our own guess)."""
NAMED = 4
"""Functions that are named where several move."""
SECONDS = 2.0
"""For each try."""
BOARDS: tuple[tuple[BoardKind, ...], ...] = (
    ("rp2040",), ("atmega328p",), ("atmega2560",), ("atmega328p", "atmega2560"), ("atmega2560",) * 2,
    ("atmega2560",) * 3,
)  # fmt: skip
"""Further boards that are tried, the cheapest first."""
SAVING: dict[Scheme, str] = {
    "matrix": "Read the contacts of {where} in a matrix",
    "shift": "Read and drive {where} over a chain of 74HC165 and 74HC595",
    "expander": "Read and drive {where} by MCP23017",
    "ladder": "Read the selectors of {where} as one voltage each",
    "binary": "Read the selectors of {where} in binary",
    "digits": "Chain the read-outs of {where}",
}
"""Schemes that save pins."""
MOST = 3


class Remedy(NamedTuple):
    """What would make everything fit: in words, what it costs, and the commands that do it."""

    words: str
    money: int
    minutes: float
    commands: tuple[Command, ...]


def shortage(r: Resolved) -> str:
    """Which pins are short, in words: what is wanted against what there is; empty when counts alone do not say."""
    wanted = {line.bus or line.id: line for line in lines(r)}.values()
    there = [pin for c in open_controllers(r.design) for pin in board_of(r.design, c.board).pins if not pin.coder]
    analogue = sum(line.analogue for line in wanted), sum(pin.analogue for pin in there)
    drives = sum(line.direction != "in" for line in wanted), sum(pin.drives for pin in there)
    every = len(wanted), len(there)
    short = [
        f"{want} {what} wanted, {have} there"
        for what, (want, have) in (("pins in all", every), ("that measure", analogue), ("that drive", drives))
        if want > have
    ]
    return "; ".join(short)


def remedies(r: Resolved, unfit: Solution, watch: Watch | None = None) -> tuple[Remedy, ...]:
    """Up to three things of which each would make every line fit, the cheapest first; boards and schemes of both kinds
    where there are.

    :param unfit: what the solver found. :param watch: may stop it; what is found by then counts.
    """
    by_moving = _working(r, _moves(r), watch, 1) if not shortage(r) else []
    by_board = _working(r, _boards(r), watch, 2)
    by_scheme = _working(r, _schemes(r, {left.function for left in unfit.unfit}), watch, MOST)
    cheap = sorted((*by_board[1:], *by_scheme[1:]), key=_weight)
    chosen = [*by_moving, *by_board[:1], *by_scheme[:1], *cheap][:MOST]
    return tuple(sorted(chosen, key=_weight))


def _weight(remedy: Remedy) -> float:
    """An hour as ten of the currency (common practice of counting one's own time)."""
    return remedy.money + 1000 * remedy.minutes / 60


def _working(r: Resolved, tries: Iterator[Remedy], watch: Watch | None, enough: int) -> list[Remedy]:
    found: list[Remedy] = []
    for remedy in tries:
        if len(found) == enough or (watch and watch.stopped()):
            break
        if not solve(Resolved(apply(r.design, remedy.commands, catalogue())), keep=True, seconds=SECONDS).unfit:
            found.append(remedy)
    return found


def _moves(r: Resolved) -> Iterator[Remedy]:
    """As few lines as can be that give up their pins, if these are neither set by hand nor soldered."""
    found = least_change(r, seconds=SECONDS)
    if found is None:
        return
    after = {p.line: (p.controller, p.pin) for p in found.pins}
    moved = tuple(p.line for p in r.design.pins if p.line in after and after[p.line] != (p.controller, p.pin))
    by_id = {line.id: line for line in lines(r)}
    names, many = list(dict.fromkeys(by_id[ident].name for ident in moved)), len(moved)
    listed = ", ".join(names[:-1]) + " and " + names[-1] if len(names) > 1 else "".join(names)
    if len(names) > NAMED:
        listed = f"{', '.join(names[:NAMED])} and {len(names) - NAMED} more"
    words = f"Give {listed} other pins: {many} line{'' if many == 1 else 's'} move{'s' if many == 1 else ''}"
    words += ", and fewer are not enough" if found.optimal and many > 1 else ""
    if moved:
        yield Remedy(words, 0, RELABEL * many, (UnpinLines(lines=moved), SetPins(pins=found.pins)))


def _boards(r: Resolved) -> Iterator[Remedy]:
    volts = {board_of(r.design, c.board).volts for c in r.design.controllers}
    for kinds in BOARDS:
        if volts and not {boards()[kind].volts for kind in kinds} <= volts:
            continue  # its signals would not be those of the others
        names = " and ".join(f"an {boards()[kind].name}" for kind in kinds)
        commands = tuple(AddController(board=kind) for kind in kinds)
        yield Remedy(f"Add {names}", sum(PRICES[kind] for kind in kinds), MOUNTING * len(kinds), commands)


def _schemes(r: Resolved, unfit: set[str]) -> Iterator[Remedy]:
    """Ways for the modules of what did not fit that save pins there, what saves for the least first."""
    found: list[tuple[float, Remedy]] = []
    places = {p.function.id: p.place.module for p in r.placed}
    for module in dict.fromkeys(places[f] for f in places if f in unfit or f"~{f}" in unfit):
        mine = [f for f, where in places.items() if where == module and r.functions[f].scheme == "direct"]
        name = r.modules[module].module.name
        for scheme, words in SAVING.items():
            able = sorted(suited(r, mine, scheme), key=mine.index)
            ways = {option.scheme: option for option in options(r, able)} if able else {}
            if not able or ways[scheme].pins >= ways["direct"].pins:
                continue
            way, now = ways[scheme], ways["direct"]
            commands = take_up(r, able, scheme)
            remedy = Remedy(words.format(where=name), way.money - now.money, way.minutes - now.minutes, commands)
            found.append((_weight(remedy), remedy))
    yield from (remedy for _, remedy in sorted(found, key=lambda pair: pair[0]))
