"""Where current goes: by Kirchhoff on a graph of its own, by hand on a chain and a star; and what the checks say."""

from __future__ import annotations

from typing import Any

import networkx as nx
import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.comparing import options
from wingboard.core.wire.drawn import drawn, from_usb
from wingboard.core.wire.harness.gauge import RHO, awg, awg_diameter, carries, carrying, ohms
from wingboard.core.wire.harness.laid import areas, laid, losses, way_of
from wingboard.core.wire.harness.plugs import plugs
from wingboard.core.wire.harness.totals import totals
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.power.draws import LOADS_ON, STATES, draws, passages
from wingboard.core.wire.power.flow import currents, flow, levels
from wingboard.core.wire.power.tree import Node, every_node, fuse_for, heat_of, power_tree
from wingboard.core.wire.wires import runs
from wingboard.demo import demo_texts

READOUT, LOAD = "readout-4-digits", "toggle-large-on-off"
Raw = dict[str, Any]


def demo_design() -> Design:
    """The invented tram desk."""
    return read_design(demo_texts()["kestrel-line-9"], catalogue())


def made(design: Design, *commands: Raw) -> Design:
    return apply(design, BATCH.validate_python(commands), catalogue())


def supply(volts: float, amps: float, ident: str = "it", **more: Any) -> Raw:
    return {"do": "add_supply", "id": ident, "name": f"{volts:g} V", "volts": volts, "amps": amps, **more}


def load(n: int, volts: float, amps: float, **more: Any) -> Raw:
    return {"do": "edit_function", "function": f"f{n}", "volts": volts, "amps": amps, "current": "DC", **more}


def readouts(many: int, *commands: Raw) -> Design:
    return made(plate(*((READOUT, 20.0 + 50 * n, 60.0) for n in range(many))), supply(5, 6), *commands)


# The American gauges (ASTM B258, table 1, rounded to micrometres) and copper (IEC 60028).
@pytest.mark.parametrize(
    ("number", "mm"), [(10, 2.588), (18, 1.024), (20, 0.812), (24, 0.511), (30, 0.255), (36, 0.127)]
)
def test_american_gauges_are_those_of_the_standard(number: int, mm: float) -> None:
    assert awg_diameter(number) == pytest.approx(mm, abs=0.0006)
    assert awg(3.14159 / 4 * mm * mm) == number


def test_copper_is_that_of_the_standard_and_wires_carry_what_they_are_chosen_for() -> None:
    assert pytest.approx(1 / 58, rel=2e-4) == RHO  # IEC 60028: 1/58 Ω·mm²/m at 20 °C
    assert ohms(1000.0, 1.0) == pytest.approx(0.01724)
    for amps in (0.02, 1.0, 1.01, 4.0, 9.0, 12.0):
        assert carries(carrying(amps).area) >= amps


def test_in_a_chain_the_first_piece_carries_all_and_each_further_one_less() -> None:
    r = Resolved(readouts(3))
    plus = next(n for n in net_list(r).nets if n.kind == "supply")
    carried = sorted(round(currents(r)[w.id], 3) for w in runs(r) if w.net == plus.id)
    assert carried == [0.16, 0.32, 0.48]
    star = Resolved(made(readouts(3), {"do": "edit_module", "module": "plate", "feeds": "star"}))
    assert sorted(round(currents(star)[w.id], 3) for w in runs(star) if w.net == plus.id) == [0.16] * 3


def test_the_loss_of_one_part_is_twice_length_times_current_over_the_cross_section() -> None:
    r = Resolved(readouts(1))
    [fed] = losses(r)
    there, back = (next(w for w in runs(r) if Port("f1", t) in (w.start, w.end)) for t in ("VCC", "GND"))
    length = sum(sum(way_of(r, w).inside.values()) + way_of(r, w).outside for w in (there, back))
    assert fed.lost == pytest.approx(0.01724 * length / 1000 * 0.16 / 0.22, rel=0.01)
    assert areas(r)[there.id] == 0.22


