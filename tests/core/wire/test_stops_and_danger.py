"""What could kill or burn: emergency stops in series, dangerous voltages apart from controllers, fuses against wires.

The graphs here are built from the net list alone, by rules of their own (networkx), not by the product's.
"""

from __future__ import annotations

from typing import Any

import networkx as nx
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import found, plate, settled
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.gauge import carries
from wingboard.core.wire.harness.laid import areas, laid
from wingboard.core.wire.netlist import NetList, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.flow import currents, flow
from wingboard.core.wire.power.paths import from_sources
from wingboard.core.wire.power.tree import every_node, power_tree
from wingboard.core.wire.sheet import wiring_sheet
from wingboard.core.wire.stops import breaks_power
from wingboard.core.wire.terminals import said
from wingboard.core.wire.wires import runs
from wired_panels import made, panels

LOAD, SMALL, STOP, LAMP = "toggle-large-on-off", "toggle-small-on-off", "emergency-stop-22", "pilot-22-bulb"
Raw = dict[str, Any]
BOARD: Raw = {"do": "add_controller", "id": "it", "board": "atmega2560"}


def function(n: int, **fields: Any) -> Raw:
    return {"do": "edit_function", "function": f"f{n}", **fields}


def supply(volts: float, amps: float, ident: str, **more: Any) -> Raw:
    return {"do": "add_supply", "id": ident, "name": f"{volts:g} V", "volts": volts, "amps": amps, **more}


def stopped(**stop: Any) -> Design:
    """A hoist on 24 V, a light on 12 V, and a real emergency stop."""
    start = plate((LOAD, 30.0, 60.0), (STOP, 110.0, 60.0), (SMALL, 170.0, 60.0))
    return made(start, supply(24, 10, "motor", fuse=10), supply(12, 5, "light", fuse=5), BOARD,
                function(1, volts=24, amps=5), function(3, volts=12, amps=2),
                function(2, stop_role="real", **stop))  # fmt: skip


def joined(nets: NetList, closed: bool, only: tuple[str, ...] = ()) -> nx.Graph:
    """Terminals that are one: nets, and inside devices (of ``only`` some kinds) what conducts. A relay that stops hold
    on conducts only while they are ``closed``."""
    graph = nx.Graph()
    for net in nets.nets:
        nx.add_path(graph, net.ports)
    for device in nets.devices.values():
        if device.kind == "relay":
            ends = [t[:-1] for t in device.ports if t.endswith("3")]
            if closed or not device.id.endswith("stop-relay"):
                graph.add_edges_from((Port(device.id, f"{n}3"), Port(device.id, f"{n}4")) for n in ends)
        elif not only and device.kind not in ("supply", "load", "controller", "part", "earth"):
            nx.add_path(graph, [Port(device.id, t) for t in device.ports])
    return graph


def fed(design: Design, pressed: bool) -> set[str]:
    """The functions whose load a supply reaches, every switch closed, by that graph."""
    r = Resolved(design)
    nets = net_list(r)
    graph = joined(nets, closed=not pressed, only=("relay",))
    for p in r.placed:
        lines = [(x.terminal, x.back) for x in said(p.part).lines.values() if x.does == "switch" and x.back]
        contacts = [(c.a, c.b) for c in said(p.part).contacts]
        if not (pressed and breaks_power(p)):
            graph.add_edges_from((Port(p.function.id, a), Port(p.function.id, b)) for a, b in (*lines, *contacts))
    sources = [Port(d.id, t) for d in nets.devices.values() if d.kind == "supply" for t in d.ports if t in "+L"]
    loads = [d for d in nets.devices.values() if d.kind == "load" and Port(d.id, "1") in graph]
    return {d.of for d in loads for s in sources if s in graph and nx.has_path(graph, s, Port(d.id, "1"))}


def test_a_real_stop_is_in_series_with_every_load_of_every_supply() -> None:
    design = stopped(through="contactor")
    assert fed(design, pressed=False) == {"f1", "f3"} and fed(design, pressed=True) == set()
    assert {f.draw.of for f in flow(Resolved(design), "all").fed if f.draw.what == "load"} == {"f1", "f3"}
    assert {f.draw.of for f in flow(Resolved(design), "stopped").fed if f.draw.what == "load"} == set()
    [tree] = [n for n in power_tree(Resolved(design)) if n.id == "supply.motor"]
    stops = [n for n in every_node((tree,)) if n.kind == "stop"]
    assert any("f1" in {x.function for x in every_node((stop,))} for stop in stops)
    own = made(design, function(2, volts=24, amps=2))  # what it breaks itself is behind it too
    assert fed(own, pressed=True) == set() and "f2" in fed(own, pressed=False)
    rows = [j for step in wiring_sheet(Resolved(design)) for j in step.joints]
    assert any({"12", "A1"} <= {j.start.terminal, j.end.terminal} for j in rows)  # its contact holds the contactor


