"""Units, their counters and what is due."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, STOREKEEPERS, WORKERS, Right


class UnitPolicy:
    """Everybody signed in sees them; who works on them reads their counters and starts their quick service."""

    read = Right("view  units", EVERYBODY)
    count = Right("enter counter readings", STOREKEEPERS)
    start_service = Right("start a service", WORKERS)
