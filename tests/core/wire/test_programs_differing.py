"""What a board's program does, compared between two revisions of a design."""

from __future__ import annotations

import re
import zlib
from collections.abc import Callable
from typing import Any

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.program.channels import channels
from wingboard.core.wire.program.differing import differences, fingerprint
from wingboard.core.wire.program.identity import board_of_letter, greeting_of
from wingboard.core.wire.program.sketch import BLOCKS, sketch
from wingboard.core.wire.program.tables import EDITION, letter_of, tables
from wingboard.core.wire.schemes.networks import networks

Demo = Callable[[str], Design]
BOARD = "atmega2560-1"


def code_of(r: Resolved, board: str) -> str:
    """The tables without comments, revision, fingerprint, free pins and the design's name."""
    text = tables(r, board, 1).text.split("#define FREE_COUNT")[0]
    return re.sub(r"//.*|const char (LINES|DESIGN)\[\].*|\s", "", text)


@pytest.mark.parametrize(("command", "expected"), [
    ({"do": "pin", "line": "f18.on", "controller": BOARD, "pin": "A0", "found": False},
     [("master-key", "moved")]),
    ({"do": "edit_function", "function": "f60", "lost": "hold"}, [("lost-link", "changed")]),
    ({"do": "edit_function", "function": "f18", "name": "Key"}, [("key", "renamed")]),
    ({"do": "rename", "name": "Another tram"}, []),
])  # fmt: skip
def test_what_changed_is_said_by_name(demo: Demo, command: dict[str, Any], expected: list[tuple[str, str]]) -> None:
    was = demo("kestrel-line-9")
    now = apply(was, BATCH.validate_python([command]), catalogue())
    found = differences(Resolved(was), Resolved(now), BOARD)
    assert [(one.name, one.change) for one in found] == expected
    assert (fingerprint(Resolved(was), BOARD) == fingerprint(Resolved(now), BOARD)) == (not expected)


PARTS = (
    "toggle-large-on-off",
    "rotary-8",
    "readout-8-digits",
    "lamp-8-addressable",
    "button-16",
    "led-5-bezel",
    "button-16",
)
EDITS = (
    {"function": "f2", "scheme": "ladder"}, {"function": "f2", "step": 2200}, {"function": "f2", "steady": True},
    {"function": "f2", "positions": ["A", "B", "C"]}, {"function": "f3", "scheme": "digits"},
    {"function": "f3", "digits": 5}, {"function": "f4", "colour": "blue"}, {"function": "f4", "boot": 20},
    {"function": "f4", "scheme": "digits"}, {"function": "f5", "scheme": "expander"},
    {"function": "f6", "scheme": "expander"}, {"function": "f6", "lost": "on"}, {"function": "f7", "scheme": "matrix"},
    {"function": "f1", "scheme": "matrix"}, {"function": "f1", "scheme": "shift"}, {"function": "f1", "group": "Left"},
    {"function": "f1", "volts": 12, "amps": 2, "through": "relay", "driven": "controller", "seen": "divider"},
    {"function": "f1", "state": "dummy"},
)  # fmt: skip


def test_tables_are_alike_exactly_where_nothing_is_said_to_differ() -> None:
    start: list[dict[str, Any]] = [{"do": "add_controller", "id": "first", "board": "atmega2560"}]
    design = apply(plate(*((part, 30.0 + 30 * n, 40) for n, part in enumerate(PARTS))), BATCH.validate_python(start),
                   catalogue())  # fmt: skip
    changed = 0
    for raw in ({}, *EDITS):
        before = design
        if raw:
            design = apply(design, BATCH.validate_python([{"do": "edit_function", **raw}]), catalogue())
        design = design.model_copy(update={"pins": solve(Resolved(design), keep=True).pins})
        was, now = Resolved(before), Resolved(design)
        alike = differences(was, now, "first") == ()
        changed += not alike
        assert alike == (code_of(was, "first") == code_of(now, "first")), raw
        assert alike == (fingerprint(was, "first") == fingerprint(now, "first")), raw
    assert changed > 12


def test_another_kind_of_board_is_another_program_though_its_pins_are_called_the_same() -> None:
    def on(board: str) -> Resolved:
        asked: list[dict[str, Any]] = [{"do": "add_controller", "id": "it", "board": board},
                                       {"do": "pin", "line": "f1.press", "controller": "it", "pin": "4"}]  # fmt: skip
        return Resolved(apply(plate(("button-16", 30, 40)), BATCH.validate_python(asked), catalogue()))

    was, now = on("atmega328p"), on("esp32")
    assert [(d.name, d.was, d.now) for d in differences(was, now, "it")] == [
        ("the board", "ATmega328P, 10 bits", "ESP32, 12 bits")
    ]
    assert fingerprint(was, "it") != fingerprint(now, "it")
    assert differences(was, on("atmega328p"), "it") == () and fingerprint(was, "it") == fingerprint(
        on("atmega328p"), "it"
    )


