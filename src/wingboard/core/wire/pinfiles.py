"""The pins for a program: a header for C and C++, a module for Python, JSON with its schema.

A name is made of the function's and the terminal's, in capitals, one for every line that ends on a pin; a program that
is written with the names goes on working when the pins move.
"""

from __future__ import annotations

import json
import re
import unicodedata
from typing import Any, NamedTuple

from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pinlist import ALL_OF_IT, Row, pin_list


class Named(NamedTuple):
    """A line by the name that a program has for it: its board (by id), pin, and what a program sets it to."""

    name: str
    controller: str
    pin: str
    mode: str
    row: Row


def named_pins(r: Resolved) -> tuple[Named, ...]:
    """Every line with a pin, in the order of the pin list; names are unique on all boards."""
    taken: dict[str, int] = {}
    found = []
    for row in pin_list(r):
        if not row.controller or row.pin == ALL_OF_IT:
            continue
        stem = identifier(f"{row.function} {row.terminal}" if row.terminal not in ("", row.function) else row.function)
        taken[stem] = taken.get(stem, 0) + 1
        name = stem if taken[stem] == 1 else f"{stem}_{taken[stem]}"
        found.append(Named(name, row.controller, row.pin, _mode(r, row), row))
    return tuple(found)


def identifier(text: str) -> str:
    """A name for a program: capitals, figures and underscores, never a figure first."""
    flat = unicodedata.normalize("NFKD", text.replace("+", " plus ").replace("−", "-")).encode("ascii", "ignore")
    made = re.sub(r"[^A-Z0-9]+", "_", flat.decode().upper()).strip("_")
    return made if made and not made[0].isdigit() else f"N{made}"


def _mode(r: Resolved, row: Row) -> str:
    if row.bus:
        return "bus"
    if row.direction != "in":
        return "output"
    kind = next(c.board for c in r.design.controllers if c.id == row.controller)
    pin = board_of(r.design, kind).pin(row.pin)
    line = next((line for line in lines(r) if line.id == row.line), None)
    if line and (line.analogue or line.divided):
        return "analogue" if line.analogue else "input"
    return "input_pullup" if pin and pin.pull_up else "input"


def number_of(pin: str) -> str:
    """A pin as a program numbers it: the figure of GP5 or 22, the name itself where it is one of letters (A0)."""
    match = re.fullmatch(r"(?:GP|GPIO|IO)?(\d+)", pin)
    return match[1] if match else pin


def header(r: Resolved, controller: str) -> bytes:
    """``pins.h`` of one board: a constant a line, with what it is; never more than once included."""
    board = next(c for c in r.design.controllers if c.id == controller)
    guard = f"PINS_{identifier(board.name)}_H"
    mine = [n for n in named_pins(r) if n.controller == controller]
    wide = max((len(n.name) for n in mine), default=0)
    lines = [f"// {r.design.name}: {board.name}. Made from the design; change it there.", f"#ifndef {guard}",
             f"#define {guard}", ""]  # fmt: skip
    lines += [f"#define {n.name:<{wide}} {number_of(n.pin):<4} // {_comment(n)}" for n in mine]
    return "\n".join([*lines, "", f"#endif  // {guard}", ""]).encode()


def module(r: Resolved) -> bytes:
    """``pins.py``: for each board a dictionary of names and pins, and how each is set."""
    lines = [f'"""{_quoted(r.design.name)}: the pins of every board. Made from the design; change it there."""', ""]
    for board in r.design.controllers:
        lines.append(f"{identifier(board.name)} = {{")
        for n in named_pins(r):
            if n.controller == board.id:
                pin = number_of(n.pin)
                value = pin if pin.isdigit() else json.dumps(pin)
                lines.append(f'    "{n.name}": ({value}, "{n.mode}"),  # {_comment(n)}')
        lines += ["}", ""]
    return "\n".join(lines).encode()


def _quoted(text: str) -> str:
    return text.replace("\\", "\\\\").replace('"', "'")


def _comment(n: Named) -> str:
    words = f"{n.row.function}, {n.row.terminal}, {n.mode.replace('_', ' ')}"
    return words.replace("\\", "/").replace("\n", " ")


def as_json(r: Resolved) -> bytes:
    """``pins-for-programs.json``: boards with their lines, as :data:`SCHEMA` says."""
    boards = []
    for board in r.design.controllers:
        lines = [
            {"name": n.name, "pin": n.pin, "mode": n.mode, "function": n.row.function, "terminal": n.row.terminal}
            for n in named_pins(r)
            if n.controller == board.id
        ]
        boards.append({"name": board.name, "chip": board_of(r.design, board.board).chip, "lines": lines})
    made = {"design": r.design.name, "boards": boards}
    return (json.dumps(made, ensure_ascii=False, indent=1) + "\n").encode()


_WORD = {"type": "string"}
SCHEMA: dict[str, Any] = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "The pins of a design, for programs",
    "type": "object",
    "required": ["design", "boards"],
    "additionalProperties": False,
    "properties": {
        "design": _WORD,
        "boards": {
            "type": "array",
            "items": {
                "type": "object",
                "required": ["name", "chip", "lines"],
                "additionalProperties": False,
                "properties": {
                    "name": _WORD,
                    "chip": _WORD,
                    "lines": {
                        "type": "array",
                        "items": {
                            "type": "object",
                            "required": ["name", "pin", "mode", "function", "terminal"],
                            "additionalProperties": False,
                            "properties": {
                                "name": {"type": "string", "pattern": "^[A-Z][A-Z0-9_]*$"},
                                "pin": _WORD,
                                "mode": {"enum": ["input", "input_pullup", "output", "analogue", "bus"]},
                                "function": _WORD,
                                "terminal": _WORD,
                            },
                        },
                    },
                },
            },
        },
    },
}
"""Of the JSON (JSON Schema, draft 2020-12)."""


def schema() -> bytes:
    """The schema as a file."""
    return (json.dumps(SCHEMA, indent=1) + "\n").encode()
