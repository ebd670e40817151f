"""Schemes: what a program would read and light over each, by a logic written here from the chips' data sheets alone."""

from __future__ import annotations

from collections.abc import Iterable
from types import SimpleNamespace
from typing import Any

import networkx as nx
import pytest
from hypothesis import given
from hypothesis import strategies as st

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.part import Rating
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.comparing import options
from wingboard.core.wire.groups import every_wire
from wingboard.core.wire.netlist import GROUND, NetList, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.schemes.choosing import take_up
from wingboard.core.wire.schemes.drawn import drawn_networks
from wingboard.core.wire.schemes.matrix import grid
from wingboard.core.wire.terminals import said

Pressed = dict[str, str]
"""What stands where: a position of each control that is not at rest."""


def read_by(parts: Iterable[str], scheme: str, *more: dict[str, Any]) -> Design:
    """Parts in a row, all read or driven by one scheme, with a board and pins."""
    parts = list(parts)
    start = plate(*((part, 15.0 + 24 * n, 60.0) for n, part in enumerate(parts)))
    commands: list[dict[str, Any]] = [{"do": "edit_function", "function": f"f{n}", "scheme": scheme}
                                      for n in range(1, len(parts) + 1)]  # fmt: skip
    commands += [{"do": "add_controller", "id": "it", "board": "atmega2560"}, *more]
    design = apply(start, BATCH.validate_python(commands), catalogue())
    pins = [p.model_dump() for p in solve(Resolved(design)).pins]
    return apply(design, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue())


def conducting(r: Resolved, stands: Pressed) -> nx.DiGraph:
    """Where current can go, nets and ports as nodes: through closed contacts both ways, through diodes one way."""
    nets, graph = net_list(r), nx.DiGraph()

    def both(a: Any, b: Any) -> None:
        graph.add_edges_from([(a, b), (b, a)])

    for net in nets.nets:
        for port in net.ports:
            both(net.id, port)
    for device in nets.devices.values():
        if device.kind == "diode":
            graph.add_edge(Port(device.id, "A"), Port(device.id, "K"))
    for placed in r.placed:
        here = stands.get(placed.function.id, "")
        for line in said(placed.part).lines.values():
            if line.each_position and here:
                both(Port(placed.function.id, line.back), Port(placed.function.id, here))
            elif line.does == "switch" and here in line.closed:
                both(Port(placed.function.id, line.terminal), Port(placed.function.id, line.back))
    return graph


def pin_of(design: Design, line: str) -> Port:
    choice = next(p for p in design.pins if p.line == line)
    return Port(board_id(choice.controller), choice.pin)


def pulled(graph: nx.DiGraph, frm: Any, to: Any) -> bool:
    return frm in graph and to in graph and nx.has_path(graph, frm, to)


def read_matrix(design: Design, stands: Pressed) -> set[tuple[int, int]]:
    """Rows and columns that read as closed, each row pulled down in turn."""
    graph = conducting(Resolved(design), stands)
    ends = {p.line.rpartition(".")[2]: Port(board_id(p.controller), p.pin) for p in design.pins if p.line[0] == "~"}
    rows = {int(name[4:]): port for name, port in ends.items() if name.startswith("row")}
    columns = {int(name[7:]): port for name, port in ends.items() if name.startswith("column")}
    return {(n, k) for n, row in rows.items() for k, column in columns.items() if pulled(graph, column, row)}


def chips(nets: NetList, name: str) -> list[str]:
    return [d.id for d in nets.devices.values() if d.kind == "chip" and d.name.startswith(name)]


