"""What a board's program reads and drives, by the names that it is spoken of over the link.

A channel is a function's contacts together, an encoder, a voltage, a lamp, a load or a read-out. Its name is the
function's, and where a function has several, a dot and what it is: ``gong.press``, ``gong.lamp``.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.record.controllers import board_of
from wingboard.core.record.functions import UNUSED
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.lines import lines
from wingboard.core.wire.schemes.digits import dark_of
from wingboard.core.wire.schemes.networks import networks
from wingboard.core.wire.signals import ADDRESSED, CHAINED, Line, Signal, passes_on, pooled, signals

Kind = Literal["pattern", "selector", "binary", "turn", "level", "ladder",
               "lamp", "dimmed", "colour", "sound", "load", "text", "needle"]  # fmt: skip
"""Read: the pattern of some contacts, the number of the closed one, that in binary, detents, a voltage, a position over
a ladder.
Driven: on or off, so bright, so bright in any colour, a sounder, a load, letters and figures, a needle."""
READ: tuple[Kind, ...] = ("pattern", "selector", "binary", "turn", "level", "ladder")
WIRES = ("data", "clock", "load")
READOUTS = (CHAINED, {"data", "clock"})
"""The lines of a read-out whose driver has a third wire to take what came, and of one that has none."""
COILS = ("coil-1", "coil-2", "coil-3", "coil-4")
"""The lines of a gauge."""
LONGEST = 28
"""Letters of a name at the most, so that a line of the protocol holds it with its value."""


class Channel(NamedTuple):
    """Something that is read or driven. ``lines``: those of the pin list, in the order in which they are counted."""

    name: str
    kind: Kind
    controller: str
    function: str
    lines: tuple[Line, ...]
    words: tuple[str, ...] = ()
    """Of contacts and ways: what each being closed means."""
    digits: int = 0
    dark: int = 0
    """Of a read-out: its digits, and how many of them, from the left, its face hides."""


class Unserved(NamedTuple):
    """A line that no program here reads or drives, and why."""

    line: Line
    why: str


class Channels(NamedTuple):
    """Of all boards, in the order of the functions."""

    channels: tuple[Channel, ...]
    unserved: tuple[Unserved, ...]


def channels(r: Resolved) -> Channels:
    """Every channel of every board, and what is left over."""
    return r.once("channels", lambda: _Naming(r).done())


def programmed(r: Resolved) -> tuple[str, ...]:
    """The boards that take a program, by their ids: all but HID cards."""
    return tuple(c.id for c in r.design.controllers if not any(pin.coder for pin in board_of(r.design, c.board).pins))


def slug(text: str) -> str:
    """Small letters, figures and dashes: what is typed over the link."""
    flat = unicodedata.normalize("NFKD", text.replace("+", " plus ")).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", flat).strip("-") or "x"


class _Bare(NamedTuple):
    """A channel before it has its name: what tells it from the others of its function."""

    part: str
    kind: Kind
    lines: tuple[Line, ...]
    words: tuple[str, ...] = ()
    digits: int = 0
    dark: int = 0


class _Naming:
    """The channels of one design in the making."""

    def __init__(self, r: Resolved) -> None:
        self.r = r
        self.homes = {p.line: p.controller for p in r.design.pins}
        self.pins = {p.line: p.pin for p in r.design.pins}
        self.signals = {s.line.id: s for s in signals(r)}
        self.placed = {p.function.id: p for p in r.placed}
        self.networks = {s.line.id: network for network in networks(r) for s in network.signals}
        self.unserved: list[Unserved] = []
        self.taken: set[str] = set()
        self.lit: dict[str, str] = {}
        """By module what the names of its light begin with."""

    def done(self) -> Channels:
        found: list[Channel] = []
        own: dict[str, list[Line]] = {}
        for line in (*(s.line for s in signals(self.r) if pooled(s)), *lines(self.r)):
            if line.network.startswith("~light-"):
                found += self._light(line)
            elif not line.network:  # the lines of chips and matrices are there for the terminals behind them
                own.setdefault(line.function, []).append(line)
        for placed in self.r.placed:
            if placed.function.id in own:
                found += self._named(placed, list(self._bare(tuple(own[placed.function.id]))))
        return Channels(tuple(found), tuple(self.unserved))

    def _home(self, line: Line) -> str | None:
        """The board that a line ends on, or that its network does: one that is not whole there reads nothing."""
        network = self.networks.get(line.id)
        ends = {self.homes.get(one.id) for one in (network.lines if network else (line,))}
        return ends.pop() if len(ends) == 1 else None

    def _light(self, line: Line) -> Iterator[Channel]:
        """What dims the light behind a module, and the data of its addressable strips."""
        home, name = self.homes.get(line.id), self.r.modules[line.module].module.name
        if home is None:
            self.unserved.append(Unserved(line, "it has no pin yet"))
            return
        data = line.terminal == "light data"
        stem = self.lit.get(line.module) or self._free(slug(name)[: LONGEST - 9].strip("-"))
        self.lit[line.module] = stem
        yield Channel(f"{stem}.{'strips' if data else 'light'}", "colour" if data else self._bright(line, True), home,
                      "", (line,))  # fmt: skip

    def _named(self, placed: Placed, bare: list[_Bare]) -> Iterator[Channel]:
        stem = self._free(slug(placed.function.name)[: LONGEST - 9].strip("-"))
        for one in bare:
            name = stem if len(bare) == 1 else f"{stem}.{one.part}"
            homes = {self._home(line) for line in one.lines}
            home = homes.pop() if len(homes) == 1 else None
            if home is None:
                self.unserved += (Unserved(line, self._why_homeless(one.lines)) for line in one.lines)
                continue
            yield Channel(name, one.kind, home, placed.function.id, one.lines, one.words, one.digits, one.dark)

    def _why_homeless(self, of: tuple[Line, ...]) -> str:
        """Why nothing can be read or driven over some lines together."""
        behind = {n.id: n for line in of if (n := self.networks.get(line.id))}
        ends = [one for n in behind.values() for one in n.lines] or list(of)
        if not all(one.id in self.homes for one in ends):
            return f"{next(iter(behind.values())).name}: not every pin is given" if behind else "it has no pin yet"
        return "its lines are not all on one board"

    def _free(self, stem: str) -> str:
        name, n = stem, 1
        while name in self.taken:
            n += 1
            name = f"{stem}-{n}"
        self.taken.add(name)
        return name

    def _bare(self, of: tuple[Line, ...]) -> Iterator[_Bare]:
        """The channels of one function from its lines."""
        contacts: list[Signal] = []
        turns: dict[str, list[Line]] = {}
        drivers: dict[str, Line] = {}
        for line in of:
            signal = self.signals.get(line.id)
            if signal is None:
                yield from self._without_terminal(line)
            elif signal.told.does == "switch":
                contacts.append(signal)
            elif signal.told.does == "encoder":
                turns.setdefault(signal.told.id.removesuffix("a").removesuffix("b").strip("-"), []).append(line)
            elif signal.told.does == "analogue":
                yield _Bare(slug(signal.told.id), "level", (line,))
            elif signal.told.does == "lamp":
                yield _Bare(slug(signal.told.id), self._bright(line, signal.told.dims), (line,))
            elif signal.told.does == "driver":
                drivers[signal.told.id] = line
            else:
                self.unserved.append(Unserved(line, "a screen's own program drives it"))
        yield from self._contacts(contacts)
        if bits := [line for line in of if line.id not in self.signals and "-bit-" in line.id]:
            ways = [s for s in self.signals.values() if s.line.function == bits[0].function and s.by == "binary"]
            yield _Bare("position", "binary", tuple(bits), _ways(ways))
        for prefix, pair in turns.items():
            yield _Bare(slug(prefix) if prefix else "turn", "turn", tuple(pair))
        yield from self._drivers(drivers)

    def _without_terminal(self, line: Line) -> Iterator[_Bare]:
        """What stands for several terminals, and what has to do with a load."""
        end = line.id.rpartition("-")[2]
        if end == "ladder":
            ways = [s for s in self.signals.values() if s.line.function == line.function and s.by == "ladder"]
            yield _Bare("position", "ladder", (line,), _ways(ways))
        elif end == "drive":
            yield _Bare("load", "load", (line,))
        elif end == "seen":
            yield _Bare("is-on", "pattern", (line,), ("on",))
        elif "-bit-" not in line.id:
            self.unserved.append(Unserved(line, "an input coder has a program of its own"))

    def _bright(self, line: Line, dims: bool) -> Kind:
        home = self.homes.get(line.id)
        kind = next((c.board for c in self.r.design.controllers if c.id == home), None)
        pin = board_of(self.r.design, kind).pin(self.pins[line.id]) if kind else None  # chips do not dim
        return "dimmed" if dims and pin is not None and pin.pwm else "lamp"

    def _contacts(self, of: list[Signal]) -> Iterator[_Bare]:
        ways = [s for s in of if s.told.each_position]
        pushes = [s for s in of if s.told.id == "push"]
        others = [s for s in of if s not in ways and s not in pushes]
        if ways:
            yield _Bare("position", "selector", tuple(s.line for s in ways), _ways(ways))
        for some, part in ((others, "position"), (pushes, "push")):
            if some:
                name = slug(some[0].told.id) if len(some) == 1 else part
                yield _Bare(name, "pattern", tuple(s.line for s in some), tuple(_closed(s) for s in some))

    def _drivers(self, of: dict[str, Line]) -> Iterator[_Bare]:
        """Wires of a read-out, the one of an addressable lamp or of a sounder; whatever else has a program of its
        own."""
        if not of:
            return
        placed = self.placed[next(iter(of.values())).function]
        if placed.part.digits and set(of) in READOUTS:
            line = tuple(of[end] for end in WIRES if end in of)
            yield _Bare("digits", "text", line, (), placed.part.digits.count, dark_of(placed))
            return
        if tuple(sorted(of)) == COILS:
            yield _Bare("needle", "needle", tuple(of[coil] for coil in COILS))
            return
        if set(of) == ADDRESSED and passes_on(placed):
            yield _Bare("lamp", "colour", (of["data"],))
            return
        if set(of) == {"tone"}:
            yield _Bare("tone", "sound", (of["tone"],))
            return
        self.unserved += (Unserved(line, "what drives it is not programmed yet") for line in of.values())


def _ways(of: list[Signal]) -> tuple[str, ...]:
    """What each way of a selector means, in the function's words; its number where it has none."""
    said = of[0].placed.function.positions
    return tuple(said[s.way - 1] if s.way <= len(said) else str(s.way) for s in of)