@pytest.mark.parametrize("state", STATES)
def test_every_wire_carries_what_a_graph_of_its_own_says(state: str) -> None:
    r = Resolved(demo_design())
    result = flow(r, state)  # type: ignore[arg-type]
    graph: nx.MultiGraph = nx.MultiGraph()
    for wire in runs(r):
        graph.add_edge(wire.start, wire.end, key=wire.id)
    for way in passages(r, state):  # type: ignore[arg-type]
        graph.add_edge(way.start, way.end, key=f"{way.start} {way.end}")
    into: dict[Port, float] = {}
    for fed in result.fed:
        for port, amps in ((fed.source, fed.draw.amps), (fed.draw.into, -fed.draw.amps),
                           (fed.draw.out, fed.draw.amps), (fed.back, -fed.draw.amps)):  # fmt: skip
            into[port] = into.get(port, 0.0) + amps
    tried = 0
    for wire in runs(r):
        if wire.kind == "signal" and wire.id not in result.wires:
            continue
        graph.remove_edge(wire.start, wire.end, key=wire.id)
        if not nx.has_path(graph, wire.start, wire.end):  # the only way: what is behind it goes through it
            behind = nx.node_connected_component(graph, wire.end)
            assert result.wires.get(wire.id, 0.0) == pytest.approx(abs(sum(into.get(p, 0.0) for p in behind)), abs=1e-6)
            tried += 1
        graph.add_edge(wire.start, wire.end, key=wire.id)
    assert tried > 100
    assert len(result.fed) == len(draws(r, state))  # type: ignore[arg-type]


def test_the_tree_takes_from_each_supply_what_everything_on_it_draws() -> None:
    r = Resolved(demo_design())
    roots = power_tree(r)
    for s in r.design.workshop.supplies:
        node = next(n for n in roots if n.id == f"supply.{s.id}")
        assert node.full == pytest.approx(drawn(r, s.volts))
        assert node.full == pytest.approx(sum(leaf.amps["all"] for leaf in every_node((node,)) if not leaf.children))
    assert len({n.id for n in every_node(roots)}) == len(list(every_node(roots)))


def test_a_bridge_divides_current_as_the_handbook_says() -> None:
    """Wheatstone's: 1 A in at A, out at C; arms of 1 to 4 Ω, 5 Ω across; and a tail. By both loops (Kirchhoff)."""
    a, b, c, d, e = (Port("x", letter) for letter in "abcde")
    edges = [(a, b, 1.0), (b, c, 2.0), (a, d, 3.0), (d, c, 4.0), (b, d, 5.0), (e, a, 10.0)]
    volts = levels(edges, {e: 1.0, c: -1.0})
    across = (volts[b] - volts[d]) / 5
    one, three = (volts[a] - volts[b]) / 1, (volts[a] - volts[d]) / 3
    assert one + three == pytest.approx(1.0)
    assert across == pytest.approx(one - (volts[b] - volts[c]) / 2)
    assert across == pytest.approx((2 * 3 - 1 * 4) / (5 * (1 + 2 + 3 + 4) + (1 + 3) * (2 + 4)))
    assert volts[e] - volts[a] == pytest.approx(10.0)


@pytest.mark.parametrize("scheme", ["direct", "shift", "expander"])
def test_lamps_are_fed_whatever_drives_them(scheme: str) -> None:
    start = plate(*(("led-5-bezel", 20.0 + 20 * n, 60.0) for n in range(5)), ("pilot-22", 150.0, 60.0))
    ways = ({"do": "edit_function", "function": f"f{n}", "scheme": scheme} for n in range(1, 7))
    board = {"do": "add_controller", "id": "it", "board": "atmega2560"}
    design = made(start, *ways, board, supply(12, 1), {"do": "edit_function", "function": "f6", "volts": 12})
    design = made(design, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(design)).pins]})
    r = Resolved(design)
    assert len(flow(r, "lamps").fed) == len(draws(r, "lamps")) > 5


