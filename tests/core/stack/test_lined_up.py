"""Sheets are lined up by pins that go in one way round only, and the room before a board is closed all round."""

from __future__ import annotations

import math
from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.light.figures import night_of
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.across import section_of
from wingboard.core.stack.assembly import assembly
from wingboard.core.stack.bridges import thin_bridges
from wingboard.core.stack.hardware import hardware, hardware_list

PINS = {"do": "set_fixings", "module": "plate", "pins": 3}


def made(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


def test_pins_go_through_every_sheet_behind_the_face_and_fit_one_way_only() -> None:
    start = made(plate(("toggle-large-on-off", 22, 10), ("button-22", 140, 60)), PINS)
    r = Resolved(start)
    module = r.modules["plate"]
    (x1, y1), (x2, y2) = module.pins
    assert math.dist((x1, y1), (200 - x2, 120 - y2)) >= 4  # turned by 180° they do not meet
    for layer in module.stack:
        holes = [(c.x, c.y) for c in module.cutouts(layer.id) if "pin" in c.owner.lower()]
        assert holes == ([] if layer.role == "face" else [(x1, y1), (x2, y2)])
        names = {module.owner_name(o) for b in thin_bridges(r, module, layer) for o in (b.a, b.b) if o is not None}
        assert not any("pin" in name.lower() for name in names)
    hole = {"kind": "circle", "diameter": 6}
    by_hand = {
        "do": "add_feature",
        "module": "plate",
        "layer": "back",
        "reason": "cable",
        "x": x1,
        "y": y1,
        "shape": hole,
    }
    sunk = (
        {"do": "edit_layer", "layer": "back", "opacity": "clear"},
        {"do": "add_leds", "module": "plate", "at": [{"x": x1, "y": y1}], "z": 7.5},
    )
    for there in ((by_hand,), sunk):
        assert all(math.dist((x, y), (x1, y1)) >= 7.5 for x, y in Resolved(made(start, *there)).modules["plate"].pins)
    (pin,) = hardware(module).pins
    assert (pin.needed, pin.name, pin.many) == (6, "Dowel pin 3 × 6", 2)  # 3 + 3 mm
    assert ("Dowel pin 3 × 6", "the sheets lined up", 2) in hardware_list(r)
    (cut,) = [p for p in section_of(r, module, (0, y1), (200, y1)).pieces if p.kind == "pin"]
    assert (cut.t0, cut.t1, cut.z0, cut.z1) == pytest.approx((x1 - 1.5, x1 + 1.5, 2, 8))
    assert any("registration pins" in step.words for step in assembly(module))


def test_glued_sheets_without_screws_get_pins_where_there_is_room() -> None:
    bare = made(plate(), {"do": "edit_layer", "layer": "back", "join": "glue"})
    bare = made(bare, {"do": "set_fixings", "module": "plate", "corners": False})
    (finding,) = found(bare, "stack.glued-loose")
    after = settled(bare, finding)
    assert len(Resolved(after).modules["plate"].pins) == 2
    assert found(after, "stack.glued-loose") == []
    crowd = [("button-22", 12.0 + 22 * i, 12.0 + 96 * j) for i in range(9) for j in range(2)]
    full = made(plate(*crowd), PINS)
    assert Resolved(full).modules["plate"].pins == ()
    (finding,) = found(full, "stack.pins-no-room")
    assert found(settled(full, finding), "stack.pins-no-room") == []


def test_a_lit_room_is_closed_drawn_and_bought() -> None:
    lamp = {"do": "add_strip", "module": "plate", "x": 20, "y": 20, "x2": 120, "y2": 20}
    start = made(plate(("button-22", 100, 60)), {"do": "add_layer", "role": "board"}, lamp)
    start = made(start, {"do": "edit_layer", "layer": "back", "opacity": "clear"})
    opened = made(start, {"do": "edit_layer", "layer": "board", "edge": ""})
    assert found(start, "light.leaks") == []
    (finding,) = found(opened, "light.leaks")
    assert settled(opened, finding) == start
    assert found(made(opened, {"do": "set_case", "module": "plate"}), "light.leaks") == []
    r = Resolved(start)
    module = r.modules["plate"]
    (edging,) = hardware(module).edgings
    assert edging.long == pytest.approx(module.area_of(module.stack[-1]).length)
    left, right = sorted(p for p in section_of(r, module, (0, 60), (200, 60)).pieces if p.kind == "edging")
    assert (left.t0, left.t1, left.z0, left.z1) == pytest.approx((1, 6, 8, 23))  # 5 mm of foam inside the board's edge
    assert (right.t0, right.t1) == pytest.approx((194, 199))
    assert any("foam" in step.words.lower() for step in assembly(module))
    closed_night, open_night = (night_of(Resolved(d), Resolved(d).modules["plate"]) for d in (start, opened))
    assert closed_night is not None
    assert open_night is not None
    assert closed_night.map.thrown > open_night.map.thrown > 0
    assert closed_night.map.arrived == pytest.approx(open_night.map.arrived)
