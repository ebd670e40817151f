"""Lines as builders type them, taken apart: “Engine 2 toggle 12 V”, “red lamp Fault”, “push button for the horn”."""

from __future__ import annotations

import re
from typing import NamedTuple

from wingboard.core.brief.wanted import KIND, load_in
from wingboard.core.record.functions import Switched

_NUMBER = r"(?:\d+(?:[.,/]\d+)?|two|three|four|five|six|seven|eight|nine|ten|twelve)"
_FIGURE = rf"{_NUMBER}[\s-]?(?:m?A|a|[vV](?:\s?(?:ac|dc|AC|DC))?|mm|in|(?:way|digit|position)s?)\b"
_LOOK = r"red|green|amber|yellow|white|blue|(?:two|three)-colou?r|bare|round|square|small|large|sealed"
_MECHANISM = r"lit|latching|momentary|guarded|locking|spring[\s-](?:back|return)|springs(?: back)?|held|push"
_ARTICLE = r"an?|with(?: an?)?"
_CASED = "(?-i:{})"
_INDICATING = frozenset({"lamp", "caption", "readout", "display", "gauge", "sounder"})
_PLAIN_LEAD = re.compile(r"(?:toggle|rocker|pot|potentiometer|push-button|button|switch)$", re.I)
_POSITION = r"[A-Z0-9+–-][A-Z0-9+–.' -]*"
_POSITIONS = re.compile(rf"[\s:,]+{_POSITION}(?:\s*[,/|]\s*{_POSITION})+\s*")
_POSITIONS_FIRST = re.compile(r"[\s:,]+[A-Z0-9+–-]+(?:\s*[,/|]\s*[A-Z0-9+–-]+)+(?=[\s:]+\w)")
"""Words of positions with a name behind them: “OFF, LOW, HIGH Fan”."""
_FOR = re.compile(r"^\s*(?:[:–-]\s*|for\s+(?:the\s+)?|(?:named|called)\s+)", re.I)


def _property(kind: str | None) -> str:
    mechanism = "" if kind in _INDICATING else f"|{_MECHANISM}"
    return rf"(?:{_CASED.format(_FIGURE)}|{_LOOK}{mechanism})"


MOST_POSITIONS = 24


class WishLine(NamedTuple):
    """A typed line taken apart."""

    name: str
    want: str
    switches: Switched
    positions: tuple[str, ...] = ()


def read_line(text: str) -> WishLine:
    """Take a line apart into a name and what is wanted.

    “gong push button” → gong, push button; “Engine 2 toggle 24 V 6 A” → Engine 2, toggle, switching 24 V 6 A. The
    control may also come first where it is plain that it is one: “toggle switch Lights”, “red lamp Fault”, “gauge for
    the oil”. A number without a unit belongs to the name. A line that names no kind is a name.
    """
    line = " ".join(text.split())
    tail = _last_kind(line)
    lead = _first_kind(line, tail)
    if lead is not None:
        name, want = lead
    elif tail is not None:
        name, want = line[: tail[0]].strip(" ,:;-"), line[tail[0] :]
    else:
        name, want = line, ""
    want, positions = positions_in(want)
    return WishLine(name, want, load_in(want or line), positions)


def positions_in(want: str) -> tuple[str, tuple[str, ...]]:
    """A wish without the words of its positions, and these: “toggle OFF, AUTO, ON” → toggle; OFF, AUTO, ON.

    They are capitals or figures behind the control, parted by commas or strokes.
    """
    kinds = list(KIND.finditer(want))
    if not kinds or kinds[-1].lastgroup in _INDICATING:
        return want, ()
    kind = kinds[-1]
    props = re.match(rf"(?:[\s,]*{_property(kind.lastgroup)}\b)*", want[kind.end() :], re.I)
    start = kind.end() + (props.end() if props else 0)
    if not _POSITIONS.fullmatch(want[start:]):
        return want, ()
    words = tuple(word.strip() for word in re.split(r"[,/|]", want[start:].strip(" :,")))
    return (want[:start], words) if len(words) <= MOST_POSITIONS else (want, ())


def _last_kind(line: str) -> tuple[int, re.Match[str]] | None:
    """Where what is wanted begins, and its kind: the last one with a name before it."""
    for match in reversed(list(KIND.finditer(line))):
        start = match.start()
        before = re.compile(rf"(?:^|(?<=\s))(?:{_property(match.lastgroup)}|{_CASED.format(_ARTICLE)})[\s,]+$", re.I)
        while found := before.search(line[:start]):
            start = found.start()
        if line[:start].strip(" ,:;-"):
            return start, match
    return None


def _first_kind(line: str, tail: tuple[int, re.Match[str]] | None) -> tuple[str, str] | None:
    """Name and wish of a line that begins with its control, or None where it begins with a name."""
    match = KIND.search(line)
    if match is None:
        return None
    props = rf"(?:[\s,]*{_property(match.lastgroup)}\b)*"
    before, after = line[: match.start()], re.match(props, line[match.end() :], re.I)
    if not re.fullmatch(rf"{props}[\s,]*", before, re.I) or after is None:
        return None
    words = None if match.lastgroup in _INDICATING else _POSITIONS_FIRST.match(line, match.end() + after.end())
    end = words.end() if words else match.end() + after.end()
    rest = line[end:]
    said = _FOR.match(rest)
    name = (rest[said.end() :] if said else rest).strip(" ,:;-")
    kind = match[0]
    if not re.search(r"\w", name) or re.match(r"(?:in|on|at|of|with|to)\b", name):
        return None
    want = line[:end].strip(" ,")
    if said:
        return name, want
    several = " " in kind and match.lastgroup != "emergency"
    strong = several or bool(words or before.strip() or after[0].strip()) or bool(_PLAIN_LEAD.match(kind))
    plural = kind.endswith("s")
    if not strong or plural or (tail is not None and _ends_in(line, tail[1]) and not _lead_wins(line, match, tail)):
        return None
    return name, want


def _ends_in(line: str, match: re.Match[str]) -> bool:
    """Whether nothing but properties follows a kind: the line ends with what is wanted."""
    return re.fullmatch(rf"(?:[\s,]*{_property(match.lastgroup)}\b)*[\s,.]*", line[match.end() :], re.I) is not None


def _lead_wins(line: str, lead: re.Match[str], tail: tuple[int, re.Match[str]]) -> bool:
    """Of a kind at either end: the first, where the last is what is switched (“lights”), or the first is two words."""
    start, match = tail
    if match[0].lower() in ("lights", "fan", "fans", "speakers", "screens", "displays", "sockets", "instruments"):
        return True
    return " " in lead[0] and match.lastgroup in _INDICATING and bool(line[lead.end() : start].strip(" ,"))