def branch(design: Design, kind: str) -> Node:
    return next(n for n in every_node(power_tree(Resolved(design))) if n.kind == kind)


def test_a_load_hangs_behind_its_switch_and_its_breaker() -> None:
    start = plate((LOAD, 30.0, 60.0), ("breaker-5", 90.0, 60.0))
    design = made(start, supply(12, 10), load(1, 12, 3), {"do": "edit_function", "function": "f2", "of": "f1"})
    breaker = branch(design, "breaker")
    assert (breaker.full, breaker.most) == (3.0, 5.0)
    assert [n.kind for n in every_node((breaker,))] == ["breaker", "switch", "load"]
    quiet = {state: amps for state, amps in breaker.amps.items() if state not in LOADS_ON}
    assert set(quiet.values()) == {0.0}


def test_a_regulator_takes_from_the_supply_before_it() -> None:
    linear = made(plate((READOUT, 20.0, 60.0)), supply(12, 3, "twelve"),
                  supply(5, 1, "five", made_from="twelve", linear=True))  # fmt: skip
    r = Resolved(linear)
    twelve = next(n for n in power_tree(r) if n.id == "supply.twelve")
    [five] = [n for n in every_node((twelve,)) if n.kind == "regulator"]
    assert twelve.full == pytest.approx(0.16)
    assert heat_of(r, five, 12.0) == pytest.approx(7 * 0.16)
    assert flow(r, "all").sources[Port("supply.twelve", "+")] == pytest.approx(0.16)
    assert [f.measured.value for f in found(linear, "wire.regulator-hot") if f.measured] == [pytest.approx(1.12)]
    weak = made(linear, {"do": "edit_supply", "supply": "twelve", "amps": 0.19})
    [short] = found(weak, "wire.supply-short")  # what hangs on the regulator hangs on the supply before it
    assert short.subjects == ("twelve",) and short.measured and short.measured.value == pytest.approx(0.16)
    assert found(made(linear, {"do": "edit_supply", "supply": "twelve", "amps": 0.21}), "wire.supply-short") == []
    switched = made(linear, {"do": "edit_supply", "supply": "five", "linear": False})
    assert branch(switched, "supply").full == pytest.approx(0.16 * 5 / 12 / 0.85)
    assert found(switched, "wire.regulator-hot") == []
    assert found(made(linear, {"do": "edit_supply", "supply": "twelve", "volts": 6.9}), "wire.regulator-headroom")
    assert found(made(linear, {"do": "edit_supply", "supply": "twelve", "volts": 7.0}), "wire.regulator-headroom") == []


def test_a_stop_that_is_the_power_switch_breaks_its_supply() -> None:
    start = plate((LOAD, 30.0, 60.0), ("emergency-stop-22", 120.0, 60.0))
    stop = {"do": "edit_function", "function": "f2", "stop_role": "power", "volts": 24}
    design = made(start, supply(24, 10), load(1, 24, 2), stop)
    nets = net_list(Resolved(design))
    assert nets.by_port[Port("supply.it", "+")] == nets.by_port[Port("f2", "11")]
    assert nets.by_port[Port("f2", "12")] == nets.by_port[Port("f1", "1")]
    assert branch(design, "stop").full == 2.0
    unsaid = made(start, supply(24, 10), supply(12, 2, "other"), load(1, 24, 2), {**stop, "volts": 0})
    assert any("which supply it breaks" in u.words for u in net_list(Resolved(unsaid)).unsaid)


def loaded(amps: float, gives: float = 20.0, **more: Any) -> Design:
    return made(plate((LOAD, 30.0, 60.0)), supply(12, gives, **more), load(1, 12, amps))


