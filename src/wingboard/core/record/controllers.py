"""Controllers, named by chip and pins: what each of their pins can do, where it lies, what it and the chip may carry.

The kinds that come with the program are data (``board_data``), checked in ``tests/reference`` against the vendor's
variant headers where there are any; the others are from memory. A builder describes a board of their own in the design.
Where a chip of its own makes the USB serial line, the pins that carry that are never given away.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from typing import Any, NamedTuple, get_args

from wingboard.core.record.design import Design
from wingboard.core.record.wiring import BoardKind, Controller, OwnBoard

BUS_NAMES = {"sda": "I²C SDA", "scl": "I²C SCL", "sck": "SPI SCK", "mosi": "SPI MOSI", "miso": "SPI MISO"}


class Pin(NamedTuple):
    """A pin that may be given to a line. ``port`` is the chip's port and bit (empty where it has none), ``bus`` what it
    is of a bus; ``radio``: it measures only while the chip's radio is off; ``strap``: its level at power-up chooses how
    the chip starts; ``coder``: it takes an input coder and nothing else."""

    name: str
    number: int
    analogue: bool
    pwm: bool
    interrupt: bool
    flashes: bool
    port: str
    bus: str | None
    reads: bool = True
    drives: bool = True
    pull_up: bool = True
    strap: bool = False
    radio: bool = False
    coder: bool = False

    def can(self) -> tuple[str, ...]:
        """Its capabilities in words, for the interface and the pin list."""
        named = {
            "coder": self.coder,
            "input only": self.reads and not self.drives,
            "measures only": not self.reads and self.analogue,
            "no pull-up": self.reads and not self.pull_up,
            "read at power-up": self.strap,
            "analogue": self.analogue and not self.radio,
            "analogue without the radio": self.analogue and self.radio,
            "PWM": self.pwm,
            "interrupt": self.interrupt,
            "flashes at reset": self.flashes,
        }
        words = tuple(word for word, there in named.items() if there)
        return (*words, BUS_NAMES[self.bus]) if self.bus else words


class PortGroup(NamedTuple):
    """Ports whose pins together may carry so much (A)."""

    ports: frozenset[str]
    most: float

    @property
    def name(self) -> str:
        """“ports F, K”."""
        letters = sorted({port[0] for port in self.ports})
        return f"port{'s' if len(letters) > 1 else ''} {', '.join(letters)}"


def open_controllers(design: Design) -> tuple[Controller, ...]:
    """The controllers that lines may go to: not those onto which something is plugged."""
    return tuple(c for c in design.controllers if c.reserved is None)


class Carries(NamedTuple):
    """Amperes to plan with, and never to be passed."""

    plan: float
    most: float


class Board(NamedTuple):
    """A kind of controller, named by its chip and by how many pins its header has in all.

    ``volts``: of its logic, ``rails``: by terminal, ``bits``: of its converter, ``takes``: amperes for itself.
    ``each`` and ``whole``: what a pin and the chip carry; None: the usual limits of an AVR chip. ``sides``: its pads as
    they lie, each side from the USB plug on (or from the aerial), seen from the side of the parts.
    """

    kind: str
    chip: str
    header: int
    pins: tuple[Pin, ...]
    groups: tuple[PortGroup, ...]
    volts: float = 5.0
    rails: Mapping[str, float] = {"5V": 5.0}
    bits: int = 10
    takes: float = 0.05
    each: Carries | None = None
    whole: Carries | None = None
    sides: Mapping[str, tuple[str, ...]] = {}

    @property
    def name(self) -> str:
        """“ATmega2560, 70 pins”."""
        return f"{self.chip}, {self.header} pins"

    @property
    def logic(self) -> str:
        """The terminal of its logic's volts."""
        return next(terminal for terminal, volts in self.rails.items() if volts == self.volts)

    def pin(self, name: str) -> Pin | None:
        """The pin of that name, when it may be given away."""
        return next((p for p in self.pins if p.name == name), None)

    def bus_pin(self, bus: str) -> Pin | None:
        """The pin that is a line of a bus."""
        return next((p for p in self.pins if p.bus == bus), None)

    def group(self, pin: Pin) -> PortGroup | None:
        """The ports that share a limit of current with a pin."""
        return next((g for g in self.groups if pin.port in g.ports), None)


