"""What each line is, written down by hand: its kind, milliamperes, what it does at power-up, its common."""

from __future__ import annotations

from typing import Any

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.solve import solve

IN, OFF = "digital in, pull-up", "off, floats"
CASES: list[tuple[str, dict[str, Any], dict[str, tuple[str, float, str, str]]]] = [
    ("button-16", {}, {"f1.press": (IN, 0, "", "GND")}),
    ("encoder-plain", {}, {"f1.a": ("encoder pair", 0, "", "GND"), "f1.b": ("encoder pair", 0, "", "GND")}),
    ("potentiometer", {}, {"f1.wiper": ("analogue in", 0, "", "GND and 5 V")}),
    ("led-5-bezel", {}, {"f1.lamp": ("PWM", 10, OFF, "GND")}),
    ("led-5-bezel", {"volts": 12}, {"f1.lamp": ("PWM", 5, OFF, "12 V")}),  # 5 mA into a base
    (
        "rotary-12",
        {"scheme": "ladder", "positions": ["A", "B", "C"]},
        {"f1.way-ladder": ("ladder", 0, "", "GND and its board's volts")},
    ),
    ("rotary-12", {"scheme": "binary", "positions": ["A", "B", "C"]}, {"f1.way-bit-1": (IN, 0, "", "GND")}),
    ("display-16x2", {}, {"f1.data": ("I²C SDA", 0, "", ""), "f1.clock": ("I²C SCL", 0, "", "")}),
    (
        "button-16",
        {"scheme": "matrix"},
        {"f1.press": ("in the matrix", 0, "", "row 1"), "~matrix-plate.row-1": ("matrix", 0, "floats", "")},
    ),
    (
        "led-5-bezel",
        {"scheme": "shift"},
        {
            "f1.lamp": ("74HC595 output", 10, "anything until it is first written", "GND"),
            "~shift-out-plate.clock": ("shift chain", 0, "floats", ""),
        },
    ),
    ("button-16", {"scheme": "expander"}, {"~expander-plate.sda": ("I²C SDA", 0, "", "")}),
    (
        "toggle-large-on-off",
        {"volts": 24, "amps": 1, "through": "relay", "driven": "controller", "seen": "divider"},
        {
            "f1.on": (IN, 0, "", "GND"),
            "f1.on-drive": ("digital out", 5, "held off", "GND"),
            "f1.on-seen": ("digital in, divider", 0, "", "GND"),
        },
    ),
]


@pytest.mark.parametrize(("part", "said", "wanted"), CASES)
def test_each_line_is_what_it_is_by_hand(part: str, said: dict[str, Any], wanted: dict[str, Any]) -> None:
    raws = [
        {"do": "edit_function", "function": "f1", **said},
        {"do": "add_controller", "id": "it", "board": "atmega2560"},
    ]
    design = apply(plate((part, 60, 60)), BATCH.validate_python(raws), catalogue())
    r = Resolved(design.model_copy(update={"pins": solve(Resolved(design)).pins}))
    rows = {row.line: (row.kind, pytest.approx(row.milliamps), row.boot, row.common) for row in pin_list(r)}
    assert {ident: rows[ident] for ident in wanted} == wanted
    assert {line.id for line in lines(r)} <= set(rows)
    assert all(kind for kind, *_ in rows.values())


def test_what_a_pin_does_at_power_up_is_its_boards() -> None:
    for board, pin, words in (
        ("atmega328p", "13", "flashes at reset"),
        ("esp32", "2", "read at power-up; off, floats"),
        ("atmega328p", "5", OFF),
    ):
        raws = [{"do": "add_controller", "id": "it", "board": board},
                {"do": "pin", "line": "f1.lamp", "controller": "it", "pin": pin}]  # fmt: skip
        (row,) = pin_list(Resolved(apply(plate(("led-5-bezel", 60, 60)), BATCH.validate_python(raws), catalogue())))
        assert row.boot == words
