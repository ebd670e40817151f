"""The catalogue: every part whole, drawn, placeable, sourced; its figures beside published ones."""

from __future__ import annotations

from itertools import pairwise

import pytest
from shapely import Polygon, unary_union

from building import found, plate
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.modules import THREE_LAYERS
from wingboard.core.record.part import FrontShape, Part
from wingboard.core.record.shapes import Circle, Rect
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.profile import cutouts
from wingboard.core.wire.lines import lines

PARTS = catalogue()
EACH = pytest.mark.parametrize("part", PARTS.values(), ids=PARTS)
FAMILIES = {
    "toggle": 8, "button": 10, "rocker": 3, "emergency": 2, "key": 2, "rotary": 6, "encoder": 3, "pot": 3, "slider": 2,
    "thumbwheel": 2, "joystick": 1, "breaker": 4, "lamp": 6, "caption": 5, "readout": 3, "display": 4, "gauge": 4,
    "sounder": 2, "connector": 8, "vent": 2, "speaker": 1, "blank": 2, "placard": 1, "fixing": 2, "device": 1,
}  # fmt: skip


def test_every_family_has_its_parts() -> None:
    assert len(PARTS) >= 60
    for family, least in FAMILIES.items():
        assert sum(1 for p in PARTS.values() if p.family == family) >= least, family


@EACH
def test_its_front_is_its_hole_and_its_bezel(part: Part) -> None:
    drawn = unary_union([_region(shape) for shape in part.front])
    cover = part.cover.rounded().drawn()
    assert drawn.difference(cover.buffer(0.6)).area < 0.5, "drawn beyond what it covers"
    if part.family in ("toggle", "slider", "joystick", "speaker", "vent", "placard", "fixing"):
        return  # the hole shows round a lever, or the cover is the room of screws and travel
    hole = part.hole.rounded().drawn()
    assert hole.difference(drawn.buffer(0.7)).area < 0.02 * hole.area + 0.5, "a hole that nothing hides"


def _region(piece: FrontShape) -> Polygon:
    return piece.shape.rounded().turned(piece.turn).moved(piece.x, piece.y).drawn()


@EACH
def test_its_dimensions_are_sourced_and_in_order(part: Part) -> None:
    assert set(part.dimensions()) <= set(part.sources)
    assert all(source.said() for source in part.sources.values())
    assert all(s.note for s in part.sources.values() if s.kind in ("published", "memory", "computed"))
    if part.bush:
        assert part.bush.diameter <= min(part.hole.span) + 0.01
        assert part.bush.nut < part.bush.length
    if part.sheet:
        assert part.sheet.least < part.sheet.most
    if part.used:
        assert part.used.low <= part.used.high
        assert part.used.low <= part.price
    assert part.price > 0 or part.family == "vent"


@EACH
def test_its_positions_lie_within_its_travel(part: Part) -> None:
    angles = part.angles(part.ways)
    assert len(set(angles)) == len(angles)
    if part.detents:
        turn = part.detents.mechanism or part.detents.ways
        assert part.detents.step == pytest.approx(360 / turn)
        assert part.detents.ways <= turn
        assert all(a - b == pytest.approx(part.detents.step) for a, b in pairwise(angles))
        assert angles[0] - angles[-1] <= 360 - part.detents.step + 1e-9
    assert {line.id for line in part.lines} >= {s.lamp for s in part.front if s.lamp}


@EACH
def test_its_lines_have_terminals_and_currents(part: Part) -> None:
    assert len({line.id for line in part.lines}) == len(part.lines)
    if part.lines:
        each = sum(part.ways if line.each_position else 1 for line in part.lines)
        assert len(part.terminals) >= each
    for line in part.lines:
        if line.volts:
            # Common practice: pre-wired for 12 V at up to 20 mA; bulbs of 24 V take 2 W.
            assert (line.volts, line.drop) == ((24, 0) if line.bulb else (12, 0))
            assert line.volts * line.current == pytest.approx(2, rel=0.01) if line.bulb else line.current <= 0.02
        elif line.does == "lamp":
            # Common practice: red from 1.8 V, two amber in series to 4.4 V; 8 to 15 mA.
            assert 1.8 <= line.drop <= 4.4
            assert 0.008 <= line.current <= 0.02
        else:
            assert line.drop == 0


