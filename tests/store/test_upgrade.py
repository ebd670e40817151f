"""Databases and files of every earlier version open with everything that was in them, and the work goes on."""

from __future__ import annotations

import json
import shutil
import sqlite3
from pathlib import Path
from typing import Any

import pytest

from building import replay
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.boards import MountBoard, SetCase
from wingboard.core.changes.commands.cutting import SetColours
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.harness import EditLoom
from wingboard.core.changes.commands.layers import SetSchool
from wingboard.core.changes.commands.lights import AddStrip
from wingboard.core.changes.commands.modules import SetFixings
from wingboard.core.changes.commands.parts import MeasurePart
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design, write_design
from wingboard.core.record.reading import Reading
from wingboard.core.record.shapes import Circle
from wingboard.core.record.upgrade import FORMAT
from wingboard.services.desk import Desk
from wingboard.store.database import Database
from wingboard.store.migrating import migrate

DATA = Path(__file__).parents[1] / "data"
FORMAT_1 = DATA / "format-1"
FILES = sorted(path for folder in DATA.glob("format-*") for path in folder.glob("*.json"))

RENAMED = {"panels": "modules", "panel": "module", "signal": "line", "weight": "risk", "ac": "current"}
"""What today's format calls the fields of earlier ones."""


def leaves(value: Any, path: str = "") -> dict[str, Any]:
    """Every value of a document by its place, by today's names of the fields."""
    if isinstance(value, dict):
        found: dict[str, Any] = {}
        for name, inner in value.items():
            found |= leaves(inner, f"{path}.{RENAMED.get(name, name)}")
        return found
    if isinstance(value, list):
        return {k: v for n, inner in enumerate(value) for k, v in leaves(inner, f"{path}[{n}]").items()}
    return {path: value}


def expected(path: str, value: Any) -> Any:
    """What today's document has in that place."""
    if path == ".version":
        return FORMAT
    if path.endswith(".switches.current"):
        return {True: "AC", False: ""}.get(value, value)
    if path.endswith(".board") and value in ("uno", "mega"):
        return {"uno": "atmega328p", "mega": "atmega2560"}[value]
    if path.startswith(".controllers[") and path.endswith(".name"):
        return value.replace("Uno ", "ATmega328P ").replace("Mega ", "ATmega2560 ")
    return value


@pytest.mark.parametrize("file", FILES, ids=lambda path: f"{path.parent.name}/{path.stem}")
def test_a_file_of_an_earlier_format_opens_with_nothing_lost(file: Path) -> None:
    text = file.read_text("utf-8")
    now = leaves(json.loads(write_design(read_design(text, catalogue()))))
    for path, value in leaves(json.loads(text)).items():
        assert now[path] == expected(path, value), path


def test_a_database_of_the_first_format_opens_is_undone_and_goes_on(tmp_path: Path) -> None:
    shutil.copy(FORMAT_1 / "wingboard.db", tmp_path / "wingboard.db")
    desk = Desk(Database(tmp_path / "wingboard.db"))
    assert {d.id: d.head for d in desk.designs()} == {"every-command": 114, "dust-extraction": 6}
    for number in range(1, 115):
        assert desk.open("every-command", number).design.version == FORMAT
    before = desk.open("every-command")
    exported = read_design((FORMAT_1 / "exported.json").read_text("utf-8"), catalogue())
    assert before.design == exported  # the split that came after it was undone
    assert [p.line for p in before.design.pins] == ["f8.press"]
    assert desk.picture(before.design.references[0].picture).width == 120
    assert [m.id for m in desk.shelf().machines] == ["laser"]
    kept = desk.command("every-command", 114, (MoveItems(functions=("f1",), dx=1),))
    fresh = Desk(desk.database)
    assert fresh.open("every-command").design == kept.state.design
    assert fresh.undo("every-command", 115).state.design == before.design
    desk.database.close()


