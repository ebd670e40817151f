"""Costly results worked out while others go on: asked for by what they follow from, told of when they are there."""

from __future__ import annotations

import logging
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from concurrent.futures import ThreadPoolExecutor
from typing import Any, TypeVar

log = logging.getLogger(__name__)
T = TypeVar("T")
KEPT = 60
"""Results that are remembered."""


class _Failed:
    """Stands for what could not be worked out: the log says why, and asking again gives the error."""

    def __init__(self, error: Exception) -> None:
        self.error = error


class Costly:
    """Results by their keys; each is worked out once, one after the other, in a thread of its own."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._kept: OrderedDict[Hashable, Any] = OrderedDict()
        self._asked: dict[Hashable, set[Callable[[], object]]] = {}
        self._pool = ThreadPoolExecutor(1, thread_name_prefix="costly")
        self.arrived = 0

    def ask(self, key: Hashable, compute: Callable[[], T], when_there: Callable[[], object]) -> T | None:
        """What is known under a key; None and a call of ``when_there`` later where it is not there yet.

        :raises Exception: what went wrong when it was worked out.
        """
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                found: T | _Failed = self._kept[key]
                if isinstance(found, _Failed):
                    raise found.error
                return found
            if key in self._asked:
                self._asked[key].add(when_there)
                return None
            self._asked[key] = {when_there}
        self._pool.submit(self._make, key, compute)
        return None

    def close(self) -> None:
        """Work nothing more out."""
        self._pool.shutdown(wait=False, cancel_futures=True)

    def _make(self, key: Hashable, compute: Callable[[], object]) -> None:
        made: object
        try:
            made = compute()
        except Exception as error:  # told to whoever asks; the log has where it came from
            log.exception("a costly result could not be worked out")
            made = _Failed(error)
        with self._lock:
            self._kept[key] = made
            self.arrived += 1
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
            waiting = self._asked.pop(key, set())
        for tell in waiting:
            tell()
