"""Where the terminals of a part lie on it, as such parts usually are (common practice), or as the builder measured.

Where the record only names a part's terminals, their places follow from its family and from how they are marked.
"""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from typing import Literal, NamedTuple

from wingboard.core.record.part import Part

TagKind = Literal["solder", "screw", "tab", "header"]
"""soldered to; a screw that clamps the wire; a flat tab for a receptacle; a pin of 2.54 mm."""
PITCH = 2.54
"""mm between the pins of most headers."""
_BLOCK = re.compile(r"^([1-4])([1-4])$")
_SIDES = {"+": (-1, 0), "-": (1, 0), "X1": (-1, 0), "X2": (1, 0), "NC": (0, -1), "C": (0, 0), "NO": (0, 1),
          "anode": (0, 1), "cathode": (0, -1), "line": (0, 1), "load": (0, -1), "tip": (0, 0), "side": (1, 0),
          "centre": (0, 0), "outside": (0, -1), "S": (-1, 0), "D": (1, 0)}  # fmt: skip


class Tag(NamedTuple):
    """A terminal about the middle of its part's body (mm, seen from the front, not turned)."""

    terminal: str
    x: float
    y: float


Pattern = Literal["circle", "row", "column", "spread"]


class Tags(NamedTuple):
    """The terminals of a part, how they are arranged and how a wire is fixed to them."""

    pattern: Pattern
    kind: TagKind
    tags: tuple[Tag, ...]


def tags(part: Part, terminals: Sequence[str]) -> Tags:
    """Where these terminals of a part lie, in the order given: as measured, the others as is usual."""
    usual = _usual(part, terminals)
    measured = {tag.terminal: Tag(tag.terminal, tag.x, tag.y) for tag in part.tags}
    if not measured.keys() & set(terminals):
        return usual
    found = tuple(measured.get(tag.terminal, tag) for tag in usual.tags)
    xs, ys = {tag.x for tag in found}, {tag.y for tag in found}
    straight = usual.pattern == "circle" or len(xs) == 1 or len(ys) == 1
    return Tags(usual.pattern if straight else "spread", usual.kind, found)


def _usual(part: Part, terminals: Sequence[str]) -> Tags:
    width, height = part.body.span
    pattern = _pattern(part, terminals)
    if pattern == "circle":
        return Tags(pattern, "solder", _circle(part, terminals, min(width, height)))
    if pattern in ("row", "column"):
        room = 0.7 * (width if pattern == "row" else height)
        step = min(PITCH if _header(part) else 5.0, room / max(1, len(terminals) - 1))
        at = [(n - (len(terminals) - 1) / 2) * step for n in range(len(terminals))]
        low = -0.3 * height if pattern == "row" and part.family in ("pot", "encoder") else 0.0
        made = (Tag(t, x, low) if pattern == "row" else Tag(t, 0.0, -x) for t, x in zip(terminals, at, strict=True))
        return Tags(pattern, _fixed(part), tuple(made))
    return Tags("spread", _fixed(part), _spread(part, terminals, width, height))


def _pattern(part: Part, terminals: Sequence[str]) -> Pattern:
    if part.family == "rotary" and part.detents and len(terminals) > 4:
        return "circle"
    if _header(part) or part.family in ("pot", "thumbwheel", "joystick"):
        return "row"
    if part.family in ("toggle", "rocker", "slider") and all(t.isdigit() for t in terminals):
        return "column"
    if part.family == "encoder" and len(terminals) == 3:
        return "row"
    known = all(t in _SIDES or _BLOCK.match(t) for t in terminals)
    return "spread" if known or len(terminals) > 8 or part.family in ("connector", "gauge") else "row"


def _header(part: Part) -> bool:
    return part.family in ("readout", "display")


def _fixed(part: Part) -> TagKind:
    if _header(part):
        return "header"
    marked = [*part.terminals, *(line.terminal for line in part.lines)]
    if part.family == "connector":
        return "solder"
    if any(_BLOCK.match(t) for t in marked) or "X1" in marked or part.family == "breaker" or "stud" in marked:
        return "screw"
    large = part.family == "rocker" or (part.rating is not None and part.rating.amps >= 10)
    return "tab" if large else "solder"


def _circle(part: Part, terminals: Sequence[str], across: float) -> tuple[Tag, ...]:
    """The tag of each way at a whole turn's step of its mechanism, the first where the first position points."""
    assert part.detents is not None
    many = part.detents.mechanism or round(360 / part.detents.step)
    first = part.angles(part.detents.ways)[0]
    made = []
    for terminal in terminals:
        if not terminal.isdigit():
            made.append(Tag(terminal, 0.0, 0.0))
            continue
        angle = math.radians(first - (int(terminal) - 1) * 360 / many)
        made.append(Tag(terminal, 0.35 * across * math.cos(angle), 0.35 * across * math.sin(angle)))
    return tuple(made)


