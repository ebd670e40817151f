"""Commands about the modules of a panel and their screws."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Length, Mm, Size, Words
from wingboard.core.record.modules import Head, Screw
from wingboard.core.record.outlines import Outline


class AddModule(Saying):
    """Add a module. Without an id the next free one is taken."""

    do: Literal["add_module"] = "add_module"
    id: Ident | None = None
    name: Words = Field(min_length=1)
    outline: Outline
    x: Mm = 0.0
    y: Mm = 0.0


class EditModule(Saying):
    """Change a module; fields left out stay."""

    do: Literal["edit_module"] = "edit_module"
    module: Ident
    name: Words | None = Field(None, min_length=1)
    outline: Outline | None = None
    x: Mm | None = None
    y: Mm | None = None
    tolerance: Length | None = None
    returns: Literal["bus", "star"] | None = None
    feeds: Literal["bus", "star"] | None = None


class ResizeModule(Saying):
    """Make a module's plate this wide and high; a field left out stays. A free outline is stretched."""

    do: Literal["resize_module"] = "resize_module"
    module: Ident
    width: Size | None = None
    height: Size | None = None


class SplitModule(Saying):
    """Cut a module into pieces side by side; what is on it goes with the piece under it."""

    do: Literal["split_module"] = "split_module"
    module: Ident
    pieces: Annotated[int, Field(ge=2, le=8)] = 2
    at: Annotated[tuple[Mm, ...], Field(min_length=1, max_length=7)] | None = Field(
        None,
        description="Middles of the seams from the module's left edge; when none are said pieces are of equal width",
    )
    seam: Length = Field(0.4, description="Between two neighbours")


class SetFixings(Saying):
    """Change a module's screws; fields left out stay, or take their usual values when it had none."""

    do: Literal["set_fixings"] = "set_fixings"
    module: Ident
    screw: Screw | None = None
    head: Head | None = None
    inset: Size | None = None
    corners: bool | None = None
    pins: Annotated[float, Field(ge=0, le=12)] | None = None


class AddScrew(Saying):
    """A further screw, by hand: at a place of the module, in its middle when none is said."""

    do: Literal["add_screw"] = "add_screw"
    module: Ident
    id: Ident | None = None
    x: Mm | None = None
    y: Mm | None = None


class EditScrew(Saying):
    """Move a screw that was placed by hand."""

    do: Literal["edit_screw"] = "edit_screw"
    module: Ident
    screw: Ident
    x: Mm | None = None
    y: Mm | None = None


class RemoveScrew(Saying):
    """Take a screw away that was placed by hand."""

    do: Literal["remove_screw"] = "remove_screw"
    module: Ident
    screw: Ident


class RemoveFixings(Saying):
    """Leave a module without screws."""

    do: Literal["remove_fixings"] = "remove_fixings"
    module: Ident


class RemoveModule(Saying):
    """Take a module away; its parts return to the tray."""

    do: Literal["remove_module"] = "remove_module"
    module: Ident
