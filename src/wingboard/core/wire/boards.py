"""Generic controllers, named by chip and pins, and what each of their pins can do.

Checked against the vendor's variant headers in ``tests/reference``. Where a chip of its own makes the USB serial line,
pins 0 and 1 carry that and are never given away; pin 13 drives the board's own lamp there and flashes at every reset.
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
"""Milliamperes that pins of these ports may give together: data sheets of the chips, from memory."""
_M32U4_PORTS = {
    0: "D2", 1: "D3", 2: "D1", 3: "D0", 4: "D4", 5: "C6", 6: "D7", 7: "E6", 8: "B4", 9: "B5", 10: "B6",
    14: "B3", 15: "B1", 16: "B2", 18: "F7", 19: "F6", 20: "F5", 21: "F4",
}  # fmt: skip
_M32U4_ALSO = {4, 6, 8, 9, 10}
"""Digital by name, and read voltages as well."""
_M32U4_PWM = {3, 5, 6, 9, 10}
_M32U4_INTERRUPTS = {0, 1, 2, 3, 7}
_M32U4_BUS = {2: "sda", 3: "scl", 15: "sck", 16: "mosi", 14: "miso"}
_M32U4_GROUPS = ((200, "B0-B7 C6-C7 D0-D7 E6 F0-F7"),)
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


def _small_u4() -> tuple[Pin, ...]:
    """Of the short outline: what its header has; the USB line is the chip's own, so 0 and 1 are free."""
    return tuple(
        Pin(f"A{n - 18}" if n >= 18 else str(n), n, n >= 18 or n in _M32U4_ALSO, n in _M32U4_PWM,
            n in _M32U4_INTERRUPTS, False, port, _M32U4_BUS.get(n))
        for n, port in _M32U4_PORTS.items()
    )  # fmt: skip


def _groups(said: tuple[tuple[int, str], ...]) -> tuple[PortGroup, ...]:
    return tuple(PortGroup(frozenset(_run(ports)), milliamps / 1000) for milliamps, ports in said)


@cache
def boards() -> dict[BoardKind, Board]:
    """The boards that can be chosen."""
    small = _pins(range(2, 14), _M328P_PWM, _M328P_INTERRUPTS, _M328P_PORTS, _M328P_BUS)
    large = _pins(range(2, 54), _M2560_PWM, _M2560_INTERRUPTS, _M2560_PORTS, _M2560_BUS)
    return {
        "atmega328p": Board("atmega328p", "ATmega328P", 20, small, _groups(_M328P_GROUPS)),
        "atmega32u4": Board("atmega32u4", "ATmega32U4", 18, _small_u4(), _groups(_M32U4_GROUPS)),
        "atmega2560": Board("atmega2560", "ATmega2560", 70, large, _groups(_M2560_GROUPS)),
    }
