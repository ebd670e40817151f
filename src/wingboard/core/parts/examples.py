"""What a read-out shows on the drawing: a value of its own kind, or the one that its builder typed."""

from __future__ import annotations

import re

from wingboard.core.record.functions import Function
from wingboard.core.record.part import Part

KINDS: tuple[tuple[str, str], ...] = (
    (r"clocks?|time", "12:34"),
    (r"speed|km/h|mph|knots?|kn", "42"),
    (r"rpm|revs?|revolutions", "1850"),
    (r"volts?|voltage|v", "24.6"),
    (r"amps?|amperes?|current|a", "3.2"),
    (r"temperature|temp|°c|degc", "21.5"),
    (r"pressure|bar|vacuum", "5.6"),
    (r"fuel|tank|level|percent|%", "73"),
    (r"frequency|mhz|khz", "118.0"),
    (r"channel|line|route|car|stop|track|platform", "07"),
    (r"heading|course|bearing", "270"),
    (r"altitude|height|ft|feet", "3500"),
    (r"depth|draught", "4.8"),
    (r"distance|odometer|counter|count|hours|km|parts", "1207"),
    (r"power|watts?|kw|w", "150"),
)
"""Words of a function's name and wish, and an invented value of that kind."""
_KIND = re.compile("|".join(f"(?<![\\w°%])(?:{words})(?![\\w%])" for words, _ in KINDS), re.I)
BLANK = "\u2007"
"""A digit that is dark: as wide as one that is lit."""


def example(function: Function, part: Part) -> str | None:
    """What a part with digits or letters shows; None for a part without them.

    Of digits just as many as it has, those that are hidden dark; where nothing tells of what kind the value is, all
    segments are lit. A display shows the function's name.
    """
    text = next((piece.text for piece in part.front if piece.text), "")
    if part.family == "display":
        return (function.example or function.name.upper())[: max(len(text), 4)]
    if part.family != "readout" or part.digits is None:
        return None
    shown = min(function.digits or part.digits.count, part.digits.count)
    value = _fitting(function.example or _of_its_kind(function), shown)
    return BLANK * (part.digits.count - _cells(value)) + value


def _of_its_kind(function: Function) -> str:
    for words in (function.want, function.name):
        found = _KIND.search(words)
        if found:
            return next(value for kind, value in KINDS if re.fullmatch(kind, found[0], re.I))
    return ""


def _cells(value: str) -> int:
    """The digits a value takes; points and colons stand between them."""
    return sum(letter not in ".:" for letter in value)


def _fitting(value: str, cells: int) -> str:
    """The value with decimals left off until it fits; all segments lit when it has none, or does not fit."""
    while _cells(value) > cells and "." in value:
        value = value[:-1].rstrip(".")
    return value if value and _cells(value) <= cells else "8" * cells
