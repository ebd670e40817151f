"""Design files: what is written reads back, what is wrong is named at its place, hostile files do no harm."""

import json
from collections.abc import Callable
from typing import Any

import pytest

from building import plate
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design, write_design
from wingboard.core.record.errors import UnreadableDesign
from wingboard.core.record.upgrade import FORMAT

GOOD = json.loads(write_design(plate(("toggle-large-on-off", 40, 40))))


def changed(**fields: Any) -> str:
    """The good file with other top fields."""
    return json.dumps({**GOOD, **fields})


def with_place(**fields: Any) -> str:
    """The good file with another place of its function."""
    function = {**GOOD["functions"][0], "place": {**GOOD["functions"][0]["place"], **fields}}
    return changed(functions=[function])


@pytest.mark.parametrize("name", ["kestrel-line-9", "dust-extraction"])
def test_what_is_written_reads_back_equal(demo: Callable[[str], Design], name: str) -> None:
    design = demo(name)
    assert read_design(write_design(design), catalogue()) == design
    without_parts = json.loads(write_design(design))
    without_parts["parts"] = []
    assert {p.id for p in read_design(json.dumps(without_parts), catalogue()).parts} == {p.id for p in design.parts}


WIDTH = "brief.opening.rect.width"
POINTS = [{"x": 0, "y": 0}] * 3000
BAD = [
    ("not json", "{", ""),
    ("a list", "[]", "format"),
    ("another format", '{"format": "drawing"}', "format"),
    ("a newer version", changed(version=FORMAT + 1), "version"),
    ("NaN", with_place(x=float("nan")), ""),
    ("infinite", '{"name": "x", "brief": {"depth": 1e999}}', "brief.depth"),
    ("a huge number", with_place(x=1e300), "functions[0].place.x"),
    ("a negative width", changed(brief={"opening": {"kind": "rect", "width": -1, "height": 2}}), WIDTH),
    ("an unknown part", changed(parts=[], functions=[{"id": "f1", "name": "x", "part": "no-such"}]), ""),
    ("an unknown module", with_place(module="nowhere"), ""),
    ("an unknown field", changed(colour="red"), "colour"),
    ("the same id twice", changed(functions=[{"id": "f1", "name": "x"}, {"id": "f1", "name": "y"}]), ""),
    ("a control character", changed(name="a\u0007b"), "name"),
    ("a wrong type", changed(functions="all"), "functions"),
    ("deep nesting", "[" * 100_000, ""),
    ("a path for an id", changed(functions=[{"id": "../etc", "name": "x"}]), "functions[0].id"),
    ("too many points", changed(brief={"opening": {"kind": "path", "points": POINTS}}), "brief.opening.path.points"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "path"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_a_bad_file_is_refused_at_its_place(text: str, path: str) -> None:
    with pytest.raises(UnreadableDesign) as refused:
        read_design(text, catalogue())
    assert refused.value.path == path
    assert refused.value.message
