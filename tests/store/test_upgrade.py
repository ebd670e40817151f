"""A database of any earlier version is brought up to date with everything that was in it."""

from __future__ import annotations

import sqlite3
from pathlib import Path

import pytest

from building import plate
from wingboard.core.changes.commands.brief import SetMachine
from wingboard.core.changes.commands.face import MoveItems
from wingboard.core.record.workshop import Machine
from wingboard.services.desk import Desk
from wingboard.store.database import Database, migrate, shipped_migrations

VERSIONS = [number for number, *_ in shipped_migrations()]
LASER = Machine(id="laser", name="Laser", kind="laser", bed_width=300, bed_height=200)


@pytest.mark.parametrize("version", VERSIONS)
def test_designs_of_an_earlier_version_are_read_undone_and_go_on(tmp_path: Path, version: int) -> None:
    now = Desk(Database(tmp_path / "now.db"))
    ident = now.add(plate(("button-22", 60, 60)), "Start").design_id
    now.command(ident, 1, (MoveItems(functions=("f1",), dx=5),))
    older = sqlite3.connect(tmp_path / "older.db", isolation_level=None)
    migrate(older, shipped_migrations()[:version])
    older.execute("ATTACH ? AS now", (str(tmp_path / "now.db"),))
    older.execute("INSERT INTO main.design SELECT * FROM now.design")
    older.execute("INSERT INTO main.revision SELECT * FROM now.revision")
    older.close()
    desk = Desk(Database(tmp_path / "older.db"))
    opened = desk.open(ident)
    assert opened.row.number == 2
    assert desk.undo(ident, 2).state.design.functions[0].place == plate(("button-22", 60, 60)).functions[0].place
    desk.command(ident, 3, (SetMachine(machine=LASER),))
    assert desk.shelf().machines == (LASER,)
    fresh = sqlite3.connect(":memory:", isolation_level=None)
    migrate(fresh)
    schema = "SELECT type, name, sql FROM sqlite_master ORDER BY name"
    upgraded = [tuple(row) for row in desk.database.connection().execute(schema)]
    assert upgraded == fresh.execute(schema).fetchall()
