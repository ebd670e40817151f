"""Generic controller boards and what each of their pins can do.

Checked against the vendor's variant headers in ``tests/reference``. Pins 0 and 1 carry the USB serial line and are
never given away; pin 13 drives the board's own lamp and flashes at every reset.
"""

from __future__ import annotations

from functools import cache
from typing import NamedTuple

from wingboard.core.design.model import BoardKind


class Pin(NamedTuple):
    """A pin that may be given to a signal."""

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
    """A kind of board."""

    kind: BoardKind
    name: str
    chip: str
    pins: tuple[Pin, ...]

    def pin(self, name: str) -> Pin | None:
        """The pin of that name, when it may be given away."""
        return next((p for p in self.pins if p.name == name), None)


_UNO_PWM = {3, 5, 6, 9, 10, 11}
_UNO_INTERRUPTS = {2, 3}
_MEGA_PWM = {*range(2, 14), 44, 45, 46}
_MEGA_INTERRUPTS = {2, 3, 18, 19, 20, 21}


def _pins(digital: range, analogue: int, pwm: set[int], interrupts: set[int]) -> tuple[Pin, ...]:
    plain = [Pin(str(n), n, False, n in pwm, n in interrupts, n == 13) for n in digital]
    inputs = [Pin(f"A{k}", digital.stop + k, True, False, False, False) for k in range(analogue)]
    return (*plain, *inputs)


@cache
def boards() -> dict[BoardKind, Board]:
    """The boards that can be chosen."""
    return {
        "uno": Board("uno", "Uno", "ATmega328P", _pins(range(2, 14), 6, _UNO_PWM, _UNO_INTERRUPTS)),
        "mega": Board("mega", "Mega", "ATmega2560", _pins(range(2, 54), 16, _MEGA_PWM, _MEGA_INTERRUPTS)),
    }
