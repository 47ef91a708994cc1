"""The part of a trace that can be judged: the longest unbroken stretch in which the wanted pressure was held."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

import numpy as np

from ironkettle.core.machine.pressure.model import Gauge, HoldRules, Sample
from ironkettle.core.machine.pressure.suited import unsuited
from ironkettle.core.machine.pressure.touched import Gap, Swing, frozen, gaps_of, risen
from ironkettle.core.machine.pressure.trend import Floats


@dataclass(frozen=True, slots=True)
class Held:
    """The judged part. Times in s, pressures in MPa gauge, temperatures in °C (NaN: not read).

    ``sign`` is −1 for a vacuum. ``fault``: why nothing can be judged (``nothing``, ``below``, ``over_range``, ``unsuited``,
    ``pumped``, ``frozen``); ``why``: its words where they depend on the gauge. ``gaps``: where nobody read it for too long,
    with what lies on both sides; only the longest stretch between them is judged. ``left_band``: the trace went on below the
    band; ``out``: its first reading there, if it was a fall and no release. ``began``: the first reading of the whole trace.
    """

    t: Floats
    pressure: Floats
    temperature: Floats
    wanted: float
    given: bool
    fault: str | None
    left_band: bool
    out: tuple[float, float] | None
    gaps: tuple[Gap, ...] = ()
    why: str = ""

    @property
    def sign(self) -> float:
        return -1.0 if self.wanted < 0 else 1.0

    @property
    def size(self) -> float:
        """The wanted pressure, or the depth of the wanted vacuum. [MPa]"""
        return abs(self.wanted)

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


def held_part(samples: tuple[Sample, ...], gauge: Gauge, wanted: float | None, rules: HoldRules, swing: Swing) -> Held:
    """From the first reading to the last before one below the band under the wanted pressure; of that the longest stretch
    without a gap.

    Parameters: wanted : None for the pressure of the first reading; negative for a vacuum [MPa gauge]; swing : how far
    temperature may move the pressure.
    Source: the shop's rules (docs/guide/pressure-tests.md).
    """
    t = np.array([sample.t for sample in samples])
    pressure = np.array([sample.pressure for sample in samples])
    temperature = np.array([sample.temperature for sample in samples], dtype=float)
    target = float(pressure[0]) if wanted is None else wanted
    sign = -1.0 if target < 0 else 1.0
    size, read = abs(target), sign * pressure
    below = np.flatnonzero(read < size * (1 - rules.band_pct / 100))
    end = max(int(below[0]), 1) if len(below) else len(t)
    fault, why = _unjudged(read, pressure, gauge, target, rules)
    gaps = gaps_of(t[:end], read[:end], gauge)
    if fault is None:
        if risen(t[:end], read[:end], temperature[:end], gauge, swing) or any(gap.pumped for gap in gaps):
            fault = "pumped"
        elif frozen(t[:end], read[:end], temperature[:end], gauge, swing):
            fault = "frozen"
    first, last = _longest(t[:end], gaps)
    # A reading far below may be the release at the end, or a burst; the trace alone cannot tell.
    fell = end < len(t) and not gaps and read[end] > size / 2
    return Held(
        t[first:last],
        pressure[first:last],
        temperature[first:last],
        target,
        wanted is not None,
        fault,
        end < len(t),
        (float(t[end]), float(pressure[end])) if fell else None,
        gaps,
        why,
    )


def _unjudged(read: Floats, pressure: Floats, gauge: Gauge, target: float, rules: HoldRules) -> tuple[str | None, str]:
    """Why a trace says nothing, before its course is looked at."""
    size = abs(target)
    if size <= 2 * gauge.resolution:
        return "nothing", ""
    if float(np.abs(pressure).max()) > gauge.range + gauge.resolution / 2:
        return "over_range", ""
    if (why := unsuited(gauge, target, rules)) is not None:
        return "unsuited", why
    if read[0] < size * (1 - (rules.start_below_pct + gauge.accuracy_pct) / 100) - gauge.resolution:
        return "below", ""
    return None, ""


def _longest(t: Floats, gaps: tuple[Gap, ...]) -> tuple[int, int]:
    """The longest stretch between gaps, as places of its first reading and behind its last."""
    edges = [0, *(gap.place for gap in gaps), len(t)]
    stretches = [(first, last) for first, last in itertools.pairwise(edges) if last > first]
    return max(stretches, key=lambda stretch: (t[stretch[1] - 1] - t[stretch[0]], stretch[1] - stretch[0]))
