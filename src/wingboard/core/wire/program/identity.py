"""Which program is on a board, from the line by which it says who it is."""

from __future__ import annotations

import re
from typing import Literal, NamedTuple

from wingboard.core.record.errors import DesignError
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import programmed, slug
from wingboard.core.wire.program.differing import Difference, differences, fingerprint
from wingboard.core.wire.program.tables import EDITION, PROTOCOL, letter_of

_GREETING = re.compile(
    r"board (?P<protocol>\d{1,3}) (?P<letter>[A-Z]{1,2}) of (?P<design>[a-z0-9-]{1,200})"
    r" revision (?P<revision>\d{1,9}) lines (?P<lines>[0-9A-F]{4})(?: edition (?P<edition>\d{1,4}))?"
)
EXAMPLE = f"board {PROTOCOL} A of a-desk revision 7 lines 3FA2 edition {EDITION}"


class Greeting(NamedTuple):
    """What a board answers to ``hello``; ``edition`` is 0 where it does not know of such a thing yet."""

    protocol: int
    letter: str
    design: str
    revision: int
    lines: str
    edition: int


State = Literal["same", "differs", "other", "unknown"]
"""It does what the design says; it does not; it is another's; it cannot be told."""


class Judged(NamedTuple):
    """What a greeting means for a design: which of its boards it is (empty: none), in words, and what differs."""

    state: State
    board: str
    words: str
    differences: tuple[Difference, ...] = ()


def greeting_of(text: str) -> Greeting:
    """A greeting as it was heard or pasted, with or without its checksum, wherever in the text it stands.

    :raises DesignError: there is none in it.
    """
    found = _GREETING.search(text)
    if found is None:
        raise DesignError(f"“{text.strip()[:60]}” is not what a board answers to hello, as “{EXAMPLE}”", "said")
    protocol, revision, edition = (int(found[part] or 0) for part in ("protocol", "revision", "edition"))
    return Greeting(protocol, found["letter"], found["design"], revision, found["lines"], edition)


def board_of_letter(r: Resolved, letter: str) -> str:
    """The board of a letter, by its id; empty where there is none that takes a program."""
    return next((board for board in programmed(r) if letter_of(r, board) == letter), "")


def judged(said: Greeting, now: Resolved, head: int, then: Resolved | None) -> Judged:
    """What a greeting means.

    :param head: the revision of ``now``. :param then: the design at the revision that was said, where it is kept.
    """
    board = board_of_letter(then or now, said.letter)
    here = any(c.id == board for c in now.design.controllers)
    if said.protocol != PROTOCOL:
        return Judged("other", "", f"It speaks version {said.protocol} of the protocol, this is version {PROTOCOL}: "
                                   "write its program anew.")  # fmt: skip
    if said.design not in {slug(r.design.name) for r in (now, then) if r}:
        return Judged("other", "", f"It has the program of another design, “{said.design}”.")
    if not board or not here:
        return Judged("other", "", f"It says that it is board {said.letter}, which this design does not have.")
    older = _other_edition(said.edition)
    if said.lines == fingerprint(now, board):
        since = f", though it was written at revision {said.revision}" if said.revision not in (0, head) else ""
        words = f"It does what the design says now{since}"
        return (
            Judged("differs", board, f"{words}. {older}") if older else Judged("same", board, f"{words}: it can stay.")
        )
    if then is None or said.lines != fingerprint(then, board):
        why = f"revision {said.revision} is not kept here"
        if then is not None:
            why = f"it is not what revision {said.revision} says: it was changed by hand, or is of another copy"
        words = f"It does something else than the design says now; what, cannot be told: {why}."
        return Judged("unknown", board, f"{words} {older}".rstrip())
    found = differences(then, now, board)
    things = "one thing differs" if len(found) == 1 else f"{len(found)} things differ"
    words = f"It was written at revision {said.revision}; since then {things}."
    return Judged("differs", board, f"{words} {older}".rstrip(), found)


def _other_edition(edition: int) -> str:
    """What it means that the files beside the tables of a board are of another edition; empty where they are not."""
    if edition == EDITION:
        return ""
    other = "an older" if edition < EDITION else "a newer"
    return f"How it reads and drives is of {other} Wing Board than this one: write it anew to have it alike."
