"""Run the server: ``python -m ironkettle``. The database is prepared before (prepare.py)."""

from __future__ import annotations

import logging
import sys

import structlog
import uvicorn

from ironkettle.api.app import create_app
from ironkettle.api.http import BoundedHttp
from ironkettle.settings import Settings

# Requests under way get this long at a stop; half-open ones are cut off after it.
GRACE_S = 5
MOST_CONNECTIONS = 400


def main() -> int:
    structlog.configure(wrapper_class=structlog.make_filtering_bound_logger(logging.INFO))
    settings = Settings()
    uvicorn.run(
        create_app(settings),
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
    return 0


if __name__ == "__main__":
    sys.exit(main())
