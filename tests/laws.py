"""How many examples a law is tried with: few in the suite, many in ``./kettle bench laws``."""

from __future__ import annotations

import os

from hypothesis import settings

# By how much more the laws are tried than in the suite.
TIMES = int(os.environ.get("KETTLE_LAWS", "1"))
USUAL = 30


def tried(examples: int) -> settings:
    """A law tried with so many examples in the suite."""
    return settings(max_examples=examples * TIMES, deadline=None)
