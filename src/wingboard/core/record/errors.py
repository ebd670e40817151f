"""What can go wrong with a design, in one tree.

- :class:`DesignError`: any expected failure; says where (``path``) and what would work.

  - :class:`UnreadableDesign`: the text is not a design file at all, or breaks its schema (a list of places).
  - :class:`UnknownThing`: a command or a record names a function, part, module or controller that is not there.
  - :class:`NotPossible`: the request is understood but would break the record (a name taken, a pin used twice).
  - :class:`NotALength`: a typed line could not be read as a place or a length.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple


class Problem(NamedTuple):
    """One fault: the place in the document or command (``functions[3].part``) and a sentence."""

    path: str
    message: str


class DesignError(Exception):
    """An expected failure, with the field it concerns."""

    title = "That cannot be done"

    def __init__(self, message: str, path: str = "", problems: tuple[Problem, ...] = ()) -> None:
        super().__init__(message)
        self.message = message
        self.path = path
        self.what: str | None = None
        """What was asked for, in words, where whoever carried it out knows: “Move Wiper”."""
        self.ident: str | None = None
        """The id of what is not there."""
        self.problems = problems or (Problem(path, message),)

    def naming(self, gone: Mapping[str, str]) -> None:
        """Say by its name what was asked for and is gone; names by id."""
        if self.ident is not None and self.ident in gone:
            self.message = f"“{gone[self.ident]}” was removed meanwhile"
            self.problems = (Problem(self.path, self.message),)


class UnreadableDesign(DesignError):
    """The document is not a design, or breaks its schema."""

    title = "This file cannot be read as a design"


class UnknownThing(DesignError):
    """Something is named that does not exist."""

    title = "There is no such thing here"


class NotPossible(DesignError):
    """The request would break the record."""

    title = "That cannot be done"


class NotALength(DesignError):
    """A typed line could not be read."""

    title = "This line cannot be read"
