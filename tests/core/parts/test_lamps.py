"""Colours of lamps: from the words to the lens, the resistor and the shopping list."""

from __future__ import annotations

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.light.indicators import lamps_of
from wingboard.core.light.resistor import series_resistor
from wingboard.core.overview.shopping import shopping_list
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.counting import SHOPPING, counts, shopping_rows
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Function
from wingboard.core.record.lamps import COLOURS, LENSES, coloured, named_colour, takes_colours, wanted_colour
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pinlist import pin_list

LED = "led-5-bezel"
TWO = plate((LED, 50, 60), (LED, 100, 60))


def said(design: Design, **changes: str) -> Resolved:
    """What follows when the first lamp is said to be something."""
    return Resolved(apply(design, (EditFunction.model_validate({"function": "f1", **changes}),), catalogue()))


@pytest.mark.parametrize(
    "how", [{"want": "blue lamp 12 V"}, {"colour": "blue"}, {"want": "red lamp", "colour": "blue"}]
)
def test_a_colour_reaches_lens_resistor_and_shopping_list(how: dict[str, str]) -> None:
    r = said(TWO, **how)
    first, second = r.placed
    assert (first.part.colour, second.part.colour) == ("blue", "green")
    assert [f.fill for f in first.part.front if f.lamp] == [LENSES["blue"].fill]
    by_function = {line.function: line.drop for line in lines(r)}
    assert by_function == {"f1": 3.1, "f2": 2.1}
    # By hand: (5 - 3.1) / 0.01 = 190 and (5 - 2.1) / 0.01 = 290 ohms, the next E24 values 200 and 300.
    assert [series_resistor(5.0, drop, 0.01) for drop in by_function.values()] == [200, 300]
    assert [(c.part.colour, c.used) for c in counts(r)] == [("blue", 1), ("green", 1)]
    assert ["blue" in row[1] for row in shopping_rows(r)] == [True, False]


def test_lamps_in_series_stay_as_many_and_two_colours_stay_what_they_are() -> None:
    caption = coloured(catalogue()["caption-two-lamp"], "white")
    assert caption.lines[0].drop == pytest.approx(2 * 3.1)
    assert not takes_colours(catalogue()["led-5-bezel-two-colour"])
    assert said(plate(("led-5-bezel-two-colour", 50, 60)), want="blue lamp").placed[0].part.colour == "red and green"


def test_every_single_coloured_lamp_of_the_catalogue_can_be_had_in_every_colour() -> None:
    for part in (p for p in catalogue().values() if takes_colours(p)):
        for colour in COLOURS:
            made = coloured(part, colour)
            assert made.colour == colour
            assert {f.fill for f in made.front if f.lamp} <= {LENSES[colour].fill, *(f.fill for f in part.front)}
            assert coloured(made, part.colour).lines == part.lines or part.colour == colour  # type: ignore[arg-type]


def test_the_shopping_list_has_screws_resistors_boards_and_sheets() -> None:
    ladder = {"do": "edit_function", "function": "f3", "scheme": "ladder", "positions": ["A", "B", "C"]}
    start = plate((LED, 50, 60), (LED, 90, 60), ("rotary-12", 150, 60))
    design = apply(start, BATCH.validate_python([ladder, {"do": "add_controller", "board": "atmega328p"}]), catalogue())
    rows = {row[0]: dict(zip(SHOPPING, row, strict=True)) for row in shopping_list(Resolved(design))}
    # Two lamps of 2.1 V and 10 mA on 5 V: 300 ohms each, and one spare; three positions of a ladder: two resistors.
    assert (rows["Resistor 300 Ω"]["in use"], rows["Resistor 300 Ω"]["to buy"]) == ("2", "3")
    assert rows["Resistor 1000 Ω"]["in use"] == "2"
    assert rows["Board with ATmega328P"]["to buy"] == "1"
    corners = len(Resolved(design).modules["plate"].fixings)
    assert rows["Bolt M3 × 12"]["in use"] == str(corners) == "4"
    assert any(name.startswith("Sheet of ") for name in rows)


