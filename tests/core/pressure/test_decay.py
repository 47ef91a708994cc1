"""Leak rate and verdict of a hold."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ironkettle.core.errors import RuleError
from ironkettle.core.pressure import Fluid, Gauge, Sample, TestVolume, analyse_hold, plan_hold, stored_energy

OIL = Fluid("mineral oil ISO VG 46", False, 1.6, 0.0007)
AIR = Fluid("air", True, None, None)
GAUGE = Gauge(25.0, 0.01, 0.5)
VOLUME = TestVolume(850, OIL, 1.4)


def hold(
    slope: float, *, count: int = 60, step: float = 10.0, noise: float = 0.003, warm: float = 0.0, seed: int = 5
) -> tuple[Sample, ...]:
    """A hold from 21 MPa: slope in MPa/s, noise in MPa, warm in K/s."""
    chance = random.Random(seed)
    return tuple(
        Sample(step * i, 21 + slope * step * i + chance.gauss(0, noise), 24 + warm * step * i) for i in range(count)
    )


def test_liquid_by_hand() -> None:
    # 850 ml, K = 1400 MPa, −0.002 MPa/s: 850/1400·0.002·60 = 0.07286 ml/min.
    result = analyse_hold(hold(-0.002), VOLUME, GAUGE, 0.5)
    assert result.leak_rate == pytest.approx(0.07286, rel=0.01)
    assert result.verdict == "pass"
    assert result.interval[0] < result.leak_rate < result.interval[1]
    assert result.temperature_corrected
    assert result.stored_energy == pytest.approx(21**2 * 850 / 2800, rel=0.01)


def test_cooling_oil_is_not_a_leak() -> None:
    # Sealed oil cooling at 1 mK/s loses K·α = 1400·0.0007 = 0.98 MPa/K: −0.00098 MPa/s, and no volume.
    sealed = analyse_hold(hold(-0.00098, warm=-0.001), VOLUME, GAUGE, 0.5)
    assert abs(sealed.leak_rate) < 0.003
    plain = tuple(Sample(s.t, s.pressure) for s in hold(-0.00098))
    uncorrected = analyse_hold(plain, VOLUME, GAUGE, 0.5)
    assert uncorrected.leak_rate == pytest.approx(850 / 1400 * 0.00098 * 60, rel=0.02)
    assert "no-temperature" in [f.code for f in uncorrected.findings]


def test_gas_by_hand() -> None:
    # 1 l at 0.7 MPa gauge losing 100 Pa/s at 20 °C: 1000/0.101325·0.0001·60 = 59.22 standard ml/min.
    samples = tuple(Sample(10.0 * i, 0.7 - 0.0001 * 10 * i, 20.0) for i in range(30))
    result = analyse_hold(samples, TestVolume(1000, AIR), Gauge(1, 0.0001, 0.1), 100)
    assert result.leak_rate == pytest.approx(59.22, abs=0.1)
    assert "standard-rate" in [f.code for f in result.findings]


def test_sealed_gas_that_cools_does_not_leak() -> None:
    # p_abs/T stays: from 293.15 to 288.15 K the absolute pressure falls with the temperature.
    start = 0.8 + 0.101325
    samples = tuple(Sample(10.0 * i, start * (293.15 - 0.1 * i) / 293.15 - 0.101325, 20 - 0.1 * i) for i in range(50))
    assert abs(analyse_hold(samples, TestVolume(500, AIR), Gauge(1, 1e-5, 0.1), 5).leak_rate) < 1e-6


def test_verdicts_by_the_whole_interval() -> None:
    rate = analyse_hold(hold(-0.002), VOLUME, GAUGE, 1.0).leak_rate
    assert analyse_hold(hold(-0.002), VOLUME, GAUGE, rate * 0.5).verdict == "fail"
    close = analyse_hold(hold(-0.002, count=6), VOLUME, GAUGE, rate * 1.001)
    assert close.verdict == "undecided"
    assert close.hold_needed is not None
    assert 60 <= close.hold_needed <= 86_400


def test_the_settling_part_is_found_and_left_out() -> None:
    # An exponential settling of 0.3 MPa with 20 s on top of a slow leak.
    chance = random.Random(7)
    samples = tuple(
        Sample(5.0 * i, 20.7 + 0.3 * math.exp(-5 * i / 20) - 0.0005 * 5 * i + chance.gauss(0, 0.001), 24.0)
        for i in range(120)
    )
    result = analyse_hold(samples, VOLUME, Gauge(25, 0.001, 0.5), 0.5)
    assert result.settled_from >= 40
    assert result.leak_rate == pytest.approx(850 / 1400 * 0.0005 * 60, rel=0.08)


def test_a_hold_that_never_settles_says_so() -> None:
    samples = tuple(Sample(5.0 * i, 20 + math.exp(-i / 40), 24.0) for i in range(80))
    assert "still-settling" in [f.code for f in analyse_hold(samples, VOLUME, Gauge(25, 0.0001, 0.1), 0.5).findings]


@settings(max_examples=60)
@given(slope=st.floats(-0.01, 0.0), seed=st.integers(0, 10_000))
def test_the_interval_holds_the_true_rate_nearly_always(slope: float, seed: int) -> None:
    # Four half-widths: with chance noise the 95 % interval itself misses one time in twenty.
    result = analyse_hold(hold(slope, seed=seed), VOLUME, GAUGE, 0.5)
    true = -850 / 1400 * slope * 60
    half = (result.interval[1] - result.interval[0]) / 2
    assert abs(result.leak_rate - true) <= 4 * half + 0.01 * true


def test_a_flat_trace_is_no_better_than_the_gauge() -> None:
    flat = tuple(Sample(10.0 * i, 21.0, 24.0) for i in range(30))
    low, high = analyse_hold(flat, VOLUME, Gauge(25, 0.5, 1), 0.5).interval
    assert high - low > 0.01


@pytest.mark.parametrize(
    ("samples", "words"),
    [
        ((Sample(0, 21), Sample(1, 21)), "at least 3"),
        ((Sample(0, 21), Sample(2, 21), Sample(1, 21)), "does not come after"),
        ((Sample(0, 21, 20), Sample(1, 21), Sample(2, 21, 20)), "for some samples only"),
    ],
)
def test_samples_that_are_no_hold(samples: tuple[Sample, ...], words: str) -> None:
    with pytest.raises(RuleError, match=words):
        analyse_hold(samples, VOLUME, GAUGE, 0.5)


def test_nominal_modulus_is_used_and_said_so() -> None:
    result = analyse_hold(hold(-0.002), TestVolume(850, OIL), GAUGE, 0.5)
    assert result.leak_rate == pytest.approx(850 / 1600 * 0.002 * 60, rel=0.01)
    assert "nominal-modulus" in [f.code for f in result.findings]


def test_stored_energy_by_hand() -> None:
    # Liquid: 20²·850/(2·1400) = 121.4 J. Gas, 1 MPa in 1 l: 1.101325·1000/0.4·(1 − 0.0920^0.2857) = 1361 J.
    assert stored_energy(20, 850, OIL, 1.4) == pytest.approx(121.43, abs=0.01)
    assert stored_energy(1, 1000, AIR) == pytest.approx(1361, abs=1)
    assert stored_energy(0, 1000, AIR) == 0.0


def test_plan_says_how_long_this_gauge_must_hold() -> None:
    # Five steps of 0.5 MPa on 850 ml at K 1400: 5·0.5·850/1400 = 1.518 ml; at 0.5 ml/min 182 s.
    plan = plan_hold(20, VOLUME, Gauge(25, 0.5, 1), 0.5)
    assert plan.hold_needed == pytest.approx(182.1, abs=0.5)
    assert plan.detectable_leak == pytest.approx(0.2, abs=0.001)
    assert "stored-energy" in [f.code for f in plan.findings]
    gas = plan_hold(1.0, TestVolume(5000, AIR), Gauge(1.6, 0.001, 0.5), 10)
    assert "gas-energy" in [f.code for f in gas.findings]
    assert "gauge-range" in [f.code for f in plan_hold(1.0, VOLUME, GAUGE, 0.5).findings]
