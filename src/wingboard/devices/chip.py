"""A simulated AVR chip: runs a compiled program, moves its pins and reads them, talks to its serial port."""

from __future__ import annotations

import ctypes
import re
import shutil
import subprocess
from collections.abc import Callable
from functools import cache
from pathlib import Path
from types import TracebackType
from typing import Any

import platformdirs

from wingboard.devices.toolchain import CORE, HERTZ, Built, NoTools

Watch = Callable[[int, int, int, int], None]
"""Told of a pin that the program changes: port from 0 for A, bit, level, cycle; with bit -1 of the ways that a port is
about to turn, a bit each."""
Bus = Callable[[int, int], int]
"""What hangs on the bus of two wires: asked with one of the words below, and a byte; below 0: no answer."""
ADDRESS, WRITTEN, WANTED, ENDED = range(4)
"""An address is spoken to (its lowest bit: it is to be read), a byte written, one wanted, all ended."""
_BUS = ctypes.CFUNCTYPE(ctypes.c_int, ctypes.c_int, ctypes.c_int)
_WATCHER = ctypes.CFUNCTYPE(None, ctypes.c_int, ctypes.c_int, ctypes.c_int, ctypes.c_uint64)
_SOURCE = Path(__file__).with_name("chip.c")


class Crashed(Exception):
    """The simulated program ran into nothing."""


class Chip:
    """A chip with a program, running from reset on; time passes only in :meth:`run`."""

    hertz = HERTZ

    def __init__(self, built: Built) -> None:
        """:raises NoTools: the simulator is not installed."""
        self._library = _library()
        self._chip = self._library.chip_new(str(built.elf).encode(), built.target.chip.encode(), HERTZ)
        if not self._chip:
            raise NoTools(f"The simulator does not know the {built.target.chip}")
        self.pins = _pins(built.target.variant)
        self._watcher: Any = None
        self._bus: Any = None
        self._wrong: list[Exception] = []

    def __enter__(self) -> Chip:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._library.chip_free(self._chip)

    def run(self, seconds: float) -> None:
        """Lets time pass. :raises Crashed: the program ended. What goes wrong in what watches, or is on the bus, is
        raised here too."""
        ran = self._library.chip_run(self._chip, int(seconds * HERTZ))
        if self._wrong:
            raise self._wrong.pop()
        if not ran:
            raise Crashed

    @property
    def now(self) -> float:
        """Seconds since reset."""
        return float(self._library.chip_cycle(self._chip)) / HERTZ

    def reset(self) -> None:
        """As its button does."""
        self._library.chip_reset(self._chip)

    def watch(self, watch: Watch) -> None:
        """Be told of every change of a pin."""

        def told(port: int, bit: int, level: int, cycle: int) -> None:
            try:
                watch(port, bit, level, cycle)
            except Exception as error:  # noqa: BLE001 - nothing can be raised through the simulator
                self._wrong = self._wrong or [error]

        self._watcher = _WATCHER(told)
        self._library.chip_watch(self._chip, self._watcher)

    def on_bus(self, bus: Bus) -> None:
        """Hang something on the bus of two wires."""

        def asked(what: int, byte: int) -> int:
            try:
                return bus(what, byte)
            except Exception as error:  # noqa: BLE001 - nothing can be raised through the simulator
                self._wrong = self._wrong or [error]
                return -1

        self._bus = _BUS(asked)
        self._library.chip_bus(self._chip, self._bus)

    def drive(self, pin: str, level: bool | None) -> None:
        """Hold a pin at a level from outside; None lets it go."""
        port, bit = self.pins[pin]
        self._library.chip_drive(self._chip, port, bit, -1 if level is None else int(level))

    def drives(self, pin: str) -> bool | None:
        """The level at which the program drives a pin; None where it is an input."""
        port, bit = self.pins[pin]
        word = self._library.chip_port(self._chip, port)
        return bool(word >> (8 + bit) & 1) if word >> (16 + bit) & 1 else None

    def written(self, pin: str) -> bool:
        """What the program wrote to a pin, whether it drives it or not."""
        port, bit = self.pins[pin]
        return bool(self._library.chip_port(self._chip, port) >> (8 + bit) & 1)

    def pulls_up(self, pin: str) -> bool:
        """Whether a pin is an input with its pull-up on."""
        port, bit = self.pins[pin]
        word = self._library.chip_port(self._chip, port)
        return not word >> (16 + bit) & 1 and bool(word >> (8 + bit) & 1)

    def volts(self, pin: str, volts: float) -> None:
        """A voltage at a pin that measures."""
        self._library.chip_volts(self._chip, int(pin.removeprefix("A")), round(volts * 1000))

    def memory(self, address: int) -> int:
        """A byte of its memory, registers too."""
        return int(self._library.chip_memory(self._chip, address))

    def hear(self, text: str | bytes) -> None:
        """Letters to its serial port."""
        letters = text.encode("latin-1", "replace") if isinstance(text, str) else text
        self._library.chip_hear(self._chip, letters, len(letters))

    def said(self) -> str:
        """What its serial port said since the last time."""
        room = ctypes.create_string_buffer(1 << 16)
        count = self._library.chip_said(self._chip, room, len(room))
        return room.raw[:count].decode("latin-1")


