"""Tables as CSV (RFC 4180) and JSON (RFC 8259)."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Iterable, Sequence

_BEGINS = re.compile(r"(^|[;,]\s*)(?=[=+\-@\t].)", re.DOTALL)
"""Where a spreadsheet may begin to read a formula: a sign with nothing after it is none."""


def write_csv(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """A CSV table with a heading, UTF-8. A cell a spreadsheet would take for a formula gets a leading apostrophe."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(columns)
    writer.writerows([_harmless(cell) for cell in row] for row in rows)
    return stream.getvalue().encode()


def write_json(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """A JSON array of objects, one a row."""
    table = [dict(zip(columns, row, strict=True)) for row in rows]
    return (json.dumps(table, ensure_ascii=False, indent=2) + "\n").encode()


def _harmless(cell: str) -> str:
    """The cell, so that no part of it is taken for a formula where commas or semicolons part the cells."""
    return _BEGINS.sub(r"\1'", cell)