def test_one_contact_breaks_one_supply_and_the_rest_is_to_fix_not_wired_past_it() -> None:
    design = stopped()
    assert fed(design, pressed=False) == {"f1"} and fed(design, pressed=True) == set()
    assert any("relay or a contactor" in f.detail for f in found(design, "wire.unjoined"))
    [over] = found(design, "wire.stop-overloaded")
    assert over.severity == "must" and over.measured is not None and over.measured.value == pytest.approx(5.0)
    fixed = settled(design, over)
    assert found(fixed, "wire.stop-overloaded") == [] and found(fixed, "wire.unjoined") == []
    assert fed(fixed, pressed=False) == {"f1", "f3"} and fed(fixed, pressed=True) == set()


def test_what_stays_on_is_listed_and_an_idle_stop_too() -> None:
    lit = made(stopped(through="contactor"), function(3, stays_on=True))
    assert fed(lit, pressed=True) == {"f3"}
    [note] = found(lit, "wire.stop-leaves-on")
    assert note.severity == "note" and "F3" in note.detail
    power = made(stopped(), function(2, stop_role="power", volts=24))
    [judge] = found(power, "wire.stop-leaves-on")
    assert judge.severity == "judge" and "F3 (12 V, 2 A)" in judge.detail
    assert found(settled(power, judge), "wire.stop-leaves-on") == []
    assert found(stopped(through="contactor"), "wire.stop-idle") == []
    idle = made(plate((STOP, 60.0, 60.0)), function(1, stop_role="real"))
    assert found(idle, "wire.stop-idle")
    assert "no load of this panel" in found(idle, "wire.emergency-hard-wired")[0].detail


def test_two_stops_are_in_series_and_each_reports_by_a_contact_of_its_own() -> None:
    start = plate((LOAD, 30.0, 60.0), (STOP, 90.0, 60.0), (STOP, 160.0, 60.0))
    two = made(start, supply(24, 10, "motor", fuse=4), BOARD, function(1, volts=24, amps=2),
               function(2, stop_role="real"), function(3, stop_role="real"),
               {"do": "pin", "line": "f3.report", "controller": "it", "pin": "7"})  # fmt: skip
    nets = net_list(Resolved(two))
    assert nets.by_port[Port("f2", "12")] == nets.by_port[Port("f3", "11")]
    assert nets.by_port[Port("f3", "12")] == nets.by_port[Port("f1", "1")]
    words = {f.subjects[0]: f.detail for f in found(two, "wire.emergency-hard-wired")}
    assert "no pin yet" in words["f2"] and "reports it to pin 7 of" in words["f3"]


@pytest.mark.parametrize("order", [(1, 2), (2, 1)])
def test_a_stop_that_is_the_power_switch_may_come_after_what_it_feeds(order: tuple[int, int]) -> None:
    at = {1: ("readout-4-digits", 60.0, 60.0), 2: (STOP, 150.0, 60.0)}
    start = plate(*(at[n] for n in order))
    stop = order.index(2) + 1
    design = made(start, supply(5, 2, "five"), function(stop, stop_role="power", volts=5))
    nets = net_list(Resolved(design))
    assert nets.by_port[Port("supply.five", "+")] == nets.by_port[Port(f"f{stop}", "11")]


def shuffled(design: Design, order: list[int]) -> Design:
    functions = design.functions
    return design.model_copy(update={"functions": tuple(functions[n] for n in order if n < len(functions))})


@settings(max_examples=40, deadline=None)
@given(panels(), st.permutations(range(8)))
def test_no_order_of_the_functions_changes_supplies_and_loads(design: Design, order: list[int]) -> None:
    """Chips of chains, and contacts of stops in series, follow the list; supplies, loads and returns do not."""

    def power(of: Design) -> set[frozenset[Port]]:
        nets = net_list(Resolved(of))
        kept = {d.id for d in nets.devices.values() if d.kind in ("supply", "load", "earth")}
        return {frozenset(p for p in net.ports if p.device in kept) for net in nets.nets} - {frozenset()}

    stops = [f for f in design.functions if f.stop_role in ("real", "power")]
    if len(stops) < 2:
        assert power(design) == power(shuffled(design, order))
    else:
        power(shuffled(design, order))


