"""The wire list: what is cut, by colour and thickness, the longest first, and from which piece on hand."""

from __future__ import annotations

from wingboard.core.files.tables import write_csv
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.laid import labels, laid, name_of

COLUMNS = ("number", "colour", "mm2", "awg", "length_mm", "measure", "from", "to", "label_from", "label_to", "cut_from")


def wire_list_csv(r: Resolved) -> bytes:
    """A row a wire."""
    cut = [piece for piece in laid(r) if piece.wire.how == "wire"]
    rows = []
    for piece in sorted(cut, key=lambda p: (-p.area, p.colour, -p.length)):
        start, end = piece.wire.start, piece.wire.end
        colour = f"{piece.colour}-{piece.stripe}" if piece.stripe else piece.colour
        given = f"{piece.given.stock} {piece.given.piece}" if piece.given else ""
        rows.append(
            (piece.number, colour, f"{piece.area:g}", str(piece.awg), f"{piece.length:g}", "" if piece.said else "x",
             f"{name_of(r, start.device)} {start.terminal}", f"{name_of(r, end.device)} {end.terminal}",
             *labels(r, piece), given)
        )  # fmt: skip
    return write_csv(COLUMNS, rows)
