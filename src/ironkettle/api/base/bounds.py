"""Bounds on what comes in: how long a request may take to arrive, and how large it may be."""

from __future__ import annotations

import asyncio
import re
from typing import ClassVar

import h11
from starlette.types import ASGIApp, Message, Receive, Scope, Send
from uvicorn.protocols.http.h11_impl import H11Protocol

from ironkettle.api.base.problems import problem

HEAD_WITHIN_S = 15.0
BODY_WITHIN_S = 30.0
MEGABYTE = 1_000_000
# Connections without a request, of one address and of all; one so young may have sent it already. [-, -, s]
MOST_IDLE_AN_ADDRESS, MOST_IDLE = 60, 400
YOUNG_S = 1.0
# A body that is too large is still taken in and thrown away up to here, so that its sender can read the answer.
_DRAINED = 64 * MEGABYTE
# Most requests are a few hundred bytes. Traces and build sheets are larger.
_LARGER = (
    (re.compile(r"/api/jobs/[^/]+/entries"), 4 * MEGABYTE),
    (re.compile(r"/api/tests/(analyse|read-csv)"), 4 * MEGABYTE),
    (re.compile(r"/api/sheets(/check)?"), 2 * MEGABYTE),
    (re.compile(r"/api/jobs/[^/]+/photos"), 16 * MEGABYTE),
)


class BoundedHttp(H11Protocol):
    """uvicorn's protocol, which waits without end for the head of a request; this one hangs up."""

    _deadline: asyncio.TimerHandle | None = None
    # Connections that have not sent a request yet and since when, the oldest first, by address.
    _idle: ClassVar[dict[str, dict[BoundedHttp, float]]] = {}

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._arm()
        self._wait()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        half_sent = self.conn.their_state is h11.IDLE and self.conn.trailing_data[0] != b""
        if not half_sent:
            self._disarm()
            self._forget()
        elif self._deadline is None:
            self._arm()

    def connection_lost(self, exc: Exception | None) -> None:
        self._disarm()
        self._forget()
        super().connection_lost(exc)

    def _wait(self) -> None:
        """Count this among the idle of its address; too many of them cost the oldest, so that they stop nobody."""
        idle = self._idle.setdefault(self._address, {})
        idle[self] = self.loop.time()
        everywhere = sum(len(times) for times in self._idle.values())
        if len(idle) <= MOST_IDLE_AN_ADDRESS and everywhere <= MOST_IDLE:
            return
        oldest, since = next(iter(max(self._idle.values(), key=len).items()))
        if self.loop.time() - since >= YOUNG_S:
            oldest._hang_up()

    def _forget(self) -> None:
        idle = self._idle.get(self._address, {})
        idle.pop(self, None)
        if not idle:
            self._idle.pop(self._address, None)

    @property
    def _address(self) -> str:
        return self.client[0] if self.client else "unknown"

    def _arm(self) -> None:
        self._deadline = self.loop.call_later(HEAD_WITHIN_S, self._hang_up)

    def _disarm(self) -> None:
        if self._deadline is not None:
            self._deadline.cancel()
            self._deadline = None

    def _hang_up(self) -> None:
        self._forget()
        if not self.transport.is_closing():
            self.transport.close()


class BoundedBody:
    """Takes a request's body in whole before anything looks at it, within a size and a time."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        most = limit_of(scope["path"])
        try:
            body = await asyncio.wait_for(_take_in(scope, receive, most), BODY_WITHIN_S)
        except TimeoutError:
            await _answer(408, "too-slow", "The request did not arrive completely in time", scope, receive, send)
            return
        if body is None:
            text = f"larger than {most // 1000} kB, the limit for this address"
            await _answer(413, "too-large", text, scope, receive, send)
            return
        given = False

        async def again() -> Message:
            nonlocal given
            if given:
                return await receive()
            given = True
            return {"type": "http.request", "body": body, "more_body": False}

        await self._app(scope, again, send)


def limit_of(path: str) -> int:
    """The most bytes a body may have at an address."""
    return next((most for pattern, most in _LARGER if pattern.fullmatch(path)), MEGABYTE)


async def _take_in(scope: Scope, receive: Receive, most: int) -> bytes | None:
    """The whole body; None when it is or claims to be larger."""
    claims = [int(value) for name, value in scope["headers"] if name == b"content-length" and value.isdigit()]
    if any(claim > _DRAINED for claim in claims):
        return None
    parts: list[bytes] = []
    size = 0
    while True:
        message = await receive()
        if message["type"] != "http.request":
            return b""
        size += len(message.get("body", b""))
        if size <= most:
            parts.append(message.get("body", b""))
        if size > _DRAINED:
            return None
        if not message.get("more_body", False):
            return b"".join(parts) if size <= most else None


async def _answer(status: int, kind: str, text: str, scope: Scope, receive: Receive, send: Send) -> None:
    answer = problem(status, kind, "Refused", text)
    answer.headers["connection"] = "close"
    await answer(scope, receive, send)
