"""Commands about what is drawn on the face beside the functions' own words, procedures and reference pictures."""

from __future__ import annotations

from typing import Literal

from wingboard.core.record.base import Ident, Record
from wingboard.core.record.legends import Cap, FontName, Graphic
from wingboard.core.record.pictures import Reference
from wingboard.core.record.procedures import Procedure


class SetStyle(Record):
    """Change how words are set; fields left out stay."""

    do: Literal["set_style"] = "set_style"
    font: FontName | None = None
    panel_cap: Cap | None = None
    name_cap: Cap | None = None
    position_cap: Cap | None = None
    upper: bool | None = None


class SetGraphic(Record):
    """Add a graphic, or replace the one with the same id."""

    do: Literal["set_graphic"] = "set_graphic"
    graphic: Graphic


class RemoveGraphic(Record):
    """Take a graphic off the face."""

    do: Literal["remove_graphic"] = "remove_graphic"
    graphic: Ident


class SetProcedure(Record):
    """Add a procedure, or replace the one with the same id."""

    do: Literal["set_procedure"] = "set_procedure"
    procedure: Procedure


class RemoveProcedure(Record):
    """Forget a procedure."""

    do: Literal["remove_procedure"] = "remove_procedure"
    procedure: Ident


class SetReference(Record):
    """Lay a picture under a module, or change how it lies."""

    do: Literal["set_reference"] = "set_reference"
    reference: Reference


class RemoveReference(Record):
    """Take a picture away; it stays kept."""

    do: Literal["remove_reference"] = "remove_reference"
    reference: Ident
