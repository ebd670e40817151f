"""Builders' lines and tables, taken apart: names, wishes, loads; and what is not understood, at its line."""

from __future__ import annotations

import pytest

from building import plate
from wingboard.core.brief.lines import read_line
from wingboard.core.brief.listing import COLUMNS, MOST_LINES, Listing, listing_rows, read_listing
from wingboard.core.brief.wanted import KINDS, duty_of, family_in, family_of
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.files.tables import write_csv
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Function

EMPTY = Design(name="Empty")
LINES = [
    ("gong push button", "gong", "push button", 0, 0),
    ("Horn button", "Horn", "button", 0, 0),
    ("Doors left open push button lit green", "Doors left open", "push button lit green", 0, 0),
    ("Saloon heat toggle 24 V 6 A", "Saloon heat", "toggle 24 V 6 A", 24, 6),
    ("Pump rocker 12V 3.5A", "Pump", "rocker 12V 3.5A", 12, 3.5),
    ("Fan toggle 230 V AC 500 mA", "Fan", "toggle 230 V AC 500 mA", 230, 0.5),
    ("Cab light toggle", "Cab light", "toggle", 0, 0),
    ("Lamp test push button", "Lamp test", "push button", 0, 0),
    ("Speed read-out 4 digits km/h", "Speed", "read-out 4 digits km/h", 0, 0),
    ("Wheel slip caption amber", "Wheel slip", "caption amber", 0, 0),
    ("Route selector rotary 7 ways", "Route selector", "rotary 7 ways", 0, 0),
    ("Emergency stop mushroom latching", "Emergency stop", "mushroom latching", 0, 0),
    ("Coupler guarded toggle", "Coupler", "guarded toggle", 0, 0),
    ("Legend dimmer", "Legend", "dimmer", 0, 0),
    ("Master key switch", "Master", "key switch", 0, 0),
    ("Oil pressure gauge 52 mm", "Oil pressure", "gauge 52 mm", 0, 0),
    ("Battery voltage three digits read-out", "Battery voltage", "three digits read-out", 0, 0),
    ("Cable exit gland", "Cable exit", "gland", 0, 0),
    ("Main feed 20 A breaker", "Main feed", "20 A breaker", 0, 20),
    ("Track brake", "Track brake", "", 0, 0),
    ("   spaces   everywhere   toggle ", "spaces everywhere", "toggle", 0, 0),
    ("Engine 1 toggle", "Engine 1", "toggle", 0, 0),  # a number without a unit tells two names apart
    ("Bus A toggle", "Bus A", "toggle", 0, 0),
    ("Engine two push button", "Engine two", "push button", 0, 0),
    ("Fan 12 V toggle", "Fan", "12 V toggle", 12, 0),
    ("Brake held lamp", "Brake held", "lamp", 0, 0),
    ("toggle switch Lights", "Lights", "toggle switch", 0, 0),  # the control first
    ("toggle switch dome lamp", "dome lamp", "toggle switch", 0, 0),
    ("red lamp 12 V Fault", "Fault", "red lamp 12 V", 12, 0),
    ("push button Lamp test", "Lamp test", "push button", 0, 0),
    ("push button for the horn", "horn", "push button", 0, 0),
    ("Lamp: fault", "fault", "Lamp", 0, 0),
    ("7-way rotary Route", "Route", "7-way rotary", 0, 0),
    ("Fuse 10 A Radio", "Radio", "Fuse 10 A", 0, 10),
    ("Joystick button", "Joystick", "button", 0, 0),  # a name that is a control
    ("push button lamp", "push button", "lamp", 0, 0),
    ("Blue light toggle", "Blue light", "toggle", 0, 0),
    ("Lamp test", "Lamp test", "", 0, 0),
    ("Fan speed", "Fan speed", "", 0, 0),
    ("red lamp 12 V", "red lamp 12 V", "", 12, 0),
    ("button", "button", "", 0, 0),
    ("red", "red", "", 0, 0),
]


@pytest.mark.parametrize(("text", "name", "want", "volts", "amps"), LINES, ids=[case[0].strip() for case in LINES])
def test_a_line_is_a_name_and_a_wish(text: str, name: str, want: str, volts: float, amps: float) -> None:
    line = read_line(text)
    assert (line.name, line.want) == (name, want)
    assert (line.switches.volts, line.switches.amps) == (volts, amps)


