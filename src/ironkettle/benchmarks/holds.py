"""Is the verdict on a hold honest: holds simulated from plain physics, judged at every reading.

Apart from the rule's own code: the volume, its leak, its settling, its warming and its gauge are stepped
through time, with figures the rule does not know (the true modulus, the drift, the lag of the sensor, how the
gauge sticks, below which pressure the leak closes).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from ironkettle.core.machine.pressure import (
    Analysis,
    Compliance,
    Fluid,
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
    analyse_hold,
)
from ironkettle.core.machine.pressure.softness import softness_of
from ironkettle.core.machine.pressure.trend import Floats

EVERY_S = 2.0
_ATMOSPHERE, _T_STD, _P_STD = 0.101325, 293.15, 0.101325
_START_C = 22.0


@dataclass(frozen=True)
class Rig:
    """A test as somebody would set it up, and what the rule is told of it.

    ``thermometer``: its step [K]; 0 for none, and −1 for a figure that is typed at every row and never read. ``noise``: steps,
    None for any up to half of one.
    """

    name: str
    volume: TestVolume
    gauge: Gauge
    wanted: float
    limit: float
    longest: float
    thermometer: float = 0.1
    every: float = EVERY_S
    noise: float | None = None
    # What else the world does that the rule is not told.
    threshold: float = 0.0
    sticks: bool = False
    creeps: bool = False
    soft: tuple[float, float] | None = None
    warms: float | None = None
    settles: bool = True


@dataclass(frozen=True)
class Truth:
    """What the rule does not know: the leak in limits, how it depends on pressure and below which share of it it closes,
    softness, settling, drift, lag, noise, and by how much the gauge sticks and creeps [MPa]."""

    leak: float
    with_pressure: bool
    modulus: float
    settling: float
    settling_s: float
    drift_k: float
    drift_s: float
    lag_s: float
    noise_steps: float
    threshold: float = 0.0
    sticks: float = 0.0
    creeps: float = 0.0


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

    @property
    def decided(self) -> float:
        return self.passed + self.failed


def simulate(rig: Rig, truth: Truth, chance: np.random.Generator) -> tuple[Sample, ...]:
    """The readings of one hold. [s, MPa, °C]"""
    t = np.arange(0.0, rig.longest + rig.every, rig.every)
    warming = truth.drift_k * (1 - np.exp(-t / truth.drift_s)) if truth.drift_s > 0 else truth.drift_k * t
    shown = np.empty_like(t)
    shown[0] = 0.0
    for i in range(1, len(t)):
        follow = 1 - math.exp(-rig.every / truth.lag_s) if truth.lag_s > 0 else 1.0
        shown[i] = shown[i - 1] + (warming[i] - shown[i - 1]) * follow
    pressure = _gas(rig, truth, t, warming) if rig.volume.fluid.gas else _liquid(rig, truth, t, warming)
    pressure = _stuck(pressure, truth.sticks) + truth.creeps * t / t[-1]
    step = rig.gauge.resolution
    noisy = pressure + chance.normal(0, truth.noise_steps * step + 1e-12, len(t))
    read = np.round(noisy / step) * step
    return tuple(
        Sample(float(a), float(b), _thermometer(rig, _START_C + float(c)))
        for a, b, c in zip(t, read, shown, strict=True)
    )


def _thermometer(rig: Rig, temperature: float) -> float | None:
    if rig.thermometer == 0:
        return None
    return _START_C if rig.thermometer < 0 else round(temperature / rig.thermometer) * rig.thermometer


def _stuck(pressure: Floats, width: float) -> Floats:
    """What a gauge shows that moves only when the pressure has gone so far from what it shows; it came from below. [MPa]"""
    if width <= 0:
        return pressure
    shown = np.empty_like(pressure)
    at = float(pressure[0]) - width / 2
    for i, value in enumerate(pressure):
        at = min(max(at, float(value) - width / 2), float(value) + width / 2)
        shown[i] = at
    return shown + width / 2


def _settled(rig: Rig, truth: Truth, t: Floats) -> Floats:
    return truth.settling * rig.wanted * (1 - np.exp(-t / truth.settling_s))


def _rate(rig: Rig, truth: Truth, pressure: float) -> float:
    """What leaks at a pressure. [ml/s]"""
    if pressure < truth.threshold * rig.wanted:
        return 0.0
    whole = truth.leak * rig.limit / 60
    return whole * max(pressure, 0.0) / rig.wanted if truth.with_pressure else whole


def _liquid(rig: Rig, truth: Truth, t: Floats, warming: Floats) -> Floats:
    soft = rig.volume.volume / (rig.volume.modulus * truth.modulus)
    warm = rig.volume.volume * (rig.volume.fluid.expansion_at(_START_C) - 3 * rig.volume.linear_expansion)
    settled = _settled(rig, truth, t)
    lost, found = 0.0, np.empty_like(t)
    for i in range(len(t)):
        found[i] = rig.wanted - settled[i] + (warm * warming[i] - lost) / soft
        lost += _rate(rig, truth, found[i]) * rig.every
    return found


def _gas(rig: Rig, truth: Truth, t: Floats, warming: Floats) -> Floats:
    kelvin = _START_C + 273.15 + warming
    amount = rig.volume.volume * (rig.wanted + _ATMOSPHERE) / _P_STD * _T_STD / kelvin[0]
    settled = _settled(rig, truth, t)
    found = np.empty_like(t)
    for i in range(len(t)):
        found[i] = amount * _P_STD * kelvin[i] / (_T_STD * rig.volume.volume) - _ATMOSPHERE - settled[i]
        amount -= _rate(rig, truth, found[i]) * rig.every
    return found


def any_truth(rig: Rig, leak: float, chance: np.random.Generator) -> Truth:
    """One shop among many: drift to ±2 K, settling to 0.8 %, lag to a minute, noise to half a step, a gauge that sticks or
    creeps by what is taken for its stability."""
    gas, exact = rig.volume.fluid.gas, rig.volume.compliance is not None
    low = HoldRules().nominal_least if rig.volume.bulk_modulus_gpa is None else HoldRules().stated_least
    softest, stiffest = rig.soft or (low, 1.0)
    moves = rig.gauge.stability * rig.wanted
    drift_k, drift_s = float(chance.uniform(-2, 2)), float(chance.uniform(1200, 4000))
    if rig.warms is not None:
        drift_k, drift_s = rig.warms / 60, 0.0
    return Truth(
        leak=leak,
        with_pressure=bool(chance.random() < 0.5),
        modulus=1.0 if gas or (exact and rig.soft is None) else float(chance.uniform(softest, stiffest)),
        settling=float(chance.uniform(0, 0.008)) * bool(chance.random() < 0.7) * rig.settles,
        settling_s=float(chance.uniform(5, 600)),
        drift_k=drift_k,
        drift_s=drift_s,
        lag_s=float(chance.uniform(5, 60)),
        noise_steps=float(chance.uniform(0, 0.5)) if rig.noise is None else rig.noise,
        threshold=rig.threshold,
        sticks=moves * rig.sticks,
        creeps=moves * rig.creeps,
    )


def judge_at_every_reading(
    rig: Rig, samples: tuple[Sample, ...], truth: Truth, chance: np.random.Generator, every: int = 1
) -> Iterator[tuple[float, str, Analysis]]:
    """Time, verdict and analysis, looked at as often as the readings come, until the first verdict.

    Where the rule asks for the compliance step, a known volume is let out afterwards and the same trace judged with it.
    """
    for count in range(5, len(samples) + 1, every):
        found = analyse_hold(samples[:count], rig.volume, rig.gauge, rig.limit, wanted=rig.wanted)
        codes = {finding.code for finding in found.findings}
        enough = found.hold_needed is None and samples[count - 1].t >= 2 * HoldRules().least_hold_s
        if found.verdict == "undecided" and "measure-compliance" in codes and enough:
            measured = _with_compliance(rig, truth, chance)
            found = analyse_hold(samples[:count], measured.volume, rig.gauge, rig.limit, wanted=rig.wanted)
            rig = measured
        yield samples[count - 1].t, found.verdict, found
        if found.verdict in {"pass", "fail"} or "left-band" in codes:
            return


def try_rig(rig: Rig, leak: float, holds: int, seed: int, *, looks: int = 40) -> Share:
    """Run so many holds with a leak of so many limits, looked at so often at most, closing each at its first verdict."""
    chance = np.random.default_rng(seed)
    every = max(1, int(rig.longest / rig.every / looks))
    passed, failed, least, covered = [], [], [], 0
    for _ in range(holds):
        truth = any_truth(rig, leak, chance)
        looked = rig if rig.volume.compliance is None else _with_compliance(rig, truth, chance)
        samples = simulate(looked, truth, chance)
        last = None
        for t, verdict, found in judge_at_every_reading(looked, samples, truth, chance, every):
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
    t = np.array([sample.t for sample in samples])
    pressure = np.array([sample.pressure for sample in samples])
    warmth = np.array([0.0 if sample.temperature is None else sample.temperature for sample in samples])
    noise = rig.gauge.resolution * math.hypot(truth.noise_steps, 1 / math.sqrt(12))
    soft = softness_of(rig.volume, rig.gauge, rules, rig.wanted, _START_C)
    for count in range(max(math.ceil(rules.least_hold_s / rig.every), 5) + 1, len(t) + 1):
        for begin in (0, count // 4, count // 2):
            x, span = t[begin:count] - t[begin:count].mean(), float(t[count - 1] - t[begin])
            spread = float(x @ x)
            fall, error = -float(x @ pressure[begin:count]) / spread, 1.96 * noise / math.sqrt(spread)
            drift = min(rules.drift_k_per_min / 60, rules.drift_most_k / span)
            warming = (-drift, drift)
            if rig.thermometer > 0:
                slope = float(x @ warmth[begin:count]) / spread
                doubt = 1.96 * rig.thermometer / math.sqrt(12 * spread) + abs(slope) * min(
                    1.0, 1.5 * rules.sensor_lag_s / span
                )
                warming = (slope - doubt, slope + doubt)
            if soft.bounds((fall - error, fall + error), warming)[1] < rig.limit / 60:
                return max(float(t[count - 1]), rules.least_hold_s)
    return float(t[-1])


def _with_compliance(rig: Rig, truth: Truth, chance: np.random.Generator) -> Rig:
    """The same rig with its compliance measured once: a volume let out to 3 %, the drop read on the gauge."""
    soft = rig.volume.volume / (rig.volume.modulus * truth.modulus)
    let_out = 0.12 * rig.wanted * soft
    step = rig.gauge.resolution
    drop = round(let_out / soft / step) * step
    measured = Compliance(let_out * (1 + float(chance.uniform(-0.03, 0.03))), drop)
    return replace(rig, volume=replace(rig.volume, compliance=measured))


OIL = Fluid("mineral oil ISO VG 46", False, 1.6, ((20.0, 0.0007),))
AIR = Fluid("air", True, None)
BAR = 0.1
_FINE = Gauge(25.0, 0.1 * BAR, 0.5)
_FINE_AIR = Gauge(1.0, 0.001 * BAR, 0.25)
_OIL = TestVolume(850.0, OIL, 1.4)
_SOFT = replace(_OIL, compliance=Compliance(1, 1))
_AIR = TestVolume(2000.0, AIR)


def rigs() -> tuple[Rig, ...]:
    """Tests as a shop sets them up."""
    coarse = Gauge(1.0, 0.01 * BAR, 0.25)
    return (
        Rig("oil 850 ml, 180 bar, compliance measured", _SOFT, _FINE, 18.0, 0.5, 600),
        Rig("oil 850 ml, 180 bar, modulus stated", _OIL, _FINE, 18.0, 0.5, 600),
        Rig("oil 850 ml, 180 bar, nominal modulus", replace(_OIL, bulk_modulus_gpa=None), _FINE, 18.0, 0.5, 600),
        Rig("air 2 l, 7 bar, gauge 0.001 bar", _AIR, _FINE_AIR, 0.7, 10.0, 3600, every=10.0),
        Rig("air 2 l, 7 bar, gauge 0.01 bar", _AIR, coarse, 0.7, 10.0, 5400, every=10.0),
        Rig("air 2 l, 7 bar, gauge 0.01 bar, no thermometer", _AIR, coarse, 0.7, 10.0, 9000, 0.0, every=10.0),
    )


def worlds() -> tuple[Rig, ...]:
    """Tests in which the world does what the formula does not expect."""
    air, oil = Rig("", _AIR, _FINE_AIR, 0.7, 10.0, 3600), Rig("", _SOFT, _FINE, 18.0, 0.5, 900)
    return (
        replace(air, name="air, one reading a minute, noise of 10 steps", every=60.0, noise=10.0, longest=7200),
        replace(air, name="air, thermometer of whole degrees, warms by 0.1 K/min", thermometer=1.0, warms=0.1, longest=9000, every=10.0),
        replace(air, name="air, “22” typed at every row, warms by 0.1 K/min", thermometer=-1.0, warms=0.1, every=10.0),
        replace(oil, name="oil, “22” typed at every row, warms by 0.1 K/min", thermometer=-1.0, warms=0.1),
        replace(oil, name="oil, leaks only above 97 % of the pressure", threshold=0.97),
        replace(air, name="air, leaks only above 97 % of the pressure", threshold=0.97, every=10.0),
        replace(air, name="air, gauge sticks by its stability", sticks=True, every=10.0),
        replace(air, name="air, gauge creeps by its stability", creeps=True, every=10.0),
        replace(oil, name="oil, trapped air: 0.3 to 0.6 of the modulus stated", volume=_OIL, soft=(0.3, 0.6)),
    )  # fmt: skip