def read_165(design: Design, stands: Pressed) -> list[str]:
    """The chip's inputs that read low, from the bit that comes first on: H of the chip on the data pin.

    SN74HC165 data sheet (from memory): inputs A to H are taken while SH/LD is low; QH gives H first, SER feeds A.
    """
    nets, graph = net_list(Resolved(design)), conducting(Resolved(design), stands)
    data = next(pin_of(design, p.line) for p in design.pins if p.line.endswith(".data"))
    low, net = [], nets.by_port[data]
    while chip := next((p.device for p in net.ports if p.terminal == "9 QH"), None):
        for terminal in ("6 H", "5 G", "4 F", "3 E", "14 D", "13 C", "12 B", "11 A"):
            port = Port(chip, terminal)
            if pulled(graph, port, GROUND) and nets.by_port[port].kind != "ground":
                low.append(f"{chip[-1]} {terminal}")
        net = nets.by_port[Port(chip, "10 SER")]
    return low


CONTACTS = ["button-16", "toggle-large-on-off-on", "button-16", "rotary-12", "toggle-large-on-off", "button-22"]
SELECTOR = {"do": "edit_function", "function": "f4", "positions": ["A", "B", "C", "D", "E"]}
AT_REST = {"f4": "1"}


def test_a_matrix_shows_each_contact_in_a_place_of_its_own_and_nothing_else_when_many_are_closed() -> None:
    design = read_by(CONTACTS, "matrix", SELECTOR)
    rows = [row for row in pin_list(Resolved(design)) if row.via]
    place = {row.line: tuple(int(w) for w in row.pin.replace(",", "").split() if w.isdigit()) for row in rows}
    assert len(set(place.values())) == len(place) == 11
    # Eleven contacts, five of them in one row: 5 columns and 3 rows are the fewest pins (by hand).
    assert len({p.pin for p in design.pins}) == 8
    stands = {"f1": "pressed", "f2": "up", "f3": "pressed", "f4": "3", "f5": "on", "f6": "pressed"}
    told = catalogue()
    for skip in (None, *stands):
        now = {f: at for f, at in stands.items() if f != skip} | ({"f4": "1"} if skip == "f4" else {})
        wanted = set()
        for f, at in now.items():
            part = told[CONTACTS[int(f[1:]) - 1]]
            for line in part.lines:
                if line.each_position:
                    wanted.add(place[f"{f}.{line.id}-{at}"])
                elif at in line.closed:
                    wanted.add(place[f"{f}.{line.id}"])
        assert read_matrix(design, now) == wanted, skip


def test_without_diodes_three_closed_contacts_show_a_fourth_and_that_is_said() -> None:
    design = read_by(["button-16"] * 4, "matrix-bare")
    assert len({p.pin for p in design.pins}) == 4
    assert len(read_matrix(design, {"f1": "pressed", "f2": "pressed", "f3": "pressed"})) == 4  # one of them a ghost
    assert len(read_matrix(design, {"f1": "pressed", "f2": "pressed"})) == 2
    (finding,) = found(design, "wire.ghosting")
    assert finding.measured and finding.measured.value == 4  # each corner of the rectangle can be the ghost
    mended = settled(design, finding)
    assert found(mended, "wire.ghosting") == []
    assert sum(d.kind == "diode" for d in net_list(Resolved(mended)).devices.values()) == 4


def test_a_chain_of_inputs_gives_every_contact_a_bit_and_no_input_hangs_free() -> None:
    design = read_by(CONTACTS, "shift", SELECTOR)
    nets = net_list(Resolved(design))
    assert len(chips(nets, "74HC165")) == 2
    assert read_165(design, {}) == []
    ones = ("f1", "pressed"), ("f2", "up"), ("f2", "down"), ("f4", "1"), ("f4", "5"), ("f6", "pressed")
    alone = [read_165(design, {f: at}) for f, at in ones]
    assert all(len(bits) == 1 for bits in alone)
    assert len({bits[0] for bits in alone}) == 6
    for chip in chips(nets, "74HC165"):
        for terminal in nets.devices[chip].ports:
            assert Port(chip, terminal) in nets.by_port or terminal == "7 QH'", terminal


