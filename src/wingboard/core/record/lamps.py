"""The colours that lamps can be had in: how their lenses look, and what one LED of that colour drops."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Literal, NamedTuple, get_args

from wingboard.core.record.functions import AC_UNLESS_SAID, Function, Switched
from wingboard.core.record.part import Part, PartLine

LampColour = Literal["red", "amber", "yellow", "green", "blue", "white"]


def lights(function: Function, part: Part) -> bool:
    """Whether the volts and amperes that are said of a function are those of its lamp: it has one, and no contact that
    they could be the load of."""
    does = {line.does for line in part.lines}
    return function.switches.amps <= 0 or ("lamp" in does and "switch" not in does and not part.contacts)


def lamp_volts(function: Function, part: Part) -> float:
    """The supply (V) that the brief gives a function's lamp; 0 where it gives none, and where it speaks of a load."""
    return function.switches.volts if lights(function, part) else 0.0


def lamp_supply(function: Function, part: Part, line: PartLine) -> Switched:
    """What feeds a lamp: as the brief says where it speaks of the lamp, else the volts that the lamp is made for."""
    said = function.switches if lights(function, part) else Switched()
    return said.model_copy(update={"volts": said.volts or line.volts})


def apart_from_logic(supply: Switched) -> bool:
    """Whether what feeds a lamp or a load must never meet a controller: 50 V or more, or alternating."""
    return supply.alternating or supply.volts >= AC_UNLESS_SAID


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
    """A part as it is had for a function: in the colour that is wanted, with an LED for its bulb, where it can be."""
    colour = wanted_colour(function)
    if colour == part.colour or not takes_colours(part):
        colour = None
    led = function.led and any(line.bulb for line in part.lines)
    if colour is None and not led:
        return part
    known = _made.get((part.id, colour, led))
    if known is None or known[0] is not part:
        if len(_made) > MOST_MADE:
            _made.clear()
        made = coloured(part, colour) if colour else part
        known = _made[part.id, colour, led] = part, with_leds(made) if led else made
    return known[1]


MOST_MADE = 2000
_made: dict[tuple[str, LampColour | None, bool], tuple[Part, Part]] = {}
"""What was made, by part, colour and LED: the same part gives the same object, so that its findings can be kept."""
LED_CURRENT = 0.010
"""What an LED takes in a bulb's place (A, common practice)."""


LampKind = Literal["led", "own", "bulb"]
"""An LED that wants a resistor, one that has its own, a filament bulb."""


def with_leds(part: Part) -> Part:
    """The part with an LED of its lens's colour in the place of each bulb; white where no one colour is known."""
    lines = tuple(_with_lamp(part, line, "led", None, LED_CURRENT) if line.bulb else line for line in part.lines)
    return part.model_copy(update={"lines": lines, "summary": f"{part.summary}, with an LED"[:120]})


def with_lamps(part: Part, kind: LampKind | None, volts: float | None, amps: float | None) -> Part:
    """The part with all its lamps of one kind; of what is None they keep what they have.

    :param volts: supply that they are made for, where they are not LEDs that want a resistor. :param amps: of each.
    """
    lines = tuple(_with_lamp(part, line, kind, volts, amps) if line.does == "lamp" else line for line in part.lines)
    return part.model_copy(update={"lines": lines})


MADE_FOR = 12.0
"""Volts that a lamp is made for where nothing is said (common practice)."""


def _with_lamp(part: Part, line: PartLine, kind: LampKind | None, volts: float | None, amps: float | None) -> PartLine:
    now: LampKind = "bulb" if line.bulb else "own" if line.volts else "led"
    kind = kind or now
    current = line.current if amps is None else amps
    if kind == "led":
        drop = line.drop or LENSES[part.colour if part.colour in COLOURS else "white"].drop
        return line.model_copy(update={"bulb": False, "volts": 0.0, "drop": drop, "current": current})
    made = volts or line.volts or MADE_FOR
    return line.model_copy(update={"bulb": kind == "bulb", "volts": made, "drop": 0.0, "current": current})


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
    """A lamp's line with LEDs of another forward voltage; as many in series as it had. A lamp that is made for a supply
    stays as it is."""
    if line.volts:
        return line
    many = max(1, round(line.drop / was))
    return line.model_copy(update={"drop": round(many * now, 2)})
