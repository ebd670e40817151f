"""Commands of the face: places, words, modules and layers."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.functions import Some
from wingboard.core.record.base import Angle, Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.record.legends import Legend
from wingboard.core.record.modules import Fixings
from wingboard.core.record.outlines import Outline
from wingboard.core.record.workshop import Material


class PlacePart(Record):
    """Put a function's part on a module; the first time, its name becomes its legend."""

    do: Literal["place"] = "place"
    function: Ident
    module: Ident
    x: Mm
    y: Mm
    turn: Angle = 0.0


class MoveItems(Record):
    """Shift placed parts together."""

    do: Literal["move"] = "move"
    functions: Some
    dx: Mm = 0.0
    dy: Mm = 0.0


class TurnItems(Record):
    """Turn placed parts, each about its own centre, counter-clockwise."""

    do: Literal["turn"] = "turn"
    functions: Some
    by: Angle


class RemoveItems(Record):
    """Put placed parts back into the tray."""

    do: Literal["remove"] = "remove"
    functions: Some


class SetLegend(Record):
    """Set a function's words on the face, or take them off."""

    do: Literal["set_legend"] = "set_legend"
    function: Ident
    legend: Legend | None


class SetPocket(Record):
    """Seat a part in a pocket cut from behind, so that its thread reaches; 0 for none."""

    do: Literal["set_pocket"] = "set_pocket"
    function: Ident
    depth: Length


class AddModule(Record):
    """Add a module."""

    do: Literal["add_module"] = "add_module"
    id: Ident | None = None
    name: Words = Field(min_length=1)
    outline: Outline
    x: Mm = 0.0
    y: Mm = 0.0


class SetModule(Record):
    """Change a module; fields left out stay."""

    do: Literal["set_module"] = "set_module"
    module: Ident
    name: Words | None = Field(None, min_length=1)
    outline: Outline | None = None
    x: Mm | None = None
    y: Mm | None = None
    fixings: Fixings | None = None
    tolerance: Length | None = None


class SetModuleSize(Record):
    """Make a module's plate this wide and high. A free outline is stretched."""

    do: Literal["set_module_size"] = "set_module_size"
    module: Ident
    width: Size
    height: Size


class RemoveModule(Record):
    """Take a module away; its parts return to the tray."""

    do: Literal["remove_module"] = "remove_module"
    module: Ident


class SetLayer(Record):
    """Change a sheet of the stack; fields left out stay."""

    do: Literal["set_layer"] = "set_layer"
    layer: Ident
    name: Words | None = None
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    colour: Colour | None = None
