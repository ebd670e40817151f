"""What the server refuses before anything reads it: other hosts, writes from other pages, bodies too large or stalled.

It stands round the whole application and every kind of connection; one that it does not know is refused.
"""

from __future__ import annotations

import asyncio
import re
from typing import NamedTuple

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from wingboard.api.problems import problem

LARGEST_BODY = 8 * 1024 * 1024
"""No request body may be larger (bytes); the largest design is well below."""
PATIENCE = 30.0
"""How long (s) the next piece of a body may take."""
_HOST = re.compile(r"(127\.0\.0\.1|localhost|\[::1\])(:[0-9]{1,5})?")
_SAFE = {"GET", "HEAD"}
_POLICY_VIOLATION = 1008
"""Close code of a refused websocket (RFC 6455)."""
_HEADERS = [
    (
        b"content-security-policy",
        b"default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self'; "
        b"connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-resource-policy", b"same-origin"),
]


class Refusal(NamedTuple):
    """A problem document to be: its name, title, status and what it says."""

    name: str
    title: str
    status: int
    detail: str


class Refused(Exception):
    """A body that is not read to its end."""

    def __init__(self, refusal: Refusal) -> None:
        super().__init__(refusal.detail)
        self.refusal = refusal


class Guard:
    """ASGI middleware around the whole application."""

    def __init__(self, app: ASGIApp, largest: int = LARGEST_BODY, patience: float = PATIENCE) -> None:
        self.app = app
        self.largest = largest
        self.patience = patience

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse or pass on one connection."""
        if scope["type"] == "lifespan":
            await self.app(scope, receive, send)
        elif scope["type"] == "http":
            await self._http(scope, receive, send)
        elif scope["type"] == "websocket" and _refusal("WEBSOCKET", Headers(scope=scope), self.largest) is None:
            await self.app(scope, receive, send)
        elif scope["type"] == "websocket":
            await receive()
            await send({"type": "websocket.close", "code": _POLICY_VIOLATION})
        else:
            raise RuntimeError(f"a connection of kind {scope['type']!r} is refused")

    async def _http(self, scope: Scope, receive: Receive, send: Send) -> None:
        dressed = _dressed(send, scope["path"])
        refusal = _refusal(scope["method"], Headers(scope=scope), self.largest)
        if refusal is not None:
            await problem(*refusal)(scope, receive, dressed)
            return
        body = _Body(receive, self.largest, self.patience)
        answer = _Answer(dressed, body)
        try:
            await self.app(scope, body.receive, answer.send)
        except Refused:
            pass
        finally:
            if body.refusal is not None and not answer.started:
                await problem(*body.refusal)(scope, receive, dressed)


class _Body:
    """A request's body, counted and waited for with patience."""

    def __init__(self, receive: Receive, largest: int, patience: float) -> None:
        self._receive, self._largest, self._patience = receive, largest, patience
        self._seen = 0
        self._whole = False
        self.refusal: Refusal | None = None

    async def receive(self) -> Message:
        if self._whole:
            return await self._receive()
        try:
            message = await asyncio.wait_for(self._receive(), self._patience)
        except TimeoutError:
            self.refusal = Refusal("stalled", "This takes too long", 408, "The rest of the request never came")
            raise Refused(self.refusal) from None
        self._seen += len(message.get("body", b""))
        self._whole = not message.get("more_body", False)
        if self._seen > self._largest:
            self.refusal = _too_large(self._largest)
            raise Refused(self.refusal)
        return message


class _Answer:
    """What the application answers; nothing more of it once its request's body was refused."""

    def __init__(self, send: Send, body: _Body) -> None:
        self._send, self._body = send, body
        self.started = False

    async def send(self, message: Message) -> None:
        if self._body.refusal is not None and not self.started:
            return
        self.started = True
        await self._send(message)


def _dressed(send: Send, path: str) -> Send:
    """Sends answers with the headers that keep the page safe, and API answers out of caches."""

    async def dressed(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = [*message["headers"], *_HEADERS]
            if path.startswith("/api/") and all(name.lower() != b"cache-control" for name, _ in message["headers"]):
                headers.append((b"cache-control", b"no-store"))
            message = {**message, "headers": headers}
        await send(message)

    return dressed


def _too_large(largest: int) -> Refusal:
    return Refusal(
        "too-large", "This is too large", 413, f"No more than {largest // 1024 // 1024} MB are taken at once"
    )


def _refusal(method: str, headers: Headers, largest: int) -> Refusal | None:
    host = headers.get("host", "")
    if not _HOST.fullmatch(host):
        return Refusal("other-host", "Wrong address", 421, "Wing Board answers on 127.0.0.1 and localhost only")
    if method in _SAFE:
        return None
    origin = headers.get("origin")
    foreign = origin is not None and origin != f"http://{host}"
    if foreign or headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none"):
        detail = "Changes are taken from Wing Board's own page only"
        return Refusal("cross-origin", "Another page may not do that", 403, detail)
    length = headers.get("content-length", "0")
    return _too_large(largest) if length.isdigit() and int(length) > largest else None
