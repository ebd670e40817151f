"""What a builder says of supplies, boards and wire, command by command: kept, undone by its opposite, never half."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.tree import every_node, power_tree

Raw = dict[str, Any]


def made(design: Design, *commands: Raw) -> Design:
    return apply(design, BATCH.validate_python(commands), catalogue())


def supply(ident: str, volts: float, **more: Any) -> Raw:
    return {"do": "add_supply", "id": ident, "name": f"{volts:g} V", "volts": volts, "amps": 3, **more}


BASE = made(
    plate(("readout-4-digits", 30.0, 60.0)),
    supply("mains", 24),
    supply("middle", 12, made_from="mains"),
    supply("low", 5, made_from="middle"),
)


def test_a_row_of_regulators_is_a_branch_of_the_tree_and_each_takes_from_the_one_before() -> None:
    roots = power_tree(Resolved(BASE))
    [mains] = [n for n in roots if n.kind == "supply"]
    row = [n for n in every_node((mains,)) if n.kind in ("supply", "regulator")]
    assert [n.id for n in row] == ["supply.mains", "supply.middle", "supply.low"]
    amps = [0.16 * 5 / 12 / 0.85 * 12 / 24 / 0.85, 0.16 * 5 / 12 / 0.85, 0.16]
    assert [n.full for n in row] == pytest.approx(amps)
    nets = net_list(Resolved(BASE))
    assert nets.by_port[Port("supply.low", "IN")] == nets.by_port[Port("supply.middle", "+")]
    assert nets.by_port[Port("supply.middle", "IN")] == nets.by_port[Port("supply.mains", "+")]
    assert len({nets.by_port[Port(f"supply.{s}", "-")].id for s in ("mains", "middle", "low")}) == 1


@pytest.mark.parametrize(
    ("command", "words"),
    [
        ({"do": "edit_supply", "supply": "mains", "made_from": "low"}, "24 V would be made from itself"),
        ({"do": "edit_supply", "supply": "low", "made_from": "low"}, "5 V would be made from itself"),
        ({"do": "edit_supply", "supply": "low", "made_from": "gone"}, "no supply “gone” in the workshop"),
    ],
)
def test_no_supply_is_made_from_itself_or_from_what_is_not_there(command: Raw, words: str) -> None:
    with pytest.raises(DesignError) as refused:
        made(BASE, command)
    assert words in str(refused.value) and refused.value.path == "commands[0].made_from"


def test_taking_a_supply_away_leaves_what_was_made_from_it_to_stand_alone() -> None:
    less = made(BASE, {"do": "remove_from_workshop", "kind": "supplies", "id": "middle"})
    assert {s.id: s.made_from for s in less.workshop.supplies} == {"mains": None, "low": None}
    free = made(BASE, {"do": "edit_supply", "supply": "low", "made_from": None})
    assert free.workshop.supplies[2].made_from is None
    kept = made(BASE, {"do": "edit_supply", "supply": "low", "amps": 2})
    assert kept.workshop.supplies[2].made_from == "middle"


def test_of_two_supplies_alike_the_one_that_stands_by_itself_feeds_the_parts() -> None:
    both = made(BASE, supply("own", 5))
    assert (
        net_list(Resolved(both)).by_port[Port("f1", "VCC")] == net_list(Resolved(both)).by_port[Port("supply.own", "+")]
    )
    assert Port("supply.low", "+") not in net_list(Resolved(both)).by_port
    other = made(BASE, {"do": "edit_supply", "supply": "low", "volts": 9})
    unfed = net_list(Resolved(other))
    assert any("no supply of 5 V" in missing.words for missing in unfed.unsaid)


def test_what_is_said_of_harness_and_usb_changes_that_and_nothing_else() -> None:
    said = made(BASE, {"do": "set_harness", "slack": 30, "power_area": 1.5}, {"do": "set_usb", "hub": "powered"})
    assert (said.harness.slack, said.harness.power_area, said.harness.strip) == (30, 1.5, BASE.harness.strip)
    assert (said.usb.hub, said.usb.ports, said.usb.cable) == ("powered", BASE.usb.ports, BASE.usb.cable)
    back = made(
        said, {"do": "set_harness", "slack": BASE.harness.slack, "power_area": None}, {"do": "set_usb", "hub": "none"}
    )
    assert back == BASE
    loom = made(BASE, {"do": "edit_loom", "module": "plate", "at": 40, "signals": "dsub"})
    assert (loom.modules[0].loom.at, loom.modules[0].loom.signals, loom.modules[0].loom.trunk) == (40, "dsub", "across")
    assert made(loom, {"do": "edit_loom", "module": "plate", "at": None, "signals": None}) == BASE
    there = made(BASE, {"do": "stand", "device": "supply.low", "x": 1, "y": 2},
                 {"do": "stand", "device": "supply.low", "x": 5, "y": 6, "behind": 7})  # fmt: skip
    assert [(s.x, s.y, s.behind) for s in there.harness.standing] == [(5, 6, 7)]
    assert made(there, {"do": "forget_standing", "device": "supply.low"}) == BASE


def test_an_absurd_harness_is_reckoned_all_the_same() -> None:
    """Kilometres of slack, a trunk beside its module, hair-thin supplies: figures and findings, never a failure."""
    wild = made(
        BASE,
        {"do": "set_harness", "slack": 5000, "strip": 5000, "away": 5000, "ties": 20, "spare": 100, "power_area": 0.05},
        {"do": "edit_loom", "module": "plate", "at": -4000, "service": 5000, "signals": "punch", "power": "header"},
        {"do": "stand", "device": "supply.low", "x": -5000, "y": 5000, "behind": 5000},
        {"do": "edit_supply", "supply": "low", "amps": 1000, "fuse": 1000, "measured": 1000},
        {"do": "add_wire", "colour": "red", "area": 0.05, "metres": 10_000, "count": 1000},
    )
    codes = {f.code for code in ("wire.fuse-wire", "wire.measured-off", "wire.wire-short") for f in found(wild, code)}
    assert codes == {"wire.fuse-wire", "wire.measured-off", "wire.wire-short"}
    assert not any("judged" in f.title for f in found(wild, "wire.drop"))
