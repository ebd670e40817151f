"""What hangs on the pins of a simulated chip: drivers, expanders, chains, matrices, each from its data sheet."""

from __future__ import annotations

from wingboard.devices.chip import ADDRESS, ENDED, WANTED, WRITTEN, Chip
from wingboard.devices.native import Native


class Readout:
    """MAX7219 drivers on three wires, from their data sheet: 16 bits shifted in at rising clocks, the last ones taken
    when LOAD rises; what overflows goes to the next driver."""

    def __init__(self, chained: int = 1) -> None:
        self.data = False
        self.bits: list[int] = [0] * 16 * chained
        self.registers = [dict.fromkeys(range(16), 0) for _ in range(chained)]

    def changed(self, wire: str, level: bool) -> None:
        if wire == "data":
            self.data = level
        elif wire == "clock" and level:
            self.bits = [*self.bits[1:], int(self.data)]
        elif wire == "load" and level:
            self._taken()

    def _taken(self) -> None:
        for n, registers in enumerate(reversed(self.registers)):
            word = int("".join(map(str, self.bits[16 * n : 16 * n + 16])), 2)
            registers[word >> 8 & 15] = word & 0xFF

    def shows(self, place: int = 0) -> list[int]:
        """The segments of each digit from the left; none while it sleeps, all in its test."""
        it = self.registers[place]
        digits = range(it[11] + 1, 0, -1)
        return [0xFF if it[15] & 1 else it[n] if it[12] & 1 else 0 for n in digits]


class Matrix:
    """Contacts with a diode each between rows and columns: a row that is driven low pulls down the columns of what is
    closed in it, and no other."""

    def __init__(self, chip: Chip | Native, at: dict[str, tuple[str, str]]) -> None:
        self.chip, self.at, self.closed = chip, at, set[str]()
        self.columns = {column for _, column in at.values()}
        self.ways: dict[int, int] = {}

    def changed(self, _wire: str, _level: bool) -> None:
        """Nothing but directions changes anything here: rows are let go, not driven high."""

    def turned(self, port: int, ways: int) -> None:
        self.ways[port] = ways
        low = {column for line, (row, column) in self.at.items() if line in self.closed and self._low(row)}
        for column in self.columns:
            self.chip.drive(column, False if column in low else None)

    def _low(self, row: str) -> bool:
        port, bit = self.chip.pins[row]
        return bool(self.ways.get(port, 0) >> bit & 1) and not self.chip.written(row)


class ChainIn:
    """74HC165 from their data sheet: inputs taken while SH/LD is low; QH of the first chip is the data, and each rising
    clock moves all on by one. ``at``: of each contact the number of its chip from 1, and its input A to H."""

    def __init__(self, chip: Chip | Native, data: str, at: dict[str, tuple[int, str]]) -> None:
        self.chip, self.data, self.closed, self.taking = chip, data, set[str](), False
        self.order = {8 * (n - 1) + ord("H") - ord(name): line for line, (n, name) in at.items()}
        self.bits: list[bool] = []

    def changed(self, wire: str, level: bool) -> None:
        if wire == "load":
            self.taking = not level
        elif wire == "clock" and level and not self.taking:
            self.bits = [*self.bits[1:], False]
        if self.taking:
            self.bits = [self.order.get(n) not in self.closed for n in range(max(self.order) + 1)]
        if self.bits:
            self.chip.drive(self.data, self.bits[0])


class ChainOut:
    """74HC595 from their data sheet: a rising clock shifts into QA of the first chip, a rising latch shows."""

    def __init__(self, at: dict[str, tuple[int, str]]) -> None:
        self.places = {line: 8 * (n - 1) + ord(name) - ord("A") for line, (n, name) in at.items()}
        self.data, self.bits = False, [False] * (max(self.places.values()) + 8)
        self.shown = list(self.bits)

    def changed(self, wire: str, level: bool) -> None:
        if wire == "data":
            self.data = level
        elif wire == "clock" and level:
            self.bits = [self.data, *self.bits[:-1]]
        elif wire == "latch" and level:
            self.shown = list(self.bits)


