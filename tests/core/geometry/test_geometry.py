"""Shapes keep what they promise under moving, turning and mirroring, and distances are exact and symmetric."""

import math

import pytest
import shapely

from shapes import LOOPS, ROUNDED
from wingboard.core.geometry import outline
from wingboard.core.geometry.rounded import disc, gap, slab
from wingboard.core.geometry.shapeset import ShapeSet


@pytest.mark.parametrize("name", ROUNDED)
def test_a_drawn_shape_has_its_bounds_and_turning_back_restores_it(name: str) -> None:
    shape = ROUNDED[name]
    assert shape.drawn().bounds == pytest.approx(shape.bounds, abs=0.01)
    back = shape.moved(3, -7).turned(90).turned(-90).moved(-3, 7)
    assert back.bounds == pytest.approx(shape.bounds, abs=1e-9)


@pytest.mark.parametrize("a", ROUNDED)
@pytest.mark.parametrize("b", ROUNDED)
def test_distances_are_symmetric_and_agree_with_polygons(a: str, b: str) -> None:
    one, other = ROUNDED[a], ROUNDED[b].moved(6000, 17)
    assert gap(one, other) == gap(other, one)
    assert gap(one, other) == pytest.approx(one.drawn().distance(other.drawn()), abs=0.7)  # chords of a 5 m disc


def test_distance_of_discs_and_slots_is_exact() -> None:
    assert gap(disc(12), disc(17, 30, 40)) == pytest.approx(50 - 14.5, abs=1e-12)
    assert gap(slab(20, 6, 3), disc(4, 0, 10)) == pytest.approx(10 - 3 - 2, abs=1e-12)


@pytest.mark.parametrize("name", LOOPS)
def test_mirrored_twice_is_itself_and_keeps_its_area(name: str) -> None:
    loop = LOOPS[name]
    twice = outline.mirrored(outline.mirrored(loop, 77), 77)
    assert [x for v in twice for x in v] == pytest.approx([x for v in loop for x in v])
    assert outline.area_of(outline.mirrored(loop, 77)).area == pytest.approx(outline.area_of(loop).area)
    assert outline.area_of(outline.turned(loop, 33)).area == pytest.approx(outline.area_of(loop).area)


def test_arcs_have_the_area_their_formula_gives() -> None:
    # Circular segment: A = r²(θ − sin θ)/2 (any handbook of geometry).
    bulge, chord = 0.3, 100.0
    theta = 4 * math.atan(bulge)
    radius = chord * (1 + bulge**2) / (4 * bulge)
    segment = radius**2 * (theta - math.sin(theta)) / 2
    assert outline.area_of(LOOPS["arched"]).area == pytest.approx(5000 + segment, rel=1e-4)
    assert outline.area_of(LOOPS["all round"]).area == pytest.approx(math.pi * 400, rel=2e-4)


def test_a_set_finds_exactly_the_pairs_that_a_plain_search_finds() -> None:
    shapes = list(ROUNDED.values()) * 12
    at = [((n * 37) % 211 * 1.0, (n * 53) % 157 * 1.0) for n in range(len(shapes))]
    owners = [n // 2 for n in range(len(shapes))]
    placed = [s.moved(*p) for s, p in zip(shapes, at, strict=True)]
    plain = {
        (i, j)
        for i in range(len(shapes))
        for j in range(i + 1, len(shapes))
        if owners[i] != owners[j] and gap(placed[i], placed[j]) < 3
    }
    made = ShapeSet(shapes, owners, at)
    assert {(n.a, n.b) for n in made.closer_than(3)} == plain
    for index, shape in enumerate(placed[:9]):
        mine = {i for i, _ in made.against(shape, 3, owners[index])}
        assert mine == {j for j in range(len(placed)) if owners[j] != owners[index] and gap(placed[j], shape) < 3}


def test_margins_inside_an_area_are_signed() -> None:
    area = shapely.box(0, 0, 100, 50)
    made = ShapeSet([disc(10)] * 3, [0, 1, 2], [(50, 25), (6, 25), (-2, 25)])
    assert made.margins_inside(area) == pytest.approx([20, 1, -7])
    assert len(ShapeSet([], [], []).closer_than(5)) == 0
