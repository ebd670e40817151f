"""Net lists of random panels: nothing is shorted, nothing hangs in the air, readings are what circuits give."""

from __future__ import annotations

import networkx as nx
import numpy as np
import pytest
from hypothesis import given, settings

from building import plate
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.behind import modules_behind
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.groups import every_wire
from wingboard.core.wire.harness.bundles import looms
from wingboard.core.wire.harness.gauge import carries
from wingboard.core.wire.harness.laid import laid
from wingboard.core.wire.harness.pinout import pin_out
from wingboard.core.wire.harness.plugs import KINDS, plugs, rows_of
from wingboard.core.wire.lines import bare_functions, lines
from wingboard.core.wire.netlist import NetList, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.power.draws import STATES
from wingboard.core.wire.power.flow import currents, flow
from wingboard.core.wire.power.tree import every_node, power_tree
from wingboard.core.wire.schemes.drawn import drawn_networks, drawn_selectors
from wingboard.core.wire.signals import signals
from wingboard.core.wire.topologies import topologies
from wingboard.core.wire.wires import runs
from wired_panels import made, panels


@settings(max_examples=60, deadline=None)
@given(panels())
def test_nothing_is_shorted_and_nothing_hangs_in_the_air(design: Design) -> None:
    r = Resolved(design)
    nets = net_list(r)
    ports = [port for net in nets.nets for port in net.ports]
    assert len(ports) == len(set(ports))
    for net in nets.nets:
        ends = [(nets.devices[port.device], port) for port in net.ports]
        sources = {d.id for d, p in ends if d.kind == "supply" and p.terminal in "+L"}
        boards = {d.id for d, p in ends if d.kind == "controller" and p.terminal == "5V"}
        returns = [p for d, p in ends if d.kind in ("supply", "controller") and p.terminal in ("GND", "-", "N")]
        pins = [p for d, p in ends if d.kind == "controller" and p.terminal not in ("5V", "GND")]
        assert len(sources) + len(boards) <= 1, net  # two sources are never joined
        assert not ((sources or boards) and returns), net
        assert sum(d.kind == "supply" and "L" in d.ports for d, _ in ends) <= 1, net
        # A bus has as many pins as boards it is on; else two pins would drive each other.
        assert len({p.device for p in pins}) == len(pins) <= 1, net
        assert not pins or net.kind == "signal", net  # a pin is never on ground, a supply or a load
    pinned = {choice.line for choice in design.pins}
    broken = any(
        f.stop_role in ("real", "power") for f in design.functions
    )  # what a stop cannot break is fed by nothing
    whole = all(line.id in pinned for line in lines(r)) and not broken
    for device in nets.devices.values():
        on = [nets.by_port[port].id for t in device.ports if (port := Port(device.id, t)) in nets.by_port]
        if device.kind == "chip":
            free = {t for t in device.ports if Port(device.id, t) not in nets.by_port}
            assert not whole or all(t.split()[1][0] in "QGI" for t in free), free  # outputs, and inputs with pull-ups
        elif device.kind not in ("part", "controller"):
            pairs = [on[:2], on[2:4], on[4:]] if device.kind == "relay" else [on]  # a coil, and contacts beside it
            assert all(len(pair) == len(set(pair)) for pair in pairs), (
                device
            )  # both ends on one net: bridged, or a short
            open_end = device.kind == "supply" or "DOUT" in device.ports  # the last of a chain hands nothing on
            assert not whole or len(on) == len(device.ports) or open_end, device


@settings(max_examples=40, deadline=None)
@given(panels())
def test_wires_are_trees_and_every_line_with_a_pin_has_one(design: Design) -> None:
    r = Resolved(design)
    nets, graph = net_list(r), nx.Graph()
    for wire in every_wire(r):
        graph.add_edge(wire.start, wire.end)
    assert len(graph) == 0 or nx.is_forest(graph)
    trees = [{p for p in tree if not p.device.startswith("plug.")} for tree in nx.connected_components(graph)]
    assert {frozenset(tree) for tree in trees} == {frozenset(net.ports) for net in nets.nets}
    wanted = {line.id for line in lines(r)}
    for choice in design.pins:
        if choice.line in wanted:
            assert Port(board_id(choice.controller), choice.pin) in nets.by_port, choice


def read(nets: NetList, function: str, way: int, volts: float) -> float:
    """What the converter sees of a ladder in a position: its resistors as a circuit, solved by nodes (Kirchhoff)."""
    resistors = [d for d in nets.devices.values() if d.kind == "resistor"]
    nodes = sorted({nets.by_port[Port(d.id, t)].id for d in resistors for t in "12"})
    fixed = {net.id: 0.0 if net.kind == "ground" else volts for net in nets.nets if net.kind in ("ground", "supply")}
    g, i = np.zeros((len(nodes), len(nodes))), np.zeros(len(nodes))
    for d in resistors:
        a, b = (nodes.index(nets.by_port[Port(d.id, t)].id) for t in "12")
        for one, other in ((a, b), (b, a)):
            g[one, one] += 1 / d.value
            g[one, other] -= 1 / d.value
    for node, value in fixed.items():
        if node in nodes:
            k = nodes.index(node)
            g[k], i[k] = 0.0, value
            g[k, k] = 1.0
    return float(np.linalg.solve(g, i)[nodes.index(nets.by_port[Port(function, str(way))].id)])