def _spread(part: Part, terminals: Sequence[str], width: float, height: float) -> tuple[Tag, ...]:
    """By the marks where they say a side; else in two rows, as plugs are numbered."""
    if all(t in _SIDES for t in terminals):
        return tuple(Tag(t, 0.35 * width * _SIDES[t][0], 0.35 * height * _SIDES[t][1]) for t in terminals)
    blocks = sorted({t[0] for t in terminals if _BLOCK.match(t)}) if part.family != "connector" else []
    if blocks:
        made = []
        for t in terminals:
            if _BLOCK.match(t):  # the first of a pair above, the second below; a block beside the other (EN 50013)
                across = (blocks.index(t[0]) - (len(blocks) - 1) / 2) * 0.4
                made.append(Tag(t, across * width, 0.35 * height * (1 if t[1] in "13" else -1)))
            else:
                x, y = (0.6, -1.0) if t == "NC" else _SIDES.get(t, (0, 0))  # a contact more, beside the others
                made.append(Tag(t, 0.4 * width * x, 0.35 * height * y))
        return tuple(made)
    upper = -(-len(terminals) // 2)
    step = min(5.0, 0.8 * width / max(1, upper - 1))
    return tuple(
        Tag(t, (n % upper - (upper - 1) / 2) * step, 0.2 * height * (1 if n < upper else -1))
        for n, t in enumerate(terminals)
    )


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth", "eleventh",
            "twelfth")  # fmt: skip


def lies(of: Tags, turn: float, terminal: str) -> str:
    """Where a terminal lies in words, seen from behind with the part turned by ``turn`` degrees: “at 4 o'clock”,
    “second of 3 from the top”, “upper left”; nothing where it is the only one or is not there."""
    seen = {t.terminal: _behind(t, turn) for t in of.tags}
    if terminal not in seen or len(seen) < 2:
        return ""
    x, y = seen[terminal]
    if of.pattern == "circle":
        if math.hypot(x, y) < 1e-6:
            return "in the middle"
        half = round((90 - math.degrees(math.atan2(y, x))) / 15 - 1e-6) % 24
        hour = half // 2 or 12
        return f"between {hour} and {hour % 12 + 1} o'clock" if half % 2 else f"at {hour} o'clock"
    if of.pattern in ("row", "column"):
        return _in_line(seen, terminal)
    said = {t: _side(seen, t) for t in seen}
    if list(said.values()).count(said[terminal]) == 1:
        return said[terminal]
    row = sorted((t for t in seen if abs(seen[t][1] - y) < 1e-6), key=lambda t: seen[t][0])
    levels = sorted({round(at[1], 6) for at in seen.values()}, reverse=True)
    n = levels.index(round(y, 6))
    named = {1: ("row",), 2: ("upper row", "lower row"), 3: ("upper row", "middle row", "lower row")}
    name = named[len(levels)][n] if len(levels) in named else f"{_nth(n, len(levels))} rows from the top"
    return f"{name}, {_nth(row.index(terminal), len(row))} from the left"


def _side(seen: dict[str, tuple[float, float]], terminal: str) -> str:
    x, y = seen[terminal]
    most = max(max(abs(a), abs(b)) for a, b in seen.values()) or 1.0
    up = "upper" if y > 0.2 * most else "lower" if y < -0.2 * most else ""
    side = "left" if x < -0.2 * most else "right" if x > 0.2 * most else ""
    if not side:
        return {"upper": "above", "lower": "below", "": "in the middle"}[up]
    return f"{up} {side}".strip()


def _nth(n: int, many: int) -> str:
    return f"{ORDINALS[n] if n < len(ORDINALS) else n + 1} of {many}"


def _behind(tag: Tag, turn: float) -> tuple[float, float]:
    a = math.radians(turn)
    x = tag.x * math.cos(a) - tag.y * math.sin(a)
    return -x, tag.x * math.sin(a) + tag.y * math.cos(a)


def _in_line(seen: dict[str, tuple[float, float]], terminal: str) -> str:
    spread = [max(p[k] for p in seen.values()) - min(p[k] for p in seen.values()) for k in (0, 1)]
    across = spread[0] >= spread[1]
    order = sorted(seen, key=lambda t: seen[t][0] if across else -seen[t][1])
    n = order.index(terminal)
    if len(order) == 2:
        return (("left", "right") if across else ("above", "below"))[n]
    if len(order) == 3:
        return (("left", "middle", "right") if across else ("top", "middle", "bottom"))[n]
    return f"{_nth(n, len(order))} from the {'left' if across else 'top'}"
