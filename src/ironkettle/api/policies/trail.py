"""The trail of changes."""

from __future__ import annotations

from ironkettle.api.policies.base import LEAD, Right


class TrailPolicy:
    """The lead reads it; nobody changes it."""

    read = Right("view  the trail of changes", LEAD)