@pytest.mark.parametrize("many", [2, 4, 7, 12])
def test_a_ladder_reads_k_of_n_minus_one_as_its_circuit_is_solved(many: int) -> None:
    positions = [f"P{n}" for n in range(many)]
    start = plate(("rotary-12", 60, 60))
    ladder = made(start, {"do": "edit_function", "function": "f1", "positions": positions, "scheme": "ladder"},
                  {"do": "add_controller", "id": "it", "board": "atmega2560"},
                  {"do": "pin", "line": "f1.way-ladder", "controller": "it", "pin": "A0"})  # fmt: skip
    nets = net_list(Resolved(ladder))
    seen = [1023 * read(nets, "f1", way, 5.0) / 5.0 for way in range(1, many + 1)]
    assert seen == pytest.approx([1023 * k / (many - 1) for k in range(many)])
    if many == 4:
        assert list(map(round, seen)) == [0, 341, 682, 1023]  # common practice, as it is measured with ten bits
    assert nets.by_port[Port("f1", "C")] == nets.by_port[Port(board_id("it"), "A0")]


@settings(max_examples=40, deadline=None)
@given(panels())
def test_every_signal_is_once_on_the_pin_list_and_everything_is_drawn_and_written(design: Design) -> None:
    r = Resolved(design)
    rows = pin_list(r)
    assert len({row.line for row in rows}) == len(rows)
    pooled = [row for row in rows if row.via]
    assert len({(row.via, row.board, row.pin) for row in pooled}) == len(pooled)  # no place twice
    assert {row.via for row in pooled} == {
        row.line.split(".")[0] for row in rows if row.line.startswith("~") and not row.line.startswith("~light")
    }
    own = {row.line for row in rows if not row.line.startswith("~")}
    assert {end.line for module in modules_behind(r) for end in module.ends} == own
    selectors = {s.function: s for s in drawn_selectors(r)}
    alone = {s.id for s in signals(r) if s.line.function not in selectors}
    assert alone <= own
    for network in drawn_networks(r):
        shown = [spot.function for row in network.rows for spot in row]
        shown += [pin.function for chip in network.chips for pin in chip.pins if pin.function]
        shown += [link.function for link in network.chain]
        assert shown
        assert set(shown) == {row.owner for row in pooled if row.via == network.id}
    files = wire_files(r)
    assert all(files.values())
    assert {f.id for f in design.functions if f.place} >= bare_functions(r)
    counted = [way for way in topologies(r) if not way.not_for]
    assert all(way.ports == sum(many for many, _ in way.boards) and not way.crossing for way in counted)  # one module


@settings(max_examples=40, deadline=None)
@given(panels())
def test_every_wire_is_cut_fed_and_found_on_its_plug(design: Design) -> None:
    """Colours, lengths, contacts and currents of whatever is wired: each wire thick enough, each contact used once."""
    r = Resolved(design)
    pieces = laid(r)
    assert {p.wire.id for p in pieces} == {w.id for w in every_wire(r)}
    for piece in pieces:
        if piece.wire.how == "wire":
            assert piece.length % 5 == 0 and piece.length >= 45
            assert carries(piece.area) >= min(piece.amps, 205.0) - 1e-9, piece
        else:
            assert piece.length == 0
    for plug in plugs(r):
        assert len(plug.on) <= plug.size and set(plug.on) <= set(range(1, plug.size + 1))
        assert sorted(n for row in rows_of(plug) for n in row) == list(range(1, plug.size + 1))
        assert {contact.number for contact in pin_out(r, plug)} == set(plug.on)
        for wire in plug.on.values():
            need = currents(r).get(wire.id, 0.0)
            many = sum(other.id == wire.id for other in plug.on.values())
            assert many * KINDS[plug.kind].amps >= need - 1e-9 or many >= KINDS[plug.kind].sizes[-1] // 2
    bare = nx.Graph([(w.start, w.end) for w in runs(r)])
    through = nx.Graph([(w.start, w.end) for w in every_wire(r)])
    contacts = {p for p in through if p.device.startswith("plug.")}
    assert {frozenset(c - contacts) for c in nx.connected_components(through)} == {
        frozenset(c) for c in nx.connected_components(bare)
    }
    roots = power_tree(r)
    assert len({n.id for n in every_node(roots)}) == len(list(every_node(roots)))
    for state in STATES:
        given_out = sum(flow(r, state).sources.values())
        leaves = [n for n in every_node(roots) if not n.children and n.kind not in ("board", "supply", "usb")]
        assert sum(n.amps[state] for n in leaves) == pytest.approx(given_out, abs=1e-6)
    for loom in looms(r):
        assert loom.thickest >= 0 and all(s.wires > 0 for s in loom.sections)
    assert all(content for content in wire_files(r).values())