@settings(max_examples=60, deadline=None)
@given(panels())
def test_no_dangerous_supply_meets_a_controller_and_a_pressed_stop_leaves_nothing_on(design: Design) -> None:
    r = Resolved(design)
    nets = net_list(r)
    graph = joined(nets, closed=True)
    for p in r.placed:  # every contact closed, every lamp lit; a part's circuits are not joined by its body
        for x in said(p.part).lines.values():
            ways = [str(n) for n in range(1, p.part.ways + 1)] if x.each_position else [x.terminal]
            nx.add_path(graph, [Port(p.function.id, t) for t in (*ways, x.back, *(x.ends or ())) if t])
        for c in said(p.part).contacts:
            graph.add_edge(Port(p.function.id, c.a), Port(p.function.id, c.b))
    for d in nets.devices.values():
        if d.kind == "load":
            graph.add_edge(Port(d.id, "1"), Port(d.id, "2"))
    for d in nets.devices.values():
        if d.kind == "supply" and (d.value >= 50 or "L" in d.ports):
            reach = {p.device for t in d.ports if t != "PE" and Port(d.id, t) in graph
                     for p in nx.node_connected_component(graph, Port(d.id, t))}  # fmt: skip
            assert not {x for x in reach if nets.devices[x].kind in ("controller", "chip")}, d
    if any(breaks_power(p) and p.function.stop_role == "real" for p in r.placed):
        on = {f for f in fed(design, pressed=True) if not r.functions[f].switches.stays_on}
        assert on == set()


@settings(max_examples=60, deadline=None)
@given(panels())
def test_cross_sections_never_grow_on_the_way_from_a_supply(design: Design) -> None:
    r = Resolved(design)
    sizes, amps = areas(r), currents(r)
    for way in from_sources(r):
        for wire, before in way:
            if before is not None and amps.get(before, -1.0) >= amps.get(wire, 0.0) > 0:
                assert sizes[before] >= sizes[wire] - 1e-9, (before, wire)


@pytest.mark.parametrize("through", ["", "relay", "transistor"])
def test_a_fuse_counts_behind_every_contact_relay_and_stop(through: str) -> None:
    start = plate((LOAD, 30.0, 60.0), (STOP, 120.0, 60.0))
    design = made(start, supply(24, 20, "motor", fuse=20), function(1, volts=24, amps=2, through=through),
                  function(2, stop_role="real", through="contactor"))  # fmt: skip
    sizes = areas(Resolved(design))
    load = [w for w in runs(Resolved(design)) if w.start.device.endswith("-load") or w.end.device.endswith("-load")]
    assert len(load) >= 2 and all(carries(sizes[w.id]) >= 20 for w in load)  # there and back
    thin = made(design, {"do": "set_harness", "power_area": 0.22})
    [must] = found(thin, "wire.fuse-wire")
    assert must.severity == "must" and len(load) <= int(must.detail.split()[0])
    assert found(settled(thin, must), "wire.fuse-wire") == []


def test_a_breaker_behind_a_feed_makes_the_feed_no_thinner_than_what_follows() -> None:
    start = plate((LOAD, 30.0, 60.0), ("breaker-10", 110.0, 60.0))
    r = Resolved(made(start, supply(24, 5, "motor"), function(1, volts=24, amps=2), function(2, of="f1")))
    by_ends = {frozenset((w.start.device, w.end.device)): areas(r)[w.id] for w in runs(r)}
    feed, behind = by_ends[frozenset(("supply.motor", "f2"))], by_ends[frozenset(("f2", "f1"))]
    assert feed == behind == 2.5 and by_ends[frozenset(("f1", "f1.on-load"))] == 2.5


def test_mains_is_never_thinner_than_the_standard_and_its_metal_is_earthed() -> None:
    start = plate((LOAD, 30.0, 60.0), (LAMP, 120.0, 60.0))
    design = made(start, BOARD, function(1, volts=230, amps=0.5), function(2, volts=230, current="AC"),
                  {"do": "set_harness", "power_area": 0.22})  # fmt: skip
    r = Resolved(design)
    pieces = [p for p in laid(r) if p.wire.net.startswith(("230 V", "return of 230", "protective"))]
    assert pieces and min(p.area for p in pieces) >= 0.75
    [note] = found(design, "wire.mains-wiring")
    assert note.measured and note.measured.value >= 0.75 and "earth ends at 3" in note.detail
    earth = net_list(r).by_id["protective earth"].ports
    assert {p.device for p in earth} == {"supply.230-v-ac", "f1.on-load", "f1-earth", "f2-earth"}
    assert {p.colour for p in pieces if p.wire.kind == "earth"} == {"green-yellow"}
    nets = net_list(r)  # the pilot lamp hangs on a relay; its pin drives the coil alone
    assert nets.by_port[Port("f2.lamp-lamp-relay", "14")] == nets.by_port[Port("f2", "X1")]
    assert nets.by_port[Port("f2", "X2")].id == "return of 230 V AC"
    led = made(plate(("pilot-22", 60.0, 60.0)), BOARD, function(1, volts=120, current="AC"))
    [must] = found(led, "wire.unjoined")
    assert must.severity == "must" and "LED" in must.detail
