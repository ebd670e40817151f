"""Commands of the wiring: boards and pins."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.wiring import LineName, OwnBoard, PinChoice, PinName, WireName


class AddController(Saying):
    """Add a board."""

    do: Literal["add_controller"] = "add_controller"
    id: Ident | None = None
    name: Words = ""
    board: Ident = Field(description="A kind that comes with the program, or a board of the design's own")
    reserved: Ident | None = Field(None, description="The function whose part plugs onto it")


class EditController(Saying):
    """Change a board's name, what was measured at its USB plug, or what plugs onto it; fields left out stay."""

    do: Literal["edit_controller"] = "edit_controller"
    controller: Ident
    name: Words | None = Field(None, min_length=1)
    measured: Annotated[float, Field(ge=0, le=100)] | None = None
    reserved: Ident | None = Field(None, description="None, where it is said: nothing plugs onto it any more")


class SetBoard(Saying):
    """Describe a board of one's own, or describe it anew (by its id)."""

    do: Literal["set_board"] = "set_board"
    board: OwnBoard


class RemoveBoard(Saying):
    """Forget a board of one's own, with the controllers that are one."""

    do: Literal["remove_board"] = "remove_board"
    board: Ident


class RemoveController(Saying):
    """Take a board away, with the pins given on it."""

    do: Literal["remove_controller"] = "remove_controller"
    controller: Ident


class PinLine(Saying):
    """Give a line a pin by hand, or say on which it was found."""

    do: Literal["pin"] = "pin"
    line: LineName
    controller: Ident
    pin: PinName
    found: bool = Field(False, description="Its wire is there already, and counts as soldered")


class UnpinLines(Saying):
    """Take the pins of these lines back."""

    do: Literal["unpin"] = "unpin"
    lines: Annotated[tuple[str, ...], Field(min_length=1, max_length=5000)]


class SetSoldered(Saying):
    """Say of wires, by their two ends, that they are soldered; or that they are not."""

    do: Literal["set_soldered"] = "set_soldered"
    wires: Annotated[tuple[WireName, ...], Field(min_length=1, max_length=2000)]
    soldered: bool = True


class SetPins(Saying):
    """Replace every pin the solver chose by these; pins set by hand stay."""

    do: Literal["set_pins"] = "set_pins"
    pins: Annotated[tuple[PinChoice, ...], Field(max_length=5000)]
