"""The model of light against closed forms: inverse square, cos⁴, a line of lamps, a shadow's edge, energy."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely

from wingboard.core.light.diffuser import luminance, reflected, spread
from wingboard.core.light.emission import Grid, Lamp, exponent_of, grid_over, irradiance, strip
from wingboard.core.light.shadows import Bodies, Body, lit_share, shadows

DEFAULT = 2.0
"""mm from one point to the next."""


def at(field: np.ndarray, grid: Grid, x: float, y: float) -> float:
    return float(field[round((y - grid.y0) / grid.step), round((x - grid.x0) / grid.step)])


@pytest.mark.parametrize("h", [10.0, 15.0, 30.0])
def test_one_lambertian_lamp_falls_with_the_square_and_the_fourth_power_of_the_cosine(h: float) -> None:
    grid = Grid(-60, -60, 61, 61, DEFAULT)
    field = irradiance(Lamp(0, 0, h, intensity=1.0), grid, plane=0)
    assert at(field, grid, 0, 0) == pytest.approx(1e6 / h**2)  # E = I / r², r in metres
    for d in (10.0, 20.0, 40.0):
        cosine = h / math.hypot(h, d)
        assert at(field, grid, d, 0) == pytest.approx(1e6 / h**2 * cosine**4)


def test_the_half_angle_is_where_half_is_left() -> None:
    assert exponent_of(60) == pytest.approx(1.0)  # cos 60° = ½: Lambert
    m = exponent_of(30)
    assert math.cos(math.radians(30)) ** m == pytest.approx(0.5)
    with pytest.raises(ValueError, match="between 0 and 90"):
        exponent_of(90)
    # All that a lamp gives off arrives on a plane before it: 2π I / (m + 1).
    lamp = Lamp(0, 0, 10, 1.0, m)
    wide = grid_over(-300, -300, 300, 300, DEFAULT)
    arrived = irradiance(lamp, wide, 0).sum() * (DEFAULT / 1000) ** 2
    assert arrived == pytest.approx(lamp.flux, rel=0.01)


def test_a_long_strip_is_a_line_source() -> None:
    # ∫ I' h² / (h² + x²)² dx = π I' / 2h for an endless line of Lambertian emitters of I' cd a metre.
    h, pitch = 20.0, 1000 / 60
    lamps = strip((-2000, 0), (2000, 0), h, pitch, Lamp(0, 0, 0, intensity=0.5))
    grid = Grid(-pitch / 2, -40, 10, 41, DEFAULT)
    field = np.zeros((grid.rows, grid.columns))
    for lamp in lamps:
        field += irradiance(lamp, grid, 0)
    per_metre = 0.5 / (pitch / 1000)
    below = field[20, :8].mean()
    assert below == pytest.approx(math.pi * per_metre / (2 * h / 1000), rel=0.02)
    # Aside by a: π I' h² / 2 (h² + a²)^(3/2), for the distance to the line grows and both cosines shrink.
    assert field[0, :8].mean() == pytest.approx(
        math.pi * per_metre * (h / 1000) ** 2 / (2 * ((h / 1000) ** 2 + 0.04**2) ** 1.5), rel=0.02
    )


def test_a_shadow_ends_where_similar_triangles_say() -> None:
    # A lamp 30 mm behind the diffuser, a disc of 10 mm half way: its shadow is twice as wide.
    disc = shapely.Point(0, 0).buffer(5, quad_segs=64)
    lamp = Lamp(0, 0, 30, 1.0)
    (found,) = shadows(lamp, Bodies([Body(disc, 15 - 1e-9, 15)]), 0)
    assert found.bounds == pytest.approx((-10, -10, 10, 10), abs=0.05)
    # From aside: the far edge at lamp + (edge − lamp) · h / (h − d).
    (aside,) = shadows(lamp._replace(x=-20.0), Bodies([Body(disc, 0, 10)]), 0)
    assert aside.bounds[2] == pytest.approx(-20 + (5 + 20) * 30 / 20, abs=0.05)
    assert aside.bounds[0] == pytest.approx(-5, abs=0.05)  # its foot on the diffuser is dark too
    grid = grid_over(-40, -40, 40, 40, DEFAULT)
    share = lit_share(lamp, Bodies([Body(disc, 15 - 1e-9, 15)]), grid, 0)
    dark = (1 - share).sum() * DEFAULT**2
    assert dark == pytest.approx(math.pi * 10**2, rel=0.02)
    assert len(shadows(lamp, Bodies([Body(disc, 40, 50)]), 0)) == 0
    assert lit_share(lamp, Bodies([]), grid, 0).min() == 1


def test_a_lamp_that_leans_gives_as_much_and_to_its_side() -> None:
    straight = Lamp(0, 0, 20, 1.0)
    leaning = straight._replace(aside=(math.sin(math.radians(45)), 0.0))
    wide = grid_over(-600, -600, 600, 600, DEFAULT)
    field = irradiance(leaning, wide, 0)
    # By hand, 20 mm to its side: θ off the axis is 0, the plane's cosine cos 45°, r² = 2 · 20².
    assert at(field, wide, 21, 1) == pytest.approx(1e6 * math.cos(math.radians(45)) / 800, rel=0.08)
    # What leans by 45° sends (1 + cos 45°) / 2 of a Lambertian emitter's light through the plane before it.
    whole = field.sum() * (DEFAULT / 1000) ** 2
    assert whole == pytest.approx(straight.flux * (1 + math.cos(math.radians(45))) / 2, rel=0.03)


def test_light_never_grows() -> None:
    grid = grid_over(0, 0, 200, 120, DEFAULT)
    field = irradiance(Lamp(30, 20, 12, 2.0), grid, 0)
    for thickness in (0.0, 2.0, 3.0, 6.0):
        out = spread(field, DEFAULT, thickness)
        assert out.shape == field.shape
        assert out.sum() <= field.sum() * (1 + 1e-12)
        assert out.max() <= field.max() * (1 + 1e-12)
    middle = spread(irradiance(Lamp(100, 60, 12, 2.0), grid, 0), DEFAULT, 3)
    assert middle.sum() == pytest.approx(irradiance(Lamp(100, 60, 12, 2.0), grid, 0).sum(), rel=0.01)
    assert luminance(np.full((1, 1), math.pi), 0.4)[0, 0] == pytest.approx(0.4)
    # Walls of 80 %: what is left over is thrown back four times, over all of the box.
    assert reflected(10.0, 100_000, 0.8, 0.8) == pytest.approx(0.8 / 0.2 * 10.0 / 0.1)
    with pytest.raises(ValueError, match="less than all"):
        reflected(1.0, 1.0, 1.0, 0.5)
