"""Words as they are written: heights on the outlines, fonts, lines, curves, symbols, brackets; nothing needs a font."""

from __future__ import annotations

import math
from typing import Any, get_args

import pytest
from shapely import box
from shapely.geometry import LineString

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.graphics import AddGraphic
from wingboard.core.changes.commands.legends import EditLegend, SetStyle
from wingboard.core.changes.commands.places import MoveItems, TurnItems
from wingboard.core.cut.mockup import mockup_face, mockup_rear
from wingboard.core.cut.scenes import layer_scene
from wingboard.core.face.graphics import BREAK, DROP, graphics_on
from wingboard.core.face.legend import GAP, lettering, letterings
from wingboard.core.face.lettering import Arc, Run, loops, run, stroke_lines
from wingboard.core.face.symbols import SYMBOLS, symbol
from wingboard.core.files.svg import write_svg
from wingboard.core.geometry.outline import area_of, flattened
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.legends import FontName, Graphic, Style
from wingboard.core.resolved.design import Resolved

FONTS = get_args(FontName)


def points_of(line: Run) -> list[tuple[float, float]]:
    """Points along everything that a line engraves."""
    return [p for points in (*map(flattened, loops(line)), *stroke_lines(line)) for p in points]


@pytest.mark.parametrize("font", FONTS)
@pytest.mark.parametrize("cap", [5.0, 4.0, 3.0])
def test_a_capital_is_as_high_as_it_says(font: FontName, cap: float) -> None:
    line = run("HEX", cap, font)
    ys = [y for _, y in points_of(line)]
    assert max(ys) - min(ys) == pytest.approx(cap, abs=0.02)
    assert bool(stroke_lines(line)) is (font == "single-stroke")
    assert bool(loops(line)) is (font != "single-stroke")


@pytest.mark.parametrize("font", FONTS)
def test_every_font_has_the_letters_a_panel_needs(font: FontName) -> None:
    assert run("ABCDEFGHIJKLMNOPQRSTUVWXYZ 0123456789 +-/.%()", 4, font).missing == ""
    assert run("A\u03bbB", 4, font).missing == "\u03bb"
    assert run("", 4, font).width == 0


def test_a_single_stroke_is_a_sixth_to_an_eighth_of_its_height() -> None:
    # Common practice: stroke 1/6 to 1/8 of the height.
    stroke = run("A", 4, "single-stroke").stroke
    assert stroke is not None
    assert 4 / 8 <= stroke <= 4 / 6
    assert run("A", 4).stroke is None


@pytest.mark.parametrize("font", FONTS)
def test_a_curved_line_keeps_its_length_and_stands_on_its_circle(font: FontName) -> None:
    straight, curved = run("DESTINATION", 4, font), run("DESTINATION", 4, font, Arc(30.0, 90.0))
    assert curved.width == pytest.approx(straight.width)
    points = points_of(curved)
    distances = [math.hypot(x, y) for x, y in points]
    assert min(distances) == pytest.approx(30, abs=0.6)
    assert max(distances) == pytest.approx(34, abs=0.6)
    angles = [math.degrees(math.atan2(y, x)) for x, y in points]
    assert 90 - (max(angles) + min(angles)) / 2 == pytest.approx(0, abs=3)
    assert math.radians(max(angles) - min(angles)) * 30 == pytest.approx(straight.width, rel=0.12)


@pytest.mark.parametrize("name", SYMBOLS)
@pytest.mark.parametrize("size", [4.0, 10.0, 22.0])
def test_a_symbol_fills_its_square_with_sound_outlines(name: str, size: float) -> None:
    picture = symbol(name, size)
    polygons = [area_of(loop) for loop in picture.loops]
    assert all(p.is_valid for p in polygons)
    x0, y0 = min(p.bounds[0] for p in polygons), min(p.bounds[1] for p in polygons)
    x1, y1 = max(p.bounds[2] for p in polygons), max(p.bounds[3] for p in polygons)
    assert max(x1 - x0, y1 - y0) <= size * 1.06
    assert max(x1 - x0, y1 - y0) >= size * 0.75
    assert picture.path.count("Z") == len(polygons)


def worded(part: str, legend: dict[str, Any], positions: tuple[str, ...] = (), style: Style | None = None) -> Any:
    """The lettering of one part with that legend."""
    commands = (
        EditFunction(function="f1", positions=positions),
        EditLegend(function="f1", **legend),
    )
    placed = Resolved(plate((part, 100, 60), commands=commands)).placed[0]
    return lettering(placed, style or Style())


ROTARIES = [p.id for p in catalogue().values() if p.detents]


