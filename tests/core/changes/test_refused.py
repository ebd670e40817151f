"""What the newer commands refuse: each at its field, in words a builder can act on, and with the record untouched."""

from __future__ import annotations

from typing import Any

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import COMMANDS
from wingboard.core.changes.commands.arrange import LockItems
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.parts import ChoosePart, CopyPart
from wingboard.core.changes.commands.wire import AddController, PinLine
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.errors import DesignError, NotPossible, UnknownThing

CROSSED = {"kind": "path", "points": [{"x": 0, "y": 0}, {"x": 90, "y": 90}, {"x": 90, "y": 0}, {"x": 0, "y": 90}]}
MINE = CopyPart(part="rotary-12", id="mine", name="Mine")
GROUND = plate(
    ("toggle-large-on-off", 40, 40),
    ("toggle-large-on-off", 90, 40),
    ("button-22", 140, 60),
    commands=(
        AddFunction(id="waiting", name="Waiting"),
        AddFunction(id="open", name="Open"),
        ChoosePart(function="waiting", part="button-16"),
        MINE,
        ChoosePart(function="f3", part="mine"),
        LockItems(functions=("f3",)),
        AddController(board="atmega328p"),
        PinLine(line="f1.on", controller="atmega328p-1", pin="4"),
    ),
)

READING = {"of": "bush", "values": [9.5]}
TWO = ["f1", "f2"]
Row = tuple[dict[str, Any], type[DesignError], str, str]
TABLE: list[Row] = [
    # the brief and the workshop
    ({"do": "resize_opening", "rise": 20}, NotPossible, "rise", "arched top"),
    (
        {"do": "split_opening", "names": ["A", "B"], "shares": [1, 2, 3]},
        NotPossible,
        "shares",
        "2 modules and 3 shares",
    ),
    ({"do": "split_opening", "names": ["A"] * 12, "seam": 18}, NotPossible, "names", "narrower than 5 mm"),
    ({"do": "remove_from_workshop", "kind": "stock", "id": "gone"}, UnknownThing, "id", "among the stock"),
    ({"do": "set_on_hand", "part": "no-such", "count": 2}, UnknownThing, "part", "no-such"),
    # the list
    ({"do": "edit_function", "function": "f1", "of": "f1"}, NotPossible, "of", "belong to itself"),
    ({"do": "edit_function", "function": "f1", "of": "nobody"}, UnknownThing, "of", "nobody"),
    ({"do": "move_functions", "functions": TWO, "before": "f1"}, NotPossible, "before", "before themselves"),
    # parts
    ({"do": "copy_part", "part": "no-such", "name": "Copy"}, UnknownThing, "part", "no-such"),
    ({"do": "copy_part", "part": "rotary-12", "id": "mine", "name": "Again"}, NotPossible, "id", "taken already"),
    ({"do": "measure_part", "part": "rotary-12", "readings": [READING]}, NotPossible, "part", "copy it first"),
    ({"do": "measure_part", "part": "mine", "readings": [READING, READING]}, NotPossible, "readings", "given twice"),
    ({"do": "combine_parts", "parts": ["mine", "no-such"], "name": "X"}, UnknownThing, "parts", "no-such"),
    ({"do": "remove_part", "part": "mine"}, NotPossible, "part", "used by F3"),
    # places
    ({"do": "place", "function": "open", "module": "plate", "x": 9, "y": 9}, NotPossible, "function", "Choose a part"),
    ({"do": "move", "functions": ["f3"], "dx": 5}, NotPossible, "functions", "locked where it is"),
    ({"do": "turn", "functions": ["waiting"], "by": 90}, NotPossible, "functions", "not placed yet"),
    ({"do": "arrange", "functions": ["f1"], "how": "row"}, NotPossible, "functions", "two or more"),
    ({"do": "arrange", "functions": TWO, "how": "distribute-x"}, NotPossible, "functions", "three or more"),
    ({"do": "arrange", "functions": TWO, "how": "arc", "radius": 0}, NotPossible, "radius", "needs a radius"),
    ({"do": "arrange", "functions": TWO, "how": "row", "pitch": 5000}, NotPossible, "functions", "further than"),
    ({"do": "swap_groups", "first": TWO, "second": ["f2"]}, NotPossible, "second", "both groups"),
    ({"do": "pair", "first": "waiting", "second": "f1"}, NotPossible, "first", "not placed yet"),
    ({"do": "pair", "first": "f1", "second": "f1"}, NotPossible, "second", "two functions"),
    ({"do": "pair", "first": "f1", "second": "open"}, NotPossible, "second", "Choose a part"),
    ({"do": "pair", "first": "f1", "second": "f3"}, NotPossible, "second", "locked"),
    # words and graphics
    ({"do": "remove_graphic", "graphic": "gone"}, UnknownThing, "graphic", "gone"),
    ({"do": "remove_procedure", "procedure": "gone"}, UnknownThing, "procedure", "gone"),
    ({"do": "remove_reference", "reference": "gone"}, UnknownThing, "reference", "gone"),
    # pins
    ({"do": "remove_controller", "controller": "atmega2560-1"}, UnknownThing, "controller", "atmega2560-1"),
    ({"do": "pin", "line": "f2.on", "controller": "atmega328p-1", "pin": "4"}, NotPossible, "pin", "f1.on by hand"),
    ({"do": "edit_controller", "controller": "gone", "measured": 1}, UnknownThing, "controller", "gone"),
    # harness
    ({"do": "edit_loom", "module": "gone", "service": 100}, UnknownThing, "module", "gone"),
    ({"do": "edit_wire", "wire": "gone", "count": 2}, UnknownThing, "wire", "gone"),
    ({"do": "forget_standing", "device": "supply.gone"}, UnknownThing, "device", "supply.gone"),
    (
        {"do": "set_harness", "colours": [{"net": "ground", "colour": c} for c in ("red", "blue")]},
        NotPossible,
        "colours",
        "Two rules",
    ),
]
GRAPHICS: list[tuple[dict[str, Any], str, str]] = [
    ({"kind": "text"}, "text", "what it reads"),
    ({"kind": "placard", "width": 60, "height": 20}, "text", "what it reads"),
    ({"kind": "symbol"}, "symbol", "which symbol"),
]
TABLE += [({"do": "add_graphic", "module": "plate", **raw}, NotPossible, path, words) for raw, path, words in GRAPHICS]


