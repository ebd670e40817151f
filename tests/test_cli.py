"""The command line: the forms that stay stable, their exit codes, and failures said in one line."""

import csv
import io
import json
import re
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner, Result

from building import plate
from wingboard.cli import app
from wingboard.core.record.document import write_design

runner = CliRunner()


def ran(*arguments: object, code: int = 0) -> Result:
    """A run of the command line that ends with that code."""
    result = runner.invoke(app, [str(a) for a in arguments])
    assert result.exit_code == code, result.output
    return result


@pytest.fixture
def tram(tmp_path: Path) -> Path:
    """The tram desk as a file, written by the command that users have for it."""
    ran("demo", "--write", tmp_path)
    assert {f.name for f in tmp_path.iterdir()} == {"kestrel-line-9.json", "dust-extraction.json"}
    return tmp_path / "kestrel-line-9.json"


def test_check_exits_1_while_something_is_to_fix_and_edit_settles_it(tram: Path, tmp_path: Path) -> None:
    findings: list[dict[str, Any]] = json.loads(ran("check", tram, "--json", code=1).stdout)
    stop = next(f for f in findings if f["severity"] == "must")
    assert {"id", "code", "measured", "needed", "source", "fix", "spot"} <= set(stop)
    assert "1 left to fix" in ran("check", tram, code=1).stdout
    commands = tmp_path / "fix.json"
    commands.write_text(json.dumps(stop["fix"]["commands"]))
    ran("edit", tram, "--commands", commands, "-o", tmp_path / "out.json")
    assert "0 left to fix" in ran("check", tmp_path / "out.json").stdout


def test_export_writes_the_named_files_and_only_those_asked_for(tram: Path, tmp_path: Path) -> None:
    result = ran("export", tram, "--to", tmp_path / "all")
    written = {str(f.relative_to(tmp_path / "all")) for f in (tmp_path / "all").rglob("*") if f.is_file()}
    assert {"cut/left/face.svg", "cut/left/face.dxf", "cut/left/template-a4.pdf", "wire/pins.csv"} <= written
    assert "not settled before cutting" in result.stderr
    sheet = (tmp_path / "all/cut/job-sheet.txt").read_text("utf-8")
    assert "NOT SETTLED BEFORE CUTTING" in sheet
    assert "never PVC" in sheet
    ran("export", tram, "--to", tmp_path / "wire", "--only", "wire")
    named = {"pins.csv", "pins.json", "pins.py", "pins-for-programs.json", "pins-for-programs.schema.json",
             "wiring-sheet.csv", "wiring-sheet.pdf", "small-parts.csv", "wire-list.csv", "labels.csv", "labels.pdf",
             "nets.json", "looms.svg", "looms.pdf", "power.svg", "power.pdf", "boards.pdf", "plugs.pdf",
             "protocol.txt"}  # fmt: skip
    of_each = re.compile(r"plug-j[1-6]\.svg|pins-[a-z0-9-]+\.h")
    others = {f.name for f in (tmp_path / "wire/wire").iterdir() if f.is_file()} - named
    folders = {f.name for f in (tmp_path / "wire/wire/programs").iterdir()}
    assert folders == {f"kestrel-line-no-9-{letter}" for letter in "abc"}
    assert len(others) == 6 + 3 and all(of_each.fullmatch(name) for name in others)
    assert named <= {f.name for f in (tmp_path / "wire").rglob("*.*")}
    ran("export", tram, "--to", tmp_path / "cut", "--only", "cut")
    assert not (tmp_path / "cut/wire").exists()


def test_pins_as_text_csv_and_json(tram: Path, tmp_path: Path) -> None:
    plain = json.loads(ran("pins", tram, "--json").stdout)
    rows = list(csv.DictReader(io.StringIO(ran("pins", tram, "--csv").stdout)))
    assert len(plain) == len(rows) == len(ran("pins", tram).stdout.splitlines()) == 104
    assert [r["pin"] for r in rows] == [r["pin"] for r in plain]
    bare = tmp_path / "bare.json"
    bare.write_text(write_design(plate(("button-16", 60, 60))))
    assert "there is no board yet" in ran("pins", bare, code=1).stderr


def test_schema_parts_and_checks_are_machine_readable() -> None:
    assert json.loads(ran("schema").stdout)["title"] == "Design"
    parts = json.loads(ran("parts", "--json").stdout)
    assert all({"id", "hole", "body", "sources"} <= set(p) for p in parts)
    checks = json.loads(ran("checks", "--json").stdout)
    assert all({"code", "station", "severity", "limits", "source"} <= set(c) for c in checks)
    assert len(ran("parts").stdout.splitlines()) == len(parts)
    assert len(ran("checks").stdout.splitlines()) == len(checks)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "not JSON"),
        ('{"name": ""}', "name"),
        ('{"name": "x", "functions": [{"id": "f1"}]}', "functions[0].name"),
        ('{"name": "x", "brief": {"depth": NaN}}', "NaN"),
    ],
)
def test_a_bad_design_is_refused_at_its_place(tmp_path: Path, text: str, says: str) -> None:
    file = tmp_path / "bad.json"
    file.write_text(text)
    result = ran("check", file, code=2)
    assert says in result.stderr
    assert "Traceback" not in result.output


def test_bad_commands_and_missing_files_are_said(tram: Path, tmp_path: Path) -> None:
    commands = tmp_path / "commands.json"
    for text, says in (('[{"do": "explode"}]', "explode"), ('[{"do": "remove_function", "function": "f999"}]', "f999")):
        commands.write_text(text)
        assert says in ran("edit", tram, "--commands", commands, "-o", tmp_path / "out.json", code=2).stderr
    assert not (tmp_path / "out.json").exists()
    assert "No such file" in ran("check", tmp_path / "nowhere.json", code=2).stderr


def test_a_foreign_database_stops_the_server_before_it_starts(tmp_path: Path) -> None:
    (tmp_path / "wingboard.db").write_bytes(b"something else" * 200)
    result = ran("serve", "--data", tmp_path, "--port", "0", code=2)
    assert "not a Wing Board database" in result.stderr


def test_programs_are_written_and_spoken_to(tram: Path, tmp_path: Path) -> None:
    said = ran("program", tram.parent / "dust-extraction.json", "--to", tmp_path / "programs", "--sizes").stdout
    assert re.search(r"dust-extraction-a: \d+ bytes of flash, \d+ of RAM", said)
    assert (tmp_path / "programs" / "dust-extraction-a" / "tables.h").is_file()
    typed = runner.invoke(app, ["link", "--simulated", str(tram.parent / "dust-extraction.json"), "--revision", "3"],
                          input="hello\nset bin-full 9\nnonsense →\n")  # fmt: skip
    greeting, hello, lamp, wrong = typed.stdout.splitlines()
    assert greeting == hello and "revision 3" in hello
    assert (lamp, wrong) == ("is bin-full 9", "error word nonsense")
    assert "There is no board Z" in ran("link", "--simulated", tram, "--board", "Z", code=2).output
