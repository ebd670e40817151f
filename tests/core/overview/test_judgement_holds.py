"""What a judgement must not depend on: the order of the list, where things lie together, the side, what was before."""

from __future__ import annotations

from collections import Counter

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import PlacedAt, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import MoveFunctions
from wingboard.core.changes.commands.legends import EditLegend, RemoveLegend
from wingboard.core.changes.commands.modules import EditModule
from wingboard.core.changes.commands.places import MoveItems, RemoveItems
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import all_checks, clashes, left_to_fix, review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.resolved.design import Resolved

BETWEEN = {"face.bridge-thin", "face.bodies-collide", "face.fingers-close", "face.caps-collide", "face.holes-overlap"}
"""Rules about two parts, wherever they are."""
PARTS = ("toggle-large-on-off", "button-22", "rotary-12", "led-5-bezel", "potentiometer")
spots = st.lists(
    st.tuples(st.sampled_from(PARTS), st.integers(20, 180).map(float), st.integers(20, 100).map(float)),
    min_size=2,
    max_size=6,
)


def crowded(parts: list[PlacedAt], *more: Command) -> Design:
    """A plate of 200 × 120 mm with these parts, without words."""
    bare = tuple(RemoveLegend(function=f"f{n}") for n in range(1, len(parts) + 1))
    return plate(*parts, commands=(*bare, *more))


def pairs(design: Design) -> Counter[tuple[str, tuple[str, ...]]]:
    """The findings between two parts: code and whose."""
    found = [f for f in review(Resolved(design)) if f.code in BETWEEN and len(f.subjects) == 2]
    return Counter((f.code, tuple(sorted(f.subjects))) for f in found)


def told(findings: tuple[Finding, ...]) -> list[str]:
    """Findings without the order they came in, and without their fixes, which a drag does not ask for."""
    return sorted(f.model_dump_json(exclude={"fix", "fixable"}) for f in findings)


@settings(max_examples=10)
@given(spots)
def test_the_same_design_is_judged_the_same_and_by_no_memory(parts: list[PlacedAt]) -> None:
    design = crowded(parts)
    first = review(Resolved(design))
    review(Resolved(crowded([("button-22", 100.0, 60.0)])))
    assert review(Resolved(design)) == first
    assert len({f.id for f in first}) == len(first)
    again = Design.model_validate_json(design.model_dump_json())
    assert review(Resolved(again)) == first


@settings(max_examples=10)
@given(spots)
def test_the_order_of_the_list_changes_no_finding_between_parts(parts: list[PlacedAt]) -> None:
    design = crowded(parts)
    turned = apply(design, (MoveFunctions(functions=("f1",), before=None),), catalogue())
    assert [f.id for f in turned.functions] != [f.id for f in design.functions]
    assert pairs(turned) == pairs(design)


@settings(max_examples=10)
@given(spots, st.integers(-15, 15), st.integers(-15, 15))
def test_shifting_everything_together_changes_nothing_between_parts(parts: list[PlacedAt], dx: int, dy: int) -> None:
    everything = tuple(f"f{n}" for n in range(1, len(parts) + 1))
    shift = MoveItems(functions=everything, dx=dx, dy=dy)
    large = EditModule(module="plate", outline=RectOutline(width=300, height=200))
    design = crowded(parts, large)
    assert pairs(apply(design, (shift,), catalogue())) == pairs(design)


@settings(max_examples=10)
@given(spots)
def test_left_for_right_between_round_parts_is_as_near(parts: list[PlacedAt]) -> None:
    round_only = [(part, x, y) for part, x, y in parts if part in ("button-22", "led-5-bezel")]
    image = [(part, 200 - x, y) for part, x, y in round_only]
    code = {"face.bodies-collide", "face.fingers-close", "face.caps-collide"}
    here, there = (
        Counter({k: v for k, v in pairs(crowded(side)).items() if k[0] in code}) for side in (round_only, image)
    )
    assert here == there


@settings(max_examples=10)
@given(spots)
def test_a_drag_is_told_what_the_review_says_of_that_part(parts: list[PlacedAt]) -> None:
    r = Resolved(crowded(parts))
    whole = review(r)
    for function in r.design.functions:
        said = clashes(Resolved(r.design), function.id)
        wanted = [
            f
            for f in whole
            if f.station == "face" and function.id in f.subjects and f.severity != "note" and f.spot and f.unsettled
        ]
        assert told(said) == told(tuple(wanted))
        assert [f.severity for f in said] == sorted((f.severity for f in said), key=["must", "judge"].index)


@settings(max_examples=10)
@given(spots)
def test_taking_a_part_away_never_makes_two_others_clash(parts: list[PlacedAt]) -> None:
    design = crowded(parts)
    fewer = apply(design, (RemoveItems(functions=("f1",)),), catalogue())
    rest = Counter({k: v for k, v in pairs(design).items() if "f1" not in k[1]})
    assert {k for k in pairs(fewer) if k[0] != "face.bridge-thin"} <= set(rest)


@settings(max_examples=8)
@given(spots)
def test_every_finding_says_where_what_and_why(parts: list[PlacedAt]) -> None:
    design = crowded(parts)
    known = {check.code: check for check in all_checks()}
    ids = {f.id for f in design.functions}
    findings = review(Resolved(design))
    for finding in findings:
        assert finding.station == known[finding.code].station
        assert finding.title
        assert finding.source.said()
        assert (finding.measured is None) or (finding.needed is not None) or finding.severity == "note"
        assert set(finding.subjects) & ids or not finding.subjects or finding.station in ("brief", "wire")
        if finding.spot:
            assert finding.spot.module == "plate"
    assert left_to_fix(findings) == sum(f.severity == "must" for f in findings)


@pytest.mark.parametrize("code", ["face.fingers-close", "face.bridge-thin"])
def test_nearer_is_never_judged_milder(code: str) -> None:
    severities = {"note": 1, "judge": 2, "must": 3}
    worst = 0
    for gap in (60, 50, 40, 36, 33, 30, 27, 25, 24):
        design = crowded([("button-22", 60.0, 60.0), ("button-22", 60.0 + gap, 60.0)])
        found = [f for f in review(Resolved(design)) if f.code == code and set(f.subjects) == {"f1", "f2"}]
        now = max((severities[f.severity] for f in found), default=0)
        assert now >= worst, gap
        worst = now
    assert worst >= 2


def test_words_do_not_change_what_stands_between_parts() -> None:
    parts = [("button-22", 60.0, 60.0), ("toggle-large-on-off", 82.0, 60.0)]
    named = apply(crowded(parts), (EditLegend(function="f1", text="LONG NAME HERE"),), catalogue())
    assert pairs(named) == pairs(crowded(parts))