class Expander:
    """MCP23017 from its data sheet, both ports in one word: an address, a register, bytes from there on."""

    def __init__(self) -> None:
        self.closed = set[int]()
        self.fed()

    def fed(self) -> None:
        """As its supply has just come."""
        self.registers = [0xFF, 0xFF, *[0] * 20]
        self.at: int | None = None

    def bit(self, register: int, n: int) -> bool:
        return bool(self.registers[register + n // 8] >> n % 8 & 1)

    def level(self, n: int) -> bool:
        """At a terminal: what is driven, or its contact, or its pull-up."""
        if not self.bit(0x00, n):
            return self.bit(0x14, n)
        return n not in self.closed and self.bit(0x0C, n)  # without its pull-up it hangs free: it reads low here

    def write(self, byte: int) -> None:
        if self.at is None:
            self.at = byte
            return
        self.registers[self.at] = byte
        self.at += 1

    def read(self) -> int:
        assert self.at is not None
        register, self.at = self.at, self.at + 1
        if register in (0x12, 0x13):
            first = 8 * (register - 0x12)
            return sum(self.level(n) << n - first for n in range(first, first + 8))
        return self.registers[register]


class Bus:
    """Expanders by their addresses; those of ``off`` are without their supply."""

    def __init__(self, chip: Chip | Native) -> None:
        self.there: dict[int, Expander] = {}
        self.off = set[int]()
        self.now: Expander | None = None
        chip.on_bus(self.asked)

    def asked(self, what: int, byte: int) -> int:
        if what == ADDRESS:
            self.now = None if byte >> 1 in self.off else self.there.get(byte >> 1)
            if self.now and not byte & 1:
                self.now.at = None
        elif what == ENDED:
            self.now = None
        elif self.now and what == WRITTEN:
            self.now.write(byte)
        elif self.now and what == WANTED:
            return self.now.read()
        return 0 if self.now else -1


class Addressed:
    """A chain of addressable lamps from their data sheet: 24 bits each, green, red, blue; pulses of 0.25 to 0.5 µs
    are 0, of 0.65 to 0.9 µs 1; a pause of 50 µs shows what came (WS2812, from memory)."""

    def __init__(self, lamps: int) -> None:
        self.lamps, self.bits, self.shown = lamps, list[bool](), [(0, 0, 0)] * lamps
        self.rose = self.fell = 0.0

    def at(self, level: bool, now: float) -> None:
        if level:
            pause = now - self.fell
            if pause > 50e-6:
                self.bits = []
            else:
                assert pause >= 0.3e-6, "too short between two pulses"
            self.rose = now
            return
        high = now - self.rose
        if not self.rose:
            return
        assert 0.25e-6 <= high <= 0.5e-6 or 0.65e-6 <= high <= 0.9e-6, high
        self.bits.append(high > 0.6e-6)
        self.fell = now
        if len(self.bits) == 24 * self.lamps:
            words = [int("".join(str(int(b)) for b in self.bits[n : n + 24]), 2) for n in range(0, len(self.bits), 24)]
            self.shown = [(word >> 8 & 255, word >> 16, word & 255) for word in words]


class Gauge:
    """A stepping motor with two coils and stops at both ends: the levels between its first two terminals, and those
    between its last two, turn its field by sixths; the rotor follows the shorter way."""

    def __init__(self, at: int) -> None:
        self.levels = [False] * 4
        self.at, self.turn = at, at % 6

    def changed(self, wire: str, level: bool) -> None:
        self.levels[int(wire)] = level
        one, other = self.levels[0] - self.levels[1], self.levels[2] - self.levels[3]
        field = [(1, -1), (1, 0), (0, 1), (-1, 1), (-1, 0), (0, -1)]
        if (one, other) not in field:
            return  # between two writes
        step = (field.index((one, other)) - self.turn + 3) % 6 - 3
        if abs(step) == 1:
            self.turn = (self.turn + step) % 6
            self.at = min(945, max(0, self.at + step))


class Pair:
    """A TM1637 from its data sheet (from memory): begins where data falls while the clock is up, ends where it
    rises so; a bit at each rising clock, the lowest first, the ninth is its answer."""

    def __init__(self) -> None:
        self.data = self.clock = self.lit = False
        self.bits: list[bool] = []
        self.word: list[int] = []
        self.memory = [0] * 6

    def changed(self, wire: str, level: bool) -> None:
        if wire == "clock":
            if level and not self.clock:
                self.bits.append(self.data)
                if len(self.bits) == 9:
                    self.word.append(sum(bit << n for n, bit in enumerate(self.bits[:8])))
                    self.bits = []
            self.clock = level
            return
        if self.clock and level != self.data:
            if not level:
                self.word = []
            else:
                self._ended()
            self.bits = []
        self.data = level

    def _ended(self) -> None:
        if self.word and self.word[0] & 0xC0 == 0xC0:
            first = self.word[0] & 7
            self.memory[first : first + len(self.word) - 1] = self.word[1:]
        elif self.word and self.word[0] & 0xC0 == 0x80:
            self.lit = bool(self.word[0] & 8)

    def shows(self, digits: int) -> list[int]:
        """Segments of each digit from the left, as those of :class:`Readout`."""
        return [
            (byte & 0x80 | sum((byte >> n & 1) << 6 - n for n in range(7))) if self.lit else 0
            for byte in self.memory[:digits]
        ]
