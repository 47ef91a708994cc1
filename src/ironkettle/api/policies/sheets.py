"""Build sheets."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, WORKERS, Right


class SheetPolicy:
    """Everybody signed in reads; who works on units brings sheets in."""

    read = Right("look at build sheets", EVERYBODY)
    bring_in = Right("import build sheets", WORKERS)