def test_outputs_of_a_chain_light_their_lamps_and_the_data_goes_from_chip_to_chip() -> None:
    design = read_by(["led-5-bezel"] * 9, "shift")
    r = Resolved(design)
    nets = net_list(r)
    first, second = chips(nets, "74HC595")
    assert nets.by_port[Port(first, "14 SER")] == nets.by_port[pin_of(design, "~shift-out-plate.data")]
    assert nets.by_port[Port(first, "9 QH'")] == nets.by_port[Port(second, "14 SER")]
    assert nets.by_port[Port(first, "13 OE")].kind == nets.by_port[Port(second, "13 OE")].kind == "ground"
    assert nets.by_port[Port(first, "10 SRCLR")].kind == "supply"
    for placed in r.placed:
        anode = nets.by_port[Port(placed.function.id, "anode")]
        resistor = next(p.device for p in anode.ports if nets.devices[p.device].kind == "resistor")
        driver = nets.by_port[Port(resistor, "1")]
        assert sum(p.terminal[-2:-1] == "Q" or " Q" in p.terminal for p in driver.ports) == 1
    # 8 lamps of 10 mA on one chip: 80 mA, over the 70 that its supply pin ever carries (data sheet, from memory).
    (finding,) = found(design, "wire.chip-load")
    assert finding.measured and finding.measured.value == pytest.approx(80)
    assert found(settled(design, finding), "wire.chip-load") == []
    (dim,) = found(design, "wire.lamp-not-dimmed")
    assert dim.measured and dim.measured.value == 9
    assert found(settled(design, dim), "wire.lamp-not-dimmed") == []


def test_expanders_have_addresses_of_their_own_and_share_the_pins_of_the_bus() -> None:
    design = read_by(["rotary-12", "rotary-12", "led-5-bezel"], "expander")
    nets = net_list(Resolved(design))
    both = chips(nets, "MCP23017")
    up = [[nets.by_port[Port(chip, f"{15 + bit} A{bit}")].kind == "supply" for bit in range(3)] for chip in both]
    assert up == [[False, False, False], [True, False, False]]  # 0x20 and 0x21
    assert {p.pin for p in design.pins} == {"20", "21"}  # SDA and SCL of the ATmega2560
    bus = nets.by_port[Port(board_id("it"), "20")]
    assert {p.terminal for p in bus.ports} == {"20", "13 SDA", "2"}
    assert len(pin_list(Resolved(design))) == 2 + 25
    assert found(design, "wire.expanders-alike") == []
    (alike,) = found(read_by(["rotary-12"] * 12, "expander"), "wire.expanders-alike")  # 144 ways, 14 inputs each
    assert alike.measured and alike.measured.value == 11


@pytest.mark.parametrize(("ways", "bits"), [(2, 1), (4, 2), (5, 3), (7, 3), (8, 3), (9, 4), (12, 4)])
def test_a_selector_in_binary_says_its_number(ways: int, bits: int) -> None:
    words = {"do": "edit_function", "function": "f1", "positions": [f"P{n}" for n in range(ways)]}
    design = read_by(["rotary-12"], "binary", words)
    ends = [pin_of(design, f"f1.way-bit-{bit + 1}") for bit in range(bits)]
    assert len(design.pins) == bits
    for way in range(1, ways + 1):
        graph = conducting(Resolved(design), {"f1": str(way)})
        assert sum(pulled(graph, end, GROUND) << bit for bit, end in enumerate(ends)) == way - 1


def test_what_cannot_be_read_so_is_wired_by_itself_and_said() -> None:
    design = read_by(["potentiometer", "button-16-lit", "emergency-stop-22", "joystick-small"], "matrix")
    said_of = {f.subjects[0]: f.detail for f in found(design, "wire.scheme-misfit")}
    assert "a voltage needs a pin" in said_of["f1"]
    assert "a stop has a line of its own" in said_of["f3"]
    assert [p.line for p in design.pins if p.line.startswith("f3.")] == ["f3.report"]
    commands = take_up(Resolved(design), ("f1", "f2", "f3"), "shift")
    assert [c.function for c in commands if isinstance(c, EditFunction)] == ["f2"]  # what can be read so, no other
    assert {p.line for p in design.pins if p.line.startswith("f1.")} == {"f1.wiper"}


