"""Calliper readings of a part's dimension, repeated, and the fit wanted."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Record, Size

Measured = Literal["bush", "nut", "key_radius", "key_width", "body", "body_height", "depth", "thread", "cover"]
Fit = Literal["snug", "free", "painted"]


class Reading(Record):
    """Up to three readings (mm) of one dimension of a part."""

    of: Measured
    values: Annotated[tuple[Size, ...], Field(min_length=1, max_length=3)]
    fit: Fit = Field("free", description="Room for a hole: snug 0.1 mm, free 0.2, painted 0.2 and 0.1 each coat side")

    @property
    def largest(self) -> float:
        """The reading that counts."""
        return max(self.values)

    @property
    def spread(self) -> float:
        """How far the readings lie apart."""
        return max(self.values) - min(self.values)
