"""House rules."""

from __future__ import annotations

from ironkettle.api.policies.base import LEAD, Right


class HousePolicy:
    """Everybody may read what limits are in force; the lead decides them."""

    change = Right("change house rules", LEAD)
