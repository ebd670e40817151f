"""Cutters and drills as they are typed: “1/8in×2, 3” is one of 3.175 mm with two flutes, and one of 3 mm."""

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
