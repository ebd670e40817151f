"""What read-outs show on the drawing: a value of their own kind in just the digits they have, or what was typed."""

from __future__ import annotations

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.examples import BLANK, KINDS, example


@pytest.mark.parametrize(
    ("part", "name", "want", "digits", "typed", "shown"),
    [
        ("readout-4-digits", "Cab clock", "read-out", None, "", "12:34"),
        ("readout-4-digits", "Speed", "read-out, 4 digits, km/h", None, "", BLANK * 2 + "42"),
        ("readout-4-digits", "Battery", "read-out, V", None, "", BLANK + "24.6"),
        ("readout-4-digits", "Battery", "read-out, V", 2, "", BLANK * 2 + "24"),
        ("readout-4-digits", "Line", "read-out, 4 digits, A", None, "", BLANK * 2 + "3.2"),
        ("readout-4-digits", "Engine", "read-out, rpm", 3, "", BLANK + "888"),  # 1850 does not fit
        ("readout-4-digits", "Mystery", "read-out", None, "", "8888"),
        ("readout-4-digits", "Mystery", "read-out", None, "19.5", BLANK + "19.5"),
        ("readout-3-digits", "Clock", "read-out", None, "7:05", "7:05"),
        ("display-16x2", "Radio text", "display", None, "", "RADIO TEXT"),
        ("display-16x2", "Radio text", "display", None, "ON AIR", "ON AIR"),
        ("button-22", "Speed", "button", None, "", None),
    ],
)
def test_a_read_out_shows_its_own_kind(
    part: str, name: str, want: str, digits: int | None, typed: str, shown: str | None
) -> None:
    change = EditFunction(function="f1", name=name, want=want, digits=digits, example=typed)
    design = apply(plate((part, 70, 60)), (change,), catalogue())
    assert example(design.functions[0], design.parts[0]) == shown


def test_every_kind_fits_four_digits() -> None:
    assert all(sum(letter.isdigit() for letter in value) <= 4 for _, value in KINDS)
