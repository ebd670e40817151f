"""Each check of the face: when it speaks, what it measures, and that its fix settles it without a new stop."""

import math
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from building import PlacedAt, found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.judgement import AcceptFinding, SetLimit
from wingboard.core.changes.commands.layers import SetSchool
from wingboard.core.changes.commands.legends import EditLegend, RemoveLegend
from wingboard.core.changes.commands.places import RemoveItems, TurnItems
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.space import KeepOut
from wingboard.core.resolved.design import Resolved

TOGGLE, BUTTON, KNOB, STOP = "toggle-large-on-off", "button-22", "potentiometer", "emergency-stop-22"

FIGURES: list[tuple[str, tuple[PlacedAt, ...], float, float]] = [
    # MIL-STD-1472 from memory: 19 between toggles (levers of 7 mm), 13 between buttons (caps of 23), 25 between knobs.
    ("face.fingers-close", ((TOGGLE, 60, 60), (TOGGLE, 83.3, 60)), 16.3, 19.0),
    ("face.fingers-close", ((BUTTON, 60, 60), (BUTTON, 94, 60)), 11.0, 13.0),
    ("face.fingers-close", ((KNOB, 60, 60), (KNOB, 100, 60)), 22.0, 25.0),
    ("face.fingers-close", ((STOP, 60, 60), (BUTTON, 115, 60)), 55 - 20 - 11.5, 26.0),
    ("face.holes-overlap", ((BUTTON, 60, 60), (TOGGLE, 76, 60)), 16 - 11.15 - 8.5, 3.0),
    # Two 17 mm bores 16 mm apart run into each other by 1 mm.
    ("face.nut-bores-collide", ((TOGGLE, 60, 60), (TOGGLE, 76, 60)), -1.0, 3.0),
    ("face.bridge-thin", ((TOGGLE, 60, 60), (TOGGLE, 78, 60)), 1.0, 3.0),
    ("face.bridge-thin", ((BUTTON, 12.15, 60),), 1.0, 3.0),
    ("face.off-module", ((BUTTON, 8, 60),), 8 - 11.15, 3.0),
    ("face.bodies-collide", ((TOGGLE, 60, 60), (TOGGLE, 78.4, 60)), 0.4, 1.0),
]


@pytest.mark.parametrize(("code", "parts", "measured", "needed"), FIGURES, ids=[f"{f[0]} {f[2]:.1f}" for f in FIGURES])
def test_measures_and_settles(code: str, parts: tuple[PlacedAt, ...], measured: float, needed: float) -> None:
    design = plate(*parts)
    (finding,) = found(design, code)
    assert finding.measured is not None
    assert finding.needed is not None
    assert finding.measured.value == pytest.approx(measured, abs=0.01)
    assert finding.needed.value == pytest.approx(needed, abs=0.01)
    assert found(settled(design, finding), code) == []


places = st.tuples(st.sampled_from([TOGGLE, BUTTON, KNOB]), st.integers(30, 170), st.integers(35, 80))


@settings(max_examples=40)
@given(st.lists(places, min_size=2, max_size=4))
def test_a_fix_settles_its_finding_and_brings_no_new_kind_of_stop(spots: list[PlacedAt]) -> None:
    design = plate(*spots)
    stops = [f for f in review(Resolved(design)) if f.severity == "must"]
    assume(any(f.fixable for f in stops))
    for finding in [f for f in stops if f.fixable and offered(design, f)]:
        left = review(Resolved(settled(design, finding)))
        assert finding.id not in {f.id for f in left}
        assert {f.code for f in left if f.severity == "must"} <= {f.code for f in stops}


def test_a_part_far_outside_comes_back_to_the_middle() -> None:
    design = plate((BUTTON, -500, 60))
    (finding,) = found(design, "face.off-module")
    assert found(settled(design, finding), "face.off-module") == []


def test_depth_counts_wires_and_keep_outs_count_where_the_body_overlaps() -> None:
    (finding,) = found(plate((BUTTON, 60, 60), depth=50), "face.too-deep")
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(48 + 10)  # depth from the flange, plug
    bar = KeepOut(id="bar", name="steel bar", x=0, y=50, width=201, height=10, clear=30)
    design = plate((TOGGLE, 60, 60), (TOGGLE, 120, 100), keepouts=(bar,))
    (hit,) = found(design, "face.keep-out")
    assert hit.subjects == ("f1",)
    assert hit.measured is not None
    assert hit.measured.value == pytest.approx(8 + 27 + 10)  # three layers, depth, bend
    assert found(settled(design, hit), "face.keep-out") == []


def legend(text: str, **fields: Any) -> EditLegend:
    """Set the words of f1."""
    return EditLegend(function="f1", text=text, **fields)


def test_words_under_a_bezel_are_found_and_set_on_the_other_side() -> None:
    design = plate((TOGGLE, 60, 60), (BUTTON, 60, 88), commands=(legend("LIGHTS"),))
    (finding,) = found(design, "face.legend-covered")
    fix = offered(design, finding)
    assert fix is not None
    assert "below" in fix.label
    assert found(settled(design, finding), "face.legend-covered") == []


def test_words_over_the_edge_and_words_over_words_are_found() -> None:
    assert found(plate((TOGGLE, 60, 104)), "face.legend-covered")
    close = plate((TOGGLE, 60, 60), (TOGGLE, 90, 60), commands=(legend("A VERY LONG NAME INDEED"),))
    assert found(close, "face.legend-covered")


