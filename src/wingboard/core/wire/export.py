"""The files of the wire station."""

from __future__ import annotations

from wingboard.core.files.tables import write_csv, write_json
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pinlist import COLUMNS, pin_list


def wire_files(r: Resolved) -> dict[str, bytes]:
    """``wire/pins.csv`` and ``wire/pins.json``: board, pin, direction, function, terminal, module, note."""
    rows = [tuple(getattr(row, column) for column in COLUMNS) for row in pin_list(r)]
    return {"wire/pins.csv": write_csv(COLUMNS, rows), "wire/pins.json": write_json(COLUMNS, rows)}
