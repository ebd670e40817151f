"""Outlines drawn in and cut: against shapely's own buffer and clipping, for a catalogue of shapes."""

from __future__ import annotations

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from shapes import LOOPS
from wingboard.core.geometry.offset import inset, strip
from wingboard.core.geometry.outline import Vertex, area_of
from wingboard.core.record.outlines import ArchOutline, path_of, stretched

INSETTABLE = ["rectangle", "rounded", "arched"]


@pytest.mark.parametrize("name", INSETTABLE)
@pytest.mark.parametrize("by", [0.1, 0.5, 2.0, 5.0])
def test_drawn_in_as_shapely_would_but_with_arcs(name: str, by: float) -> None:
    loop = LOOPS[name]
    drawn = area_of(inset(loop, by))
    expected = area_of(loop).buffer(-by, join_style="mitre")
    assert drawn.symmetric_difference(expected).area < 0.02 * by * area_of(loop).length / 10 + 0.05
    assert sum(1 for v in inset(loop, by) if v.bulge) == sum(1 for v in loop if v.bulge)


@pytest.mark.parametrize(("name", "by"), [("rectangle", 61), ("triangle", 1), ("rounded", 7)])
def test_what_leaves_nothing_is_refused(name: str, by: float) -> None:
    with pytest.raises(ValueError, match=r"nothing|vanishes|no longer"):
        inset(LOOPS[name], by)


@pytest.mark.parametrize("name", [n for n in LOOPS if n not in ("large arc",)])
@given(cuts=st.tuples(st.floats(0.05, 0.95), st.floats(0.05, 0.95)))
def test_a_strip_is_what_lies_between_two_lines(name: str, cuts: tuple[float, float]) -> None:
    region = area_of(LOOPS[name])
    x0, y0, x1, y1 = region.bounds
    low, high = (x0 + (x1 - x0) * c for c in sorted(cuts))
    expected = region.intersection(shapely.box(low, y0 - 1, high, y1 + 1))
    if high - low < 0.01 * (x1 - x0) or expected.area < 1e-3:
        return
    kept = area_of(strip(LOOPS[name], low, high))
    assert kept.area == pytest.approx(expected.area, rel=2e-3, abs=0.02)
    assert kept.exterior.is_ccw


def test_a_strip_beside_the_outline_is_refused() -> None:
    with pytest.raises(ValueError, match="nothing of the outline"):
        strip(LOOPS["rectangle"], 300, 400)


@given(st.floats(300, 2000), st.floats(20, 800))
def test_a_stretched_arch_has_the_size_asked_for_and_its_arc(width: float, height: float) -> None:
    arch = ArchOutline(width=740, height=190, rise=40)
    x0, y0, x1, y1 = area_of(stretched(arch, width, height).loop()).bounds
    assert (x0, y0) == pytest.approx((0, 0), abs=1e-6)
    assert (x1 - x0, y1 - y0) == pytest.approx((width, height), abs=0.02)


def test_a_path_keeps_its_corners_to_a_tenth_of_a_micrometre() -> None:
    loop = (Vertex(0, 0), Vertex(10.123456, 0, 0.41421356), Vertex(0, 9.87654321))
    for kept, given_corner in zip(path_of(loop).loop(), loop, strict=True):
        assert kept == pytest.approx(given_corner, abs=5.1e-5)