def _pin(name: str, number: int, said: str) -> Pin:
    """A pin from its port (- where it has none) and its roles in words."""
    port, *roles = said.split()
    has = set(roles)
    return Pin(
        name=name,
        number=number,
        analogue=bool(has & {"adc", "adc2", "measures"}),
        pwm="pwm" in has,
        interrupt="int" in has,
        flashes="flashes" in has,
        port="" if port == "-" else port,
        bus=next((role for role in roles if role in BUS_NAMES), None),
        reads=bool(has & {"io", "in"}),
        drives=bool(has & {"io", "out"}),
        pull_up="up" in has,
        strap="strap" in has,
        radio="adc2" in has,
        coder="coder" in has,
    )


def _numbers(names: Mapping[str, str], first: int | None = None) -> dict[str, int]:
    """By which pins come in their natural order: figures as they are, the others behind them, or from ``first`` on."""
    found = {name: int(name) for name in names if name.isdigit()}
    start = max(found.values(), default=-1) + 1 if first is None else first
    others = [name for name in names if not name.isdigit()]
    return found | {name: start + n for n, name in enumerate(others)}


def _read(kind: str, text: str) -> Board:
    said: dict[str, Any] = tomllib.loads(text)
    pins: dict[str, str] = said["pins"]
    numbers = _numbers(pins, said.get("others_from"))
    return Board(
        kind=kind,
        chip=said["chip"],
        header=said["header"],
        pins=tuple(_pin(name, numbers[name], roles) for name, roles in pins.items()),
        groups=tuple(PortGroup(frozenset(g["ports"].split()), g["most"]) for g in said.get("groups", ())),
        volts=said["volts"],
        rails=said["rails"],
        bits=said["bits"],
        takes=said["takes"],
        each=Carries(**said["pin"]) if "pin" in said else None,
        whole=Carries(**said["chip_current"]) if "chip_current" in said else None,
        sides={side: tuple(said[side].split()) for side in SIDES if side in said},
    )


SIDES = ("left", "right", "end_left", "end_right")
"""The rows of pads of a board; the last two are of a header at its far end."""


@cache
def boards() -> dict[BoardKind, Board]:
    """The kinds that come with the program."""
    folder = resources.files("wingboard.core.record") / "board_data"
    kinds: tuple[BoardKind, ...] = get_args(BoardKind)
    return {kind: _read(kind, (folder / f"{kind}.toml").read_text("utf-8")) for kind in kinds}


@cache
def _own(board: OwnBoard) -> Board:
    roles = {pin.name: " ".join(("-", *pin.roles)) for pin in board.pins}
    numbers = _numbers(roles)
    pins = (_pin(name, numbers[name], said) for name, said in roles.items())
    half = -(-len(board.pins) // 2)
    names = tuple(pin.name for pin in board.pins)
    rail = "5V" if board.volts == 5 else "3V3" if board.volts == 3.3 else f"{board.volts:g}V"
    carried = Carries(board.pin_current, board.pin_current) if board.pin_current else None
    whole = Carries(board.chip_current, board.chip_current) if board.chip_current else None
    return Board(board.id, board.name, len(names), tuple(pins), (), board.volts, {rail: board.volts}, board.bits, 0.05,
                 carried, whole, {"left": names[:half], "right": names[half:]})  # fmt: skip


def board_of(design: Design, kind: str) -> Board:
    """A kind of board: one that comes with the program, or the design's own. :raises KeyError: there is none."""
    for own in design.boards:
        if own.id == kind:
            return _own(own)
    return boards()[kind]  # type: ignore[index]


def logic_of(design: Design, controller: str | None) -> float:
    """Volts of a controller's logic; of the first one for None, 5 where there is none at all."""
    found = next((c for c in design.controllers if controller in (None, c.id)), None)
    return board_of(design, found.board).volts if found else 5.0


def rank(board: Board) -> Mapping[str, int]:
    """The place of each pin along the board's edge: side by side, as its pads lie; those for coders apart."""
    there = {pin.name: pin for pin in board.pins}
    pads = [pad for side in board.sides.values() for pad in side if pad in there]
    every = [there[name] for name in dict.fromkeys((*pads, *there))]
    found = {}
    for coder in (False, True):
        found.update({pin.name: n for n, pin in enumerate(p for p in every if p.coder == coder)})
    return found
