"""Commands about findings: living with one, and limits of the builder's own."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words


class AcceptFinding(Saying):
    """Live with a finding, and say why. What is to fix is overridden so, unless it can hurt someone."""

    do: Literal["accept"] = "accept"
    finding: Annotated[str, Field(max_length=200)]
    subjects: tuple[Ident, ...] = Field((), max_length=2000, description="Of a finding over many; the server says them")
    reason: Words = Field(min_length=1)
    measured: float | None = None


class RetractAcceptance(Saying):
    """Bring an accepted finding back."""

    do: Literal["retract"] = "retract"
    finding: Annotated[str, Field(max_length=200)]


class SetLimit(Saying):
    """Override a default limit, with a reason; no value brings the default back."""

    do: Literal["set_limit"] = "set_limit"
    limit: Annotated[str, Field(pattern=r"^[a-z]+(-[a-z0-9]+)*$", max_length=60)]
    value: Annotated[float, Field(ge=0, le=10_000)] | None
    reason: Words = ""
