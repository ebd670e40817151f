"""What was seen when a lamp was lit before the rest of its kind was bought."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Ident, Record, Words

Verdict = Literal["right", "dim", "bright", "colour"]
"""As wanted; too dim; too bright; of another colour than wanted."""


class LampTrial(Record):
    """One lamp of a part, lit at so many volts and milliamperes in the light that it is for, and how it looked."""

    id: Ident
    part: Ident
    volts: Annotated[float, Field(gt=0, le=400)]
    milliamps: Annotated[float, Field(gt=0, le=20_000)]
    verdict: Verdict
    note: Words = ""


MOST_TRIALS = 200
