"""The job sheet as pages to print: a part for each sheet with its set-up, steps, times, boxes and cautions."""

from __future__ import annotations

import io
from collections.abc import Sequence
from html import escape

from wingboard.core.cut.jobsheet import cautions_for, minutes, sheet_work, unsettled
from wingboard.core.findings.finding import Finding
from wingboard.core.resolved.design import Resolved


def job_sheet_pdf(r: Resolved, findings: Sequence[Finding]) -> bytes:
    """The job sheet on A4; the same bytes for the same design."""
    from reportlab.lib.pagesizes import A4  # takes a while to load, and is not needed at the start
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.lib.units import mm
    from reportlab.platypus import KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

    body = ParagraphStyle("body", fontName="Helvetica", fontSize=9, leading=12)
    small = ParagraphStyle("small", parent=body, fontSize=8, leading=10, textColor="#4A5A63")
    head = ParagraphStyle("head", parent=body, fontName="Helvetica-Bold", fontSize=11, leading=15, spaceBefore=8)
    title = ParagraphStyle("title", parent=head, fontSize=15, leading=20)
    rules = [("LINEBELOW", (0, 0), (-1, -1), 0.3, "#999999"), ("VALIGN", (0, 0), (-1, -1), "TOP")]
    lines = TableStyle([*rules, ("LEFTPADDING", (0, 0), (0, -1), 0), ("LEFTPADDING", (1, 0), (1, -1), 8)])

    def words(text: str, style: ParagraphStyle = body) -> Paragraph:
        return Paragraph(escape(_plain(text)), style)

    story: list[object] = [words(f"{r.design.name}: job sheet", title)]
    left = unsettled(findings)
    overridden = [f for f in findings if f.overridden]
    story += [words("Overridden by the builder, with reason", head)] if overridden else []
    story += [words(f"{f.title}, {f.detail}: {f.accepted}") for f in overridden]
    story.append(words("Not settled before cutting" if left else "Nothing is left to fix or to judge.", head))
    story += [words(str(line)) for line in left]
    for n, work in enumerate(sheet_work(r), 1):
        total = minutes(sum(step[2] for step in work.steps))
        rows = [
            [words("x" if done else ""), words(step), words(minutes(seconds))] for _, step, seconds, done in work.steps
        ]
        table = Table(rows, colWidths=[8 * mm, 142 * mm, 20 * mm], style=lines) if rows else Spacer(1, 1)
        if rows:
            boxes = [("BOX", (0, k), (0, k), 0.6, "#1E262B") for k in range(len(rows))]
            table.setStyle(TableStyle(boxes))
        story.append(
            KeepTogether(
                [
                    words(f"Sheet {n}: {work.title}, {total}", head),
                    words(f"Files in {work.folder}/", small),
                    *(words(line, small) for line in work.lies),
                    Spacer(1, 4),
                    table,
                    Spacer(1, 3),
                    *(words(c, small) for c in cautions_for(work.kind)),
                ]
            )
        )
    stream = io.BytesIO()
    document = SimpleDocTemplate(
        stream, pagesize=A4, leftMargin=20 * mm, rightMargin=20 * mm, topMargin=16 * mm, bottomMargin=16 * mm,
        title=_plain(f"{r.design.name}: job sheet"), invariant=1,
    )  # fmt: skip
    document.build(story)
    return stream.getvalue()


def _plain(text: str) -> str:
    """Words in the characters that the standard fonts of PDF have (PDF Reference, WinAnsi)."""
    swapped = text.replace("−", "-").replace("⌀", "dia ").replace("≥", "at least ").replace("Ω", " ohm")
    return swapped.encode("cp1252", "replace").decode("cp1252")