@EACH
def test_it_can_be_placed_and_its_openings_drawn(part: Part) -> None:
    design = plate((part.id, 100, 60))
    resolved = Resolved(design)
    module = resolved.modules["plate"]
    assert {cut.layer for cut in cutouts(part, THREE_LAYERS)} == {"face", "diffuser", "back"}
    for layer in ("face", "diffuser", "back"):
        assert module.cutouts(layer)
    assert found(design, "face.holes-overlap") == []
    assert found(design, "parts.bush-short") == []
    assert found(design, "parts.hole-tight") == []
    expected = sum((part.ways if line.each_position else 1) for line in part.lines)
    assert len(lines(resolved)) == expected


# (part, hole or body in mm, where it comes from): each figure stands beside its source in the data files too.
PUBLISHED = [
    ("button-16", "hole", 16.2, "IEC 60947-5-1"),
    ("button-22", "hole", 22.3, "IEC 60947-5-1"),
    ("button-22-lit", "hole", 22.3, "IEC 60947-5-1"),
    ("button-30", "hole", 30.5, "IEC 60947-5-1"),
    ("emergency-stop-22", "hole", 22.3, "IEC 60947-5-1"),
    ("emergency-stop-16", "hole", 16.2, "IEC 60947-5-1"),
    ("pilot-16", "hole", 16.2, "IEC 60947-5-1"),
    ("pilot-22", "hole", 22.3, "IEC 60947-5-1"),
    ("key-switch-22-3", "hole", 22.3, "IEC 60947-5-1"),
    ("blank-22", "hole", 22.3, "IEC 60947-5-1"),
    ("gauge-57", "body", 57.2, "2¼ in"),
    ("gauge-79", "body", 79.4, "3⅛ in"),
    ("gauge-52", "body", 52.0, "52 mm"),
    ("gauge-85", "body", 85.0, "85 mm"),
    ("earth-stud-m4", "hole", 4.5, "ISO 273"),
    ("screw-m4", "hole", 4.5, "ISO 273"),
    ("placard-60x20", "hole", 2.9, "ISO 273"),
    ("cable-gland-16", "hole", 16.3, "EN 60423"),
]


@pytest.mark.parametrize(("part", "field", "mm", "source"), PUBLISHED, ids=[p[0] for p in PUBLISHED])
def test_holes_are_those_of_their_standards(part: str, field: str, mm: float, source: str) -> None:
    shape = getattr(PARTS[part], field)
    assert isinstance(shape, Circle)
    assert shape.diameter == mm
    assert source in PARTS[part].sources[field].note


# Threads from memory: (part, major diameter, pitch). Inch threads: 25.4 / turns an inch.
THREADS = [
    ("toggle-small-on-off", 6.35, 25.4 / 40),
    ("toggle-large-on-off", 12.0, 1.0),
    ("rotary-12", 9.53, 25.4 / 32),
    ("breaker-10", 11.1, 25.4 / 32),
    ("potentiometer", 7.0, 0.75),
    ("encoder-push", 7.0, 0.75),
    ("button-16", 16.0, 1.0),
    ("button-22", 22.0, 1.5),
    ("earth-stud-m4", 4.0, 0.7),
]


@pytest.mark.parametrize(("part", "diameter", "pitch"), THREADS, ids=[t[0] for t in THREADS])
def test_bushes_have_the_threads_of_the_trade(part: str, diameter: float, pitch: float) -> None:
    bush = PARTS[part].bush
    assert bush is not None
    assert bush.diameter == pytest.approx(diameter, abs=0.03)
    assert bush.pitch == pytest.approx(pitch, abs=0.12)


def test_instruments_in_inches_are_exact_conversions() -> None:
    assert pytest.approx(57.2, abs=0.06) == 2.25 * 25.4
    assert pytest.approx(79.4, abs=0.06) == 3.125 * 25.4


# IEC 60807-2 (from memory): distance of a D-sub's screws by shell size.
@pytest.mark.parametrize(
    ("part", "apart"), [("dsub-9", 24.99), ("dsub-15", 33.32), ("dsub-25", 47.04), ("dsub-37", 63.50)]
)
def test_d_sub_screws_are_where_the_shells_have_them(part: str, apart: float) -> None:
    right, left = PARTS[part].extras
    assert right.x - left.x == pytest.approx(apart, abs=0.02)
    hole = PARTS[part].hole
    assert isinstance(hole, Rect)
    assert hole.width < apart


def test_the_bought_device_has_the_cut_out_of_its_standard() -> None:
    # IEC 61554 (from memory): 92 × 45 mm.
    assert PARTS["device-bought"].hole.span == (92, 45)
