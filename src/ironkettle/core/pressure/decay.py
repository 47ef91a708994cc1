"""Leak rate from the decay of pressure, with its 95 % interval, and the verdict on it."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.special import stdtrit

from ironkettle.core.errors import fault
from ironkettle.core.findings import Finding, caution, info
from ironkettle.core.pressure.energy import stored_energy
from ironkettle.core.pressure.model import (
    STANDARD_PRESSURE_MPA,
    STANDARD_TEMPERATURE_K,
    ZERO_CELSIUS_K,
    Fluid,
    Gauge,
    Sample,
    check_samples,
)
from ironkettle.core.rings.sizes import Floats

LONGEST_FURTHER_HOLD_S = 86_400.0
SHORTEST_FURTHER_HOLD_S = 60.0
_SETTLING_NEEDS = 8
_SETTLING_STEPS = 20


@dataclass(frozen=True, slots=True)
class TestVolume:
    """What is under pressure: volume in ml, medium, effective bulk modulus in GPa or None for nominal."""

    __test__ = False

    volume: float
    fluid: Fluid
    bulk_modulus_gpa: float | None = None
    atmosphere: float = STANDARD_PRESSURE_MPA
    absolute: bool = False

    @property
    def modulus(self) -> float:
        """Bulk modulus used for a liquid. [MPa]"""
        used = self.bulk_modulus_gpa or self.fluid.bulk_modulus_gpa
        if used is None:
            raise fault("bulk_modulus_gpa", f"{self.fluid.name} has no bulk modulus")
        return used * 1000


@dataclass(frozen=True, slots=True)
class Analysis:
    """Rates in ml/min (gas: standard ml/min), times in s, energy in J. A leak is positive."""

    leak_rate: float
    interval: tuple[float, float]
    temperature_corrected: bool
    settled_from: float
    hold: float
    verdict: str
    hold_needed: float | None
    stored_energy: float
    findings: tuple[Finding, ...]


@dataclass(frozen=True, slots=True)
class _Line:
    slope: float
    error: float
    freedom: int


def analyse_hold(samples: tuple[Sample, ...], volume: TestVolume, gauge: Gauge, limit: float) -> Analysis:
    """Leak rate, interval and verdict of a pressure hold.

    Liquid: Q = −(V/K)·dp/dt + V·α·dT/dt. Gas: Q_std = −V·(T_std/p_std)·d(p_abs/T)/dt at
    101.325 kPa and 20 °C. The volume lost is fitted with a straight line; the interval is Student's,
    widened for samples that follow one another, never narrower than the gauge's resolution allows,
    with the accuracy of the gauge as an error of scale. The settling part at the start is left out:
    the hold counts from the first sample after which both halves of the rest agree in slope.

    Parameters
    ----------
    samples : at least 3, times running forward. [s, MPa gauge, °C]
    volume : test volume. [ml]
    gauge : resolution [MPa] and accuracy [%].
    limit : largest leak allowed, > 0. [ml/min]

    Raises RuleError for samples that cannot be read as a hold.
    Source: definition of the bulk modulus; ideal gas law.
    """
    check_samples(samples)
    t = np.array([sample.t for sample in samples])
    lost, corrected = _volume_lost(samples, volume)
    floor = _resolution_floor(volume, gauge)
    start, steady = _settled_index(t, lost, floor)
    line = _fit(t[start:], lost[start:], floor)
    rate = line.slope * 60
    half = 60 * line.error * float(stdtrit(line.freedom, 0.975))
    half = math.hypot(half, gauge.accuracy_pct / 100 * abs(rate))
    low, high = rate - half, rate + half
    hold = float(t[-1] - t[start])
    verdict = "pass" if high < limit else "fail" if low > limit else "undecided"
    peak = max(sample.pressure for sample in samples)
    return Analysis(
        leak_rate=rate,
        interval=(low, high),
        temperature_corrected=corrected,
        settled_from=float(t[start]),
        hold=hold,
        verdict=verdict,
        hold_needed=_further_hold(hold, half, abs(limit - rate)) if verdict == "undecided" else None,
        stored_energy=stored_energy(peak, volume.volume, volume.fluid, volume.bulk_modulus_gpa),
        findings=_findings(volume, corrected, steady),
    )


def _volume_lost(samples: tuple[Sample, ...], volume: TestVolume) -> tuple[Floats, bool]:
    """Volume lost since the first sample, ml (gas: standard ml), and whether temperature was used."""
    pressure = np.array([sample.pressure for sample in samples])
    temperature = np.array([sample.temperature for sample in samples], dtype=float)
    corrected = not np.isnan(temperature).any()
    if volume.fluid.gas:
        absolute = pressure if volume.absolute else pressure + volume.atmosphere
        if np.any(absolute <= 0):
            raise fault("samples", "a pressure lies below vacuum; is it gauge or absolute?", "gauge", "absolute")
        kelvin = temperature + ZERO_CELSIUS_K if corrected else np.full_like(pressure, STANDARD_TEMPERATURE_K)
        amount = volume.volume * (STANDARD_TEMPERATURE_K / STANDARD_PRESSURE_MPA) * absolute / kelvin
        return np.asarray(amount[0] - amount), corrected
    lost = -(volume.volume / volume.modulus) * (pressure - pressure[0])
    if corrected:
        lost = lost + volume.volume * (volume.fluid.expansion_per_k or 0.0) * (temperature - temperature[0])
    return np.asarray(lost), corrected


def _resolution_floor(volume: TestVolume, gauge: Gauge) -> float:
    """Standard deviation that rounding to the gauge's resolution puts on the volume lost. [ml]"""
    per_mpa = 1 / STANDARD_PRESSURE_MPA if volume.fluid.gas else 1 / volume.modulus
    return volume.volume * per_mpa * gauge.resolution / math.sqrt(12)


