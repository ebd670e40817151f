"""The colours that the builder's own software tells operations by."""

from __future__ import annotations

from wingboard.core.files.svg import STROKE, Colours
from wingboard.core.record.design import Design


def colours_of(design: Design) -> Colours:
    """The colour of each operation's lines: the builder's, or the usual one."""
    said = design.cutting.colours
    return {operation: getattr(said, operation) or usual for operation, usual in STROKE.items()}
