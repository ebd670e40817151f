"""Commands that put several placed parts in order at once."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.functions import Many, Some
from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Angle, Ident, Length, Mm

How = Literal[
    "row", "column", "grid", "arc", "ring",
    "align-x", "align-y", "align-left", "align-right", "align-top", "align-bottom",
    "distribute-x", "distribute-y", "pitch-x", "pitch-y", "mirror",
]  # fmt: skip


class Arrange(Saying):
    """Put placed parts in order; the first named leads and stays, unless said otherwise.

    ``row``, ``column``: between the first and the last where they stand, with the gaps that their kinds need and an
    equal share of what is left; with a ``pitch``, or in the ``given`` order, one after the other from the leader.
    ``grid``: rows of ``columns``. ``arc``: on ``radius``
    from angle ``start`` to ``end``; ``ring``: all round. ``align-…``: centres, or covered edges, on the leader's.
    ``distribute-…``: equal gaps between the outermost; ``pitch-…``: equal centre distances between them. ``mirror``:
    left for right about their middle.
    """

    do: Literal["arrange"] = "arrange"
    functions: Some
    how: How
    order: Literal["place", "given"] = Field("place", description="Of a row or column: as they stand, or as named")
    pitch: Length = Field(0.0, description="0 for the largest that is there, or what fingers need")
    pitch_y: Length = 0.0
    columns: Annotated[int, Field(ge=1, le=200)] = 4
    radius: Length = 40.0
    start: Angle = 150.0
    end: Angle = 30.0


class SwapGroups(Saying):
    """Let two sets of parts change places, each keeping its own order."""

    do: Literal["swap_groups"] = "swap_groups"
    first: Some
    second: Some


class PairMirrored(Saying):
    """Place the second as the first's mirror image, about the module's middle, and keep them a pair."""

    do: Literal["pair"] = "pair"
    first: Ident
    second: Ident


class UnpairItems(Saying):
    """No longer a mirrored pair."""

    do: Literal["unpair"] = "unpair"
    functions: Some


class LockItems(Saying):
    """Lock parts where they are, or free them."""

    do: Literal["lock"] = "lock"
    functions: Some
    locked: bool = True


class CopyItems(Saying):
    """Copy placed parts, each as a new function with the same part, words and wishes; and graphics."""

    do: Literal["copy_items"] = "copy_items"
    functions: Many = ()
    graphics: Many = ()
    dx: Mm = 0.0
    dy: Mm = 0.0
