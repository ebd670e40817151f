"""What catches a drag, checked against the drawing by shapely's own measures; and what a measure catches."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, box

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.face.snapping import Guides, caught_near, covered_box, guides_for
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved

PARTS = ("toggle-large-on-off", "button-22", "led-5-bezel", "rotary-12")
places = st.lists(st.tuples(st.sampled_from(PARTS), st.integers(5, 195), st.integers(5, 115)), min_size=2, max_size=7)


def moved(r: Resolved, axis: str, at: float) -> Resolved:
    """The first part with one coordinate set."""
    place = r.placed[0].place
    way = {"dx": at - place.x} if axis == "x" else {"dy": at - place.y}
    return Resolved(apply(r.design, BATCH.validate_python([{"do": "move", "functions": ["f1"], **way}]), catalogue()))


def guides(r: Resolved, *moving: str) -> Guides:
    """What catches the first part."""
    return guides_for(r, "f1", moving or ("f1",))[1]


@given(places)
def test_a_part_that_is_caught_is_in_line_with_what_caught_it(parts: list[tuple[str, int, int]]) -> None:
    r = Resolved(plate(*parts))
    for guide in guides(r).guides:
        after = moved(r, guide.axis, guide.at)
        n = 0 if guide.axis == "x" else 1
        mine = covered_box(after.placed[0])
        others = [covered_box(p) for p in after.placed[1:]]
        if guide.kind == "middle":
            assert guide.line == pytest.approx((100, 60)[n])
            assert (after.placed[0].place.x, after.placed[0].place.y)[n] == pytest.approx(guide.line)
        elif guide.kind == "centre":
            assert any((p.place.x, p.place.y)[n] == pytest.approx(guide.line) for p in after.placed[1:])
            assert (after.placed[0].place.x, after.placed[0].place.y)[n] == pytest.approx(guide.line)
        elif guide.kind == "edge":
            ends = [o[n] for o in others] + [o[n + 2] for o in others]
            assert any(end == pytest.approx(guide.line) for end in ends)
            assert guide.line == pytest.approx(mine[n]) or guide.line == pytest.approx(mine[n + 2])
        else:
            assert guide.gap is not None
            apart = sorted(
                box(*mine[:2], *mine[2:]).distance(box(*o)) if _level(mine, o, n) else math.inf for o in others
            )
            free = [max(o[n] - mine[n + 2], mine[n] - o[n + 2]) for o in others]
            assert any(gap == pytest.approx(guide.gap, abs=1e-6) for gap in (*apart, *free))


def _level(a: tuple[float, ...], b: tuple[float, ...], n: int) -> bool:
    return min(a[3 - n], b[3 - n]) > max(a[1 - n], b[1 - n])


def test_three_in_a_row_catch_equal_gaps_beside_and_between() -> None:
    # Buttons 28 mm wide by their bezels: at 40 and 100 there are 32 mm between; the next is at 160.
    r = Resolved(plate(("button-22", 180, 60), ("button-22", 40, 60), ("button-22", 100, 60)))
    wide = covered_box(r.placed[0])[2] - covered_box(r.placed[0])[0]
    gaps = [g for g in guides(r).guides if g.kind == "gap" and g.axis == "x"]
    assert sorted(round(g.at, 3) for g in gaps) == [-20, 70, 160]
    assert {round(g.gap or 0, 3) for g in gaps} == {round(60 - wide, 3), round((60 - 2 * wide) / 2, 3)}


def test_several_are_caught_by_the_middle_of_them_all_and_graphics_catch_too() -> None:
    design = plate(("button-22", 40, 60), ("button-22", 100, 60), ("led-5-bezel", 150, 20))
    text = {"do": "add_graphic", "id": "t", "module": "plate", "kind": "text", "text": "X", "x": 33, "y": 100}
    r = Resolved(apply(design, BATCH.validate_python([text]), catalogue()))
    middle = next(g for g in guides(r, "f1", "f2").guides if g.kind == "middle" and g.axis == "x")
    assert middle.at == pytest.approx(70)  # their middle, 70, comes to the plate's, 100: the first moves from 40 to 70
    assert any(g.kind == "centre" and g.line == pytest.approx(33, abs=0.3) for g in guides(r).guides)
    assert guides_for(r, "t", ("t",))[0] == "plate"
    with pytest.raises(UnknownThing):
        guides_for(r, "nothing", ())


@given(st.floats(0, 200), st.floats(0, 120))
def test_a_measure_catches_a_centre_before_an_edge_and_never_further_than_it_may(x: float, y: float) -> None:
    r = Resolved(plate(("button-22", 60, 60), ("toggle-large-on-off", 140, 60)))
    found = caught_near(r, r.modules["plate"], x, y, 4.0)
    way = math.dist((found.x, found.y), (x, y))
    assert way <= 4.0 + 1e-6
    centre = min(math.dist((x, y), (60, 60)), math.dist((x, y), (140, 60)))
    if centre <= 4.0 and "centre" in found.words:
        assert way == pytest.approx(centre)
    if not found.words:
        assert r.modules["plate"].area.exterior.distance(Point(x, y)) > 4.0
        assert centre > 4.0
