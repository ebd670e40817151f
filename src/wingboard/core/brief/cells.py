"""Cells of the function list as they are typed, pasted and filled down, turned into commands."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any, Literal, NamedTuple, get_args

from wingboard.core.brief.lines import MOST_POSITIONS, positions_in, read_line
from wingboard.core.brief.wanted import duty_wanted, load_in
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.functions import Duty

Column = Literal["name", "want", "load", "positions", "bus", "group"]
COLUMNS: tuple[Column, ...] = get_args(Column)


class Cell(NamedTuple):
    """What is typed into one cell. A row without a function is a new one; ``row`` tells new rows apart."""

    row: int
    function: str | None
    column: Column
    text: str


def commands_for_cells(design: Design, cells: Sequence[Cell]) -> tuple[Command, ...]:
    """The commands that a set of cells stands for; cells that say what is there already stand for none.

    :raises NotPossible: a cell cannot be read, or a new row has no name; the path names the cell.
    :raises UnknownThing: a function is not there any more.
    """
    known = {f.id for f in design.functions}
    edits: dict[str, dict[str, Any]] = {}
    new: dict[int, dict[str, Any]] = {}
    for n, cell in enumerate(cells):
        if cell.function is not None and cell.function not in known:
            raise UnknownThing("That function was removed meanwhile", f"cells[{n}].function")
        said = _said(cell, f"cells[{n}].text")
        (new.setdefault(cell.row, {}) if cell.function is None else edits.setdefault(cell.function, {})).update(said)
    changed = [EditFunction(function=ident, **said) for ident, said in edits.items()]
    return (*changed, *_added(design, new))


def _said(cell: Cell, path: str) -> dict[str, Any]:
    """The fields that a cell says."""
    text = " ".join(cell.text.split())
    if len(text) > 120:
        raise NotPossible(f"“{text[:30]}…” is longer than 120 letters", path)
    if cell.column == "load":
        return _load(text, path)
    if cell.column == "positions":
        words = tuple(w.strip() for w in re.split(r"[/|,;]", text) if w.strip())
        if len(words) > MOST_POSITIONS:
            raise NotPossible(f"A control has at most {MOST_POSITIONS} positions", path)
        return {"positions": words}
    if cell.column == "name" and not re.search(r"\w", text):
        raise NotPossible(f"“{text[:30]}” is not a name" if text else "A function needs a name", path)
    if cell.column == "want":
        want, words = positions_in(text)
        return {"want": want, "positions": words} if words else {"want": want}
    return {cell.column: text}


def _load(text: str, path: str) -> dict[str, Any]:
    found = load_in(text)
    if text and not (found.volts or found.amps or found.current):
        raise NotPossible(f"“{text[:30]}” is no load; try 24 V 6 A DC", path)
    return {"volts": found.volts, "amps": found.amps, "current": found.current}


def _added(design: Design, new: dict[int, dict[str, Any]]) -> list[Command]:
    taken = {(f.name.lower(), duty_wanted(f, f.name)) for f in design.functions}
    group = design.functions[-1].group if design.functions else ""
    made: list[Command] = []
    for row, said in sorted(new.items()):
        if "name" not in said:
            raise NotPossible(f"New row {row + 1} has no name", "cells")
        load = {name: said.pop(name) for name in ("volts", "amps", "current", "bus") if name in said}
        command = AddFunction(**{"group": group, **said}, switches=load)
        _refuse_twice(taken, command)
        made.append(command)
    return made


def _refuse_twice(taken: set[tuple[str, Duty]], command: AddFunction) -> None:
    key = (command.name.lower(), duty_wanted(command, command.name))
    if key in taken:
        raise NotPossible(f"“{command.name}” is on the list already", "cells")
    taken.add(key)


def command_for_line(design: Design, text: str, group: str) -> AddFunction:
    """The function that a typed line such as “gong push button” adds.

    :raises NotPossible: there is no name in it, or one of its name and kind is on the list.
    """
    line = read_line(text)
    if not re.search(r"\w", line.name):
        raise NotPossible(f"“{text.strip()[:30]}” is not a name", "text")
    made = AddFunction(name=line.name, want=line.want, positions=line.positions, group=group, switches=line.switches)
    _refuse_twice({(f.name.lower(), duty_wanted(f, f.name)) for f in design.functions}, made)
    return made