def test_a_database_of_the_second_format_opens_is_undone_and_goes_on(tmp_path: Path) -> None:
    shutil.copy(DATA / "format-2" / "wingboard.db", tmp_path / "wingboard.db")
    desk = Desk(Database(tmp_path / "wingboard.db"))
    head = desk.head("every-command")
    for number in range(1, head + 1):
        assert desk.open("every-command", number).design.version == FORMAT
    before = desk.open("every-command")
    assert before.design == read_design((DATA / "format-2" / "exported.json").read_text("utf-8"), catalogue())
    said = {f.id: (f.switches.volts, f.switches.current, f.switches.kind) for f in before.design.functions}
    assert (said["f1"], said["f8"], said["f9"]) == ((230, "AC", "AC"), (110, "", "AC"), (12, "", "DC"))
    # Its log can still be carried out, though not to the same bytes where something is computed better today.
    assert [number for number, _ in replay(desk, "every-command")] == list(range(2, head + 1))
    kept = desk.command("every-command", head, (EditFunction(function="f1", name="Renamed"),))
    fresh = Desk(desk.database)
    assert fresh.open("every-command").design == kept.state.design
    assert fresh.undo("every-command", head + 1).state.design == before.design
    desk.database.close()


def gone_on(folder: Path, old: str, command: Command) -> Design:
    """A database of an older format, opened, replayed, changed and undone; gives the design as it was."""
    shutil.copy(DATA / old / "wingboard.db", folder / "wingboard.db")
    desk = Desk(Database(folder / "wingboard.db"))
    head = desk.head("every-command")
    before = desk.open("every-command")
    assert before.design == read_design((DATA / old / "exported.json").read_text("utf-8"), catalogue())
    assert [number for number, _ in replay(desk, "every-command")] == list(range(2, head + 1))
    kept = desk.command("every-command", head, (command,))
    fresh = Desk(desk.database)
    assert fresh.open("every-command").design == kept.state.design
    assert fresh.undo("every-command", head + 1).state.design == before.design
    desk.database.close()
    return before.design