def test_what_programs_do_not_do_is_said() -> None:
    asked: list[dict[str, Any]] = [
        {"do": "add_controller", "id": "first", "board": "atmega328p"},
        {"do": "add_controller", "id": "second", "board": "atmega328p"},
        {"do": "edit_function", "function": "f1", "tests_by_program": True},
        *({"do": "pin", "line": line, "controller": board, "pin": pin} for line, board, pin in (
            ("f1.press", "first", "2"), ("f2.lamp", "first", "3"), ("f3.lamp", "second", "3"),
            ("f4.data", "second", "A4"), ("f4.clock", "second", "A5"))),
    ]  # fmt: skip
    design = plate(("button-16", 30, 40), ("led-5-bezel", 60, 40), ("led-5-bezel", 90, 40), ("display-16x2", 140, 60))
    r = Resolved(apply(design, BATCH.validate_python(asked), catalogue()))
    said = {f.code: f for f in review(r) if f.code in ("wire.lamp-test-elsewhere", "wire.unprogrammed")}
    assert [(f.subjects, f.measured and f.measured.value) for f in said.values()] == [(("f1",), 1), (("f4",), 2)]


def test_the_edition_counts_on_when_the_code_beside_the_tables_changes() -> None:
    files = sorted(BLOCKS.iterdir(), key=lambda file: file.name)
    code = "".join(re.sub(r"//.*|\s", "", file.read_text("utf-8")) for file in files)
    now = EDITION, f"{zlib.crc32(code.encode()):08X}"
    assert now == (1, "295BED13"), "does a board now do something otherwise? Then count EDITION on, and note both here"


def test_boards_have_letters_past_the_twenty_sixth() -> None:
    asked = [{"do": "add_controller", "id": f"b{n}", "board": "atmega328p"} for n in range(28)]
    r = Resolved(apply(plate(), BATCH.validate_python(asked), catalogue()))
    assert [letter_of(r, f"b{n}") for n in (0, 25, 26, 27)] == ["A", "Z", "AA", "AB"]
    assert board_of_letter(r, greeting_of("board 1 AB of test-plate revision 1 lines 0000").letter) == "b27"


@pytest.mark.parametrize(("scheme", "parts"), [
    ("matrix", ("button-16",) * 6), ("shift", ("button-16", "led-5-bare")), ("expander", ("button-16", "led-5-bare")),
    ("digits", ("readout-8-digits", "readout-8-digits", "lamp-8-addressable", "lamp-8-addressable")),
])  # fmt: skip
def test_a_network_that_is_not_whole_on_one_board_is_served_by_none_and_that_is_said(
    scheme: str, parts: tuple[str, ...]
) -> None:
    asked: list[dict[str, Any]] = [
        {"do": "add_controller", "id": "one", "board": "atmega2560"},
        *({"do": "edit_function", "function": f"f{n}", "scheme": scheme} for n in range(1, len(parts) + 1)),
    ]
    design = apply(plate(*((part, 25.0 + 30 * n, 40) for n, part in enumerate(parts))), BATCH.validate_python(asked),
                   catalogue())  # fmt: skip
    design = design.model_copy(update={"pins": solve(Resolved(design)).pins})
    more: list[dict[str, Any]] = [{"do": "add_controller", "id": "two", "board": "atmega2560"}]
    design = apply(design, BATCH.validate_python(more), catalogue())
    whole = {line for c in channels(Resolved(design)).channels for line in c.lines}
    for moved in design.pins:
        others = tuple(p for p in design.pins if p is not moved)
        elsewhere = (*others, moved.model_copy(update={"controller": "two"}))
        left_out = {
            s.id for n in networks(Resolved(design)) if moved.line in {x.id for x in n.lines} for s in n.signals
        }
        for pins in (
            (others, elsewhere) if len(left_out) and not moved.line.endswith("pixels-plate.data") else (others,)
        ):
            r = Resolved(design.model_copy(update={"pins": pins}))
            for board in ("one", "two"):
                assert ", ," not in sketch(r, board, 1).files["tables.h"] and "{," not in code_of(r, board)
            served = {line.id for c in channels(r).channels for line in c.lines}
            said = {u.line.id for u in channels(r).unserved}
            assert served | said >= {line.id for line in whole}
            assert not served & left_out and left_out <= said
