"""Compiling the programs of AVR boards with the machine's own tools, and saying what they take."""

from __future__ import annotations

import hashlib
import math
import re
import shutil
import subprocess
from collections.abc import Mapping
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from types import MappingProxyType
from typing import NamedTuple

import platformdirs

from wingboard.core.record.errors import DesignError

CORE = Path("/usr/share/arduino/hardware/arduino/avr")
"""Where Debian's package ``arduino-core-avr`` puts the core and the boards' variants."""
SECONDS = 120.0
HERTZ = 16_000_000
STACK = 256
"""Bytes of RAM that are left for what is called from what (our own were seen to use 160, interrupts among it)."""
_HOLDS = {
    "input": ("INPUTS", "CONTACTS", "inputSaid", "betweenSince", "contactState"),
    "output": ("OUTPUTS", "outputSet"),
    "read-out": ("DISPLAYS", "displayShows", "displaySegments"),
}
"""By kind of thing the tables and the variables that grow with each."""


class Target(NamedTuple):
    """What a chip is to the tools: its name, the folder of its pins, further definitions, its memories (bytes)."""

    chip: str
    variant: str
    defines: tuple[str, ...]
    flash: int
    ram: int


TARGETS: dict[str, Target] = {
    "ATmega328P": Target("atmega328p", "standard", ("ARDUINO_AVR_UNO",), 32_256, 2_048),
    "ATmega2560": Target("atmega2560", "mega", ("ARDUINO_AVR_MEGA2560",), 253_952, 8_192),
    "ATmega32U4": Target("atmega32u4", "leonardo", ("ARDUINO_AVR_LEONARDO", "USB_VID=0x2341", "USB_PID=0x8036"),
                         28_672, 2_560),
}  # fmt: skip
"""By a board's chip. Flash without the loader (vendor's boards.txt), RAM by the data sheets."""
_SHARED = ("-c", "-g", "-Os", f"-DF_CPU={HERTZ}L", "-DARDUINO=10819", "-DARDUINO_ARCH_AVR", "-ffunction-sections",
           "-fdata-sections", "-flto")  # fmt: skip
_LIBRARIES = ("Wire",)
"""Those of the core's own that programs take; the linker leaves out what one does not."""
_CXX = ("-std=gnu++11", "-DDECIMAL_DIG=__DECIMAL_DIG__", "-fno-exceptions", "-fno-threadsafe-statics")
"""The definition is wanted by the headers of gcc 5.4."""


class NoTools(DesignError):
    """This machine has no tools for it."""

    title = "It cannot be compiled here"


class Built(NamedTuple):
    """A compiled program: the file, the bytes it takes and has, and what the compiler had to say about our files.

    ``each``: by kind of thing (“input”, “output”, “read-out”) the bytes of flash and of RAM that all of them take.
    """

    elf: Path
    flash: int
    ram: int
    target: Target
    words: str
    each: Mapping[str, tuple[int, int]] = MappingProxyType({})

    @property
    def excess(self) -> tuple[int, int]:
        """Bytes of flash and of RAM that are too many; RAM has to hold what is called, too."""
        return max(0, self.flash - self.target.flash), max(0, self.ram + STACK - self.target.ram)

    @property
    def over(self) -> str:
        """By how much it does not fit; empty where it does."""
        flash, ram = self.excess
        kept = f" ({STACK} are kept free for its stack)"
        return " and ".join([*([f"{flash} bytes of flash too many"] if flash else []),
                             *([f"{ram} bytes of RAM too many{kept}"] if ram else [])])  # fmt: skip

    def lighter(self, counts: Mapping[str, int]) -> str:
        """What to take to another board so that it fits: so many of one kind of thing, or of another.

        :param counts: how many there are of each kind of :attr:`each`. Empty where no kind alone would do.
        """
        found = []
        for kind, many in counts.items():
            takes = self.each.get(kind, (0, 0))
            less = [math.ceil(over * many / of) if of else many + 1 for over, of in zip(self.excess, takes, strict=True)
                    if over]  # fmt: skip
            if many and less and max(less) <= many:
                found.append(f"{max(less)} of its {many} {kind}s")
        return " or ".join(found)


