"""One SQLite file: opened safely, migrated, and written in transactions that are kept before they are acknowledged.

The file alone is the work: what is in the write-ahead log is brought into it early, and all of it when it is closed.
"""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from wingboard.store.errors import DamagedDatabase, ForeignDatabase, translated
from wingboard.store.migrating import APPLICATION_ID, migrate, refuse_newer

BUSY_SECONDS = 2.0
CHECKPOINT_PAGES = 64
"""Pages (of 4 kB) of the write-ahead log after which a commit brings them into the main file."""


class Database:
    """A database file. Each thread gets its own connection; :meth:`transaction` nests."""

    def __init__(self, path: Path, busy_seconds: float = BUSY_SECONDS) -> None:
        """Open or make the file and bring its tables up to date.

        :raises StoreError: of the kind that fits; the file is then left as it was.
        """
        self.path = path
        self._busy = busy_seconds
        self._local = threading.local()
        self._opened_lock = threading.Lock()
        self._opened: list[sqlite3.Connection] = []
        with self._reported():
            self._refuse_unfit()
            migrate(self.connection())

    def connection(self) -> sqlite3.Connection:
        """This thread's connection."""
        if not hasattr(self._local, "connection"):
            self._local.connection = self._open()
            self._local.depth = 0
        connection: sqlite3.Connection = self._local.connection
        return connection

    def _open(self) -> sqlite3.Connection:
        # Used by one thread only; any thread may close it.
        connection = sqlite3.connect(self.path, timeout=self._busy, isolation_level=None, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute(f"PRAGMA wal_autocheckpoint={CHECKPOINT_PAGES:d}")
        with self._opened_lock:
            self._opened.append(connection)
        return connection

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """Run the block under ``BEGIN IMMEDIATE``; commit at its end, roll back on any error. An inner one joins.

        :raises StoreError: instead of any error of SQLite.
        """
        with self._reported():
            connection = self.connection()
            if self._local.depth:
                yield connection
                return
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
        except OverflowError as error:
            raise translated(sqlite3.DataError(str(error)), str(self.path)) from error

    def _refuse_unfit(self) -> None:
        """Look at a file that is there, without changing it: is it ours, whole, and not newer than this program?"""
        if not self.path.exists() or self.path.stat().st_size == 0:
            return
        with closing(_only_reading(self.path, self._busy)) as probe:
            if probe.execute("PRAGMA application_id").fetchone()[0] != APPLICATION_ID:
                raise ForeignDatabase(
                    f"{self.path} is a database of some other program. It was left untouched; name another with --data."
                )
            refuse_newer(probe)
            verdict = probe.execute("PRAGMA quick_check(1)").fetchone()[0]
        if verdict != "ok":
            raise DamagedDatabase(
                f"{self.path} is damaged ({str(verdict)[:120]}). It was left untouched: keep a copy of it, then put a "
                "backup in its place, or name another folder with --data."
            )

    def close(self) -> None:
        """Bring everything into the main file and close every connection."""
        with self._opened_lock:
            opened, self._opened = self._opened, []
        for n, connection in enumerate(opened):
            with self._reported():
                if n == len(opened) - 1 and not connection.in_transaction:
                    connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
                connection.close()
        self._local = threading.local()


def _only_reading(path: Path, busy_seconds: float = BUSY_SECONDS) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=busy_seconds)


def back_up(path: Path, target: Path) -> None:
    """A whole copy of a database in a file of its own, even while it is in use.

    :raises StoreError: it cannot be read, or the copy cannot be written.
    """
    try:
        with closing(_only_reading(path)) as source, closing(sqlite3.connect(target)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
    except sqlite3.Error as error:
        raise translated(error, f"{path}, or {target}") from error
