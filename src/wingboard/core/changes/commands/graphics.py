"""Commands about what is drawn on the face and belongs to no single function."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Ident, Length, Mm, Words
from wingboard.core.record.legends import Cap, GraphicFields, Role


class AddGraphic(GraphicFields, Saying):
    """Add a graphic. Without an id the next free one is taken.

    A box without a size goes round the functions it names, a bracket without a width or functions gets a usual one.
    """

    do: Literal["add_graphic"] = "add_graphic"
    id: Ident | None = None


class EditGraphic(Saying):
    """Change a graphic; fields left out stay; ``symbol`` and ``cap`` may be set to none."""

    do: Literal["edit_graphic"] = "edit_graphic"
    graphic: Ident
    module: Ident | None = None
    text: Words | None = None
    symbol: Ident | None = None
    functions: tuple[Ident, ...] | None = Field(None, max_length=200)
    x: Mm | None = None
    y: Mm | None = None
    width: Length | None = None
    height: Length | None = None
    cap: Cap | None = None
    role: Role | None = None
    turn: Angle | None = None


class RemoveGraphic(Saying):
    """Take a graphic off the face."""

    do: Literal["remove_graphic"] = "remove_graphic"
    graphic: Ident
