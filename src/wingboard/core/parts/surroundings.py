"""What sun, rain, heat and darkness do to parts: one answer for those that are chosen and those that could be."""

from __future__ import annotations

from typing import Literal

from wingboard.core.record.part import Family, Part
from wingboard.core.record.space import Environment

Surrounding = Literal["wet", "sun", "heat", "dark"]
_NO_WAY_IN: frozenset[Family] = frozenset({"placard", "blank", "fixing"})
_SHINES: frozenset[Family] = frozenset({"lamp", "caption", "readout", "display"})
_CRYSTAL: frozenset[Family] = frozenset({"display"})


def suffers_from(part: Part) -> dict[Surrounding, str]:
    """What a part does not stand, each with the reason in words.

    Splashes want IP54 (IEC 60529, from memory: 5 dust, 4 splashing water); what is seen through a window is as tight as
    its pane. That lamps and digits wash out in the sun, and that one which cannot be dimmed dazzles in the dark, is
    common practice. Liquid crystals go dark from about 60 °C (data sheets of display modules, from memory).
    """
    found: dict[Surrounding, str] = {}
    paned = part.mount == "window" and part.hand is None
    if not paned and part.family not in _NO_WAY_IN and part.sealing in ("", "IP40"):
        found["wet"] = f"{part.sealing or 'not sealed'}, and the panel gets wet"
    if part.family in _SHINES:
        found["sun"] = "washes out in the sun without a hood"
    if part.family in _CRYSTAL:
        found["heat"] = "goes dark when it gets hot"
    if any(line.does == "lamp" and not line.dims for line in part.lines):
        found["dark"] = "cannot be dimmed, and the room is dark"
    return found


def unsuited(part: Part, environment: Environment) -> dict[Surrounding, str]:
    """What a part does not stand of what this panel has to."""
    return {what: why for what, why in suffers_from(part).items() if getattr(environment, what)}
