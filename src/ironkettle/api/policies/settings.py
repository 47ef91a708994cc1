"""Shop settings."""

from __future__ import annotations

from ironkettle.api.policies.base import LEAD, Right


class SettingsPolicy:
    """Everybody may read what limits are in force; the lead decides them."""

    change = Right("change shop settings", LEAD)