def rotary(step: float | None, words: int = 7) -> Design:
    """A 12-way rotary with so many words drawn at a step."""
    named = EditFunction(function="f1", positions=tuple(str(k) for k in range(words)))
    return plate(("rotary-12", 100, 60), commands=(named, legend("ROUTE", step=step)))


def test_words_drawn_for_another_mechanism_stop() -> None:
    (finding,) = found(rotary(36), "face.legend-off-detents")
    assert finding.measured is not None
    assert (finding.measured.value, finding.measured.unit) == (36, "°")
    assert found(settled(rotary(36), finding), "face.legend-off-detents") == []
    assert found(rotary(None), "face.legend-off-detents") == []
    (surplus,) = found(rotary(None, words=13), "face.legend-off-detents")
    assert found(settled(rotary(None, words=13), surplus), "face.legend-off-detents") == []


def test_letters_the_font_lacks_are_named_instead_of_left_out_silently() -> None:
    (finding,) = found(plate((TOGGLE, 60, 60), commands=(legend("λAMP ⚡"),)), "face.not-in-font")
    assert "Λ⚡" in finding.detail


def test_what_is_not_done_yet_is_one_line_each() -> None:
    design = apply(
        plate((TOGGLE, 60, 60), (BUTTON, 120, 60)),
        (
            RemoveLegend(function="f1"),
            RemoveItems(functions=("f2",)),
            AddFunction(name="Gong"),
        ),
        catalogue(),
    )
    subjects = {
        code: found(design, code)[0].subjects for code in ("face.no-legend", "face.not-placed", "brief.no-part")
    }
    assert subjects == {"face.no-legend": ("f1",), "face.not-placed": ("f2",), "brief.no-part": ("f3",)}
    assert found(settled(design, found(design, "face.no-legend")[0]), "face.no-legend") == []


def test_a_look_is_accepted_with_a_reason_until_it_gets_worse() -> None:
    def thin(dx: float, *commands: Command) -> Finding:
        return found(plate((TOGGLE, 60, 60), (TOGGLE, 79.6 + dx, 60), commands=commands), "face.bridge-thin")[0]

    first = thin(0)
    assert first.severity == "judge"
    assert first.measured is not None
    reason = AcceptFinding(finding=first.id, reason="ply is tough", measured=first.measured.value)
    assert thin(0, reason).accepted == "ply is tough"
    assert thin(-0.2, reason).accepted is None
    stop = found(plate((TOGGLE, 60, 60), (TOGGLE, 76, 60), commands=(reason,)), "face.nut-bores-collide")[0]
    assert stop.accepted is None


def test_a_limit_can_be_another_one_here_and_says_whose_it_is() -> None:
    changed = SetLimit(limit="toggle-spacing", value=13, reason="thrown in sequence")
    assert found(plate((TOGGLE, 60, 60), (TOGGLE, 83.3, 60), commands=(changed,)), "face.fingers-close") == []
    (finding,) = found(plate((TOGGLE, 60, 60), (TOGGLE, 79.5, 60), commands=(changed,)), "face.fingers-close")
    assert "sequence" in finding.source.said()


def test_turning_a_part_turns_its_key_slot_and_the_web_with_it() -> None:
    def web(turn: float) -> float:
        spots = (
            ("rotary-12", 60.0, 60.0),
            ("led-3-bare", 60 + 16 * math.cos(math.radians(turn)), 60 + 16 * math.sin(math.radians(turn))),
        )
        design = plate(*spots, commands=(TurnItems(functions=("f1",), by=turn),))
        measured = found(design, "face.bridge-thin")[0].measured
        assert measured is not None
        return measured.value

    assert web(0) == pytest.approx(16 - 1.55 - 11 - 1.6, abs=0.01)
    assert web(90) == pytest.approx(web(0), abs=0.01)
    assert web(45) == pytest.approx(web(0), abs=0.01)


@pytest.mark.parametrize(
    ("load", "apart", "severity"),
    [
        ({"volts": 230, "amps": 1}, 60, "judge"), ({"volts": 230, "amps": 1}, 30, "judge"),
        ({"volts": 230, "amps": 1}, 25, "must"), ({"volts": 48, "amps": 1}, 25, None),
        ({"volts": 110, "amps": 1, "current": "DC"}, 25, None), ({"volts": 110, "amps": 1}, 25, "must"),
    ],
)  # fmt: skip
def test_mains_beside_low_voltage_asks_for_distance_and_covers(
    load: dict[str, Any], apart: float, severity: str | None
) -> None:
    commands = (EditFunction.model_validate({"function": "f1", **load}),)
    design = plate((TOGGLE, 60, 60), (TOGGLE, 60 + apart, 60), commands=commands)
    findings = found(design, "face.mixed-voltage")
    assert [f.severity for f in findings] == ([severity] if severity else [])
    for finding in findings:
        # Both bodies are 18 mm wide.
        assert finding.measured is not None
        assert finding.measured.value == pytest.approx(apart - 18)
        assert "licensed electrician" in finding.detail
        assert ("far enough apart" in finding.detail) is (severity == "judge")
        assert "earthed" not in finding.detail  # the plate is of acrylic
        assert not finding.overridable
    alone = plate((TOGGLE, 60, 60), commands=commands)
    assert found(alone, "face.mixed-voltage") == []
    metal = apply(design, (SetSchool(school="metal"),), catalogue())
    assert all("earthed" in f.detail for f in found(metal, "face.mixed-voltage"))
