"""Labels for both ends of every wire, on A4 to cut out and to wrap: what it is, and where it goes from there."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.files.diagram import Diagram, Dot, Line, Shape, Words, pdf, shortened
from wingboard.core.files.tables import write_csv
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.inks import INKS
from wingboard.core.wire.harness.laid import Laid, labels, laid

WIDE, HIGH, ACROSS, DOWN = 45.0, 7.0, 4, 38
"""A label, and how many stand side by side and below each other on a page (mm)."""


def every_label(r: Resolved) -> Iterator[tuple[Laid, str]]:
    """Every label with its wire: that of the one end, then of the other."""
    for piece in laid(r):
        if piece.wire.how == "wire":
            for text in labels(r, piece):
                yield piece, text


def labels_pdf(r: Resolved) -> bytes:
    """The labels, page by page in the order of the work."""
    every = list(every_label(r))
    size = ACROSS * DOWN
    pages = []
    for start in range(0, len(every), size):
        grid = range(ACROSS + 1), range(DOWN + 1)
        shapes: list[Shape] = [Line(((x * WIDE, 0.0), (x * WIDE, DOWN * HIGH)), 0.15, "#BBBBBB") for x in grid[0]]
        shapes += (Line(((0.0, y * HIGH), (ACROSS * WIDE, y * HIGH)), 0.15, "#BBBBBB") for y in grid[1])
        for n, (piece, text) in enumerate(every[start : start + size]):
            x, y = (n % ACROSS) * WIDE, (n // ACROSS) * HIGH
            shapes.append(Dot(x + 3, y + HIGH / 2, 1.2, INKS[piece.colour], "#777777", 0.2))
            if piece.stripe:
                shapes.append(Dot(x + 3, y + HIGH / 2, 0.5, INKS[piece.stripe], INKS[piece.stripe], 0.1))
            shapes.append(Words(x + 6, y + 4.5, shortened(text, 2.6, WIDE - 7), 2.6))
        pages.append(Diagram(f"{r.design.name}: labels", ACROSS * WIDE, DOWN * HIGH, tuple(shapes)))
    return pdf(f"{r.design.name}: labels", pages)


def labels_csv(r: Resolved) -> bytes:
    """The labels as a table, for a label printer."""
    return write_csv(("wire", "label", "colour"), [(p.number, text, p.colour) for p, text in every_label(r)])
