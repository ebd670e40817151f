"""Serial ports of this machine, and the boards at them."""

from __future__ import annotations

import time
from types import TracebackType
from typing import NamedTuple

import serial
from serial.tools import list_ports

from wingboard.core.record.errors import DesignError

BAUD = 115_200
"""Of the protocol."""
MOMENT = 0.01
"""Seconds that a port is listened to at once."""


class NoPort(DesignError):
    """A port that cannot be had."""

    title = "The port cannot be opened"


class There(NamedTuple):
    """A port of this machine: how it is opened, and what its plug says of itself."""

    port: str
    words: str


def ports() -> tuple[There, ...]:
    """The ports at which something is plugged in, in the order of their names."""
    found = (There(p.device, p.description if p.description not in ("", "n/a") else "") for p in list_ports.comports())
    return tuple(sorted(found))


class Port:
    """A board at a serial port. Most boards start anew when theirs is opened."""

    def __init__(self, name: str) -> None:
        """:raises NoPort: there is none, or another program has it."""
        self._begun = time.monotonic()
        try:
            self._serial = serial.Serial(name, BAUD, timeout=MOMENT, write_timeout=1.0, exclusive=True)
        except (OSError, ValueError) as error:
            raise NoPort(f"{name}: {getattr(error, 'strerror', None) or error}", "port") from error

    def __enter__(self) -> Port:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._serial.close()

    @property
    def now(self) -> float:
        """Seconds since it was opened."""
        return time.monotonic() - self._begun

    def hear(self, text: str) -> None:
        """Letters to the board. :raises NoPort: it was unplugged."""
        try:
            self._serial.write(text.encode("latin-1", "replace"))
        except OSError as error:
            raise NoPort(f"{self._serial.name}: the board is gone: {error}", "port") from error

    def said(self) -> str:
        """What the board said within a moment. :raises NoPort: it was unplugged."""
        try:
            first = self._serial.read(1)
            return bytes(first + self._serial.read(self._serial.in_waiting)).decode("latin-1")
        except (OSError, TypeError) as error:
            raise NoPort(f"{self._serial.name}: the board is gone: {error}", "port") from error
