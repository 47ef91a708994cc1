"""Ring puzzles."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, Right


class PracticePolicy:
    """The puzzles are open; a guess and the scores carry names."""

    guess = Right("guess at puzzles", EVERYBODY)
    scores = Right("view  scores", EVERYBODY)
