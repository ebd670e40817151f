"""Field types that every record shares: millimetres, angles, identifiers and words, all finite and bounded."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from wingboard.core.quantity import LONGEST, SMALLEST


class Record(BaseModel):
    """A frozen model that refuses unknown fields and numbers that are not finite."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


Mm = Annotated[float, Field(ge=-LONGEST, le=LONGEST)]
"""A coordinate in millimetres."""
Size = Annotated[float, Field(ge=SMALLEST, le=LONGEST)]
"""A size in millimetres, at least what can be seen."""
Distance = Annotated[float, Field(ge=50, le=LONGEST)]
"""A distance in millimetres from a person, at least a hand's breadth."""
Length = Annotated[float, Field(ge=0, le=LONGEST)]
"""A size in millimetres that may be nothing."""
Edge = Annotated[float, Field(ge=0, le=200)]
"""How far (mm) a strip reaches inwards from an edge."""
Pitch = Annotated[float, Field(ge=20, le=LONGEST)]
"""From one screw to the next (mm): no nearer than a finger is wide."""
Angle = Annotated[float, Field(ge=-360, le=360)]
"""Degrees, counter-clockwise."""
Ident = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{0,47}$")]
"""A short, stable, readable name, unique in a design."""
MOST_WORDS = 120
"""Letters that one line of text may have."""
Words = Annotated[str, StringConstraints(max_length=MOST_WORDS, pattern=r"^[^\x00-\x1f\x7f]*$")]
"""One line of text without control characters."""
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$")]
"""A colour as ``#RRGGBB``."""

SourceKind = Literal["published", "memory", "practice", "computed", "measure"]


class Source(Record):
    """Where a value comes from.

    ``published``: a source by name; ``memory``: a published source whose text was not at hand; ``practice``: common
    practice; ``computed``: the note is the formula; ``measure``: a typical figure, measure yours.
    """

    kind: SourceKind
    note: Words = ""

    def said(self) -> str:
        """The source as a phrase for the interface."""
        lead = {
            "published": "",
            "memory": "from memory",
            "practice": "common practice",
            "computed": "computed",
            "measure": "measure yours",
        }[self.kind]
        return ", ".join(part for part in (self.note, lead) if part)


def place_of(loc: tuple[int | str, ...]) -> str:
    """A place in a document as people write it: ``("functions", 3, "place", "x")`` → ``functions[3].place.x``."""
    out = ""
    for step in loc:
        out += f"[{step}]" if isinstance(step, int) else (f".{step}" if out else step)
    return out
