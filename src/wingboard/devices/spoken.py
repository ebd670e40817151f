"""Lines of the protocol, as ``docs/protocol.md`` has them: their checksums, and lines out of what comes in."""

from __future__ import annotations

from typing import NamedTuple

LONGEST = 400
"""Letters after which what has no end is no line: the rest of it, up to its end, is left out."""


class Heard(NamedTuple):
    """A line that came in: its words, and whether it arrived as it was sent."""

    words: tuple[str, ...]
    garbled: bool


def checksum(text: str) -> str:
    """CRC-8 with the polynomial x⁸ + x² + x + 1, begun at 0, as two hexadecimal figures: as the packet error code
    of the System Management Bus."""
    found = 0
    for letter in text.encode("latin-1", "replace"):
        found ^= letter
        for _ in range(8):
            found = (found << 1 ^ 0x07) & 0xFF if found & 0x80 else found << 1
    return f"{found:02X}"


def line_of(*words: object) -> str:
    """A line to send, with its checksum and its end."""
    text = " ".join(str(word) for word in words)
    return f"{text} ~{checksum(text)}\n"


def heard(line: str) -> Heard:
    """A line without its end, taken apart. Without a checksum it is garbled: a board always sends one."""
    text, mark, found = line.rpartition(" ~")
    right = bool(mark) and bool(text.split()) and found == checksum(text)
    return Heard(tuple((text if right else line).split()), not right)


class Lines:
    """Whole lines out of letters as they come; what is cut off, by a reset say, is garbled and said to be."""

    def __init__(self) -> None:
        self._open = ""

    def take(self, letters: str) -> list[Heard]:
        """What is complete now."""
        *whole, self._open = (self._open + letters).split("\n")
        self._open = self._open[:LONGEST]
        return [heard(line.rstrip("\r")) for line in whole if line.strip()]