def test_a_database_of_the_third_format_opens_is_undone_and_goes_on(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-3", SetSchool(module="module-1", school="metal"))
    assert [(layer.id, layer.thickness) for layer in design.stack] == [("face", 3), ("diffuser", 4), ("back", 3)]
    assert all(module.stack is None for module in design.modules)


def test_a_database_of_the_fourth_format_opens_and_takes_what_the_fifth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-4", EditFunction(function="f1", colour="blue"))
    assert all(f.colour is None and (f.legend is None or f.legend.radius is None) for f in design.functions)


def test_a_database_of_the_fifth_format_opens_and_takes_what_the_sixth_brought(tmp_path: Path) -> None:
    board = MountBoard(module="plate", name="Controller", width=60, height=40)
    design = gone_on(tmp_path, "format-5", board)
    assert all(not m.mounted and (m.fixings is None or m.fixings.head == "pan") for m in design.modules)


def test_a_database_of_the_sixth_format_opens_and_takes_what_the_seventh_brought(tmp_path: Path) -> None:
    strip = AddStrip(module="module-1", x=10, y=20, x2=60, y2=20)
    design = gone_on(tmp_path, "format-6", strip)
    assert all(m.light is None for m in design.modules)
    assert design.modules[0].mounted
    assert design.modules[0].case is not None


def test_a_database_of_the_seventh_format_opens_and_takes_what_the_eighth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-7", SetCase(module="module-1", made="printed"))
    case = design.modules[0].case
    assert case is not None
    assert (case.made, case.thickness) == ("sheet", 4)
    assert design.modules[0].light is not None


def test_a_database_of_the_eighth_format_opens_and_takes_what_the_ninth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-8", SetFixings(module="module-1", pins=3))
    case = design.modules[0].case
    assert case is not None
    assert case.made == "printed"
    assert design.modules[0].fixings is None or design.modules[0].fixings.pins == 0
    assert design.trials


def test_a_database_of_the_ninth_format_opens_and_takes_what_the_tenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-9", EditFunction(function="f1", led=True))
    assert not any(f.led for f in design.functions)
    assert not any(line.volts or line.bulb for part in design.parts for line in part.lines)


def test_a_database_of_the_tenth_format_opens_and_takes_what_the_eleventh_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-10", EditMachine(machine="laser-1", feed=9000))
    assert [(m.feed, m.acceleration) for m in design.workshop.machines] == [(3000, 300)]
    assert not design.cutting.jobs


def test_a_database_of_the_eleventh_format_opens_and_takes_what_the_twelfth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-11", SetColours(inner="#FF0000"))
    assert [job.piece for job in design.cutting.jobs] == ["plate/face"]
    assert not design.cutting.splits and design.cutting.colours.inner is None
    assert all(m.climb for m in design.workshop.machines)


def test_a_database_of_the_twelfth_format_opens_and_takes_what_the_thirteenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-12", EditFunction(function="f1", led=True))
    assert design.cutting.patches
    assert design.parts and not any(line.back or line.closed for part in design.parts for line in part.lines)


def test_a_database_of_the_thirteenth_format_opens_and_takes_what_the_fourteenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-13", EditFunction(function="f1", scheme="matrix"))
    assert design.soldered and design.pins
    assert {f.scheme for f in design.functions} <= {"direct", "ladder"}


def test_a_database_of_the_fourteenth_format_opens_and_takes_what_the_fifteenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-14", EditLoom(module="module-2", signals="dsub"))
    assert {m.returns for m in design.modules} == {"bus", "star"} or design.modules[0].returns == "star"
    assert design.soldered and design.workshop.supplies and not any(s.fuse for s in design.workshop.supplies)


def test_a_database_of_the_fifteenth_format_opens_and_takes_what_the_sixteenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-15", EditFunction(function="f1", through="relay", driven="controller"))
    assert {f.switches.driven for f in design.functions} == {"contact"}
    assert design.harness.slack == 20 and design.harness.colours


def test_a_database_of_the_sixteenth_format_opens_and_takes_what_the_seventeenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-16", EditFunction(function="f1", lost="blink", boot=40))
    assert {(f.lost, f.boot) for f in design.functions} == {("hold", 0)}


def test_a_database_of_the_seventeenth_format_opens_and_takes_what_the_eighteenth_brought(tmp_path: Path) -> None:
    design = gone_on(tmp_path, "format-17", EditFunction(function="f1", tests_by_program=True))
    assert not any(f.tests_by_program for f in design.functions)


def test_an_imported_cut_out_of_format_3_comes_back_when_its_reading_is_withdrawn() -> None:
    raw = json.loads((DATA / "format-3" / "exported.json").read_text("utf-8"))
    base = catalogue()["toggle-large-on-off"]
    slot = {"kind": "path", "points": [{"x": 0, "y": 0}, {"x": 14, "y": 0}, {"x": 14, "y": 13}, {"x": 0, "y": 13}]}
    part = json.loads(base.model_dump_json(exclude={"imported", "bezel", "steps", "body_to", "cover_x", "cover_y"}))
    part |= {"id": "mine", "base": base.id, "hole": slot}
    part["sources"]["hole"] = {"kind": "measure", "note": "imported cut-out"}
    for field in ("key", "hand"):
        for name in ("height", "x", "y"):
            part[field].pop(name, None)
    raw["parts"] = [*raw["parts"], part]
    design = read_design(json.dumps(raw), catalogue())
    measured = MeasurePart(part="mine", readings=(Reading(of="bush", values=(12.1,)),))
    read = apply(design, (measured,), catalogue())
    assert read.parts[-1].hole == Circle(diameter=12.3)
    back = apply(read, (MeasurePart(part="mine", readings=()),), catalogue())
    assert back.parts[-1].hole == design.parts[-1].hole
    assert back.parts[-1].sources == design.parts[-1].sources


def test_a_migrated_database_equals_a_fresh_one(tmp_path: Path) -> None:
    shutil.copy(FORMAT_1 / "wingboard.db", tmp_path / "wingboard.db")
    old, fresh = Database(tmp_path / "wingboard.db"), sqlite3.connect(":memory:", isolation_level=None)
    migrate(fresh)
    schema = "SELECT type, name, sql FROM sqlite_master ORDER BY name"
    assert [tuple(row) for row in old.connection().execute(schema)] == fresh.execute(schema).fetchall()
    old.close()
