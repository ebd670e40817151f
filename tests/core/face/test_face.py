"""Legends by rule, the number line, and what is nearest."""

import math

import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.face.legend import GAP, lettering
from wingboard.core.face.near import nearest
from wingboard.core.face.numberline import commands_for
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError
from wingboard.core.record.functions import Place
from wingboard.core.record.legends import Legend, Style
from wingboard.core.resolved.design import Resolved


@pytest.mark.parametrize("part", [p.id for p in catalogue().values() if p.ways])
@pytest.mark.parametrize("turn", [0, 30, 90, 217])
def test_position_words_lie_on_the_parts_angles_at_any_turn(part: str, turn: float) -> None:
    ways = catalogue()[part].ways
    commands = (
        EditFunction(function="f1", positions=tuple("ABCDEFGHIJKL"[:ways])),
        TurnItems(functions=("f1",), by=turn),
    )
    placed = Resolved(plate((part, 100, 60), commands=commands)).placed[0]
    words = [w for w in lettering(placed, Style()).words if w.role == "position"]
    assert len(words) == ways
    for word, angle in zip(words, placed.part.angles(ways), strict=True):
        centre = word.box.core.centroid
        away = (math.degrees(math.atan2(centre.y, centre.x)) - angle - turn) % 360
        assert min(away, 360 - away) < 0.01
        assert word.box.core.distance(placed.part.covered().turned(turn).core) > 0


def test_a_name_stands_above_or_below_clear_of_its_control_by_the_gap() -> None:
    for side in ("above", "below"):
        legend = EditLegend.model_validate({"function": "f1", "text": "GONG", "side": side})
        (word,) = lettering(Resolved(plate(("button-22", 100, 60), commands=(legend,))).placed[0], Style()).words
        near = word.box.bounds[1] if side == "above" else -word.box.bounds[3]
        assert near == pytest.approx(29.5 / 2 + GAP, abs=0.1)  # round letters overshoot the line a little
        assert word.run.cap == 4.0


def test_words_on_a_lens_are_fitted_to_it() -> None:
    design = plate(("caption-two-lamp", 60, 60), commands=(EditFunction(function="f1", name="x"),))
    legend = Legend(text="A RATHER LONG CAPTION", side="inside")
    wide = apply(design, (EditLegend(function="f1", **dict(legend)),), catalogue())
    letters = lettering(Resolved(wide).placed[0], Style())
    x0, _, x1, _ = letters.words[0].box.bounds
    assert letters.inside
    assert x1 - x0 <= 22.01


TWO = plate(("toggle-large-on-off", 40, 40), ("toggle-large-on-off", 90, 55))


def typed(text: str, *selection: str, design: Design = TWO) -> list[tuple[float, float, float]]:
    """Where both parts are after a typed line."""
    after = apply(design, commands_for(text, Resolved(design), selection or ("f1",)), catalogue())
    places = [f.place for f in after.functions if isinstance(f.place, Place)]
    return [(round(p.x, 4), round(p.y, 4), p.turn) for p in places]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("x 42.5", (42.5, 40, 0)),
        ("x+3/16in", (44.7625, 40, 0)),
        ("y-2 r90", (40, 38, 90)),
        ("x -5 y +1", (35, 41, 0)),
        ("r 350 r+15", (40, 40, 5)),
        ("X 1-1/4 in Y 20", (31.75, 20, 0)),
    ],
)
def test_a_typed_place_is_taken(text: str, expected: tuple[float, float, float]) -> None:
    assert typed(text)[0] == expected


def test_gap_row_column_and_pitch() -> None:
    moved = apply(TWO, commands_for("gap 19", Resolved(TWO), ("f1",)), catalogue())
    near = nearest(Resolved(moved), Resolved(moved).placed[0])
    assert near is not None
    assert near.gap == pytest.approx(19, abs=0.002)
    assert near.other.place.y == 55
    assert typed("row", "f1", "f2") == [(40, 40, 0), (90, 40, 0)]
    assert typed("column", "f2", "f1") == [(90, 40, 0), (90, 55, 0)]
    assert typed("pitch 25.4 row", "f1", "f2") == [(40, 40, 0), (65.4, 40, 0)]


@pytest.mark.parametrize("text", ["", "q 3", "x", "x 1/0", "y 99999", "r 720", "row 5", "x 3 nonsense", "pitch 3"])
def test_a_line_that_makes_no_sense_is_refused(text: str) -> None:
    with pytest.raises(DesignError):
        commands_for(text, Resolved(TWO), ("f1",))


def test_a_line_without_a_placed_part_is_refused() -> None:
    with pytest.raises(DesignError):
        commands_for("x 3", Resolved(TWO), ())


def test_the_demo_has_one_thing_wrong_on_purpose_and_its_fix_settles_it() -> None:
    from wingboard.core.overview.review import review
    from wingboard.core.record.document import read_design
    from wingboard.demo import demo_texts

    tram, dust = (read_design(text, catalogue()) for text in demo_texts().values())
    left = [f.code for f in review(Resolved(tram)) if f.severity != "note" and f.unsettled]
    judged = [
        "brief.event-unseen",
        "cut.kerf-unmeasured",
        "face.cable-hits",
        *["light.half-dark"] * 5,
        "stack.fits-upside-down",
        "stack.part-can-turn",
    ]
    assert left == ["face.legend-off-detents", *judged]
    left = [f.code for f in review(Resolved(dust)) if f.severity != "note" and f.unsettled]
    assert left == ["stack.bends", "stack.part-can-turn", "wire.stop-idle"]  # no load of its stop is entered
    (wrong,) = found(tram, "face.legend-off-detents")
    assert [f for f in review(Resolved(settled(tram, wrong))) if f.severity == "must" and f.unsettled] == []
    assert len([f for f in tram.functions if f.place]) >= 20
    assert len(tram.functions) >= 60
