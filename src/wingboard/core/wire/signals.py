"""What every terminal of the placed parts is, electrically: contacts, lamps, voltages, buses."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import board_of, open_controllers
from wingboard.core.record.functions import POOLED, Scheme, emergency
from wingboard.core.record.lamps import apart_from_logic, lamp_supply, lamp_volts, lights
from wingboard.core.record.part import BUS_LINES, PASSES_ON, PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.logic import logic_for
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.carried import read_by_itself, unlit
from wingboard.core.wire.terminals import said


class Line(NamedTuple):
    """One line between a terminal and a pin. ``id`` is the function's id (or that of a network), a dot, and the line's.

    ``function`` is the one it serves, the first of a network's.
    """

    id: str
    function: str
    name: str
    terminal: str
    module: str
    direction: Literal["in", "out", "both"]
    analogue: bool
    prefers: Literal["interrupt", "PWM"] | None
    current: float
    drop: float
    volts: float
    """Supply that a lamp is made for, without a resistor; 0: it needs one."""
    lamp: bool
    bus: str | None
    pin_current: float
    """Amperes through its pin: its own, or what a transistor wants that drives it."""
    chip_current: float
    """Amperes that it adds to those of the chip: nothing where it takes back what another line gives."""
    transistor: bool
    network: str = ""
    """Where several terminals are read or driven together: the id of what does so."""
    coder: bool = False
    """Whether it is that of an input coder, which only some cards take."""
    members: tuple[str, ...] = ()
    """The functions whose terminals these are."""
    divided: bool = False
    """Whether its pin is given its level by a divider: it wants no pull-up."""

    @property
    def unit(self) -> str:
        """What stays on one controller: a function's lines, or those of a network."""
        return self.network or self.function


class Signal(NamedTuple):
    """A terminal of a placed part as it would be wired by itself, and how it is read or driven.

    ``told`` is the part's line, ``terminal`` the terminal as it is marked, ``way`` its number where it is one of a
    selector's, else 0. ``scheme`` is what its function asks for; ``why`` says why this terminal cannot be part of that.
    """

    line: Line
    placed: Placed
    told: PartLine
    terminal: str
    way: int
    scheme: Scheme
    why: str

    @property
    def id(self) -> str:
        """Of its line."""
        return self.line.id

    @property
    def by(self) -> Scheme:
        """How it is wired: as it is asked for where that can be, else by itself."""
        return "direct" if self.why else self.scheme


def signals(r: Resolved) -> tuple[Signal, ...]:
    """Every terminal that is read or driven, in the order of the functions."""
    return r.once("signals", lambda: tuple(s for placed in r.placed for s in _of(r, placed)))


def _of(r: Resolved, placed: Placed) -> Iterator[Signal]:
    if placed.function.state == "dummy":
        return
    for line in placed.part.lines:
        told = said(placed.part).lines[line.id]
        if not read_by_itself(placed, told):
            continue  # in the circuit of its load, or of the lamp test; a controller sees it only through another one
        if unlit(placed, told):
            continue
        for way in range(1, (len(placed.function.positions) or placed.part.ways) + 1) if line.each_position else (0,):
            ident, words = (f"{line.id}-{way}", f"{line.terminal} {way}") if way else (line.id, line.terminal)
            made = _line(r, placed, line, ident, words)
            scheme = placed.function.scheme
            marked = str(way) if way else told.terminal
            yield Signal(made, placed, told, marked, way, scheme, cannot(r, placed, made, told, scheme))


SELECTOR: tuple[Scheme, ...] = ("ladder", "binary", "coder")
"""Schemes for the positions of a selector."""


