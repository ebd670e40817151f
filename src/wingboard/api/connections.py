"""Connections that ask for nothing are closed: the server keeps only so many open at once."""

from __future__ import annotations

import asyncio
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol


class Patient(H11Protocol):
    """HTTP/1.1 in which a request's head has to arrive within :attr:`patience`, however slowly it trickles in.

    The server's own timer starts only after a first answer, so a connection that never asks anything would keep its
    place for ever. What is under way (a long body, a stream of news) is not touched.
    """

    patience = 30.0
    """How long (s) a connection may be open without a whole request's head, since it was made or last answered."""
    _limit: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        """A connection: its time begins."""
        super().connection_made(transport)
        self._begin()

    def on_response_complete(self) -> None:
        """An answer is out: the time of the next request begins."""
        super().on_response_complete()
        self._begin()

    def connection_lost(self, exc: Exception | None) -> None:
        """It is closed; nothing waits any more."""
        super().connection_lost(exc)
        if self._limit:
            self._limit.cancel()

    def _begin(self) -> None:
        if self._limit:
            self._limit.cancel()
        self._limit = self.loop.call_later(self.patience, self._end)

    def _end(self) -> None:
        if self.cycle is None or self.cycle.response_complete:
            self.transport.close()
