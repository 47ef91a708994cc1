"""The clock of the application under test, which a walk sets forward to wait out what takes time.

``python -m tests.clock FILE``: the server of the tests in the browser, on a clock that is ahead by the seconds in a file.
"""

from __future__ import annotations

import sys
from datetime import datetime, timedelta, tzinfo
from pathlib import Path
from typing import ClassVar, Self

from ironkettle.api.base import deps


class ServerClock(datetime):
    """The time as it is, and what it was set forward by."""

    ahead: ClassVar[timedelta] = timedelta()
    told: ClassVar[Path | None] = None

    @classmethod
    def now(cls, tz: tzinfo | None = None) -> Self:
        if cls.told is not None:
            cls.ahead = timedelta(seconds=float(cls.told.read_text() or 0))
        return super().now(tz) + cls.ahead

    @classmethod
    def forward(cls, seconds: float) -> None:
        cls.ahead += timedelta(seconds=seconds)

    @classmethod
    def take_over(cls) -> None:
        """The application asks this clock from now on."""
        deps.datetime = cls  # type: ignore[misc]


if __name__ == "__main__":
    from ironkettle.__main__ import main

    ServerClock.told = Path(sys.argv.pop(1))
    ServerClock.take_over()
    sys.exit(main())
