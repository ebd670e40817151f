"""A module at night: dark rings round bodies and what clears them, what is kept, what strips take, what passes."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.layers import AddLayer, EditLayer
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.lights import AddLeds, AddStrip, EditStrip, Point
from wingboard.core.changes.commands.modules import SplitModule
from wingboard.core.light.chain import chain_of
from wingboard.core.light.emission import Field, Lamp
from wingboard.core.light.figures import Night, night_of
from wingboard.core.light.glare import glare_of
from wingboard.core.light.mapping import Share, Shares, map_of
from wingboard.core.light.patches import DarkRing, HotSpot, dark_rings, hot_spots
from wingboard.core.light.power import power_of
from wingboard.core.light.scene import Scene, groups_of, scene_of
from wingboard.core.light.screens import passes, screens_of
from wingboard.core.light.suggest import Way, suggest
from wingboard.core.light.through import way_through
from wingboard.core.light.wires import wires_behind
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.record.functions import Film
from wingboard.core.resolved.design import Resolved
from wingboard.demo import demo_texts

ROTARY = "rotary-12"
WORDS = ("OFF", "1", "2", "3", "4", "5", "ALL")


def lit(*commands: Command, rotary: tuple[float, float] = (100, 60)) -> Design:
    """A large rotary, its words outside its body of 32 mm, on a plate that lets light through, a board behind."""
    start = plate((ROTARY, *rotary), ("led-5-bezel", 30, 60))
    functions = [f.model_copy(update={"positions": WORDS}) if f.id == "f1" else f for f in start.functions]
    first: tuple[Command, ...] = (
        EditLayer(layer="back", opacity="clear"),
        AddLayer(role="board", gap=15.0),
        EditLegend(function="f1", radius=18.0),
        EditLegend(function="f2", text="READY"),
    )
    design = Design.model_validate(start.model_dump() | {"functions": [f.model_dump() for f in functions]})
    return apply(design, (*first, *commands), catalogue())


def night(design: Design) -> Night:
    r = Resolved(design)
    made = night_of(r, r.modules["plate"])
    assert made is not None
    return made


EDGE = AddStrip(module="plate", x=10, y=30, x2=190.1, y2=30)


def test_a_large_rotary_throws_a_dark_ring_and_the_suggestion_clears_it() -> None:
    design = lit(EDGE)
    before = {legend.function: legend for legend in night(design).legends}
    # The body stands between the strip below and the words above it.
    assert before["f1"].evenness < 0.2
    finding = next(f for f in found(design, "light.half-dark") if f.subjects == ("f1",))
    assert finding.severity == "must"
    assert finding.measured
    assert finding.measured.value == pytest.approx(before["f1"].evenness, abs=0.001)
    assert f"{before['f1'].least:.0f} to {before['f1'].mean:.0f}" in finding.detail
    fix = offered(design, finding)
    assert fix is not None
    after = {legend.function: legend for legend in night(settled(design, finding)).legends}
    assert after["f1"].evenness >= 0.6  # what it wants; and it is no longer spoken of
    assert not [f for f in found(settled(design, finding), "light.half-dark") if f.subjects == ("f1",)]


def test_dark_rings_and_hot_spots_are_figures_of_their_own() -> None:
    def patches(design: Design) -> tuple[dict[str, DarkRing], tuple[HotSpot, ...]]:
        made, module = night(design), Resolved(design).modules["plate"]
        return {ring.function: ring for ring in dark_rings(made, module)}, hot_spots(made, module)

    rings, spots = patches(lit(AddStrip(module="plate", x=20, y=20, x2=180, y2=20)))
    assert rings["f1"].dark > 0.3  # the half turned away from the strip
    assert (rings["f1"].x, rings["f1"].y) == (100, 60)
    assert rings["f1"].dark > rings["f2"].dark  # a lamp's thin body throws a narrower shadow
    assert rings["f1"].least < rings["f2"].least
    lamp = AddLeds(module="plate", at=(Point(x=150, y=95),), z=12)
    _, hot = patches(lit(AddStrip(module="plate", x=20, y=20, x2=180, y2=20), lamp))
    assert (hot[0].x, hot[0].y) == pytest.approx((150, 95), abs=2)  # a lamp right before the plate
    assert hot[0].times > 2
    assert all(spot.times < hot[0].times for spot in spots)


def test_a_module_without_lamps_is_lit_by_the_suggestion() -> None:
    r = Resolved(lit())
    told: list[float] = []
    made = suggest(r, r.modules["plate"], 0.6, report=lambda done, words: told.append(done))
    assert {c.do for c in made.commands} == {"add_strip", "add_leds"}
    design = apply(r.design, made.commands, catalogue())
    assert min(legend.evenness for legend in night(design).legends) >= 0.6
    assert [legend.evenness for legend in night(design).legends] == pytest.approx(
        [legend.evenness for legend in made.after], abs=0.02
    )
    bad = ("light.meets-body", "light.lamps-meet", "light.off-plate", "light.off-cut", "light.too-near")
    assert not [c for c in bad if found(design, c)]
    assert told == sorted(told)
    assert found(design, "light.half-dark") == []


WAYS: tuple[Way, ...] = ("rows", "edge")


@settings(max_examples=8, deadline=None)
@given(st.floats(50, 150), st.floats(40, 80), st.booleans(), st.sampled_from(WAYS))
def test_whatever_is_suggested_can_be_laid(x: float, y: float, strips: bool, way: Way) -> None:
    first = (AddStrip(module="plate", x=20, y=12, x2=170, y2=12),) if strips else ()
    start = lit(*first, rotary=(round(x), round(y)))
    r = Resolved(start)
    asked = suggest(r, r.modules["plate"], 0.6, way).commands
    design = apply(start, asked, catalogue()) if asked else start
    for code in ("light.lamps-meet", "light.meets-body", "light.off-plate", "light.too-near"):
        assert found(design, code) == [], code


def test_no_two_lamps_lie_at_one_place() -> None:
    at = (Point(x=40, y=20), Point(x=44, y=20), Point(x=60.0, y=27.5), Point(x=90, y=28.1))
    design = lit(AddStrip(module="plate", x=50, y=20, x2=150, y2=20), AddLeds(module="plate", at=at))
    first, second = found(design, "light.lamps-meet")  # the LEDs by 2 of 6 mm, the third and the strip by 0.5 of 8
    assert [f.measured.value for f in (first, second) if f.measured] == pytest.approx([-2.0, -0.5], abs=0.02)
    assert "LED 1 and LED 2" in first.detail
    assert "strip 1 and LED 3" in second.detail
    for finding in (first, second):
        better = settled(design, finding)
        assert len(found(better, "light.lamps-meet")) == 1
        assert found(better, "light.meets-body") == []
    demo = read_design(demo_texts()["kestrel-line-9"], catalogue())
    assert found(demo, "light.lamps-meet") == []


def test_a_legend_far_from_every_lamp_is_dimmer_than_the_others() -> None:
    far = plate(*(("led-5-bezel", x, 30.0) for x in (30.0, 60.0, 90.0)), ("led-5-bezel", 170, 100))
    named = tuple(EditLegend(function=f"f{n}", text="READY") for n in range(1, 5))
    design = apply(
        far,
        (*named, EditLayer(layer="back", opacity="clear"), AddStrip(module="plate", x=15, y=40, x2=115.1, y2=40)),
        catalogue(),
    )
    legends = {legend.function: legend for legend in night(design).legends}
    usual = float(np.median([legend.mean for legend in legends.values()]))
    assert legends["f4"].mean < 0.4 * usual
    assert legends["f4"].evenness >= 0.6
    assert [f.subjects for f in found(design, "light.dim")] == [("f4",)]
    near = apply(design, (AddStrip(module="plate", x=120, y=90, x2=190, y2=90),), catalogue())
    assert found(near, "light.dim") == []


def test_a_lamp_that_moves_changes_only_its_own_share() -> None:
    class Counted(Shares):
        many = 0

        def _made(self, lamp: Lamp, scene: Scene) -> Share:
            self.many += 1
            return super()._made(lamp, scene)

    shares = Counted()
    design = lit(EDGE, AddLeds(module="plate", at=(Point(x=40, y=90), Point(x=160, y=90))))

    def mapped(of: Design) -> Field:
        r = Resolved(of)
        module = r.modules["plate"]
        assert module.module.light is not None
        return map_of(scene_of(module, module.module.light), shares=shares).field

    mapped(design)
    assert shares.many == 9 + 2  # 180 mm of strip are nine LEDs, in groups of three
    moved = apply(design, (EditStrip(module="plate", strip="strip-1", tilt=45),), catalogue())
    field = mapped(moved)
    assert shares.many == 11 + 9
    assert np.array_equal(field, map_of(_scene(moved), shares=Shares()).field)


def _scene(design: Design) -> Scene:
    r = Resolved(design)
    module = r.modules["plate"]
    assert module.module.light is not None
    return scene_of(module, module.module.light)


def test_more_of_the_light_arrives_nowhere_than_was_sent() -> None:
    made = night(lit(EDGE))
    assert made.map.flux == pytest.approx(9 * 6.0)  # nine LEDs of 6 lm
    assert 0 < made.map.arrived < made.map.flux
    # What leaves the face: L π over its area, no more than what came, times what the sheets let through.
    leaves = made.map.field.sum() * math.pi * (made.map.grid.step / 1000) ** 2
    inside = made.map.arrived + made.map.thrown * made.map.field.size * (made.map.grid.step / 1000) ** 2
    assert leaves <= inside * made.scene.way.transmission * (1 + 1e-9)


def test_what_passes_and_what_stops() -> None:
    stack = lit().stack
    way = way_through(stack, stack[:3])
    assert way.transmission == pytest.approx(math.exp(-0.23 * 3) * 0.92)
    assert way.plane == pytest.approx(8 - 3 / 1.49)
    # Sunk to the bottom of the clear back, or half into it: what is left of it before the lamp seems t / n thick.
    assert [way.plane_of(z) for z in (7, 8.5, 10, 30)] == pytest.approx([5, 6.5 - 1.5 / 1.49, way.plane, way.plane])
    stopped = plate((ROTARY, 100, 60), commands=(EDGE,))
    assert not way_through(stopped.stack, stopped.stack).lit
    assert found(stopped, "light.half-dark") == []  # there is nothing to judge: the layer is spoken of
    (finding,) = found(stopped, "light.layer-stops")
    assert found(settled(stopped, finding), "light.layer-stops") == []


def test_strips_are_cut_at_their_marks_and_leds_share_resistors() -> None:
    design = lit(
        AddStrip(module="plate", x=10, y=8, x2=188, y2=8),
        AddLeds(module="plate", at=tuple(Point(x=20.0 + 10 * n, y=100) for n in range(4))),
    )
    light = design.modules[0].light
    assert light is not None
    power = power_of(light)
    (use,) = power.strips
    # 178 mm: three groups of 50 mm, nine LEDs of 4.8 W / 60 at 12 V each.
    assert (use.cut, use.leds) == (150, 9)
    assert use.amps == pytest.approx(9 * 4.8 / 60 / 12)
    # Three in a row: (12 − 9.3) / 20 mA = 135, next 150 Ω; one alone: (12 − 3.1) / 20 mA = 445, next 470 Ω.
    # The one turns 8.9² / 470 = 0.17 W into heat: rated at twice that, half a watt.
    assert power.resistors == ((1, 150.0, 0.25), (1, 470.0, 0.5))
    assert power.loads[0].amps == pytest.approx(0.06 + 2 * 0.02)


def test_a_module_that_is_split_keeps_its_lamps_on_the_piece_they_lie_behind() -> None:
    design = lit(EDGE, AddLeds(module="plate", at=(Point(x=40, y=90), Point(x=160, y=90))))
    design = apply(design, (SplitModule(module="plate", pieces=2, seam=0.4),), catalogue())
    left, right = (m.light for m in design.modules)
    assert left is not None
    assert right is not None
    assert [len(light.leds) for light in (left, right)] == [1, 1]
    assert right.leds[0].x == pytest.approx(160 - 100.2)
    runs = [math.dist((s.x, s.y), (s.x2, s.y2)) for light in (left, right) for s in light.strips]
    assert sum(runs) == pytest.approx(180.1 - 0.4, abs=0.01)


def test_glare_is_what_the_equation_gives() -> None:
    dark = plate(("led-5-bare", 100, 60), ("led-5-bare", 100, 10), eye_distance=500)
    found_ = glare_of(Resolved(dark))
    assert found_ is not None
    # One in the middle of sight counts as 1° off it; one 50 mm aside is 5.71°: E = I / d², Lv = 10 E / θ².
    aside = math.degrees(math.atan2(50, 500))
    by_hand = 10 * (1 / 0.25) / 1 + 10 * (1 / (0.25 + 0.0025)) / aside**2
    assert found_.veil == pytest.approx(by_hand, rel=1e-3)
    assert found_.worst == "F1"


@pytest.mark.parametrize(
    ("colour", "film", "share"),
    [("red", None, 1.0), ("red", "red", 0.8), ("red", "amber", 0.8), ("red", "green", 0.05), ("green", "red", 0.05),
     ("red", "clear", 0.9), ("", "grey", 0.3), ("white", "red", 0.25)],
)  # fmt: skip
def test_a_film_lets_its_own_colour_through(colour: str, film: Film | None, share: float) -> None:
    assert passes(colour, film) == share


def test_screens_of_the_demo_are_read_from_where_the_eye_is(demo: Callable[[str], Design]) -> None:
    screens = {s.placed.function.name: s for s in screens_of(Resolved(demo("kestrel-line-9")))}
    assert set(screens) == {"Speed", "Battery voltage", "Line current", "Clock"}
    assert all(s.film == "red" and s.passes == 0.8 and s.cone == 60 for s in screens.values())
    aside = {name: s.aslant for name, s in screens.items()}
    assert aside["Battery voltage"] is not None
    assert aside["Speed"] is not None
    assert aside["Battery voltage"] < aside["Speed"] < 60  # the middle module is looked at more squarely
    assert screens["Speed"].size == pytest.approx((50 + 6, 19 + 6))  # its window and what holds the film


def test_a_chain_numbers_its_leds_strip_after_strip_and_is_fed_evenly() -> None:
    strips = (
        AddStrip(module="plate", kind="chain-60", x=10, y=20, x2=160, y2=20),
        AddStrip(module="plate", kind="strip-60", x=10, y=40, x2=160, y2=40),
        AddStrip(module="plate", kind="chain-60", x=160, y=80, x2=10, y2=80),
    )
    light = lit(*strips).modules[0].light
    assert light is not None
    lamps = {g.id: [(p.x, p.y) for p in g.lamps] for g in groups_of(light, 23.0)}
    made = chain_of(light, lamps, 5)
    assert made is not None
    assert [(link.strip, link.first, link.last) for link in made.links] == [("strip-1", 1, 9), ("strip-3", 10, 18)]
    assert [link.wire for link in made.links] == [0, 60]  # from the end of one to the start of the next
    assert [feed.number for feed in made.feeds] == [1, 6, 11, 16]  # no more than five LEDs from each
    assert (made.feeds[2].x, made.feeds[2].y) == lamps["strip-3"][1]
    assert chain_of(light.model_copy(update={"strips": light.strips[1:2]}), lamps, 5) is None


def test_wires_throw_shadows_as_wide_as_they_lie() -> None:
    led = Resolved(plate(("led-5-bare", 60, 60))).placed[0]
    straight = wires_behind(led)
    assert straight is not None
    # Two wires of 1.3 mm, loosely: 1.3 × 1.15 × √2 wide, behind the body for as far as its legs' bend takes.
    assert straight.outline.area == pytest.approx(math.pi * (1.3 * 1.15 * math.sqrt(2) / 2) ** 2, rel=0.01)
    assert straight.z1 - straight.z0 == led.part.plug
    readout = Resolved(plate(("readout-4-digits", 100, 60))).placed[0]
    flat = wires_behind(readout)
    assert flat is not None
    # Five wires flat to the left of a body of 60 mm, 12 mm long, at its back.
    assert flat.outline.bounds == pytest.approx((100 - 30 - 12, 60 - 3.25, 100 - 30, 60 + 3.25))
    assert flat.z1 - flat.z0 == pytest.approx(1.3)
