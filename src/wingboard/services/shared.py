"""What all designs share: the shelf and the pictures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import UTC, datetime

from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.part import Part
from wingboard.services.pictures import checked_picture
from wingboard.services.shelf import Shelf, load_shelf
from wingboard.store import shelf as shelf_table
from wingboard.store.database import Database
from wingboard.store.pictures import PictureRow, keep_picture, load_picture


class SharedThings:
    """The shelf and the pictures of one database."""

    def __init__(self, database: Database, clock: Callable[[], datetime]) -> None:
        self.database = database
        self._clock = clock

    def shelf(self) -> Shelf:
        """What all designs share: machines, stock, supplies and own parts, as they were last set."""
        with self.database.reading() as connection:
            return load_shelf(connection)

    def take_off_shelf(self, kind: shelf_table.Kind, ident: str) -> None:
        """Remove a thing from the shelf; designs that use it keep theirs. :raises UnknownThing: it is not there."""
        with self.database.transaction() as connection:
            if not shelf_table.take(connection, kind, ident):
                raise UnknownThing(f"There is no {kind} “{ident}” on the shelf", "id")

    def parts(self) -> Mapping[str, Part]:
        """The parts that may be chosen: the catalogue, and the builder's own from any design."""
        return {**catalogue(), **{p.id: p for p in self.shelf().parts}}

    def keep_picture(self, content: bytes) -> PictureRow:
        """Check an uploaded picture and keep it by its content. :raises NotAPicture: it is none that is taken."""
        return self.keep_checked(checked_picture(content))

    def keep_checked(self, checked: PictureRow) -> PictureRow:
        """Keep a picture that was checked already."""
        with self.database.transaction() as connection:
            keep_picture(connection, checked, self._now())
        return checked

    def picture(self, sha256: str) -> PictureRow:
        """A kept picture. :raises NoSuchPicture: there is none of that content."""
        with self.database.reading() as connection:
            return load_picture(connection, sha256)

    def _now(self) -> str:
        return self._clock().astimezone(UTC).isoformat(timespec="milliseconds")
