"""Generic controllers, named by chip and pins, and what each of their pins can do.

Checked against the vendor's variant headers in ``tests/reference``. Pins 0 and 1 carry the USB serial line and are
never given away; pin 13 drives the board's own lamp and flashes at every reset.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import NamedTuple

from wingboard.core.record.wiring import BoardKind

BUS_NAMES = {"sda": "I²C SDA", "scl": "I²C SCL", "sck": "SPI SCK", "mosi": "SPI MOSI", "miso": "SPI MISO"}


class Pin(NamedTuple):
    """A pin that may be given to a line. ``port`` is the chip's port and bit, ``bus`` what it is of a bus."""

    name: str
    number: int
    analogue: bool
    pwm: bool
    interrupt: bool
    flashes: bool
    port: str
    bus: str | None

    def can(self) -> tuple[str, ...]:
        """Its capabilities in words, for the interface and the pin list."""
        named = {
            "analogue": self.analogue,
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


class Board(NamedTuple):
    """A kind of controller, named by its chip and by how many pins its header has in all."""

    kind: BoardKind
    chip: str
    header: int
    pins: tuple[Pin, ...]
    groups: tuple[PortGroup, ...]

    @property
    def name(self) -> str:
        """“ATmega2560, 70 pins”."""
        return f"{self.chip}, {self.header} pins"

    def pin(self, name: str) -> Pin | None:
        """The pin of that name, when it may be given away."""
        return next((p for p in self.pins if p.name == name), None)

    def bus_pin(self, bus: str) -> Pin | None:
        """The pin that is a line of a bus."""
        return next((p for p in self.pins if p.bus == bus), None)

    def group(self, pin: Pin) -> PortGroup | None:
        """The ports that share a limit of current with a pin."""
        return next((g for g in self.groups if pin.port in g.ports), None)


def _run(text: str) -> tuple[str, ...]:
    """“D0-D2 G2” is D0, D1, D2, G2; a run may go downwards."""
    found: list[str] = []
    for word in text.split():
        first, _, last = word.partition("-")
        a, b = int(first[1:]), int((last or first)[1:])
        found += [f"{first[0]}{n}" for n in range(a, b + (1 if b >= a else -1), 1 if b >= a else -1)]
    return tuple(found)


_M328P_PORTS = _run("D0-D7 B0-B5 C0-C5")
_M2560_PORTS = _run("E0-E1 E4-E5 G5 E3 H3-H6 B4-B7 J1 J0 H1 H0 D3-D0 A0-A7 C7-C0 D7 G2 G1 G0 L7-L0 B3-B0 F0-F7 K0-K7")
"""The port of each pin, from 0 on: the vendor's variant headers (checked in the tests)."""
_M328P_GROUPS = ((150, "C0-C5 D0-D4"), (150, "B0-B5 D5-D7"))
_M2560_GROUPS = (
    (200, "J0-J7 G2 A0-A7"), (200, "C0-C7 G0-G1 D0-D7 L0-L7"), (200, "G3-G4 B0-B7 H0-H7"),
    (100, "E0-E7 G5"), (100, "F0-F7 K0-K7"),
)  # fmt: skip
"""Milliamperes that pins of these ports may give together: data sheets of the two chips, from memory."""
_M328P_BUS = {18: "sda", 19: "scl", 13: "sck", 11: "mosi", 12: "miso"}
_M2560_BUS = {20: "sda", 21: "scl", 52: "sck", 51: "mosi", 50: "miso"}
_M328P_PWM = {3, 5, 6, 9, 10, 11}
_M328P_INTERRUPTS = {2, 3}
_M2560_PWM = {*range(2, 14), 44, 45, 46}
_M2560_INTERRUPTS = {2, 3, 18, 19, 20, 21}


def _pins(
    digital: range, pwm: set[int], interrupts: set[int], ports: tuple[str, ...], bus: Mapping[int, str]
) -> tuple[Pin, ...]:
    plain = [Pin(str(n), n, False, n in pwm, n in interrupts, n == 13, ports[n], bus.get(n)) for n in digital]
    first = digital.stop
    inputs = [
        Pin(f"A{n - first}", n, True, False, False, False, ports[n], bus.get(n)) for n in range(first, len(ports))
    ]
    return (*plain, *inputs)


def _groups(said: tuple[tuple[int, str], ...]) -> tuple[PortGroup, ...]:
    return tuple(PortGroup(frozenset(_run(ports)), milliamps / 1000) for milliamps, ports in said)


@cache
def boards() -> dict[BoardKind, Board]:
    """The boards that can be chosen."""
    small = _pins(range(2, 14), _M328P_PWM, _M328P_INTERRUPTS, _M328P_PORTS, _M328P_BUS)
    large = _pins(range(2, 54), _M2560_PWM, _M2560_INTERRUPTS, _M2560_PORTS, _M2560_BUS)
    return {
        "atmega328p": Board("atmega328p", "ATmega328P", 20, small, _groups(_M328P_GROUPS)),
        "atmega2560": Board("atmega2560", "ATmega2560", 70, large, _groups(_M2560_GROUPS)),
    }
