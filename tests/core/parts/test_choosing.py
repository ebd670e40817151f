"""Candidates and what they cost here, parts that do not suit, and how many there are to buy."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.judgement import SetLimit
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import RemoveItems, SetPocket, TurnItems
from wingboard.core.changes.commands.workshop import SetOnHand
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.choosing import Candidate, candidates, pins_of, wires_of
from wingboard.core.parts.counting import SHOPPING, counts, shopping_rows
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function
from wingboard.core.record.modules import THREE_LAYERS
from wingboard.core.record.shapes import Rect
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.profile import cutouts
from wingboard.core.wire.lines import lines

PARTS = catalogue()


def ways(design: Design | None = None, **function: Any) -> tuple[Candidate, ...]:
    """The candidates for a function on a plate."""
    wanted = Function.model_validate({"id": "f9", "name": "It", **function})
    return candidates(Resolved(design or plate()), wanted, PARTS.values(), most=200)


# Trade: seven positions: 7 inputs and 7 wires + common; a ladder 1 analogue; a coder 2 wires; an encoder 2, +1 push.
COSTS = [
    ("rotary-12", 7, "direct", (7, 0), 8),
    ("rotary-12", 7, "ladder", (0, 1), 3),
    ("rotary-12-coder", 7, "direct", (1, 1), 4),
    ("encoder-plain", 0, "direct", (2, 0), 3),
    ("encoder-push", 0, "direct", (3, 0), 4),
    ("encoder-dual", 0, "direct", (5, 0), 6),
    ("potentiometer", 0, "direct", (0, 1), 3),
    ("toggle-large-on-off", 2, "direct", (1, 0), 2),
    ("toggle-large-on-off-on", 3, "direct", (2, 0), 3),
    ("button-16-lit", 0, "direct", (2, 0), 3),
    ("led-5-bezel", 0, "direct", (1, 0), 2),
    ("readout-8-digits", 0, "direct", (3, 0), 5),
    ("display-16x2", 0, "direct", (2, 0), 4),
    ("breaker-10", 0, "direct", (0, 0), 2),
]


@pytest.mark.parametrize(("part", "positions", "scheme", "pins", "wires"), COSTS, ids=[f"{x[0]} {x[2]}" for x in COSTS])
def test_pins_and_wires(part: str, positions: int, scheme: Any, pins: tuple[int, int], wires: int) -> None:
    digital, analogue = pins_of(PARTS[part], positions or PARTS[part].ways, scheme)
    assert (digital, analogue) == pins
    assert wires_of(PARTS[part], digital + analogue, scheme) == wires


def test_a_ladder_chosen_is_a_ladder_wired() -> None:
    design = plate(("rotary-12", 100, 60), commands=(EditFunction(function="f1", positions=tuple("ABCDEFG")),))
    assert len(lines(Resolved(design))) == 7
    ladder = apply(design, (EditFunction(function="f1", scheme="ladder"),), PARTS)
    (line,) = lines(Resolved(ladder))
    assert (line.id, line.analogue) == ("f1.way-ladder", True)
    dummy = apply(design, (EditFunction(function="f1", state="dummy"),), PARTS)
    assert lines(Resolved(dummy)) == ()


@pytest.mark.parametrize(
    ("want", "first"),
    [
        ("push button", "button"),
        ("push button lit green", "button"),
        ("guarded toggle", "toggle"),
        ("rotary", "rotary"),
        ("knob", "pot"),
        ("caption amber", "caption"),
        ("gauge 52", "gauge"),
        ("read-out 3 digits", "readout"),
        ("4 digit display", "readout"),
        ("slider", "slider"),
        ("breaker 10 A", "breaker"),
    ],
)
def test_what_is_wanted_comes_first(want: str, first: str) -> None:
    found_ways = ways(want=want)
    assert found_ways[0].part.family == first
    fitting = [bool(w.misfits) for w in found_ways]
    assert fitting == sorted(fitting)


@pytest.mark.parametrize(
    ("want", "part"),
    [
        ("push button lit white 22", "button-22-lit"),
        ("gauge 85", "gauge-85"),
        ("read-out 3 digits", "readout-3-digits"),
        ("4 digit display", "readout-4-digits"),
        ("red lamp 12 V", "pilot-16"),
        ("green lamp 12 V", "pilot-16"),  # it can be had in any colour
        ("rotary 3 positions", "rotary-12-stop-3"),
        ("rotary 4 positions", "rotary-12-stop-6"),
        ("breaker 10 A", "breaker-10"),
        ("rotary 10 ways", "rotary-10"),
        ("small toggle springs back", "toggle-small-momentary"),
    ],
)
def test_words_tell_apart_what_one_family_holds(want: str, part: str) -> None:
    best = [w.part.id for w in ways(want=want) if w.scheme == "direct" and not w.misfits]
    assert best[0] == part


MISFITS: list[tuple[str, dict[str, Any], tuple[Command, ...], str, str]] = [
    (
        "too few positions",
        {"want": "rotary", "positions": list("ABCDEFGHIJKL")},
        (),
        "rotary-8",
        "8 positions, 12 wanted",
    ),
    ("thread too short", {"want": "toggle"}, (EditLayer(layer="back", thickness=9),), "toggle-small-on-off", "thread"),
    ("too deep", {"want": "gauge"}, (SetBrief(depth=50),), "gauge-79", "too deep"),
    ("clips", {"want": "rocker"}, (), "rocker-round-20", "takes 0.8 to 2.5 mm of sheet, the stack is 8"),
    ("amperes", {"want": "toggle", "switches": {"amps": 8, "volts": 12}}, (), "toggle-small-on-off", "switches 3 A"),
    ("volts", {"want": "toggle", "switches": {"amps": 1, "volts": 48}}, (), "toggle-small-on-off", "for 24 V"),
    ("guard", {"want": "toggle", "risk": "guarded"}, (), "toggle-large-on-off", "has no guard"),
]


@pytest.mark.parametrize(("function", "commands", "part", "why"), [m[1:] for m in MISFITS], ids=[m[0] for m in MISFITS])
def test_why_a_part_does_not_fit(function: dict[str, Any], commands: tuple[Command, ...], part: str, why: str) -> None:
    way = next(w for w in ways(plate(commands=commands), **function) if w.part.id == part)
    assert any(why in misfit for misfit in way.misfits)


def test_the_figures_are_those_of_this_panel() -> None:
    way = next(w for w in ways(want="toggle") if w.part.id == "toggle-large-on-off")
    assert way.depth_left == 90 - way.depth
    assert way.room == PARTS["toggle-large-on-off"].hand.shape.span[0] + 19  # type: ignore[union-attr]
    wider = apply(plate(), (SetLimit(limit="toggle-spacing", value=30, reason="gloves"),), PARTS)
    assert next(w for w in ways(wider, want="toggle") if w.part.id == way.part.id).room == way.room + 11


def load(amps: float, volts: float) -> EditFunction:
    """What F1 switches."""
    return EditFunction.model_validate({"function": "f1", "amps": amps, "volts": volts})


STOP = EditFunction(function="f1", name="Emergency stop", risk="emergency")
NINE = (RemoveItems(functions=("f1",)), EditFunction(function="f1", positions=tuple("ABCDEFGHI")))
SUITED: list[tuple[str, str, tuple[Command, ...], str | None]] = [
    ("parts.overloaded", "toggle-small-on-off", (), None),
    ("parts.overloaded", "toggle-small-on-off", (load(5, 12),), "must"),
    ("parts.overloaded", "toggle-large-on-off", (load(5, 12),), None),
    ("parts.overloaded", "toggle-large-on-off", (load(1, 48),), "must"),
    ("parts.breaker-rating", "breaker-5", (load(4.2, 0),), "must"),
    ("parts.breaker-rating", "breaker-5", (load(4, 0),), None),
    ("parts.state-unseen", "button-22-latching", (), "judge"),
    ("parts.state-unseen", "button-16-lit-latching", (), "judge"),
    ("parts.state-unseen", "button-22-latching", (EditFunction(function="f1", indicator="lamp"),), None),
    ("parts.state-unseen", "button-22-latching", (AddFunction(name="L", of="f1"),), None),
    ("parts.state-unseen", "button-22", (), None),
    ("parts.state-unseen", "emergency-stop-22", (), None),
    ("parts.way-up", "readout-4-digits", (TurnItems(functions=("f1",), by=90),), "must"),
    ("parts.way-up", "readout-4-digits", (TurnItems(functions=("f1",), by=360),), None),
    ("parts.way-up", "rotary-12", (TurnItems(functions=("f1",), by=90),), None),
    ("parts.digits-hidden", "readout-4-digits", (EditFunction(function="f1", digits=3),), "judge"),
    ("parts.digits-hidden", "readout-4-digits", (EditFunction(function="f1", digits=5),), "must"),
    ("parts.digits-hidden", "readout-4-digits", (EditFunction(function="f1", digits=4),), None),
    ("parts.sheet-range", "rocker-27x12", (), "must"),
    ("parts.sheet-range", "device-bought", (), None),
    ("parts.sheet-range", "device-bought", (EditLayer(layer="back", thickness=9),), "must"),
    ("parts.positions-short", "rotary-8", NINE, "judge"),
    ("parts.emergency-kind", "button-22", (STOP,), "judge"),
    ("parts.emergency-kind", "emergency-stop-22", (STOP,), None),
    ("parts.spares-short", "caption-two-lamp", (SetOnHand(part="caption-two-lamp", count=1),), "judge"),
    ("parts.spares-short", "caption-two-lamp", (SetOnHand(part="caption-two-lamp", count=2),), None),
    ("parts.spares-short", "caption-two-lamp", (), None),
]  # fmt: skip


@pytest.mark.parametrize(
    ("code", "part", "commands", "severity"), SUITED, ids=[f"{s[0]} {n}" for n, s in enumerate(SUITED)]
)
def test_parts_that_do_not_suit_are_said_and_settled(
    code: str, part: str, commands: tuple[Command, ...], severity: str | None
) -> None:
    design = plate((part, 100, 60), commands=commands)
    findings = found(design, code)
    assert [f.severity for f in findings] == ([severity] if severity else [])
    if findings and offered(design, findings[0]):
        assert found(settled(design, findings[0]), code) == []


@pytest.mark.parametrize(
    ("digits", "width", "right"), [(None, 50.0, 0.0), (4, 50.0, 0.0), (3, 37.3, 6.35), (1, 11.9, 19.05)]
)
def test_hidden_digits_make_the_window_narrower_and_off_centre(digits: int | None, width: float, right: float) -> None:
    cuts = cutouts(PARTS["readout-4-digits"], THREE_LAYERS, digits=digits)
    window = next(cut for cut in cuts if cut.purpose == "window")
    assert isinstance(window.shape, Rect)
    assert window.shape.width == pytest.approx(width)
    assert window.x == pytest.approx(right)
    assert {cut.x for cut in cuts if cut.purpose == "recess"} == {0.0}


def test_an_off_centre_display_keeps_its_body_where_it_is() -> None:
    part = PARTS["display-graphic-28"]
    design = plate(("display-graphic-28", 100, 60), commands=(TurnItems(functions=("f1",), by=90),))
    bodies = Resolved(design).panel.bodies.shapes
    x0, y0, x1, y1 = bodies.bounds[0]
    assert ((x0 + x1) / 2, (y0 + y1) / 2) == pytest.approx((100.5, 60.5 + part.behind_x))
    recess = [cut for cut in Resolved(design).modules["plate"].cutouts("back") if cut.purpose == "recess"]
    assert (recess[0].x, recess[0].y) == pytest.approx((100, 60 + part.behind_x))


def test_samples_are_bought_first() -> None:
    lamps = [("led-5-bezel", 30.0 + 30 * n, 60.0) for n in range(3)]
    design = plate(*lamps)
    assert len(found(design, "parts.sample-first")) == 1
    assert found(apply(design, (SetOnHand(part="led-5-bezel", count=1),), PARTS), "parts.sample-first") == []
    assert found(plate(lamps[0]), "parts.sample-first") == []


def test_the_shopping_list_counts_spares_and_what_is_on_hand() -> None:
    three = [("caption-two-lamp", 30.0 + 40 * n, 60.0) for n in range(3)]
    design = plate(*three, ("button-22", 100, 20), commands=(SetOnHand(part="caption-two-lamp", count=2),))
    captions, button = counts(Resolved(design))
    assert (captions.used, captions.needed, captions.on_hand, captions.to_buy) == (3, 6, 2, 4)
    assert captions.cost == 4 * PARTS["caption-two-lamp"].price
    assert (button.to_buy, button.cost_used) == (1, (150, 400))
    rows = [dict(zip(SHOPPING, row, strict=True)) for row in shopping_rows(Resolved(design))]
    assert rows[0]["to buy"] == "4"
    assert rows[0]["together"] == f"{captions.cost / 100:.2f}"
    aliased = apply(design, (EditFunction(function="f4", state="alias", of="f1"),), PARTS)
    assert len(counts(Resolved(aliased))) == 1


def test_another_part_takes_nothing_over_that_belonged_to_the_old_one() -> None:
    seated = plate(("toggle-large-on-off", 60, 60), commands=(SetPocket(function="f1", depth=0.8),))
    other = apply(seated, (ChoosePart(function="f1", part="button-22"),), catalogue())
    assert (seated.functions[0].pocket, other.functions[0].pocket) == (0.8, 0.0)
    assert other.functions[0].place == seated.functions[0].place
