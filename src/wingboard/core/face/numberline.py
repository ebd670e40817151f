"""The number line: places and distances typed straight in, turned into commands.

Understood, in any order and several at once: ``x 42.5``, ``x+3/16in``, ``y-2``, ``r90`` (turn to), ``r+15`` (turn by),
``gap 19`` (to the nearest neighbour), ``row`` and ``column`` (line up on the first selected), ``pitch 25.4`` (equal
steps along the row or column).
"""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from typing import NamedTuple

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.places import MoveItems, PlacePart
from wingboard.core.face.near import gap_between, nearest
from wingboard.core.quantity import VISIBLE, QuantityError, length
from wingboard.core.record.errors import NotALength, NotPossible
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed

_WORD = re.compile(
    r"\s*(?P<word>row|column|pitch|gap|[xyr])\s*(?P<rest>.*?)(?=\s+(?:row|column|pitch|gap|[xyr](?=[\s\d+.\-]))|$)",
    re.I,
)


class Move(NamedTuple):
    """What one word of the line asks for."""

    word: str
    relative: bool
    value: float


def commands_for(text: str, r: Resolved, selection: Sequence[str]) -> tuple[Command, ...]:
    """The commands a typed line stands for.

    :param selection: ids of placed functions, the first of them leading.
    :raises NotALength: something in the line is not understood; says what.
    :raises NotPossible: nothing placed is selected, or the word needs more than one part.
    """
    placed = [p for ident in selection for p in r.placed if p.function.id == ident]
    if not placed:
        raise NotPossible("Select a placed part first, then type its place", "selection")
    moves = _read(text)
    spots = {p.function.id: [p.place.x, p.place.y, p.place.turn] for p in placed}
    for move in moves:
        _apply(move, r, placed, spots)
    return tuple(_command(p, *spots[p.function.id]) for p in placed if _changed(p, *spots[p.function.id]))


def _read(text: str) -> list[Move]:
    moves, at = [], 0
    line = text.strip()
    while at < len(line):
        match = _WORD.match(line, at)
        if match is None or match.end() == at:
            raise NotALength(
                f"“{line[at:][:30]}” is not understood; try x 42.5, y-2, r90, gap 19, row or pitch 25.4", "text"
            )
        moves.append(_move(match["word"].lower(), match["rest"].strip()))
        at = match.end()
    if not moves:
        raise NotALength("Type a place, such as x 42.5 or y-2", "text")
    return moves


def _move(word: str, rest: str) -> Move:
    if word in ("row", "column"):
        if rest:
            raise NotALength(f"“{word}” stands alone, without “{rest[:20]}”", "text")
        return Move(word, False, 0.0)
    try:
        value = _angle(rest) if word == "r" else length(rest)
    except QuantityError as error:
        raise NotALength(str(error), "text") from error
    return Move(word, rest[:1] in "+-" and rest != "", value)


def _angle(text: str) -> float:
    try:
        value = float(text.rstrip("°").replace(" ", ""))
    except ValueError as error:
        raise QuantityError(f"“{text[:20]}” is not an angle; type r90 or r+15") from error
    if not math.isfinite(value) or abs(value) > 360:
        raise QuantityError("An angle lies between -360 and 360")
    return value


def _apply(move: Move, r: Resolved, placed: list[Placed], spots: dict[str, list[float]]) -> None:
    if move.word in ("x", "y", "r"):
        axis = "xyr".index(move.word)
        lead = spots[placed[0].function.id][axis]
        shift = move.value if move.relative else move.value - lead
        for spot in spots.values():
            spot[axis] += shift
    elif move.word == "gap":
        _gap(move.value, r, placed, spots)
    else:
        _line_up(move, placed, spots)


def _line_up(move: Move, placed: list[Placed], spots: dict[str, list[float]]) -> None:
    if len(placed) < 2:
        raise NotPossible(f"“{move.word}” needs two or more parts selected", "selection")
    lead = spots[placed[0].function.id]
    xs = [s[0] for s in spots.values()]
    ys = [s[1] for s in spots.values()]
    along = 0 if max(xs) - min(xs) >= max(ys) - min(ys) else 1
    if move.word == "pitch":
        ordered = sorted(spots.values(), key=lambda s: s[along])
        for n, spot in enumerate(ordered):
            spot[along] = ordered[0][along] + n * move.value
    else:
        across = 1 if move.word == "row" else 0
        for spot in spots.values():
            spot[across] = lead[across]


def _gap(value: float, r: Resolved, placed: list[Placed], spots: dict[str, list[float]]) -> None:
    lead = placed[0]
    near = nearest(r, lead)
    if near is None:
        raise NotPossible("There is no neighbour to keep a gap to", "selection")
    (x, y), (other_x, other_y) = r.panel.point(lead), r.panel.point(near.other)
    dx, dy = x - other_x, y - other_y
    along = 0 if abs(dx) >= abs(dy) else 1
    away = math.copysign(1.0, dx if along == 0 else dy)
    shift = away * _shift_for_gap(r, lead, near.other, value, (away, 0.0) if along == 0 else (0.0, away))
    for spot in spots.values():
        spot[along] += shift


def _shift_for_gap(r: Resolved, lead: Placed, other: Placed, value: float, way: tuple[float, float]) -> float:
    """How far (mm) to go that way for the gap to become ``value``; the gap grows with the way, so steps converge."""
    shift = 0.0
    for _ in range(60):
        missing = value - gap_between(r, lead, other, shift * way[0], shift * way[1])
        if abs(missing) < VISIBLE / 10:
            return round(shift, 3)
        shift += missing
    raise NotPossible(f"No such gap to {other.function.name} along this line; try row or column first", "text")


def _changed(p: Placed, x: float, y: float, turn: float) -> bool:
    return (round(x, 4), round(y, 4), round(turn % 360, 4)) != (p.place.x, p.place.y, p.place.turn)


def _command(p: Placed, x: float, y: float, turn: float) -> Command:
    if round(turn % 360, 4) == p.place.turn:
        return MoveItems(functions=(p.function.id,), dx=round(x - p.place.x, 4), dy=round(y - p.place.y, 4))
    return PlacePart(
        function=p.function.id, module=p.place.module, x=round(x, 4), y=round(y, 4), turn=round(turn % 360, 4)
    )
