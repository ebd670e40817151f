"""Pages of words and tables to print and to tick, A4 through reportlab; the same bytes for the same words."""

from __future__ import annotations

import io
from collections.abc import Sequence
from html import escape
from typing import Any


class Pages:
    """A document in the making: headings, lines, and tables whose first column is a box to tick."""

    def __init__(self, title: str) -> None:
        from reportlab.lib.styles import ParagraphStyle  # takes a while to load, and is not needed at the start

        body = ParagraphStyle("body", fontName="Helvetica", fontSize=9, leading=12)
        head = ParagraphStyle("head", parent=body, fontName="Helvetica-Bold", fontSize=11, leading=15, spaceBefore=8)
        self._styles = {
            "body": body,
            "small": ParagraphStyle("small", parent=body, fontSize=8, leading=10, textColor="#4A5A63"),
            "head": head,
            "title": ParagraphStyle("title", parent=head, fontSize=15, leading=20),
        }
        self._title = title
        self._story: list[Any] = [self.words(title, "title")]

    def words(self, text: str, style: str = "body") -> Any:
        """A paragraph, in the style ``body``, ``small``, ``head`` or ``title``."""
        from reportlab.platypus import Paragraph

        return Paragraph(escape(plain(text)), self._styles[style])

    def add(self, *pieces: Any) -> None:
        """Put pieces below what is there."""
        self._story += pieces

    def together(self, *pieces: Any) -> None:
        """Put pieces below what is there, on one page where that holds them."""
        from reportlab.platypus import KeepTogether

        self._story.append(KeepTogether(list(pieces)))

    def space(self, height: float) -> Any:
        """Room so high (points)."""
        from reportlab.platypus import Spacer

        return Spacer(1, height)

    def ticked(self, rows: Sequence[tuple[bool, Sequence[str]]], widths: Sequence[float]) -> Any:
        """A table to tick: for each row whether it is, and its cells; ``widths`` of these (mm), 162 together."""
        from reportlab.lib.units import mm
        from reportlab.platypus import Table, TableStyle

        if not rows:
            return self.space(1)
        sizes = [w * mm for w in (8, *widths)]
        cells = [
            [self._cell(text, wide) for text, wide in zip(("x" if done else "", *row), sizes, strict=True)]
            for done, row in rows
        ]
        rules = [
            ("FONT", (0, 0), (-1, -1), "Helvetica", 9, 12),
            ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#999999"), ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("LEFTPADDING", (0, 0), (0, -1), 0), ("LEFTPADDING", (1, 0), (1, -1), 8),
            *(("BOX", (0, k), (0, k), 0.6, "#1E262B") for k in range(len(rows))),
        ]  # fmt: skip
        return Table(cells, colWidths=sizes, style=TableStyle(rules))

    def _cell(self, text: str, wide: float) -> str:
        """The words in lines that fit (points): a paragraph, which does the same, takes ten times as long."""
        from reportlab.lib.utils import simpleSplit
        from reportlab.pdfbase.pdfmetrics import stringWidth

        words, room = plain(text), wide - 14
        if stringWidth(words, "Helvetica", 9) < room:
            return words
        return "\n".join(simpleSplit(words, "Helvetica", 9, room))

    def done(self) -> bytes:
        """The PDF; kept as bytes, as other papers are, whichever was made first."""
        from reportlab import rl_config
        from reportlab.lib.pagesizes import A4
        from reportlab.lib.units import mm
        from reportlab.platypus import SimpleDocTemplate

        rl_config.useA85 = 0
        stream = io.BytesIO()
        SimpleDocTemplate(
            stream, pagesize=A4, leftMargin=20 * mm, rightMargin=20 * mm, topMargin=16 * mm, bottomMargin=16 * mm,
            title=plain(self._title), invariant=1,
        ).build(self._story)  # fmt: skip
        return stream.getvalue()


def plain(text: str) -> str:
    """Words in the characters that the standard fonts of PDF have (PDF Reference, WinAnsi)."""
    swapped = text.replace("−", "-").replace("⌀", "dia ").replace("≥", "at least ").replace("Ω", " ohm")
    return swapped.encode("cp1252", "replace").decode("cp1252")
