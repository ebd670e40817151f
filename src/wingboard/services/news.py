"""What happens, told to every open page: revisions kept, progress of jobs."""

from __future__ import annotations

import asyncio
import logging
import threading
from typing import Annotated, Literal

from pydantic import BaseModel, Field

log = logging.getLogger(__name__)
WAITING = 200
"""News one page may be behind; a page further behind is sent away, and asks for everything anew."""


class Revised(BaseModel):
    """A revision of a design was kept."""

    kind: Literal["revised"] = "revised"
    design: str
    revision: int
    label: str


class Progressed(BaseModel):
    """How a job stands. ``done`` is the share that is done, from 0 to 1, or none where that is not known."""

    kind: Literal["job"] = "job"
    job: str
    task: str
    design: str | None
    state: Literal["waiting", "running", "done", "stopped", "failed"]
    done: float | None
    words: str


class Judged(BaseModel):
    """Findings of a revision that take long have arrived: ask for it anew."""

    kind: Literal["judged"] = "judged"
    design: str
    revision: int


Event = Annotated[Revised | Judged | Progressed, Field(discriminator="kind")]


class Listener:
    """One page that listens, on one event loop."""

    def __init__(self, loop: asyncio.AbstractEventLoop) -> None:
        self._loop = loop
        self._queue: asyncio.Queue[Revised | Judged | Progressed | None] = asyncio.Queue(WAITING)

    async def next(self) -> Revised | Judged | Progressed | None:
        """The next piece of news; None when the listening is over."""
        return await self._queue.get()

    def tell(self, event: Revised | Judged | Progressed | None) -> None:
        """Pass news on, from any thread."""
        try:
            self._loop.call_soon_threadsafe(self._put, event)
        except RuntimeError:  # the loop is closed, and with it the page's connection
            log.debug("a listener is gone")

    def _put(self, event: Revised | Judged | Progressed | None) -> None:
        if event is not None and self._queue.qsize() < WAITING - 1:
            self._queue.put_nowait(event)
        elif self._queue.qsize() < WAITING:
            self._queue.put_nowait(None)


class News:
    """Tells all who listen. Safe to use from several threads."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._listeners: set[Listener] = set()

    def listen(self) -> Listener:
        """A new listener on the running event loop."""
        listener = Listener(asyncio.get_running_loop())
        with self._lock:
            self._listeners.add(listener)
        return listener

    def leave(self, listener: Listener) -> None:
        """Stop telling a listener."""
        with self._lock:
            self._listeners.discard(listener)

    def tell(self, event: Revised | Judged | Progressed) -> None:
        """Tell everybody."""
        with self._lock:
            listeners = tuple(self._listeners)
        for listener in listeners:
            listener.tell(event)

    def close(self) -> None:
        """Send everybody away, so that a server that stops need not wait for them."""
        with self._lock:
            listeners = tuple(self._listeners)
        for listener in listeners:
            listener.tell(None)
