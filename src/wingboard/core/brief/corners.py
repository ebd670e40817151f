"""An outline typed as its corners, one a line: x, y and, after a corner, the bulge of an arc to the next."""

from __future__ import annotations

import math

from pydantic import ValidationError

from wingboard.core.geometry.outline import Loop, Vertex
from wingboard.core.quantity import LONGEST
from wingboard.core.record.errors import NotALength
from wingboard.core.record.outlines import PathOutline, path_of

MOST_CORNERS = 2000


def read_corners(text: str) -> PathOutline:
    """The outline that a text of corners describes; commas may be decimal points.

    :raises NotALength: a line is no corner, said with its number; there are fewer than three, or too many, or they make
        no outline that can be cut.
    """
    loop = _corners(text)
    if len(loop) < 3:
        raise NotALength("An outline has at least three corners", "text")
    if len(loop) > MOST_CORNERS:
        raise NotALength(f"More than {MOST_CORNERS} corners", "text")
    try:
        return path_of(loop)
    except ValidationError as error:
        raise NotALength(str(error.errors()[0]["msg"]).removeprefix("Value error, "), "text") from error


def _corners(text: str) -> Loop:
    found = []
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        cells = line.replace(";", " ").replace(",", ".").split()
        try:
            figures = [float(cell) for cell in cells]
        except ValueError as error:
            raise NotALength(f"Line {number}: numbers, such as 740 205 0.07", "text") from error
        if len(figures) not in (2, 3) or not all(math.isfinite(f) and abs(f) <= LONGEST for f in figures):
            raise NotALength(f"Line {number}: two or three numbers, such as 740 205 0.07", "text")
        x, y, bulge = (*figures, 0.0)[:3]
        found.append(Vertex(x, y, bulge))
    return tuple(found)
