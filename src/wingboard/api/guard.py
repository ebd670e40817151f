"""What the server refuses before anything reads it: other hosts, writes from other pages, bodies too large."""

from __future__ import annotations

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from wingboard.api.problems import problem

LARGEST_BODY = 8 * 1024 * 1024
"""No request body may be larger (bytes); the largest design is well below."""
_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
_SAFE = {"GET", "HEAD"}
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


class TooLarge(Exception):
    """The body went over the limit while it was read."""


class Guard:
    """ASGI middleware around the whole application."""

    def __init__(self, app: ASGIApp, largest: int = LARGEST_BODY) -> None:
        self.app = app
        self.largest = largest

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse or pass on one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        refusal = _refusal(scope["method"], Headers(scope=scope), self.largest)
        if refusal is not None:
            await problem(*refusal)(scope, receive, send)
            return
        await self._limited(scope, receive, send)

    async def _limited(self, scope: Scope, receive: Receive, send: Send) -> None:
        seen, started = 0, False

        async def counted() -> Message:
            nonlocal seen
            message = await receive()
            seen += len(message.get("body", b""))
            if seen > self.largest:
                raise TooLarge
            return message

        async def dressed(message: Message) -> None:
            nonlocal started
            if message["type"] == "http.response.start":
                started = True
                message = {**message, "headers": [*message["headers"], *_HEADERS]}
            await send(message)

        try:
            await self.app(scope, counted, dressed)
        except TooLarge:
            if not started:
                await problem(*_too_large(self.largest))(scope, receive, send)


def _too_large(largest: int) -> tuple[str, str, int, str]:
    return "too-large", "This is too large", 413, f"No more than {largest // 1024 // 1024} MB are taken at once"


def _refusal(method: str, headers: Headers, largest: int) -> tuple[str, str, int, str] | None:
    host = headers.get("host", "").rsplit(":", 1)[0] if not headers.get("host", "").endswith("]") else headers["host"]
    if host not in _HOSTS:
        return "other-host", "Wrong address", 421, "Wing Board answers on 127.0.0.1 and localhost only"
    if method not in _SAFE:
        origin = headers.get("origin")
        foreign = origin is not None and origin != f"http://{headers.get('host')}"
        if foreign or headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none"):
            return (
                "cross-origin",
                "Another page may not do that",
                403,
                "Changes are taken from Wing Board's own page only",
            )
        if headers.get("content-length", "0").isdigit() and int(headers.get("content-length", "0")) > largest:
            return _too_large(largest)
    return None
