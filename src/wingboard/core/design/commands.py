"""The words in which a design is changed. Each is data; :mod:`wingboard.core.design.apply` carries it out."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, TypeAdapter

from wingboard.core.design.base import Angle, Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.design.model import (
    BoardKind,
    Fixings,
    KeepOut,
    Legend,
    Material,
    Outline,
    PinChoice,
)

Some = Annotated[tuple[Ident, ...], Field(min_length=1, max_length=2000)]


class Rename(Record):
    """Give the design another name."""

    do: Literal["rename"] = "rename"
    name: Words = Field(min_length=1)


class SetBrief(Record):
    """Change what is known of the opening; fields left out stay."""

    do: Literal["set_brief"] = "set_brief"
    title: Words | None = None
    kind: Literal["cab", "vehicle", "boat", "machine", "prop", "aircraft", "other"] | None = None
    opening: Outline | None = None
    gap: Length | None = None
    depth: Size | None = None


class SetKeepOut(Record):
    """Add a keep-out, or replace the one with the same id."""

    do: Literal["set_keepout"] = "set_keepout"
    keepout: KeepOut


class RemoveKeepOut(Record):
    """Take a keep-out away."""

    do: Literal["remove_keepout"] = "remove_keepout"
    keepout: Ident


class AddFunction(Record):
    """Add a thing the panel does. Without an id the next free ``f…`` is taken."""

    do: Literal["add_function"] = "add_function"
    id: Ident | None = None
    name: Words = Field(min_length=1)
    group: Words = ""
    want: Words = ""
    positions: tuple[Words, ...] = Field((), max_length=24)
    weight: Literal["normal", "guarded", "emergency"] = "normal"


class EditFunction(Record):
    """Change what a function is called or needs; fields left out stay."""

    do: Literal["edit_function"] = "edit_function"
    function: Ident
    name: Words | None = Field(None, min_length=1)
    group: Words | None = None
    want: Words | None = None
    positions: tuple[Words, ...] | None = Field(None, max_length=24)
    weight: Literal["normal", "guarded", "emergency"] | None = None
    stop_role: Literal["real", "theatrical", "power"] | None = None


class RemoveFunction(Record):
    """Take a function away, with its place, legend and pins."""

    do: Literal["remove_function"] = "remove_function"
    function: Ident


class ChoosePart(Record):
    """Give a function a part from the catalogue or from the design; none puts it back to open."""

    do: Literal["choose_part"] = "choose_part"
    function: Ident
    part: Ident | None


class PlacePart(Record):
    """Put a function's part on a panel; the first time, its name becomes its legend."""

    do: Literal["place"] = "place"
    function: Ident
    panel: Ident
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


class AddPanel(Record):
    """Add a module."""

    do: Literal["add_panel"] = "add_panel"
    id: Ident | None = None
    name: Words = Field(min_length=1)
    outline: Outline
    x: Mm = 0.0
    y: Mm = 0.0


class SetPanel(Record):
    """Change a module; fields left out stay."""

    do: Literal["set_panel"] = "set_panel"
    panel: Ident
    name: Words | None = Field(None, min_length=1)
    outline: Outline | None = None
    x: Mm | None = None
    y: Mm | None = None
    fixings: Fixings | None = None


class SetPanelSize(Record):
    """Make a module's plate this wide and high. A free outline is stretched."""

    do: Literal["set_panel_size"] = "set_panel_size"
    panel: Ident
    width: Size
    height: Size


class RemovePanel(Record):
    """Take a module away; its parts return to the tray."""

    do: Literal["remove_panel"] = "remove_panel"
    panel: Ident


class SetLayer(Record):
    """Change a sheet of the stack; fields left out stay."""

    do: Literal["set_layer"] = "set_layer"
    layer: Ident
    name: Words | None = None
    material: Material | None = None
    thickness: Annotated[float, Field(gt=0, le=50)] | None = None
    colour: Colour | None = None


class AddController(Record):
    """Add a board."""

    do: Literal["add_controller"] = "add_controller"
    id: Ident | None = None
    name: Words = ""
    board: BoardKind


class RemoveController(Record):
    """Take a board away, with the pins given on it."""

    do: Literal["remove_controller"] = "remove_controller"
    controller: Ident


class PinSignal(Record):
    """Give a signal a pin by hand."""

    do: Literal["pin"] = "pin"
    signal: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,47}\.[a-z][a-z0-9-]{0,47}$")]
    controller: Ident
    pin: Annotated[str, Field(pattern=r"^[A-Z]?[0-9]{1,2}$")]


class UnpinSignals(Record):
    """Take the pins of these signals back."""

    do: Literal["unpin"] = "unpin"
    signals: Annotated[tuple[str, ...], Field(min_length=1, max_length=5000)]


class SetPins(Record):
    """Replace every pin the solver chose by these; pins set by hand stay."""

    do: Literal["set_pins"] = "set_pins"
    pins: Annotated[tuple[PinChoice, ...], Field(max_length=5000)]


class AcceptFinding(Record):
    """Live with a finding of weight “look”, and say why."""

    do: Literal["accept"] = "accept"
    finding: Annotated[str, Field(max_length=200)]
    reason: Words = Field(min_length=1)
    measured: float | None = None


class RetractAcceptance(Record):
    """Bring an accepted finding back."""

    do: Literal["retract"] = "retract"
    finding: Annotated[str, Field(max_length=200)]


class SetLimit(Record):
    """Override a default limit, with a reason; no value brings the default back."""

    do: Literal["set_limit"] = "set_limit"
    limit: Annotated[str, Field(pattern=r"^[a-z]+(-[a-z0-9]+)*$", max_length=60)]
    value: Annotated[float, Field(ge=0, le=10_000)] | None
    reason: Words = ""


Command = Annotated[
    Rename | SetBrief | SetKeepOut | RemoveKeepOut
    | AddFunction | EditFunction | RemoveFunction
    | ChoosePart | PlacePart | MoveItems | TurnItems | RemoveItems | SetLegend | SetPocket
    | AddPanel | SetPanel | SetPanelSize | RemovePanel | SetLayer
    | AddController | RemoveController | PinSignal | UnpinSignals | SetPins
    | AcceptFinding | RetractAcceptance | SetLimit,
    Field(discriminator="do"),
]  # fmt: skip

COMMANDS: TypeAdapter[Command] = TypeAdapter(Command)
BATCH: TypeAdapter[tuple[Command, ...]] = TypeAdapter(
    Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]
)
