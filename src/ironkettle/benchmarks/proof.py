"""Figures of proving: the analysis of a long trace, the simulated stand against the clock."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ironkettle.benchmarks.timing import median_time
from ironkettle.core.machine.pressure import Gauge, Sample, TestVolume, analyse_hold, read_trace, trace_csv
from ironkettle.core.simulation import Stand
from ironkettle.reference import fluids

Figure = tuple[str, float, float]
_SAMPLES, _SIMULATED_S = 180_000, 600.0


def figures() -> Iterator[Figure]:
    oil = next(fluid for fluid in fluids() if not fluid.gas)
    chance = np.random.default_rng(417)
    t = np.arange(_SAMPLES) * 0.02
    pressure = 18.0 - 1e-6 * t + chance.normal(0, 0.002, _SAMPLES)
    samples = tuple(Sample(float(a), float(b), 24.0) for a, b in zip(t, pressure, strict=True))
    volume, gauge = TestVolume(500.0, oil, 1.3), Gauge(40.0, 0.001, 0.1)
    judged = median_time(lambda: analyse_hold(samples, volume, gauge, 0.5, wanted=18.0), 5)
    floor = median_time(lambda: _least_squares(samples), 5)
    yield f"analysis of {_SAMPLES:,} samples / bare least squares over them", judged, floor

    text = trace_csv(samples)
    read, split = median_time(lambda: read_trace(text), 3), median_time(lambda: _split(text), 3)
    yield f"reading {_SAMPLES:,} rows of CSV / splitting and converting them", read, split

    def simulate() -> None:
        stand = Stand()
        stand.raise_to(18.0, 1)
        stand.advance(_SIMULATED_S)

    yield "ten minutes of the simulated stand / a hundredth of them", median_time(simulate, 3), _SIMULATED_S / 100


def _split(text: str) -> list[list[float]]:
    return [[float(cell) for cell in line.split(",")] for line in text.splitlines()[1:]]


def _least_squares(samples: tuple[Sample, ...]) -> object:
    """Time, pressure and temperature taken out of the samples, and a straight line through them; nothing else."""
    t = np.array([sample.t for sample in samples])
    lines = np.array([[sample.pressure, sample.temperature or 0.0] for sample in samples])
    return np.linalg.lstsq(np.vstack([t, np.ones(len(t))]).T, lines, rcond=None)


__all__ = ["figures"]
