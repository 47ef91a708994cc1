"""What a trace shows of hands and channels: gaps in which anything may have happened, rises, a channel that stands still."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ironkettle.core.machine.pressure.model import Gauge
from ironkettle.core.machine.pressure.trend import Floats, trend_of

# A gap is longer than so many times the usual distance of readings, and than so long. [-, s]
_GAP_TIMES, _GAP_S = 3.0, 10.0
# So many readings on each side tell a slope that the other side can be held against.
_LEAST_SIDE = 3
# A rise beyond two steps and so many times the scatter is no noise.
_STEPS_RISE, _NOISE_RISE = 2.0, 5.0
# A channel that moved from reading to reading and then shows the same this many times, over so long, has frozen:
# by chance not once in a million million. [-, s]
_SAME, _SAME_S = 40, 20.0
_LIVELY = 0.5
# No shop holds a temperature closer than this: what does not move by it is not read. [K/min, K]
_STILL_K_PER_MIN, _STILL_MOST_K = 0.02, 0.05
# What a thermometer that never shows another figure is taken for.
CONSTANT_STEP_K = 1.0


@dataclass(frozen=True, slots=True)
class Swing:
    """How far temperature moves the pressure: per kelvin at most and at least [MPa/K]; the drift that is allowed where it is not read
    [K/s], up to how much [K]; how long a sensor lags [s]; what the volume may recover after being let down [MPa]."""

    per_kelvin: float
    least_per_kelvin: float
    drift: float
    most: float
    lag: float
    recovery: float = 0.0

    def explains(self, t: Floats, temperature: Floats, lag: int) -> Floats:
        """How much of a rise or fall between readings ``lag`` apart temperature explains. [s, °C, MPa]"""
        return self._between(t[lag:] - t[:-lag], temperature[lag:] - temperature[:-lag], t, temperature)

    def explains_since_start(self, t: Floats, temperature: Floats) -> Floats:
        """How much of what happened since the first reading temperature explains. [s, °C, MPa]"""
        return self._between(t - t[0], temperature - temperature[0], t, temperature)

    def _between(self, after: Floats, warmed: Floats, t: Floats, temperature: Floats) -> Floats:
        if not _tells(temperature):
            return self.per_kelvin * np.minimum(self.drift * after, self.most) + self.recovery
        step = thermometer_step(temperature)
        # It may have begun three times as fast as it went on the whole.
        rate = max(self.drift, 3 * (float(np.ptp(temperature)) - step) / float(t[-1] - t[0]))
        shown = np.abs(warmed) + step + rate * self.lag
        return self.per_kelvin * np.minimum(shown, rate * after) + self.recovery


def _tells(temperature: Floats) -> bool:
    """Whether a thermometer was read at every reading, and ever showed another figure: a typed guess tells nothing."""
    return not np.isnan(temperature).any() and float(np.ptp(temperature)) > 0


def thermometer_step(temperature: Floats) -> float:
    """A step of the thermometer as far as its readings show one; a whole kelvin where they never differ. [K]

    Parameters: temperature : those that were read [°C]. Source: the smallest difference of two readings.
    Range: above −273.15 °C.
    """
    found = np.unique(np.round(temperature, 6))
    return float(np.diff(found).min()) if len(found) > 1 else CONSTANT_STEP_K


@dataclass(frozen=True, slots=True)
class Gap:
    """A time without readings. ``place``: of the first reading after it; from and to when [s].

    ``pumped``: the pressure was higher after it than before; ``differs``: it went on otherwise than it had gone before.
    """

    place: int
    start: float
    end: float
    pumped: bool
    differs: bool


def gaps_of(t: Floats, read: Floats, gauge: Gauge) -> tuple[Gap, ...]:
    """Every gap of a trace: longer than three usual distances and than 10 s. Parameters: t [s]; read [MPa].

    Source: the shop's rules (docs/guide/pressure-tests.md).
    Range: t rising, read above −0.101 MPa.
    """
    if len(t) < 2:
        return ()
    distance = np.diff(t)
    long = max(_GAP_TIMES * float(np.median(distance)), _GAP_S)
    places = [int(place) + 1 for place in np.flatnonzero(distance > long)]
    edges = [0, *places, len(t)]
    found = []
    for number, place in enumerate(places):
        before, after = slice(edges[number], place), slice(place, edges[number + 2])
        noise = max(_noise(read[before], gauge), _noise(read[after], gauge))
        rise = float(read[place] - read[place - 1])
        found.append(
            Gap(
                place,
                float(t[place - 1]),
                float(t[place]),
                pumped=rise > _STEPS_RISE * gauge.resolution + _NOISE_RISE * noise,
                differs=_differs(t, read, before, after, gauge),
            )
        )
    return tuple(found)


def _differs(t: Floats, read: Floats, before: slice, after: slice, gauge: Gauge) -> bool:
    """Whether the slopes on both sides of a gap, or that across it, are not one."""
    if min(len(t[before]), len(t[after])) < _LEAST_SIDE:
        return False
    earlier = trend_of(t[before], read[before], gauge.resolution)
    other = trend_of(t[after], read[after], gauge.resolution)
    across = float(read[after][0] - read[before][-1]) / float(t[after][0] - t[before][-1])
    doubt = earlier.half + other.half
    steps = 2 * gauge.resolution / float(t[after][0] - t[before][-1])
    slowest, fastest = sorted((earlier.slope, other.slope))
    return fastest - slowest > doubt or across > fastest + doubt + steps or across < slowest - doubt - steps


def risen(t: Floats, read: Floats, temperature: Floats, gauge: Gauge, swing: Swing) -> bool:
    """Whether the pressure rose by more than two steps, the scatter and what temperature explains: pumped or touched.

    Over any time, so that many small strokes count as one large. Parameters: t [s]; read [MPa]; temperature [°C, NaN where
    not read]. Source: the shop's rules (docs/guide/pressure-tests.md).
    Range: t rising, read above −0.101 MPa.
    """
    if len(read) < 3:
        return False
    allowed = _STEPS_RISE * gauge.resolution + _NOISE_RISE * _noise(read, gauge)
    lag = 1
    while lag < len(read):
        rise = read[lag:] - read[:-lag]
        if bool((rise > allowed + swing.explains(t, temperature, lag)).any()):
            return True
        lag = max(lag + 1, math.ceil(lag * 1.5))
    return False


def _noise(read: Floats, gauge: Gauge) -> float:
    """The scatter from reading to reading beyond rounding, from the falls alone, so that strokes of a pump do not hide in it.
    [MPa]"""
    if len(read) < 3:
        return 0.0
    change = np.diff(read)
    falls = change - np.median(change)
    falls = falls[falls <= 0]
    # Two roundings make a variance of a sixth of a step squared.
    return math.sqrt(max(float(np.mean(falls**2)) - gauge.resolution**2 / 6, 0.0))


def frozen(t: Floats, read: Floats, temperature: Floats, gauge: Gauge, swing: Swing) -> bool:
    """Whether a channel stood still: it was alive and stopped, or it never moved where it must have.

    A channel that never moved is frozen where the temperature that was read, or the least drift that any shop has, would
    have moved it by more than a step in the softest volume that it may be. Parameters and source as for ``risen``.
    Parameters: t, rising [s]; read, above −0.101 [MPa]; temperature [°C].
    """
    moved = np.flatnonzero(np.diff(read) != 0)
    if len(moved) == 0:
        if len(read) < 5:
            return False
        drift = min(_STILL_K_PER_MIN * float(t[-1] - t[0]) / 60, _STILL_MOST_K)
        warmed = 0.0 if np.isnan(temperature).any() else float(np.ptp(temperature))
        return swing.least_per_kelvin * max(drift, warmed) > gauge.resolution
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
