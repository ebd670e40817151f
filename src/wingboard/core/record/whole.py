"""One validation of a whole design after a change: every limit, reference and identity, at the cost of what changed."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from wingboard.core.record.base import Record, place_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, Problem


def revalidated(before: Design, after: Design) -> Design:
    """The changed design as if it had been read from its file; what is the same object in both is not read again.

    :param before: a valid design that ``after`` was made from.
    :raises NotPossible: ``after`` breaks the record; lists every place.
    """
    if after is before:
        return before
    fields = {name: _to_read(getattr(before, name), getattr(after, name)) for name in Design.model_fields}
    try:
        read = Design.model_validate(fields)
    except ValidationError as error:
        problems = tuple(Problem(place_of(e["loc"]), plain_message(e)) for e in error.errors()[:50])
        raise NotPossible(problems[0].message, problems[0].path, problems) from error
    return before if read == before else read


def plain_message(error: Any) -> str:
    """What a validation error says, in a builder's words where the common ones are concerned."""
    if error["type"] == "too_long" and "max_length" in error.get("ctx", {}):
        return f"There is room for {error['ctx']['max_length']} of these in a design, and no more"
    return str(error["msg"]).removeprefix("Value error, ")


def _to_read(before: Any, after: Any) -> Any:
    if before is after:
        return after
    if isinstance(after, tuple):
        known = {id(entry) for entry in before} if isinstance(before, tuple) else set()
        return tuple(entry if id(entry) in known else _plain(entry) for entry in after)
    return _plain(after)


def _plain(value: Any) -> Any:
    return value.model_dump() if isinstance(value, Record) else value


def interned(design: Design, known: Design) -> Design:
    """An equal design that shares with ``known`` every object that is equal in both.

    What compares designs by the identity of their parts (patches, the review) then sees only what differs.
    """
    shared = {name: _shared(getattr(design, name), getattr(known, name)) for name in Design.model_fields}
    return design.model_copy(update=shared)


def _shared(value: Any, known: Any) -> Any:
    if value == known:
        return known
    if not isinstance(value, tuple) or not isinstance(known, tuple):
        return value
    by_id = {getattr(entry, "id", None): entry for entry in known}
    found = ((entry, by_id.get(getattr(entry, "id", None))) for entry in value)
    return tuple(other if other == entry else entry for entry, other in found)
