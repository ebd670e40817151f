"""The next part of the tray is put down where no rule is broken, beside its group, while there is such a place."""

from __future__ import annotations

import itertools
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


def test_rows_are_filled_as_one_writes() -> None:
    """Seven alike where four find room in a row: one from the upper left, the next beneath it in the same columns."""
    design = plate()
    for n in range(1, 8):
        design = apply(design, (AddFunction(id=f"f{n}", name=f"F{n}"), ChoosePart(function=f"f{n}", part="button-22")),
                       catalogue())  # fmt: skip
    spots = []
    for n in range(1, 8):
        tried = PlacePart(function=f"f{n}", module="plate", x=100, y=60)
        r = Resolved(apply(design, (tried,), catalogue()))
        spots.append(free_spot(r, next(p for p in r.placed if p.function.id == f"f{n}")))
        design = apply(design, (tried.model_copy(update={"x": spots[-1].x, "y": spots[-1].y}),), catalogue())
    assert all(spot.free for spot in spots)
    xs, (top, beneath) = [spot.x for spot in spots], sorted({spot.y for spot in spots}, reverse=True)
    many = [spot.y for spot in spots].count(top)
    assert [spot.y for spot in spots] == [top] * many + [beneath] * (7 - many)
    assert top >= 90 and spots[0].x <= 35
    assert xs == sorted(xs[:many]) + xs[: 7 - many]
    assert {b - a for a, b in itertools.pairwise(xs[:many])} == {xs[1] - xs[0]}


def test_where_nothing_fits_the_least_bad_place_is_told() -> None:
    crowd = [("toggle-large-on-off", 10.0 + 15 * i, 10.0 + 15 * j) for i in range(13) for j in range(8)]
    r = Resolved(plate(*crowd, ("emergency-stop-22", 100.0, 60.0)))
    assert not free_spot(r, r.placed[-1]).free
