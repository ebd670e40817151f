"""Lamps that are sunk into a clear back get pockets, those on a board holes for wires, where there is room."""

from __future__ import annotations

import math
from typing import Any

import pytest

from building import found, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import PlacedCutout


def lit(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


def cut(design: Design, layer: str, what: str) -> list[PlacedCutout]:
    return [c for c in Resolved(design).modules["plate"].cutouts(layer) if what in c.owner]


@pytest.mark.parametrize(
    ("z", "back", "depths"),  # the sheets end at 2, 5 and 8 mm; a lamp stands 2 mm before its depth
    [
        (7.5, "clear", {"back": 2.5}),
        (7.0, "clear", {"back": None}),
        (5.5, "clear", {"back": None}),  # it may not go on into the diffuser
        (7.5, "opaque", {}),
        (10.0, "clear", {}),
    ],
)
def test_a_lamp_is_sunk_in_a_clear_back_only(z: float, back: str, depths: dict[str, float | None]) -> None:
    led = {"do": "add_leds", "module": "plate", "at": [{"x": 60, "y": 60}], "z": z}
    design = lit(plate(), {"do": "edit_layer", "layer": "back", "opacity": back}, led)
    assert [f.measured.value for f in found(design, "light.too-near") if f.measured] == (
        [] if ("back" in depths and z >= 7) or z == 10 else [z]
    )
    pockets = {layer: cut(design, layer, "Pocket of LED 1") for layer in ("face", "diffuser", "back")}
    assert {layer: c[0].depth for layer, c in pockets.items() if c} == pytest.approx(depths)
    assert all((c.x, c.y, c.shape.span) == (60, 60, (6.5, 6.5)) for found_in in pockets.values() for c in found_in)


def test_wires_pass_the_board_where_nothing_is_cut_already() -> None:
    strip = {"do": "add_strip", "module": "plate", "x": 40, "y": 30, "x2": 140, "y2": 30}
    board = {"do": "add_layer", "role": "board"}
    (hole,) = cut(lit(plate(), board, strip), "board", "Wires of strip 1")
    assert (hole.x, hole.y, hole.shape.span) == (37, 30, (5, 5))
    crowded = plate(("button-22", 25, 30))  # its body opens the board there
    assert not cut(lit(crowded, board, strip), "board", "Wires of strip 1")
    beside = lit(crowded, board, {**strip, "x": 50})
    (hole,) = cut(beside, "board", "Wires of strip 1")
    assert math.dist((hole.x, hole.y), (50, 30)) == pytest.approx(8)
    thin = [f.id for f in found(lit(crowded, board), "stack.board-bridge")]
    assert [f.id for f in found(beside, "stack.board-bridge")] == thin
    leds = {"do": "add_leds", "module": "plate", "at": [{"x": 60 + 8 * n, "y": 80} for n in range(5)]}
    many = lit(plate(), board, leds)
    holes = cut(many, "board", "Wires of LED")
    assert len(holes) == len({h.owner for h in holes}) > 1
    assert not found(many, "stack.board-bridge")
