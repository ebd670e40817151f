"""Loads however they are switched: the net list as a circuit, worked by hand on the control and by a pin.

The circuit is read by a logic written here alone: a coil pulls when its supply is across it, a transistor conducts when
its base is fed, as the data sheets have it; levels at a pin come from the resistors alone.
"""

from __future__ import annotations

from itertools import product
from typing import Any

import networkx as nx
import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.face.legend import letterings
from wingboard.core.overview.shopping import shopping_list
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.carrying import WAYS, carriers
from wingboard.core.wire.groups import every_wire, groups
from wingboard.core.wire.harness.laid import laid
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import NetList, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinfiles import named_pins
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.power.flow import flow

BOARDS = {"atmega328p": (5.0, 3.0), "rp2040": (3.3, 2.0), "esp32": (3.3, 2.475)}
"""Logic, and what a pin surely reads as high: 0.6 VCC (ATmega328P, DS40002061B table 28-1), 2.0 V (RP2040 data sheet,
table 624), 0.75 VDD (ESP32 data sheet, table 13); all three from memory."""


def made(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


def two_poles(amps: float = 10) -> Design:
    """A toggle with two poles, a part of the builder's own."""
    start = plate(("toggle-large-on-off", 40, 40))
    part = start.parts[0]
    first = part.lines[0]
    second = first.model_copy(update={"id": "on-2", "terminal": "5", "back": "4"})
    rating = part.rating.model_copy(update={"amps": amps}) if part.rating else None
    both = part.model_copy(update={"id": "mine", "lines": (first, second), "terminals": ("1", "2", "4", "5"),
                                   "rating": rating})  # fmt: skip
    functions = tuple(f.model_copy(update={"part": "mine"}) for f in start.functions)
    return start.model_copy(update={"parts": (both,), "functions": functions})


def switched(board: str = "atmega328p", volts: float = 24, amps: float = 1, **load: str) -> Design:
    """A load on that toggle, a board, a supply, every line with a pin."""
    said = {"volts": volts, "amps": amps, "current": "DC", **load}
    d = made(two_poles(), {"do": "add_supply", "id": "desk", "name": "Desk", "volts": volts, "amps": 10},
             {"do": "add_controller", "id": "it", "board": board},
             {"do": "edit_function", "function": "f1", **said})  # fmt: skip
    return d.model_copy(update={"pins": solve(Resolved(d)).pins})


class Circuit:
    """A net list with a control thrown or not and pins high or low: what is joined, found until nothing changes."""

    def __init__(self, nets: NetList, closed: bool, high: frozenset[Port]) -> None:
        self.nets, self.joined = nets, nx.Graph()
        self.joined.add_nodes_from(n.id for n in nets.nets)
        self.plus, self.ground = self.net("supply.desk", "+"), self.net("supply.desk", "-")
        if closed:
            for a, b in (("1", "2"), ("4", "5")):
                self.join(("f1", a), ("f1", b))
        sources = {nets.by_port[p].id for p in high if p in nets.by_port} | {self.plus}
        for _ in range(4):
            for d in nets.devices.values():
                if d.kind == "relay" and self.met(self.net(d.id, "A1"), {self.plus}) and self.low(self.net(d.id, "A2")):
                    self.join((d.id, "13"), (d.id, "14"))
                    if "23" in d.ports:
                        self.join((d.id, "23"), (d.id, "24"))
                if d.kind == "transistor" and self.met(self.net(f"{d.id}-rb", "1"), sources):
                    self.join((d.id, "C"), (d.id, "E"))

    def net(self, device: str, terminal: str) -> str:
        return self.nets.by_port[Port(device, terminal)].id

    def join(self, one: tuple[str, str], other: tuple[str, str]) -> None:
        if Port(*one) in self.nets.by_port and Port(*other) in self.nets.by_port:
            self.joined.add_edge(self.net(*one), self.net(*other))

    def met(self, net: str, others: set[str]) -> bool:
        return any(nx.has_path(self.joined, net, other) for other in others)

    def low(self, net: str) -> bool:
        return self.met(net, {self.ground})

    def load(self) -> bool:
        """Whether the load has its volts across it."""
        return self.met(self.net("f1.on-load", "1"), {self.plus}) and self.low(self.net("f1.on-load", "2"))

    def seen(self, logic: float, volts: float) -> float:
        """Volts at the pin that sees the load; the load itself is next to nothing beside the resistors."""
        line = next(line for line in ("f1.on-seen", "f1.on-2") if line in self.nets.by_id)
        if "f1.on-seen-high" not in self.nets.devices:
            return 0.0 if self.low(line) else logic  # a contact to ground, and the pull-up
        upper, lower = (self.nets.devices[f"f1.on-seen-{end}"].value for end in ("high", "low"))
        there = self.net("f1.on-seen-high", "1")
        over_load = self.net("f1.on-load", "1") if there == self.net("f1.on-load", "2") else there
        fed = not self.low(there) and self.met(over_load, {self.plus})
        return volts * lower / (upper + lower) if fed else 0.0


@pytest.mark.parametrize(("through", "driven"), WAYS)
@pytest.mark.parametrize("seen", ["", "pole", "auxiliary", "divider"])
def test_the_load_is_on_when_it_shall_be_and_the_pin_sees_it(through: str, driven: str, seen: str) -> None:
    if (seen == "auxiliary" and through not in ("relay", "contactor")) or (seen == "pole" and driven == "controller"):
        assert found(switched(through=through, driven=driven, seen=seen), "wire.unjoined")[0].severity == "must"
        return
    for board, (logic, surely_high) in BOARDS.items():
        d = switched(board, through=through, driven=driven, seen=seen)
        r = Resolved(d)
        nets = net_list(r)
        assert not nets.unsaid
        drive = next((p for p in d.pins if p.line == "f1.on-drive"), None)
        assert (drive is not None) == (driven == "controller")
        pin = Port(board_id("it"), drive.pin) if drive else None
        for closed, high in product((False, True), repeat=2):
            circuit = Circuit(nets, closed, frozenset([pin] if pin and high else ()))
            on = high if driven == "controller" else closed
            assert circuit.load() == on, (board, closed, high)
            if seen:
                level = circuit.seen(logic, 24.0)
                wants = closed if seen == "pole" else on
                # Closed to ground reads low; a divider before the load reads high while it has its volts.
                reads_high = wants if seen == "divider" and through != "transistor" else not wants
                assert level >= surely_high if reads_high else level == 0, (board, closed, level)
                assert circuit.seen(logic, 1.2 * 24.0) <= logic + 1e-9  # a battery that is being charged
        if seen:
            (mode,) = (n.mode for n in named_pins(r) if n.row.line in ("f1.on-seen", "f1.on-2"))
            no_pull_up = seen == "divider"
            assert mode == ("input" if no_pull_up else "input_pullup")


@pytest.mark.parametrize(("through", "driven"), WAYS[1:])
def test_a_diode_lies_across_whatever_may_be_a_coil_and_blocks_its_supply(through: str, driven: str) -> None:
    nets = net_list(Resolved(switched(through=through, driven=driven)))
    coil = ("f1.on-load", "1", "2") if through == "transistor" else ("f1.on-relay", "A1", "A2")
    diode = f"{coil[0]}-d"
    assert nets.by_port[Port(diode, "K")] == nets.by_port[Port(coil[0], coil[1])]
    assert nets.by_port[Port(diode, "A")] == nets.by_port[Port(coil[0], coil[2])]
    assert nets.by_port[Port(diode, "K")].id != nets.by_port[Port(diode, "A")].id
    rows = {row[0]: row[3] for row in shopping_list(Resolved(switched(through=through, driven=driven)))}
    assert any(name.startswith("Rectifier diode") for name in rows)


def test_what_turns_a_coil_on_bears_it() -> None:
    """5 mA into a base, 20 times that out of a small one: a contactor's coil of 3 W wants the larger one."""
    kinds = {
        (through, volts): net_list(Resolved(switched(volts=volts, through=through, driven="controller")))
        .devices["f1.on-q"]
        .value
        for through, volts in (("relay", 24), ("relay", 5), ("contactor", 24), ("contactor", 12))
    }
    assert kinds == {("relay", 24): 0.5, ("relay", 5): 0.5, ("contactor", 24): 5.0, ("contactor", 12): 5.0}


def test_ways_to_switch_a_load_cost_what_the_panel_then_has_and_one_press_takes_one_up() -> None:
    d = switched(seen="auxiliary", through="relay")
    ways, seen = carriers(Resolved(d), "f1")
    assert [(w.through, w.driven) for w in ways] == list(WAYS)
    bare = made(d, {"do": "edit_function", "function": "f1", "state": "dummy"})

    def counted(design: Design) -> tuple[int, int, int]:
        whole = design.model_copy(update={"pins": solve(Resolved(design)).pins})
        r = Resolved(whole)
        wires = every_wire(r)
        return len(lines(r)), sum(w.how == "wire" for w in wires), sum(2 if w.how == "wire" else 1 for w in wires)

    for way in ways:
        after = apply(d, way.commands, catalogue())
        found_now = next(w for w in carriers(Resolved(after), "f1")[0] if w.now)
        assert (found_now.through, found_now.driven) == (way.through, way.driven)
        assert (way.pins, way.wires, way.joints) == tuple(
            a - b for a, b in zip(counted(after), counted(bare), strict=True)
        )
        wanted = {line.id for line in lines(Resolved(after))}
        assert {p.line for p in after.pins} <= wanted  # no pin is left over
    assert [s.seen for s in seen if s.not_for] == []
    assert carriers(Resolved(bare), "f1") == ((), ())


@pytest.mark.parametrize(
    ("load", "code", "unit", "measured", "most"),
    [
        ({"amps": 16, "through": "relay"}, None, "", 0, 0),
        ({"amps": 16.1, "through": "relay"}, "wire.carrier-small", "A", 16.1, 16),
        ({"volts": 30.1, "through": "relay"}, "wire.carrier-small", "V", 30.1, 30),
        ({"amps": 2, "through": "transistor", "driven": "controller"}, "wire.transistor-hot", "W", 2.4, 1.5),
        ({"amps": 1.25, "through": "transistor"}, None, "", 0, 0),
        ({"amps": 2.1, "through": "transistor"}, "wire.carrier-small", "A", 2.1, 2),  # 5 mA, 400 times
        ({"amps": 0.1, "through": "transistor"}, None, "", 0, 0),
    ],
)
def test_what_carries_a_load_bears_it(load: Any, code: str | None, unit: str, measured: float, most: float) -> None:
    d = switched(**load)
    checks = ("wire.carrier-small", "wire.transistor-hot")
    first = [f for f in found(d, "wire.carrier-small") or found(d, "wire.transistor-hot") if f.code in checks]
    assert [f.code for f in first] == ([code] if code else [])
    for finding in first:
        assert finding.measured and finding.needed
        assert finding.measured.unit == unit
        assert (finding.measured.value, finding.needed.value) == pytest.approx((measured, most))
        assert not any(found(settled(d, finding), c) for c in checks)


def test_nothing_dangerous_hangs_on_a_program_or_lies_beside_what_a_pin_reads() -> None:
    mains = {"volts": 230, "amps": 3, "current": "AC"}
    by_program = made(switched(), {"do": "edit_function", "function": "f1", **mains, "through": "contactor",
                                   "driven": "controller"})  # fmt: skip
    (said,) = found(by_program, "wire.load-by-program")
    assert not found(settled(by_program, said), "wire.load-by-program")
    assert not found(switched(through="relay", driven="controller"), "wire.load-by-program")
    pole = made(switched(), {"do": "edit_function", "function": "f1", **mains, "seen": "pole"})
    (beside,) = found(pole, "wire.danger-beside-logic")
    assert not found(settled(pole, beside), "wire.danger-beside-logic")
    assert not found(switched(seen="pole"), "wire.danger-beside-logic")
    divided = made(switched(), {"do": "edit_function", "function": "f1", **mains, "seen": "divider"})
    (why,) = found(divided, "wire.unjoined")
    assert why.severity == "must" and "divider" in why.detail
    assert not any(line.divided for line in lines(Resolved(divided)))
    low = made(switched(), {"do": "edit_function", "function": "f1", "volts": 3.3, "seen": "divider"})
    assert "5 V and more" in found(low, "wire.unjoined")[0].detail
    high = {**mains, "through": "transistor", "driven": "controller"}
    on_ac = Resolved(made(switched(), {"do": "edit_function", "function": "f1", **high}))
    assert any("under 50 V" in said.words and said.wrong for said in net_list(on_ac).unsaid)
    assert "f1.on-q" not in net_list(on_ac).devices  # no pin is joined with what is on mains


def test_a_lamp_of_a_control_never_gets_the_volts_of_its_load() -> None:
    start = made(plate(("button-16-lit", 40, 40)), {"do": "add_controller", "id": "it", "board": "atmega328p"})
    alone = net_list(Resolved(start)).devices["f1.lamp-r"].value
    for load in ({"volts": 24, "amps": 1}, {"volts": 24, "amps": 1, "through": "relay"}, {"volts": 230, "amps": 1}):
        r = Resolved(made(start, {"do": "edit_function", "function": "f1", **load}))
        assert net_list(r).devices["f1.lamp-r"].value == alone
        assert not any(line.transistor for line in lines(r))


def test_currents_of_a_load_by_a_pin_are_those_of_its_coil_and_its_base() -> None:
    d = switched(volts=12, amps=2, through="relay", driven="controller")
    r = Resolved(d)
    taken = flow(r, "loads").sources
    assert taken[Port("supply.desk", "+")] == pytest.approx(2 + 0.4 / 12)
    pin = next(p.pin for p in d.pins if p.line == "f1.on-drive")
    assert taken[Port(board_id("it"), pin)] == pytest.approx(0.005)
    by_contact = flow(Resolved(switched(volts=12, amps=2, through="relay")), "loads").sources
    assert by_contact == {Port("supply.desk", "+"): pytest.approx(2 + 0.4 / 12)}
    notes = {row.terminal: row.note for row in pin_list(r)}
    assert notes["load"].startswith("high turns on")


@pytest.mark.parametrize(
    ("part", "words", "means"),
    [
        ("toggle-large-on-off", (), None),  # on and off need no words
        ("toggle-large-on-off", ("UP",), (1, 2)),
        ("toggle-large-on-off-on", ("INT", "OFF", "ON"), None),
        ("toggle-large-on-off-on", ("INT", "-", "ON"), None),
        ("toggle-large-on-off-on", ("INT", "", "ON"), (2, 3)),
        ("toggle-large-on-off-on", (), (0, 3)),
        ("rotary-12", ("A", "B", "C"), None),  # its stop is set behind the third
        ("rotary-12", ("A", "", "C"), (2, 3)),
        ("button-22", (), None),
    ],
)
def test_every_position_that_is_read_has_a_meaning_or_is_marked_unused(part: str, words: Any, means: Any) -> None:
    d = made(plate((part, 60, 60)), {"do": "edit_function", "function": "f1", "positions": words})
    findings = found(d, "wire.position-unmeant")
    assert [(f.measured and f.measured.value, f.needed and f.needed.value) for f in findings] == (
        [means] if means else []
    )
    for finding in findings:
        after = settled(d, finding)
        assert not found(after, "wire.position-unmeant")
        drawn = {word.run.text for letters in letterings(Resolved(after)).values() for word in letters.words}
        assert "-" not in drawn  # it is marked in the record, not on the plate


def test_a_word_alone_moves_no_pin() -> None:
    d = made(plate(("rotary-12", 60, 60)), {"do": "edit_function", "function": "f1", "positions": ["A", "B"]},
             {"do": "add_controller", "id": "it", "board": "atmega328p"})  # fmt: skip
    d = d.model_copy(update={"pins": solve(Resolved(d)).pins})
    renamed = made(d, {"do": "edit_function", "function": "f1", "positions": ["A", "C"]})
    assert renamed.pins == d.pins
    longer = made(d, {"do": "edit_function", "function": "f1", "positions": ["A", "B", "C"]})
    assert not longer.pins


def test_a_load_is_never_on_a_pin_that_flashes_at_reset_unless_it_is_put_there() -> None:
    d = switched(through="relay", driven="controller")
    assert next(p.pin for p in d.pins if p.line == "f1.on-drive") != "13"
    by_hand = made(d, {"do": "pin", "line": "f1.on-drive", "controller": "it", "pin": "13"})
    (said,) = found(by_hand, "wire.load-at-reset")
    assert said.severity == "judge"
    assert not found(settled(by_hand, said), "wire.load-at-reset")
    guarded = made(by_hand, {"do": "edit_function", "function": "f1", "risk": "guarded"})
    assert found(guarded, "wire.load-at-reset")[0].severity == "must"


def test_a_light_planned_at_less_than_full_is_dimmed_by_a_pin_that_can() -> None:
    start = made(plate(), {"do": "add_strip", "module": "plate", "kind": "strip-60", "x": 20, "y": 20, "x2": 150,
                           "y2": 20},
                 {"do": "add_leds", "module": "plate", "at": [{"x": 20, "y": 100}, {"x": 40, "y": 100}]},
                 {"do": "add_controller", "id": "it", "board": "atmega2560"})  # fmt: skip
    assert not found(start, "wire.light-undimmed")
    dim = made(start, {"do": "set_light", "module": "plate", "level": 0.4})
    (said,) = found(dim, "wire.light-undimmed")
    by_pin = settled(dim, said)
    by_pin = by_pin.model_copy(update={"pins": solve(Resolved(by_pin)).pins})
    assert not found(by_pin, "wire.light-undimmed")
    (given,) = by_pin.pins
    assert given.line == "~light-plate.dim"
    r = Resolved(by_pin)
    (row,) = pin_list(r)
    assert "PWM" in row.note and "no PWM" not in row.note  # it got a pin that can
    nets = net_list(r)
    q = next(d.id for d in nets.devices.values() if d.kind == "mosfet")
    drain = nets.by_port[Port(q, "D")]
    lit = {p.device for p in drain.ports} - {q}
    assert len(lit) == 2  # the strip, and the last LED of the row: nothing else ends on it
    assert nets.by_port[Port(q, "S")].id == "ground"
    legs = {(w.start.device, w.end.device) for w in every_wire(r) if w.how == "leg"}
    assert not any("strip" in one and "row" in other for one, other in legs)  # they lie far from each other
    (test,) = (g.test for g in groups(r) if "light behind" in g.title)
    assert "D and S of Q1 bridged" in test  # it is tried without a program
    amps = {"lamps": 0.4, "all": 1.0}
    whole = sum(flow(r, "all").sources.values())
    for state, share in amps.items():
        assert sum(flow(r, state).sources.values()) == pytest.approx(share * whole)  # type: ignore[arg-type]
    chain = made(plate(), {"do": "add_strip", "module": "plate", "kind": "chain-60", "x": 20, "y": 20, "x2": 150,
                           "y2": 20}, {"do": "set_light", "module": "plate", "level": 0.4})  # fmt: skip
    assert not found(chain, "wire.light-undimmed")  # its data dims it


def test_a_fix_for_a_lamp_never_gives_its_load_another_carrier() -> None:
    start = made(plate(("button-16-lit", 40, 40)), {"do": "add_controller", "id": "it", "board": "atmega328p"})
    part = start.parts[0]
    hungry = tuple(x.model_copy(update={"current": 0.05}) if x.does == "lamp" else x for x in part.lines)
    start = start.model_copy(update={"parts": (part.model_copy(update={"lines": hungry}),)})
    (alone,) = found(start, "wire.pin-current")
    assert not found(settled(start, alone), "wire.pin-current")
    loaded = made(start, {"do": "edit_function", "function": "f1", "volts": 24, "amps": 1, "through": "relay"})
    (said,) = found(loaded, "wire.pin-current")
    assert not said.fixable  # "through a transistor" would be said of what its contact switches


@pytest.mark.parametrize("driven", ["contact", "controller"])
def test_a_relay_stands_where_one_says_with_its_diode_soldered_to_it(driven: str) -> None:
    at_control = switched(through="relay", driven=driven)
    relay, said = "f1.on-relay", {"do": "stand", "x": 100, "y": -300, "behind": 200}
    devices = (relay, "f1.on-load", "supply.desk", board_id("it"))
    apart = made(at_control, *({**said, "device": device} for device in devices))
    further = made(apart, {**said, "device": relay, "y": -800})
    for d in (at_control, apart, further):
        r = Resolved(d)
        graph = nx.Graph((w.start, w.end) for w in every_wire(r))
        joined = {port for net in net_list(r).nets if len(net.ports) > 1 for port in net.ports}
        assert set(graph) >= joined
        assert all(nx.has_path(graph, net.ports[0], p) for net in net_list(r).nets for p in net.ports[1:])
        to_diode = [w for w in every_wire(r) if f"{relay}-d" in (w.start.device, w.end.device)]
        assert {w.how for w in to_diode if relay in (w.start.device, w.end.device)} == {"leg"}
        home = {places(r).home(Port(device, "")) for device in (relay, f"{relay}-d")}
        assert home == ({"plate"} if d is at_control else {""})
        if d is not at_control:
            assert all(relay in (w.start.device, w.end.device) for w in to_diode)
    metres = [sum(w.length for w in laid(Resolved(d)) if relay in (w.wire.start.device, w.wire.end.device))
              for d in (apart, further)]  # fmt: skip
    assert metres[1] > metres[0]
