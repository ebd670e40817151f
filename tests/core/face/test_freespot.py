"""The next part of the tray is put down where no rule is broken, beside its group, while there is such a place."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.face.freespot import free_spot
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

PARTS = ("toggle-large-on-off", "button-22", "rotary-12", "led-5-bezel", "readout-4-digits")


def put_down(parts: list[str]) -> tuple[Design, list[bool]]:
    """Parts put down one after the other, each wherever it is told."""
    design, free = plate(), []
    for n, part in enumerate(parts, 1):
        ident = f"f{n}"
        middle = PlacePart(function=ident, module="plate", x=100, y=60)
        tray = (AddFunction(id=ident, name=f"F{n}"), ChoosePart(function=ident, part=part))
        design = apply(design, tray, catalogue())
        r = Resolved(apply(design, (middle,), catalogue()))
        spot = free_spot(r, r.placed[-1])
        free.append(spot.free)
        design = apply(design, (middle.model_copy(update={"x": spot.x, "y": spot.y}),), catalogue())
    return design, free


@settings(max_examples=12, deadline=None)
@given(st.lists(st.sampled_from(PARTS), min_size=1, max_size=6))
def test_what_is_put_down_breaks_no_rule_while_there_is_room(parts: list[str]) -> None:
    design, free = put_down(parts)
    wrong = [f for f in review(Resolved(design)) if f.station == "face" and f.severity == "must"]
    assert not (all(free) and wrong)
    assert free[0]


def test_it_stands_beside_its_group() -> None:
    grouped = tuple(EditFunction(function=f"f{n}", group="Lamps") for n in (1, 2))
    design = plate(("led-5-bezel", 30, 30), ("led-5-bezel", 170, 90), commands=grouped)
    r = Resolved(design)
    spot = free_spot(r, r.placed[1])
    assert spot.free
    assert math.dist((spot.x, spot.y), (30, 30)) < 30
    assert spot.y == 30  # in its row
    alone = Resolved(plate(("led-5-bezel", 170, 90)))
    assert free_spot(alone, alone.placed[0])[:2] == pytest.approx((100, 60))


def test_a_full_row_is_followed_by_one_in_its_columns() -> None:
    row = [("toggle-large-on-off", 22.0 + 26 * n, 60.0) for n in range(7)]
    r = Resolved(plate(*row, ("toggle-large-on-off", 190, 110)))
    spot = free_spot(r, r.placed[-1])
    assert spot.free
    assert spot.y < 60
    assert spot.x in [x for _, x, _ in row]


def test_where_nothing_fits_the_least_bad_place_is_told() -> None:
    crowd = [("toggle-large-on-off", 10.0 + 15 * i, 10.0 + 15 * j) for i in range(13) for j in range(8)]
    r = Resolved(plate(*crowd, ("emergency-stop-22", 100.0, 60.0)))
    assert not free_spot(r, r.placed[-1]).free
