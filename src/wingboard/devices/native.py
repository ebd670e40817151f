"""Programs of boards whose cores are in no package registry, compiled for this machine against a stand-in of those.

What that proves is what a program does, on pins that are numbers; not that its own tools take it, nor size or speed.
"""

from __future__ import annotations

import ctypes
import shutil
import subprocess
from collections.abc import Mapping
from pathlib import Path
from tempfile import mkdtemp
from types import TracebackType
from typing import Any, NamedTuple

from wingboard.core.record.errors import DesignError
from wingboard.core.wire.pinfiles import number_of
from wingboard.devices.chip import Bus, Watch
from wingboard.devices.toolchain import NoTools

STANDIN = Path(__file__).with_name("standin")
SECONDS = 60.0
ARCHITECTURES = {"ESP32": ("ARDUINO_ARCH_ESP32", 240), "RP2040": ("ARDUINO_ARCH_RP2040", 133)}
"""By chip what its core defines, and its clock (MHz)."""
HEADERS = Path("/usr/include/newlib")
"""Where Debian's package ``libnewlib-dev`` puts the headers of C for chips without a system."""


class Cross(NamedTuple):
    """A compiler for a chip: its words, in the order of a command, and what it compiles for."""

    command: tuple[str, ...]
    words: str


CROSS = {
    "RP2040": Cross(("arm-none-eabi-g++", "-mcpu=cortex-m0plus", "-mthumb"), "Cortex-M0+"),
    "ESP32": Cross(("xtensa-lx106-elf-g++", "-mlongcalls"), "LX106, a smaller one of its family"),
}
"""By chip the compiler that Debian has for it, or for its nearest relative."""
_BUS = ctypes.CFUNCTYPE(ctypes.c_int, ctypes.c_int, ctypes.c_int)
_WATCHER = ctypes.CFUNCTYPE(None, ctypes.c_int, ctypes.c_int, ctypes.c_uint64)


class BuiltHere(NamedTuple):
    """A program as a library of this machine, and what the compiler had to say about our files."""

    library: Path
    words: str


class Ours(NamedTuple):
    """What our files alone take on a chip (bytes), what they were compiled for, and what the compiler had to say."""

    flash: int
    ram: int
    target: str
    words: str


def ours(files: Mapping[str, str], chip: str, where: Path) -> Ours | None:
    """A folder of a program through the compiler of its chip, against the stand-in and not linked; None where this
    machine has no such compiler.

    :raises DesignError: the compiler refuses it.
    """
    cross = CROSS[chip]
    if shutil.which(cross.command[0]) is None or not HEADERS.is_dir():
        return None
    main = _written(files, where)
    architecture, megahertz = ARCHITECTURES[chip]
    made = where / "ours.o"
    said = _compiled(*cross.command, "-c", "-Os", "-fno-exceptions", "-fno-rtti", f"-D{architecture}",
                     f"-DF_CPU={megahertz}000000L", "-isystem", str(HEADERS), *_shared(), "-x", "c++", str(main), "-o",
                     str(made))  # fmt: skip
    measure = cross.command[0].removesuffix("g++") + "size"
    sizes = subprocess.run((measure, str(made)), capture_output=True, text=True, timeout=SECONDS, check=True).stdout
    text, data, bss = (int(figure) for figure in sizes.splitlines()[1].split()[:3])
    return Ours(text + data, data + bss, cross.words, said)


def _written(files: Mapping[str, str], where: Path) -> Path:
    """The folder as files; gives the one to compile."""
    where.mkdir(parents=True, exist_ok=True)
    for name, text in files.items():
        (where / name).write_text(text, "utf-8")
    return where / next(name for name in files if name.endswith(".ino"))


def _shared() -> tuple[str, ...]:
    return "-std=gnu++17", "-Wall", "-Wextra", f"-I{STANDIN}", "-include", "Arduino.h"


def _compiled(*command: str) -> str:
    done = subprocess.run(command, capture_output=True, text=True, timeout=SECONDS, check=False)
    if done.returncode:
        raise DesignError(f"The compiler refuses the program: {done.stderr.strip()[:4000]}")
    return done.stderr.strip()


def compiled_here(files: Mapping[str, str], chip: str, where: Path) -> BuiltHere:
    """A folder of a program, compiled for this machine; ``where`` is a folder for what is made.

    :raises NoTools: there is no compiler, or no stand-in for that chip. :raises DesignError: the compiler refuses it.
    """
    if chip not in ARCHITECTURES:
        raise NoTools(f"There are no tools here for {chip}")
    compiler = shutil.which("g++")
    if compiler is None:
        raise NoTools("No compiler for this machine is installed; on Debian: apt install g++")
    main = _written(files, where)
    architecture, megahertz = ARCHITECTURES[chip]
    library = where / "program.so"
    said = _compiled(compiler, "-O1", "-shared", "-fPIC", "-Wl,-Bsymbolic", f"-D{architecture}",
                     f"-DF_CPU={megahertz}000000L", *_shared(), "-x", "c++", str(main), str(STANDIN / "core.cpp"), "-o",
                     str(library))  # fmt: skip
    return BuiltHere(library, said)


