"""Cells of the function list: what they say, what they refuse, and names that two kinds may share."""

from __future__ import annotations

import pytest

from wingboard.core.brief.cells import Cell, command_for_line, commands_for_cells
from wingboard.core.brief.listing import read_listing
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing

LIST = apply(
    Design(name="Cells"),
    (AddFunction(name="Main power", want="toggle switch", group="Power"), AddFunction(name="Horn", group="Services")),
    catalogue(),
)


def after(*cells: Cell) -> Design:
    """The list after cells were typed."""
    return apply(LIST, commands_for_cells(LIST, cells), catalogue())


def test_a_block_changes_rows_and_adds_those_below_the_last() -> None:
    made = after(
        Cell(0, "f1", "load", "24 V 6 A DC"),
        Cell(0, "f1", "positions", "ON / OFF"),
        Cell(1, "f2", "name", "Gong"),
        Cell(2, None, "name", "Wiper"),
        Cell(2, None, "want", "toggle"),
        Cell(2, None, "load", "12V 500mA"),
        Cell(3, None, "name", "Main power"),
        Cell(3, None, "want", "red lamp"),
    )
    first, second, third, fourth = made.functions
    assert (first.switches.volts, first.switches.amps, first.switches.current) == (24, 6, "DC")
    assert first.positions == ("ON", "OFF")
    assert (second.name, second.group) == ("Gong", "Services")
    assert (third.name, third.want, third.group, third.switches.amps) == ("Wiper", "toggle", "Services", 0.5)
    assert (fourth.name, fourth.want) == (first.name, "red lamp")  # a switch and its lamp may share a name


def test_an_empty_cell_empties_and_one_that_says_the_same_changes_nothing() -> None:
    loaded = after(Cell(0, "f1", "load", "24 V"))
    emptied = apply(loaded, commands_for_cells(loaded, [Cell(0, "f1", "load", " ")]), catalogue())
    assert emptied == LIST
    assert after(Cell(0, "f1", "name", "Main power"), Cell(1, "f2", "group", "Services")) == LIST


@pytest.mark.parametrize(
    ("cell", "kind", "path"),
    [
        (Cell(0, "f1", "load", "plenty"), NotPossible, "cells[0].text"),
        (Cell(0, "f1", "name", " "), NotPossible, "cells[0].text"),
        (Cell(0, "f1", "want", "x" * 130), NotPossible, "cells[0].text"),
        (Cell(0, "f1", "positions", "/".join("ABCDEFGHIJKLMNOPQRSTUVWXYZ")), NotPossible, "cells[0].text"),
        (Cell(0, "gone", "name", "Bell"), UnknownThing, "cells[0].function"),
        (Cell(7, None, "want", "toggle"), NotPossible, "cells"),
        (Cell(7, None, "name", "main power"), NotPossible, "cells"),
    ],
)
def test_what_a_cell_cannot_hold_is_refused_at_its_place(cell: Cell, kind: type[Exception], path: str) -> None:
    with pytest.raises(kind) as refused:
        commands_for_cells(LIST, [cell])
    assert refused.value.path == path  # type: ignore[attr-defined]


def test_a_line_may_name_a_lamp_like_its_switch_and_not_a_second_switch() -> None:
    lamp = command_for_line(LIST, "Main power red lamp 12 V", "Power")
    assert (lamp.name, lamp.want, lamp.switches.volts) == ("Main power", "red lamp 12 V", 12)
    switch = command_for_line(LIST, "Door release toggle switch", "")
    assert (switch.name, switch.want) == ("Door release", "toggle switch")
    for line in ("main power rocker", "???"):
        with pytest.raises(NotPossible):
            command_for_line(LIST, line, "")
    pasted = read_listing("name\twant\nMain power\tlamp\nMain power\ttoggle switch\n", LIST)
    assert [r.want for r in pasted.rows] == ["lamp"]
    assert (pasted.same, pasted.faults) == (1, ())
