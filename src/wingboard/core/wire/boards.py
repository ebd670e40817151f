"""Generic controllers, named by chip and pins, and what each of their pins can do.

Checked against the vendor's variant headers in ``tests/reference``. Pins 0 and 1 carry the USB serial line and are
never given away; pin 13 drives the board's own lamp and flashes at every reset.
"""

from __future__ import annotations

from functools import cache
from typing import NamedTuple

from wingboard.core.record.wiring import BoardKind


class Pin(NamedTuple):
    """A pin that may be given to a line."""

    name: str
    number: int
    analogue: bool
    pwm: bool
    interrupt: bool
    flashes: bool

    def can(self) -> tuple[str, ...]:
        """Its capabilities in words, for the interface and the pin list."""
        named = {
            "analogue": self.analogue,
            "PWM": self.pwm,
            "interrupt": self.interrupt,
            "flashes at reset": self.flashes,
        }
        return tuple(word for word, there in named.items() if there)


class Board(NamedTuple):
    """A kind of controller, named by its chip and by how many pins its header has in all."""

    kind: BoardKind
    chip: str
    header: int
    pins: tuple[Pin, ...]

    @property
    def name(self) -> str:
        """“ATmega2560, 70 pins”."""
        return f"{self.chip}, {self.header} pins"

    def pin(self, name: str) -> Pin | None:
        """The pin of that name, when it may be given away."""
        return next((p for p in self.pins if p.name == name), None)


_M328P_PWM = {3, 5, 6, 9, 10, 11}
_M328P_INTERRUPTS = {2, 3}
_M2560_PWM = {*range(2, 14), 44, 45, 46}
_M2560_INTERRUPTS = {2, 3, 18, 19, 20, 21}


def _pins(digital: range, analogue: int, pwm: set[int], interrupts: set[int]) -> tuple[Pin, ...]:
    plain = [Pin(str(n), n, False, n in pwm, n in interrupts, n == 13) for n in digital]
    inputs = [Pin(f"A{k}", digital.stop + k, True, False, False, False) for k in range(analogue)]
    return (*plain, *inputs)


@cache
def boards() -> dict[BoardKind, Board]:
    """The boards that can be chosen."""
    return {
        "atmega328p": Board("atmega328p", "ATmega328P", 20, _pins(range(2, 14), 6, _M328P_PWM, _M328P_INTERRUPTS)),
        "atmega2560": Board("atmega2560", "ATmega2560", 70, _pins(range(2, 54), 16, _M2560_PWM, _M2560_INTERRUPTS)),
    }
