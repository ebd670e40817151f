"""One controller or several: counted by hand on small panels, and against the solver."""

from __future__ import annotations

from typing import Any

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import boards
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.topologies import holds, plugs_for, topologies


def halves(left: list[str], right: list[str]) -> Design:
    """Parts on two modules."""
    start = plate(*((part, 8.0 + 2 * n, 60.0) for n, part in enumerate((*left, *right))))
    outline = start.modules[0].outline.model_dump()
    commands: list[dict[str, Any]] = [{"do": "add_module", "id": "right", "name": "Right", "outline": outline}]
    for n in range(len(left) + 1, len(left) + len(right) + 1):
        commands.append({"do": "place", "function": f"f{n}", "module": "right", "x": 8.0 + 2 * n, "y": 60})
    return apply(start, BATCH.validate_python(commands), catalogue())


def test_each_way_is_counted_by_hand() -> None:
    ways = {way.name: way for way in topologies(Resolved(halves(["button-16"] * 20, ["led-5-bezel"] * 10)))}
    one, each, kinds = ways.values()
    # 30 lines want the large board; it sits at the left, ten lamps cross with 5 V and ground: a plug of 15.
    assert (one.boards, one.ports, one.crossing, one.plugs) == (((1, "ATmega2560, 70 pins"),), 1, 12, (15,))
    # 20 contacts and a reserve of a tenth do not go on 20 pins; the ten lamps do, and carry 100 of 150 mA.
    assert each.boards == ((1, "ATmega2560, 70 pins"), (1, "ATmega328P, 30 pins"))
    assert (each.crossing, each.plugs, each.ports) == (0, (), 2)
    assert kinds.boards == each.boards and kinds.crossing == 0
    both = {way.name: way for way in topologies(Resolved(halves(["button-16-lit"] * 4, ["button-16-lit"] * 3)))}
    # The lamps of the right, three, and its contacts, three, cross each with a supply and a ground of their own board.
    assert both["contacts on one, lamps and displays on another"].crossing == 2 * (3 + 2)
    crowd = {way.name: way for way in topologies(Resolved(halves(["button-16"] * 40, ["button-16"] * 40)))}
    assert "80 pins and the reserve" in crowd["one controller for all"].not_for
    assert crowd["one for each module"].boards == ((2, "ATmega2560, 70 pins"),)


@pytest.mark.parametrize(("wires", "plugs"), [(0, ()), (9, (9,)), (10, (15,)), (50, (50,)), (60, (50, 15))])
def test_plugs_are_the_next_that_there_are(wires: int, plugs: tuple[int, ...]) -> None:
    assert plugs_for(wires) == plugs


@pytest.mark.parametrize("kind", ["atmega328p-30", "atmega2560", "esp32", "rp2040"])
@pytest.mark.parametrize("parts", [["button-16"] * 12 + ["potentiometer"] * 3, ["potentiometer"] * 7,
                                   ["led-5-bezel"] * 9, ["display-16x2", "encoder-push", "button-16-lit"]])  # fmt: skip
def test_what_a_board_holds_by_count_the_solver_gives_pins(kind: str, parts: list[str]) -> None:
    start = plate(*((part, 8.0 + 2 * n, 60.0) for n, part in enumerate(parts)))
    design = apply(start, BATCH.validate_python([{"do": "add_controller", "board": kind}]), catalogue())
    r = Resolved(design)
    if holds(r, boards()[kind], lines(r)):  # type: ignore[index]
        assert solve(r).unfit == ()
    elif len(lines(r)) <= len(boards()[kind].pins) // 2:  # type: ignore[index]
        assert sum(line.analogue for line in lines(r)) > 3 or sum(line.chip_current for line in lines(r)) > 0.04


def test_why_a_way_cannot_be_is_said_of_what_is_short() -> None:
    def said(part: str, many: int, *raws: dict[str, Any]) -> set[str]:
        start = plate(*((part, 5.0 + 1.5 * n, 60.0) for n in range(many)))
        ways = topologies(Resolved(apply(start, BATCH.validate_python(raws), catalogue()) if raws else start))
        return {way.not_for for way in ways if way.name == "one controller for all"}

    assert said("button-16", 62) == {"all lines: 62 pins and the reserve, the largest board here has 68"}
    assert said("button-16", 61) == {""}  # a tenth of 68 is kept
    assert said("potentiometer", 17) == {"all lines: 17 pins that measure, ATmega2560, 70 pins has 16"}
    assert said("led-5-bezel", 16) == {"all lines: 160 mA at once, ATmega2560, 70 pins is planned with 150"}
    coder = ({"do": "add_controller", "board": "hid-32"},
             {"do": "edit_function", "function": "f1", "scheme": "coder"})  # fmt: skip
    assert said("rotary-12", 1, *coder) == {"all lines: an input coder wants a HID card beside it"}
