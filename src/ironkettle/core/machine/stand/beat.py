"""The stand's own numbers of its readings: which are wanted, when each was taken by the server's clock, how many were missed."""

from __future__ import annotations

import math
from collections import deque
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Self

from ironkettle.core.machine.stand.recorded import RecordingPlan, Row

# Of so many answers the one that came quickest tells how the server's clock stands to the stand's.
_ANSWERS = 20
# A number that has not changed for so long, and for so many of the stand's readings, stands still. [s, -]
_STILL_S, _STILL_READINGS = 5.0, 3


@dataclass(slots=True)
class Beat:
    """Follows the readings of one recording. ``every_s``: None for a stand that numbers none [s]; ``rate_hz``: wanted a second.

    ``last`` and ``last_at``: number and time of the last one taken [s of the server's clock]; ``newest`` and ``newest_at``: the last
    number that was heard of, and since when it is that.
    """

    rate_hz: float
    every_s: float | None = None
    last: int | None = None
    last_at: float | None = None
    taken: int = 0
    missed: int = 0
    newest: int | None = None
    newest_at: float = 0.0
    behind: deque[float] = field(default_factory=lambda: deque(maxlen=_ANSWERS))

    @classmethod
    def of(cls, plan: RecordingPlan, rows: Iterable[Row] = ()) -> Self:
        """The beat of a recording after the rows it has."""
        beat = cls(plan.rate_hz, plan.every_s)
        place = None if plan.number is None else plan.place(plan.number)
        for row in rows:
            number = math.nan if place is None else row[place]
            beat.take(row[0], None if math.isnan(number) else int(number))
        return beat

    @property
    def stride(self) -> int:
        """Every how many of the stand's readings is wanted, 1 or above."""
        return 1 if self.every_s is None else max(1, round(1 / (self.rate_hz * self.every_s)))

    def wanted(self, newest: int) -> range:
        """The numbers that are wanted and not taken, up to the newest there is, 0 or above.

        Another numbering (a stand that was started again) begins with the newest.
        """
        if self.last is None or newest < self.last:
            return range(newest, newest + 1)
        return range(self.last + self.stride, newest + 1, self.stride)

    def heard(self, newest: int, at: float) -> None:
        """The newest number, 0 or above, came with an answer of the stand at a time of the server's clock. [s]"""
        if self.last is not None and newest < self.last:
            self.behind.clear()
        self.behind.append(at - newest * (self.every_s or 0.0))
        if newest != self.newest:
            self.newest, self.newest_at = newest, at

    def still_since(self, at: float) -> float | None:
        """Since when the stand takes no readings, at a time above 0; None while it does. [s of the server's clock]"""
        longest = max(_STILL_S, _STILL_READINGS * (self.every_s or 0.0))
        return self.newest_at if self.newest is not None and at - self.newest_at >= longest else None

    def when(self, number: int) -> float:
        """When a reading was taken, by the server's clock; an answer that was long on its way moves none. [s]

        Parameters: number : 0 or above, after ``heard``. Source: the quickest of some answers is nearest to the truth.
        """
        at = number * (self.every_s or 0.0) + min(self.behind)
        # Two readings never share a moment, even where the clocks are compared again.
        return at if self.last_at is None else max(at, self.last_at + 0.001)

    def take(self, at: float, number: int | None) -> None:
        """A reading was taken: count those between it and the one before that are missing.

        Parameters: at : rising [s of the server's clock]; number : 0 or above, None from a stand that numbers none.
        """
        if self.last_at is not None:
            if number is not None and self.last is not None and number >= self.last:
                passed = (number - self.last) / self.stride
            else:
                passed = (at - self.last_at) * self.rate_hz
            self.missed += max(round(passed) - 1, 0)
        self.taken, self.last, self.last_at = self.taken + 1, number, at

    @property
    def says(self) -> str | None:
        """What is said on the run where readings were missed."""
        if not self.missed:
            return None
        return f"{self.missed:,} of {self.taken + self.missed:,} readings of the stand were missed"
