"""Reading designs from their history, and what can still be read of one that is damaged."""

from __future__ import annotations

import json
import logging
import sqlite3
from typing import Any

import jsonpatch
from jsonpointer import JsonPointerException
from pydantic import ValidationError

from wingboard.core.record.base import place_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import UnreadableDesign
from wingboard.core.record.upgrade import upgraded
from wingboard.store import designs as table
from wingboard.store.errors import UnreadableRevision

log = logging.getLogger(__name__)

_DAMAGED = (
    ValueError,
    TypeError,
    KeyError,
    IndexError,
    RecursionError,
    jsonpatch.JsonPatchException,
    JsonPointerException,
)
"""What reading a damaged patch or document raises (``JSONDecodeError`` and ``ValidationError`` are ValueErrors)."""


def load_design(connection: sqlite3.Connection, design_id: str, number: int) -> Design:
    """A design at a revision.

    :raises NoSuchDesign: no such design or revision. :raises UnreadableRevision: what is kept is damaged.
    """
    chain = table.load_chain(connection, design_id, number)
    try:
        document = json.loads(chain.snapshot)
        for _, patch in chain.patches:
            document = jsonpatch.apply_patch(document, json.loads(patch), in_place=True)
        return Design.model_validate(upgraded(document))
    except (*_DAMAGED, UnreadableDesign) as error:
        good = _last_good_of(chain)
        at = chain.start if good is None else next((n for n, _ in chain.patches if n > good), number)
        log.warning("design %s: revision %s cannot be read at %s: %s", design_id, number, at, _reason(error))
        raise UnreadableRevision(design_id, number, at, _reason(error)) from error


def _reason(error: Exception) -> str:
    if isinstance(error, ValidationError):
        first = error.errors()[0]
        return f"{place_of(first['loc'])}: {first['msg']}"
    return str(error)[:200] or type(error).__name__


def last_good_revision(connection: sqlite3.Connection, design_id: str) -> int | None:
    """The newest revision that can be read; None when there is none."""
    number = table.find_design(connection, design_id).head
    while number >= 1:
        try:
            chain = table.load_chain(connection, design_id, number)
        except table.MissingSnapshot:
            return None
        good = _last_good_of(chain)
        if good is not None:
            return good
        number = chain.start - 1
    return None


def _last_good_of(chain: table.Chain) -> int | None:
    """The newest readable revision of one snapshot and its patches."""
    documents: list[tuple[int, Any]] = []
    try:
        document = json.loads(chain.snapshot)
        documents.append((chain.start, document))
        for number, patch in chain.patches:
            document = jsonpatch.apply_patch(document, json.loads(patch))
            documents.append((number, document))
    except _DAMAGED:
        pass
    return next((number for number, document in reversed(documents) if _reads(document)), None)


def _reads(document: Any) -> bool:
    try:
        Design.model_validate(upgraded(document))
    except (*_DAMAGED, UnreadableDesign):
        return False
    return True


def raw_history(connection: sqlite3.Connection, design_id: str) -> bytes:
    """All revisions of a design as they are kept, in JSON text that anyone can look into."""
    rows = table.load_raw(connection, design_id)
    return json.dumps({"design": design_id, "revisions": rows}, ensure_ascii=False, indent=1).encode(errors="replace")
