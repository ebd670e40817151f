"""Keeping: migrations whole or not at all, revisions only added, every failure of the file said for what it is."""

import sqlite3
from pathlib import Path

import pytest

from building import plate
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.record.errors import NotPossible
from wingboard.services.desk import Desk, slug
from wingboard.store.database import Database
from wingboard.store.errors import (
    ForeignDatabase,
    NewerDatabase,
    NoSuchDesign,
    StaleRevision,
    StoreBusy,
    StoreError,
    StoreFull,
)
from wingboard.store.migrating import migrate, shipped_migrations

STEP = (MoveItems(functions=("f1",), dx=1),)


def tables(connection: sqlite3.Connection) -> list[tuple[str, ...]]:
    """The schema of a database."""
    return connection.execute("SELECT type, name, sql FROM sqlite_master ORDER BY name").fetchall()


def test_a_failing_migration_leaves_nothing_and_a_migrated_database_equals_a_fresh_one() -> None:
    broken = [*shipped_migrations(), (9, "broken", "CREATE TABLE half (x);\nINSERT INTO nowhere VALUES (1);")]
    old, fresh = (sqlite3.connect(":memory:", isolation_level=None) for _ in range(2))
    migrate(fresh)
    with pytest.raises(sqlite3.OperationalError):
        migrate(old, broken)
    assert tables(old) == tables(fresh)
    migrate(old)
    assert tables(old) == tables(fresh)


def test_a_database_of_a_newer_version_is_left_alone(tmp_path: Path) -> None:
    database = Database(tmp_path / "w.db")
    with database.transaction() as connection:
        connection.execute("INSERT INTO migration VALUES (99, 'future', 'x')")
    with pytest.raises(NewerDatabase):
        Database(tmp_path / "w.db")


def test_revisions_are_only_ever_added(desk: Desk) -> None:
    desk.add(plate(("button-22", 60, 60)), "Start")
    for statement in ("UPDATE revision SET label = 'x'", "DELETE FROM revision"):
        with pytest.raises(StoreError, match="only added"), desk.database.transaction() as connection:
            connection.execute(statement)


def test_a_stale_change_is_refused_with_what_happened_and_one_sent_twice_is_kept_once(desk: Desk) -> None:
    ident = desk.add(plate(("button-22", 60, 60)), "Start").design_id
    first = desk.command(ident, 1, STEP, key="a").state
    again = desk.command(ident, 1, STEP, key="a").state
    assert first.row.number == again.row.number == 2
    with pytest.raises(StaleRevision) as stale:
        desk.command(ident, 1, STEP, key="b")
    assert stale.value.head == 2
    assert "Move F1" in str(stale.value)
    with pytest.raises(NotPossible):
        desk.redo(ident, 2)
    with pytest.raises(NoSuchDesign):
        desk.open("nothing")


def test_long_histories_are_rebuilt_from_snapshots_and_patches(desk: Desk) -> None:
    state = desk.add(plate(("button-22", 60, 60)), "Start")
    for _ in range(120):
        state = desk.command(state.design_id, state.row.number, STEP).state
    fresh = Desk(desk.database)
    assert fresh.open(state.design_id).design == state.design
    place = fresh.open(state.design_id, 73).design.functions[0].place
    assert place is not None
    assert place.x == 60 + 72


def test_a_locked_database_says_so_and_nothing_is_lost(desk: Desk) -> None:
    state = desk.add(plate(("button-22", 60, 60)), "Start")
    other = sqlite3.connect(desk.database.path, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(StoreBusy):
        desk.command(state.design_id, 1, STEP)
    other.execute("ROLLBACK")
    assert desk.command(state.design_id, 1, STEP).state.row.number == 2


def test_a_full_disk_says_so_and_what_was_kept_is_safe(desk: Desk) -> None:
    state = desk.add(plate(("button-22", 60, 60)), "Start")
    connection = desk.database.connection()
    pages = connection.execute("PRAGMA page_count").fetchone()[0]
    connection.execute(f"PRAGMA max_page_count={pages:d}")
    with pytest.raises(StoreFull):
        for _ in range(60):
            state = desk.command(state.design_id, state.row.number, STEP).state
    connection.execute("PRAGMA max_page_count=1000000")
    assert Desk(desk.database).open(state.design_id).design == state.design
    assert desk.command(state.design_id, state.row.number, STEP).state.row.number == state.row.number + 1


def test_foreign_and_damaged_files_are_left_untouched(tmp_path: Path) -> None:
    foreign, noise = tmp_path / "foreign.db", tmp_path / "noise.db"
    connection = sqlite3.connect(foreign)
    connection.execute("CREATE TABLE theirs (x)")
    connection.commit()
    connection.close()
    noise.write_bytes(b"not a database at all" * 100)
    for file in (foreign, noise):
        before = file.read_bytes()
        with pytest.raises(ForeignDatabase):
            Database(file)
        assert file.read_bytes() == before


def test_names_become_short_ids() -> None:
    assert slug("Kestrel Line No. 9") == "kestrel-line-no-9"
    assert slug("Führerstand – Ω") == "fuhrerstand"
    assert slug("12 V") == "panel-12-v"
    assert slug("⚡") == "panel"
