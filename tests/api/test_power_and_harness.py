"""Power and harness over HTTP: figures that belong together, files that others can read, refusals at their field."""

from __future__ import annotations

import csv
import io
import xml.etree.ElementTree as ET
import zipfile
from pathlib import Path
from typing import Any

import pypdfium2
import pytest
from fastapi.testclient import TestClient

from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.document import read_design
from wingboard.demo import demo_texts
from wingboard.services.desk import Desk

TRAM = "/api/designs/tram"


@pytest.fixture
def tram(desk: Desk, client: TestClient) -> TestClient:
    desk.add(read_design(demo_texts()["kestrel-line-9"], catalogue()), "Start", ident="tram")
    return client


def sent(client: TestClient, *commands: dict[str, Any]) -> Any:
    base = client.get(TRAM).json()["revision"]
    return client.post(f"{TRAM}/commands", json={"base": base, "commands": list(commands), "key": f"k{base}"})


def every(nodes: list[Any]) -> list[Any]:
    return [found for node in nodes for found in (node, *every(node["children"]))]


def test_the_tree_adds_up_and_says_its_states(tram: TestClient) -> None:
    view = tram.get(f"{TRAM}/wire/power").json()
    assert [s["state"] for s in view["states"]] == ["quiet", "lamps", "white", "loads", "all"]  # no lamp test by diodes
    for node in every(view["roots"]):
        if node["children"] and node["kind"] not in ("board", "usb", "regulator"):
            for state in node["amps"]:
                assert node["amps"][state] == pytest.approx(sum(c["amps"][state] for c in node["children"]))
    names = {n["name"] for n in view["roots"]}
    assert names == {"5 V supply", "12 V supply", "24 V supply", "USB ports of the computer"}
    [stop] = view["stops"]
    assert stop["role"] == "theatrical" and "no power is cut" in stop["means"]
    assert view["cautions"] == []
    assert all(0 < loss["share"] < 3 for loss in view["losses"])
    heat = next(f["id"] for f in tram.get(TRAM).json()["design"]["functions"] if f["name"] == "Saloon heat")
    assert sent(tram, {"do": "edit_function", "function": heat, "volts": 230, "current": "AC"}).status_code == 200
    [caution] = tram.get(f"{TRAM}/wire/power").json()["cautions"]
    assert "licensed electrician" in caution and "230 V AC" in caution


def test_the_harness_is_whole_and_moves_with_what_is_said_of_it(tram: TestClient) -> None:
    view = tram.get(f"{TRAM}/wire/harness").json()
    assert [loom["module"] for loom in view["looms"]] == ["left", "centre", "right"]
    assert sum(w["metres"] for w in view["wire"]) == pytest.approx(view["metres"])
    for plug in view["plugs"]:
        numbers = [n for row in plug["rows"] for n in row]
        assert sorted(numbers) == list(range(1, plug["size"] + 1))
        assert {c["number"] for c in plug["contacts"]} <= set(numbers)
    outside = {thing["device"]: thing for thing in view["outside"]}
    assert outside["supply.twelve"]["said"] and not next(t for t in outside.values() if t["kind"] == "load")["said"]
    before = view["metres"]
    assert sent(tram, {"do": "stand", "device": "supply.twelve", "x": 600, "y": -900, "behind": 200}).status_code == 200
    further = tram.get(f"{TRAM}/wire/harness").json()
    assert further["metres"] > before + 1
    assert sent(tram, {"do": "forget_standing", "device": "supply.twelve"}).status_code == 200
    assert tram.get(f"{TRAM}/wire/harness").json()["guessed"] > view["guessed"]
    rules = {rule["net"]: rule for rule in view["rules"]}
    assert (rules["ground"]["colour"], rules["contacts"]["colour"], rules["ground"]["own"]) == ("black", None, False)
    lines = tram.get(f"{TRAM}/wire").json()
    wires = [row["wire"] for row in lines["rows"] if row["wire"]]
    assert len(wires) == 104 and all(wire["plug"] and wire["contact"] for wire in wires)
    assert {wire["plug"] for wire in wires} <= {plug["id"] for plug in lines["plugs"]}


FILES = {
    "power.svg": "image/svg+xml", "power.pdf": "application/pdf", "looms.svg": "image/svg+xml",
    "looms.pdf": "application/pdf", "labels.pdf": "application/pdf", "plugs.pdf": "application/pdf",
    "boards.pdf": "application/pdf", "strip-boards.pdf": "application/pdf", "pins.py": "text/x-python; charset=utf-8",
    "pins.h": "text/x-c; charset=utf-8",
}  # fmt: skip


@pytest.mark.parametrize("name", FILES)
def test_each_file_is_what_its_name_says(tram: TestClient, name: str) -> None:
    answer = tram.get(f"{TRAM}/wire/{name}")
    assert answer.status_code == 200 and answer.headers["content-type"] == FILES[name]
    assert "attachment" in answer.headers["content-disposition"]
    if name.endswith(".pdf"):
        assert len(pypdfium2.PdfDocument(answer.content)) >= 1
    elif name.endswith(".svg"):
        assert ET.fromstring(answer.content).tag.endswith("svg")
    elif name.endswith(".py"):
        compile(answer.text, name, "exec")
    else:
        other = tram.get(f"{TRAM}/wire/pins.h", params={"board": "atmega2560-2"})
        assert "#define" in answer.text and other.text != answer.text
    assert tram.get(f"/api/designs/nowhere/wire/{name}").status_code == 404