@pytest.mark.parametrize("part", ROTARIES)
@pytest.mark.parametrize("turn", [0.0, 17.0, 90.0, 180.0, 275.0])
def test_detent_words_lie_on_every_rotarys_angles_at_any_turn(part: str, turn: float) -> None:
    ways = catalogue()[part].ways
    words = tuple(str(n) for n in range(ways))
    commands = (EditFunction(function="f1", positions=words), TurnItems(functions=("f1",), by=turn))
    placed = Resolved(plate((part, 100, 60), commands=commands)).placed[0]
    letters = lettering(placed, Style())
    for word, mark, angle in zip(letters.words, letters.marks, placed.part.angles(ways), strict=False):
        centre = word.box.core.centroid
        for x, y in ((centre.x, centre.y), (mark.x, mark.y)):
            away = (math.degrees(math.atan2(y, x)) - angle - turn) % 360
            assert min(away, 360 - away) < 0.01


SIDES = [("above", 0, 1), ("below", 0, -1), ("left", -1, 0), ("right", 1, 0)]


@pytest.mark.parametrize(("side", "dx", "dy"), SIDES)
def test_a_name_stands_on_its_side_clear_of_the_control(side: str, dx: int, dy: int) -> None:
    letters = worded("button-22", {"text": "GONG|LOUD", "side": side})
    assert [w.run.text for w in letters.words] == ["GONG", "LOUD"]
    cover = catalogue()["button-22"].cover.rounded().drawn()
    for word in letters.words:
        assert word.box.drawn().distance(cover) >= 1.5
        centre = word.box.core.centroid
        assert centre.x * dx >= 0
        assert centre.y * dy >= 0 or dx
    upper, lower = (w.box.bounds for w in letters.words)
    assert upper[1] - lower[3] > 1.0


def test_style_sets_every_role_and_a_legend_may_differ() -> None:
    style = Style(font="overpass", name_cap=6, position_cap=2.5, upper=False)
    letters = worded("rotary-12", {"text": "Route"}, ("a", "b"), style)
    assert {(w.role, w.run.cap, w.run.font) for w in letters.words} == {
        ("name", 6, "overpass"),
        ("position", 2.5, "overpass"),
    }
    assert letters.words[-1].run.text == "Route"
    assert worded("rotary-12", {"text": "Route", "cap": 5}).words[-1].run.cap == 5
    assert worded("rotary-12", {"text": "Route"}).words[-1].run.text == "ROUTE"


def test_marks_are_strokes_dots_or_none_and_a_hidden_legend_is_nothing() -> None:
    words = ("A", "B", "C")
    assert [m.dot for m in worded("rotary-12", {"text": "X", "marks": "dots"}, words).marks] == [True] * 3
    assert worded("rotary-12", {"text": "X", "marks": "none"}, words).marks == ()
    hidden = worded("rotary-12", {"text": "X", "hidden": True}, words)
    assert (hidden.words, hidden.marks) == ((), ())


def test_a_symbol_fills_a_lens_and_stands_beside_a_control() -> None:
    (on_lens,) = worded("caption-two-lamp", {"text": "", "symbol": "door", "side": "inside"}).words
    assert on_lens.run.cap == pytest.approx(10)
    (beside,) = worded("button-22", {"text": "", "symbol": "horn"}).words
    assert beside.box.bounds[1] > 29.5 / 2 + 1.5
    assert beside.loops()


def test_a_curved_name_runs_outside_the_position_words() -> None:
    letters = worded("rotary-12", {"text": "DESTINATION", "curved": True}, tuple("ABCDEFG"))
    name = letters.words[-1]
    inner = min(math.hypot(x, y) for loop in name.loops() for x, y in flattened(loop))
    outer = max(math.hypot(x, y) for w in letters.words[:-1] for x, y in w.box.drawn().exterior.coords)
    assert inner >= outer


ROW = [("toggle-large-on-off", 40.0 + 30 * n, 40.0) for n in range(4)]


def drawn(*graphics: dict[str, Any], parts: list[Any] | None = None) -> tuple[Design, Any]:
    """A plate with a row of toggles and these graphics, and the drawings."""
    made = [AddGraphic.model_validate({"id": f"g{n}", "module": "plate", **g}) for n, g in enumerate(graphics)]
    design = plate(*(parts if parts is not None else ROW), commands=tuple(made))
    r = Resolved(design)
    return design, graphics_on(r, r.modules["plate"])


@pytest.mark.parametrize("title", ["", "A", "SERVICES", "A TITLE FAR LONGER THAN THE WHOLE ROW OF FOUR TOGGLES IS"])
def test_a_bracket_spans_its_functions_and_breaks_round_its_title(title: str) -> None:
    design, (bracket,) = drawn({"kind": "bracket", "functions": ["f1", "f2", "f3", "f4"], "text": title})
    r = Resolved(design)
    covers = [p.part.cover.rounded().moved(p.place.x, p.place.y).bounds for p in r.placed]
    ends = [line for line in bracket.lines if line[0] == line[2]]
    assert min(e[0] for e in ends) <= min(b[0] for b in covers)
    assert max(e[0] for e in ends) >= max(b[2] for b in covers)
    assert all(abs(e[1] - e[3]) == DROP for e in ends)
    for line in (item for item in bracket.lines if item[0] != item[2]):
        for word in bracket.words:
            apart = LineString([(line[0], line[1]), (line[2], line[3])]).distance(box(*word.box.bounds))
            assert apart >= BREAK - 1e-6
    names = [w for p in r.placed for w in letterings(r)[p.number].words]
    assert max(w.box.bounds[3] for w in names) + 40 < max(e[1] for e in ends)


