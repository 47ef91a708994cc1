"""Units, their counters and what is due."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, STOREKEEPERS, WORKERS, Right


class UnitPolicy:
    """Everybody signed in sees them; who works on them reads their counters and begins their care."""

    read = Right("view  units", EVERYBODY)
    count = Right("enter counter readings", STOREKEEPERS)
    care = Right("start a service", WORKERS)