def test_ladders_that_read_wrong_are_said_with_what_would_be_right() -> None:
    step = {"do": "edit_function", "function": "f1", "step": 22_000,
            "positions": ["1", "2", "3", "4"]}  # fmt: skip
    design = read_by(["rotary-12"], "ladder", step)
    (finding,) = found(design, "wire.ladder-source")
    # At a tap of four ways: 22 kΩ beside 44 kΩ, 14.67 kΩ (by hand).
    assert finding.measured and finding.measured.value == pytest.approx(22 * 44 / 66, abs=0.01)
    assert found(settled(design, finding), "wire.ladder-source") == []
    rough = {"do": "set_limit", "limit": "resistor-tolerance", "value": 40, "reason": "from the drawer"}
    worse = read_by(["rotary-12"], "ladder", rough)
    assert len(found(worse, "wire.ladder-window")) == 1


def test_every_way_is_counted_as_it_would_be_built() -> None:
    words = {"do": "edit_function", "function": "f1", "positions": [f"P{n}" for n in range(7)]}
    r = Resolved(read_by(["rotary-12", "button-16"], "direct", words))
    seen = {o.scheme: o for o in options(r, ("f1",))}
    # Seven ways and their common (common practice): 7 pins, 8 wires, 16 joints; a ladder 1 analogue pin, 3 wires.
    assert (seen["direct"].pins, seen["direct"].wires, seen["direct"].joints) == (7, 8, 16)
    assert (seen["ladder"].pins, seen["ladder"].analogue, seen["ladder"].wires, seen["ladder"].small) == (1, 1, 3, 6)
    assert (seen["binary"].pins, seen["binary"].diodes) == (3, 9)  # 1+1+2+1+2+2 ones in 1 to 6
    assert (seen["shift"].pins, seen["shift"].chips) == (3, 1)
    assert (seen["expander"].pins, seen["expander"].chips) == (2, 1)
    assert "only the positions" in {o.scheme: o for o in options(r, ("f2",))}["ladder"].not_for


def test_a_star_gives_every_part_a_ground_of_its_own() -> None:
    bus = read_by(["button-16"] * 5, "direct")
    star = apply(bus, BATCH.validate_python([{"do": "edit_module", "module": "plate", "returns": "star"}]), catalogue())
    ends = [[w for w in every_wire(Resolved(d)) if w.net == GROUND] for d in (bus, star)]
    assert [len(wires) for wires in ends] == [5, 5]
    assert [sum(w.end.device == "board.it" for w in wires) for wires in ends] == [1, 5]


def test_read_outs_in_a_chain_pass_their_data_on_and_say_which_digits_stay_dark() -> None:
    fewer = {"do": "edit_function", "function": "f2", "digits": 3}
    design = read_by(["readout-4-digits", "readout-8-digits", "readout-4-digits"], "digits", fewer)
    nets = net_list(Resolved(design))
    pins = {p.line.rpartition(".")[2]: Port(board_id("it"), p.pin) for p in design.pins}
    assert set(pins) == {"data", "clock", "load"}
    for end, terminal in (("clock", "CLK"), ("load", "CS")):
        assert {Port(f"f{n}", terminal) for n in (1, 2, 3)} | {pins[end]} == set(nets.by_port[pins[end]].ports)
    assert set(nets.by_port[pins["data"]].ports) == {pins["data"], Port("f1", "DIN")}
    assert nets.by_port[Port("f1", "DOUT")] == nets.by_port[Port("f2", "DIN")]
    assert nets.by_port[Port("f2", "DOUT")] == nets.by_port[Port("f3", "DIN")]
    (network,) = drawn_networks(Resolved(design))
    assert [(link.function, link.digits, link.dark) for link in network.chain] == [
        ("f1", 4, 0),
        ("f2", 8, 5),
        ("f3", 4, 0),
    ]


