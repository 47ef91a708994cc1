"""Run the server: ``python -m ironkettle [--demo|--empty]``."""

from __future__ import annotations

import logging
import sys

import structlog
import uvicorn
from sqlalchemy.exc import OperationalError

from ironkettle.api.app import create_app
from ironkettle.prepare import prepare
from ironkettle.settings import Settings


def main() -> int:
    structlog.configure(wrapper_class=structlog.make_filtering_bound_logger(logging.INFO))
    settings = Settings()
    app = create_app(settings)
    try:
        prepare(app.state.engine, demo="--demo" in sys.argv)
    except OperationalError as error:
        print(f"The database cannot be used: {str(error.orig).strip().splitlines()[0]}", file=sys.stderr)
        return 1
    uvicorn.run(app, host=settings.host, port=settings.port, log_level="warning")
    return 0


if __name__ == "__main__":
    sys.exit(main())