def test_fuses_are_a_quarter_over_their_load_and_wires_outlast_them() -> None:
    assert fuse_for(1.0) == 1.25
    assert found(loaded(4.0, fuse=5.0), "wire.fuse-load") == []
    [close] = found(loaded(4.01, fuse=5.0), "wire.fuse-load")
    assert close.severity == "judge"
    [over] = found(loaded(5.1, fuse=5.0), "wire.fuse-load")
    assert over.severity == "must"
    assert found(loaded(4.0, fuse=5.0), "wire.unfused") == found(loaded(4.0, fuse=5.0), "wire.fuse-wire") == []
    assert found(loaded(4.0), "wire.unfused")
    assert found(loaded(4.0, gives=4.5), "wire.unfused") == []  # what carries 4.5 A is behind it
    thin = {"do": "set_harness", "power_area": 0.5}  # carries 4.5 A
    assert found(made(loaded(3.0, fuse=5.0), thin), "wire.fuse-wire")
    assert found(made(loaded(3.0, fuse=4.0), thin), "wire.fuse-wire") == []
    assert found(made(loaded(4.51, fuse=4.0), thin), "wire.overloaded")
    assert found(made(loaded(4.49, fuse=4.0), thin), "wire.overloaded") == []


def test_what_loses_too_much_is_said_and_thicker_wire_or_a_star_is_offered() -> None:
    away = {"do": "set_harness", "power_area": 0.22, "away": 2000}
    chain = readouts(3, away)
    [loss] = found(chain, "wire.drop")
    worst = max(f.lost for f in losses(Resolved(chain)))
    assert loss.measured and loss.measured.value == pytest.approx(100 * worst / 5)
    better = settled(chain, loss)
    assert found(better, "wire.drop") == []
    assert better.modules[0].feeds == "star" or (better.harness.power_area or 0) > 0.22
    assert found(readouts(3, {**away, "power_area": 1.5}), "wire.drop") == []


def test_cold_bulbs_take_ten_times_theirs() -> None:
    bulb = made(plate(("pilot-22-bulb", 30.0, 60.0)), {"do": "edit_function", "function": "f1", "volts": 24})
    amps = next(line.current for part in bulb.parts for line in part.lines if line.bulb)
    board = {"do": "add_controller", "id": "it", "board": "atmega2560"}
    design = made(bulb, supply(24, 10 * amps / 1.5 + 0.001), board)
    pins = [p.model_dump() for p in solve(Resolved(design)).pins]
    design = made(design, {"do": "set_pins", "pins": pins})
    assert branch(design, "supply").inrush == pytest.approx(10 * amps)
    assert found(design, "wire.inrush") == []
    assert found(made(design, {"do": "edit_supply", "supply": "it", "amps": 10 * amps / 1.5 - 0.001}), "wire.inrush")


def test_ports_hubs_and_cables_are_those_of_the_specification() -> None:
    boards = [{"do": "add_controller", "board": "atmega328p-30"}] * 3
    design = made(plate(("led-5-bezel", 30.0, 60.0)), *boards)
    assert found(design, "wire.usb-ports")
    hub = made(design, {"do": "set_usb", "hub": "unpowered", "hub_ports": 2})
    assert found(hub, "wire.usb-ports") == found(hub, "wire.usb-hub") == []  # 50 mA each
    lamps = made(plate(*(("led-5-bezel", 12.0 + 12 * n, 60.0) for n in range(8))), *boards)
    pins = [p.model_dump() for p in solve(Resolved(lamps)).pins]
    lit = made(lamps, {"do": "set_pins", "pins": pins}, {"do": "set_usb", "hub": "unpowered", "ports": 1})
    assert len(found(lit, "wire.usb-hub")) == 1  # 50 mA and eight lamps of 10
    assert found(made(lit, {"do": "set_usb", "hub": "powered"}), "wire.usb-hub") == []
    assert found(made(design, {"do": "set_usb", "cable": 5001}), "wire.usb-cable")
    assert found(made(design, {"do": "set_usb", "cable": 5000}), "wire.usb-cable") == []


