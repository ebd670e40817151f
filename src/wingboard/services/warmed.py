"""Loaded by the server of workers before it forks: everything that reading and judging a design needs, used once."""

from __future__ import annotations

from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.demo import demo_texts
from wingboard.services.steady import steady_memory

for _text in demo_texts().values():
    review(Resolved(read_design(_text, catalogue())))
steady_memory()
