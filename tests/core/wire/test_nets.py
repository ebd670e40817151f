"""The net list: against a table made by hand, and against who reaches whom as networkx sees it."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Callable, Iterator
from typing import Any

import networkx as nx
import pypdfium2
import pytest
from typer.testing import CliRunner

from building import found, plate, settled
from wingboard.cli import app
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.groups import every_wire, groups
from wingboard.core.wire.harness.plugs import plugs
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import NetList, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.sheet import missing, wiring_sheet
from wingboard.core.wire.sheet_pdf import cautions
from wingboard.core.wire.terminals import said
from wingboard.core.wire.wires import names_of

Demo = Callable[[str], Design]


def made(design: Design, *commands: dict[str, Any]) -> Design:
    return apply(design, BATCH.validate_python(commands), catalogue())


def joined(r: Resolved, control: str = "", position: str = "") -> nx.Graph:
    """Who reaches whom: ports and nets, and inside devices what conducts while a control is in a position.

    Resistors, lamps, coils and closed contacts conduct here, transistors do not; every other control is at rest.
    """
    nets, graph = net_list(r), nx.Graph()
    for net in nets.nets:
        graph.add_edges_from((net.id, port) for port in net.ports)
    for device in nets.devices.values():
        if device.kind in ("resistor", "load"):
            graph.add_edge(Port(device.id, "1"), Port(device.id, "2"))
    for placed in r.placed:
        told, ident = said(placed.part), placed.function.id
        here = position if ident == control else ""
        for line in told.lines.values():
            if line.does == "lamp":
                graph.add_edge(Port(ident, line.terminal), Port(ident, line.back))
            elif line.each_position and here:
                graph.add_edge(Port(ident, line.back), Port(ident, here))
            elif line.does == "switch" and here in line.closed:
                graph.add_edge(Port(ident, line.terminal), Port(ident, line.back))
        for contact in told.contacts:
            if here in contact.closed or placed.part.family == "breaker":
                graph.add_edge(Port(ident, contact.a), Port(ident, contact.b))
    return graph


DUST = """
f1 NO 12 C | f2 21 2 22 | f3 13 10 14 | f4 13 7 14 | f5 2 13 1 | f6 2 11 1 | f7 2 8 1 | f8 NO 4 C
"""
"""By hand from the dust panel's parts: a control's terminal, its pin, the terminal on ground."""
LAMPS = {"f3": ("X1", "X2", "9", 200), "f9": ("anode", "cathode", "6", 300), "f10": ("anode", "cathode", "5", 300)}
"""… and of its lamps both terminals, the pin, and E24 of (5 V - Vf) / 10 mA: 190 and 290 Ω, the next up."""


def test_the_dust_panel_is_joined_as_a_table_made_by_hand_says(demo: Demo) -> None:
    nets = net_list(Resolved(demo("dust-extraction")))
    board = "board.atmega328p-1"
    wanted = {frozenset({Port(board, "GND"), *(Port(*row.split()[::3]) for row in DUST.split("|")),
                         *(Port(f, cathode) for f, (_, cathode, _, _) in LAMPS.items())})}  # fmt: skip
    wanted |= {frozenset({Port(f, t), Port(board, pin)}) for f, t, pin, _ in (row.split() for row in DUST.split("|"))}
    for f, (anode, _, pin, ohms) in LAMPS.items():
        resistor = nets.by_port[Port(board, pin)].ports[0].device
        assert nets.devices[resistor].value == ohms
        wanted |= {frozenset({Port(board, pin), Port(resistor, "1")}), frozenset({Port(resistor, "2"), Port(f, anode)})}
    assert {frozenset(net.ports) for net in nets.nets} == wanted
    assert nets.unsaid == ()
    assert set(nets.spare) == {
        Port(board, "5V"),
        Port(board, "3V3"),
        Port("f2", "11"),
        Port("f2", "12"),
        Port("f3", "NC"),
    }


@pytest.mark.parametrize("name", ["kestrel-line-9", "dust-extraction"])
def test_each_contact_shows_at_its_pin_in_its_positions_and_each_lamp_is_in_a_circuit(demo: Demo, name: str) -> None:
    r = Resolved(demo(name))
    nets, rest = net_list(r), joined(r)
    pins = {choice.line: Port(board_id(choice.controller), choice.pin) for choice in r.design.pins}
    ground = next(net.id for net in nets.nets if net.kind == "ground")
    for placed in r.placed:
        f, told = placed.function, said(placed.part)
        places = {"", *(p.name for p in placed.part.positions), "pressed",
                  *(c for line in told.lines.values() for c in line.closed)}  # fmt: skip
        for line in told.lines.values():
            pin = pins.get(f"{f.id}.{line.id}")
            if pin is None:
                continue
            if line.does == "switch":
                shown = {p for p in places if nx.has_path(joined(r, f.id, p), pin, ground)}
                assert shown == set(line.closed), (f.name, line.id)
            elif line.does == "lamp":
                without = rest.copy()
                without.remove_nodes_from([ground])
                ends = Port(f.id, line.terminal), Port(f.id, line.back)
                assert nx.has_path(rest, *ends)
                fed = [n.id for n in nets.nets if n.kind == "supply" and nx.has_path(without, ends[0], n.id)]
                assert fed or nx.has_path(without, ends[0], pin), f.name
        if placed.part.detents and f.scheme == "direct" and f"{f.id}.way-1" in pins:
            for n in range(1, len(f.positions) + 1):
                ways = {k for k in range(1, len(f.positions) + 1)
                        if nx.has_path(joined(r, f.id, str(n)), pins[f"{f.id}.way-{k}"], ground)}  # fmt: skip
                assert ways == {n}
    assert {line.id for line in lines(r)} - set(pins) == set()


def circuit(nets: NetList, start: Port, end: Port) -> list[str]:
    """The devices on the way from one port to another, in order, each passed once."""
    graph = nx.Graph()
    for net in nets.nets:
        graph.add_edges_from((f"net {net.id}", p.device) for p in net.ports)
    graph.add_edge("start", f"net {nets.by_port[start].id}")
    graph.add_edge("end", f"net {nets.by_port[end].id}")
    graph.remove_node(start.device)
    return [n for n in nx.shortest_path(graph, "start", "end")[1:-1] if not n.startswith("net ")]


def loaded(through: str = "", volts: float = 24, bus: str = "B") -> Iterator[dict[str, Any]]:
    yield {"do": "add_supply", "id": "desk", "name": "24 V supply", "volts": 24, "amps": 10}
    yield {"do": "edit_function", "function": "f1", "volts": volts, "amps": 6, "bus": bus, "through": through}
    yield {"do": "edit_function", "function": "f2", "volts": volts, "amps": 6, "bus": bus}


def test_what_switches_a_load_is_in_its_circuit_behind_what_protects_it() -> None:
    start = plate(("toggle-large-on-off", 60, 60), ("breaker-10", 120, 60))
    nets = net_list(Resolved(made(start, *loaded())))
    assert circuit(nets, Port("supply.desk", "+"), Port("supply.desk", "-")) == ["f2", "f1", "f1.on-load"]
    assert [p for p in nets.by_port if p.device.startswith("board.")] == []
    relay = net_list(Resolved(made(start, *loaded("relay"))))
    carries = Port("f1.on-relay", "13"), Port("f1.on-relay", "14")  # EN 50005: 13 and 14 close, A1 and A2 are the coil
    assert [relay.by_port[p] for p in carries] == [
        relay.by_port[Port("f2", "load")],
        relay.by_port[Port("f1.on-load", "1")],
    ]
    assert relay.by_port[Port("f1", "2")] == relay.by_port[Port("f1.on-relay", "A1")]
    assert relay.by_port[Port("f1.on-relay-d", "K")] == relay.by_port[Port("f1.on-relay", "A1")]  # it blocks 24 V
    assert relay.by_port[Port("f1.on-relay-d", "A")] == relay.by_port[Port("supply.desk", "-")]
    driven = net_list(Resolved(made(start, *loaded("transistor"))))
    assert driven.by_port[Port("f1.on-load", "2")] == driven.by_port[Port("f1.on-q", "C")]
    assert driven.by_port[Port("f1", "2")] == driven.by_port[Port("f1.on-q-rb", "1")]
    mains = net_list(Resolved(made(start, *loaded(volts=230))))
    supply = mains.devices["supply.230-v-ac"]
    assert supply.ports == ("L", "N", "PE")
    assert mains.by_port[Port("f1.on-load", "2")].id == "return of 230 V AC"
    assert all(net.kind != "ground" for net in mains.nets if any(p.device == supply.id for p in net.ports))


def test_a_contact_whose_common_is_on_ground_switches_the_low_side_or_nothing() -> None:
    for part, common in (("rocker-lit", "1"), ("joystick-small", "GND")):
        lit = made(plate((part, 60, 60), ("breaker-10", 120, 60)), *loaded())
        nets = net_list(Resolved(lit))
        assert nets.by_port[Port("f1", common)].kind == "ground"
        load = next(d for d in nets.devices if d.endswith("-load"))
        contact = next(line for line in catalogue()[part].lines if line.does == "switch")
        assert nets.by_port[Port(load, "1")] == nets.by_port[Port("f2", "load")]
        assert nets.by_port[Port(load, "2")] == nets.by_port[Port("f1", contact.terminal)]
        (finding,) = found(made(lit, {"do": "edit_function", "function": "f1", "volts": 230}), "wire.unjoined")
        assert "cannot switch such a load" in finding.detail
        assert finding.severity == "must"


def test_volts_that_no_supply_gives_and_terminals_that_are_not_said_are_findings() -> None:
    start = plate(("pilot-22-bulb", 60, 60), ("vent-fan-40", 120, 60))
    (twelve, day) = sorted(found(start, "wire.no-supply"), key=lambda f: f.detail)
    assert (twelve.detail, day.detail) == ("12 V for F2", "24 V for F1")
    both = settled(settled(start, twelve), day)
    assert [(s.volts, s.amps) for s in both.workshop.supplies] == [(12, 1), (24, 1)]
    assert found(both, "wire.no-supply") == []
    toggle = catalogue()["toggle-large-on-off"]
    bare = toggle.model_copy(
        update={"id": "mine", "lines": tuple(line.model_copy(update={"back": ""}) for line in toggle.lines)}
    )
    own = made(plate(("toggle-large-on-off", 60, 60)), {"do": "adopt_part", "part": bare.model_dump()},
               {"do": "choose_part", "function": "f1", "part": "mine"})  # fmt: skip
    (unsaid,) = found(own, "wire.unjoined")
    assert "the other terminal of 2" in unsaid.detail
    assert missing(Resolved(own)) == ("F1: the other terminal of 2 is not said",)
    assert missing(Resolved(start)) == ()  # wires to a supply that is not there yet are listed
    like = bare.model_copy(update={"id": "like", "base": toggle.id})
    measured = made(own, {"do": "adopt_part", "part": like.model_dump()},
                    {"do": "choose_part", "function": "f1", "part": "like"})  # fmt: skip
    assert found(measured, "wire.unjoined") == []  # as the part that it was copied from


def test_supplies_and_ports_are_loaded_to_four_fifths_and_no_further() -> None:
    start = plate(("toggle-large-on-off", 60, 60), ("breaker-10", 120, 60))
    for amps, severity in ((8.0, None), (8.01, "judge"), (10.0, "judge"), (10.01, "must")):
        loads = made(start, *loaded(), {"do": "edit_function", "function": "f1", "amps": amps})
        short = found(loads, "wire.supply-short")
        assert [f.severity for f in short] == ([severity] if severity else []), amps
        for finding in short:
            assert found(settled(loads, finding), "wire.supply-short") == []
    board = {"do": "add_controller", "id": "it", "board": "atmega2560"}
    digits = plate(
        *(("readout-8-digits", 30.0 + 60 * n, 60) for n in range(2)), commands=BATCH.validate_python([board])
    )
    pins = [{"do": "pin", "line": f"f{n}.{line}", "controller": "it", "pin": str(10 * n + k)}
            for n in (1, 2) for k, line in enumerate(("data", "clock", "load"))]  # fmt: skip
    (much,) = found(made(digits, *pins), "wire.usb-current")
    assert much.measured
    assert much.measured.value == pytest.approx(50 + 2 * 320)
    assert found(settled(made(digits, *pins), much), "wire.usb-current") == []
    one = {"do": "remove", "functions": ["f2"]}
    assert found(made(digits, *pins[:3], one), "wire.usb-current") == []


def test_a_breaker_protects_its_function_its_bus_or_nothing() -> None:
    start = plate(("toggle-large-on-off", 60, 60), ("breaker-10", 120, 60))
    assert [f.subjects for f in found(start, "wire.orphan-breaker")] == [("f2",)]
    assert found(made(start, *loaded()), "wire.orphan-breaker") == []
    third = made(plate(("toggle-large-on-off", 40, 60), ("breaker-10", 100, 60), ("toggle-large-on-off", 160, 60)),
                 *loaded(), {"do": "edit_function", "function": "f3", "volts": 12, "amps": 1, "bus": "B"})  # fmt: skip
    assert "its load on 12 V" in found(third, "wire.unjoined")[0].detail  # a bus has one supply
    other = made(start, *loaded(), {"do": "edit_function", "function": "f2", "bus": "C"})
    assert len(found(other, "wire.orphan-breaker")) == 1
    assert found(made(other, {"do": "edit_function", "function": "f2", "of": "f1"}), "wire.orphan-breaker") == []


def test_what_people_name_alike_is_not_mixed_up() -> None:
    same = made(plate(("led-5-bezel", 60, 60)), {"do": "add_controller", "id": "f1", "board": "atmega328p"},
                {"do": "add_supply", "id": "f1", "name": "5 V supply", "volts": 5, "amps": 2},
                {"do": "pin", "line": "f1.lamp", "controller": "f1", "pin": "9"})  # fmt: skip
    nets = net_list(Resolved(same))
    assert {d.kind for d in nets.devices.values()} == {"part", "controller", "resistor"}
    assert nets.by_port[Port("board.f1", "9")].ports[0] == Port("f1.lamp-r", "1")
    twins = made(
        plate(("button-22", 60, 60), ("button-22", 120, 60)), {"do": "edit_function", "function": "f2", "name": "F1"}
    )
    assert len(set(names_of(Resolved(twins)).values())) == 2


def test_no_generic_part_leaves_a_wire_open() -> None:
    for ident in (p.id for p in catalogue().values() if p.lines or p.feed):
        r = Resolved(plate((ident, 60, 60)))
        assert [u for u in net_list(r).unsaid if net_list(r).devices[u.device].kind != "supply"] == [], ident


def test_every_generic_part_says_where_its_lines_end() -> None:
    for part in catalogue().values():
        names = {p.name for p in part.positions} or {"pressed", *map(str, range(10))}
        ways = {str(n) for n in range(1, part.ways + 1)} if part.detents else set()
        for line in part.lines:
            ends = {line.back, *(line.ends or ()), *(ways if line.each_position else {line.terminal})} - {""}
            assert ends <= set(part.terminals), (part.id, line.id)
            assert set(line.closed) <= names | {""}, (part.id, line.id)
            assert line.back or line.does not in ("switch", "lamp", "encoder"), (part.id, line.id)
            assert line.closed or line.does != "switch" or line.each_position, (part.id, line.id)
            assert line.ends or line.back or line.does != "analogue", (part.id, line.id)
        for contact in part.contacts:
            assert {contact.a, contact.b} <= set(part.terminals), part.id
        if part.plugs_on:
            assert not part.lines and not part.terminals, part.id  # its board feeds it, over the whole header
        elif part.feed and not any(line.back for line in part.lines if line.does == "driver" and not line.current):
            assert set(part.feed.plus) <= set(part.terminals) and part.feed.plus and part.feed.minus, part.id


def test_the_net_list_is_printed(demo: Demo, tmp_path: Any) -> None:
    file = tmp_path / "dust.json"
    file.write_text(demo("dust-extraction").model_dump_json(), "utf-8")
    printed = json.loads(CliRunner().invoke(app, ["nets", str(file), "--json"]).output)
    nets = net_list(Resolved(demo("dust-extraction")))
    assert [net["id"] for net in printed["nets"]] == [net.id for net in nets.nets]
    assert {d["id"] for d in printed["devices"]} == set(nets.devices)
    assert "Emergency stop 21" in CliRunner().invoke(app, ["nets", str(file)]).output


# ---- Wires ----------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("name", ["kestrel-line-9", "dust-extraction"])
def test_a_net_is_a_tree_of_wires_in_small_groups_that_end_in_a_test(demo: Demo, name: str) -> None:
    r = Resolved(demo(name))
    by_net: dict[str, nx.Graph] = {}
    for wire in every_wire(r):
        by_net.setdefault(wire.net, nx.Graph()).add_edge(wire.start, wire.end)
    for net in net_list(r).nets:
        assert nx.is_tree(by_net[net.id]), net.id
        assert {p for p in by_net[net.id] if not p.device.startswith("plug.")} == set(net.ports)
    steps = groups(r)
    assert all(len(step.wires) <= 12 and step.test for step in steps)
    assert len({wire.id for wire in every_wire(r)}) == sum(len(step.wires) for step in steps)
    for module in r.modules:  # grounds before what is measured against them
        kinds = [wire.kind for step in steps if step.module == module for wire in step.wires]
        assert kinds == sorted(kinds, key=["ground", "supply", "load", "signal"].index)
    listed = json.loads(wire_files(r)["wire/nets.json"])["plugs"]
    assert all(p.id in {plug["id"] for plug in listed} for p in plugs(r))


def test_a_group_is_tried_as_what_is_in_it_can_be() -> None:
    for part, words in (("button-22", "closed in its positions"), ("led-5-bezel", "light its lamp"),
                        ("readout-4-digits", "to its terminal"), ("potentiometer", "to its terminal")):  # fmt: skip
        board = BATCH.validate_python([{"do": "add_controller", "id": "it", "board": "atmega328p"}])
        bare = plate((part, 60, 60), commands=board)
        design = bare.model_copy(update={"pins": solve(Resolved(bare)).pins})
        (test,) = {g.test for g in groups(Resolved(design)) if {w.kind for w in g.wires} == {"signal"}}
        others = {"closed in its positions", "light its lamp", "to its terminal"} - {words}
        assert words in test and not any(other in test for other in others), part


def test_the_circuit_is_rebuilt_from_the_wiring_sheet_alone(demo: Demo) -> None:
    """Read as a person would, by the names on it: every control is read at its pin and every lamp lit from its pin."""
    r = Resolved(demo("dust-extraction"))
    files = wire_files(r)
    sheet = list(csv.DictReader(io.StringIO(files["wire/wiring-sheet.csv"].decode())))
    small = {row["mark"]: row for row in csv.DictReader(io.StringIO(files["wire/small-parts.csv"].decode()))}
    board = nx.Graph()
    for row in sheet:
        board.add_edge((row["from"], row["from_terminal"]), (row["to"], row["to_terminal"]))
    for mark, row in small.items():
        assert row["ohms"]
        board.add_edge((mark, "1"), (mark, "2"))
    ground = ("ATmega328P", "GND")
    pins = {row.line: ("ATmega328P", row.pin) for row in pin_list(r)}
    for placed in r.placed:
        for line in said(placed.part).lines.values():
            closed = board.copy()
            closed.add_edge((placed.function.name, line.terminal), (placed.function.name, line.back))
            pin = pins[f"{placed.function.id}.{line.id}"]
            assert not nx.has_path(board, pin, ground)
            assert nx.has_path(closed, pin, ground)
            through = [node[0] for node in nx.shortest_path(closed, pin, ground)]
            assert any(mark in small for mark in through) is (line.does == "lamp")
    assert [row["group"] for row in sheet if row["test"]] == list(dict.fromkeys(row["group"] for row in sheet))


def test_soldered_wires_keep_their_pins_and_fall_away_with_their_ends(demo: Demo) -> None:
    told = demo("dust-extraction")
    odd = tuple(p.model_copy(update={"pin": "A5"}) if p.line == "f8.press" else p for p in told.pins)
    design = told.model_copy(update={"pins": odd})
    wire = next(
        w for w in every_wire(Resolved(design)) if w.start.device == "f8" and w.end.device == "board.atmega328p-1"
    )
    done = made(design, {"do": "set_soldered", "wires": [wire.id]})
    assert [j.id for s in wiring_sheet(Resolved(done)) for j in s.joints if j.done] == [wire.id]
    for seed in (done, design):
        alone = seed.model_copy(update={"pins": tuple(p for p in seed.pins if p.line == "f8.press")})
        given = {p.line: p.pin for p in solve(Resolved(alone), keep=False).pins}
        assert (given["f8.press"] == wire.end.terminal) is (seed is done)  # else the solver has a better one for it
        assert len(set(given.values())) == len(given) == len(lines(Resolved(design)))
    moved = made(done, {"do": "pin", "line": "f8.press", "controller": "atmega328p-1", "pin": "A4"})
    assert not any(j.done for s in wiring_sheet(Resolved(moved)) for j in s.joints)
    assert made(done, {"do": "set_soldered", "wires": [wire.id], "soldered": False}).soldered == ()


def test_the_printed_sheet_has_every_end_and_says_first_what_can_kill(demo: Demo) -> None:
    r = Resolved(demo("kestrel-line-9"))
    pages = pypdfium2.PdfDocument(wire_files(r)["wire/wiring-sheet.pdf"])
    text = " ".join(page.get_textpage().get_text_range().replace("\r\n", " ") for page in pages)
    ends = {e for step in wiring_sheet(r) for joint in step.joints for e in (joint.start, joint.end)}
    assert [e for e in ends if f", {e.terminal}" not in text or e.device not in text] == []
    assert text.count("Then test:") == len(wiring_sheet(r))
    assert "electrician" not in text
    start = plate(("toggle-large-on-off", 60, 60), ("breaker-10", 120, 60))
    for volts, kind, said_so in (
        (230, "", True),
        (50, "AC", True),
        (110, "DC", False),
        (120, "DC", True),
        (48, "", False),
    ):
        live = made(start, {"do": "edit_function", "function": "f1", "volts": volts, "amps": 1, "current": kind})
        assert ("licensed electrician" in cautions(Resolved(live))[0]) is said_so, (volts, kind)
