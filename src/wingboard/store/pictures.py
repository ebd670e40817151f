"""The table ``picture``: reference pictures, kept once by their content."""

from __future__ import annotations

import sqlite3
from typing import NamedTuple

from wingboard.store.errors import NoSuchPicture


class PictureRow(NamedTuple):
    """A kept picture."""

    sha256: str
    media: str
    width: int
    height: int
    content: bytes


def keep_picture(connection: sqlite3.Connection, picture: PictureRow, at: str) -> None:
    """Keep a picture; one that is there already stays as it is."""
    connection.execute(
        "INSERT INTO picture (sha256, media, width, height, content, kept_at) VALUES (?, ?, ?, ?, ?, ?) "
        "ON CONFLICT (sha256) DO NOTHING",
        (*picture, at),
    )


def load_picture(connection: sqlite3.Connection, sha256: str) -> PictureRow:
    """A kept picture. :raises NoSuchPicture: there is none of that content."""
    row = connection.execute(
        "SELECT sha256, media, width, height, content FROM picture WHERE sha256 = ?", (sha256,)
    ).fetchone()
    if row is None:
        raise NoSuchPicture("There is no such picture here; it was kept in another database")
    return PictureRow(*row)
