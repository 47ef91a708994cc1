"""The test stand."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, LEAD, WORKERS, Right


class StandPolicy:
    """Everybody signed in sees what it shows; who works on units moves it; its map is the lead's."""

    read = Right("view  the test stand", EVERYBODY)
    move = Right("move the test stand", WORKERS)
    change = Right("change the stand's register map", LEAD)