def cannot(r: Resolved, placed: Placed, line: Line, told: PartLine, scheme: Scheme) -> str:
    """Why a terminal cannot be read or driven so; empty when it can."""
    if scheme == "direct":
        return ""
    if emergency(placed.function, placed.part):
        return "a stop has a line of its own: one fault of what it shared would hide it"
    if scheme in SELECTOR:
        if not told.each_position:
            return "only the positions of a selector are read so"
        if scheme == "coder":
            if not _takes_coders(r):
                return "no board here takes input coders; a HID card does"
            if (len(placed.function.positions) or placed.part.ways) > CODER_WAYS:
                return f"an input coder tells {CODER_WAYS} positions apart"
        return "" if told.back else "the common of its ways is not said"
    if scheme == "digits":
        return "" if passes_on(placed) else "only read-outs and lamps that pass their data on are in a chain"
    if line.bus:
        return "it is on a bus already"
    if line.analogue:
        return "a voltage needs a pin that measures it"
    if scheme in ("matrix", "matrix-bare"):
        return _not_in_matrix(placed, told)
    if told.does == "driver":
        return "it is driven by a program that needs its own pins"
    if told.does == "encoder":
        return "an encoder turned fast moves on before its chain, or the bus, was read again"
    return ""


CHAINED = {"data", "clock", "load"}
"""The lines of a read-out's driver on three wires."""
ADDRESSED = {"data"}
"""The line of an addressable lamp."""


def passes_on(placed: Placed) -> bool:
    """Whether a read-out's driver, or an addressable lamp, gives its data to the next one."""
    told = said(placed.part)
    return PASSES_ON in told.terminals and set(told.lines) in (CHAINED, ADDRESSED)


def _takes_coders(r: Resolved) -> bool:
    return any(pin.coder for c in open_controllers(r.design) for pin in board_of(r.design, c.board).pins)


CODER_WAYS = 12
"""Numbers that an input coder tells apart (common practice)."""


def _not_in_matrix(placed: Placed, told: PartLine) -> str:
    if told.does == "encoder":
        return "an encoder turns faster than a matrix is read"
    if told.does != "switch":
        return "only contacts are in a matrix"
    if not told.back:
        return "the other terminal of its contact is not said"
    whole = said(placed.part)
    others = {line.back for line in whole.lines.values() if line.does != "switch"}
    others |= {end for line in whole.lines.values() for end in line.ends or ()}
    others |= set(whole.feed.minus) if whole.feed else set()
    return f"its {told.back} is shared with what is no contact" if told.back in others else ""


def pooled(signal: Signal) -> bool:
    """Whether a terminal is read or driven together with others of its module."""
    return signal.by in POOLED


def _line(r: Resolved, placed: Placed, line: PartLine, ident: str, terminal: str) -> Line:
    out = line.does in ("lamp", "driver", "scl", "sck", "mosi")
    logic = logic_for(r, placed.function, f"{placed.function.id}.{ident}")
    driven = out and line.does not in BUS_LINES and _transistor(placed, line, logic)
    through = limit(r.design, "drive-current") if driven else line.current
    prefers: Literal["interrupt", "PWM"] | None = None
    if line.does == "encoder":
        prefers = "interrupt"
    elif line.does == "lamp" and line.dims:
        prefers = "PWM"
    return Line(
        id=f"{placed.function.id}.{ident}",
        function=placed.function.id,
        name=placed.function.name,
        terminal=terminal,
        module=placed.place.module,
        direction="both" if line.does == "sda" else "out" if out else "in",
        analogue=line.does == "analogue",
        prefers=prefers,
        current=line.current,
        drop=line.drop,
        volts=line.volts,
        lamp=line.does == "lamp",
        bus=line.does if line.does in BUS_LINES else None,
        pin_current=through,
        chip_current=0.0 if line.returns else through,
        transistor=driven,
    )


def _transistor(placed: Placed, line: PartLine, logic: float) -> bool:
    """Whether a pin drives a line through a transistor, a relay or a contactor: when that is said, or when what it
    drives has a supply of its own above the board's."""
    said, feed = placed.function.switches, placed.part.feed
    fed = feed.volts if feed and not line.current else 0.0
    if line.does == "lamp" and apart_from_logic(lamp_supply(placed.function, placed.part, line)):
        return True  # by a relay that the transistor drives
    higher = (lamp_volts(placed.function, placed.part) or line.volts) if line.does == "lamp" else fed
    return (bool(said.through) and lights(placed.function, placed.part)) or higher > logic