def meanings(r: Resolved, c: Channel) -> tuple[tuple[int, str], ...]:
    """What each value of contacts or of a selector means, in the function's words, else in those of its part."""
    if c.kind in ("selector", "binary", "ladder"):
        between = ((0, "between two"),) if c.kind == "selector" else ()
        return (*enumerate(c.words, 1), *between)
    if c.kind != "pattern":
        return ()
    found = {s.id: s for s in signals(r)}
    contacts = [found[line.id] for line in c.lines if line.id in found]
    if not contacts:
        return (0, "off"), (1, "on")
    placed = contacts[0].placed
    names = [p.name for p in placed.part.positions]
    if not {word for s in contacts for word in s.told.closed} <= set(names):
        rest = any("" in s.told.closed for s in contacts)
        words = tuple((1 << n, _closed(s)) for n, s in enumerate(contacts))
        return ((0, "pressed, or a wire of it is broken" if rest else "at rest"), *words)
    made: dict[int, list[str]] = {}
    for n, name in enumerate(names):
        value = sum(1 << k for k, s in enumerate(contacts) if name in s.told.closed)
        word = placed.function.positions[n] if n < len(placed.function.positions) else ""
        made.setdefault(value, []).append(name if word in ("", UNUSED) else word)
    if len(names) == 1 and 0 not in made:
        made[0] = ["at rest"]
    return tuple((value, " or ".join(words)) for value, words in sorted(made.items()))


def _closed(signal: Signal) -> str:
    """What it means that a contact is closed, in the part's words."""
    return " or ".join(word or "at rest" for word in signal.told.closed) or "closed"
