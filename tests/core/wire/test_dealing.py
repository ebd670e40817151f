"""Pins as they are dealt: along the loom, ports not overloaded, and what is worked out once the same as anew."""

from __future__ import annotations

import math
import zipfile
from io import BytesIO

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from building import found, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import board_of, boards, rank
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.plugs import plugs
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.solve import solve
from wingboard.demo import demo_texts
from wingboard.services.archive import archive_of, files_of

LAMPS = st.lists(st.sampled_from([0.0, 0.005, 0.01, 0.02]), min_size=1, max_size=24)
"""Amperes of lamps in a row; nothing: a button between them."""


def row_of(amps: list[float], board: str) -> Design:
    """Lamps that take so much, each kind a part of its own, and buttons, in a row; one board."""
    names = ["button-16" if not a else "led-5-bezel" for a in amps]
    start = plate(*((name, 10.0 + 7.5 * n, 60.0) for n, name in enumerate(names)))
    led = catalogue()["led-5-bezel"]
    made = {
        a: led.model_copy(update={"id": f"led-{a:g}", "lines": (led.lines[0].model_copy(update={"current": a}),)})
        for a in set(amps) - {0.0}
    }
    functions = tuple(
        f.model_copy(update={"part": made[a].id}) if a else f for f, a in zip(start.functions, amps, strict=True)
    )
    design = start.model_copy(update={"functions": functions, "parts": (*start.parts, *made.values())})
    return apply(design, BATCH.validate_python([{"do": "add_controller", "id": "it", "board": board}]), catalogue())


@settings(max_examples=60, deadline=None)
@given(LAMPS, st.sampled_from(["atmega328p", "atmega2560"]))
def test_no_port_carries_more_than_it_may_however_the_lamps_stand(amps: list[float], board: str) -> None:
    design = row_of(amps, board)
    solved = solve(Resolved(design), seconds=5)
    assume(not solved.unfit)
    design = design.model_copy(update={"pins": solved.pins})
    assert not found(design, "wire.port-current")
    kind = board_of(design, board)
    by_id = {line.id: line for line in lines(Resolved(design))}
    for group in kind.groups:  # the sum of data sheets, once more by hand
        mine = [p for p in solved.pins if (pin := kind.pin(p.pin)) and kind.group(pin) == group]
        assert math.fsum(by_id[p.line].pin_current for p in mine) <= group.most + 1e-9


@settings(max_examples=40, deadline=None)
@given(st.integers(2, 24), st.sampled_from(["atmega328p", "atmega2560", "rp2040"]))
def test_alike_lines_never_cross(many: int, board: str) -> None:
    design = row_of([0.0] * many, board)
    solved = solve(Resolved(design), seconds=5)
    assume(not solved.unfit)
    places = rank(board_of(design, board))
    kind = board_of(design, board)
    alike: dict[tuple[object, ...], list[int]] = {}
    for p in sorted(solved.pins, key=lambda p: int(p.line.split(".")[0][1:])):  # as they stand, left to right
        pin = kind.pin(p.pin)
        assert pin is not None
        alike.setdefault((pin.analogue, pin.pwm, pin.interrupt, pin.flashes), []).append(places[p.pin])
    for row in alike.values():
        assert row == sorted(row)


def test_places_along_a_board_are_those_of_its_pads() -> None:
    for board in boards().values():
        places = rank(board)
        assert set(places) == {pin.name for pin in board.pins}
        plain = [places[pin.name] for pin in board.pins if not pin.coder]
        assert sorted(plain) == list(range(len(plain)))  # each its own, none left out
        for side in board.sides.values():
            mine = [places[pad] for pad in side if pad in places and not (board.pin(pad) or board.pins[0]).coder]
            assert mine == list(range(mine[0], mine[0] + len(mine))) if mine else True  # one beside the other


@pytest.mark.parametrize("name", ["dust-extraction"])
def test_an_archive_is_the_same_with_its_findings_known_before(name: str) -> None:
    design = read_design(demo_texts()[name], catalogue())
    known = review(Resolved(design))
    content = archive_of(design, known)
    assert content == archive_of(design)
    with zipfile.ZipFile(BytesIO(content)) as archive:
        names = archive.namelist()
    shares = [made for share in ("sheets", "drawings") for made, _ in files_of(design, share)]
    assert names == shares and len(set(names)) == len(names)
    assert any(made.startswith("cut/coupons/") for made in names) and "wire/wiring-sheet.pdf" in names


def test_a_plug_is_straight_from_the_loom_to_the_pads() -> None:
    """Alike lines: along the loom, along the contacts of their plug and along the board in one and the same order."""
    design = row_of([0.0] * 20, "atmega2560")
    more = [{"do": "edit_loom", "module": "plate", "signals": "dsub"}]
    design = apply(design, BATCH.validate_python(more), catalogue())
    design = design.model_copy(update={"pins": solve(Resolved(design), seconds=5).pins})
    r = Resolved(design)
    (plug,) = (p for p in plugs(r) if p.carries == "signals")
    on = [(n, f"{wire.start.device} {wire.end.device}") for n, wire in plug.on.items() if wire.kind == "signal"]
    order = [int(next(d for d in ends.split() if d.startswith("f"))[1:]) for _, ends in on]
    assert order == sorted(order) and len(order) == 20
    places = rank(board_of(design, "atmega2560"))
    by_line = {p.line: places[p.pin] for p in design.pins}
    pads = [by_line[f"f{n}.press"] for n in order]
    assert pads == sorted(pads)


def test_what_dims_a_light_is_no_chain_of_data() -> None:
    raws: list[dict[str, object]] = [
        {"do": "add_strip", "module": "plate", "kind": "strip-60", "x": 20, "y": 20, "x2": 150, "y2": 20},
        {"do": "set_light", "module": "plate", "dimmer": True},
        {"do": "add_controller", "id": "it", "board": "rp2040"},
    ]
    dimmed = apply(plate(), BATCH.validate_python(raws), catalogue())
    assert not found(dimmed, "wire.chain-level")  # 3.3 V opens the transistor; only a chain reads levels
    chain = apply(plate(), BATCH.validate_python([{**raws[0], "kind": "chain-60"}, raws[2]]), catalogue())
    assert found(chain, "wire.chain-level")