@cache
def _library() -> Any:
    """The driver, compiled once and kept."""
    compiler = shutil.which("cc") or shutil.which("gcc")
    if compiler is None or not Path("/usr/include/simavr/sim_avr.h").is_file():
        raise NoTools("No simulator for AVR chips is installed; on Debian: apt install gcc libc6-dev libsimavr-dev")
    kept = platformdirs.user_cache_path("wingboard") / "chip"
    kept.mkdir(parents=True, exist_ok=True)
    made = kept / f"chip-{_SOURCE.stat().st_mtime_ns}.so"
    if not made.is_file():
        fresh = made.with_suffix(".fresh")
        command = (compiler, "-O2", "-shared", "-fPIC", str(_SOURCE), "-o", str(fresh), "-lsimavr")
        done = subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)
        if done.returncode:
            raise NoTools(f"The simulator's driver does not compile: {done.stderr[:1000]}")
        fresh.replace(made)
    library = ctypes.CDLL(str(made))
    whole, chip = ctypes.c_int, ctypes.c_void_p
    library.chip_new.restype, library.chip_cycle.restype = chip, ctypes.c_uint64
    library.chip_new.argtypes = [ctypes.c_char_p, ctypes.c_char_p, ctypes.c_uint32]
    for name in ("free", "cycle", "reset"):
        getattr(library, f"chip_{name}").argtypes = [chip]
    library.chip_run.argtypes = [chip, ctypes.c_uint64]
    library.chip_watch.argtypes = [chip, _WATCHER]
    library.chip_bus.argtypes = [chip, _BUS]
    library.chip_drive.argtypes = [chip, whole, whole, whole]
    library.chip_port.argtypes = library.chip_memory.argtypes = [chip, whole]
    library.chip_volts.argtypes = [chip, whole, whole]
    library.chip_hear.argtypes = library.chip_said.argtypes = [chip, ctypes.c_char_p, whole]
    return library


@cache
def _pins(variant: str) -> dict[str, tuple[int, int]]:
    """The port and bit of each pin by its name, from the variant's own header."""
    text = re.sub(
        r"//[^\n]*|/\*.*?\*/", "", (CORE / "variants" / variant / "pins_arduino.h").read_text(), flags=re.DOTALL
    )

    def table(name: str) -> str:
        found = re.search(rf"{name}\[\] = \{{(.*?)\}};", text, re.DOTALL)
        return found[1] if found else ""

    ports = [ord(port) - ord("A") for port in re.findall(r"\bP([A-L])\b", table("digital_pin_to_port_PGM"))]
    bits = [int(bit) for bit in re.findall(r"_BV\(\s*(\d)", table("digital_pin_to_bit_mask_PGM"))]
    numbered = list(zip(ports, bits, strict=True))
    measuring = re.findall(r"PIN_A(\d+)\s+\(?(\d+)\)?", text)
    found = {str(n): at for n, at in enumerate(numbered)}
    return found | {f"A{n}": numbered[int(number)] for n, number in measuring if int(number) < len(numbered)}
