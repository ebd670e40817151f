"""Work for a process of its own, which must be able to import it by name."""

from __future__ import annotations

from wingboard.core.record.errors import NotPossible
from wingboard.services.workers import Report


def greedy(megabytes: int) -> int:
    """Take memory."""
    return len(bytearray(megabytes * 1024 * 1024))


def endless() -> None:
    """Never end."""
    while True:
        pass


def misread() -> None:
    """Fail in a way that nobody foresaw."""
    raise ZeroDivisionError("what?")


def refusing() -> None:
    """Refuse in words."""
    raise NotPossible("Not like this", "there")


def steps(report: Report) -> str:
    """Report, then go on for ever."""
    report(0.25, "a quarter")
    endless()
    return ""