class Native:
    """A board with a program that runs on this machine, from reset on; time passes only in :meth:`run`. As
    :class:`wingboard.devices.chip.Chip`, but that its pins have no ports: each is the first of a port of its number."""

    hertz = 1_000_000_000

    def __init__(self, built: BuiltHere) -> None:
        self._built, self._wrong = built, list[Exception]()
        self._watch: Watch | None = None
        self._on_bus: Bus | None = None
        self._before = 0
        self._folder = Path(mkdtemp(prefix="wingboard-"))
        self._loaded = 0
        self._load()

    def __enter__(self) -> Native:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        shutil.rmtree(self._folder, ignore_errors=True)

    def _load(self) -> None:
        """A copy of its own, so that everything in it is as after reset."""
        self._loaded += 1
        copy = self._folder / f"{self._loaded}.so"
        shutil.copy(self._built.library, copy)
        self._library: Any = ctypes.CDLL(str(copy))
        self._library.board_now.restype = ctypes.c_uint64
        self._library.board_run.argtypes = [ctypes.c_uint64]
        self._watcher, self._bus = _WATCHER(self._changed), _BUS(self._asked)
        self._library.board_watch(self._watcher)
        self._library.board_on_bus(self._bus)

    def _changed(self, pin: int, level: int, time: int) -> None:
        if self._watch is None:
            return
        try:
            if pin < 0:  # it turned
                self._watch(level, -1, int(self._library.board_drives(level) >= 0), time)
            else:
                self._watch(pin, 0, level, time)
        except Exception as error:  # noqa: BLE001 - nothing can be raised through the program
            self._wrong = self._wrong or [error]

    def _asked(self, what: int, byte: int) -> int:
        try:
            return self._on_bus(what, byte) if self._on_bus else -1
        except Exception as error:  # noqa: BLE001 - nothing can be raised through the program
            self._wrong = self._wrong or [error]
            return -1

    @property
    def pins(self) -> dict[str, tuple[int, int]]:
        """The pins as they are watched, by the names that boards have for them."""
        plain = {str(n): (n, 0) for n in range(64)}
        return plain | {f"GP{n}": (n, 0) for n in range(64)}

    def run(self, seconds: float) -> None:
        """Lets time pass. What goes wrong in what watches, or is on the bus, is raised here."""
        self._library.board_run(int(seconds * self.hertz))
        if self._wrong:
            raise self._wrong.pop()

    @property
    def now(self) -> float:
        """Seconds since it was first powered."""
        return self._before / self.hertz + float(self._library.board_now()) / self.hertz

    def reset(self) -> None:
        """As its button does."""
        self._before += int(self._library.board_now())
        self._load()

    def watch(self, watch: Watch) -> None:
        """Be told of every change of a pin."""
        self._watch = watch

    def on_bus(self, bus: Bus) -> None:
        """Hang something on the bus of two wires."""
        self._on_bus = bus

    def drive(self, pin: str, level: bool | None) -> None:
        """Hold a pin at a level from outside; None lets it go."""
        self._library.board_drive(int(number_of(pin)), -1 if level is None else int(level))

    def drives(self, pin: str) -> bool | None:
        """The level at which the program drives a pin; None where it is an input."""
        level = int(self._library.board_drives(int(number_of(pin))))
        return None if level < 0 else bool(level)

    def written(self, pin: str) -> bool:
        """What the program wrote to a pin, whether it drives it or not."""
        return bool(self._library.board_written(int(number_of(pin))))

    def pulls_up(self, pin: str) -> bool:
        """Whether a pin is an input with its pull-up on."""
        return bool(self._library.board_pulls_up(int(number_of(pin))))

    def dims(self, pin: str) -> int | None:
        """How bright a pin is dimmed, 0 to 255; None where it is not dimmed."""
        value = int(self._library.board_dims(int(number_of(pin))))
        return None if value < 0 else value

    def volts(self, pin: str, volts: float) -> None:
        """A voltage at a pin that measures."""
        self._library.board_volts(int(number_of(pin)), round(volts * 1000))

    def hear(self, text: str | bytes) -> None:
        """Letters to its serial port."""
        letters = text.encode("latin-1", "replace") if isinstance(text, str) else text
        self._library.board_hear(letters, len(letters))

    def said(self) -> str:
        """What its serial port said since the last time."""
        room = ctypes.create_string_buffer(1 << 16)
        count = int(self._library.board_said(room, len(room)))
        return room.raw[:count].decode("latin-1")
