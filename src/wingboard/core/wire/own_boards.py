"""A board of one's own, from pins that were typed or pasted: a line a pin, or a run of them, and what it can do."""

from __future__ import annotations

import re
from typing import NamedTuple, get_args

from wingboard.core.record.wiring import MOST_PINS, OwnPin, Role

WORDS: dict[str, tuple[Role, ...]] = {
    "digital": ("io",), "d": ("io",), "gpio": ("io",), "input": ("in",), "output": ("out",), "pullup": ("up",),
    "pull-up": ("up",), "analog": ("adc",), "analogue": ("adc",), "a": ("adc",), "interrupt": ("int",), "irq": ("int",),
    "dac": (), "tx": (), "rx": (), "boot": ("strap",), "led": ("flashes",),
}  # fmt: skip
"""Further words for what a pin can do."""
ROLES: tuple[Role, ...] = get_args(Role)
RUN = re.compile(r"([A-Za-z]*)(\d+)\s*(?:-|–|\.\.)\s*(?:[A-Za-z]*)(\d+)$")
NAME = re.compile(r"[A-Za-z0-9][A-Za-z0-9_+-]{0,11}$")


class Unread(NamedTuple):
    """A line (from 1) that was not understood, and why."""

    line: int
    why: str


def pins_from(text: str) -> tuple[tuple[OwnPin, ...], tuple[Unread, ...]]:
    """Pins from text: “D2 io up int”, “A0-A5 analogue”, “GP0..GP22 io up pwm”; what follows # is left out.

    A pin of which nothing is said reads and drives, with a pull-up. A pin that can be driven or read has io, in or out
    said or understood: one with only ``adc`` measures, and is an input too.
    """
    found: dict[str, OwnPin] = {}
    wrong: list[Unread] = []
    for n, raw in enumerate(text.splitlines(), 1):
        line = raw.split("#")[0].replace(",", " ").replace(";", " ").replace(":", " ").replace("\t", " ").strip()
        if not line:
            continue
        first, *rest = line.split()
        roles, strange = _roles(rest)
        names = _names(first)
        if strange:
            wrong.append(Unread(n, f"“{strange}” is nothing that a pin can do: {', '.join(ROLES)}"))
        elif not names:
            wrong.append(Unread(n, f"“{first}” is no name of a pin, nor a run of them such as A0-A5"))
        elif twice := next((name for name in names if name in found), None):
            wrong.append(Unread(n, f"pin {twice} is there already"))
        elif len(found) + len(names) > MOST_PINS:
            wrong.append(Unread(n, f"more than {MOST_PINS} pins"))
        else:
            found.update({name: OwnPin(name=name, roles=roles) for name in names})
    return tuple(found.values()), tuple(wrong)


def _roles(words: list[str]) -> tuple[tuple[Role, ...], str]:
    """The roles that words name, and the first word that names none."""
    roles: dict[Role, None] = {}
    for word in (w.lower() for w in words):
        known = WORDS.get(word, (word,) if word in ROLES else None)
        if known is None:
            return (), word
        roles.update(dict.fromkeys(known))
    if not roles:
        return ("io", "up"), ""
    if not {"io", "in", "out", "measures", "coder"} & set(roles):
        roles["io"] = None
    return tuple(roles), ""


def _names(first: str) -> tuple[str, ...]:
    run = RUN.match(first)
    if run is None:
        return (first,) if NAME.match(first) else ()
    letters, start, end = run[1], int(run[2]), int(run[3])
    return tuple(f"{letters}{n}" for n in range(start, end + 1)) if 0 <= end - start < MOST_PINS else ()
