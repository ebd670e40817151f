"""What the builder decided about findings and limits."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from wingboard.core.record.base import Ident, Record, Words


class Acceptance(Record):
    """A finding the builder lives with, and why."""

    finding: Annotated[str, Field(max_length=200)]
    subjects: tuple[Ident, ...] = Field(
        (), max_length=2000, description="Of a finding over many functions: those that it was accepted for"
    )
    reason: Words = Field(min_length=1)
    measured: float | None = Field(None, description="What was measured when it was accepted")


class LimitChoice(Record):
    """A default limit overridden for this design."""

    limit: Annotated[str, Field(pattern=r"^[a-z]+(-[a-z0-9]+)*$", max_length=60)]
    value: Annotated[float, Field(ge=0, le=10_000)]
    reason: Words = Field(min_length=1)
