"""Numbered SQL files, each applied once, with its record, in one transaction."""

from __future__ import annotations

import hashlib
import sqlite3
from collections.abc import Iterator
from importlib import resources

from wingboard.store.errors import NewerDatabase

APPLICATION_ID = 0x57424F44
"""Marks a file as ours (``WBOD``)."""
Migration = tuple[int, str, str]
"""Number, name and SQL."""


def shipped_migrations() -> list[Migration]:
    """Number, name and SQL of every migration, in order."""
    folder = resources.files("wingboard.store.migrations")
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".sql")), key=lambda f: f.name)
    return [(int(f.name[:4]), f.name[5:-4], f.read_text("utf-8")) for f in files]


def refuse_newer(connection: sqlite3.Connection, migrations: list[Migration] | None = None) -> None:
    """Refuse a database that holds a migration this program does not have, or another text of one; only reads.

    :raises NewerDatabase: it does.
    """
    known = {number: _checksum(sql) for number, _, sql in migrations or shipped_migrations()}
    if any(known.get(number) != checksum for number, checksum in _done(connection).items()):
        raise NewerDatabase(
            "The tables were changed by a newer Wing Board. Update, or name another folder with --data."
        )


def _done(connection: sqlite3.Connection) -> dict[int, str]:
    """The checksums of the migrations that a database has had, by number."""
    there = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'migration'").fetchone()
    if there is None:
        return {}
    return {row[0]: row[1] for row in connection.execute("SELECT number, checksum FROM migration")}


def migrate(connection: sqlite3.Connection, migrations: list[Migration] | None = None) -> None:
    """Apply the migrations that are missing, each with its record in one transaction.

    :raises NewerDatabase: the file holds a migration this program does not have, or another text of one.
    """
    wanted = shipped_migrations() if migrations is None else migrations
    refuse_newer(connection, wanted)
    done = _done(connection)
    if not done:
        _make_ours(connection)
    for number, name, sql in wanted:
        if number not in done:
            _apply(connection, number, name, sql)


def _make_ours(connection: sqlite3.Connection) -> None:
    connection.execute("BEGIN IMMEDIATE")
    try:
        connection.execute(f"PRAGMA application_id={APPLICATION_ID:d}")
        connection.execute(
            "CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL, "
            "checksum TEXT NOT NULL) STRICT"
        )
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise


def _apply(connection: sqlite3.Connection, number: int, name: str, sql: str) -> None:
    connection.execute("BEGIN IMMEDIATE")
    try:
        for statement in _statements(sql):
            connection.execute(statement)
        connection.execute("INSERT INTO migration VALUES (?, ?, ?)", (number, name, _checksum(sql)))
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise


def _statements(sql: str) -> Iterator[str]:
    """The statements of a script one by one (``executescript`` would commit on its own)."""
    pending = ""
    for line in sql.splitlines(keepends=True):
        pending += line
        if sqlite3.complete_statement(pending):
            yield pending
            pending = ""


def _checksum(sql: str) -> str:
    return hashlib.sha256(sql.encode()).hexdigest()
