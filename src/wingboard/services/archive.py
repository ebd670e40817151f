"""Every file of a design in one archive, made by two workers side by side, with real progress."""

from __future__ import annotations

import io
import threading
import zipfile
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor

from wingboard.core.cut.export import Share, cut_files
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import review
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.services.jobs import Job
from wingboard.services.workers import Report, Stopped, follow

SECONDS = 120.0
MEGABYTES = 2048
LEVEL = 3
"""Of compression: half the time of the usual 6, for a tenth more bytes."""
SHARES: tuple[Share, ...] = ("sheets", "drawings")
File = tuple[str, bytes]
Findings = Sequence[Finding] | None


def archive_job(design: Design, findings: Findings, revision: int, job: Job) -> bytes:
    """The archive of a design at a revision, worked out apart. :raises Stopped, TooHeavy: instead."""
    return archive_of(design, findings, job.report, job.stopped, revision)


def archive_of(
    design: Design,
    findings: Findings = None,
    report: Report = lambda done, words: None,
    stopped: Callable[[], bool] = lambda: False,
    revision: int = 0,
) -> bytes:
    """A ZIP of every file for the machines and for soldering. The same design, the same bytes.

    :param findings: every finding of the design, where that is known already.
    :param revision: of the design, which its boards' programs say; 0 where it is not known.
    :raises Stopped: ``stopped()`` said so. :raises TooHeavy: a worker took too long, or too much memory.
    """
    given_up = threading.Event()
    got = dict.fromkeys(SHARES, 0.0)

    def made(share: Share) -> list[File]:
        def told(done: float, words: str) -> None:
            got[share] = done
            report(sum(got.values()) / len(got), words)

        try:
            return follow(
                files_of, design, share, findings, revision, seconds=SECONDS, megabytes=MEGABYTES, report=told,
                stopped=lambda: stopped() or given_up.is_set(),
            )  # fmt: skip
        except BaseException:
            given_up.set()  # the other need not go on
            raise

    with ThreadPoolExecutor(len(SHARES)) as pool:
        running = [pool.submit(made, share) for share in SHARES]
    failed = [error for one in running if (error := one.exception()) is not None]
    if failed:
        raise next((error for error in failed if not isinstance(error, Stopped)), failed[0])
    return zipped(file for one in running for file in one.result())


def files_of(
    design: Design, share: Share, findings: Findings = None, revision: int = 0,
    report: Report = lambda done, words: None,
) -> list[File]:  # fmt: skip
    """The files of one share by their paths in the archive; those for soldering go with the drawings: the programs of
    the sheets take as long as both together."""
    report(0.0, "Reviewing")
    r = Resolved(design)
    findings = review(r) if findings is None else findings
    report(0.1, "Drawing")
    made: list[File] = []
    for n, (many, name, content) in enumerate(cut_files(r, findings, (share,)), 1):
        made.append((name, content))
        report(min(1.0, 0.1 + 0.9 * n / many), name)
    return [*made, *(wire_files(r, revision).items() if share == "drawings" else ())]


def zipped(files: Iterable[File]) -> bytes:
    """Files by their paths in one ZIP: the same files, the same bytes."""
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:
        for name, content in files:
            # What is compressed already is not compressed twice.
            kind = zipfile.ZIP_STORED if name.endswith((".pdf", ".png", ".3mf")) else zipfile.ZIP_DEFLATED
            archive.writestr(zipfile.ZipInfo(name, (2000, 1, 1, 0, 0, 0)), content, kind, LEVEL)
    return stream.getvalue()
