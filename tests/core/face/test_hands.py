"""Hands and eyes: what is out of reach, points another way, is scattered, under a guard, too small or unnamed."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import PlacedAt, adding, found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.arrange import LockItems
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.places import MoveItems, PlacePart, TurnItems
from wingboard.core.face.reach import ARC_MINUTE, beyond, cap_needed, sight, zones
from wingboard.core.face.sweep import lever_ways, off_direction, sweeps_on
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.procedures import Procedure
from wingboard.core.resolved.design import Resolved

ON_OFF = ("ON", "OFF")


def edit(fn: str, **changes: Any) -> EditFunction:
    """A change of one function."""
    return EditFunction.model_validate({"function": fn, **changes})


def brief(**changes: Any) -> SetBrief:
    """A change of the brief."""
    return SetBrief.model_validate(changes)


# Height by distance, h = 2·d·tan(α/2): MIL-STD-1472 (from memory) has 3.3 mm at 710 mm for 16 minutes of arc.
@pytest.mark.parametrize(
    ("distance", "minutes", "mm"), [(710, 16, 3.3), (710, 20, 4.13), (500, 16, 2.33), (1000, 22, 6.4)]
)
def test_legend_height_by_distance_is_the_published_one(distance: float, minutes: float, mm: float) -> None:
    seen = sight(Resolved(plate(commands=(brief(eye_distance=distance, eye_height=0),))))
    assert seen is not None
    assert seen.foreshortening == pytest.approx(1)
    assert cap_needed(seen, minutes) == pytest.approx(mm, abs=0.02)
    assert cap_needed(seen, minutes) == pytest.approx(2 * distance * math.tan(minutes * ARC_MINUTE / 2))


@pytest.mark.parametrize(
    ("pitch", "height", "off_square"), [(0, 0, 0), (30, 0, 30), (30, 300, 0), (0, 300, 30), (90, 0, 87.13)]
)
def test_a_pitched_panel_is_foreshortened(pitch: float, height: float, off_square: float) -> None:
    seen = sight(Resolved(plate(commands=(brief(eye_distance=600, eye_height=height, pitch=pitch),))))
    assert seen is not None
    assert seen.off_square == pytest.approx(off_square, abs=0.1)
    assert seen.foreshortening == pytest.approx(max(0.05, math.cos(math.radians(off_square))), abs=0.01)


def test_words_too_small_for_the_eye_are_said_and_set_larger() -> None:
    far = brief(eye_distance=900, eye_height=100)
    design = plate(("rotary-12", 60, 60), ("button-22", 140, 60), commands=(edit("f1", positions=("A", "B")), far))
    (finding,) = found(design, "face.legend-small")
    assert finding.subjects == ("f1", "f2")
    assert found(settled(design, finding), "face.legend-small") == []
    assert found(plate(("rotary-12", 60, 60)), "face.legend-small") == []
    lens = plate(("caption-two-lamp", 60, 60), commands=(far,))
    (small,) = found(lens, "face.lens-small")
    assert offered(lens, small) is None


# Control spacing (MIL-STD-1472, from memory): toggles 19, push buttons 13, knobs 25, edge to edge.
@pytest.mark.parametrize(
    ("part", "mm"),
    [
        ("toggle-large-on-off", 19),
        ("toggle-small-on-off", 19),
        ("button-16", 13),
        ("button-22", 13),
        ("rotary-12", 25),
        ("potentiometer", 25),
    ],
)
def test_controls_of_a_kind_keep_the_published_distance(part: str, mm: float) -> None:
    hand = catalogue()[part].hand
    assert hand is not None
    wide = hand.shape.span[0]
    for gap, speaks in ((mm - 0.5, True), (mm + 0.1, False)):
        design = plate((part, 60, 60), (part, 60 + wide + gap, 60))
        assert bool(found(design, "face.fingers-close")) is speaks


STOP: PlacedAt = ("emergency-stop-22", 100, 60)


@pytest.mark.parametrize(
    ("eye", "free", "out"), [(500, "both", False), (900, "both", True), (500, "left", False), (None, "both", False)]
)
def test_an_emergency_stop_is_within_first_reach(eye: float | None, free: str, out: bool) -> None:
    design = plate(STOP, commands=(brief(eye_distance=eye, eye_height=200, free_hand=free),))
    assert [f.severity for f in found(design, "face.emergency-out-of-reach") if f.severity == "must"] == ["must"] * out
    outside = beyond(Resolved(design), Resolved(design).placed[0])
    assert (outside is None) is (eye is None)
    # In the middle of a small panel at 710 mm, the distance that legends are made for, it is in reach.
    (leaning,) = found(plate(STOP, commands=(brief(eye_distance=710),)), "face.emergency-out-of-reach")
    assert (leaning.severity, leaning.title) == ("note", "Reached by leaning forward")
    everyday = plate(("button-22", 100, 60), commands=(brief(eye_distance=900, eye_height=200),))
    assert found(everyday, "face.emergency-out-of-reach") == []


def test_the_zones_on_the_plate_are_what_the_straight_line_reaches() -> None:
    design = plate(STOP, commands=(brief(eye_distance=500, eye_height=200, pitch=25),))
    r = Resolved(design)
    for zone in zones(r):
        edge = apply(
            design,
            (PlacePart(function="f1", module="plate", x=zone.x + zone.radius - 0.5, y=zone.y - 0.5),),
            catalogue(),
        )
        outside = beyond(Resolved(edge), Resolved(edge).placed[0], zone.name)
        assert outside is not None
        assert outside <= 0.05 or len(zones(r)) > 2
    assert {z.hand for z in zones(r)} == {"left", "right"}
    assert zones(Resolved(plate(STOP))) == ()


OFFS = [
    ("toggle-large-on-off", (), 0, 270),
    ("toggle-large-on-off", ON_OFF, 0, 270),
    ("toggle-large-on-off", ("OFF", "ON"), 0, 90),
    ("toggle-large-on-off", ON_OFF, 90, 0),
    ("toggle-large-on-off", ("HIGH", "LOW"), 0, None),
    ("toggle-large-on-off-on", ("A", "OFF", "B"), 0, None),
    ("rotary-12", ON_OFF, 0, None),
    ("rocker-27x12", (), 180, 90),
]


@pytest.mark.parametrize(("part", "words", "turn", "off"), OFFS)
def test_where_a_lever_points_when_off(part: str, words: tuple[str, ...], turn: float, off: float | None) -> None:
    design = plate((part, 100, 60), commands=(edit("f1", positions=words), TurnItems(functions=("f1",), by=turn)))
    assert off_direction(Resolved(design).placed[0]) == off


FOUR: list[PlacedAt] = [("toggle-large-on-off", 40.0 + 30 * n, 60.0) for n in range(4)]
GROUP = tuple(edit(f"f{n}", group="G") for n in range(1, 5))


def test_the_odd_one_of_a_group_is_turned_round() -> None:
    design = plate(*FOUR, commands=(*GROUP, edit("f3", positions=("OFF", "ON"))))
    (finding,) = found(design, "face.off-ways-differ")
    assert finding.subjects == ("f3",)
    assert found(settled(design, finding), "face.off-ways-differ") == []
    assert found(plate(*FOUR, commands=GROUP), "face.off-ways-differ") == []
    two = plate(*FOUR[:2], commands=(*GROUP[:2], edit("f2", positions=("OFF", "ON"))))
    assert found(two, "face.off-ways-differ") == []


def bus(fn: str, name: str) -> EditFunction:
    """Hang a function on a bus."""
    return EditFunction(function=fn, bus=name)


@pytest.mark.parametrize(
    ("buses", "speaks"),
    [("AABB", False), ("ABAB", True), ("ABBA", True), ("AAAA", False), ("A--A", True), ("A--B", False)],
)
def test_a_bus_is_not_scattered(buses: str, speaks: bool) -> None:
    commands = tuple(bus(f"f{n}", name) for n, name in enumerate(buses, 1) if name != "-")
    assert bool(found(plate(*FOUR, commands=commands), "face.bus-scattered")) is speaks


SWEEPS = [
    ("in order", ("f1", "f2", "f3", "f4"), 0),
    ("backwards in order", ("f4", "f3", "f2", "f1"), 0),
    ("there and back", ("f1", "f3", "f2", "f4"), 1),
    ("two only", ("f1", "f4"), 0),
]


@pytest.mark.parametrize(("steps", "jumps"), [s[1:] for s in SWEEPS], ids=[s[0] for s in SWEEPS])
def test_a_sweep_goes_one_way(steps: tuple[str, ...], jumps: int) -> None:
    procedure = adding(Procedure(id="down", name="Shut down", steps=steps))
    design = plate(*FOUR, commands=(procedure,))
    findings = found(design, "face.sweep-broken")
    assert [f.measured.value for f in findings if f.measured] == ([jumps] if jumps else [])
    if findings:
        assert found(settled(design, findings[0]), "face.sweep-broken") == []


def test_a_gap_in_a_sweep_is_a_jump_too() -> None:
    spots = [*FOUR[:3], ("toggle-large-on-off", 190.0, 60.0)]
    procedure = adding(Procedure(id="p", name="P", steps=("f1", "f2", "f3", "f4")))
    r = Resolved(plate(*spots, commands=(procedure,)))
    (sweep,) = sweeps_on(r, r.modules["plate"])
    assert [(a.function.id, b.function.id) for a, b in sweep.gaps] == [("f3", "f4")]


COVERS: list[tuple[str, list[PlacedAt], str | None]] = [
    ("two knobs", [("rotary-12", 60, 60), ("rotary-12", 86, 60)], "face.caps-collide"),
    ("two knobs apart", [("rotary-12", 60, 60), ("rotary-12", 90, 60)], None),
    ("bezels of lamps", [("led-5-bezel", 60, 60), ("led-5-bezel", 70, 60)], "face.caps-collide"),
    ("under a guard", [("toggle-guarded", 60, 60), ("led-5-bezel", 70, 60)], "face.under-guard"),
]  # fmt: skip


@pytest.mark.parametrize(("spots", "code"), [x[1:] for x in COVERS], ids=[x[0] for x in COVERS])
def test_what_covers_the_face_does_not_collide(spots: list[PlacedAt], code: str | None) -> None:
    design = plate(*spots)
    speaking = {f.code for f in review(Resolved(design)) if f.code in ("face.caps-collide", "face.under-guard")}
    assert speaking == ({code} if code else set())
    if code:
        assert found(settled(design, found(design, code)[0]), code) == []


@pytest.mark.parametrize(
    ("part", "x", "risk", "speaks"),
    [("toggle-large-on-off", 90, "normal", True), ("toggle-large-on-off", 120, "normal", False),
     ("toggle-large-on-off", 90, "guarded", False), ("led-5-bezel", 90, "normal", False)],
)  # fmt: skip
def test_the_irreversible_stands_apart_when_it_has_no_guard(part: str, x: float, risk: str, speaks: bool) -> None:
    commands = (edit("f1", risk="guarded"), edit("f2", risk=risk))
    design = plate(("toggle-large-on-off", 60, 60), (part, x, 60), commands=commands)
    assert bool(found(design, "face.irreversible-among-everyday")) is speaks
    guarded = plate(("toggle-guarded", 60, 60), (part, x, 60), commands=commands)
    assert found(guarded, "face.irreversible-among-everyday") == []


@pytest.mark.parametrize(
    ("hand", "x", "speaks"),
    [("left", 40, False), ("left", 160, True), ("right", 40, True), ("both", 40, False), ("", 40, False)],
)
def test_what_one_hand_works_stands_on_its_side(hand: str, x: float, speaks: bool) -> None:
    assert bool(found(plate(("button-22", x, 60), commands=(edit("f1", hand=hand),)), "face.hand-wrong-side")) is speaks


WORDS = [
    ("rotary-12", (), True),
    ("rotary-12", ("A", "B"), False),
    ("toggle-large-on-off-on", (), True),
    ("toggle-large-on-off", (), False),
    ("button-22", (), False),
]


@pytest.mark.parametrize(("part", "words", "speaks"), WORDS)
def test_selectors_have_a_word_for_each_position(part: str, words: tuple[str, ...], speaks: bool) -> None:
    design = plate((part, 100, 60), commands=(edit("f1", positions=words),))
    assert bool(found(design, "face.legend-missing")) is speaks
    dummy = apply(design, (edit("f1", state="dummy"),), catalogue())
    assert found(dummy, "face.legend-missing") == []


def test_words_are_kept_from_a_seam() -> None:
    second = AddModule(id="next", name="Next", outline=RectOutline(width=60, height=120), x=200.9, y=0.5)
    wide = SetBrief(opening=RectOutline(width=270, height=121))
    near = plate(("led-5-bezel", 193.5, 60), commands=(wide, second, EditLegend(function="f1", text="WIDE")))
    moved = apply(near, (MoveItems(functions=("f1",), dx=-20),), catalogue())
    assert found(near, "face.legend-at-seam")
    assert found(moved, "face.legend-at-seam") == []


@pytest.mark.parametrize(("x", "turn", "speaks"), [(52, 0, True), (52, 180, False), (20, 0, False)])
def test_a_cable_that_leaves_sideways_has_room(x: float, turn: float, speaks: bool) -> None:
    design = plate(
        ("readout-4-digits", 100, 60), ("potentiometer", x, 60), commands=(TurnItems(functions=("f1",), by=turn),)
    )
    assert bool(found(design, "face.cable-hits")) is speaks


MIX = (
    "toggle-large-on-off",
    "button-16-lit",
    "rotary-12",
    "led-5-bezel",
    "toggle-guarded",
    "potentiometer",
    "button-22",
)
somewhere = st.tuples(
    st.sampled_from(MIX), st.integers(2, 38).map(lambda n: n * 5.0), st.integers(2, 22).map(lambda n: n * 5.0)
)


@settings(max_examples=25)
@given(st.lists(somewhere, min_size=2, max_size=6))
def test_a_fix_never_makes_a_new_stop_of_its_own_kind(spots: list[PlacedAt]) -> None:
    design = plate(*spots)
    before = [f for f in review(Resolved(design)) if f.station == "face" and f.severity == "must"]
    for finding in [f for f in before if offered(design, f)][:4]:
        left = {f.id for f in review(Resolved(settled(design, finding))) if f.severity == "must"}
        assert left < {f.id for f in review(Resolved(design)) if f.severity == "must"}
        assert finding.id not in left


def test_a_locked_part_is_never_moved_by_a_fix() -> None:
    pair = plate(("toggle-large-on-off", 60, 60), ("toggle-large-on-off", 75, 60))
    both: Design = apply(pair, (LockItems(functions=("f1", "f2")),), catalogue())
    assert all(offered(both, f) is None for f in found(both, "face.fingers-close"))
    one = apply(pair, (LockItems(functions=("f2",)),), catalogue())
    (finding,) = found(one, "face.fingers-close")
    fix = offered(one, finding)
    assert fix is not None
    assert [cmd.functions for cmd in fix.commands if isinstance(cmd, MoveItems)] == [("f1",)]


def test_a_lever_says_where_it_stands_at_each_word() -> None:
    def ways(kind: str, words: tuple[str, ...], turn: float = 0.0) -> tuple[str, ...]:
        r = Resolved(plate((kind, 40, 40)))
        placed = r.placed[0]
        place = placed.function.place
        assert place is not None
        f = placed.function.model_copy(update={"positions": words, "place": place.model_copy(update={"turn": turn})})
        return lever_ways(f, placed.part)

    assert ways("toggle-large-on-off", ("ON", "OFF")) == ("up", "down")
    assert ways("toggle-large-on-off", ("ON", "OFF"), 90) == ("left", "right")
    assert ways("toggle-large-on-off-on", ("INT", "OFF", "ON")) == ("up", "in the middle", "down")
    assert ways("toggle-large-on-off-on", ("INT", "OFF"), 270) == ("right", "in the middle")
    assert ways("toggle-large-on-off", ("ON", "OFF"), 45) == ()  # aslant: no word for it
    assert ways("button-22", ("PUSHED", "OUT")) == ()
    assert ways("rotary-12", ("1", "2", "3")) == ()
