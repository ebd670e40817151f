"""Reading G-code back, so that what a file does is judged by the file: each move where it really goes.

Understood is what :mod:`wingboard.core.files.gcode` writes, and no more: a word besides is an error at its line.
"""

from __future__ import annotations

import math
import re
from typing import NamedTuple

_WORD = re.compile(r"([A-Z])(-?\d+(?:\.\d*)?)")
_COMMENT = re.compile(r"\(([^)]*)\)")
MODAL = {"G17", "G21", "G90", "G94"}


class BadBlock(ValueError):
    """A block that is not understood; ``line`` counts from 1."""

    def __init__(self, line: int, words: str) -> None:
        super().__init__(f"line {line}: {words}")
        self.line = line


class Moved(NamedTuple):
    """A move from where the tool was to where it is (mm): straight, or an arc by its bulge; ``rapid``: G0.

    ``feed`` is in mm/min, ``power`` the S word of a laser or a spindle, 0 where neither is on. ``operation``
    counts the comments that begin one, from 1; ``tool`` is the T word.
    """

    x0: float
    y0: float
    z0: float
    x1: float
    y1: float
    z1: float
    bulge: float
    rapid: bool
    feed: float
    power: float
    operation: int
    tool: int


def read_gcode(content: bytes) -> list[Moved]:
    """Every move of a program in its order; before the first one the tool stands at 0, 0, at an unknown height.

    :raises BadBlock: a word that is not known, an arc whose ends lie at different distances from its middle, a number
        that is missing, or a move along a line without a feed.
    """
    moves: list[Moved] = []
    x = y = 0.0
    z = feed = speed = 0.0
    on, operation, tool = False, 0, 0
    for number, line in enumerate(content.decode("ascii").splitlines(), 1):
        operation += sum(c.startswith("operation ") for c in _COMMENT.findall(line))
        words = _words(number, _COMMENT.sub(" ", line))
        motion = ""
        given: dict[str, float] = {}
        for letter, text in words:
            code = f"{letter}{int(float(text))}" if letter in "GM" else letter
            if code in ("G0", "G1", "G2", "G3"):
                motion = code
            elif code == "M3":
                on = True
            elif code == "M5":
                on = False
            elif letter == "T":
                tool = int(float(text))
            elif letter == "F":
                feed = float(text)
            elif letter == "S":
                speed = float(text)
            elif letter in "XYZIJ":
                given[letter] = float(text)
            elif code not in MODAL and code not in ("M0", "M2", "M7", "M9"):
                raise BadBlock(number, f"{letter}{text} is not known")
        if not motion:
            if given:
                raise BadBlock(number, "a place without a G word")
            continue
        if motion != "G0" and feed <= 0:
            raise BadBlock(number, "no feed was said")
        to = given.get("X", x), given.get("Y", y), given.get("Z", z)
        bulge = _bulge(number, motion, (x, y), (to[0], to[1]), given) if motion in ("G2", "G3") else 0.0
        moves.append(
            Moved(x, y, z, *to, bulge, motion == "G0", feed, speed if on else 0.0, operation, tool)
        )  # fmt: skip
        x, y, z = to
    return moves


def _words(number: int, text: str) -> list[tuple[str, str]]:
    left = _WORD.sub("", text).strip()
    if left:
        raise BadBlock(number, f"{left!r} is not known")
    return _WORD.findall(text)


def _bulge(
    number: int, motion: str, start: tuple[float, float], end: tuple[float, float], given: dict[str, float]
) -> float:
    if "I" not in given and "J" not in given:
        raise BadBlock(number, "an arc without its middle")
    cx, cy = start[0] + given.get("I", 0.0), start[1] + given.get("J", 0.0)
    first, last = math.dist(start, (cx, cy)), math.dist(end, (cx, cy))
    if abs(first - last) > max(0.002, first * 1e-3):
        raise BadBlock(number, f"an arc that begins {first:.4f} and ends {last:.4f} mm from its middle")
    a = math.atan2(start[1] - cy, start[0] - cx)
    b = math.atan2(end[1] - cy, end[0] - cx)
    sweep = (b - a) % (2 * math.pi) if motion == "G3" else -((a - b) % (2 * math.pi))
    if abs(sweep) < 1e-9:
        sweep = 2 * math.pi if motion == "G3" else -2 * math.pi
    return math.tan(sweep / 4)
