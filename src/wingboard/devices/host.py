"""The host's side of the protocol: asks, waits for the answer, asks again where something was lost, and says so."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Literal, NamedTuple, Protocol

from wingboard.core.record.errors import DesignError
from wingboard.devices.spoken import Lines, line_of

UNASKED = ("in", "pin", "fault", "mended", "note")
"""First words of what a board says of itself."""
ANSWERED_IN = 0.4
"""Seconds in which a board answers."""
TRIES = 4
STARTS = 2.5
"""Seconds in which a board that starts anew greets: its loader listens for a program first."""
PING = 1.0
"""Seconds after which the link is kept."""


class Wire(Protocol):
    """What a board hangs on: a port, or a simulated chip, whose time passes while it is listened to."""

    @property
    def now(self) -> float:
        """Seconds since it was begun."""

    def hear(self, text: str) -> None:
        """Letters to the board."""

    def said(self) -> str:
        """What the board said within a moment."""


class Happened(NamedTuple):
    """Something that was not asked for.

    ``moved``: what the board says of itself (its words). ``restarted``: it was reset, and what was set is forgotten.
    ``garbled``: a line did not arrive as it was sent. ``again``: something had to be asked once more.
    """

    kind: Literal["moved", "restarted", "garbled", "again"]
    words: tuple[str, ...]


class LinkLost(DesignError):
    """A board that does not answer."""

    title = "The board does not answer"


def greeting(wire: Wire, starts: float = STARTS) -> str:
    """What a board says it is. One that starts anew when its port is opened greets by itself; another is asked.

    :param starts: seconds in which it may. :raises LinkLost: it does not answer.
    """
    lines = Lines()
    until = wire.now + starts
    while wire.now < until:
        for line in lines.take(wire.said()):
            if not line.garbled and line.words[0] == "board":
                return " ".join(line.words)
    return " ".join(Host(wire).ask("hello")[0])


class Host:
    """Somebody who speaks to one board. :param tell: is told of what was not asked for, in its order."""

    def __init__(self, wire: Wire, tell: Callable[[Happened], None] = lambda _: None) -> None:
        self._wire, self._tell, self._lines = wire, tell, Lines()
        self._said = wire.now

    def ask(self, *words: object) -> list[tuple[str, ...]]:
        """Say a line and get its answer: one line, or all up to the one that ends it. An ``error`` is an answer too.

        :raises LinkLost: there was none, however often it was said.
        """
        asked = tuple(str(word) for word in words)
        for n in range(TRIES):
            if n:
                self._tell(Happened("again", asked))
            # What stands half said before it is ended first: it is answered by an error, which is no answer to this.
            self._wire.hear(("\n" if n else "") + line_of(*asked))
            self._said = self._wire.now
            found = self._answer(asked)
            if found is not None:
                return found
        raise LinkLost(f"No answer to “{' '.join(asked)}”, asked {TRIES} times", "port")

    def listen(self, seconds: float) -> None:
        """Hear what happens for so long, and keep the link."""
        ends = self._wire.now + seconds
        while self._wire.now < ends:
            for _ in self._heard():
                pass  # an answer that came too late
            if self._wire.now - self._said > PING:
                self.ask("ping")

    def _answer(self, asked: tuple[str, ...]) -> list[tuple[str, ...]] | None:
        """None where it did not come whole."""
        found: list[tuple[str, ...]] = []
        until = self._wire.now + ANSWERED_IN
        while self._wire.now < until:
            for words in self._heard(asked):
                if not words or (words[0] == "error" and not _refuses(asked, words)):
                    return None  # garbled, on the way back or there
                if not found and not _answers(asked, words):
                    continue  # to what was asked before
                found.append(words)
                until = self._wire.now + ANSWERED_IN
                if words[0] == "error" or _ends(asked, words):
                    return found
        return None

    def _heard(self, asked: tuple[str, ...] = ()) -> Iterator[tuple[str, ...]]:
        """Answers as they come; what is none is told. Nothing in place of one that was garbled."""
        for line in self._lines.take(self._wire.said()):
            if line.garbled:
                self._tell(Happened("garbled", line.words))
                yield ()
            elif line.words[0] == "board" and asked != ("hello",):
                self._tell(Happened("restarted", line.words))
            elif line.words[0] in UNASKED and not (line.words[0] == "pin" and asked == ("discover", "on")):
                self._tell(Happened("moved", line.words))
            else:
                yield line.words


def _answers(asked: tuple[str, ...], words: tuple[str, ...]) -> bool:
    """Whether a line can be the first of the answer to what was asked."""
    first = words[0]
    if first == "error":
        return True
    if asked[0] == "hello":
        return first == "board"
    if asked[0] == "ping":
        return first == "pong"
    if asked == ("get",):
        return first in ("is", "end")
    if asked[0] in ("get", "set"):
        return words[:2] == ("is", asked[1])
    if asked[0] == "drive":
        return words[:3] == ("is", "pin", asked[1])
    if asked == ("discover", "on"):
        return first == "pin" or words[:2] == ("is", "discover")
    return words[:2] == ("is", asked[0])


def _refuses(asked: tuple[str, ...], words: tuple[str, ...]) -> bool:
    """Whether an error is about what was asked, and not about what a wire made of it."""
    what, about = words[1], words[2:]
    if what == "discover":
        return asked[0] == "drive"
    named = {"word": asked[:1], "name": asked[1:2], "pin": asked[1:2], "value": asked[-1:] if len(asked) > 1 else ()}
    return what in named and about in (named[what], ())


def _ends(asked: tuple[str, ...], words: tuple[str, ...]) -> bool:
    """Whether a line is the last of the answer."""
    if asked == ("get",):
        return words[0] == "end"
    if asked == ("discover", "on"):
        return words[:2] == ("is", "discover")
    return True
