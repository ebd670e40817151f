"""Fixes: each settles its finding, harms nothing, moves nothing locked, and following them always comes to an end."""

from __future__ import annotations

from collections.abc import Callable

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from building import PlacedAt, offered, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.arrange import LockItems
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.places import MoveItems, PlacePart
from wingboard.core.findings.finding import Fix
from wingboard.core.overview.fixing import fix_of, objection_to
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

PARTS = (
    "toggle-large-on-off", "button-16-lit", "rotary-12", "led-5-bezel", "toggle-guarded", "potentiometer", "button-22",
    "emergency-stop-22", "readout-4-digits", "breaker-10",
)  # fmt: skip
somewhere = st.tuples(
    st.sampled_from(PARTS), st.integers(0, 40).map(lambda n: n * 5.0), st.integers(0, 24).map(lambda n: n * 5.0)
)


def musts(design: Design) -> set[str]:
    """What is to fix, by id."""
    return {f.id for f in review(Resolved(design)) if f.severity == "must"}


@settings(max_examples=15, deadline=None)
@given(st.lists(somewhere, min_size=1, max_size=6), st.sets(st.sampled_from(["f1", "f2", "f3"]), max_size=2))
def test_a_fix_settles_its_finding_brings_nothing_new_and_following_them_ends(
    spots: list[PlacedAt], locked: set[str]
) -> None:
    design = plate(*spots)
    held = tuple(f.id for f in design.functions if f.id in locked)
    design = apply(design, (LockItems(functions=held),), catalogue()) if held else design
    memory = Memory()
    for _ in range(200):
        r = Resolved(design)
        asked = (fix_of(r, f.id, memory) for f in review(r, memory) if f.fixable and f.unsettled)
        found = next((f for f in asked if f and f.fix), None)
        if found is None or found.fix is None:
            break
        after = apply(design, found.fix.commands, catalogue())
        assert musts(after) <= musts(design)
        assert found.id not in {f.id for f in review(Resolved(after))}
        assert {f.id: f.place for f in after.functions if f.id in held} == {
            f.id: f.place for f in design.functions if f.id in held
        }
        design = after
    else:
        raise AssertionError("the fixes go on for ever")


@given(somewhere, somewhere)
@settings(max_examples=15, deadline=None)
def test_a_fix_is_the_same_with_a_memory_and_without(one: PlacedAt, other: PlacedAt) -> None:
    design, memory = plate(one, other), Memory()
    r = Resolved(design)
    fixable = [f for f in review(r, memory) if f.fixable]
    assume(fixable)
    for finding in fixable:
        asked = fix_of(r, finding.id, memory)
        assert asked is not None
        assert asked.fix == offered(design, finding)


def test_what_would_harm_is_not_offered() -> None:
    close = plate(("toggle-large-on-off", 60, 60), ("toggle-large-on-off", 75, 60), ("rotary-12", 140, 60))
    r = Resolved(close)
    (finding,) = [f for f in review(r) if f.code == "face.fingers-close"]

    def moving(ident: str, dx: float) -> Fix:
        return Fix(label="tried", commands=(MoveItems(functions=(ident,), dx=dx),))

    assert objection_to(r, finding, moving("f2", 15), Memory()) is None
    assert objection_to(r, finding, moving("f2", 3), Memory())  # not far enough
    assert objection_to(r, finding, moving("f2", 50), Memory())  # into the rotary
    assert objection_to(r, finding, moving("f2", 500), Memory())  # off the plate
    assert objection_to(r, finding, moving("f9", 15), Memory())  # there is none
    idle = Fix(label="tried", commands=(EditFunction(function="f1", name="Another"),))
    assert objection_to(r, finding, idle, Memory())
    held = Resolved(apply(close, (LockItems(functions=("f2",)),), catalogue()))
    assert objection_to(held, finding, moving("f2", 15), Memory())
    # Why not is said with what would come of it.
    assert "not be enough" in (objection_to(r, finding, moving("f2", 3), Memory()) or "")
    assert "fingers too close" in (objection_to(r, finding, moving("f2", 50), Memory()) or "")
    assert "locked" in (objection_to(held, finding, moving("f2", 15), Memory()) or "")


def test_a_fix_keeps_the_row_and_one_that_cannot_be_says_why() -> None:
    # Three on one line and a lamp under the second: the shortest way out is up, the way that keeps the row is along it.
    row = plate(
        ("toggle-large-on-off", 40, 60), ("toggle-large-on-off", 90, 60), ("toggle-large-on-off", 160, 60),
        ("button-22", 98, 31),
    )  # fmt: skip
    for finding in review(Resolved(row)):
        asked = fix_of(Resolved(row), finding.id)
        for command in asked.fix.commands if asked and asked.fix else ():
            if isinstance(command, MoveItems) and command.functions[0] in ("f1", "f2", "f3"):
                assert command.dy == 0
    full = plate(*(("button-22", 15 + 30 * n, 15 + 30 * m) for n in range(7) for m in range(4)))
    r = Resolved(full)
    stuck = [f for f in (fix_of(r, f.id) for f in review(r) if f.fixable) if f and f.fix is None]
    assert stuck
    assert all(f.fixless for f in stuck)


def test_where_no_straight_way_is_free_the_nearest_free_place_is_taken(demo: Callable[[str], Design]) -> None:
    # Dropped among its neighbours, it can be pushed nowhere; the gap in the row that it came from is free.
    desk = demo("kestrel-line-9")
    home = next(f for f in desk.functions if f.id == "f3").place
    assert home is not None
    dropped = apply(desk, (PlacePart(function="f3", module=home.module, x=home.x + 4, y=home.y - 9),), catalogue())
    asked = fix_of(Resolved(dropped), "face.bodies-collide:f3:f7")
    assert asked is not None
    assert asked.fix is not None
    after = apply(dropped, asked.fix.commands, catalogue())
    assert next(f for f in after.functions if f.id == "f3").place == home


def test_words_that_are_covered_are_set_otherwise_before_the_part_is_moved() -> None:
    design = plate(("toggle-large-on-off", 60, 60), ("button-22", 82, 78))
    text = EditLegend(function="f1", text="CABIN HEATER")
    covered = apply(design, (text,), catalogue())
    (finding,) = [f for f in review(Resolved(covered)) if f.code == "face.legend-covered" and "f1" in f.subjects]
    asked = fix_of(Resolved(covered), finding.id)
    assert asked is not None
    assert asked.fix is not None
    assert all(command.do == "edit_legend" for command in asked.fix.commands)


def test_a_nut_too_high_for_its_layer_is_hidden_by_the_next_thickness_sold() -> None:
    # 2.4 mm of nut and 0.8 of washer in a diffuser of 3 mm: sheets are sold in 4.
    r = Resolved(plate(("rotary-12", 60, 60)))
    asked = fix_of(r, "parts.nut-too-high:f1")
    assert asked is not None
    assert asked.fix is not None
    assert asked.fix.label == "Take a diffuser of 4 mm"
    after = Resolved(apply(r.design, asked.fix.commands, catalogue()))
    assert [f.id for f in review(after) if f.code == "parts.nut-too-high"] == []
