"""The table ``shelf``: machines, stock, supplies and own parts that all designs share."""

from __future__ import annotations

import sqlite3
from typing import Literal

Kind = Literal["machine", "stock", "supply", "part"]


def put(connection: sqlite3.Connection, kind: Kind, ident: str, document: str, at: str) -> None:
    """Keep a thing, in place of the one of its kind and id."""
    connection.execute(
        "INSERT INTO shelf (kind, id, document, kept_at) VALUES (?, ?, ?, ?) "
        "ON CONFLICT (kind, id) DO UPDATE SET document = excluded.document, kept_at = excluded.kept_at",
        (kind, ident, document, at),
    )


def take(connection: sqlite3.Connection, kind: Kind, ident: str) -> bool:
    """Take a thing off the shelf; designs that use it keep theirs. Says whether it was there."""
    return connection.execute("DELETE FROM shelf WHERE kind = ? AND id = ?", (kind, ident)).rowcount > 0


def documents(connection: sqlite3.Connection) -> list[tuple[Kind, str, str]]:
    """Every thing's kind, id and document, by kind and id."""
    rows = connection.execute("SELECT kind, id, document FROM shelf ORDER BY kind, id").fetchall()
    return [(row[0], row[1], row[2]) for row in rows]