def _fit(t: Floats, y: Floats, floor: float) -> _Line:
    n = len(t)
    centred = t - t.mean()
    spread = float(centred @ centred)
    slope = float(centred @ y) / spread
    residual = y - y.mean() - slope * centred
    freedom = n - 2
    deviation = max(math.sqrt(float(residual @ residual) / freedom), floor)
    inflation = 1.0
    power = float(residual @ residual)
    if n >= _SETTLING_NEEDS and power > 0 and deviation > floor:
        follow = min(max(float(residual[1:] @ residual[:-1]) / power, 0.0), 0.95)
        inflation = math.sqrt((1 + follow) / (1 - follow))
    return _Line(slope, inflation * deviation / math.sqrt(spread), freedom)


def _settled_index(t: Floats, y: Floats, floor: float) -> tuple[int, bool]:
    """First sample from which both halves agree in slope within two errors; False if none does."""
    n = len(t)
    if n < _SETTLING_NEEDS:
        return 0, True
    latest = int(np.searchsorted(t, t[0] + (t[-1] - t[0]) / 2))
    latest = min(latest, n - 6)
    for start in sorted({round(latest * step / _SETTLING_STEPS) for step in range(_SETTLING_STEPS + 1)}):
        middle = start + (n - start) // 2
        first, second = _fit(t[start:middle], y[start:middle], floor), _fit(t[middle:], y[middle:], floor)
        if abs(first.slope - second.slope) <= 2 * math.hypot(first.error, second.error):
            return start, True
    return latest, False


def _further_hold(hold: float, half: float, distance: float) -> float:
    """How much longer to hold until the interval clears the limit; its width falls with time^1.5. [s]"""
    if distance <= 0:
        return LONGEST_FURTHER_HOLD_S
    total = hold * math.pow(half / (0.9 * distance), 2 / 3)
    return min(max(total - hold, SHORTEST_FURTHER_HOLD_S), LONGEST_FURTHER_HOLD_S)


def _findings(volume: TestVolume, corrected: bool, steady: bool) -> tuple[Finding, ...]:
    found: list[Finding] = []
    if not volume.fluid.gas and volume.bulk_modulus_gpa is None:
        text = (
            f"nominal bulk modulus {volume.fluid.bulk_modulus_gpa:g} GPa of {volume.fluid.name} used; "
            "with hoses and air it is lower and the true rate higher"
        )
        found.append(caution("nominal-modulus", text, "reference/tables/fluids.csv"))
    if not corrected:
        found.append(caution("no-temperature", "no temperature readings: cooling looks like a leak", "decay rule"))
    if not steady:
        found.append(caution("still-settling", "the pressure was still settling at the end: hold longer", "decay rule"))
    if volume.fluid.gas:
        found.append(info("standard-rate", "rate in standard ml/min at 101.325 kPa and 20 °C", "decay rule"))
    return tuple(found)
