"""Loaded by the server of workers before it forks: everything that reading, judging and writing a design needs.

It is used once on the demo designs, so that a worker finds libraries, fonts and letters as they were left: the first
archive of a fresh process takes twice as long as the next.
"""

from __future__ import annotations

from wingboard.core.cut.export import cut_files
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.demo import demo_texts
from wingboard.services.steady import steady_memory

SMALL = "dust-extraction"
"""The demo whose files are written, too."""

for _name, _text in demo_texts().items():
    _resolved = Resolved(read_design(_text, catalogue()))
    _findings = review(_resolved)
    if _name == SMALL:
        for _file in cut_files(_resolved, _findings):
            pass
        wire_files(_resolved)
steady_memory()