@pytest.mark.parametrize(
    ("raw", "kind", "path", "words"), TABLE, ids=[f"{n} {r[0]['do']}" for n, r in enumerate(TABLE)]
)
def test_each_refusal_says_what_and_where(raw: dict[str, Any], kind: type[DesignError], path: str, words: str) -> None:
    before = GROUND.model_dump_json()
    with pytest.raises(kind) as refused:
        apply(GROUND, (COMMANDS.validate_python(raw),), catalogue())
    assert refused.value.path == f"commands[0].{path}"
    assert words in refused.value.message
    assert GROUND.model_dump_json() == before


OUT_OF_RANGE: list[dict[str, Any]] = [
    {"do": "set_usb", "ports": 0},
    {"do": "set_harness", "ties": 5},
    {"do": "set_harness", "power_area": 40},
    {"do": "add_wire", "colour": "red", "metres": 0},
    {"do": "edit_supply", "supply": "desk", "fuse": -1},
    {"do": "stand", "device": "supply.desk", "x": 9e9, "y": 0},
    {"do": "set_brief", "opening": CROSSED},
    {"do": "set_brief", "pitch": 120},
    {"do": "set_brief", "depth": -1},
    {"do": "set_brief", "currency": "euro"},
    {"do": "log_hours", "stage": "layout", "hours": 0, "controls": 4},
    {"do": "set_on_hand", "part": "rotary-12", "count": -1},
    {"do": "split_opening", "names": []},
    {"do": "arrange", "functions": TWO, "how": "spiral"},
    {"do": "arrange", "functions": TWO, "how": "grid", "columns": 0},
    {"do": "set_style", "name_cap": 900},
    {"do": "set_style", "font": "the one at work"},
    {"do": "add_procedure", "name": "Shut down", "steps": []},
    {"do": "add_reference", "module": "plate", "picture": "../x", "width": 10, "height": 10},
    {"do": "edit_legend", "function": "f1", "text": "x" * 500},
    {"do": "edit_part", "part": "mine", "times": 9},
]


@pytest.mark.parametrize("raw", OUT_OF_RANGE, ids=[f"{n} {raw['do']}" for n, raw in enumerate(OUT_OF_RANGE)])
def test_figures_out_of_range_never_reach_the_record(raw: dict[str, Any]) -> None:
    with pytest.raises(ValueError, match="validation error"):
        COMMANDS.validate_python(raw)
