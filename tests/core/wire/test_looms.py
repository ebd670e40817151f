"""Ways of wires by hand: trunks across and up, out at each side, boards behind, heavy currents, many contacts."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.files.diagram import Words
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.crib import crib_diagrams
from wingboard.core.wire.groups import every_wire, groups
from wingboard.core.wire.harness.bundles import looms
from wingboard.core.wire.harness.labels import every_label
from wingboard.core.wire.harness.laid import fixed, laid, way_of
from wingboard.core.wire.harness.oflines import wires_of_lines
from wingboard.core.wire.harness.pinout import pin_out
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import plugs
from wingboard.core.wire.harness.routes import trunks
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.wires import runs

Raw = dict[str, Any]


def made(design: Design, *commands: Raw) -> Design:
    return apply(design, BATCH.validate_python(commands), catalogue())


def wired(design: Design, *commands: Raw) -> Design:
    """With a large board, and pins for all lines."""
    design = made(design, {"do": "add_controller", "id": "it", "name": "Desk", "board": "atmega2560"}, *commands)
    return made(design, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(design)).pins]})


@pytest.mark.parametrize(
    ("trunk", "leaves", "at", "out"),
    [
        ("across", "bottom", 30.0, (100.0, 0.0)),
        ("across", "top", 30.0, (100.0, 120.0)),
        ("across", "left", 30.0, (0.0, 30.0)),
        ("across", "right", 30.0, (200.0, 30.0)),
        ("up", "bottom", 150.0, (150.0, 0.0)),
        ("up", "top", 150.0, (150.0, 120.0)),
        ("up", "left", 150.0, (0.0, 60.0)),
        ("up", "right", 150.0, (200.0, 60.0)),
    ],
)
def test_a_wire_goes_straight_to_the_trunk_along_it_and_out(
    trunk: str, leaves: str, at: float, out: tuple[float, float]
) -> None:
    loom = {"do": "edit_loom", "module": "plate", "trunk": trunk, "leaves": leaves, "at": at}
    r = Resolved(wired(plate(("button-16", 40.0, 90.0)), loom))
    assert trunks(r)["plate"].exit == out
    wire = next(w for w in runs(r) if w.kind == "signal")
    spot = places(r).spot(wire.start if wire.start.device == "f1" else wire.end)
    deep = spot.z - places(r).backs["plate"]
    joins = (spot.x, at) if trunk == "across" else (at, spot.y)
    way = abs(spot.x - joins[0]) + abs(spot.y - joins[1]) + abs(joins[0] - out[0]) + abs(joins[1] - out[1]) + deep
    assert way_of(r, wire).inside == {"plate": pytest.approx(way)}
    assert way_of(r, wire).outside == r.design.harness.away


def test_a_board_behind_its_module_needs_no_plug_and_its_wires_no_guess() -> None:
    start = wired(plate(("button-16", 40.0, 90.0), ("led-5-bezel", 160.0, 90.0)),
                  {"do": "edit_loom", "module": "plate", "signals": "dsub", "power": "strip"})  # fmt: skip
    assert len(plugs(Resolved(start))) == 1
    board = {"do": "mount_board", "module": "plate", "name": "Desk", "controller": "it", "width": 53, "height": 101,
             "x": 100, "y": 50}  # fmt: skip
    r = Resolved(made(start, board))
    assert plugs(r) == ()
    assert all(p.said for p in laid(r))
    spots = {terminal: places(r).spot(Port("board.it", terminal)) for terminal in ("13", "21", "22", "52")}
    assert all(spot.module == "plate" for spot in spots.values())
    assert spots["13"].y > spots["21"].y and spots["13"].x == spots["21"].x  # one row, from the plug down
    assert all(abs(spot.x - 100) < 27 and abs(spot.y - 50) < 51 for spot in spots.values())


def test_neighbours_are_joined_straight_and_others_by_the_loom() -> None:
    near = Resolved(plate(("button-16", 40.0, 60.0), ("button-16", 70.0, 60.0)))
    far = Resolved(plate(("button-16", 20.0, 60.0), ("button-16", 180.0, 60.0)))
    [one], [other] = runs(near), runs(far)
    assert way_of(near, one).straight and not way_of(far, other).straight
    assert way_of(near, one).inside["plate"] == pytest.approx(30.0)
    assert way_of(far, other).inside["plate"] > 160.0
    assert looms(near)[0].sections == () and looms(far)[0].sections[0].wires == 1


def test_a_heavy_current_takes_several_contacts_that_are_bridged() -> None:
    start = plate(("toggle-large-on-off", 30.0, 60.0), ("breaker-20", 90.0, 60.0))
    load = {"do": "edit_function", "function": "f1", "volts": 12, "amps": 14, "current": "DC"}
    shelf = {"do": "add_supply", "id": "it", "name": "12 V", "volts": 12, "amps": 20}
    loom = {"do": "edit_loom", "module": "plate", "signals": "dsub", "power": "strip"}
    design = made(start, load, {"do": "edit_function", "function": "f2", "of": "f1"}, shelf, loom)
    r = Resolved(design)
    [power] = plugs(r)
    many = [sum(w.id == wire.id for w in power.on.values()) for wire in power.on.values()]
    assert set(many) == {2}  # 14 A over contacts of 10
    bridges = [w for w in every_wire(r) if w.how == "bridge"]
    assert len(bridges) == len({w.id for w in power.on.values()})
    assert {c.colour for c in pin_out(r, power)} == {"white", "yellow"} or all(c.colour for c in pin_out(r, power))
    assert all(p.length == 0 for p in laid(r) if p.wire.how == "bridge")


def test_more_lines_than_a_plug_has_contacts_leave_by_two_and_a_punch_block_has_its_pairs() -> None:
    crowd = plate(*(("button-12", 8.0 + 6 * (n % 30), 20.0 + 30 * (n // 30)) for n in range(60)))
    r = Resolved(wired(crowd, {"do": "edit_loom", "module": "plate", "signals": "punch"}))
    both = plugs(r)
    assert [(p.kind, p.size, len(p.on)) for p in both] == [("punch", 50, 45), ("punch", 50, 16)]
    assert {p.key for p in both} != {None} and both[0].key != both[1].key
    cable = [p for p in laid(r) if p.wire.start.device == both[0].id]
    assert len({(p.colour, p.stripe) for p in cable}) == len(cable)  # each wire of 25 pairs is itself
    assert {p.stripe for p in laid(r) if p.wire.end.device == both[0].id} == {None}  # inside, the rules hold


def test_the_work_begins_in_the_modules_and_ends_with_the_cables() -> None:
    design = wired(plate(("button-16", 40.0, 60.0), ("potentiometer", 120.0, 60.0)),
                   {"do": "edit_loom", "module": "plate", "signals": "header"})  # fmt: skip
    steps = groups(Resolved(design))
    assert [bool(step.module) for step in steps] == sorted((bool(s.module) for s in steps), reverse=True)
    assert steps[-1].title.startswith("Cable of J1") and "The plug open" in steps[-1].test
    inside = [s for s in steps if s.module and {w.kind for w in s.wires} == {"signal"}]
    assert all(step.test.startswith("At the open plug") for step in inside)


def test_ends_are_fixed_as_their_terminals_are() -> None:
    design = wired(plate(("button-22", 30.0, 60.0), ("button-16", 70.0, 60.0), ("readout-4-digits", 130.0, 60.0),
                         ("toggle-large-on-off", 180.0, 60.0)))  # fmt: skip
    r = Resolved(design)
    ends = {"f1": "13", "f2": "NO", "f3": "DIN", "f4": "2"}
    assert [fixed(r, Port(f, t)) for f, t in ends.items()] == ["screw", "solder", "header", "tab"]
    texts = [text for piece, text in every_label(r)]
    assert len(texts) == 2 * sum(p.wire.how == "wire" for p in laid(r))
    [crib] = crib_diagrams(r)
    said = " ".join(shape.text for shape in crib.shapes if isinstance(shape, Words))
    assert all(f"{name}, " in said for name in ("F1", "F2", "F3", "F4"))


def test_a_line_has_the_wire_of_all_its_pieces_and_is_done_when_they_are() -> None:
    design = wired(plate(("button-16", 40.0, 60.0)), {"do": "edit_loom", "module": "plate", "signals": "dsub"})
    r = Resolved(design)
    [(line, whole)] = wires_of_lines(r).items()
    pieces = [p for p in laid(r) if p.wire.net == line]
    assert len(pieces) == 2 and whole.length == sum(p.length for p in pieces)
    assert (whole.plug_name, whole.contact, whole.lies) == ("J1", "1", "above")
    half = made(design, {"do": "set_soldered", "wires": [pieces[0].wire.id]})
    assert not wires_of_lines(Resolved(half))[line].soldered
    done = made(half, {"do": "set_soldered", "wires": [pieces[1].wire.id]})
    assert wires_of_lines(Resolved(done))[line].soldered


def test_fixes_of_power_settle_what_they_are_for() -> None:
    boards = [{"do": "add_controller", "board": "atmega328p-30"}] * 4
    ports = made(plate(("led-5-bezel", 30.0, 60.0)), *boards)
    [few] = found(ports, "wire.usb-ports")
    hub = settled(ports, few)
    assert hub.usb.hub == "powered" and found(hub, "wire.usb-ports") == []
    supply = {"do": "add_supply", "id": "it", "name": "5 V", "volts": 5, "amps": 6}
    bare = made(plate(("readout-4-digits", 30.0, 60.0)), supply)
    [open_] = found(bare, "wire.unfused")
    fused = settled(bare, open_)
    assert fused.workshop.supplies[0].fuse == 0.2  # 0.16 A and a quarter: the next of the series
    assert found(fused, "wire.unfused") == found(fused, "wire.fuse-load") == []
