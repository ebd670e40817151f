"""Commands about where parts stand on the face."""

from __future__ import annotations

from typing import Literal

from wingboard.core.changes.commands.functions import Many, Some
from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Ident, Length, Mm


class PlacePart(Saying):
    """Put a function's part on a module; the first time, its name becomes its legend."""

    do: Literal["place"] = "place"
    function: Ident
    module: Ident
    x: Mm
    y: Mm
    turn: Angle = 0.0


class MoveItems(Saying):
    """Shift placed parts and graphics together; what follows its functions only goes up and down."""

    do: Literal["move"] = "move"
    functions: Many = ()
    graphics: Many = ()
    dx: Mm = 0.0
    dy: Mm = 0.0


class TurnItems(Saying):
    """Turn placed parts, each about its own centre, counter-clockwise."""

    do: Literal["turn"] = "turn"
    functions: Some
    by: Angle


class RemoveItems(Saying):
    """Put placed parts back into the tray."""

    do: Literal["remove"] = "remove"
    functions: Some


class SetPocket(Saying):
    """Seat a part in a pocket cut from behind, so that its thread reaches; 0 for none."""

    do: Literal["set_pocket"] = "set_pocket"
    function: Ident
    depth: Length
