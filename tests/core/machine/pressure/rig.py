"""The oil and air volumes of the pressure tests, and holds made of a formula."""

from __future__ import annotations

import math
from collections.abc import Callable

from ironkettle.core.machine.pressure import Fluid, Gauge, Sample, TestVolume

OIL = Fluid("mineral oil ISO VG 46", False, 1.6, ((20.0, 0.0007),))
WATER = Fluid("water", False, 2.18, ((0.0, -0.00007), (4.0, 0.0), (20.0, 0.0002), (40.0, 0.0004)))
AIR = Fluid("air", True, None)
GAUGE = Gauge(25.0, 0.01, 0.5)
AIR_GAUGE = Gauge(1.0, 0.0001, 0.25)
VOLUME = TestVolume(850, OIL, 1.4)
# By hand: 850 ml / 1400 MPa.
SOFT = 0.6071429


def hold(
    pressure: Callable[[float], float],
    *,
    last: float = 120.0,
    every: float = 2.0,
    warm: Callable[[float], float] | None = lambda t: 22.0,
    step: float = 0.01,
) -> tuple[Sample, ...]:
    """Readings of a formula, rounded to the gauge's step; now and then the last figure flickers, as on a live gauge. [s, MPa, °C]"""
    times = [every * i for i in range(int(last / every) + 1)]
    return tuple(
        Sample(t, round(pressure(t) / step + (i % 5 == 3)) * step, warm(t) if warm else None)
        for i, t in enumerate(times)
    )


def leaking(rate: float, start: float = 21.0, soft: float = SOFT) -> Callable[[float], float]:
    """A fall in a straight line from a leak. [ml/min] to [MPa]"""
    return lambda t: start - rate / 60 / soft * t


def exponential(tau: float, start: float = 21.0) -> Callable[[float], float]:
    return lambda t: start * math.exp(-t / tau)
