"""Putting parts in order: what alignment, distribution, mirroring and swapping promise, for any parts anywhere."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from building import adding, found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.arranging import ArrangedPart, arranged, mirrored, swapped
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.arrange import Arrange, CopyItems, LockItems, PairMirrored, SwapGroups, UnpairItems
from wingboard.core.changes.commands.functions import RemoveFunction
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.places import MoveItems, PlacePart, RemoveItems, TurnItems
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.functions import Place

lengths = st.floats(-200, 200).map(lambda v: round(v, 2))
reaches = st.floats(2, 25).map(lambda v: round(v, 1))
spots = st.builds(
    ArrangedPart,
    st.just("x"),
    lengths,
    lengths,
    st.sampled_from([0.0, 45.0, 90.0, 200.0]),
    reaches,
    reaches,
    reaches,
    reaches,
)
several = st.lists(spots, min_size=3, max_size=8).map(lambda made: [s._replace(id=f"f{n}") for n, s in enumerate(made)])


def asked(how: str, **more: Any) -> Arrange:
    """An arrangement of whatever is given."""
    return Arrange.model_validate({"functions": ["f0"], "how": how, **more})


@given(several)
def test_aligned_centres_and_edges_are_on_the_leaders_line(before: list[ArrangedPart]) -> None:
    lead = before[0]
    assert {s.x for s in arranged(before, asked("align-x"))} == {lead.x}
    assert {s.y for s in arranged(before, asked("align-y"))} == {lead.y}
    for s in arranged(before, asked("align-left")):
        assert s.x - s.left == pytest.approx(lead.x - lead.left)
    for s in arranged(before, asked("align-right")):
        assert s.x + s.right == pytest.approx(lead.x + lead.right)
    for s in arranged(before, asked("align-top")):
        assert s.y + s.up == pytest.approx(lead.y + lead.up)
    for s in arranged(before, asked("align-bottom")):
        assert s.y - s.down == pytest.approx(lead.y - lead.down)


@given(several)
def test_alignment_touches_only_its_own_direction_and_again_changes_nothing(before: list[ArrangedPart]) -> None:
    for how, other in (("align-x", "y"), ("align-y", "x"), ("align-left", "y"), ("align-top", "x")):
        after = arranged(before, asked(how))
        assert [getattr(s, other) for s in after] == [getattr(s, other) for s in before]
        again = arranged(after, asked(how))
        assert [(s.x, s.y) for s in again] == [pytest.approx((s.x, s.y)) for s in after]


@given(several)
def test_distributed_gaps_are_equal_and_the_outer_two_and_the_order_stay(before: list[ArrangedPart]) -> None:
    after = {s.id: s for s in arranged(before, asked("distribute-x"))}
    ordered = sorted(before, key=lambda s: s.x)
    assert after[ordered[0].id].x == ordered[0].x
    assert after[ordered[-1].id].x == pytest.approx(ordered[-1].x)
    gaps = [(after[b.id].x - b.left) - (after[a.id].x + a.right) for a, b in pairwise(ordered)]
    assert max(gaps) - min(gaps) == pytest.approx(0, abs=1e-6)
    assert [after[s.id].y for s in before] == [s.y for s in before]


@given(several)
def test_an_equal_pitch_is_equal_between_centres(before: list[ArrangedPart]) -> None:
    for how, axis in (("pitch-x", "x"), ("pitch-y", "y")):
        after = sorted(getattr(s, axis) for s in arranged(before, asked(how)))
        steps = [b - a for a, b in pairwise(after)]
        assert max(steps) - min(steps) == pytest.approx(0, abs=1e-6)
        assert (after[0], after[-1]) == pytest.approx(
            (min(getattr(s, axis) for s in before), max(getattr(s, axis) for s in before))
        )


@given(several)
def test_mirrored_twice_is_itself_and_keeps_the_middle(before: list[ArrangedPart]) -> None:
    once = mirrored(before)
    twice = mirrored(once)
    for a, b in zip(before, twice, strict=True):
        assert (b.x, b.y, b.turn % 360) == pytest.approx((a.x, a.y, a.turn % 360), abs=1e-6)
    assert min(s.x for s in once) == pytest.approx(min(s.x for s in before), abs=1e-6)
    assert sorted(round(s.y, 6) for s in once) == sorted(round(s.y, 6) for s in before)


@given(several, several)
def test_swapped_twice_is_itself_and_each_group_keeps_its_shape(
    first: list[ArrangedPart], second: list[ArrangedPart]
) -> None:
    there = swapped(first, second)
    back = swapped(there[: len(first)], there[len(first) :])
    for a, b in zip((*first, *second), back, strict=True):
        assert (b.x, b.y) == pytest.approx((a.x, a.y), abs=1e-6)
    moved = [(b.x - a.x, b.y - a.y) for a, b in zip(first, there, strict=False)]
    assert all(m == pytest.approx(moved[0], abs=1e-6) for m in moved)


@given(several, st.floats(20, 60), st.integers(1, 4))
def test_rows_columns_and_grids_have_their_pitch(before: list[ArrangedPart], pitch: float, columns: int) -> None:
    row = arranged(before, asked("row", pitch=pitch))
    assert [s.x - before[0].x for s in row] == pytest.approx([n * pitch for n in range(len(before))])
    assert {s.y for s in row} == {before[0].y}
    column = arranged(before, asked("column", pitch=pitch))
    assert [before[0].y - s.y for s in column] == pytest.approx([n * pitch for n in range(len(before))])
    grid = arranged(before, asked("grid", pitch=pitch, pitch_y=pitch + 5, columns=columns))
    for n, s in enumerate(grid):
        assert s.x - before[0].x == pytest.approx(n % columns * pitch)
        assert before[0].y - s.y == pytest.approx(n // columns * (pitch + 5))


@given(several, st.floats(10, 100))
def test_rings_and_arcs_lie_on_their_radius(before: list[ArrangedPart], radius: float) -> None:
    ring = arranged(before, asked("ring", radius=radius))
    cx, cy = sum(s.x for s in ring) / len(ring), sum(s.y for s in ring) / len(ring)
    assert all(math.hypot(s.x - cx, s.y - cy) == pytest.approx(radius, abs=1e-6) for s in ring)
    arc = arranged(before, asked("arc", radius=radius, start=150, end=30))
    chord = math.dist((arc[0].x, arc[0].y), (arc[-1].x, arc[-1].y))
    assert chord == pytest.approx(2 * radius * math.sin(math.radians(60)), abs=1e-6)
    assert arc[0].x < arc[-1].x


THREE = plate(("toggle-large-on-off", 40, 40), ("toggle-large-on-off", 80, 55), ("button-22", 150, 70))
TOGETHER = ("f1", "f2", "f3")


def places(design: Design) -> dict[str, Place]:
    """Where everything is."""
    return {f.id: f.place for f in design.functions if f.place}


def test_without_a_pitch_a_row_leaves_fingers_their_room() -> None:
    after = apply(THREE, (Arrange(functions=TOGETHER, how="row"),), catalogue())
    assert found(after, "face.fingers-close") == []


REFUSED: list[tuple[Command, type[Exception]]] = [
    (Arrange(functions=("f1",), how="row"), NotPossible),
    (Arrange(functions=("f1", "f2"), how="distribute-x"), NotPossible),
    (Arrange(functions=("f1", "nobody"), how="row"), UnknownThing),
    (Arrange(functions=TOGETHER, how="ring", radius=0), NotPossible),
    (Arrange(functions=TOGETHER, how="row", pitch=4000), NotPossible),
    (SwapGroups(first=("f1",), second=("f1", "f2")), NotPossible),
    (PairMirrored(first="f1", second="f1"), NotPossible),
    (LockItems(functions=("nobody",)), UnknownThing),
]


@pytest.mark.parametrize(("command", "kind"), REFUSED, ids=[f"{r[0].do} {n}" for n, r in enumerate(REFUSED)])
def test_what_cannot_be_arranged_is_refused(command: Command, kind: type[Exception]) -> None:
    with pytest.raises(kind):
        apply(THREE, (command,), catalogue())


@pytest.mark.parametrize(
    "command",
    [
        MoveItems(functions=("f1",), dx=1),
        TurnItems(functions=("f1",), by=90),
        RemoveItems(functions=("f1",)),
        PlacePart(function="f1", module="plate", x=1, y=1),
        Arrange(functions=TOGETHER, how="row"),
        PairMirrored(first="f2", second="f1"),
    ],
    ids=lambda command: command.do,
)
def test_what_is_locked_stays_until_it_is_freed(command: Command) -> None:
    locked = apply(THREE, (LockItems(functions=("f1",)),), catalogue())
    with pytest.raises(NotPossible, match="locked"):
        apply(locked, (command,), catalogue())
    free = apply(locked, (LockItems(functions=("f1",), locked=False), command), catalogue())
    assert free.functions[0].locked is False


def test_a_pair_is_each_others_image_and_a_broken_one_is_mended() -> None:
    paired = apply(THREE, (TurnItems(functions=("f1",), by=30), PairMirrored(first="f1", second="f2")), catalogue())
    at = places(paired)
    assert (at["f2"].x, at["f2"].y, at["f2"].turn) == (160, 40, 330)
    assert found(paired, "face.pair-not-mirrored") == []
    moved = apply(paired, (MoveItems(functions=("f1",), dx=5), RemoveItems(functions=("f3",))), catalogue())
    (finding,) = found(moved, "face.pair-not-mirrored")
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(5)
    assert found(settled(moved, finding), "face.pair-not-mirrored") == []
    parted = apply(moved, (UnpairItems(functions=("f2",)),), catalogue())
    assert found(parted, "face.pair-not-mirrored") == []


def test_copies_are_new_functions_with_names_of_their_own() -> None:
    twice = (CopyItems(functions=("f1", "f3"), dx=0, dy=-20), CopyItems(functions=("f1",), dx=10))
    after = apply(THREE, twice, catalogue())
    assert [f.name for f in after.functions[3:]] == ["F1 2", "F3 2", "F1 3"]
    assert len({f.id for f in after.functions}) == 6
    assert after.functions[3].part == "toggle-large-on-off"
    assert places(after)["f4"].y == 20


def test_parts_of_two_modules_are_not_mixed() -> None:
    from wingboard.core.record.outlines import RectOutline

    second = AddModule(id="second", name="Second", outline=RectOutline(width=50, height=50))
    move = PlacePart(function="f2", module="second", x=20, y=20)
    with pytest.raises(NotPossible, match="different modules"):
        apply(THREE, (second, move, Arrange(functions=TOGETHER, how="row")), catalogue())


def test_removing_a_function_leaves_nothing_that_names_it() -> None:
    from wingboard.core.record.legends import Graphic
    from wingboard.core.record.procedures import Procedure

    made = (
        PairMirrored(first="f1", second="f2"),
        adding(Graphic(id="g", module="plate", kind="bracket", functions=("f1", "f3"), text="T")),
        adding(Procedure(id="p", name="P", steps=("f1", "f3"))),
        adding(Procedure(id="q", name="Q", steps=("f1",))),
        RemoveFunction(function="f1"),
    )
    after = apply(THREE, made, catalogue())
    assert Design.model_validate(after.model_dump()) == after
    assert after.functions[0].pair is None
    assert after.graphics[0].functions == ("f3",)
    assert [p.id for p in after.procedures] == ["p"]


@pytest.mark.parametrize(("part", "room"), [("rotary-12", 25), ("toggle-large-on-off", 19), ("button-22", 13)])
@pytest.mark.parametrize("x", [20, 100, 185])
def test_a_row_keeps_the_room_its_kind_wants_and_stays_on_the_plate(part: str, room: float, x: float) -> None:
    # MIL-STD-1472, from memory: knobs 25, toggles 19, push buttons 13 mm edge to edge.
    parts = ((part, x, 60), (part, x + 1, 61), (part, x + 2, 62))
    row = apply(plate(*parts), (Arrange(functions=("f1", "f2", "f3"), how="row"),), catalogue())
    spots = [f.place for f in row.functions if f.place]
    wide = catalogue()[part].cover.span[0]
    gaps = [b.x - a.x - wide for a, b in pairwise(spots)]
    assert min(gaps) >= room
    assert max(gaps) < room + 1
    assert spots[0].x - wide / 2 >= 0
    assert spots[-1].x + wide / 2 <= 200
    assert len({s.y for s in spots}) == 1
