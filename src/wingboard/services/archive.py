"""Every file of a design in one archive, made in a worker with real progress."""

from __future__ import annotations

import io
import zipfile

from wingboard.core.cut.export import cut_files
from wingboard.core.overview.review import review
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.services.jobs import Job
from wingboard.services.workers import Report, follow

SECONDS = 120.0
MEGABYTES = 2048
LEVEL = 3
"""Of compression: half the time of the usual 6, for a tenth more bytes."""


def archive_job(design: Design, job: Job) -> bytes:
    """The archive, worked out apart. :raises Stopped, TooHeavy: instead."""
    return follow(archive_of, design, seconds=SECONDS, megabytes=MEGABYTES, report=job.report, stopped=job.stopped)


def archive_of(design: Design, report: Report = lambda done, words: None) -> bytes:
    """A ZIP of every file for the machines and for soldering. The same design, the same bytes."""
    report(0.0, "Reviewing")
    r = Resolved(design)
    findings = review(r)
    report(0.1, "Drawing")
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:

        def add(name: str, content: bytes) -> None:
            # What is compressed already is not compressed twice.
            kind = zipfile.ZIP_STORED if name.endswith(".pdf") else zipfile.ZIP_DEFLATED
            archive.writestr(zipfile.ZipInfo(name, (2000, 1, 1, 0, 0, 0)), content, kind, LEVEL)

        for n, (many, name, content) in enumerate(cut_files(r, findings), 1):
            add(name, content)
            report(0.1 + 0.9 * n / many, name)
        for name, content in wire_files(r).items():
            add(name, content)
    return stream.getvalue()
