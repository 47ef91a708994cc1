"""The stock of seals."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, STOREKEEPERS, Right


class StockPolicy:
    """Everybody signed in sees it; stores and bench keep it."""

    read = Right("view  the stock", EVERYBODY)
    change = Right("change the stock", STOREKEEPERS)
