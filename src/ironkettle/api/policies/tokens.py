"""Tokens of scripts."""

from __future__ import annotations

from ironkettle.api.policies.base import LEAD, Right


class TokenPolicy:
    """The lead makes and revokes them, signed in and not by a script."""

    manage = Right("manage tokens", LEAD, in_person=True)
