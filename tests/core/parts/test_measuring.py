"""Calliper readings: what follows from them, where they disagree, and two controls in one hole."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.parts import ChoosePart, CombineParts, CopyPart, EditPart, MeasurePart, RemovePart
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.changes.measuring import combined_part, measurable, measured_part, sheet_value
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.quantity import length
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.modules import THREE_LAYERS
from wingboard.core.record.part import Part
from wingboard.core.record.reading import Reading
from wingboard.core.record.shapes import Circle, Path, Rect
from wingboard.core.resolved.profile import cutouts, depth_behind_front

PARTS = catalogue()


def reading(of: str, *values: float | str, fit: str = "free") -> Reading:
    """Readings in mm, or as they are typed."""
    lengths = [length(v) if isinstance(v, str) else v for v in values]
    return Reading.model_validate({"of": of, "values": lengths, "fit": fit})


def mine(part: str, *readings: Reading) -> Part:
    """A part of the catalogue with these readings."""
    return measured_part(PARTS[part], readings)


@pytest.mark.parametrize(("fit", "room"), [("snug", 0.1), ("free", 0.2), ("painted", 0.4)])
def test_a_hole_is_the_largest_reading_and_its_fit(fit: str, room: float) -> None:
    # Common practice: snug 0.1, free 0.2, paint 0.1 more on each coated side.
    part = mine("rotary-12", reading("bush", 9.42, "3/8in", 9.56, fit=fit))
    assert part.hole == Circle(diameter=round(9.56 + room, 2))
    assert part.sources["hole"].kind == "computed"
    assert "9.56" in part.sources["hole"].note


FOLLOWS: list[tuple[str, Reading, str, Any]] = [
    ("rotary-12", reading("nut", 15.8, 15.9, 15.9), "nut_bore", Circle(diameter=16.9)),
    ("rotary-12", reading("body", 31.8, 31.9), "body", Circle(diameter=31.9)),
    ("rotary-12", reading("depth", 24.5, 24.4), "depth", 24.5),
    ("rotary-12", reading("cover", "1 in"), "cover", Circle(diameter=25.4)),
    ("button-22", reading("body", 30.2), "body", Rect(width=30.2, height=40)),
    ("button-22", reading("body_height", 41.3), "body", Rect(width=30, height=41.3)),
    ("device-bought", reading("bush", 91.0), "hole", Rect(width=91.2, height=45, radius=1)),
]


@pytest.mark.parametrize(("part", "read", "field", "value"), FOLLOWS, ids=[f"{f[0]} {f[1].of}" for f in FOLLOWS])
def test_what_follows_from_each_reading(part: str, read: Reading, field: str, value: Any) -> None:
    assert getattr(mine(part, read), field) == value


def test_thread_and_key_take_the_careful_side() -> None:
    part = mine(
        "rotary-12",
        reading("thread", 9.4, 9.5, 9.45),
        reading("key_radius", 11.0, 11.2),
        reading("key_width", 2.2, 2.3),
    )
    assert part.bush is not None
    assert part.key is not None
    assert part.bush.length == 9.4
    assert (part.key.radius, part.key.width) == (11.1, 2.5)


@pytest.mark.parametrize(
    ("part", "of"), [("led-3-bare", "nut"), ("led-3-bare", "thread"), ("button-16", "key_radius"), ("gauge-52", "nut")]
)
def test_what_a_part_does_not_have_cannot_be_measured(part: str, of: str) -> None:
    with pytest.raises(NotPossible):
        mine(part, reading(of, 5))


@pytest.mark.parametrize("part", PARTS.values(), ids=PARTS)
def test_every_part_can_be_measured_by_its_own_figures(part: Part) -> None:
    stated = {of: sheet_value(part, of) for of in measurable(part)}
    readings = [reading(of, value) for of, value in stated.items() if value]
    again = measured_part(part, readings)
    assert again.depth == part.depth
    assert again.body.span == pytest.approx(part.body.span, abs=0.01)
    assert cutouts(again, THREE_LAYERS)
    assert depth_behind_front(again, THREE_LAYERS) == depth_behind_front(part, THREE_LAYERS)


def own(*commands: Command) -> Design:
    """A plate with a rotary switch, its part copied to measure, and what is done to that."""
    design = plate(("rotary-12", 100, 60))
    return apply(design, (CopyPart(part="rotary-12", name="Mine"), *commands), PARTS)


def test_a_copy_is_measured_and_chosen_and_the_catalogue_stays() -> None:
    measure = MeasurePart(part="my-part-1", readings=(reading("bush", 9.4, 9.5),))
    design = own(measure, ChoosePart(function="f1", part="my-part-1"))
    part = next(p for p in design.parts if p.id == "my-part-1")
    assert (part.base, part.name) == ("rotary-12", "Mine")
    assert part.hole == Circle(diameter=9.7)
    assert next(p for p in design.parts if p.id == "rotary-12") == PARTS["rotary-12"]
    assert design.functions[0].part == "my-part-1"


def test_readings_taken_back_bring_the_sheet_back() -> None:
    first = MeasurePart(part="my-part-1", readings=(reading("bush", 9.9), reading("depth", 30)))
    turned = EditPart(part="my-part-1", key_angle=90)
    key = MeasurePart(part="my-part-1", readings=(reading("key_radius", 12),))
    design = own(first, turned, key, MeasurePart(part="my-part-1", readings=()))
    part, base = next(p for p in design.parts if p.id == "my-part-1"), PARTS["rotary-12"]
    assert (part.hole, part.depth, part.readings) == (base.hole, base.depth, ())
    assert part.key is not None
    assert base.key is not None
    assert (part.key.radius, part.key.angle) == (base.key.radius, 90)


REFUSED: list[tuple[Command, type[Exception]]] = [
    (MeasurePart(part="rotary-12", readings=()), NotPossible),
    (MeasurePart(part="nobody", readings=()), UnknownThing),
    (MeasurePart(part="my-part-1", readings=(reading("bush", 9), reading("bush", 10))), NotPossible),
    (EditPart(part="button-22", price=1), NotPossible),
    (CopyPart(part="nobody", name="x"), UnknownThing),
    (CopyPart(part="button-22", id="my-part-1", name="x"), NotPossible),
    (CopyPart(part="button-22", id="button-16", name="x"), NotPossible),
    (CombineParts(parts=("led-3-bare", "readout-4-digits"), name="x"), NotPossible),
    (RemovePart(part="rotary-12"), NotPossible),
]


@pytest.mark.parametrize(("command", "kind"), REFUSED, ids=[f"{r[0].do} {n}" for n, r in enumerate(REFUSED)])
def test_parts_are_kept_whole(command: Command, kind: type[Exception]) -> None:
    with pytest.raises(kind):
        own(command)


def test_a_part_in_use_is_not_removed() -> None:
    design = own(ChoosePart(function="f1", part="my-part-1"))
    with pytest.raises(NotPossible, match="used by F1"):
        apply(design, (RemovePart(part="my-part-1"),), PARTS)


@pytest.mark.parametrize(
    ("values", "disagree", "differ"),
    [
        ((9.5, 9.52, 9.55), False, False),
        ((9.42, 9.51, 9.56), True, False),
        ((9.9,), False, True),
        ((9.2, 9.9), True, True),
    ],
)
def test_readings_that_disagree_or_differ_are_said(values: tuple[float, ...], disagree: bool, differ: bool) -> None:
    design = own(MeasurePart(part="my-part-1", readings=(reading("bush", *values),)))
    assert bool(found(design, "parts.readings-disagree")) is disagree
    assert bool(found(design, "parts.differs-from-sheet")) is differ


def test_unmeasured_parts_are_counted_until_each_is_read() -> None:
    design = own()
    (finding,) = found(design, "parts.unmeasured")
    assert finding.measured is not None
    assert finding.measured.value == 1
    read = MeasurePart(part="my-part-1", readings=(reading("bush", 9.5),))
    done = apply(design, (read, ChoosePart(function="f1", part="my-part-1")), PARTS)
    assert found(done, "parts.unmeasured") == []


def test_a_hole_smaller_than_its_thread_is_a_stop_and_a_thread_that_was_read_is_the_one_compared() -> None:
    chosen = ChoosePart(function="f1", part="my-part-1")
    read = MeasurePart(part="my-part-1", readings=(reading("bush", 9.0),))
    measured = own(read, chosen)
    assert found(measured, "parts.hole-tight") == []
    part = next(p for p in measured.parts if p.id == "my-part-1")
    assert part.bush is not None
    assert part.bush.diameter == 9.0
    assert part.hole.span[0] == pytest.approx(9.0 + 0.2)
    square = [{"x": x, "y": y} for x, y in ((-4.4, -4.4), (4.4, -4.4), (4.4, 4.4), (-4.4, 4.4))]
    tight = own(read, EditPart(part="my-part-1", cutout=Path.model_validate({"points": square})), chosen)
    (finding,) = found(tight, "parts.hole-tight")
    assert finding.needed is not None
    assert (finding.severity, finding.needed.value) == ("must", 9.0)
    withdrawn = own(read, MeasurePart(part="my-part-1", readings=()), chosen)
    assert next(p for p in withdrawn.parts if p.id == "my-part-1").bush == PARTS["rotary-12"].bush


def test_two_controls_in_one_hole_add_their_depths() -> None:
    rotary, encoder = PARTS["rotary-12"], PARTS["encoder-push"]
    both = combined_part((encoder, rotary), "both", "Rotary with encoder")
    assert both.depth == rotary.depth + encoder.depth
    assert both.height == rotary.height + encoder.height
    assert both.hole == rotary.hole
    assert both.detents == rotary.detents
    assert {line.id for line in both.lines} == {"a-a", "a-b", "a-push", "b-way"}
    assert both.members == ("encoder-push", "rotary-12")
    design = own(
        CombineParts(parts=("encoder-push", "my-part-1"), name="Both"), ChoosePart(function="f1", part="my-part-2")
    )
    assert design.functions[0].part == "my-part-2"


def test_a_cut_out_of_any_shape_is_cut_and_judged() -> None:
    corners = [(-10, -5, 0), (10, -5, 0.5), (10, 5, 0), (-10, 5, 0)]
    cutout = Path.model_validate({"points": [{"x": x, "y": y, "bulge": b} for x, y, b in corners]})
    edit = EditPart(part="my-part-1", cutout=cutout, bezel=Rect(width=30, height=16), behind_x=2, clamp=3)
    design = own(edit, ChoosePart(function="f1", part="my-part-1"), MoveItems(functions=("f1",), dx=-97))
    part = next(p for p in design.parts if p.id == "my-part-1")
    assert part.hole.span == pytest.approx((20 + 2.5, 10), abs=0.01)
    assert part.hole.grown(1).span == pytest.approx((22 + 2.5, 12), abs=0.05)
    assert found(design, "face.off-module")


@pytest.mark.parametrize("shape", [Circle(diameter=10), Rect(width=10, height=6, radius=1)])
def test_a_grown_shape_is_wider_all_round(shape: Circle | Rect) -> None:
    wide, high = shape.span
    assert shape.grown(2).span == (wide + 4, high + 4)
    assert shape.rounded().bounds == pytest.approx((-wide / 2, -high / 2, wide / 2, high / 2))
