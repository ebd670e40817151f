"""The tables ``design`` and ``revision``: a design's history, only ever added to.

Every revision holds the patch from the one before; every fiftieth, and the first, the whole document too. Undo and
redo are revisions as well: ``undo_to`` names the revision whose content an undo brings back, ``redo_to`` that of a
redo.
"""

from __future__ import annotations

import sqlite3
from typing import Any, NamedTuple

from wingboard.store.errors import NoSuchDesign, StoreError

SNAPSHOT_EVERY = 50


class DesignRow(NamedTuple):
    """A design in the list."""

    id: str
    name: str
    head: int
    created_at: str
    kept_at: str


class RevisionRow(NamedTuple):
    """One revision without its content."""

    number: int
    kept_at: str
    label: str
    undo_to: int | None
    redo_to: int | None
    format: int


class NewRevision(NamedTuple):
    """What :func:`append_revision` keeps."""

    number: int
    kept_at: str
    label: str
    batch_key: str | None
    commands: str
    patch: str
    undo_to: int | None
    redo_to: int | None
    format: int
    asked: str | None


class BatchRow(NamedTuple):
    """A batch that was kept under a key: its revision, and the fingerprint of what was asked."""

    number: int
    asked: str | None


class Chain(NamedTuple):
    """A snapshot, the revision it is of, and the patches that lead on from it, each with its revision."""

    start: int
    snapshot: str
    patches: tuple[tuple[int, str], ...]


class MissingSnapshot(StoreError):
    """No whole document is kept at or before a revision."""


def list_designs(connection: sqlite3.Connection, removed: bool = False) -> list[DesignRow]:
    """Every design that is in the list, or was removed from it; the one kept last first."""
    rows = connection.execute(
        "SELECT id, name, head, created_at, kept_at FROM design WHERE (removed_at IS NOT NULL) = ? "
        "ORDER BY kept_at DESC, id",
        (removed,),
    ).fetchall()
    return [DesignRow(*row) for row in rows]


def set_removed(connection: sqlite3.Connection, design_id: str, at: str | None) -> None:
    """Take a design out of the list, or bring it back. :raises NoSuchDesign: there is none of that id."""
    find_design(connection, design_id)
    connection.execute("UPDATE design SET removed_at = ? WHERE id = ?", (at, design_id))


def find_design(connection: sqlite3.Connection, design_id: str) -> DesignRow:
    """One design. :raises NoSuchDesign: there is none of that id."""
    row = connection.execute(
        "SELECT id, name, head, created_at, kept_at FROM design WHERE id = ?", (design_id,)
    ).fetchone()
    if row is None:
        raise NoSuchDesign(f"There is no design “{design_id[:60]}” here")
    return DesignRow(*row)


def free_design_id(connection: sqlite3.Connection, stem: str) -> str:
    """``stem``, or ``stem-2``, ``stem-3`` … when it is taken."""
    taken = {row[0] for row in connection.execute("SELECT id FROM design")}
    n, name = 2, stem
    while name in taken:
        name, n = f"{stem}-{n}", n + 1
    return name


def add_design(
    connection: sqlite3.Connection, design_id: str, name: str, document: str, label: str, at: str, format: int
) -> None:
    """A new design with its first revision."""
    connection.execute(
        "INSERT INTO design (id, name, head, created_at, kept_at) VALUES (?, ?, 1, ?, ?)", (design_id, name, at, at)
    )
    connection.execute(
        "INSERT INTO revision (design_id, number, kept_at, label, commands, patch, snapshot, format) "
        "VALUES (?, 1, ?, ?, '[]', '[]', ?, ?)",
        (design_id, at, label, document, format),
    )


def append_revision(
    connection: sqlite3.Connection, design_id: str, name: str, new: NewRevision, snapshot: str | None
) -> None:
    """Add a revision and make it the head."""
    connection.execute(
        "INSERT INTO revision (design_id, number, kept_at, label, batch_key, commands, patch, undo_to, redo_to, "
        "snapshot, format, asked) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        (
            design_id,
            new.number,
            new.kept_at,
            new.label,
            new.batch_key,
            new.commands,
            new.patch,
            new.undo_to,
            new.redo_to,
            snapshot,
            new.format,
            new.asked,
        ),
    )
    connection.execute(
        "UPDATE design SET head = ?, name = ?, kept_at = ? WHERE id = ?", (new.number, name, new.kept_at, design_id)
    )


def find_revision(connection: sqlite3.Connection, design_id: str, number: int) -> RevisionRow:
    """One revision without its content. :raises NoSuchDesign: there is none of that number."""
    row = connection.execute(
        "SELECT number, kept_at, label, undo_to, redo_to, format FROM revision WHERE design_id = ? AND number = ?",
        (design_id, number),
    ).fetchone()
    if row is None:
        raise NoSuchDesign(f"Design “{design_id[:60]}” has no revision {number}")
    return RevisionRow(*row)


def find_batch(connection: sqlite3.Connection, design_id: str, batch_key: str) -> BatchRow | None:
    """The batch that was kept under a key, when one was."""
    row = connection.execute(
        "SELECT number, asked FROM revision WHERE design_id = ? AND batch_key = ?", (design_id, batch_key)
    ).fetchone()
    return None if row is None else BatchRow(*row)


def labels_after(connection: sqlite3.Connection, design_id: str, number: int) -> tuple[str, ...]:
    """What was done after a revision, newest first."""
    rows = connection.execute(
        "SELECT label FROM revision WHERE design_id = ? AND number > ? ORDER BY number DESC LIMIT 20",
        (design_id, number),
    ).fetchall()
    return tuple(row[0] for row in rows)


def load_chain(connection: sqlite3.Connection, design_id: str, number: int) -> Chain:
    """The nearest whole document at or before a revision, and the patches that lead from it to the revision.

    :raises NoSuchDesign: there is no such revision. :raises MissingSnapshot: no whole document is kept.
    """
    find_revision(connection, design_id, number)
    start = connection.execute(
        "SELECT number, snapshot FROM revision WHERE design_id = ? AND number <= ? AND snapshot IS NOT NULL "
        "ORDER BY number DESC LIMIT 1",
        (design_id, number),
    ).fetchone()
    if start is None:
        raise MissingSnapshot(f"Nothing whole is kept of “{design_id[:60]}” up to revision {number}")
    rows = connection.execute(
        "SELECT number, patch FROM revision WHERE design_id = ? AND number > ? AND number <= ? ORDER BY number",
        (design_id, start[0], number),
    ).fetchall()
    return Chain(start[0], start[1], tuple((row[0], row[1]) for row in rows))


class LoggedRevision(NamedTuple):
    """A revision as its log has it: the commands, or the revision whose content it brought back."""

    number: int
    label: str
    commands: str


def load_log(connection: sqlite3.Connection, design_id: str) -> list[LoggedRevision]:
    """What every revision of a design did, the first one first."""
    rows = connection.execute(
        "SELECT number, label, commands FROM revision WHERE design_id = ? ORDER BY number", (design_id,)
    ).fetchall()
    return [LoggedRevision(*row) for row in rows]


def load_raw(connection: sqlite3.Connection, design_id: str) -> list[dict[str, Any]]:
    """Every column of every revision of a design, the first one first. :raises NoSuchDesign: there is none."""
    find_design(connection, design_id)
    rows = connection.execute("SELECT * FROM revision WHERE design_id = ? ORDER BY number", (design_id,)).fetchall()
    return [dict(row) for row in rows]