def test_a_sheet_in_a_spreadsheet_has_no_formula_and_every_wire(tram: TestClient) -> None:
    first = tram.get(TRAM).json()["design"]["functions"][0]["id"]
    assert sent(tram, {"do": "edit_function", "function": first, "name": "=1+1"}).status_code == 200
    text = tram.get(f"{TRAM}/wire/wiring-sheet.csv").text
    rows = list(csv.DictReader(io.StringIO(text)))
    assert not any(cell.startswith(("=", "@")) for row in rows for cell in row.values())
    sheet = tram.get(f"{TRAM}/wire/sheet").json()
    assert [row["step"] for row in rows] == [j["number"] for step in sheet["steps"] for j in step["joints"]]


@pytest.mark.parametrize(
    ("command", "field"),
    [
        ({"do": "edit_loom", "module": "left", "signals": "ribbon"}, "signals"),
        ({"do": "edit_loom", "module": "nowhere", "signals": "dsub"}, "module"),
        ({"do": "set_harness", "colours": [{"net": "ground", "colour": "mauve"}]}, "colour"),
        ({"do": "set_harness", "area": 900}, "area"),
        ({"do": "edit_supply", "supply": "twelve", "fuse": -1}, "fuse"),
        ({"do": "stand", "device": "No Such!", "x": 1, "y": 1}, "device"),
        ({"do": "stand", "device": "supply.nowhere", "x": 1, "y": 1}, "device"),
        ({"do": "stand", "device": "f1", "x": 1, "y": 1}, "device"),
        ({"do": "stand", "device": "supply.twelve", "x": 1e9, "y": 1}, "x"),
        ({"do": "set_usb", "ports": 0}, "ports"),
        ({"do": "add_wire", "colour": "red", "metres": -4}, "metres"),
        ({"do": "edit_supply", "supply": "twelve", "made_from": "twelve"}, "made_from"),
    ],
)
def test_what_cannot_be_is_refused_where_it_was_said(tram: TestClient, command: dict[str, Any], field: str) -> None:
    before = tram.get(TRAM).json()["design"]
    answer = sent(tram, command)
    assert answer.status_code in (404, 409, 422), answer.text
    assert field in answer.text
    assert tram.get(TRAM).json()["design"] == before


def test_a_board_with_another_program_gets_its_differences_in_lines(tram: TestClient, tmp_path: Path) -> None:
    def lines_of(letter: str) -> str:
        program = next(p for p in tram.get(f"{TRAM}/wire/programs").json()["programs"] if p["letter"] == letter)
        tables = next(f["text"] for f in program["files"] if f["name"] == "tables.h")
        return str(tables).split('LINES[] PROGMEM = "')[1][:4]

    def judged(said: str) -> dict[str, Any]:
        answer: dict[str, Any] = tram.get(f"{TRAM}/wire/on-board", params={"said": said}).json()
        return answer

    a, b = lines_of("A"), lines_of("B")
    head = tram.get(TRAM).json()["revision"]
    name = "of kestrel-line-no-9 revision"
    assert judged(f"< board 1 A {name} {head} lines {a} edition 1 ~00")["state"] == "same"
    older = judged(f"< board 1 A {name} {head} lines {a} ~00")
    assert older["state"] == "differs" and "of an older Wing Board" in older["words"]
    change = {"do": "pin", "line": "f18.on", "controller": "atmega2560-1", "pin": "A0", "found": False}
    assert tram.post(f"{TRAM}/commands", json={"base": head, "key": "moved", "commands": [change]}).status_code == 200
    found = judged(f"board 1 A {name} {head} lines {a} edition 1")
    assert (found["state"], found["board"]) == ("differs", "atmega2560-1")
    assert [(d["name"], d["change"], d["now"]) for d in found["differences"]] == [("master-key", "moved", "pin A0")]
    assert judged(f"board 1 B {name} {head} lines {b} edition 1")["state"] == "same", "nothing of B changed"
    assert judged(f"board 1 A {name} {head} lines 0000")["state"] == "unknown"
    assert judged(f"board 1 A {name} 9999 lines {a}")["state"] == "unknown"
    for other in (
        f"board 2 A {name} 1 lines {a}",
        f"board 1 A of a-lathe revision 1 lines {a}",
        f"board 1 Q {name} 1 lines {a}",
    ):
        assert judged(other)["state"] == "other"
    assert judged("ready.")["errors"][0]["path"] == "said"
    refused = tram.post("/api/ports/greeting", json={"port": str(tmp_path)})
    assert refused.status_code == 422 and "Nothing is plugged in" in refused.json()["detail"]
    assert isinstance(tram.get("/api/ports").json(), list)


def test_programs_are_shown_with_their_files_and_come_as_folders(tram: TestClient) -> None:
    shown = tram.get(f"{TRAM}/wire/programs").json()["programs"]
    assert [(p["letter"], p["unserved"]) for p in shown] == [("A", []), ("B", []), ("C", [])]
    on_pins = [pin for p in shown for c in p["channels"] for pin in c["pins"]]
    assert len(on_pins) == 104
    for p in shown:
        answer = tram.get(f"{TRAM}/wire/program.zip", params={"board": p["board"]})
        with zipfile.ZipFile(io.BytesIO(answer.content)) as folder:
            there = {name.removeprefix(f"{p['folder']}/"): folder.read(name).decode() for name in folder.namelist()}
        assert there == {f["name"]: f["text"] for f in p["files"]}
        assert "#define REVISION 1\n" in there["tables.h"]
    size = tram.get(f"{TRAM}/wire/program-size", params={"board": "atmega2560-1"}).json()
    assert (size["cannot"], size["over"]) == ("", "")
    assert 5_000 < size["flash"] < size["flash_of"] and 200 < size["ram"] < size["ram_of"]
    for path in ("program.zip", "program-size"):
        assert tram.get(f"{TRAM}/wire/{path}", params={"board": "nowhere"}).status_code == 404
