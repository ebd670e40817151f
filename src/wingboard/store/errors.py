"""What can go wrong with keeping, in one tree.

- :class:`StoreError`: the database cannot do what is asked; nothing was half kept.

  - :class:`StoreBusy`: another program holds the database locked.
  - :class:`StoreFull`: the disk, or the space allowed, is full.
  - :class:`ForeignDatabase`: the file is not a database of Wing Board.
  - :class:`DamagedDatabase`: the file is one, and damaged.
  - :class:`NewerDatabase`: a newer Wing Board has changed the tables.
  - :class:`NoSuchDesign`: there is no design, or no revision, of that name.
  - :class:`NoSuchPicture`: no picture of that content is kept here.
  - :class:`UnreadableRevision`: what is kept of a design is damaged at some revision.
  - :class:`KeyUsedAgain`: a key that named one change was sent with another.
  - :class:`StaleRevision`: the change was made against a revision that is no longer the newest.
"""

from __future__ import annotations

import sqlite3


class StoreError(Exception):
    """The database cannot do what is asked."""

    title = "The database cannot do that"


class StoreBusy(StoreError):
    """Locked by another program."""

    title = "The database is locked"


class StoreFull(StoreError):
    """No room left."""

    title = "There is no room left to keep this"


class ForeignDatabase(StoreError):
    """Not ours, or damaged."""

    title = "This file is not a Wing Board database"


class DamagedDatabase(StoreError):
    """Ours, but not whole."""

    title = "This database is damaged"


class NewerDatabase(StoreError):
    """Tables of a newer version."""

    title = "This database was changed by a newer Wing Board"


class NoSuchDesign(StoreError):
    """Nothing of that name."""

    title = "There is no such design"


class NoSuchPicture(StoreError):
    """No such picture."""

    title = "There is no such picture"


class UnreadableRevision(StoreError):
    """A damaged patch or document; says at which revision."""

    title = "This design is damaged"

    def __init__(self, design_id: str, number: int, at: int, reason: str) -> None:
        super().__init__(
            f"Revision {number} of “{design_id}” cannot be read: revision {at} is damaged ({reason}). "
            "Go on from the last revision that can be read, or save the raw file"
        )
        self.design_id, self.number, self.at = design_id, number, at


class KeyUsedAgain(StoreError):
    """Another change under the same key."""

    title = "This key was used before"


class StaleRevision(StoreError):
    """Somebody was faster; says what has changed since."""

    title = "The design has changed since"

    def __init__(self, base: int, head: int, since: tuple[str, ...]) -> None:
        done = "; ".join(since[:5])
        super().__init__(f"This was meant for revision {base}; the newest is {head}. Since then: {done}")
        self.base, self.head, self.since = base, head, since


def translated(error: sqlite3.Error, path: str) -> StoreError:
    """What an error of SQLite means to the builder (result codes: SQLite documentation)."""
    code = getattr(error, "sqlite_errorcode", None)
    primary = None if code is None else code & 0xFF
    if primary in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return StoreBusy(f"Another program holds {path} locked. Close it and try again; nothing typed is lost.")
    if primary == sqlite3.SQLITE_FULL:
        return StoreFull(f"The disk that holds {path} is full. Make room and try again; what was kept is safe.")
    if primary in (sqlite3.SQLITE_NOTADB, sqlite3.SQLITE_CORRUPT):
        return ForeignDatabase(f"{path} is not a database, or is damaged. Move it away, or name another with --data.")
    if primary in (sqlite3.SQLITE_READONLY, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_IOERR):
        return StoreError(f"{path} cannot be read or written: {error}. Check the folder's rights.")
    return StoreError(f"{path}: {error}")