def compiled(files: Mapping[str, str], chip: str, where: Path) -> Built:
    """A folder of a program, compiled for a board's chip; ``where`` is a folder for what is made.

    :param files: names and contents, one of them ``.ino``. :raises NoTools: the tools or their core are not there, or
    there are none for that chip. :raises DesignError: the compiler refuses it; its words are in the detail.
    """
    target = TARGETS.get(chip)
    if target is None:
        raise NoTools(f"There are no tools here for {chip}")
    if shutil.which("avr-g++") is None or not CORE.is_dir():
        raise NoTools("The tools for AVR chips are not installed; on Debian: apt install arduino-core-avr")
    core = _core(target)
    where.mkdir(parents=True, exist_ok=True)
    for name, text in files.items():
        (where / name).write_text(text, "utf-8")
    main = next(name for name in files if name.endswith(".ino"))
    made, elf = where / "program.o", where / "program.elf"
    words = _run("avr-g++", *_flags(target), "-Wall", "-Wextra", *_CXX, "-include", "Arduino.h", "-x", "c++",
                 str(where / main), "-o", str(made))  # fmt: skip
    words += _run("avr-gcc", "-Os", "-g", "-flto", "-fuse-linker-plugin", "-Wl,--gc-sections", f"-mmcu={target.chip}",
                  "-o", str(elf), str(made), str(core), "-lm")  # fmt: skip
    flash, ram = _sizes(elf)
    return Built(elf, flash, ram, target, words.strip(), _held(elf))


def _flags(target: Target) -> tuple[str, ...]:
    sources = [CORE / "libraries" / name / "src" for name in _LIBRARIES]
    places = (CORE / "cores/arduino", CORE / "variants" / target.variant, *sources, *(s / "utility" for s in sources))
    return (*_SHARED, f"-mmcu={target.chip}", *(f"-D{one}" for one in target.defines), *(f"-I{one}" for one in places))


def _run(*words: str) -> str:
    done = subprocess.run(words, capture_output=True, text=True, timeout=SECONDS, check=False)
    if done.returncode:
        raise DesignError(f"The compiler refuses the program: {done.stderr.strip()[:4000]}")
    return done.stderr


def _sizes(elf: Path) -> tuple[int, int]:
    """Bytes of flash and of RAM: text and data, data and bss."""
    said = subprocess.run(("avr-size", str(elf)), capture_output=True, text=True, timeout=SECONDS, check=True).stdout
    text, data, bss = (int(figure) for figure in re.findall(r"\d+", said.splitlines()[1])[:3])
    return text + data, data + bss


def _held(elf: Path) -> dict[str, tuple[int, int]]:
    """Bytes of flash and RAM by kind of thing."""
    done = subprocess.run(("avr-nm", "-S", str(elf)), capture_output=True, text=True, timeout=SECONDS, check=True)
    rows = re.findall(r"^[0-9a-f]+ ([0-9a-f]+) (\w) (\S+)", done.stdout, re.MULTILINE)
    found = dict.fromkeys(_HOLDS, (0, 0))
    for size, where, name in rows:
        for kind, names in _HOLDS.items():
            if any(re.fullmatch(rf"(_ZL\d+)?{one}(\.\w+)*", name) for one in names):
                flash, ram = found[kind]
                found[kind] = (flash, ram + int(size, 16)) if where in "bBdD" else (flash + int(size, 16), ram)
    return found


def _core(target: Target) -> Path:
    """The core of a chip as a library, compiled once and kept."""
    told = hashlib.sha256(" ".join(_flags(target)).encode()).hexdigest()[:12]
    kept = platformdirs.user_cache_path("wingboard") / f"core-{target.chip}-{told}"
    library = kept / "core.a"
    if library.is_file():
        return library
    kept.mkdir(parents=True, exist_ok=True)
    libraries = (path for name in _LIBRARIES for path in (CORE / "libraries" / name / "src").rglob("*"))
    found = (*(CORE / "cores/arduino").iterdir(), *libraries)
    sources = sorted(path for path in found if path.suffix in (".c", ".cpp", ".S"))
    with ThreadPoolExecutor(2) as pool:
        objects = list(pool.map(lambda source: _object(target, source, kept), sources))
    fresh = kept / "fresh.a"
    fresh.unlink(missing_ok=True)
    _run("avr-gcc-ar", "rcs", str(fresh), *objects)
    fresh.replace(library)
    return library


def _object(target: Target, source: Path, kept: Path) -> str:
    made = str(kept / f"{source.name}.o")
    how = {".c": ("avr-gcc", "-std=gnu11"), ".cpp": ("avr-g++", "-fpermissive", *_CXX),
           ".S": ("avr-gcc", "-x", "assembler-with-cpp")}[source.suffix]  # fmt: skip
    _run(how[0], *_flags(target), "-w", *how[1:], str(source), "-o", made)
    return made
