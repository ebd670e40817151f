"""The limit in force for a design, and where it comes from."""

from __future__ import annotations

from wingboard.core.record.base import Source
from wingboard.core.record.design import Design
from wingboard.core.record.limits import LIMITS as LIMITS


def limit(design: Design, name: str) -> float:
    """The limit in force for a design. :raises KeyError: no such limit (a programming error)."""
    for choice in design.limits:
        if choice.limit == name:
            return choice.value
    return LIMITS[name].value


def source_of(design: Design, name: str) -> Source:
    """Where the limit in force comes from; an override names the builder's reason."""
    for choice in design.limits:
        if choice.limit == name:
            return Source(kind="measure", note=f"your limit: {choice.reason}"[:120])
    return LIMITS[name].source
