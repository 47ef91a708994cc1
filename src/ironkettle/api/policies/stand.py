"""The test stand."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, WORKERS, Right


class StandPolicy:
    """Everybody signed in sees what it shows; who works on units moves it."""

    read = Right("look at the test stand", EVERYBODY)
    move = Right("move the test stand", WORKERS)