def test_a_bracket_follows_its_functions() -> None:
    design, (before,) = drawn({"kind": "bracket", "functions": ["f1", "f4"], "text": "T"})
    moved = apply(design, (MoveItems(functions=("f4",), dx=20, dy=10),), catalogue())
    r = Resolved(moved)
    (after,) = graphics_on(r, r.modules["plate"])
    assert after.room[2] == pytest.approx(before.room[2] + 20)
    assert after.room[3] == pytest.approx(before.room[3] + 10)


WRONG: list[dict[str, Any]] = [
    {"kind": "text"},
    {"kind": "placard"},
    {"kind": "symbol"},
]


@pytest.mark.parametrize("graphic", WRONG, ids=[w["kind"] for w in WRONG])
def test_a_graphic_that_says_nothing_is_refused(graphic: dict[str, Any]) -> None:
    with pytest.raises(NotPossible):
        drawn(graphic)


def test_a_box_goes_round_what_it_names_and_what_says_no_size_gets_one() -> None:
    design, _ = drawn({"kind": "box", "text": "T", "functions": ("f1", "f2")})
    r = Resolved(design)
    around = box(*graphics_on(r, r.modules["plate"])[-1].room)
    for placed in r.placed[:2]:
        assert around.contains(placed.frame.shape(placed.part.covered()).drawn())
    for kind in ("bracket", "box"):
        graphic = drawn({"kind": kind, "x": 100, "y": 60})[0].graphics[-1]
        assert (graphic.width, graphic.x) == (80, 60)


def test_a_placard_may_not_be_covered_and_a_line_may_not_run_into_things() -> None:
    design, _ = drawn({"kind": "placard", "text": "PULL MASTER FIRST", "x": 40, "y": 42})
    assert [f.severity for f in found(design, "face.placard-covered")] == ["must"]
    clear, _ = drawn({"kind": "placard", "text": "PULL MASTER FIRST", "x": 60, "y": 100})
    assert found(clear, "face.placard-covered") == []
    boxed, _ = drawn({"kind": "box", "text": "BOX", "x": 35, "y": 30, "width": 80, "height": 20})
    (finding,) = found(boxed, "face.graphic-clash")
    assert found(settled(boxed, finding), "face.graphic-clash") == []
    outside, _ = drawn({"kind": "text", "text": "OVER THE EDGE", "x": 195, "y": 60})
    assert "the plate's edge" in found(outside, "face.graphic-clash")[0].detail


def test_everything_drawn_is_engraved_and_single_strokes_stay_open() -> None:
    graphics: list[dict[str, Any]] = [
        {"kind": "bracket", "functions": ["f1", "f2"], "text": "TWO"},
        {"kind": "symbol", "symbol": "fan", "x": 170, "y": 100},
        {"kind": "text", "text": "PANEL", "role": "panel", "x": 100, "y": 110},
    ]
    design, drawings = drawn(*graphics)
    for font in ("barlow-semi-condensed", "single-stroke"):
        styled = apply(design, (SetStyle.model_validate({"font": font}),), catalogue())
        r = Resolved(styled)
        module = r.modules["plate"]
        scene = layer_scene(r, module, styled.stack[0])
        engraved = scene.of("engrave")
        assert any(item.open for item in engraved) is (font == "single-stroke")
        assert {item.label for item in engraved} >= {"symbol, fan", "text, PANEL", "bracket, TWO", "F1, F1"}
        text = write_svg(scene).decode()
        assert "<text" not in text
        assert "font" not in text
        assert len(mockup_face(r, module).items) > len(engraved)
        assert mockup_rear(r, module).seen_from_behind().width == module.size[0]
    assert [d.graphic.kind for d in drawings] == ["bracket", "symbol", "text"]
    assert Graphic(id="g", module="plate", kind="text", text="x").cap is None


@pytest.mark.parametrize("turn", [0, 90, 180, 270])
def test_a_guard_that_swings_to_one_side_pushes_only_the_words_there(turn: int) -> None:
    # Hinged at its top: it covers 27 mm above the middle of the hole and 19 below, 9.5 to either side.
    reach = {0: (27, 19), 90: (9.5, 9.5), 180: (19, 27), 270: (9.5, 9.5)}[turn]
    for side, away, sign in (("above", reach[0], 1), ("below", reach[1], -1)):
        words = EditLegend.model_validate({"function": "f1", "text": "GUARD", "side": side})
        design = plate(("toggle-guarded", 100, 60), commands=(TurnItems(functions=("f1",), by=turn), words))
        (word,) = [w for w in lettering(Resolved(design).placed[0], design.style).words if w.role == "name"]
        low, high = word.box.bounds[1], word.box.bounds[3]
        assert (low if sign > 0 else -high) == pytest.approx(away + GAP, abs=0.3)
        assert found(design, "face.legend-covered") == []