POSITIONS = [
    ("wipers toggle OFF, ON", "wipers", "toggle", ("OFF", "ON")),
    ("Pump toggle switch 12 V 3 A OFF/AUTO/ON", "Pump", "toggle switch 12 V 3 A", ("OFF", "AUTO", "ON")),
    ("Mode rotary: OFF / HALF AHEAD", "Mode", "rotary", ("OFF", "HALF AHEAD")),
    ("Range rotary 6, 12, 24", "Range", "rotary", ("6", "12", "24")),
    ("rotary OFF, LOW, HIGH Fan", "Fan", "rotary", ("OFF", "LOW", "HIGH")),
    ("toggle switch 12 V OFF/ON Deck lights", "Deck lights", "toggle switch 12 V", ("OFF", "ON")),
    ("Main toggle 12 V, 6 A", "Main", "toggle 12 V, 6 A", ()),  # figures with a unit are a load
    ("Fault lamp RED, GREEN", "Fault", "lamp RED, GREEN", ()),  # a lamp has no positions
    ("Speed 4 digit display", "Speed", "4 digit display", ()),
]


@pytest.mark.parametrize(("text", "name", "want", "words"), POSITIONS)
def test_the_words_of_positions_are_told_from_the_wish(text: str, name: str, want: str, words: tuple[str, ...]) -> None:
    line = read_line(text)
    assert (line.name, line.want, line.positions) == (name, want, words)
    if words:
        design = apply(EMPTY, (AddFunction(name=name, want=want),), catalogue())
        (row,) = read(f"name\twant\n{name}\t{want} {', '.join(words)}").rows
        assert (row.want, row.positions) == (want, words)
        (edit,) = read(f"name\twant\n{name}\t{want} {', '.join(words)}", design).edits
        assert edit.positions == words


@pytest.mark.parametrize(("family", "words"), KINDS, ids=[family for family, _ in KINDS])
def test_every_kind_has_words_and_a_part(family: str, words: str) -> None:
    first = words.split("|")[0].replace("?", "").replace("(:es)", "").replace("(:", "").replace(")", "")
    assert family_in(first) == family
    assert any(p.family == family for p in catalogue().values())


@pytest.mark.parametrize(
    ("name", "want", "family", "duty"),
    [
        ("Horn", "push button", "button", "control"),
        ("Wheel slip", "caption, amber", "caption", "indicator"),
        ("Speed", "read-out", "readout", "indicator"),
        ("Saloon heat breaker", "breaker 7.5 A", "breaker", "protection"),
        ("Cable exit", "gland connector", "connector", "opening"),
        ("Generator", "", None, "source"),
        ("Battery charger", "", None, "source"),
        ("Battery voltage", "gauge", "gauge", "indicator"),
        ("Track brake", "", None, "control"),
        ("Cab lamp", "", "lamp", "indicator"),
        ("Deck lights", "", None, "control"),
        ("Lamp test", "", None, "control"),
    ],
)
def test_kind_and_duty_follow_from_the_words(name: str, want: str, family: str | None, duty: str) -> None:
    function = Function(id="f1", name=name, want=want)
    assert family_of(function, name) == family
    assert duty_of(function) == duty
    assert duty_of(function.model_copy(update={"duty": "source"})) == "source"


def read(text: str, design: Design = EMPTY) -> Listing:
    """The listing of a text."""
    return read_listing(text, design)


def test_a_list_without_a_heading_is_name_wish_and_group() -> None:
    found = read("Horn\tpush button\tServices\nWiper\ttoggle\tServices\n")
    assert [(r.name, r.want, r.group) for r in found.rows] == [
        ("Horn", "push button", "Services"),
        ("Wiper", "toggle", "Services"),
    ]
    assert [r.id for r in found.rows] == ["f1", "f2"]
    assert found.columns == ("name", "want", "group")


@pytest.mark.parametrize("between", ["\t", ";", ","])
def test_a_heading_names_the_columns_in_any_order_and_by_other_names(between: str) -> None:
    rows = [
        ("What", "Section", "Control", "Amps", "V", "Words", "Risk", "Shows"),
        ("Saloon heat", "Services", "toggle", "6", "24", "ON / OFF", "guarded", ""),
        ("Heat lamp", "Services", "lamp", "", "", "", "", "Saloon heat"),
    ]
    found = read("\n".join(between.join(row) for row in rows))
    assert found.faults == ()
    first, second = found.rows
    assert (first.switches.volts, first.switches.amps, first.positions, first.risk) == (
        24,
        6,
        ("ON", "OFF"),
        "guarded",
    )
    assert second.of == first.id


