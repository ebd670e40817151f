"""Drawings written by other libraries (ezdxf, svgwrite) are read back: units, closedness, crossings, sizes."""

from __future__ import annotations

import io
import math
from collections.abc import Callable
from typing import Any

import pytest
import svgwrite
from ezdxf import units
from ezdxf.filemanagement import new
from hypothesis import given
from hypothesis import strategies as st

from wingboard.core.files.drawn import Import, NotAnOutline
from wingboard.core.files.outline_in import read_outlines
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.outlines import path_of

Draw = Callable[[Any], object]


def dxf(draw: Draw, unit: int = units.MM) -> bytes:
    """A DXF drawing with what ``draw`` puts into its model space."""
    document = new("R2010")
    document.units = unit
    draw(document.modelspace())
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def svg(draw: Draw, width: str = "200mm", height: str = "100mm", view: str | None = "0 0 200 100") -> bytes:
    """An SVG drawing with what ``draw`` puts into it."""
    drawing = svgwrite.Drawing(size=(width, height), viewBox=view) if view else svgwrite.Drawing(size=(width, height))
    draw(drawing)
    return str(drawing.tostring()).encode()


def size(found: Import) -> tuple[float, float]:
    """The largest outline's width and height."""
    return found.outlines[0].width, found.outlines[0].height


def box(x: float, y: float, w: float, h: float) -> list[tuple[float, float]]:
    """The corners of a rectangle."""
    return [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]


def stadium(space: Any) -> None:
    """Two lines and two arcs, in no order and any direction."""
    space.add_arc((10, 20), 10, 90, 270)
    space.add_line((90, 10), (10, 10))
    space.add_arc((90, 20), 10, 270, 90)
    space.add_line((10, 30), (90, 30))


GOOD: list[tuple[str, bytes, tuple[float, float], float]] = [
    ("dxf polyline", dxf(lambda s: s.add_lwpolyline(box(5, 7, 200, 100), close=True)), (200, 100), 20000),
    ("dxf backwards", dxf(lambda s: s.add_lwpolyline(box(0, 0, 200, 100)[::-1], close=True)), (200, 100), 20000),
    ("dxf inches", dxf(lambda s: s.add_lwpolyline(box(0, 0, 8, 4), close=True), units.IN), (203.2, 101.6), 20645.12),
    ("dxf centimetres", dxf(lambda s: s.add_lwpolyline(box(0, 0, 20, 10), close=True), units.CM), (200, 100), 20000),
    ("dxf circle", dxf(lambda s: s.add_circle((3, 4), 26)), (52, 52), math.pi * 26**2),
    ("dxf lines and arcs", dxf(stadium), (100, 20), 80 * 20 + math.pi * 100),
    ("dxf ellipse", dxf(lambda s: s.add_ellipse((0, 0), (30, 0), 0.5)), (60, 30), math.pi * 30 * 15),
    ("dxf old polyline", dxf(lambda s: s.add_polyline2d(box(0, 0, 60, 30), close=True)), (60, 30), 1800),
    ("svg rect", svg(lambda d: d.add(d.rect((5, 5), (120, 60)))), (120, 60), 7200),
    ("svg rounded", svg(lambda d: d.add(d.rect((5, 5), (120, 60), 10, 10))), (120, 60), 7200 - (4 - math.pi) * 100),
    ("svg circle", svg(lambda d: d.add(d.circle((50, 50), 26))), (52, 52), math.pi * 26**2),
    (
        "svg path with arc",
        svg(lambda d: d.add(d.path("M0 0H90A10 10 0 0 1 100 10V50H0Z"))),
        (100, 50),
        5000 - (4 - math.pi) * 25,
    ),
    ("svg inches", svg(lambda d: d.add(d.rect((0, 0), (8, 4))), "10in", "10in", "0 0 10 10"), (203.2, 101.6), 20645.12),
    ("svg pixels", svg(lambda d: d.add(d.rect((0, 0), (96, 48))), "200", "100", None), (25.4, 12.7), 322.58),
    ("svg turned", svg(lambda d: d.add(d.rect((0, 0), (40, 20), transform="rotate(90)"))), (20, 40), 800),
    ("svg curves", svg(lambda d: d.add(d.path("M0 0C0 40 60 40 60 0Z"))), (60, 30), 1440),
]


@pytest.mark.parametrize(("content", "wanted", "area"), [g[1:] for g in GOOD], ids=[g[0] for g in GOOD])
def test_outlines_of_other_libraries_are_read_to_scale(
    content: bytes, wanted: tuple[float, float], area: float
) -> None:
    found = read_outlines(content)
    assert size(found) == pytest.approx(wanted, abs=0.03)
    region = area_of(found.outlines[0].loop)
    assert region.area == pytest.approx(area, rel=2e-3)
    assert region.exterior.is_ccw
    assert region.bounds[:2] == pytest.approx((0, 0), abs=0.01)
    assert path_of(found.outlines[0].loop).loop()


