"""The files of the wire station."""

from __future__ import annotations

import json

from wingboard.core.files.tables import write_csv, write_json
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pinlist import COLUMNS, pin_list
from wingboard.core.wire.sheet import sheet_csv, small_csv
from wingboard.core.wire.sheet_pdf import wiring_pdf


def wire_files(r: Resolved) -> dict[str, bytes]:
    """The files by their names: the pin list, the wiring sheet, its small parts, the net list."""
    rows = [tuple(getattr(row, column) for column in COLUMNS) for row in pin_list(r)]
    nets = json.dumps(net_list(r).as_json(), ensure_ascii=False, indent=1) + "\n"
    return {
        "wire/pins.csv": write_csv(COLUMNS, rows),
        "wire/pins.json": write_json(COLUMNS, rows),
        "wire/wiring-sheet.csv": sheet_csv(r),
        "wire/wiring-sheet.pdf": wiring_pdf(r),
        "wire/small-parts.csv": small_csv(r),
        "wire/nets.json": nets.encode(),
    }
