"""What lies between the terminals of a part, also of one that was copied before parts said so."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.part import Contact, Feed, Part, PartLine


class Said(NamedTuple):
    """A part's terminals, its lines by their ids, its further contacts, and what it is fed by."""

    terminals: tuple[str, ...]
    lines: dict[str, PartLine]
    contacts: tuple[Contact, ...]
    feed: Feed | None


def said(part: Part) -> Said:
    """As the part says; where it does not, as the generic part does that it was copied from and still is like."""
    lines = {line.id: line for line in part.lines}
    known = catalogue().get(part.base or part.id)
    silent = not any(line.back or line.ends for line in part.lines) and not part.contacts
    if not silent or known is None or {line.id for line in known.lines} != set(lines):
        return Said(part.terminals, lines, part.contacts, part.feed)
    ends = {line.id: line for line in known.lines}
    told = {
        ident: line.model_copy(
            update={"terminal": ends[ident].terminal, "back": ends[ident].back, "closed": ends[ident].closed,
                    "ends": ends[ident].ends}
        )
        for ident, line in lines.items()
    }  # fmt: skip
    feed = part.feed
    if feed is not None and known.feed is not None and not feed.plus:
        feed = feed.model_copy(update={"plus": known.feed.plus, "minus": known.feed.minus})
    return Said(known.terminals, told, known.contacts, feed)
