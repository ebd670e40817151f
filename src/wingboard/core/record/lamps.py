"""The colours that lamps can be had in: how their lenses look, and what one LED of that colour drops."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Literal, NamedTuple, get_args

from wingboard.core.record.functions import Function
from wingboard.core.record.part import Part, PartLine

LampColour = Literal["red", "amber", "yellow", "green", "blue", "white"]


class Lens(NamedTuple):
    """The look of a lens that is off, and the forward voltage (V) of one LED."""

    fill: str
    drop: float


LENSES: dict[LampColour, Lens] = {
    "red": Lens("#C4473E", 2.0),
    "amber": Lens("#C8902B", 2.1),
    "yellow": Lens("#D9BE3A", 2.1),
    "green": Lens("#4E9A68", 2.1),
    "blue": Lens("#4A78C2", 3.1),
    "white": Lens("#E8E6DC", 3.1),
}
"""Forward voltages are common practice; of green the older yellow-green one: with it no lamp gets more than wanted."""
COLOURS: tuple[LampColour, ...] = get_args(LampColour)
_NAMED = re.compile(rf"\b({'|'.join(COLOURS)})\b", re.I)


def takes_colours(part: Part) -> bool:
    """Whether a part can be had in any colour: it has lamps, all of one colour that is known."""
    return part.colour in COLOURS and any(line.does == "lamp" for line in part.lines)


@lru_cache(maxsize=4096)
def named_colour(*texts: str) -> LampColour | None:
    """The one lamp colour that texts name; None when they name none, or several."""
    found: set[LampColour] = {match.lower() for text in texts for match in _NAMED.findall(text)}
    return found.pop() if len(found) == 1 else None


def wanted_colour(function: Function) -> LampColour | None:
    """The colour that is wanted of a function's lamp: as chosen, else as its words name it."""
    return function.colour or named_colour(function.want, function.indicator)


def made_for(function: Function, part: Part) -> Part:
    """A part as it is had for a function: in the colour that is wanted, where it can be."""
    colour = wanted_colour(function)
    if colour is None or colour == part.colour or not takes_colours(part):
        return part
    known = _made.get((part.id, colour))
    if known is None or known[0] is not part:
        if len(_made) > MOST_MADE:
            _made.clear()
        known = _made[part.id, colour] = part, coloured(part, colour)
    return known[1]


MOST_MADE = 2000
_made: dict[tuple[str, LampColour], tuple[Part, Part]] = {}
"""What was coloured, by part and colour: the same part gives the same object, so that its findings can be kept."""


def coloured(part: Part, colour: LampColour) -> Part:
    """The part with its lamps in another colour: lenses, forward voltages, and what it is called."""
    if part.colour == colour or part.colour not in COLOURS:
        return part
    was, lens = LENSES[part.colour], LENSES[colour]
    front = tuple(f.model_copy(update={"fill": lens.fill}) if f.lamp else f for f in part.front)
    words = re.sub(rf"\b{part.colour}\b", colour, part.summary)
    lines = tuple(_dropping(line, was.drop, lens.drop) if line.does == "lamp" else line for line in part.lines)
    return part.model_copy(update={"front": front, "lines": lines, "colour": colour, "summary": words})


def _dropping(line: PartLine, was: float, now: float) -> PartLine:
    """A lamp's line with LEDs of another forward voltage; as many in series as it had."""
    many = max(1, round(line.drop / was))
    return line.model_copy(update={"drop": round(many * now, 2)})
