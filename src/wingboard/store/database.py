"""One SQLite file: opened safely, migrated, and written in transactions that are kept before they are acknowledged."""

from __future__ import annotations

import hashlib
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path

from wingboard.store.errors import ForeignDatabase, NewerDatabase, translated

APPLICATION_ID = 0x57424F44
"""Marks a file as ours (``WBOD``)."""
BUSY_SECONDS = 2.0


class Database:
    """A database file. Each thread gets its own connection; :meth:`transaction` nests."""

    def __init__(self, path: Path, busy_seconds: float = BUSY_SECONDS) -> None:
        """Open or make the file and bring its tables up to date.

        :raises StoreError: of the kind that fits; the file is then left as it was.
        """
        self.path = path
        self._busy = busy_seconds
        self._local = threading.local()
        with self._reported():
            self._refuse_foreign()
            migrate(self.connection())

    def connection(self) -> sqlite3.Connection:
        """This thread's connection."""
        if not hasattr(self._local, "connection"):
            self._local.connection = self._opened()
            self._local.depth = 0
        connection: sqlite3.Connection = self._local.connection
        return connection

    def _opened(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=self._busy, isolation_level=None)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")
        return connection

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """Run the block under ``BEGIN IMMEDIATE``; commit at its end, roll back on any error. An inner one joins.

        :raises StoreError: instead of any error of SQLite.
        """
        connection = self.connection()
        if self._local.depth:
            yield connection
            return
        with self._reported():
            connection.execute("BEGIN IMMEDIATE")
            self._local.depth = 1
            try:
                yield connection
                connection.execute("COMMIT")
            except BaseException:
                if connection.in_transaction:
                    connection.execute("ROLLBACK")
                raise
            finally:
                self._local.depth = 0

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """Read outside a transaction, with errors translated."""
        with self._reported():
            yield self.connection()

    @contextmanager
    def _reported(self) -> Iterator[None]:
        try:
            yield
        except sqlite3.Error as error:
            raise translated(error, str(self.path)) from error

    def _refuse_foreign(self) -> None:
        if not self.path.exists() or self.path.stat().st_size == 0:
            return
        probe = sqlite3.connect(f"{self.path.resolve().as_uri()}?mode=ro", uri=True, timeout=self._busy)
        try:
            ours = probe.execute("PRAGMA application_id").fetchone()[0]
        finally:
            probe.close()
        if ours != APPLICATION_ID:
            raise ForeignDatabase(
                f"{self.path} is a database of some other program. It was left untouched; name another with --data."
            )

    def close(self) -> None:
        """Close this thread's connection."""
        if hasattr(self._local, "connection"):
            self._local.connection.close()
            del self._local.connection


def shipped_migrations() -> list[tuple[int, str, str]]:
    """Number, name and SQL of every migration, in order."""
    folder = resources.files("wingboard.store.migrations")
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".sql")), key=lambda f: f.name)
    return [(int(f.name[:4]), f.name[5:-4], f.read_text("utf-8")) for f in files]


def migrate(connection: sqlite3.Connection, migrations: list[tuple[int, str, str]] | None = None) -> None:
    """Apply the migrations that are missing, each with its record in one transaction.

    :raises NewerDatabase: the file holds a migration this program does not have, or another text of one.
    """
    wanted = shipped_migrations() if migrations is None else migrations
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
    done = {row[0]: row[1] for row in connection.execute("SELECT number, checksum FROM migration")}
    known = {number: _checksum(sql) for number, _, sql in wanted}
    if any(known.get(number) != checksum for number, checksum in done.items()):
        raise NewerDatabase(
            "The tables were changed by a newer Wing Board. Update, or name another folder with --data."
        )
    for number, name, sql in wanted:
        if number not in done:
            _apply(connection, number, name, sql)


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
