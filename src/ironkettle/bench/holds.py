"""Is the verdict on a hold honest: holds simulated from plain physics, judged at every reading.

Apart from the rule's own code: the volume, its leak, its settling, its warming and its gauge are stepped
through time, with figures the rule does not know (the true modulus, the drift, the lag of the sensor).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from ironkettle.core.pressure import Analysis, Compliance, Fluid, Gauge, HoldRules, Sample, TestVolume, analyse_hold
from ironkettle.core.pressure.softness import softness_of
from ironkettle.core.pressure.trend import Floats

EVERY_S = 2.0
_ATMOSPHERE, _T_STD, _P_STD = 0.101325, 293.15, 0.101325
_START_C = 22.0


@dataclass(frozen=True)
class Rig:
    """A test as somebody would set it up, and what the rule is told of it."""

    name: str
    volume: TestVolume
    gauge: Gauge
    wanted: float
    limit: float
    longest: float
    thermometer: bool = True


@dataclass(frozen=True)
class Truth:
    """What the rule does not know: the leak in limits, how it depends on pressure, softness, settling, drift, lag."""

    leak: float
    with_pressure: bool
    modulus: float
    settling: float
    settling_s: float
    drift_k: float
    drift_s: float
    lag_s: float
    noise_steps: float


@dataclass(frozen=True)
class Share:
    """Of so many holds: passed at some moment, failed at some moment, covered; and the median time to the verdict.

    ``against_least``: the median time to pass over what the same doubts allow with known noise.
    """

    rig: str
    leak: float
    holds: int
    passed: float
    failed: float
    covered: float
    median_pass_s: float
    median_fail_s: float
    against_least: float


def simulate(rig: Rig, truth: Truth, chance: np.random.Generator) -> tuple[Sample, ...]:
    """The readings of one hold, every two seconds. [s, MPa, °C]"""
    t = np.arange(0.0, rig.longest + EVERY_S, EVERY_S)
    warming = truth.drift_k * (1 - np.exp(-t / truth.drift_s))
    shown = np.empty_like(t)
    shown[0] = 0.0
    for i in range(1, len(t)):
        follow = 1 - math.exp(-EVERY_S / truth.lag_s) if truth.lag_s > 0 else 1.0
        shown[i] = shown[i - 1] + (warming[i] - shown[i - 1]) * follow
    pressure = _gas(rig, truth, t, warming) if rig.volume.fluid.gas else _liquid(rig, truth, t, warming)
    step = rig.gauge.resolution
    noisy = pressure + chance.normal(0, truth.noise_steps * step + 1e-12, len(t))
    read = np.round(noisy / step) * step
    temperature = np.round((_START_C + shown) * 10) / 10
    return tuple(
        Sample(float(a), float(b), float(c) if rig.thermometer else None)
        for a, b, c in zip(t, read, temperature, strict=True)
    )


def _settled(rig: Rig, truth: Truth, t: Floats) -> Floats:
    return truth.settling * rig.wanted * (1 - np.exp(-t / truth.settling_s))


def _rate(rig: Rig, truth: Truth, pressure: float) -> float:
    """What leaks at a pressure. [ml/s]"""
    whole = truth.leak * rig.limit / 60
    return whole * max(pressure, 0.0) / rig.wanted if truth.with_pressure else whole


def _liquid(rig: Rig, truth: Truth, t: Floats, warming: Floats) -> Floats:
    soft = rig.volume.volume / (rig.volume.modulus * truth.modulus)
    warm = rig.volume.volume * (rig.volume.fluid.expansion_at(_START_C) - 3 * rig.volume.linear_expansion)
    settled = _settled(rig, truth, t)
    lost, found = 0.0, np.empty_like(t)
    for i in range(len(t)):
        found[i] = rig.wanted - settled[i] + (warm * warming[i] - lost) / soft
        lost += _rate(rig, truth, found[i]) * EVERY_S
    return found


def _gas(rig: Rig, truth: Truth, t: Floats, warming: Floats) -> Floats:
    kelvin = _START_C + 273.15 + warming
    amount = rig.volume.volume * (rig.wanted + _ATMOSPHERE) / _P_STD * _T_STD / kelvin[0]
    settled = _settled(rig, truth, t)
    found = np.empty_like(t)
    for i in range(len(t)):
        found[i] = amount * _P_STD * kelvin[i] / (_T_STD * rig.volume.volume) - _ATMOSPHERE - settled[i]
        amount -= _rate(rig, truth, found[i]) * EVERY_S
    return found


def any_truth(leak: float, chance: np.random.Generator, *, gas: bool, exact: bool, modulus_low: float) -> Truth:
    """One shop among many: drift to ±2 K, settling to 0.8 %, lag to a minute, noise to half a step."""
    return Truth(
        leak=leak,
        with_pressure=bool(chance.random() < 0.5),
        modulus=1.0 if gas or exact else float(chance.uniform(modulus_low, 1.0)),
        settling=float(chance.uniform(0, 0.008)) * bool(chance.random() < 0.7),
        settling_s=float(chance.uniform(5, 600)),
        drift_k=float(chance.uniform(-2, 2)),
        drift_s=float(chance.uniform(1200, 4000)),
        lag_s=float(chance.uniform(5, 60)),
        noise_steps=float(chance.uniform(0, 0.5)),
    )


def judge_at_every_reading(
    rig: Rig, samples: tuple[Sample, ...], every: int = 1
) -> Iterator[tuple[float, str, Analysis]]:
    """Time, verdict and analysis, looked at as often as the readings come, until the first verdict."""
    for count in range(5, len(samples) + 1, every):
        found = analyse_hold(samples[:count], rig.volume, rig.gauge, rig.limit, wanted=rig.wanted)
        yield samples[count - 1].t, found.verdict, found
        if found.verdict in {"pass", "fail"} or any(one.code == "left-band" for one in found.findings):
            return


def try_rig(rig: Rig, leak: float, holds: int, seed: int, *, every: int = 1) -> Share:
    """Run so many holds with a leak of so many limits, closing each at its first verdict."""
    chance = np.random.default_rng(seed)
    exact = rig.volume.compliance is not None
    low = HoldRules().nominal_least if rig.volume.bulk_modulus_gpa is None else HoldRules().stated_least
    passed, failed, least, covered = [], [], [], 0
    for _ in range(holds):
        truth = any_truth(leak, chance, gas=rig.volume.fluid.gas, exact=exact, modulus_low=low)
        looked = rig if not exact else _with_compliance(rig, chance)
        samples = simulate(looked, truth, chance)
        last = None
        for t, verdict, found in judge_at_every_reading(looked, samples, every):
            last = found
            if verdict == "pass":
                passed.append(t)
                least.append(least_time(looked, truth, samples))
            if verdict == "fail":
                failed.append(t)
        assert last is not None
        covered += last.interval[0] <= leak * rig.limit <= last.interval[1]
    return Share(
        rig.name, leak, holds, len(passed) / holds, len(failed) / holds, covered / holds,
        float(np.median(passed)) if passed else math.nan, float(np.median(failed)) if failed else math.nan,
        float(np.median(passed) / np.median(least)) if passed else math.nan,
    )  # fmt: skip


def least_time(rig: Rig, truth: Truth, samples: tuple[Sample, ...]) -> float:
    """When the same doubts would allow a pass, were the noise known: 1.96 errors of a straight line. [s]"""
    rules = HoldRules()
    t = np.array([one.t for one in samples])
    pressure = np.array([one.pressure for one in samples])
    warmth = np.array([0.0 if one.temperature is None else one.temperature for one in samples])
    noise = rig.gauge.resolution * math.hypot(truth.noise_steps, 1 / math.sqrt(12))
    soft = softness_of(rig.volume, rig.gauge, rules, rig.wanted, _START_C)
    for count in range(math.ceil(rules.least_hold_s / EVERY_S) + 1, len(t) + 1):
        for begin in (0, count // 4, count // 2):
            x, span = t[begin:count] - t[begin:count].mean(), float(t[count - 1] - t[begin])
            spread = float(x @ x)
            fall, error = -float(x @ pressure[begin:count]) / spread, 1.96 * noise / math.sqrt(spread)
            drift = min(rules.drift_k_per_min / 60, rules.drift_most_k / span)
            warming = (-drift, drift)
            if rig.thermometer:
                slope = float(x @ warmth[begin:count]) / spread
                doubt = 1.96 * 0.1 / math.sqrt(12 * spread) + abs(slope) * min(1.0, 1.5 * rules.sensor_lag_s / span)
                warming = (slope - doubt, slope + doubt)
            if soft.bounds((fall - error, fall + error), warming)[1] < rig.limit / 60:
                return max(float(t[count - 1]), rules.least_hold_s)
    return float(t[-1])


def _with_compliance(rig: Rig, chance: np.random.Generator) -> Rig:
    """The same rig with its compliance measured once: a volume let out to 3 %, the drop read on the gauge."""
    let_out = 0.02 * rig.wanted * rig.volume.volume / rig.volume.modulus * 6
    drop = let_out / (rig.volume.volume / rig.volume.modulus)
    step = rig.gauge.resolution
    measured = Compliance(let_out * (1 + float(chance.uniform(-0.03, 0.03))), round(drop / step) * step)
    return replace(rig, volume=replace(rig.volume, compliance=measured))


OIL = Fluid("mineral oil ISO VG 46", False, 1.6, ((20.0, 0.0007),))
AIR = Fluid("air", True, None)
BAR = 0.1


def rigs() -> tuple[Rig, ...]:
    fine = Gauge(25.0, 0.1 * BAR, 0.5)
    oil = TestVolume(850.0, OIL, 1.4)
    air = TestVolume(2000.0, AIR)
    return (
        Rig("oil 850 ml, 180 bar, compliance measured", replace(oil, compliance=Compliance(1, 1)), fine, 18.0, 0.5, 600),
        Rig("oil 850 ml, 180 bar, modulus stated", oil, fine, 18.0, 0.5, 600),
        Rig("oil 850 ml, 180 bar, nominal modulus", replace(oil, bulk_modulus_gpa=None), fine, 18.0, 0.5, 600),
        Rig("air 2 l, 7 bar, gauge 0.001 bar", air, Gauge(1.0, 0.001 * BAR, 0.25), 0.7, 10.0, 2400),
        Rig("air 2 l, 7 bar, gauge 0.01 bar", air, Gauge(1.0, 0.01 * BAR, 0.25), 0.7, 10.0, 3600),
        Rig("air 2 l, 7 bar, gauge 0.01 bar, no thermometer", air, Gauge(1.0, 0.01 * BAR, 0.25), 0.7, 10.0, 3600, False),
    )  # fmt: skip
