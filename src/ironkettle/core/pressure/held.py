"""The part of a trace that can be judged: where the wanted pressure was held."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ironkettle.core.pressure.model import Gauge, HoldRules, Sample
from ironkettle.core.pressure.trend import Floats

_MOST_RISE_PCT = 1.0


@dataclass(frozen=True, slots=True)
class Held:
    """The judged part. Times in s, pressures in MPa gauge, temperatures in °C (NaN: not read).

    ``sign`` is −1 for a vacuum. ``fault``: why nothing can be judged (``nothing``, ``below``,
    ``pumped``, ``frozen``). ``left_band``: the trace went on below the band; ``out``: its first reading there, if
    it was a fall and no release.
    """

    t: Floats
    pressure: Floats
    temperature: Floats
    wanted: float
    given: bool
    fault: str | None
    left_band: bool
    out: tuple[float, float] | None

    @property
    def sign(self) -> float:
        return -1.0 if self.wanted < 0 else 1.0

    @property
    def size(self) -> float:
        """The wanted pressure, or the depth of the wanted vacuum. [MPa]"""
        return abs(self.wanted)

    @property
    def unseen(self) -> float:
        """The longest time between two readings. [s]"""
        return float(np.diff(self.t).max()) if len(self.t) > 1 else 0.0

    @property
    def half_unseen(self) -> bool:
        """Whether nobody read the gauge for more than half of the hold: it may have been pumped up meanwhile."""
        return self.unseen > (self.end - self.start) / 2

    @property
    def start(self) -> float:
        return float(self.t[0])

    @property
    def end(self) -> float:
        return float(self.t[-1])

    @property
    def low(self) -> float:
        return float(self.pressure.min())

    @property
    def high(self) -> float:
        return float(self.pressure.max())


def held_part(samples: tuple[Sample, ...], gauge: Gauge, wanted: float | None, rules: HoldRules) -> Held:
    """From the first reading to the last before one that lies below the band under the wanted pressure.

    Parameters: wanted : None for the pressure of the first reading; negative for a vacuum [MPa gauge].
    Source: the shop's rules (docs/guide/pressure-tests.md).
    """
    t = np.array([sample.t for sample in samples])
    pressure = np.array([sample.pressure for sample in samples])
    temperature = np.array([sample.temperature for sample in samples], dtype=float)
    target = float(pressure[0]) if wanted is None else wanted
    sign = -1.0 if target < 0 else 1.0
    size, read = abs(target), sign * pressure
    below = np.flatnonzero(read < size * (1 - rules.band_pct / 100))
    end = int(below[0]) if len(below) else len(t)
    reached = read[0] >= size * (1 - (rules.start_below_pct + gauge.accuracy_pct) / 100) - gauge.resolution
    fault = None
    if size <= 2 * gauge.resolution:
        fault, end = "nothing", max(end, 1)
    elif not reached:
        fault, end = "below", max(end, 1)
    elif _pumped(read[:end], gauge, size):
        fault = "pumped"
    elif _frozen(t[:end], read[:end]):
        fault = "frozen"
    # A reading far below may be the release at the end, or a burst; the trace alone cannot tell.
    fell = end < len(t) and end > 0 and read[end] > size / 2
    return Held(
        t[:end],
        pressure[:end],
        temperature[:end],
        target,
        wanted is not None,
        fault,
        end < len(t),
        (float(t[end]), float(pressure[end])) if fell else None,
    )


# A channel that moved from reading to reading and then shows the same this many times, over so long, has frozen:
# by chance not once in a million million. [-, s]
_SAME, _SAME_S = 40, 20.0
_LIVELY = 0.5


def _frozen(t: Floats, read: Floats) -> bool:
    """Whether a channel that was alive stopped: a standing value would hide any leak. Equal from the first on tells nothing."""
    moved = np.flatnonzero(np.diff(read) != 0)
    if len(read) < _SAME + 10 or len(moved) < 5:
        return False
    edges = np.concatenate([[-1], moved, [len(read) - 1]])
    lengths = np.diff(edges)
    longest = int(lengths.argmax())
    first, last = int(edges[longest]) + 1, int(edges[longest + 1])
    others = len(read) - int(lengths[longest])
    return bool(
        lengths[longest] >= _SAME and t[last] - t[first] >= _SAME_S and others >= 10 and len(moved) >= _LIVELY * others
    )


def _pumped(read: Floats, gauge: Gauge, size: float) -> bool:
    """Whether the pressure was raised during the hold: one rise far beyond steps and ripple."""
    if len(read) < 3:
        return False
    change = np.diff(read)
    ripple = 6 * float(np.median(np.abs(change)))
    return bool(change.max() > max(3 * gauge.resolution, _MOST_RISE_PCT / 100 * size, ripple))
