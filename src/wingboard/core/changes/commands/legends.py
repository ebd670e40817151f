"""Commands about legends: a function's own, and how all are set."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Mm, Words
from wingboard.core.record.legends import Cap, FontName, Marks, Side


class EditLegend(Saying):
    """Change a function's legend; fields left out stay, or take their usual values when it had none.

    ``cap``, ``step``, ``radius`` and ``symbol`` may be set to none.
    """

    do: Literal["edit_legend"] = "edit_legend"
    function: Ident
    text: Words | None = None
    side: Side | None = None
    cap: Cap | None = None
    dx: Mm | None = None
    dy: Mm | None = None
    step: Annotated[float, Field(gt=0, le=180)] | None = None
    radius: Annotated[float, Field(gt=0, le=500)] | None = None
    curved: bool | None = None
    symbol: Ident | None = None
    marks: Marks | None = None
    hidden: bool | None = None


class RemoveLegend(Saying):
    """Take a function's legend off the face."""

    do: Literal["remove_legend"] = "remove_legend"
    function: Ident


class SetStyle(Saying):
    """Change how legends are set; fields left out stay."""

    do: Literal["set_style"] = "set_style"
    font: FontName | None = None
    panel_cap: Cap | None = None
    name_cap: Cap | None = None
    position_cap: Cap | None = None
    upper: bool | None = None
