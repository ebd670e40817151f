"""Commands about the wooden console round the opening."""

from __future__ import annotations

from typing import Literal

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Edge, Length, Pitch, Size


class SetFrame(Saying):
    """Give the opening a frame of battens, or change it; fields left out stay, or are as usual."""

    do: Literal["set_frame"] = "set_frame"
    wide: Size | None = None
    deep: Size | None = None
    ledge: Edge | None = None
    skin: Length | None = None
    screws: Pitch | None = None


class RemoveFrame(Saying):
    """Leave the opening without a frame."""

    do: Literal["remove_frame"] = "remove_frame"
