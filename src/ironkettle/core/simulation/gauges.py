"""What a gauge makes of the truth: noise, steps, an offset, a lag; and what can be wrong with a channel."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from enum import StrEnum
from random import Random


class Fault(StrEnum):
    """What can be wrong with a stand: with its pressure channel, or with its clock."""

    FROZEN = "frozen"
    OUT_OF_RANGE = "out_of_range"
    SPIKES = "spikes"
    WRONG_SCALE = "wrong_scale"
    CLOCK = "clock"


@dataclass(slots=True)
class Channel:
    """One thing a stand reads. ``noise`` and ``step`` in its unit, ``lag_s``: how slowly it follows, ``top``: its range."""

    step: float
    noise: float = 0.0
    offset: float = 0.0
    lag_s: float = 0.0
    top: float = math.inf
    fault: Fault | None = None
    shown: float = 0.0
    followed: float | None = None
    chance: Random = field(default_factory=lambda: Random(417))

    def read(self, truth: float, seconds: float) -> float:
        """What it shows after a time, seconds above 0, of a truth, any [unit of the channel]. Source: first-order lag, rounding."""
        if self.followed is None or self.lag_s == 0.0:
            self.followed = truth
        else:
            self.followed += (truth - self.followed) * (1 - math.exp(-seconds / self.lag_s))
        if self.fault is Fault.FROZEN:
            return self.shown
        value = self.followed + self.offset + self.chance.gauss(0, self.noise)
        if self.fault is Fault.SPIKES and self.chance.random() < 0.02:
            value += self.chance.choice((-1, 1)) * 0.3 * (abs(value) + 1)
        if self.fault is Fault.WRONG_SCALE:
            value *= 10
        if self.fault is Fault.OUT_OF_RANGE:
            value = 1.1 * self.top if math.isfinite(self.top) else 10 * abs(value) + 1
        self.shown = round(min(value, 1.1 * self.top) / self.step) * self.step
        return self.shown
