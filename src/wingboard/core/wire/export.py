"""The files of the wire station."""

from __future__ import annotations

import json

from wingboard.core.files.tables import write_csv, write_json
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.crib import crib_pdf
from wingboard.core.wire.harness.drawing import looms_pdf, looms_svg
from wingboard.core.wire.harness.labels import labels_csv, labels_pdf
from wingboard.core.wire.harness.pinout import plugs_pdf, plugs_svg
from wingboard.core.wire.harness.plugs import nets_json
from wingboard.core.wire.landing import boards, landing_pdf
from wingboard.core.wire.pinfiles import as_json, header, module, schema
from wingboard.core.wire.pinlist import COLUMNS, pin_list
from wingboard.core.wire.power.drawing import power_pdf, power_svg
from wingboard.core.wire.program.channels import programmed
from wingboard.core.wire.program.sketch import sketch
from wingboard.core.wire.program.words import protocol_text
from wingboard.core.wire.sheet import sheet_csv, small_csv
from wingboard.core.wire.sheet_pdf import wiring_pdf
from wingboard.core.wire.wirelist import wire_list_csv


def pins_csv(r: Resolved) -> bytes:
    """The pin list as CSV."""
    return write_csv(COLUMNS, _rows(r))


def pins_json(r: Resolved) -> bytes:
    """The pin list as JSON."""
    return write_json(COLUMNS, _rows(r))


def _rows(r: Resolved) -> list[tuple[str, ...]]:
    plain = (row._asdict() | {"milliamps": f"{row.milliamps:g}"} for row in pin_list(r))
    return [tuple(row[column] for column in COLUMNS) for row in plain]


def wire_files(r: Resolved, revision: int = 0) -> dict[str, bytes]:
    """The files by their names: pins, wiring sheet, wire list, labels, plugs, looms, power, boards, programs, net list.

    :param revision: of the design, as its boards shall say; 0 where it is not known.
    """
    nets = json.dumps(nets_json(r), ensure_ascii=False, indent=1) + "\n"
    return {
        "wire/pins.csv": pins_csv(r),
        "wire/pins.json": pins_json(r),
        "wire/wiring-sheet.csv": sheet_csv(r),
        "wire/wiring-sheet.pdf": wiring_pdf(r),
        "wire/small-parts.csv": small_csv(r),
        "wire/wire-list.csv": wire_list_csv(r),
        "wire/labels.csv": labels_csv(r),
        "wire/labels.pdf": labels_pdf(r),
        "wire/looms.svg": looms_svg(r),
        "wire/looms.pdf": looms_pdf(r),
        "wire/power.svg": power_svg(r),
        "wire/power.pdf": power_pdf(r),
        **_of_boards(r),
        **_programs(r, revision),
        **_of_plugs(r),
        **({"wire/strip-boards.pdf": landing_pdf(r)} if boards(r) else {}),
        "wire/nets.json": nets.encode(),
    }


def _of_boards(r: Resolved) -> dict[str, bytes]:
    """What is made where there are controllers: their crib sheets, and their pins for programs."""
    if not r.design.controllers:
        return {}
    headers = {f"wire/pins-{c.id}.h": header(r, c.id) for c in r.design.controllers}
    return {
        "wire/boards.pdf": crib_pdf(r),
        **headers,
        "wire/pins.py": module(r),
        "wire/pins-for-programs.json": as_json(r),
        "wire/pins-for-programs.schema.json": schema(),
    }


def _programs(r: Resolved, revision: int) -> dict[str, bytes]:
    """The folder of each board's program, and the protocol in words, where a board takes one."""
    boards = programmed(r)
    if not boards:
        return {}
    made = (sketch(r, board, revision) for board in boards)
    folders = {f"wire/programs/{one.folder}/{name}": text.encode() for one in made for name, text in one.files.items()}
    return {"wire/protocol.txt": protocol_text(r, revision).encode(), **folders}


def _of_plugs(r: Resolved) -> dict[str, bytes]:
    """The pin-outs, where there are plugs."""
    drawn = {f"wire/plug-{name.lower()}.svg": content for name, content in plugs_svg(r).items()}
    return {"wire/plugs.pdf": plugs_pdf(r), **drawn} if drawn else {}
