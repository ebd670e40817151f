"""What is written and drawn on the face: a function's legend, the style they share, and graphics of their own."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.record.base import MOST_WORDS, Angle, Ident, Length, Mm, Record, Words

FontName = Literal["barlow-semi-condensed", "barlow-condensed", "overpass", "single-stroke"]

Cap = Annotated[float, Field(gt=0, le=50)]
"""The height (mm) of a capital letter."""
Side = Literal["above", "below", "left", "right", "inside"]
"""Where a control's name stands."""
Marks = Literal["ticks", "dots", "none"]
"""What stands at the detents."""
Role = Literal["panel", "name", "position"]
"""Whose letter height a text takes: the panel's name, a control's, or a position's."""


class Legend(Record):
    """The words of a function on the face. A bar ``|`` in the text begins a new line."""

    text: Words = Field(description="The control's name; empty for none")
    side: Side = "above"
    cap: Cap | None = Field(None, description="Cap height, the style's when None")
    dx: Mm = 0.0
    dy: Mm = 0.0
    step: Annotated[float, Field(gt=0, le=180)] | None = Field(
        None, description="Degrees between the words as drawn, when they do not follow the part"
    )
    radius: Annotated[float, Field(gt=0, le=500)] | None = Field(
        None, description="From the control's middle to its marks and position words; just outside the part when None"
    )
    curved: bool = Field(False, description="The name runs round the control, over the position words")
    symbol: Ident | None = Field(None, description="A symbol instead of the name; on a lens it fills it")
    marks: Marks = Field("ticks", description="At the detents")
    hidden: bool = Field(False, description="Nothing is engraved: a dummy, or a secret one")


def written(name: str, upper: bool) -> str:
    """A function's name as its legend: in capitals where asked, unless they would be too many (“ß” makes two)."""
    capitals = name.upper()
    return capitals if upper and len(capitals) <= MOST_WORDS else name


class Style(Record):
    """How all words are set unless one says otherwise. Cap heights 5 : 4 : 3 (common practice)."""

    font: FontName = "barlow-semi-condensed"
    panel_cap: Cap = 5.0
    name_cap: Cap = 4.0
    position_cap: Cap = 3.0
    upper: bool = Field(True, description="Everything in capitals")


class GraphicFields(Record):
    """Something on the face that belongs to no single function.

    ``bracket``: a line over its functions with short ends, its title broken into it; ``box``: a frame with a title;
    ``text``: words alone; ``placard``: framed words that nothing may cover; ``symbol``: one of our symbols.
    """

    module: Ident
    kind: Literal["bracket", "box", "text", "placard", "symbol"]
    text: Words = ""
    symbol: Ident | None = None
    functions: tuple[Ident, ...] = Field((), max_length=200, description="What a bracket spans; its place follows them")
    x: Mm = Field(0.0, description="Left end or left edge; the middle of a text, placard or symbol")
    y: Mm = 0.0
    width: Length = 0.0
    height: Length = 0.0
    cap: Cap | None = None
    role: Role = "name"
    turn: Angle = 0.0


class Graphic(GraphicFields):
    """A graphic of the face, by its id."""

    id: Ident
