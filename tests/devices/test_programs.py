"""The programs of boards, compiled and run on simulated chips."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import plate
from hung import Readout
from simulated import Panel, powered, reported
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.program.channels import READ, Channel, channels, programmed
from wingboard.core.wire.program.sketch import sketch
from wingboard.core.wire.program.tables import free_pins
from wingboard.core.wire.schemes.networks import networks
from wingboard.core.wire.signals import signals
from wingboard.devices.toolchain import compiled
from wingboard.services.programs import size_of

Demo = Callable[[str], Design]
Raw = dict[str, Any]
SEGMENTS = {"1": 0x30, "2": 0x6D, "5": 0x5B, "8": 0x7F, "-": 0x01, " ": 0x00}
"""Of the driver without its decoder: A to G from bit 6 down (data sheet of the MAX7219, table 6, from memory)."""


KINDS: dict[str, set[str]] = {
    "matrix": {"matrix"},
    "shift": {"shift-in", "shift-out"},
    "binary": set(),
    "digits": {"digits", "pixels"},
    "expander": {"expander"},
}


def with_board(design: Design, board: str, *commands: Raw) -> Resolved:
    batch = [{"do": "add_controller", "id": "it", "board": board}, *commands]
    made = apply(design, BATCH.validate_python(batch), catalogue())
    return Resolved(made.model_copy(update={"pins": solve(Resolved(made)).pins}))


@pytest.mark.parametrize("name", ["kestrel-line-9", "dust-extraction"])
def test_every_line_of_the_demo_is_read_or_driven_by_name(demo: Demo, name: str, tmp_path: Path) -> None:
    r = Resolved(demo(name))
    assert channels(r).unserved == ()
    proven: set[str] = set()
    table = (Path(__file__).parents[2] / "docs" / "proven.md").read_text("utf-8")
    for controller in programmed(r):
        before = len(proven)
        with powered(r, controller, tmp_path / controller) as panel:
            greeting = panel.tell("hello")
            assert len(greeting) == 1 and greeting[0].startswith("board 1 ")
            assert "revision 7" in greeting[0]
            for channel in panel.channels:
                prove(panel, channel)
                proven |= {line.id for line in channel.lines}
        there = sum(p.controller == controller for p in r.design.pins)
        board = next(c.name for c in r.design.controllers if c.id == controller)
        assert f"| {r.design.name} | {board} | {there} | {len(proven) - before} | 100 % |" in table
        assert len(proven) - before == there
    assert proven == {line.id for line in lines(r)}, "100 % of the lines"


def prove(panel: Panel, channel: Channel) -> None:
    """Moves what is read and sees it reported under its name alone; sets what is driven and sees it on its pin."""
    name = channel.name
    if channel.kind in ("pattern", "selector"):
        for n in range(len(channel.lines)):
            panel.tell("ping")
            panel.close(channel, n, True)
            said = panel.heard()
            value = n + 1 if channel.kind == "selector" else 1 << n
            assert said == [f"in {name} {value}"], (name, said)
            panel.close(channel, n, False)
            assert reported(panel.heard(0.3), name) == ["0"]
    elif channel.kind == "ladder":
        for way in range(len(channel.words), 0, -1):
            panel.chip.volts(panel.pin(channel), panel.full * (way - 1) / (len(channel.words) - 1))
            panel.heard(0.08)
            assert panel.tell(f"get {name}") == [f"is {name} {way}"]
    elif channel.kind == "binary":
        for way in range(len(channel.words), 0, -1):
            for bit in range(len(channel.lines)):
                panel.close(channel, bit, bool((way - 1) >> bit & 1))
            assert reported(panel.heard(0.06), name) == [str(way)]
    elif channel.kind == "turn":
        panel.turn(channel, 3, 0.02)
        panel.turn(channel, -2, 0.02)
        assert sum(int(step) for step in reported(panel.heard(), name)) == 1
        assert panel.tell(f"get {name}") == [f"is {name} 1"]
    elif channel.kind == "level":
        for share, reading in ((1, panel.most), (0.5, panel.most // 2), (0, 0)):
            panel.chip.volts(panel.pin(channel), share * panel.full)
            assert reported(panel.heard(), name)[-1] == str(reading)
    elif channel.kind == "needle":
        panel.tell("ping", wait=2.2)  # it went back to its stop
        for steps in (300, 120, 945):
            assert panel.tell(f"set {name} {steps}") == [f"is {name} {steps}"]
            for _ in range(3):
                panel.tell("ping", wait=0.7)
            assert panel.gauges[name].at == steps
        assert panel.tell(f"set {name} 946") == ["error value 946"]
    elif channel.kind == "text":
        assert panel.tell(f"set {name} -2.5") == [f"is {name} -2.5"]
        wide = channel.digits - 3
        assert panel.shows(channel) == [0] * wide + [SEGMENTS["-"], SEGMENTS["2"] | 0x80, SEGMENTS["5"]]
        assert panel.tell(f"set {name} {'8' * (channel.digits - channel.dark + 1)}")[0].startswith("error value")
        assert panel.tell("off") == ["is off"]
        assert panel.shows(channel) == [0] * channel.digits
    else:
        assert panel.brightness(channel) == 0
        values = (128, 255, 0) if channel.kind in ("dimmed", "colour") else (1, 0)
        for value in values:
            said = panel.tell(f"set {name} {value}")
            assert len(said) == 1 and said[0].split()[:3] == ["is", name, str(value)]
            assert panel.brightness(channel) == (255 * value if value == 1 else value)
            lit = [c.name for c in panel.channels if c.kind not in (*READ, "text", "needle") and panel.brightness(c)]
            assert lit == ([name] if value else [])


def test_contacts_bounce_encoders_run_and_ladders_are_off_by_five_percent(tmp_path: Path) -> None:
    design = plate(("button-16", 30, 40), ("encoder-push", 70, 40), ("rotary-12", 120, 60))
    for board in ("atmega328p", "atmega2560", "rp2040"):
        r = with_board(design, board, {"do": "edit_function", "function": "f3", "scheme": "ladder", "positions":
                       ["A", "B", "C", "D", "E", "F"]})  # fmt: skip
        with powered(r, "it", tmp_path / board) as panel:
            by_name = {c.name: c for c in panel.channels}
            panel.tell("hello")
            press = by_name["f1"]
            for closed in (True, False):
                for n in range(10):  # 5 ms of bouncing
                    panel.close(press, 0, closed == bool(n % 2))
                    panel.chip.run(0.0005)
                panel.close(press, 0, closed)
                assert reported(panel.heard(), "f1") == [str(int(closed))]
            panel.turn(by_name["f2.turn"], 200)  # at 200 detents a second
            panel.turn(by_name["f2.turn"], -50)
            panel.heard()
            assert panel.tell("get f2.turn") == ["is f2.turn 150"]
            ladder = by_name["f3"]
            count = len(ladder.words)
            for position in range(count, 0, -1):
                for off in (-0.05, 0.05):  # all resistors below a tap off one way, all above it the other
                    below, above = (position - 1) * (1 + off), (count - position) * (1 - off)
                    panel.chip.volts(panel.pin(ladder), panel.full * below / (below + above) if below + above else 0)
                    panel.heard(0.08)
                    assert panel.tell("get f3") == [f"is f3 {position}"]


SCHEMES = ("matrix", "shift", "binary", "digits", "expander")


def test_an_encoder_of_two_changes_a_detent_wants_one_figure_changed(tmp_path: Path) -> None:
    r = with_board(plate(("encoder-plain", 30, 40)), "atmega328p")
    with powered(r, "it", tmp_path, changed=("encoders.h", "CHANGES_A_DETENT = 4", "CHANGES_A_DETENT = 2")) as panel:
        panel.tell("hello")
        panel.turn(panel.channels[0], 30)
        panel.turn(panel.channels[0], -10)
        panel.heard()
        assert panel.tell("get f1") == ["is f1 40"]


@pytest.mark.parametrize("board", ["atmega2560", "rp2040"])
@pytest.mark.parametrize("scheme", SCHEMES)
def test_every_scheme_is_read_and_driven_by_the_same_names(scheme: str, board: str, tmp_path: Path) -> None:
    parts = ("toggle-small-on-off-on", "button-16-lit", "rotary-8", "encoder-plain", "led-5-bare", "button-22",
             "readout-8-digits", "readout-8-digits", "lamp-8-addressable", "readout-3-digits", "lamp-8-addressable",
             "sounder-12", "gauge-52")  # fmt: skip
    there = [p for p in parts if p in catalogue()]
    design = plate(*((part, 20.0 + 22 * n, 30 + 40 * (n % 2)) for n, part in enumerate(there)))
    asked = [{"do": "edit_function", "function": f.id, "scheme": scheme} for f in design.functions]
    r = with_board(design, board, *asked)
    assert {network.kind for network in networks(r)} == KINDS[scheme]
    if board == "atmega2560":
        assert channels(r).unserved == ()
    with powered(r, "it", tmp_path) as panel:
        panel.tell("hello")
        for channel in panel.channels:
            prove(panel, channel)
        served = {line.id for c in panel.channels for line in c.lines} | {u.line.id for u in channels(r).unserved}
        assert served >= {s.id for s in signals(r) if s.by != "binary"}


def test_a_load_never_moves_while_the_link_is_lost_and_a_garbled_line_does_nothing(tmp_path: Path) -> None:
    load = {"do": "edit_function", "function": "f1", "volts": 12, "amps": 1, "current": "DC", "through": "relay",
            "driven": "controller", "seen": "auxiliary"}  # fmt: skip
    supply = {"do": "add_supply", "id": "desk", "name": "Desk", "volts": 12, "amps": 10}
    r = with_board(plate(("toggle-large-on-off", 40, 40), ("led-5-bare", 90, 40)), "atmega328p", supply, load)
    with powered(r, "it", tmp_path) as panel:
        by_name = {c.name: c for c in panel.channels}
        assert set(by_name) == {"f1.on", "f1.load", "f1.is-on", "f2"}
        pin = panel.pin(by_name["f1.load"])
        panel.tell("set f2 255", "set f1.load 1")
        assert (panel.chip.drives(pin), panel.brightness(by_name["f2"])) == (True, 255)
        assert panel.tell("set f1.load 0 ~00", "set f1.load 2", "set f1.load", "set f9 1", "mend it") == [
            "error checksum", "error value 2", "error value", "error name f9", "error word mend",
        ]  # fmt: skip
        assert panel.chip.drives(pin) is True
        panel.heard(3.2)  # nothing is heard of the host
        assert (panel.chip.drives(pin), panel.brightness(by_name["f2"])) == (False, 255)
        panel.tell("ping")
        assert panel.chip.drives(pin) is False, "it stays off until a host sets it again"
        assert panel.tell("set f1.load 1") == ["is f1.load 1"]
        panel.tell("test on")
        panel.tell("set f1.load 0", "test off")
        panel.chip.hear(b"\xff\x00set f1.load 1\n" + b"set f1.load 1 " * 40 + b"\nset f1.lo")
        assert [line for line in panel.heard(0.2) if not line.startswith("error ")] == []
        panel.chip.reset()
        assert any(line.startswith("board 1 A of test-plate") for line in panel.heard(0.3))
        assert panel.tell("hello", "get f1.load")[1:] == ["is f1.load 0"]


def test_lamps_start_and_lose_their_link_as_the_design_says(tmp_path: Path) -> None:
    wanted = {"f1": ("hold", 0), "f2": ("off", 255), "f3": ("on", 0), "f4": ("blink", 0)}
    design = plate(*(("led-5-bare", 30.0 + 30 * n, 60.0) for n in range(4)))
    r = with_board(design, "atmega2560", *({"do": "edit_function", "function": f, "lost": lost, "boot": boot}
                                           for f, (lost, boot) in wanted.items()))  # fmt: skip
    with powered(r, "it", tmp_path) as panel:
        lamps = {c.name: c for c in panel.channels}

        def shown(name: str) -> set[int]:
            """In the course of a second."""
            found = set()
            for _ in range(20):
                panel.heard(0.05)
                found.add(panel.brightness(lamps[name]))
            return found

        assert [shown(name) for name in wanted] == [{0}, {0}, {255}, {0, 255}], "nobody was there yet"
        panel.tell("ping")
        assert [panel.brightness(lamps[name]) for name in wanted] == [0, 255, 0, 0]
        panel.tell(*(f"set {name} 200" for name in wanted))
        panel.heard(3.1)
        assert [shown(name) for name in wanted] == [{255}, {0}, {255}, {0, 255}]
        panel.tell("hello")
        assert [panel.brightness(lamps[name]) for name in wanted] == [255] * 4
        panel.tell("off", "test on")
        panel.heard(3.1)
        assert shown("f1") == {0}, "a lamp test ends with the link that asked for it"


def test_each_lamp_of_a_part_and_the_light_behind_is_declared_for_itself(tmp_path: Path) -> None:
    declared = [{"line": "cell-2", "boot": 255, "lost": "off"}, {"line": "cell-3", "lost": "on"}]
    asked: list[Raw] = [
        {"do": "edit_function", "function": "f1", "boot": 255, "lost": "hold", "declared": declared},
        {"do": "add_strip", "module": "plate", "id": "s", "kind": "chain-30", "x": 20, "y": 20, "x2": 180, "y2": 20},
        {"do": "set_light", "module": "plate", "boot": 80, "lost": "on"},
    ]
    r = with_board(plate(("caption-four", 80, 60)), "atmega2560", *asked)
    with powered(r, "it", tmp_path) as panel:
        by_name = {c.name: c for c in panel.channels}
        names = [*(f"f1.cell-{n}" for n in range(1, 5)), "plate.strips"]
        assert set(by_name) == set(names)
        assert [panel.brightness(by_name[name]) for name in names] == [255, 0, 255, 255, 255], "nobody was there yet"
        panel.tell("hello")
        assert [panel.brightness(by_name[name]) for name in names] == [255, 255, 0, 255, 80]


def test_addressable_lamps_take_their_colour_and_strips_behind_are_no_brighter_than_the_design(tmp_path: Path) -> None:
    light = [{"do": "set_light", "module": "plate", "level": 0.4, "dimmer": True}]
    light += [{"do": "add_strip", "module": "plate", "id": f"s{n}", "kind": kind, "x": 20, "y": 20 * n, "x2": 180,
               "y2": 20 * n} for n, kind in enumerate(("chain-30", "strip-60"), 1)]  # fmt: skip
    amber = {"do": "edit_function", "function": "f1", "colour": "amber", "boot": 40, "lost": "off"}
    design = plate(("lamp-8-addressable", 40, 60), ("lamp-8-addressable", 80, 60))
    chained = ({"do": "edit_function", "function": f, "scheme": "digits"} for f in ("f1", "f2"))
    r = with_board(design, "atmega328p", amber, *chained, *light)
    with powered(r, "it", tmp_path) as panel:
        by_name = {c.name: c for c in panel.channels}
        assert {name: c.kind for name, c in by_name.items()} == {
            "plate.strips": "colour", "plate.light": "dimmed", "f1": "colour", "f2": "colour",
        }  # fmt: skip
        panel.tell("hello")
        assert panel.tint(by_name["f1"]) == (40, 40 * 110 // 255, 0)
        assert panel.tell("set f1 255", "set f2 #0a0B0c", "set f2 #12345g", "set f2 #+12345") == [
            "is f1 255 #FF6E00", "is f2 255 #0A0B0C", "error value #12345g", "error value #+12345",
        ]  # fmt: skip
        assert (panel.tint(by_name["f1"]), panel.tint(by_name["f2"])) == ((255, 110, 0), (10, 11, 12))
        panel.tell("test on")
        assert panel.tint(by_name["f2"]) == (255, 255, 255), "in its own colour, not in what a host made of it"
        panel.tell("test off")
        assert panel.tint(by_name["f2"]) == (10, 11, 12)
        assert panel.tell("set f2 #000000", "set f2 255") == ["is f2 0 #0A0B0C", "is f2 255 #0A0B0C"]
        panel.tell("set plate.strips 255")
        assert panel.tint(by_name["plate.strips"]) == (102,) * 3
        panel.tell("set plate.light 255")
        assert panel.brightness(by_name["plate.light"]) == 102
        panel.heard(3.2)
        assert panel.tint(by_name["f1"]) == (0, 0, 0)


def test_an_expander_that_does_not_answer_is_said_and_told_again_what_it_is(tmp_path: Path) -> None:
    design = plate(("button-16", 30, 40), ("led-5-bezel", 70, 40))
    r = with_board(design, "atmega328p", *({"do": "edit_function", "function": f, "scheme": "expander"}
                                           for f in ("f1", "f2")))  # fmt: skip
    with powered(r, "it", tmp_path) as panel:
        panel.bus.off = {0x20}
        panel.heard(1)
        assert panel.tell("hello", wait=0.6)[1:] == ["fault expander 20"]
        panel.bus.there[0x20].fed()
        panel.bus.off = set()
        assert panel.heard(0.7) == ["mended expander 20"]
        by_name = {c.name: c for c in panel.channels}
        panel.tell("set f2 1")
        assert panel.brightness(by_name["f2"]) == 255
        panel.close(by_name["f1"], 0, True)
        assert panel.heard() == ["in f1 1"]
        panel.close(by_name["f1"], 0, False)
        assert panel.heard() == ["in f1 0"]
        panel.bus.there[0x20].fed()  # its supply fails for a moment: all terminals hang free
        assert panel.tell("ping", wait=0.7) == ["pong"]
        assert panel.brightness(by_name["f2"]) == 255
        assert panel.bus.there[0x20].registers[:2] == [0x7F, 0x7F], "what only drives is no input"


@pytest.mark.parametrize("scheme", ["direct", "matrix", "expander"])
def test_a_contact_lights_every_lamp_of_its_board_without_a_host_and_moves_no_load(scheme: str, tmp_path: Path) -> None:
    load = {"do": "edit_function", "function": "f3", "volts": 12, "amps": 1, "through": "relay", "driven": "controller"}
    tests = {"do": "edit_function", "function": "f1", "tests_by_program": True, "scheme": scheme}
    design = plate(("button-16", 30, 40), ("led-5-bare", 70, 40), ("toggle-large-on-off", 110, 40))
    r = with_board(
        design, "atmega328p", {"do": "add_supply", "id": "s", "name": "S", "volts": 12, "amps": 10}, load, tests
    )
    with powered(r, "it", tmp_path) as panel:
        by_name = {c.name: c for c in panel.channels}

        def seen() -> tuple[int, int]:
            panel.heard(0.1)
            return panel.brightness(by_name["f2"]), panel.brightness(by_name["f3.load"])

        assert seen() == (0, 0)
        panel.close(by_name["f1"], 0, True)
        assert seen() == (255, 0)
        panel.tell("set f2 0", "set f3.load 1")
        assert seen() == (255, 255), "a load does what a host says, test or not"
        panel.close(by_name["f1"], 0, False)
        assert seen() == (0, 255)


def test_discovery_watches_and_drives_free_pins_and_no_others(tmp_path: Path) -> None:
    r = with_board(plate(("button-16", 30, 40)), "atmega328p")
    mine = r.design.pins[0].pin
    with powered(r, "it", tmp_path) as panel:
        panel.tell("hello")
        free = next(pin for pin in ("4", "5") if pin != mine)
        assert panel.tell(f"drive {free} 1") == ["error discover"]
        there = panel.tell("discover on")
        assert there[-1] == "is discover on"
        assert f"pin {free} 1" in there and not any(line.startswith(f"pin {mine} ") for line in there)
        panel.chip.drive(free, False)
        assert panel.heard() == [f"pin {free} 0"]
        panel.chip.drive(free, None)
        assert panel.heard() == [f"pin {free} 1"]
        assert panel.tell(f"drive {free} 0", f"drive {mine} 0", "drive 99 1") == [
            f"is pin {free} 0", f"error pin {mine}", "error pin 99",
        ]  # fmt: skip
        assert (panel.chip.drives(free), panel.chip.drives(mine)) == (False, None)
        panel.tell(f"drive {free} -")
        assert panel.chip.pulls_up(free)
        panel.tell(f"drive {free} 1")
        panel.heard(3.2)
        assert panel.chip.drives(free) is None, "a lost link lets go of everything"


def test_a_moved_pin_changes_one_line_of_one_file(demo: Demo) -> None:
    design = demo("kestrel-line-9")
    moved = apply(design, BATCH.validate_python([{"do": "pin", "line": "f18.on", "controller": "atmega2560-1",
                                                  "pin": "A10", "found": False}]), catalogue())  # fmt: skip
    one, other = (sketch(Resolved(d), "atmega2560-1", 7).files for d in (design, moved))
    differing = {name: [pair for pair in zip(one[name].splitlines(), other[name].splitlines(), strict=True)
                        if pair[0] != pair[1]] for name in one}  # fmt: skip
    assert {name for name, pairs in differing.items() if pairs} == {"tables.h", "protocol.txt"}
    named = [line for line, _ in differing["tables.h"] if not line.endswith(": free")]
    assert [line.split("[]")[0].split("{")[0].strip() for line in named] == ["const char LINES", ""]
    assert "master-key" in named[1]


def test_the_drivers_of_the_tests_shift_as_their_data_sheet_says() -> None:
    chain = Readout(chained=2)
    for word in (0x0C01, 0x0100 | 0x6D):  # to the second, then to the first
        for bit in range(15, -1, -1):
            chain.changed("data", bool(word >> bit & 1))
            chain.changed("clock", True)
    chain.changed("load", True)
    assert (chain.registers[1][12], chain.registers[0][1]) == (1, 0x6D)


def test_the_protocol_s_page_says_what_a_board_does(demo: Demo, tmp_path: Path) -> None:
    text = (Path(__file__).parents[2] / "docs" / "protocol.md").read_text("utf-8")
    session = text.split("```protocol\n")[1].split("```")[0].splitlines()
    r = Resolved(demo("dust-extraction"))
    with powered(r, programmed(r)[0], tmp_path) as panel:
        by_name = {c.name: c for c in panel.channels}
        said: list[str] = []
        for line in session:
            mark, words = line[0], line[2:]
            if mark == "<":
                assert re.sub("lines ....", "lines ….", said.pop(0)) == re.sub("lines ....", "lines ….", words)
                continue
            assert said == [], line
            if mark == ">":
                said = panel.tell(words)
            else:
                panel.close(by_name[words.split()[0]], 0, words.endswith("closes"))
                said = panel.heard()
        assert said == []
    errors = {line.split("`")[1].split()[1] for line in text.splitlines() if line.startswith("| `error ")}
    files = sketch(r, programmed(r)[0], 1).files
    said_by_hosts = text.split("## What a host says")[1].split("\n## ")[0]
    assert set(re.findall(r"^\| `(\w+)", said_by_hosts, re.MULTILINE)) == set(
        re.findall(r'"(\w+)"', files["link.h"].split("WORDS[][9] PROGMEM = {")[1].split("}")[0])
    )
    blocks = files["link.h"] + files["discovery.h"]
    assert errors == set(re.findall(r'sayError\(F\("(\w+)"\)', blocks))


PARTS = ("toggle-small-on-off", "toggle-small-on-off-on", "button-16-lit", "rotary-8", "encoder-push", "led-5-bare",
         "readout-4-digits", "readout-3-digits", "thumbwheel-bcd", "key-on-off", "lamp-8-addressable", "potentiometer",
         "sounder-12")  # fmt: skip


@settings(max_examples=8, deadline=None)
@given(st.data())
def test_random_panels_over_every_scheme_are_read_and_driven(data: st.DataObject) -> None:
    known = [part for part in PARTS if part in catalogue()]
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=2, max_size=5))
    design = plate(*((part, 25.0 + 36 * n, 60.0) for n, part in enumerate(chosen)))
    ways = st.sampled_from(("direct", "ladder", "binary", "matrix", "shift", "expander", "digits"))
    asked: list[Raw] = [{"do": "edit_function", "function": f.id, "scheme": data.draw(ways)} for f in design.functions]
    r = with_board(design, data.draw(st.sampled_from(("atmega328p", "atmega2560", "esp32", "rp2040"))), *asked)
    bare = {u.line.id for u in channels(r).unserved if u.why == "it has no pin yet"}
    assert {u.line.id for u in channels(r).unserved} == bare
    with TemporaryDirectory() as made, powered(r, "it", Path(made)) as panel:
        panel.tell("hello")
        for channel in panel.channels:
            prove(panel, channel)


def test_three_hundred_contacts_are_read_and_what_does_not_fit_says_what_to_take_away(tmp_path: Path) -> None:
    design = plate(*(("button-16", 12.0 + 6 * (n % 20), 12 + 6 * (n // 20)) for n in range(300)))
    asked = [{"do": "edit_function", "function": f.id, "scheme": "shift"} for f in design.functions]
    r = with_board(design, "atmega2560", *asked)
    with powered(r, "it", tmp_path) as panel:
        panel.tell("hello")
        panel.close(panel.channels[299], 0, True)
        assert panel.heard(0.1) == ["in f300 1"]
        listed = panel.tell("get", wait=0.9)
        assert len(listed) == 301 and listed[-2:] == ["is f300 1", "end"]
    small = with_board(design, "atmega328p", *asked)
    size = size_of(small, sketch(small, "it", 1), "it")
    assert size.ram + 256 > size.ram_of == 2048
    over, less = re.fullmatch(r"(\d+) bytes of RAM too many .*; it fits with (\d+) of its 300 inputs on another board",
                              size.over).groups()  # type: ignore[union-attr]  # fmt: skip
    assert int(over) == size.ram + 256 - 2048
    left = plate(*(("button-16", 12.0 + 6 * (n % 20), 12 + 6 * (n // 20)) for n in range(300 - int(less))))
    fits = with_board(left, "atmega328p", *asked[: 300 - int(less)])
    assert size_of(fits, sketch(fits, "it", 1), "it").over == ""


def test_a_selector_between_two_ways_is_nowhere_only_when_it_stays_there(tmp_path: Path) -> None:
    with powered(with_board(plate(("rotary-8", 30, 40)), "atmega328p"), "it", tmp_path) as panel:
        panel.tell("hello")
        (channel,) = panel.channels
        panel.close(channel, 0, True)
        assert panel.heard() == ["in f1 1"]
        for n in range(1, 8):
            panel.close(channel, n - 1, False)
            assert panel.heard(0.1003) == []
            panel.close(channel, n, True)
            assert panel.heard() == [f"in f1 {n + 1}"]
        panel.close(channel, 7, False)
        assert panel.heard(0.3) == ["in f1 0"]


def test_a_board_that_no_simulator_talks_to_compiles_without_a_word(tmp_path: Path) -> None:
    parts = ("rotary-8", "encoder-plain", "led-5-bare", "readout-8-digits", "button-16", "button-16", "potentiometer")
    ways = ("ladder", "direct", "direct", "digits", "shift", "expander", "direct")
    design = plate(*((part, 20.0 + 26 * n, 40) for n, part in enumerate(parts)))
    asked = (
        {"do": "edit_function", "function": f.id, "scheme": way} for f, way in zip(design.functions, ways, strict=True)
    )
    r = with_board(design, "atmega32u4", *asked)
    assert channels(r).unserved == ()
    built = compiled(sketch(r, "it", 3).files, "ATmega32U4", tmp_path)
    assert (built.words, built.over) == ("", "")


def test_debugging_says_how_often_everything_is_looked_at_and_only_when_asked(demo: Demo, tmp_path: Path) -> None:
    r = Resolved(demo("kestrel-line-9"))
    with powered(r, "atmega2560-1", tmp_path) as panel:
        panel.tell("hello")
        assert panel.tell("ping", wait=1.1) == ["pong"]
        assert panel.tell("debug on", wait=1.2)[0] == "is debug on"
        (note,) = panel.heard(1)
        looks, longest, left = (int(figure) for figure in note.split()[2::2])
        assert note.startswith("note looks ") and looks > 650 and longest < 3000 and left > 4000
        assert panel.tell("debug off", wait=1.5) == ["is debug off"]


@pytest.mark.parametrize(("asked", "last"), [("get", "end"), ("discover on", "is discover on")])
def test_a_press_while_everything_is_listed_is_not_lost(demo: Demo, tmp_path: Path, asked: str, last: str) -> None:
    whole = asked == "get"
    r = Resolved(demo("kestrel-line-9")) if whole else with_board(plate(("button-16", 30, 40)), "atmega2560")
    with powered(r, "atmega2560-1" if whole else "it", tmp_path) as panel:
        panel.tell("hello")
        pressed = next(c for c in panel.channels if c.name in ("gong", "f1"))
        listed = panel.tell(asked, wait=0.02)
        panel.close(pressed, 0, True)
        listed += panel.heard(0.02)
        assert last not in listed, "it takes longer than that"
        panel.close(pressed, 0, False)
        listed += panel.heard(0.3)
        assert reported(listed, pressed.name) == ["1", "0"]
        assert [line.split()[1] for line in listed if line.startswith(("is ", "pin ")) and line != last] == (
            [c.name for c in sorted(panel.channels, key=lambda c: (c.kind not in READ, c.kind in ("turn", "level")))]
            if whole else [pin.name for pin in free_pins(r, "it")]
        )  # fmt: skip
        assert last in listed
