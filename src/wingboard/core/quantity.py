"""Lengths as people type them (``12``, ``3/16in``, ``0.5"``, ``1-1/4 in``) → millimetres.

One inch is 25.4 mm exactly (international yard and pound agreement, 1959). ``TOUCH`` and ``VISIBLE`` are the
only two tolerances in the program.
"""

from __future__ import annotations

import math
import re
from fractions import Fraction

INCH = 25.4
TOUCH = 1e-6
"""Two edges nearer than this (mm) touch."""
VISIBLE = 0.01
"""Differences below this (mm) are neither seen nor made by any machine considered here."""
SMALLEST = 0.001
"""No size in a design is less than this (mm)."""
LONGEST = 5000.0
"""No length in a design exceeds this (mm)."""

_UNITS = {"": 1.0, "mm": 1.0, "cm": 10.0, "m": 1000.0, "in": INCH, "inch": INCH, '"': INCH, "″": INCH}
_LENGTH = re.compile(
    r"""^\s*(?P<sign>[-+]?)\s*
    (?:(?P<whole>\d{1,6})[\s-]+)?
    (?P<number>\d{1,6}\s*/\s*\d{1,6}|\d{0,12}[.,]\d{1,9}|\d{1,12}[.,]?)
    \s*(?P<unit>mm|cm|m|inch|in|"|″)?\s*$""",
    re.VERBOSE | re.IGNORECASE,
)


def short(value: float) -> str:
    """A length (mm) to a micrometre, without idle zeros: ``12.500`` is ``12.5``."""
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


class QuantityError(ValueError):
    """The text is not a length; the message says what would be one."""


def length(text: str) -> float:
    """Read a length typed by a person.

    :param text: a number with an optional unit (``mm`` when none); inches may be fractions, mixed or not.
    :returns: millimetres, signed.
    :raises QuantityError: not a length, a zero denominator, a mixed decimal, or longer than :data:`LONGEST`.
    """
    match = _LENGTH.match(text)
    if match is None:
        raise QuantityError(f"“{text.strip()[:40]}” is not a length; type 12, 12.5 mm, 3/16in or 1-1/4 in")
    number = match["number"].replace(",", ".")
    if match["whole"] and "/" not in number:
        raise QuantityError(f"“{text.strip()[:40]}” mixes two numbers; type 1-1/4 in or 1.25 in")
    try:
        value = Fraction("".join(number.split())) + Fraction(match["whole"] or 0)
    except ZeroDivisionError as error:
        raise QuantityError(f"“{text.strip()[:40]}” divides by zero") from error
    millimetres = float(value) * _UNITS[(match["unit"] or "").lower()]
    if not math.isfinite(millimetres) or millimetres > LONGEST:
        raise QuantityError(f"“{text.strip()[:40]}” is longer than {LONGEST:.0f} mm")
    return -millimetres if match["sign"] == "-" else millimetres


def shown(value: float, places: int = 1) -> str:
    """A millimetre figure for a sentence: rounded, with no negative zero."""
    rounded = round(value, places)
    return f"{rounded + 0.0:.{places}f}"
