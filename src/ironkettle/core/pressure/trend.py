"""The straight line through readings that settle, ripple and come in steps: its slope, and how far it may be off."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
# Readings closer together than this tell hardly more than one: pumps, hoses and gauges ripple slowly.
NOISE_MEMORY_S = 20.0
_STEPS = 1.5
_ERRORS = 3.5


@dataclass(frozen=True, slots=True)
class Trend:
    """Slope and half-width [unit/s], mean [unit], and how long it was watched [s]."""

    slope: float
    half: float
    mean: float
    span: float

    @property
    def ends(self) -> tuple[float, float]:
        return self.slope - self.half, self.slope + self.half


def trend_of(t: Floats, y: Floats, step: float) -> Trend:
    """The least-squares slope of y over t, with a half-width that looking often does not narrow.

    The half-width is the larger of 1.5 steps of the instrument over the span, and 3.5 standard
    errors. Residuals are taken about a parabola, so that a steady bend is no noise; the number of
    readings that count is at most one in 20 s.

    Parameters: t : at least two, running forward [s]; y : the readings [unit]; step : smallest step
    of the instrument, > 0 [unit].
    Source: least squares; 3.5 errors chosen so that a verdict taken at any moment keeps its error
    (tried in bench/holds.py).
    """
    span = float(t[-1] - t[0])
    centred = t - t.mean()
    spread = float(centred @ centred)
    slope = float(centred @ y) / spread
    count = len(t)
    half = _STEPS * step / span
    if count > 3:
        residual = y - np.polynomial.Polynomial.fit(t, y, 2)(t)
        deviation = math.sqrt(float(residual @ residual) / (count - 3))
        counting = min(float(count), span / NOISE_MEMORY_S + 1)
        half = max(half, _ERRORS * deviation / (math.sqrt(spread / count) * math.sqrt(counting)))
    return Trend(slope, half, float(y.mean()), span)
