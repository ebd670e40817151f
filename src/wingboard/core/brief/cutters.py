"""Cutters and drills as they are typed: “1/8in×2, 3” is one of 3.175 mm with two flutes, and one of 3 mm.

“30°/0.1” is an engraver with a tip of 30° and a flat of 0.1 mm, “drill 2.5” a drill.
"""

from __future__ import annotations

import re

from wingboard.core.quantity import QuantityError, length
from wingboard.core.record.errors import NotALength
from wingboard.core.record.workshop import Tool

WIDEST = 100.0
"""No cutter here is wider (mm)."""
MOST_FLUTES, MOST_TOOLS = 12, 40


def read_tools(text: str) -> tuple[Tool, ...]:
    """The tools that a list of words names. :raises NotALength: a word names none; says which."""
    words = [word.strip() for word in text.split(",") if word.strip()]
    if len(words) > MOST_TOOLS:
        raise NotALength(f"At most {MOST_TOOLS} tools", "text")
    return tuple(_tool(word) for word in words)


def _tool(word: str) -> Tool:
    pointed = _POINTED.fullmatch(word)
    if pointed:
        return _engraver(word, float(pointed[1]), pointed[2] or "0.1")
    if word.lower().startswith("drill"):
        return Tool(kind="drill", diameter=_end_mill(word[5:].strip() or "0").diameter, flutes=2)
    return _end_mill(word)


_POINTED = re.compile(r"(\d+(?:\.\d+)?)\s*(?:°|deg)\s*(?:/\s*(.+))?")
SHANK = 3.175
"""Of an engraver: it engraves no wider (mm, common practice)."""


def _engraver(word: str, angle: float, flat: str) -> Tool:
    try:
        wide = length(flat)
    except QuantityError as error:
        raise NotALength(f"“{word[:20]}”: {error}", "text") from error
    if not 10 <= angle <= 150 or not 0 <= wide <= SHANK:
        raise NotALength(f"“{word[:20]}”: a tip of 10 to 150°, a flat of up to {SHANK:g} mm", "text")
    return Tool(kind="engraver", diameter=SHANK, angle=angle, flat=wide)


def _end_mill(word: str) -> Tool:
    size, _, flutes = re.sub(r"\s*[×x*]\s*", "×", word).partition("×")
    try:
        diameter = length(size)
    except QuantityError as error:
        raise NotALength(f"“{word[:20]}”: {error}", "text") from error
    if not 0 < diameter <= WIDEST:
        raise NotALength(f"“{word[:20]}”: a cutter is up to {WIDEST:g} mm wide", "text")
    if flutes and not (flutes.isascii() and flutes.isdigit() and 1 <= int(flutes) <= MOST_FLUTES):
        raise NotALength(f"“{word[:20]}”: 1 to {MOST_FLUTES} flutes", "text")
    return Tool(diameter=diameter, flutes=int(flutes or 1))