def test_a_lamp_test_lights_every_lamp_and_no_line_lights_another() -> None:
    parts = ["button-16", "led-5-bezel", "led-5-bezel", "pilot-22-bulb", "button-16-lit"]
    design = read_by(parts, "direct", {"do": "edit_function", "function": "f1", "tests_lamps": True},
                     {"do": "add_supply", "name": "24 V", "volts": 24, "amps": 2})  # fmt: skip
    r = Resolved(design)
    nets = net_list(r)
    lamps = {"f2.lamp", "f3.lamp", "f4.lamp", "f5.lamp"}
    assert lamps <= {p.line for p in design.pins} and not any(p.line.startswith("f1.") for p in design.pins)
    driven = {line: nets.by_id[f"{line}-either"].id for line in lamps}
    for stands in ({}, {"f1": "pressed"}):
        graph = conducting(r, stands)
        rail = nets.by_port[Port(board_id("it"), "5V")].id
        assert {line for line, net in driven.items() if pulled(graph, rail, net)} == (lamps if stands else set())
        for line in lamps:
            assert {other for other, net in driven.items() if pulled(graph, pin_of(design, line), net)} == {line}
    # (5 - 0.7 - 2.1) V / 10 mA = 220 ohms (by hand), for the diode takes its share.
    assert {d.value for d in nets.devices.values() if d.name == "in series with F2"} == {220}
    assert found(design, "wire.lamp-test-current") == []
    weak = design.parts[0].model_copy(update={"rating": Rating(volts=24, amps=0.02)})
    small = design.model_copy(update={"parts": (weak, *design.parts[1:])})
    assert len(found(small, "wire.lamp-test-current")) == 1
    shared = read_by(["joystick-small", "led-5-bezel"], "direct", {"do": "edit_function", "function": "f1",
                                                                   "tests_lamps": True})  # fmt: skip
    assert "on ground" in found(shared, "wire.unjoined")[0].detail


def test_a_matrix_is_on_one_board() -> None:
    design = read_by(["button-16"] * 4, "matrix", {"do": "add_controller", "id": "other", "board": "atmega2560"})
    assert len({p.controller for p in design.pins}) == 1 and found(design, "wire.network-split") == []
    elsewhere = next(c.id for c in design.controllers if c.id != design.pins[0].controller)
    moved = {"do": "pin", "line": design.pins[0].line, "controller": elsewhere, "pin": "30"}
    split = apply(design, BATCH.validate_python([moved]), catalogue())
    (finding,) = found(split, "wire.network-split")
    assert found(settled(split, finding), "wire.network-split") == []


def fewest(sizes: list[int], rows: tuple[int, ...] = ()) -> int:
    """Rows and columns at the least for bundles of so many contacts: every way to share them out over rows is tried."""
    if not sizes:
        return len(rows) + max(rows)
    into = [(*rows[:k], rows[k] + sizes[0], *rows[k + 1 :]) for k in range(len(rows))]
    return min(fewest(sizes[1:], way) for way in (*into, (*rows, sizes[0])))


@given(st.lists(st.integers(1, 6), min_size=1, max_size=6))
def test_a_matrix_takes_the_fewest_pins(sizes: list[int]) -> None:
    ends: Any = [SimpleNamespace(line=SimpleNamespace(function=n), told=SimpleNamespace(back="C"))
                 for n, size in enumerate(sizes) for _ in range(size)]  # fmt: skip
    made = grid(ends)
    assert made.pins == fewest(sizes)
    assert all(len({id(row) for row in made.rows if end in row}) == 1 for end in ends)
