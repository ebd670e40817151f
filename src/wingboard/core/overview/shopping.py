"""The whole shopping list: parts, screws, the resistors of lamps, boards and sheets."""

from __future__ import annotations

import math
from collections import Counter

from wingboard.core.brief.sheets import kinds, sheets_needed, sheets_of
from wingboard.core.parts.counting import shopping_rows
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.hardware import hardware_list
from wingboard.core.wire.boards import boards
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pinlist import lamp_resistor

SPARE = 0.1
"""Share of screws and resistors that is bought on top (common practice: they get lost and burnt)."""


def shopping_list(r: Resolved) -> list[tuple[str, ...]]:
    """Everything that is to be bought, as cells under :data:`~wingboard.core.parts.counting.SHOPPING`."""
    return [*shopping_rows(r), *_screws(r), *_resistors(r), *_boards(r), *_sheets(r)]


def _row(name: str, summary: str, used: int, on_hand: int | None, to_buy: int) -> tuple[str, ...]:
    have = "" if on_hand is None else str(on_hand)
    return (name, summary, str(used), str(used), have, str(to_buy), "", "", "", "")


def _small(name: str, summary: str, used: int) -> tuple[str, ...]:
    """Something small that gets lost: a few more than are used."""
    needed = used + math.ceil(used * SPARE)
    return (name, summary, str(used), str(needed), "", str(needed), "", "", "", "")


def _screws(r: Resolved) -> list[tuple[str, ...]]:
    return [_small(name, purpose, n) for name, purpose, n in hardware_list(r)]


def _resistors(r: Resolved) -> list[tuple[str, ...]]:
    wanted: Counter[float] = Counter()
    for line in lines(r):
        ohms = lamp_resistor(line, r.functions[line.function].switches.volts)[0] if line.lamp else None
        if ohms is not None:
            wanted[ohms] += 1
    ladders = sum(_steps(r, line.function) - 1 for line in lines(r) if line.id.endswith("-ladder"))
    equal = [_small("Resistors for ladders", "all of one value, 1 %", ladders)] if ladders else []
    return equal + [
        _small(f"Resistor {ohms:g} Ω", "in series with a lamp, E24, a quarter watt", n)
        for ohms, n in sorted(wanted.items())
    ]


def _steps(r: Resolved, function: str) -> int:
    """Positions of the rotary that a ladder reads."""
    placed = next(p for p in r.placed if p.function.id == function)
    return len(placed.function.positions) or placed.part.ways


def _boards(r: Resolved) -> list[tuple[str, ...]]:
    wanted = Counter(c.board for c in r.design.controllers)
    return [
        _row(f"Board with {boards()[kind].chip}", f"{boards()[kind].header} pins", n, None, n)
        for kind, n in wanted.items()
    ]


def _sheets(r: Resolved) -> list[tuple[str, ...]]:
    rows = []
    for kind in kinds(r):
        need, have = sheets_needed(r, kind), sum(s.count for s in sheets_of(r, kind))
        name = materials()[kind.material].name
        rows.append(_row(f"Sheet of {name}, {kind.thickness:g} mm", "", need, have, max(0, need - have)))
    return rows
