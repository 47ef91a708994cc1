"""The open surface: which host names are answered, from which pages is written, what a browser may load."""

from __future__ import annotations

import base64
import hashlib
import re
from pathlib import Path
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from ironkettle.api.base.problems import problem

_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_SCRIPT = re.compile(r"<script>(.*?)</script>", re.DOTALL)


class Surface:
    """Refuses other host names and writes from other pages; sets the headers of every answer."""

    def __init__(self, app: ASGIApp, hosts: frozenset[str], page: Path) -> None:
        self._app, self._hosts, self._page = app, hosts, page
        self._built, self._policy = -1, ""

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        api = scope["path"].startswith("/api/")

        async def dressed(message: Message) -> None:
            if message["type"] == "http.response.start":
                self._dress(MutableHeaders(scope=message), api=api)
            await send(message)

        named = headers.getlist("host")
        if len(named) != 1 or host_of(named[0]) not in self._hosts:
            shown = ", ".join(named)[:100] or "none"
            text = f"this server does not answer to the name {shown}; see “Other devices” in the guide"
            await problem(421, "other-host", "Not this server", text)(scope, receive, dressed)
        elif scope["method"] not in _SAFE and not from_own_page(headers, scope["scheme"], named[0]):
            text = "this request came from a page at another address; nothing was saved"
            await problem(403, "other-origin", "Refused", text)(scope, receive, dressed)
        else:
            await self._app(scope, receive, dressed)

    def _dress(self, headers: MutableHeaders, *, api: bool) -> None:
        headers["Content-Security-Policy"] = self._current_policy()
        headers["X-Content-Type-Options"] = "nosniff"
        headers["X-Frame-Options"] = "DENY"
        headers["Referrer-Policy"] = "same-origin"
        headers["Cross-Origin-Opener-Policy"] = "same-origin"
        headers["Cross-Origin-Resource-Policy"] = "same-origin"
        if api:
            headers["Cache-Control"] = "no-store"

    def _current_policy(self) -> str:
        """The policy of the page as it lies there now: it may be rebuilt under a running server."""
        try:
            built = self._page.stat().st_mtime_ns
        except FileNotFoundError:
            built = 0
        if built != self._built:
            self._policy = content_policy(self._page.read_text(encoding="utf-8") if built else "")
            self._built = built
        return self._policy


def host_of(value: str) -> str:
    """The name in a Host header, without the port. Empty for one that is none."""
    try:
        return (urlsplit(f"//{value}").hostname or "").lower()
    except ValueError:
        return ""


def from_own_page(headers: Headers, scheme: str, host: str) -> bool:
    """Whether a write came from a page of this very server, or from no page at all (a script)."""
    origin = headers.get("origin")
    if origin is not None:
        return origin.lower() == f"{scheme}://{host}".lower()
    return headers.get("sec-fetch-site", "same-origin") in {"same-origin", "none"}


def content_policy(page: str) -> str:
    """What a page may load: its own files, and only the very scripts that stand in the page as built."""
    hashes = " ".join(f"'sha256-{_digest(script)}'" for script in _SCRIPT.findall(page))
    return "; ".join(
        (
            "default-src 'self'",
            f"script-src 'self' {hashes}".strip(),
            "style-src 'self'",
            # The framework hides its announcer of page changes with a style attribute.
            "style-src-attr 'unsafe-inline'",
            "img-src 'self' data: blob:",
            "object-src 'none'",
            "base-uri 'none'",
            "form-action 'self'",
            "frame-ancestors 'none'",
        )
    )


def _digest(script: str) -> str:
    return base64.b64encode(hashlib.sha256(script.encode()).digest()).decode()
