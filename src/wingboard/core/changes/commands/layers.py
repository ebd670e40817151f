"""Commands about the layers of the modules: the school that makes them, their sheets, exceptions in them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Colour, Ident, Length, Mm, Size, Words
from wingboard.core.record.modules import Closed, Join, LayerRole, Opacity, Paint, School
from wingboard.core.record.outlines import Outline
from wingboard.core.record.shapes import Shape
from wingboard.core.record.workshop import Material


class SetSchool(Saying):
    """Make the layers as a school does: of one module, or the panel's usual ones.

    What was changed by hand in a layer of the same role and material stays. A module without a school has the panel's
    layers again.
    """

    do: Literal["set_school"] = "set_school"
    module: Ident | None = None
    school: School | None = Field(description="None, for a module only: the layers of the panel")


class AddLayer(Saying):
    """A sheet more in the usual stack, or in a module's, which then has a stack of its own."""

    do: Literal["add_layer"] = "add_layer"
    module: Ident | None = None
    id: Ident | None = None
    name: Words | None = None
    role: LayerRole
    after: Ident | None = Field(None, description="The layer before it; none: last of its kind")
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    gap: Length | None = None


class RemoveLayer(Saying):
    """Take a sheet out of the usual stack, or out of a module's."""

    do: Literal["remove_layer"] = "remove_layer"
    module: Ident | None = None
    layer: Ident


class EditLayer(Saying):
    """Change a sheet of the usual stack, or of a module, which then has a stack of its own; fields left out stay."""

    do: Literal["edit_layer"] = "edit_layer"
    module: Ident | None = None
    layer: Ident
    name: Words | None = None
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    colour: Colour | None = None
    opacity: Opacity | None = None
    paint: tuple[Paint, ...] | None = Field(None, max_length=4)
    join: Join | None = None
    gap: Length | None = None
    edge: Closed | None = None
    inset: Mm | None = None
    outline: Outline | None = Field(None, description="Its own outline; said as none: that of the module again")
    x: Mm | None = None
    y: Mm | None = None


class AddFeature(Saying):
    """A named exception in a layer of a module: an opening more, or the openings of one function left out."""

    do: Literal["add_feature"] = "add_feature"
    module: Ident
    layer: Ident
    id: Ident | None = None
    reason: Words = Field(min_length=1)
    without: Ident | None = None
    shape: Shape | None = None
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Angle = 0.0
    depth: Size | None = None


class RemoveFeature(Saying):
    """Take an exception away."""

    do: Literal["remove_feature"] = "remove_feature"
    module: Ident
    layer: Ident
    feature: Ident
