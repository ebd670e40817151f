"""Outlines made one: against shapely's union of the flattened outlines, over circles, slots and plates at any turn."""

from __future__ import annotations

import math

import pytest
import shapely
import shapely.affinity
from hypothesis import given
from hypothesis import strategies as st

from building import plate
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.geometry.joined import joined
from wingboard.core.geometry.outline import Loop, Vertex, area_of, moved, rounded_rectangle, turned
from wingboard.core.resolved.design import Resolved


def circle(radius: float) -> Loop:
    return Vertex(-radius, 0.0, 1.0), Vertex(radius, 0.0, 1.0)


SHAPES = st.one_of(
    st.floats(2, 20).map(circle),
    st.tuples(st.floats(3, 30), st.floats(3, 30), st.sampled_from((0.0, 0.5, 1.4))).map(
        lambda size: rounded_rectangle(*size, -size[0] / 2, -size[1] / 2)
    ),
)


@given(SHAPES, SHAPES, st.floats(0, 360), st.floats(-25, 25), st.floats(-25, 25))
def test_the_outline_round_two_is_their_union_with_arcs_kept(
    a: Loop, b: Loop, turn: float, dx: float, dy: float
) -> None:
    b = moved(turned(b, turn), dx, dy)
    one, other = area_of(a), area_of(b)
    loop = joined(a, b)
    if loop is None:
        # Apart, or just touching: nothing to join but a sliver.
        union = one.union(other)
        sliver = one.intersection(other).area < 0.01 * min(one.area, other.area)
        assert sliver or not isinstance(union, shapely.Polygon) or union.interiors
        return
    made = area_of(loop)
    assert made.symmetric_difference(one.union(other)).area < 2e-3 * made.area
    assert made.is_valid
    if not one.boundary.buffer(0.01).intersection(other.boundary).length > 0.5:
        assert len(loop) < 40  # arcs stay arcs; straight pieces would be hundreds


@pytest.mark.parametrize("turn", [0, 37, 180])
@pytest.mark.parametrize("part", ["emergency-stop-22", "button-22", "key-switch-22-3"])
def test_a_notch_is_one_cut_with_its_hole(part: str, turn: float) -> None:
    design = plate((part, 100, 60), commands=(TurnItems(functions=("f1",), by=turn),) if turn else ())
    module = Resolved(design).modules["plate"]
    scenes = module_scenes(Resolved(design), module)
    cuts = [item for item in scenes["face"].of("inner") if item.label.startswith("F1")]
    assert [item.label for item in cuts] == ["F1, hole and key"]
    assert not isinstance(cuts[0].path, str)
    assert cuts[0].circle
    assert (cuts[0].circle.x, cuts[0].circle.y, cuts[0].circle.diameter) == (100, 60, 22.3)
    # By shapely on the whole drawing: the disc and the slot that reaches from 10.8 to 12.4 mm, 3.2 mm wide.
    slot = shapely.affinity.rotate(shapely.box(10.8, -1.6, 12.4, 1.6).buffer(-0.4).buffer(0.4), 90 + turn, (0, 0))
    wanted = shapely.affinity.translate(shapely.Point(0, 0).buffer(11.15, 256).union(slot), 100, 60)
    loop: Loop = cuts[0].path  # type: ignore[assignment]
    assert area_of(loop).symmetric_difference(wanted).area < 1e-3 * wanted.area
    assert sum(1 for item in scenes["back"].of("inner") if item.label.startswith("F1")) == 1


def test_one_inside_the_other_is_the_outer_one() -> None:
    inner = moved(circle(2), 1, 1)
    assert joined(circle(10), inner) is not None
    assert area_of(joined(circle(10), inner) or ()).area == pytest.approx(math.pi * 100, rel=1e-3)
    assert joined(circle(2), moved(circle(2), 5, 0)) is None
