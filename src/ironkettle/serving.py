"""The server of the application, made ready and run. The database is prepared before it serves (prepare.py)."""

from __future__ import annotations

import contextlib
import gc
import logging
import resource
import socket
import sys

import structlog
import uvicorn
from fastapi import FastAPI
from sqlalchemy.exc import OperationalError

from ironkettle.api.app import create_app
from ironkettle.api.base.bounds import BoundedHttp
from ironkettle.config import Settings
from ironkettle.keeping_up import keep_up_all

# Requests under way get this long at a stop; half-open ones are cut off after it.
GRACE_S = 5
# Watchers of the stand among them; those that send nothing are bounded by themselves (api/base/bounds.py).
MOST_CONNECTIONS = 2000
_OPEN_FILES = 8192
NOT_STARTED = 3


class Server(uvicorn.Server):
    """Lets those go who watch the stand before it waits for its connections to end: they would watch for ever."""

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        app = self.config.app
        assert isinstance(app, FastAPI)
        await app.state.recorder.let_go()
        await super().shutdown(sockets)


def serve() -> int:
    """Make ready, wait for the word where that is asked for, serve until it is ended. The exit code."""
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (max(soft, min(_OPEN_FILES, hard)), hard))
    structlog.configure(wrapper_class=structlog.make_filtering_bound_logger(logging.INFO))
    settings = Settings()
    app = create_app(settings)
    config = uvicorn.Config(
        app,
        host=settings.host,
        port=settings.port,
        http=BoundedHttp,
        log_level="warning",
        server_header=False,
        proxy_headers=False,
        timeout_graceful_shutdown=GRACE_S,
        limit_concurrency=MOST_CONNECTIONS,
        h11_max_incomplete_event_size=32_768,
        ssl_certfile=settings.cert or None,
        ssl_keyfile=settings.key or None,
    )
    server = Server(config)
    # What was loaded stays: no collection walks through it again.
    gc.freeze()
    gc.enable()
    if "--on-word" in sys.argv and not sys.stdin.readline():
        return NOT_STARTED
    with contextlib.suppress(KeyboardInterrupt):
        # A database that is away now is said by the server itself.
        with contextlib.suppress(OperationalError):
            keep_up_all(app.state.engine)
        server.run()
    return 0 if server.started else NOT_STARTED
