"""Costly results worked out while others go on: asked for by what they follow from, told of when they are there."""

from __future__ import annotations

import logging
import threading
import time
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, NamedTuple, TypeVar

log = logging.getLogger(__name__)
T = TypeVar("T")
KEPT = 60
"""Results that are remembered."""
QUIET = 0.4
"""Nothing is begun before so many seconds without a newer wish: a hand that goes on moving is not held up."""


class _Failed:
    """Stands for what could not be worked out: the log says why, and asking again gives the error."""

    def __init__(self, error: Exception) -> None:
        self.error = error


class _Wish(NamedTuple):
    key: Hashable
    compute: Callable[[], object]
    tell: Callable[[], object]
    due: float


class Costly:
    """Results by their keys, each worked out once, one after the other, in a thread of its own.

    Of one slot (the night of one module of one design) only the newest wish is carried out.
    """

    def __init__(self, quiet: float = QUIET) -> None:
        """:param quiet: seconds to wait for a newer wish."""
        self._quiet = quiet
        self._changed = threading.Condition()
        self._kept: OrderedDict[Hashable, Any] = OrderedDict()
        self._wishes: dict[Hashable, _Wish] = {}
        self._thread: threading.Thread | None = None
        self._closed = False
        self.arrived = 0

    def ask(self, slot: Hashable, key: Hashable, compute: Callable[[], T], tell: Callable[[], object]) -> T | None:
        """What is known under a key; None, and a call of ``tell`` when it is there, where it is not yet.

        :param slot: what the result is of; a newer wish for it takes the place of one that was not begun.
        :raises Exception: what went wrong when it was worked out.
        """
        with self._changed:
            if key in self._kept:
                self._kept.move_to_end(key)
                found: T | _Failed = self._kept[key]
                if isinstance(found, _Failed):
                    raise found.error
                return found
            before = self._wishes.get(slot)
            if not self._closed and (before is None or before.key != key):
                self._wishes[slot] = _Wish(key, compute, tell, time.monotonic() + self._quiet)
                if self._thread is None:
                    self._thread = threading.Thread(target=self._work, name="costly", daemon=True)
                    self._thread.start()
                self._changed.notify()
            return None

    def close(self) -> None:
        """Work nothing more out."""
        with self._changed:
            self._closed = True
            self._wishes.clear()
            self._changed.notify()

    def _next(self) -> _Wish | None:
        """The wish that is due first, once it is; None when there is nothing more to do."""
        with self._changed:
            while not self._closed:
                if not self._wishes:
                    self._changed.wait()
                    continue
                slot, wish = min(self._wishes.items(), key=lambda entry: entry[1].due)
                left = wish.due - time.monotonic()
                if left <= 0:
                    del self._wishes[slot]
                    return wish
                self._changed.wait(left)
        return None

    def _work(self) -> None:
        while (wish := self._next()) is not None:
            made: object
            try:
                made = wish.compute()
            except Exception as error:  # told to whoever asks; the log has where it came from
                log.exception("a costly result could not be worked out")
                made = _Failed(error)
            with self._changed:
                self._kept[wish.key] = made
                self.arrived += 1
                while len(self._kept) > KEPT:
                    self._kept.popitem(last=False)
            wish.tell()
