"""What outputs do while nobody tells them: from power-up on, and when the link to their board is lost."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import Ident, Record

Lost = Literal["hold", "off", "on", "blink"]
"""What a lamp does while nobody speaks to its board: as it was, dark, bright, or it blinks to say so. A load is off."""
Bright = Annotated[int, Field(ge=0, le=255)]


class Declared(Record):
    """One lamp of several of a part, by its line, where it does something else than the others."""

    line: Ident
    boot: Bright = 0
    lost: Lost = "hold"
