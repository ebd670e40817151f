"""The chips by which many terminals are read or driven over few pins. Amperes; pins as the data sheets number them."""

from __future__ import annotations

from typing import NamedTuple


class Chip(NamedTuple):
    """A kind of chip: its terminals in the order of its pins, those that carry signals, and what it may carry.

    ``each``: through one output, ever; ``most``: through its supply, all outputs together, ever. ``drives``: those of
    ``signals`` that only drive.
    """

    name: str
    pins: tuple[str, ...]
    signals: tuple[str, ...]
    supply: str
    ground: str
    each: float
    most: float
    drives: tuple[str, ...] = ()

    def pin(self, name: str) -> str:
        """A terminal as it is marked here: the number of the pin, a blank, its name."""
        return f"{self.pins.index(name) + 1} {name}"

    @property
    def ports(self) -> tuple[str, ...]:
        """All terminals that can be joined."""
        return tuple(self.pin(name) for name in self.pins if name != "NC")


SHIFT_IN = Chip(
    "74HC165",
    ("SH/LD", "CLK", "E", "F", "G", "H", "QH'", "GND", "QH", "SER", "A", "B", "C", "D", "CLK INH", "VCC"),
    tuple("ABCDEFGH"), "VCC", "GND", 0.025, 0.05,
)  # fmt: skip
"""Reads eight inputs (data sheet, from memory)."""
SHIFT_OUT = Chip(
    "74HC595",
    ("QB", "QC", "QD", "QE", "QF", "QG", "QH", "GND", "QH'", "SRCLR", "SRCLK", "RCLK", "OE", "SER", "QA", "VCC"),
    tuple(f"Q{letter}" for letter in "ABCDEFGH"), "VCC", "GND", 0.035, 0.07,
)  # fmt: skip
"""Drives eight outputs (data sheet, from memory)."""
EXPANDER = Chip(
    "MCP23017",
    (*(f"GPB{n}" for n in range(8)), "VDD", "VSS", "NC", "SCL", "SDA", "NC", "A0", "A1", "A2", "RESET", "INTB", "INTA",
     *(f"GPA{n}" for n in range(8))),
    tuple(f"GP{port}{n}" for port in "AB" for n in range(8)), "VDD", "VSS", 0.025, 0.125,
    ("GPA7", "GPB7"),
)  # fmt: skip
"""Sixteen inputs or outputs on I²C, with pull-ups of its own (data sheet, from memory). Current: that into VDD.

The last terminal of each port only drives: the data sheet's newer revisions warn that reading it can upset the bus.
"""
CHIPS = {"shift-in": SHIFT_IN, "shift-out": SHIFT_OUT, "expander": EXPANDER}
"""The chips of each kind of network that has any."""
ADDRESS = 0x20
"""Of an expander with all three address pins on ground (data sheet, from memory)."""
ON_ONE_BUS = 8
"""Expanders that one bus tells apart: three address pins."""
PULL_UP, BUS_PULL_UP = 10_000.0, 4_700.0
"""Ohms of a pull-up at an input, and at each line of a bus (common practice)."""