def test_the_shopping_list_has_what_lights_it_what_it_stands_in_and_on() -> None:
    more = [
        {"do": "add_strip", "module": "plate", "x": 10, "y": 10, "x2": 188, "y2": 10},
        {"do": "add_leds", "module": "plate", "at": [{"x": 20, "y": 100}, {"x": 30, "y": 100}, {"x": 40, "y": 100}]},
        {"do": "set_case", "module": "plate"},
        {"do": "set_frame"},
    ]
    design = apply(plate((LED, 50, 60)), BATCH.validate_python(more), catalogue())
    rows = {row[0]: dict(zip(SHOPPING, row, strict=True)) for row in shopping_list(Resolved(design))}
    # 178 mm are three groups of 50; three LEDs in a row on 12 V want 150 ohms.
    assert rows["Strip, 12 V, 60 a metre"]["to buy"] == "1"
    assert rows["Flat LED on a carrier"]["in use"] == "3"
    assert rows["Resistor 150 Ω"]["in use"] == "1"
    assert any(name.startswith("Plywood, 6 mm, for cases") for name in rows)
    assert any(name.startswith("Batten 30 × 20 mm") for name in rows)


def test_words_name_one_colour_or_none() -> None:
    assert named_colour("Red lamp, 12 V") == "red"
    assert named_colour("red and green lamp") is None
    assert named_colour("redundant lamp") is None
    assert wanted_colour(Function(id="f", name="F", want="button", indicator="amber lamp")) == "amber"


def test_bulbs_and_lamps_with_their_own_resistor_need_none_and_an_led_takes_a_bulbs_place() -> None:
    mine = [
        {"do": "copy_part", "part": "pilot-16", "id": "old", "name": "Old lamp"},
        {"do": "edit_part", "part": "old", "lamp": "bulb", "lamp_volts": 28, "lamp_amps": 0.04},
        {"do": "choose_part", "function": "f1", "part": "old"},
    ]
    start = plate((LED, 50, 60), ("led-5-prewired", 100, 60), ("caption-single", 150, 60))
    design = apply(start, BATCH.validate_python(mine), catalogue())
    place = {"do": "place", "function": "f1", "module": "plate", "x": 50, "y": 60}
    design = apply(design, BATCH.validate_python([place]), catalogue())
    bulb, wired, caption = lamps_of(Resolved(design))
    assert (bulb.supply, bulb.ohms, bulb.bulb, bulb.said) == (28, None, True, "bulb of 28 V, 1.1 W, no resistor")
    assert (wired.supply, wired.ohms, wired.bulb, wired.said) == (12, None, False, "made for 12 V, no resistor")
    assert caption.ohms == 300
    notes = {row.owner: row.note for row in pin_list(Resolved(design))}
    assert notes["f1"].startswith("made for 28 V, through a transistor")
    assert notes["f2"].startswith("made for 12 V, through a transistor")
    rows = [row for row in shopping_list(Resolved(design)) if row[0].startswith("Resistor")]
    assert [row[:3] for row in rows] == [
        ("Resistor 300 Ω", "in series with lamps, E24, 0.25 W", "1"),
        ("Resistor 910 Ω", "at bases, pull-ups of chips", "2"),  # (5 - 0.7) V / 5 mA = 860 ohms, the next up
    ]
    led = EditFunction(function="f1", led=True, volts=28)
    swapped = Resolved(apply(design, (led,), catalogue()))
    # By hand: (28 - 2.0) / 0.01 = 2600 ohms, the next E24 value 2700; 26² / 2700 = 0.25 W, rated at twice that.
    assert (lamps_of(swapped)[0].ohms, lamps_of(swapped)[0].buy) == (2700, 1.0)
    rows = [row for row in shopping_list(swapped) if row[0].startswith("Resistor 2700")]
    assert rows[0][1] == "in series with lamps, E24, 1 W"
    with pytest.raises(NotPossible, match="has no lamp"):
        copied = [
            {"do": "copy_part", "part": "rotary-12", "id": "dark", "name": "Dark"},
            {"do": "edit_part", "part": "dark", "lamp": "bulb"},
        ]
        apply(design, BATCH.validate_python(copied), catalogue())
