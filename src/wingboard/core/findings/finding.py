"""A finding: where, what was measured, what is needed, why, and the fix that one click applies."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from wingboard.core.changes.command import Command
from wingboard.core.record.base import Record, Source

Severity = Literal["must", "judge", "note"]
SEVERITY_WORDS: dict[Severity, str] = {"must": "to fix", "judge": "to judge", "note": "note"}
"""What each severity is called on the screen, on paper and from the shell."""
Station = Literal["brief", "parts", "face", "cut", "wire"]


class Spot(Record):
    """Where on a module, in its coordinates (mm)."""

    module: str
    x: float
    y: float


class Measure(Record):
    """A measured or needed figure with its unit."""

    value: float
    unit: str = "mm"


class Fix(Record):
    """Commands that settle a finding, and what they do in a few words."""

    label: str
    commands: tuple[Command, ...] = Field(min_length=1)


class Finding(Record):
    """A check that failed. ``id`` stays the same as long as the same things fail the same check."""

    id: str
    code: str
    station: Station
    severity: Severity
    title: str
    detail: str
    subjects: tuple[str, ...] = ()
    spot: Spot | None = None
    measured: Measure | None = None
    needed: Measure | None = None
    bound: Literal["least", "most"] = Field("least", description="needed is the least, or the most, allowed")
    source: Source
    fix: Fix | None = None
    accepted: str | None = Field(None, description="Why the builder lives with it")

    @property
    def unsettled(self) -> bool:
        """Whether it still counts against cutting."""
        return self.accepted is None
