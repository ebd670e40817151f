"""Crib sheets: each board as it lies before you, with what is on every pad. One page a board."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.files.diagram import FAINT, Box, Diagram, Dot, Shape, Words, pdf, shortened
from wingboard.core.record.controllers import Board, board_of
from wingboard.core.record.wiring import Controller
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.inks import INKS
from wingboard.core.wire.harness.laid import Laid, laid, name_of
from wingboard.core.wire.netlist import board_id
from wingboard.core.wire.pinlist import Row, pin_list

ROW, WIDE, SIDE = 4.6, 26.0, 80.0
"""From pad to pad, width of the board, room for words on each side (mm)."""
ROWS = (("left", "right"), ("end_left", "end_right"))


def crib_diagrams(r: Resolved) -> tuple[Diagram, ...]:
    """A page for each board of the design."""
    on: dict[tuple[str, str], list[Laid]] = {}
    for piece in laid(r):
        for port in (piece.wire.start, piece.wire.end):
            on.setdefault((port.device, port.terminal), []).append(piece)
    rows: dict[tuple[str, str], list[Row]] = {}
    for row in pin_list(r):
        if row.controller:
            rows.setdefault((row.controller, row.pin), []).append(row)
    return tuple(_page(r, c, on, rows) for c in r.design.controllers)


def _page(
    r: Resolved, controller: Controller, on: dict[tuple[str, str], list[Laid]], rows: dict[tuple[str, str], list[Row]]
) -> Diagram:  # fmt: skip
    kind = board_of(r.design, controller.board)
    shapes: list[Shape] = [Words(0, 6, f"{controller.name}, {kind.chip}", 4.2, bold=True)]
    shapes.append(Words(0, 11, "Seen from the side of its parts, the USB plug above", 2.6, colour=FAINT))
    if controller.reserved in r.functions:
        words = f"{r.functions[controller.reserved].name} plugs onto it, and takes all its pins"
        shapes.append(Words(0, 15, words, 2.6, bold=True))
    y = 16.0
    for left, right in ROWS:
        pads = kind.sides.get(left, ()), kind.sides.get(right, ())
        many = max(map(len, pads))
        if not many:
            continue
        shapes.append(Box(SIDE, y, WIDE, many * ROW + 2, "#1F4E54", "#1F4E54", radius=1.5))
        for side, names in enumerate(pads):
            for n, pad in enumerate(names):
                shapes += _pad(r, controller, kind, pad, y + 1 + (n + 0.5) * ROW, side == 0, on, rows)
        y += many * ROW + 8
    return Diagram(f"{r.design.name}: {controller.name}", 2 * SIDE + WIDE, y, tuple(shapes))


def _pad(
    r: Resolved, controller: Controller, kind: Board, pad: str, y: float, left: bool,
    on: dict[tuple[str, str], list[Laid]], rows: dict[tuple[str, str], list[Row]],
) -> Iterator[Shape]:  # fmt: skip
    device = board_id(controller.id)
    pieces, lines = on.get((device, pad), []), rows.get((controller.id, pad), [])
    x, out = (SIDE + 2.2, -1.0) if left else (SIDE + WIDE - 2.2, 1.0)
    fill = INKS[pieces[0].colour] if pieces else "#D8D0B8" if kind.pin(pad) else "#3A6268"
    yield Dot(x, y, 1.3, fill, "#F4F4F0", 0.3)
    yield Words(x - out * 2.4, y + 0.9, pad, 2.3, "start" if left else "end", colour="#FFFFFF")
    if not pieces and not lines:
        return
    said = "; ".join(dict.fromkeys(f"{row.function}, {row.terminal}" for row in lines)) or _supply(r, pieces, device)
    other = "" if not pieces else _other(r, pieces[0], device)
    text = f"{shortened(said, 2.4, 46)}{f'  ({other})' if other and lines else ''}"
    yield Words(x + out * 4.6, y + 0.9, shortened(text, 2.4, 74), 2.4, "end" if left else "start")


def _supply(r: Resolved, pieces: list[Laid], device: str) -> str:
    return ", ".join(_other(r, piece, device) for piece in pieces[:3]) + (" …" if len(pieces) > 3 else "")


def _other(r: Resolved, piece: Laid, device: str) -> str:
    """The far end of a wire, and its number."""
    port = piece.wire.end if piece.wire.start.device == device else piece.wire.start
    return f"{piece.number} {name_of(r, port.device)} {port.terminal}"


def crib_pdf(r: Resolved) -> bytes:
    """The crib sheets as PDF."""
    return pdf(f"{r.design.name}: boards", crib_diagrams(r))
