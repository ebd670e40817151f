"""The pins for programs, read by others: the C header by its grammar, the module by Python, the JSON by its schema."""

from __future__ import annotations

import json
import re
import xml.etree.ElementTree as ET
from typing import Any

import jsonschema_rs
import pypdfium2
import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.harness.plugs import plugs
from wingboard.core.wire.pinfiles import identifier
from wingboard.core.wire.pins.solve import solve
from wingboard.demo import demo_texts

DEFINE = re.compile(r"#define ([A-Z][A-Z0-9_]*) +([A-Z]?\d+) *// .*")


@pytest.fixture(scope="module")
def files() -> dict[str, bytes]:
    return wire_files(Resolved(read_design(demo_texts()["kestrel-line-9"], catalogue())))


NAMES = [
    ("Door 1 +", "DOOR_1_PLUS"),
    ("24 V, on", "N24_V_ON"),
    ("Tür – auf", "TUR_AUF"),
    ("*/ evil", "EVIL"),
    ("→", "N"),
]


@pytest.mark.parametrize(("text", "name"), NAMES)
def test_names_are_names_in_any_language(text: str, name: str) -> None:
    assert identifier(text) == name
    assert identifier(text).isidentifier()


def test_the_header_the_module_and_the_json_say_the_same(files: dict[str, bytes]) -> None:
    listed = json.loads(files["wire/pins-for-programs.json"])
    jsonschema_rs.validate(json.loads(files["wire/pins-for-programs.schema.json"]), listed)
    module: dict[str, Any] = {}
    exec(files["wire/pins.py"].decode(), module)
    every = [line for board in listed["boards"] for line in board["lines"]]
    assert len({line["name"] for line in every}) == len(every) == 104
    for board in listed["boards"]:
        names = module[identifier(board["name"])]
        assert {n: (str(pin), mode) for n, (pin, mode) in names.items()} == {
            line["name"]: (line["pin"], line["mode"]) for line in board["lines"]
        }
        header = files[f"wire/pins-{board['name'].lower().replace(' ', '-')}.h"].decode()
        defined = {m[1]: m[2] for m in map(DEFINE.fullmatch, header.splitlines()) if m}
        assert defined == {line["name"]: line["pin"] for line in board["lines"]}
        assert header.count("#ifndef") == header.count("#endif") == 1


def test_words_that_could_end_a_comment_or_a_string_do_no_harm() -> None:
    start = plate(("button-16", 30.0, 60.0))
    commands: list[dict[str, Any]] = [
        {"do": "rename", "name": 'A " desk \\ """ """'},
        {"do": "edit_function", "function": "f1", "name": 'Bell \\ "*/ """'},
        {"do": "add_controller", "id": "pico", "name": 'He said "hi"', "board": "rp2040"},
    ]
    design = apply(start, BATCH.validate_python(commands), catalogue())
    pins = [p.model_dump() for p in solve(Resolved(design)).pins]
    design = apply(design, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue())
    files = wire_files(Resolved(design))
    module: dict[str, Any] = {}
    exec(files["wire/pins.py"].decode(), module)
    assert list(module["HE_SAID_HI"]) == ["BELL_NO"]
    assert [m[2].isdigit() for m in map(DEFINE.fullmatch, files["wire/pins-pico.h"].decode().splitlines()) if m] == [
        True
    ]


def words(pdf: bytes) -> str:
    document = pypdfium2.PdfDocument(pdf)
    return " ".join(page.get_textpage().get_text_range() for page in document).replace("\r\n", " ")


def test_the_drawings_hold_what_they_are_of(files: dict[str, bytes]) -> None:
    for name in ("wire/power.svg", "wire/looms.svg", "wire/plug-j1.svg"):
        root = ET.fromstring(files[name])
        assert root.attrib["width"].endswith("mm") and len(list(root)) > 20
    r = Resolved(read_design(demo_texts()["kestrel-line-9"], catalogue()))
    assert all(plug.title in words(files["wire/plugs.pdf"]) for plug in plugs(r))
    assert "24 V supply" in words(files["wire/power.pdf"])
    boards = words(files["wire/boards.pdf"])
    assert "Route selector, way 3" in boards and "A15" in boards
    labels = words(files["wire/labels.pdf"])
    assert labels.count(">") == len(files["wire/labels.csv"].decode().splitlines()) - 1
