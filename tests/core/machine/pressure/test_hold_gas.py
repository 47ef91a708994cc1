"""Holds of gas and vacuum, and drift that is assumed."""

from __future__ import annotations

import pytest

from ironkettle.core.machine.pressure import (
    Gauge,
    HoldRules,
    TestVolume,
)
from ironkettle.core.machine.pressure.hold import warming_ends
from ironkettle.core.machine.pressure.trend import Trend
from tests.core.machine.pressure.judged import STEADY, codes, judge
from tests.core.machine.pressure.rig import AIR, AIR_GAUGE, WATER, hold


def test_gas_without_a_thermometer_decides_only_far_from_the_limit() -> None:
    air = TestVolume(2000, AIR)
    # 0.1 K/min at 7 bar in 2 l is 19738·0.8013/293·0.1 = 5.4 standard ml/min of doubt.
    tight = hold(lambda t: 0.7, warm=None, last=600, step=1e-4)
    options = {"gauge": AIR_GAUGE, "wanted": 0.7}
    assert judge(tight, air, limit=10.0, **options).verdict == "pass"
    assert judge(tight, air, limit=5.0, **options).verdict == "undecided"
    with_one = hold(lambda t: 0.7, last=600, step=1e-4, warm=STEADY)
    assert judge(with_one, air, limit=5.0, **options).verdict == "pass"


def test_a_drift_that_is_assumed_ends_at_some_kelvin() -> None:
    rules = HoldRules(drift_k_per_min=0.1, drift_most_k=2.0)
    # 0.1 K/min for the first 20 minutes; after that 2 K over the span.
    assert warming_ends(None, 600.0, rules) == pytest.approx((-0.1 / 60, 0.1 / 60))
    assert warming_ends(None, 2400.0, rules) == pytest.approx((-2 / 2400, 2 / 2400))


def test_a_sensor_that_lags_tells_little_over_a_short_hold() -> None:
    rules = HoldRules(sensor_lag_s=60.0)
    shown = Trend(slope=0.002, half=0.0001, mean=22.0, span=60.0)
    # Over 60 s all of the slope is in doubt; over 900 s 1.5·60/900 = a tenth of it, and steps weigh 60/900 of theirs.
    assert warming_ends(shown, 60.0, rules) == pytest.approx((-0.0001, 0.0041))
    assert warming_ends(shown, 900.0, rules) == pytest.approx(
        (0.002 - 0.0002 - 0.0001 / 15, 0.002 + 0.0002 + 0.0001 / 15)
    )


def test_air_that_leaks_into_a_vacuum_counts_as_a_leak() -> None:
    air = TestVolume(2000, AIR)
    options = {"gauge": AIR_GAUGE, "wanted": -0.08, "limit": 10.0}
    # 2 kPa a minute: 19738·0.002 = 39.5 standard ml/min at 20 °C, at 22 °C 39.2.
    rises = hold(lambda t: -0.08 + 0.002 / 60 * t, last=200, step=1e-4)
    found = judge(rises, air, **options)
    assert found.leak_rate == pytest.approx(39.2, rel=0.02)
    assert found.verdict == "fail"
    assert judge(hold(lambda t: -0.08, last=300, step=1e-4), air, **options).verdict == "pass"
    deepens = judge(hold(lambda t: -0.08 - 0.002 / 60 * t, last=200, step=1e-4), air, **options)
    assert deepens.verdict == "invalid"


def test_a_warming_vacuum_is_no_leak() -> None:
    # Sealed: p_abs/T stays. 21.325 kPa absolute, warming 10 mK/s.
    air = TestVolume(2000, AIR)
    warms = hold(
        lambda t: 0.021325 * (295.15 + 0.01 * t) / 295.15 - 0.101325, warm=lambda t: 22 + 0.01 * t, last=900, step=1e-7
    )
    found = judge(warms, air, gauge=Gauge(0.1, 1e-7, 0.1), wanted=-0.08, limit=10.0)
    assert abs(found.leak_rate) < 0.02
    assert found.verdict == "pass"


def test_gas_by_hand() -> None:
    # 1 l at 7 bar losing 100 Pa/s at 20 °C: 1000/0.101325·0.0001·60 = 59.22 standard ml/min.
    falls = hold(lambda t: 0.7 - 0.0001 * t, warm=lambda t: 20.0, step=1e-7)
    found = judge(falls, TestVolume(1000, AIR), gauge=Gauge(1, 1e-7, 0.1), wanted=0.7, limit=100.0)
    assert found.leak_rate == pytest.approx(59.22, abs=0.05)
    assert "standard-rate" in codes(found)


def test_sealed_gas_that_cools_does_not_leak() -> None:
    sealed = hold(
        lambda t: 0.801325 * (293.15 - 0.005 * t) / 293.15 - 0.101325,
        warm=lambda t: 20 - 0.005 * t,
        last=600,
        step=1e-7,
    )
    found = judge(sealed, TestVolume(500, AIR), gauge=Gauge(1, 1e-7, 0.1), wanted=0.7, limit=5.0)
    assert abs(found.leak_rate) < 0.01


def test_water_near_four_degrees_does_not_move_with_its_temperature() -> None:
    """The housing alone does: 1000·3·11.7e-6 = 0.0351 ml/K the other way."""
    volume = TestVolume(1000, WATER, 2.0)
    warms = hold(lambda t: 18.0, warm=lambda t: 4 + 0.001 * (t - 450), last=900)
    found = judge(warms, volume, wanted=18.0)
    assert found.leak_rate == pytest.approx(-0.0351 * 0.001 * 60, rel=0.05)
