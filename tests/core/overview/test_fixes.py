"""Fixes: each settles its finding, harms nothing, moves nothing locked, and following them always comes to an end."""

from __future__ import annotations

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from building import PlacedAt, offered, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.arrange import LockItems
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.findings.finding import Fix
from wingboard.core.overview.fixing import fix_of, harmless
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


@settings(max_examples=25, deadline=None)
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

    assert harmless(r, finding, moving("f2", 15), Memory())
    assert not harmless(r, finding, moving("f2", 3), Memory())  # not far enough
    assert not harmless(r, finding, moving("f2", 50), Memory())  # into the rotary
    assert not harmless(r, finding, moving("f2", 500), Memory())  # off the plate
    assert not harmless(r, finding, moving("f9", 15), Memory())  # there is none
    idle = Fix(label="tried", commands=(EditFunction(function="f1", name="Another"),))
    assert not harmless(r, finding, idle, Memory())
    held = Resolved(apply(close, (LockItems(functions=("f2",)),), catalogue()))
    assert not harmless(held, finding, moving("f2", 15), Memory())
