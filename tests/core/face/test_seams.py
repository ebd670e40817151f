"""Nothing that a hand, an eye or a body behind meets ends at the seam between two modules."""

from __future__ import annotations

import math

import pytest
from shapely import affinity

from building import found, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import MoveItems, PlacePart
from wingboard.core.face.near import nearest
from wingboard.core.geometry.frame import Frame
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Shape
from wingboard.core.record.space import Brief
from wingboard.core.resolved.design import Resolved

SEAM = 0.4


def astride(left: str, right: str, apart: float, turn: float = 0.0, text: str = "") -> Design:
    """Two plates beside each other, a part on each whose centres are ``apart`` mm apart across the seam."""
    wide = RectOutline(width=100, height=120)
    commands: list[Command] = [
        AddModule(id="left", name="Left", outline=wide),
        AddModule(id="right", name="Right", outline=wide, x=100 + SEAM, y=1),
    ]
    for ident, part, module, x in (
        ("a", left, "left", 100 - apart / 2),
        ("b", right, "right", apart / 2 - SEAM),
    ):
        commands += [
            AddFunction(id=ident, name=ident.upper()),
            ChoosePart(function=ident, part=part),
            PlacePart(function=ident, module=module, x=x, y=60 if ident == "a" else 59, turn=turn),
            EditLegend(function=ident, text=text if ident == "a" else ""),
        ]
    return apply(Design(name="Astride", brief=Brief(opening=RectOutline(width=201, height=122))), commands, catalogue())


def by_hand(design: Design, shape_of: str) -> float:
    """The gap between the two parts' shapes, drawn as polygons at their places in the opening."""
    drawn = []
    for f in design.functions:
        assert f.place is not None
        part: Part = catalogue()[f.part or ""]
        shape: Shape = part.cover
        if shape_of == "hand" and part.hand:
            shape = part.hand.shape
        if shape_of == "body":
            shape = part.body
        module = next(m for m in design.modules if m.id == f.place.module)
        about = affinity.rotate(shape.rounded().drawn(), f.place.turn, origin=(0, 0))
        drawn.append(affinity.translate(about, f.place.x + module.x, f.place.y + module.y))
    return float(drawn[0].distance(drawn[1]))


ACROSS = [
    ("face.fingers-close", "toggle-large-on-off", "toggle-large-on-off", 18.0, "hand", {}),
    ("face.fingers-close", "toggle-large-on-off", "toggle-large-on-off", 18.0, "hand", {"turn": 37}),
    ("face.fingers-close", "button-22", "toggle-large-on-off", 30.0, "hand", {}),
    ("face.caps-collide", "rotary-12", "rotary-12", 27.2, "cover", {}),
    ("face.bodies-collide", "rotary-12", "rotary-12", 32.4, "body", {}),
]


@pytest.mark.parametrize(("code", "left", "right", "apart", "what", "more"), ACROSS)
def test_across_a_seam_the_gap_is_the_one_of_the_whole_drawing(
    code: str, left: str, right: str, apart: float, what: str, more: dict[str, float]
) -> None:
    near = astride(left, right, apart, **more)  # type: ignore[arg-type]
    (finding,) = found(near, code)
    assert finding.measured is not None
    assert finding.needed is not None
    assert finding.subjects == ("a", "b")
    assert finding.measured.value == pytest.approx(by_hand(near, what), abs=0.02)
    short = finding.needed.value - finding.measured.value
    assert found(astride(left, right, apart + short + 0.05, **more), code) == []  # type: ignore[arg-type]
    assert found(astride(left, right, apart + short - 0.05, **more), code)  # type: ignore[arg-type]
    assert finding.spot is not None
    assert finding.spot.module == "left"
    assert finding.spot.x == pytest.approx(100, abs=apart / 2)


def test_the_fix_of_a_clash_across_a_seam_moves_one_part_on_its_own_plate() -> None:
    design = astride("toggle-large-on-off", "toggle-large-on-off", 18.0)
    after = settled(design, found(design, "face.fingers-close")[0])
    assert found(after, "face.fingers-close") == []
    assert [f.place and f.place.module for f in after.functions] == ["left", "right"]


def test_a_name_under_a_knob_of_the_next_plate_is_covered() -> None:
    beside = astride("toggle-small-on-off", "rotary-12", 16.0, text="GEN")
    above, below = (apply(beside, (MoveItems(functions=("a",), dx=0, dy=dy),), catalogue()) for dy in (8, -12))
    assert found(above, "face.legend-covered") == []
    assert [f.detail for f in found(below, "face.legend-covered")] == ["“GEN” of A and B"]


def test_the_nearest_part_is_found_across_the_seam_and_shown_on_the_plate_that_is_moved() -> None:
    r = Resolved(astride("toggle-large-on-off", "toggle-large-on-off", 18.0))
    near = nearest(r, r.placed[1])
    assert near is not None
    assert near.other.function.id == "a"
    assert near.gap == pytest.approx(by_hand(r.design, "hand"), abs=0.02)
    assert near.start[0] - near.end[0] == pytest.approx(near.gap, abs=0.02)
    assert near.end[0] < 0 < near.start[0]


@pytest.mark.parametrize("turn", [0.0, 37.0, -90.0, 180.0])
def test_a_frame_there_and_back_is_where_it_began(turn: float) -> None:
    part, module = Frame(10.0, -20.0, turn), Frame(300.0, 40.0, 2 * turn)
    whole = part.within(module)
    assert whole.point(3.0, 4.0) == pytest.approx(module.point(*part.point(3.0, 4.0)))
    assert whole.back(*whole.point(3.0, 4.0)) == pytest.approx((3.0, 4.0))
    assert math.dist(whole.point(0, 0), whole.point(3, 4)) == pytest.approx(5.0)
