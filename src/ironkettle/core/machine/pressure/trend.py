"""The straight line through readings that settle, ripple and come in steps: its slope, and how far it may be off."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, stdtrit

Floats = NDArray[np.float64]
# Readings closer together than this tell hardly more than one, unless they scatter freely: pumps and hoses ripple slowly.
NOISE_MEMORY_S = 20.0
# A line through readings that come in steps is off by at most so many steps over the span (worst case of least squares).
STEPS = 1.5
# As many standard errors as a verdict taken at any moment needs, were the noise known; fewer readings need more.
_ERRORS = 3.5
_TAIL = float(ndtr(-_ERRORS))
# Scatter of no more than so many steps is rounding and a flicker of the last figure: no reading is off by more than a step,
# and a line by no more than so many steps over the span.
_ROUNDING, _FLICKER = 0.6, 3.0
# A parabola takes three.
_TAKEN = 3
# What noise is estimated from may scatter by so many standard deviations of the lag-one correlation.
_DOUBT_OF_CORRELATION = 2.0


@dataclass(frozen=True, slots=True)
class Trend:
    """Slope and half-width [unit/s], mean [unit], how long it was watched [s], and the scatter about a smooth line [unit]."""

    slope: float
    half: float
    mean: float
    span: float
    noise: float = 0.0

    @property
    def ends(self) -> tuple[float, float]:
        return self.slope - self.half, self.slope + self.half


def trend_of(t: Floats, y: Floats, step: float) -> Trend:
    """The least-squares slope of y over t, with a half-width that looking often does not narrow.

    The half-width is the larger of 1.5 steps of the instrument over the span, and the standard error times Student's t at
    the tail of 3.5 standard deviations, by the degrees of freedom of the noise that was seen. Residuals are taken about a
    parabola, so that a steady bend is no noise; scatter that is no more than rounding counts for 3 steps over the span at most
    (twice the worst case of readings that are off by a step). Of readings closer together than 20 s only those count that scatter freely
    (lag-one correlation of the residuals, at its upper end).

    Parameters: t : at least two, running forward [s]; y : the readings [unit]; step : smallest step
    of the instrument, > 0 [unit].
    Source: least squares; Student's t; the tail chosen so that a verdict taken at any moment keeps its error
    (tried in bench/holds.py).
    """
    span = float(t[-1] - t[0])
    centred = t - t.mean()
    spread = float(centred @ centred)
    slope = float(centred @ y) / spread
    count = len(t)
    half = STEPS * step / span
    deviation = 0.0
    if count > _TAKEN:
        residual = y - y.mean() - slope * centred - _bend(centred / span, y)
        deviation = math.sqrt(float(residual @ residual) / (count - _TAKEN))
        counting = _counting(residual, span)
        freedom = max(counting - _TAKEN, 1.0)
        noisy = student(freedom) * deviation / (math.sqrt(spread / count) * math.sqrt(counting))
        half = max(half, min(noisy, _most(deviation, step) / span))
    return Trend(slope, half, float(y.mean()), span, deviation)


def _bend(x: Floats, y: Floats) -> Floats:
    """What a parabola adds to the straight line: its square part, made to know nothing of mean and slope. [unit of y]"""
    square = x * x
    square -= square.mean()
    square -= float(square @ x) / float(x @ x) * x
    return np.asarray(float(square @ y) / float(square @ square) * square)


def _most(deviation: float, step: float) -> float:
    """What scatter can do to the ends of a line at most, where it is no more than rounding; else anything. [unit]"""
    return _FLICKER * step if deviation <= _ROUNDING * step else math.inf


def student(freedom: float) -> float:
    """How many standard errors stand for the tail of 3.5 known ones, at so many degrees of freedom above 0. [-]

    Source: quantile of Student's t.
    """
    return float(-stdtrit(freedom, _TAIL))


def _counting(residual: Floats, span: float) -> float:
    """How many readings count: one in 20 s, more where they scatter freely."""
    count = len(residual)
    slowly = min(float(count), span / NOISE_MEMORY_S + 1)
    power = float(residual @ residual)
    if power <= 0 or count <= 2 * _TAKEN:
        return slowly
    correlation = float(residual[1:] @ residual[:-1]) / power + _DOUBT_OF_CORRELATION / math.sqrt(count)
    freely = count * (1 - min(max(correlation, 0.0), 0.99)) / (1 + min(max(correlation, 0.0), 0.99))
    return max(slowly, freely)