def test_arcs_stay_arcs() -> None:
    assert sum(1 for v in read_outlines(dxf(stadium)).outlines[0].loop if v.bulge) == 2
    rounded = svg(lambda d: d.add(d.rect((5, 5), (120, 60), 10, 10)))
    assert sum(1 for v in read_outlines(rounded).outlines[0].loop if abs(v.bulge) > 0.01) == 4


def test_the_largest_comes_first_and_the_rest_is_named() -> None:
    def draw(space: Any) -> None:
        space.add_circle((50, 50), 5)
        space.add_lwpolyline(box(0, 0, 100, 100), close=True)
        space.add_line((200, 0), (300, 0))
        space.add_text("a note")

    found = read_outlines(dxf(draw))
    assert [round(o.width) for o in found.outlines] == [100, 10]
    assert any("TEXT left aside" in note for note in found.notes)
    assert any("1 open line left aside, the first ends at 300.0, 0.0" in note for note in found.notes)


def test_a_unit_that_is_said_counts_and_one_that_is_missing_is_noted() -> None:
    bare = dxf(lambda s: s.add_lwpolyline(box(0, 0, 8, 4), close=True), 0)
    found = read_outlines(bare)
    assert size(found) == (8, 4)
    assert any("does not say its unit" in note for note in found.notes)
    assert size(read_outlines(bare, "in")) == pytest.approx((203.2, 101.6))
    assert size(read_outlines(svg(lambda d: d.add(d.rect((0, 0), (8, 4)))), "in")) == pytest.approx(
        (203.2, 101.6), abs=0.01
    )


CROSSING = [(0, 0), (10, 10), (10, 0), (0, 10)]


def square(space: Any) -> None:
    """Ten units wide and high."""
    space.add_lwpolyline(box(0, 0, 10, 10), close=True)


def nearly_closed(space: Any) -> None:
    """Three lines, the last of which ends a little beside the first."""
    for start, end in (((0, 0), (10, 0)), ((10, 0), (5, 9)), ((5, 9), (0.4, 0))):
        space.add_line(start, end)


BAD: list[tuple[str, bytes, str]] = [
    ("empty", b"", "is empty"),
    ("spaces", b"  \n ", "is empty"),
    ("neither", b"%PDF-1.4 something", "Neither a DXF text file nor an SVG"),
    ("dxf with nothing", dxf(lambda s: None), "no lines, arcs or outlines"),
    ("dxf open", dxf(lambda s: s.add_lwpolyline(box(0, 0, 10, 10))), "No line closes"),
    ("dxf gap", dxf(nearly_closed), "0.40 mm apart"),
    ("dxf crossing", dxf(lambda s: s.add_lwpolyline(CROSSING, close=True)), "crosses itself"),
    ("dxf huge", dxf(lambda s: s.add_lwpolyline(box(0, 0, 9000, 10), close=True)), "nothing here is longer than 5000"),
    ("dxf huge in metres", dxf(square, units.M), "Is the unit right?"),
    ("dxf tiny", dxf(lambda s: s.add_circle((0, 0), 0.01)), "smaller than anything cut"),
    ("dxf back on itself", dxf(lambda s: s.add_lwpolyline([(0, 0), (10, 0)], close=True)), "no width"),
    ("dxf broken", b"0\nSECTION\n2\nHEADER\nbroken", "cannot be read as DXF"),
    ("dxf cut off", dxf(stadium)[:2000], ""),
    ("svg with nothing", svg(lambda d: None), "no lines, arcs or outlines"),
    ("svg open", svg(lambda d: d.add(d.path("M0 0L10 0L10 10"))), "No line closes"),
    ("svg crossing", svg(lambda d: d.add(d.path("M0 0L10 10L10 0L0 10Z"))), "crosses itself"),
    ("svg broken", b"<svg xmlns='http://www.w3.org/2000/svg'><path", "cannot be read as SVG"),
    ("other xml", b"<?xml version='1.0'?><html/>", "not an SVG drawing"),
    ("svg with entities", b"<!DOCTYPE s [<!ENTITY a 'b'>]><svg xmlns='http://www.w3.org/2000/svg'>&a;</svg>", "SVG"),
    ("svg nonsense path", svg(lambda d: None).replace(b"</svg>", b'<path d="M0 0L nan nan 5 5Z"/></svg>'), ""),
]  # fmt: skip


@pytest.mark.parametrize(("content", "why"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_what_gives_no_outline_says_why(content: bytes, why: str) -> None:
    with pytest.raises(NotAnOutline) as refused:
        read_outlines(content)
    assert why in refused.value.message


@given(st.lists(st.tuples(st.floats(1, 400), st.floats(1, 400)), min_size=1, max_size=4))
def test_any_boxes_come_back_with_their_sizes(sizes: list[tuple[float, float]]) -> None:
    def draw(space: Any) -> None:
        for n, (w, h) in enumerate(sizes):
            space.add_lwpolyline(box(500 * n, 0, w, h), close=True)

    found = read_outlines(dxf(draw))
    back = sorted((round(o.width, 6), round(o.height, 6)) for o in found.outlines)
    assert back == sorted((round(w, 6), round(h, 6)) for w, h in sizes)
