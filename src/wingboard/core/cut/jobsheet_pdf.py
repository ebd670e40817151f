"""The job sheet as pages to print: a part for each sheet with its set-up, steps, times, boxes and cautions."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.cut.jobsheet import cautions_for, minutes, sheet_work, unsettled
from wingboard.core.files.pages import Pages
from wingboard.core.findings.finding import Finding
from wingboard.core.resolved.design import Resolved


def job_sheet_pdf(r: Resolved, findings: Sequence[Finding]) -> bytes:
    """The job sheet on A4; the same bytes for the same design."""
    pages = Pages(f"{r.design.name}: job sheet")
    words = pages.words
    left = unsettled(findings)
    overridden = [f for f in findings if f.overridden]
    if overridden:
        pages.add(words("Overridden by the builder, with reason", "head"))
    pages.add(*(words(f"{f.title}, {f.detail}: {f.accepted}") for f in overridden))
    pages.add(words("Not settled before cutting" if left else "Nothing is left to fix or to judge.", "head"))
    pages.add(*(words(str(line)) for line in left))
    for n, work in enumerate(sheet_work(r), 1):
        total = minutes(sum(step[2] for step in work.steps))
        pages.together(
            words(f"Sheet {n}: {work.title}, {total}", "head"),
            words(f"Files in {work.folder}/", "small"),
            *(words(line, "small") for line in work.lies),
            pages.space(4),
            pages.ticked([(done, (step, minutes(seconds))) for _, step, seconds, done in work.steps], (142, 20)),
            pages.space(3),
            *(words(c, "small") for c in cautions_for(work.kind)),
        )
    return pages.done()