def test_lines_of_words_are_read_one_by_one() -> None:
    found = read("gong push button\nWheel slip caption amber\n\nTrack brake\n")
    assert [(r.name, r.want) for r in found.rows] == [
        ("gong", "push button"),
        ("Wheel slip", "caption amber"),
        ("Track brake", ""),
    ]


HEAD = "name\tgroup\twant\tvolts\tamps\tpositions\tweight\tstate\tof\thand\tmoment"
FAULTS = [
    ("no name", "\tServices\ttoggle", "There is no name"),
    ("not a name", "???\tServices\ttoggle", "is not a name"),
    ("amps in words", "Heat\t\t\t\tmany", "amps “many” is not a number"),
    ("volts in words", "Heat\t\t\tlots\t", "volts “lots” is not a number"),
    ("an unknown risk", "Heat\t\t\t\t\t\theavy", "risk “heavy” is none of"),
    ("an unknown state", "Heat\t\t\t\t\t\t\tbroken", "state “broken” is none of"),
    ("an unknown hand", "Heat\t\t\t\t\t\t\t\t\tthird", "hand “third” is none of"),
    ("an unknown moment", "Heat\t\t\t\t\t\t\t\t\t\tnever", "moment “never” is none of"),
    ("belongs to nobody", "Heat\t\t\t\t\t\t\t\tGhost", "belongs to “Ghost”"),
    ("there already", "Horn\tServices\tbutton", "is on the list already"),
    ("too many cells", "Heat" + "\tx" * 14, "15 cells under 11 columns"),
    ("too long a name", "x" * 200, "at most 120"),
    ("too many positions", "Heat\t\t\t\t\t" + "/".join("ABCDEFGHIJKLMNOPQRSTUVWXYZ"), "at most 24"),
    ("amps beyond reason", "Heat\t\t\t\t9999", "less than or equal to 200"),
    ("a control character", "He\x07at", "pattern"),
]


@pytest.mark.parametrize(("line", "reason"), [f[1:] for f in FAULTS], ids=[f[0] for f in FAULTS])
def test_a_line_not_understood_is_shown_with_its_number_and_costs_no_other(line: str, reason: str) -> None:
    design = apply(EMPTY, (AddFunction(name="Track brake"),), catalogue())
    found = read(f"{HEAD}\nHorn\tServices\tbutton\n{line}\nBell\tServices\tbutton\n", design)
    assert [r.name for r in found.rows] == ["Horn", "Bell"]
    (fault,) = found.faults
    assert fault.line == 3
    assert reason in fault.reason


def test_the_same_name_twice_in_a_list_is_said() -> None:
    found = read("Horn\nBell\nhorn\n")
    assert [f.line for f in found.faults] == [3]


@pytest.mark.parametrize("text", ["", "  \n\t\n", "x\n" * (MOST_LINES + 2)])
def test_nothing_and_too_much_are_refused(text: str) -> None:
    with pytest.raises(NotPossible):
        read(text)


def test_what_is_exported_is_read_back_the_same() -> None:
    commands = (
        EditFunction.model_validate(
            {
                "function": "f1",
                "name": "=HEAT",
                "group": "Services",
                "want": "toggle",
                "positions": ["ON", "OFF"],
                "event": "heat",
                "volts": 24,
                "amps": 6.5,
                "current": "AC",
                "bus": "B",
                "indicator": "amber lamp",
                "risk": "guarded",
                "state": "pending",
                "hand": "left",
                "moment": "start",
            }
        ),
        EditFunction(function="f2", of="f1", duty="indicator"),
    )
    design = plate(("toggle-large-on-off", 40, 40), ("led-5-bezel", 90, 40), commands=commands)
    table = write_csv(COLUMNS, listing_rows(design)).decode()
    found = read(table)
    assert found.faults == ()
    again = apply(EMPTY, found.rows, catalogue())
    back = read(table, design)
    assert (back.rows, back.edits, back.same, back.faults) == ((), (), 2, ())
    changed = read(table.replace("6.5", "5").replace("led", "lamp"), design)
    assert [(e.function, e.amps) for e in changed.edits if e.amps] == [("f1", 5)]
    for old, new in zip(design.functions, again.functions, strict=True):
        kept = {"part", "place", "legend"}
        assert new.model_dump(exclude=kept) == old.model_dump(exclude=kept)