@pytest.mark.parametrize(("share", "said"), [(1.21, True), (1.19, False), (0.51, False), (0.49, True)])
def test_what_the_ammeter_says_is_held_against_the_estimate(share: float, said: bool) -> None:
    read = {"do": "edit_supply", "supply": "it", "measured": 0.48 * share}
    assert bool(found(made(readouts(3), read), "wire.measured-off")) is said


def test_a_strip_behind_is_wired_fed_and_counted_and_a_chain_has_its_data() -> None:
    strips = [{"do": "add_strip", "module": "plate", "kind": "chain-60", "x": 10, "y": y, "x2": 190, "y2": y}
              for y in (20, 90)]  # fmt: skip
    board = {"do": "add_controller", "id": "it", "board": "esp32"}
    leds = {"do": "add_leds", "module": "plate", "at": [{"x": 20 + 20 * n, "y": 50} for n in range(5)]}
    design = made(plate(("led-5-bezel", 30.0, 60.0)), supply(5, 3), supply(12, 1, "twelve"), board, *strips, leds)
    pins = [p.model_dump() for p in solve(Resolved(design)).pins]
    r = Resolved(made(design, {"do": "set_pins", "pins": pins}))
    nets = net_list(r)
    first, second = "light.plate.strip-1", "light.plate.strip-2"
    assert any(p.device == "board.it" for p in nets.by_port[Port(first, "DIN")].ports)
    assert nets.by_port[Port(first, "DOUT")] == nets.by_port[Port(second, "DIN")]
    assert nets.by_port[Port(first, "+")].kind == "supply"
    five = next(n for n in power_tree(r) if n.id == "supply.it")
    assert five.amps["white"] == pytest.approx(2 * 10 * 0.06)  # ten whole LEDs in 180 mm of each, 60 mA each
    rows = [d for d in nets.devices.values() if d.kind == "resistor" and d.of == "light.plate"]
    assert len(rows) == 2  # three LEDs, and two
    assert found(r.design, "wire.chain-level")
    assert found(made(design, {"do": "remove_controller", "controller": "it"}), "wire.chain-level") == []


def test_what_can_kill_is_apart_in_nets_colours_and_plugs() -> None:
    """230 V AC: line and neutral, brown and blue (IEC 60446), on a strip of their own; nothing of it on ground."""
    start = plate((LOAD, 30.0, 60.0), ("breaker-10", 90.0, 60.0), ("button-16", 150.0, 60.0))
    heat = {"do": "edit_function", "function": "f1", "volts": 230, "amps": 5, "current": "AC"}
    board = {"do": "add_controller", "id": "it", "board": "atmega2560"}
    plugs_too = {"do": "edit_loom", "module": "plate", "signals": "dsub", "power": "strip"}
    design = made(start, heat, {"do": "edit_function", "function": "f2", "of": "f1"}, board, plugs_too)
    design = made(design, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(design)).pins]})
    r = Resolved(design)
    colours = {p.wire.net: p.colour for p in laid(r) if p.wire.how == "wire"}
    assert colours["230 V AC"] == "brown" and colours["return of 230 V AC"] == "blue"
    assert {colours[net] for net in colours if net.startswith("f1") or net.endswith(".fed")} == {"brown"}
    assert [(p.carries, p.kind) for p in plugs(r)] == [("signals", "dsub"), ("mains", "strip")]
    ground = net_list(r).by_id["ground"]
    assert not {"f1", "f2"} & {p.device for p in ground.ports}
    mains = next(p for p in plugs(r) if p.carries == "mains")
    others = {w.net for w in plugs(r)[0].on.values()}
    assert not others & {w.net for w in mains.on.values()}
    [root] = [n for n in power_tree(r) if n.kind == "supply"]
    assert (root.name, root.full, root.volts) == ("a supply of 230 V AC", 5.0, 230.0)


