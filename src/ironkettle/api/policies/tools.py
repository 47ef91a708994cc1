"""Torque wrenches and gauges."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, LEAD, Right
from ironkettle.core.shop.people import Role


class ToolPolicy:
    """Everybody signed in sees them; stores and the lead keep the list."""

    read = Right("view  tools", EVERYBODY)
    change = Right("change the list of tools", LEAD | {Role.STORES})
