"""Commands about reference pictures under a module."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Mm
from wingboard.core.record.pictures import Known, KnownLength, PicturePoint, ReferenceFields


class AddReference(ReferenceFields, Saying):
    """Lay a picture under a module. Without an id the next free one is taken."""

    do: Literal["add_reference"] = "add_reference"
    id: Ident | None = None


class EditReference(Saying):
    """Change how a picture lies; fields left out stay; ``scale`` and ``check`` may be set to none."""

    do: Literal["edit_reference"] = "edit_reference"
    reference: Ident
    module: Ident | None = None
    mirrored: bool | None = None
    hidden: bool | None = None
    opacity: Annotated[float, Field(ge=0, le=1)] | None = None
    x: Mm | None = None
    y: Mm | None = None
    scale: KnownLength | None = None
    points: tuple[Known, ...] | None = Field(None, max_length=40)
    check: KnownLength | None = None


class RemoveReference(Saying):
    """Take a picture away; it stays kept."""

    do: Literal["remove_reference"] = "remove_reference"
    reference: Ident


class TraceCircle(Saying):
    """Trace a circle on a picture, and say whose hole it shows."""

    do: Literal["trace_circle"] = "trace_circle"
    reference: Ident
    points: tuple[PicturePoint, ...] = Field(min_length=3, max_length=40)
    function: Ident | None = None
    id: Ident | None = None


class AssignCircle(Saying):
    """Say which function's hole a traced circle shows; none for nobody's."""

    do: Literal["assign_circle"] = "assign_circle"
    reference: Ident
    circle: Ident
    function: Ident | None


class RemoveCircle(Saying):
    """Take a traced circle away."""

    do: Literal["remove_circle"] = "remove_circle"
    reference: Ident
    circle: Ident