def test_a_long_chain_is_fed_again_and_each_place_carries_its_share() -> None:
    strips = [{"do": "add_strip", "module": "plate", "kind": "chain-60", "x": 5, "y": y, "x2": 195, "y2": y}
              for y in range(10, 111, 12)]  # fmt: skip
    r = Resolved(made(plate(("button-16", 100.0, 60.0)), supply(5, 10), *strips))
    nets = net_list(r)
    plus = [Port(d.id, t) for d in nets.devices.values() if d.kind == "light" for t in d.ports if t.startswith("+")]
    assert len(plus) == 9 + 1  # nine strips of eleven LEDs; fed in again before the 51st, within the fifth strip
    assert Port("light.plate.strip-5", "+7") in plus
    assert all(nets.by_port[port].id == "5 V" for port in plus)
    shares = {d.into: d.amps for d in draws(r, "white")}
    assert sum(shares[port] for port in plus) == pytest.approx(99 * 0.06)
    assert shares[Port("light.plate.strip-5", "+7")] == pytest.approx(11 * 0.06 / 2)
    dimmed = Resolved(made(r.design, {"do": "set_light", "module": "plate", "level": 0.25}))
    assert sum(d.amps for d in draws(dimmed, "lamps")) == pytest.approx(99 * 0.06 / 4)


def test_a_star_loses_less_than_a_chain_and_costs_more_wire() -> None:
    chain = Resolved(readouts(3, {"do": "set_harness", "power_area": 0.22}))
    star = Resolved(made(chain.design, {"do": "edit_module", "module": "plate", "feeds": "star", "returns": "star"}))
    assert max(f.lost for f in losses(star)) < max(f.lost for f in losses(chain))
    assert totals(star).metres > totals(chain).metres


SMALL = (
    (READOUT, 30.0, 60.0),
    ("led-5-bezel", 80.0, 60.0),
    ("button-22-lit", 120.0, 60.0),
    ("potentiometer", 160.0, 60.0),
)


@pytest.mark.parametrize("scheme", ["direct", "shift", "expander"])
def test_a_board_takes_from_usb_what_its_branch_of_the_tree_says(scheme: str) -> None:
    """Two ways to the same figure: the check's count of what hangs on a board, and the currents of the nets."""
    ways = ({"do": "edit_function", "function": f"f{n}", "scheme": scheme} for n in (2, 3))
    design = made(plate(*SMALL), {"do": "add_controller", "id": "it", "board": "atmega2560"}, *ways)
    design = made(design, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(design)).pins]})
    for each in (design, demo_design()):
        r = Resolved(each)
        boards = {node.id: node.full for node in every_node(power_tree(r)) if node.kind == "board"}
        assert len(boards) == len(each.controllers)
        for controller in each.controllers:
            assert boards[f"board.{controller.id}"] == pytest.approx(from_usb(r, controller.id).total)


def test_everything_that_takes_current_is_somewhere_in_the_tree_once() -> None:
    r = Resolved(demo_design())
    for state in STATES:
        leaves = [n for n in every_node(power_tree(r)) if n.kind in ("lamps", "light", "parts", "load", "coil")]
        assert sum(n.amps[state] for n in leaves) == pytest.approx(sum(f.draw.amps for f in flow(r, state).fed))
    names = {n.name for n in every_node(power_tree(r))}
    assert {"light behind, Left module", "what Saloon heat switches", "fuse 8 A"} <= names


def test_on_a_plug_the_same_lines_are_two_pieces_each() -> None:
    bare = made(plate(*SMALL), {"do": "add_controller", "id": "it", "board": "atmega2560"})
    bare = made(bare, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(bare)).pins]})
    loom = {"do": "edit_loom", "module": "plate", "signals": "dsub", "power": "strip"}
    for function in ("f2", "f4"):
        [one] = [o for o in options(Resolved(bare), [function]) if o.scheme == "direct"]
        [two] = [o for o in options(Resolved(made(bare, loom)), [function]) if o.scheme == "direct"]
        assert two.pins == one.pins and two.diodes == one.diodes
        assert two.wires > one.wires and two.joints - one.joints == 2 * (two.wires - one.wires)
