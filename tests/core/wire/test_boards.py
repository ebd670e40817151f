"""Boards: every pin in its place, what it bears and cannot do; boards of one's own; volts that differ."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.light.indicators import lamps_of
from wingboard.core.overview.shopping import shopping_list
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import boards
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError, UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.drawn import from_usb
from wingboard.core.wire.netlist import Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.own_boards import pins_from
from wingboard.core.wire.pinfiles import named_pins
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.schemes.choosing import take_up
from wingboard.core.wire.schemes.coder import numbers
from wingboard.core.wire.schemes.drawn import drawn_selectors


def on(board: str, parts: list[str], *more: dict[str, Any], many: int = 1) -> Design:
    """Parts on boards of a kind, pins given by the solver."""
    start = plate(*((part, 10.0 + 1.5 * n, 60.0) for n, part in enumerate(parts)))
    commands = [*more, *({"do": "add_controller", "id": f"it-{n}", "board": board} for n in range(1, many + 1))]
    design = apply(start, BATCH.validate_python(commands), catalogue())
    return given(design)


def given(design: Design) -> Design:
    pins = [p.model_dump() for p in solve(Resolved(design)).pins]
    return apply(design, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue())


@pytest.mark.parametrize("kind", sorted(boards()))
def test_every_pin_lies_in_one_place_of_its_board(kind: str) -> None:
    board = boards()[kind]  # type: ignore[index]
    pads = [pad for side in board.sides.values() for pad in side]
    assert all(pads.count(pin.name) == 1 for pin in board.pins)
    assert {terminal for terminal in board.rails if terminal in pads} == set(board.rails)
    assert len({pin.number for pin in board.pins}) == len(board.pins)
    assert len({pin.bus for pin in board.pins if pin.bus}) == sum(pin.bus is not None for pin in board.pins)


def test_what_the_esp32_and_the_rp2040_cannot_do_is_known() -> None:
    # Common practice: 34 to 39 only read and have no pull-ups, 0, 2, 5, 12, 15 are straps, 6 to 11 are the flash's.
    esp = {p.name: p for p in boards()["esp32"].pins}
    assert {n for n, p in esp.items() if not p.drives} == {n for n, p in esp.items() if not p.pull_up}
    assert {n for n, p in esp.items() if not p.drives} == {"34", "35", "36", "39"}
    assert {n for n, p in esp.items() if p.strap} == {"0", "2", "5", "12", "15"}
    assert not {str(n) for n in range(6, 12)} & set(esp)
    assert {n for n, p in esp.items() if p.radio} == {"0", "2", "4", "12", "13", "14", "15", "25", "26", "27"}
    pico = boards()["rp2040"].pins
    assert [p.name for p in pico] == [f"GP{n}" for n in (*range(23), 26, 27, 28)]
    assert [p.name for p in pico if p.analogue] == ["GP26", "GP27", "GP28"]


def test_a_board_of_3_3_volts_has_other_resistors_and_its_converter_its_own_rail() -> None:
    design = on("rp2040", ["led-5-bezel", "potentiometer", "toggle-large-on-off"])
    nets = net_list(Resolved(design))
    # (3.3 - 2.1) V / 10 mA = 120 ohms, on E24 as it is; on 5 V it would be 300.
    assert [d.value for d in nets.devices.values() if d.kind == "resistor"] == [120]
    high = nets.by_port[Port(board_id("it-1"), "3V3")]
    assert any(port.device == "f2" for port in high.ports)
    assert Port(board_id("it-1"), "VBUS") not in nets.by_port


def test_straps_and_pins_without_pull_ups_come_last_and_are_wired_right() -> None:
    full = on("esp32", ["button-16"] * 17)
    used = {p.pin for p in full.pins}
    assert used.isdisjoint({"0", "2", "5", "12", "15"})
    assert found(full, "wire.strap-pin") == []
    by_hand = {"do": "pin", "line": "f1.press", "controller": "it-1"}
    reads = on("esp32", ["button-16", "potentiometer"])
    bare = apply(reads, BATCH.validate_python([{**by_hand, "pin": "34"}]), catalogue())
    nets = net_list(Resolved(bare))
    (pull,) = (d for d in nets.devices.values() if d.kind == "resistor")
    assert pull.value == 10_000
    assert nets.by_port[Port(pull.id, "1")] == nets.by_port[Port(board_id("it-1"), "3V3")]
    assert nets.by_port[Port(pull.id, "2")] == nets.by_port[Port(board_id("it-1"), "34")]
    strap = apply(reads, BATCH.validate_python([{**by_hand, "pin": "12"}]), catalogue())
    (finding,) = found(strap, "wire.strap-pin")
    assert found(settled(strap, finding), "wire.strap-pin") == []
    turned = {"do": "pin", "line": "f2.wiper", "controller": "it-1", "pin": "25"}
    radio = apply(reads, BATCH.validate_python([turned]), catalogue())
    assert len(found(radio, "wire.radio-pin")) == 1 and found(reads, "wire.radio-pin") == []
    lamp = on("esp32", ["led-5-bezel"], {"do": "add_controller", "id": "x", "board": "esp32"})
    wrong = {"do": "pin", "line": "f1.lamp", "controller": "x", "pin": "35"}
    (cannot,) = found(apply(lamp, BATCH.validate_python([wrong]), catalogue()), "wire.pin-incapable")
    assert "an input only" in cannot.detail


def test_parts_of_5_volts_on_pins_of_3_3_are_said() -> None:
    shown = on("rp2040", ["display-16x2"])
    (finding,) = found(shown, "wire.levels")
    assert (finding.severity, finding.measured and finding.measured.value) == ("must", 5)  # SDA gives its volts back
    assert found(on("atmega2560", ["display-16x2"]), "wire.levels") == []


def test_a_card_takes_input_coders_and_drives_nothing() -> None:
    coded = {"do": "edit_function", "function": "f1", "scheme": "coder"}
    card = on("hid-32", ["rotary-12", "button-16", "led-5-bezel"], {"do": "add_controller", "board": "hid-32"}, coded)
    assert {p.line: p.pin[0] for p in card.pins} == {"f1.way-coder": "K", "f2.press": "1"}
    assert "f3.lamp" not in {p.line for p in card.pins}
    nets = net_list(Resolved(card))
    coder = next(d for d in nets.devices.values() if d.kind == "chip")
    assert [nets.by_port[Port("f1", str(n))] == nets.by_port[Port(coder.id, str(n))] for n in range(1, 13)] == [
        True
    ] * 12
    (misfit,) = found(on("atmega328p", ["rotary-12"], coded), "wire.scheme-misfit")
    assert "a HID card does" in misfit.detail


def test_two_large_boards_have_104_plain_pins_and_the_105th_is_explained() -> None:
    design = on("atmega2560", ["button-16"] * 105, many=2)
    assert len(design.pins) == 105
    odd = [row for row in pin_list(Resolved(design)) if "used as a digital one" in row.note]
    assert len(odd) == 1 and odd[0].pin.startswith("A")
    assert sum(p.pin.isdigit() for p in design.pins) == 104


def test_a_board_of_ones_own_is_typed_and_used() -> None:
    pins, wrong = pins_from("P1-P3 io up int\nX0..X1 analogue  # the corner\n\nIN1 input\nP2 io\nQ fly\n-")
    assert [(p.name, p.roles) for p in pins] == [
        *((f"P{n}", ("io", "up", "int")) for n in (1, 2, 3)),
        *((f"X{n}", ("adc", "io")) for n in (0, 1)),
        ("IN1", ("in",)),
    ]
    assert [(w.line, w.why.split(" ")[0]) for w in wrong] == [(5, "pin"), (6, "“fly”"), (7, "“-”")]
    own = {"do": "set_board", "board": {"id": "mine", "name": "Mine", "volts": 3.3,
           "pins": [p.model_dump() for p in pins]}}  # fmt: skip
    design = on("mine", ["potentiometer", "button-16", "button-16"], own)
    assert {p.line: p.pin[0] for p in design.pins}["f1.wiper"] == "X"
    assert Design.model_validate_json(design.model_dump_json()) == design
    gone = apply(design, BATCH.validate_python([{"do": "remove_board", "board": "mine"}]), catalogue())
    assert not (gone.boards or gone.controllers or gone.pins)
    for bad in ({"id": "esp32", "name": "Mine", "pins": [{"name": "1", "roles": ["io"]}]},
                {"id": "mine", "name": "Mine", "pins": [{"name": "1", "roles": ["io"]}] * 2}):  # fmt: skip
        with pytest.raises(DesignError):
            apply(design, BATCH.validate_python([{"do": "set_board", "board": bad}]), catalogue())


def test_light_wire_and_the_shopping_list_name_the_same_resistors() -> None:
    lamp, chain = ["led-5-bezel"], {"do": "edit_function", "function": "f1", "scheme": "shift"}
    for board, ohms in (("atmega2560", 300), ("rp2040", 120)):  # (volts - 2.1) / 10 mA on E24
        other = {"do": "add_controller", "id": "first", "board": "atmega2560"}
        for more in ((), (chain,)):
            first = on(board, lamp, *more)
            moved = [{**p.model_dump(), "controller": "it-1"} for p in first.pins]
            both = apply(first, BATCH.validate_python([other, {"do": "set_pins", "pins": moved}]), catalogue())
            r = Resolved(both.model_copy(update={"controllers": both.controllers[::-1]}))
            assert [use.ohms for use in lamps_of(r)] == [ohms]
            assert [d.value for d in net_list(r).devices.values() if d.name == "in series with F1"] == [ohms]
            assert any(row[0] == f"Resistor {ohms} Ω" for row in shopping_list(r))


def test_what_plugs_onto_a_board_has_it_for_itself() -> None:
    start = apply(
        plate(("display-graphic-shield", 60, 60), ("button-16", 150, 60), ("led-5-bezel", 170, 60)),
        BATCH.validate_python([{"do": "add_controller", "id": "one", "board": "atmega328p"}]),
        catalogue(),
    )
    (wanted,) = found(start, "wire.board-wanted")
    design = settled(start, wanted)
    assert not found(design, "wire.board-wanted")
    mine = next(c for c in design.controllers if c.reserved == "f1")
    solved = solve(Resolved(design))
    assert not solved.unfit and {p.controller for p in solved.pins} == {"one"}  # none is given a pin under it
    design = design.model_copy(update={"pins": solved.pins})
    row = next(row for row in pin_list(Resolved(design)) if row.line == "f1.board")
    assert (row.board, row.pin, row.kind) == (mine.name, "all", "a board of its own")
    assert not any(n.controller == mine.id for n in named_pins(Resolved(design)))
    assert from_usb(Resolved(design), mine.id).fed == pytest.approx(0.12)
    assert not any("f1" in {p.device for p in net.ports} for net in net_list(Resolved(design)).nets)
    # A board with pins given already: those of the solver are given up, those by hand are said.
    by_hand = {"do": "pin", "line": "f2.press", "controller": "one", "pin": "4"}
    taken = apply(design, BATCH.validate_python([by_hand, {"do": "edit_controller", "controller": "one",
                                                           "reserved": "f1"}]), catalogue())  # fmt: skip
    assert [p.line for p in taken.pins] == ["f2.press"]
    (said,) = found(taken, "wire.board-taken")
    assert not found(settled(taken, said), "wire.board-taken")
    gone = apply(taken, BATCH.validate_python([{"do": "remove_function", "function": "f1"}]), catalogue())
    assert all(c.reserved is None for c in gone.controllers)
    with pytest.raises(UnknownThing):
        apply(start, BATCH.validate_python([{"do": "edit_controller", "controller": "one", "reserved": "nobody"}]),
              catalogue())  # fmt: skip


def test_a_card_numbers_its_inputs_and_every_way_of_a_coder() -> None:
    """32 plain inputs, then eight ports of twelve: 128 numbers (common practice)."""
    card = boards()["hid-32"]
    every = [n for pin in card.pins for n in numbers(card, pin.name)]
    assert sorted(every) == list(range(1, 129))
    assert list(numbers(card, "17")) == [17] and numbers(card, "K2") == range(45, 57)
    assert not numbers(boards()["atmega2560"], "17")
    design = apply(
        plate(("rotary-12", 60, 60), ("button-16", 150, 60)),
        BATCH.validate_python([
            {"do": "add_controller", "id": "card", "board": "hid-32"},
            {"do": "edit_function", "function": "f1", "scheme": "coder", "positions": ["A", "B", "C"]},
            {"do": "pin", "line": "f1.way-coder", "controller": "card", "pin": "K2"},
            {"do": "pin", "line": "f2.press", "controller": "card", "pin": "17"},
        ]),
        catalogue(),
    )  # fmt: skip
    (selector,) = drawn_selectors(Resolved(design))
    assert (selector.words, selector.numbers) == (("A", "B", "C"), (45, 46, 47))
    notes = {row.line: row.note for row in pin_list(Resolved(design))}
    assert "numbers 45 to 56 to the computer, way 1 is 45" in notes["f1.way-coder"]
    assert "number 17 to the computer" in notes["f2.press"]


def test_addressable_lamps_hang_one_behind_the_other_on_one_pin() -> None:
    start = plate(*(("lamp-8-addressable", 20.0 + 40 * n, 60.0) for n in range(4)), ("readout-8-digits", 100, 100))
    raws: list[dict[str, Any]] = [{"do": "edit_function", "function": f"f{n}", "scheme": "digits"} for n in range(1, 6)]
    raws.append({"do": "add_controller", "id": "it", "board": "atmega2560"})
    one = apply(start, BATCH.validate_python(raws), catalogue())
    solved = solve(Resolved(one))
    design = one.model_copy(update={"pins": solved.pins})
    assert not solved.unfit
    by = {p.line: p.pin for p in solved.pins}
    assert set(by) == {"~pixels-plate.data", *(f"~digits-plate.{end}" for end in ("data", "clock", "load"))}
    nets = net_list(Resolved(design))
    first = nets.by_port[Port("f1", "DIN")]
    assert set(first.ports) == {Port("f1", "DIN"), Port(board_id("it"), by["~pixels-plate.data"])}
    for before, after in (("f1", "f2"), ("f2", "f3"), ("f3", "f4")):
        assert set(nets.by_port[Port(before, "DOUT")].ports) == {Port(before, "DOUT"), Port(after, "DIN")}
    assert Port("f4", "DOUT") not in nets.by_port  # the last hands nothing on
    rows = {row.line: row for row in pin_list(Resolved(design))}
    assert rows["~pixels-plate.data"].kind == "addressable chain"
    assert [rows[f"f{n}.data"].pin for n in range(1, 5)] == [f"{n}, DIN" for n in range(1, 5)]
    assert rows["f1.data"].boot == "dark until it is first written"
    alone = solve(Resolved(apply(start, BATCH.validate_python(raws[-1:]), catalogue())))
    assert len({p.pin for p in alone.pins}) == 4 + 3  # each by itself takes a pin
    back = apply(design, take_up(Resolved(design), ("f1", "f2", "f3", "f4"), "direct"), catalogue())
    assert {p.line.split(".")[0] for p in back.pins} == {"~digits-plate"}  # the chain of lamps gives up its pin
