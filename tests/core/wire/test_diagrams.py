"""Drawings of Wire: nothing beside the paper, names that could break a file, always the same bytes; read by others."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Iterator

import pypdfium2
import pytest

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.files.diagram import Box, Diagram, Dot, Line, Shape, Words, pdf, shortened, svg
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.tags import tags
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.crib import crib_diagrams
from wingboard.core.wire.harness.drawing import loom_diagrams
from wingboard.core.wire.harness.pinout import plug_diagrams
from wingboard.core.wire.landing import landing_diagrams
from wingboard.core.wire.pinfiles import number_of
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.power.drawing import power_diagram
from wingboard.demo import demo_texts

SVG = "{http://www.w3.org/2000/svg}"


@pytest.fixture(scope="module")
def drawn() -> list[Diagram]:
    """Every drawing of the tram desk with some of it on chips."""
    design = read_design(demo_texts()["kestrel-line-9"], catalogue())
    chips = [{"do": "edit_function", "function": f.id, "scheme": "shift"} for f in design.functions[10:25] if f.part]
    design = apply(design, BATCH.validate_python(chips), catalogue())
    pins = [p.model_dump() for p in solve(Resolved(design), keep=False).pins]
    r = Resolved(apply(design, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue()))
    found = [power_diagram(r), *loom_diagrams(r), *plug_diagrams(r), *crib_diagrams(r), *landing_diagrams(r)]
    assert len(found) > 12
    return found


def corners(shape: Shape) -> Iterator[tuple[float, float]]:
    if isinstance(shape, Line):
        yield from shape.points
    elif isinstance(shape, Box):
        yield from ((shape.x, shape.y), (shape.x + shape.width, shape.y + shape.height))
    elif isinstance(shape, Dot):
        yield from ((shape.x - shape.radius, shape.y), (shape.x + shape.radius, shape.y))
    else:
        wide = 0.5 * shape.size * len(shape.text)  # half its size a letter
        left = {"start": 0.0, "middle": wide / 2, "end": wide}[shape.anchor]
        yield from ((shape.x - left, shape.y), (shape.x - left + wide, shape.y))


def test_nothing_is_drawn_beside_the_paper(drawn: list[Diagram]) -> None:
    for diagram in drawn:
        for shape in diagram.shapes:
            for x, y in corners(shape):
                assert -8 <= x <= diagram.width + 8, (diagram.title, shape)  # the margin of the page
                assert -1 <= y <= diagram.height + 1, (diagram.title, shape)


def test_each_is_read_by_others_and_the_same_every_time(drawn: list[Diagram]) -> None:
    for diagram in drawn:
        root = ET.fromstring(svg(diagram))
        assert len(root.findall(f"{SVG}text")) == sum(isinstance(s, Words) for s in diagram.shapes)
        assert len(root.findall(f"{SVG}circle")) == sum(isinstance(s, Dot) for s in diagram.shapes)
    whole = pdf("all", drawn)
    assert whole == pdf("all", drawn)
    document = pypdfium2.PdfDocument(whole)
    assert len(document) == len(drawn)
    for page, diagram in zip(document, drawn, strict=True):
        wide, high = page.get_size()
        assert (wide > high) == (diagram.width > diagram.height)
        said = page.get_textpage().get_text_range()
        title = next(s.text for s in diagram.shapes if isinstance(s, Words) and s.bold)
        assert title.split(",")[0] in said


def test_names_that_mean_something_to_the_format_are_words() -> None:
    nasty = "A <b> & \"c\" 'd' → Ω"
    diagram = Diagram(
        nasty, 50, 20, (Words(1, 5, nasty), Line(((0, 0), (5, 5)), fill="#FFFFFF"), Box(1, 1, 4, 4, "", ""))
    )
    root = ET.fromstring(svg(diagram))
    assert root.findtext(f"{SVG}text") == nasty == root.findtext(f"{SVG}title")
    assert pdf(nasty, [diagram]).startswith(b"%PDF")
    assert len(pypdfium2.PdfDocument(pdf("none", []))) == 1


CUT = [("short", 50.0, "short"), ("a very long name of a lamp", 13.5, "a very l…"), ("x", 0.1, "x")]


@pytest.mark.parametrize(("text", "width", "kept"), CUT)
def test_long_names_are_cut_with_an_ellipsis(text: str, width: float, kept: str) -> None:
    assert shortened(text, 2.6, width) == kept


@pytest.mark.parametrize(
    ("pin", "number"), [("22", "22"), ("A0", "A0"), ("GP15", "15"), ("IO4", "4"), ("GPIO33", "33")]
)
def test_pins_are_numbered_as_programs_number_them(pin: str, number: str) -> None:
    assert number_of(pin) == number


def test_terminals_lie_on_their_part() -> None:
    for part in catalogue().values():
        width, height = part.body.span
        found = tags(part, part.terminals)
        assert [tag.terminal for tag in found.tags] == list(part.terminals)
        for tag in found.tags:
            assert abs(tag.x) <= width / 2 and abs(tag.y) <= height / 2, (part.id, tag)
        spots = {(round(tag.x, 3), round(tag.y, 3)) for tag in found.tags}
        assert len(spots) == len(found.tags), part.id
