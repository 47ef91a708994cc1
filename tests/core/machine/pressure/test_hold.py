"""Pressure holds of liquid by hand: bounds, bands, rises and thermometers."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.machine.pressure import (
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
)
from tests.core.machine.pressure.judged import LIMIT, MEASURED, STEADY, codes, first_verdict, judge
from tests.core.machine.pressure.rig import SOFT, VOLUME, exponential, hold, leaking


def test_liquid_by_hand() -> None:
    # 850/1400 ml/MPa · 0.002 MPa/s · 60 = 0.07286 ml/min.
    found = judge(hold(lambda t: 21 - 0.002 * t, step=1e-6), gauge=Gauge(25, 1e-6, 0.5))
    assert found.leak_rate == pytest.approx(0.0728571, rel=1e-4)
    assert found.verdict == "pass"
    assert found.temperature_corrected
    assert (found.judged, found.hold) == ((0.0, 120.0), 120.0)
    assert (found.held_low, found.held_high) == pytest.approx((20.76, 21.0))
    # 21²·850/(2·1400) = 133.9 J.
    assert found.stored_energy == pytest.approx(133.88, abs=0.01)


def test_the_bounds_by_hand() -> None:
    """Upper: slope + 1.5 steps/H, the softest the volume can be, scaled to the wanted pressure. Lower: the hardest,
    less 1 % of the pressure over the hold for settling. No drift of temperature, over the whole hold alone."""
    fine = Gauge(25, 1e-6, 0.0)
    exact = replace(VOLUME, volume_doubt_pct=0.0, modulus_doubt_pct=0.0)
    rules = HoldRules(sensor_lag_s=0.0)
    samples = hold(lambda t: 21 - 0.002 * t, step=1e-6)
    # A fluid that grows with its steel housing: 3 · 11.7e-6 per K.
    still = replace(exact, fluid=replace(exact.fluid, expansion=((20.0, 35.1e-6),)))
    found = judge(samples, still, gauge=fine, rules=rules)
    # All three parts agree on the slope; the smallest upper bound is that of the whole hold, scaled by 21/20.88,
    # and the largest lower one is the whole hold's too: 0.21/120 MPa/s taken off.
    assert found.interval[1] == pytest.approx(60 * SOFT * 0.002 * 21 / 20.88, rel=1e-3)
    assert found.interval[0] == pytest.approx(60 * SOFT * (0.002 - 0.21 / 120), rel=1e-3)


def test_three_readings_at_a_tenth_of_the_pressure_are_no_test() -> None:
    found = judge(tuple(Sample(60.0 * i, 1.8, 22.0) for i in range(3)), wanted=18.0)
    assert found.verdict == "invalid"
    assert "below-test-pressure" in codes(found)
    assert "1" in found.findings[0].message
    # Held high enough for long, but without saying at which pressure: judged, and said so.
    free = judge(hold(lambda t: 1.8), wanted=None)
    assert "no-test-pressure" in codes(free)


@pytest.mark.parametrize("tau", [20.0, 60.0, 120.0, 200.0, 300.0])
def test_an_exponential_fall_is_a_leak_and_no_settling(tau: float) -> None:
    # At 210 bar C·p/τ is 0.607·21/300·60 = 2.55 ml/min for 300 s and more for less: five limits and over.
    found = first_verdict(hold(exponential(tau), last=900))
    assert found.verdict == "fail"
    assert found.leak_rate > LIMIT


@pytest.mark.parametrize("tau", [400.0, 600.0, 1000.0, 1500.0, 2000.0, 2500.0])
def test_a_slow_exponential_near_the_limit_never_passes_on_a_stated_modulus(tau: float) -> None:
    assert first_verdict(hold(exponential(tau), last=3600, every=5.0)).verdict != "pass"


def test_an_open_leak_fails_and_is_never_called_settled() -> None:
    # 38 ml/min: 62.6 MPa/min, empty in 20 s.
    found = first_verdict(hold(lambda t: max(0.0, leaking(38.0)(t)), every=1.0))
    assert found.verdict == "fail"
    assert found.interval[0] > 20
    # Read once a minute it is gone before the second reading: nothing to judge, and certainly no pass.
    typed = judge(hold(lambda t: max(0.0, leaking(38.0)(t)), every=60.0, last=600))
    assert typed.verdict == "undecided"
    assert {"left-band", "pump-up"} <= codes(typed)


def test_a_release_at_the_end_of_a_good_hold_changes_nothing() -> None:
    good = hold(lambda t: 21 - 0.0001 * t, last=300)
    released = (*good, Sample(302, 3.0, 22.0), Sample(304, 0.0, 22.0))
    assert judge(released).verdict == judge(good).verdict == "pass"


def test_nothing_outside_the_band_helps_a_pass() -> None:
    # Falls out of the band at a limit's rate, then stands still below it for an hour.
    fallen = hold(lambda t: max(leaking(0.45)(t), 18.5), last=3600)
    assert judge(fallen).verdict != "pass"
    assert "left-band" in codes(judge(fallen))


def test_leaving_the_band_is_no_fail_by_itself() -> None:
    # A tiny volume at its very limit leaves the band in seconds: 20 ml, 0.5 ml/min.
    small = TestVolume(20, VOLUME.fluid, 1.4)
    found = judge(hold(leaking(0.5, soft=20 / 1400), every=0.5, last=30), small)
    assert found.verdict == "undecided"
    assert {"left-band", "pump-up"} <= codes(found)


def test_a_limit_below_what_the_gauge_can_show_never_passes() -> None:
    # One step of 0.5 MPa on 850 ml is 0.3 ml: over a minute 0.3 ml/min, above a limit of 0.05.
    coarse = Gauge(25, 0.5, 1.0)
    found = judge(hold(lambda t: 21.0, last=60, step=0.5), gauge=coarse, limit=0.05)
    assert found.verdict == "undecided"
    assert "short-hold" in codes(found)
    assert found.hold_needed is not None
    # 3·((0.5 + 0.2 % of 21 MPa) · 0.607·1.05·1.01/0.3 + 0.1 K · 0.565·1.15)·60/0.05 = 4422 s.
    assert found.hold_needed == pytest.approx(4422 - 60, rel=0.01)


@pytest.mark.parametrize("slope", [0.001, 0.01])
def test_a_rise_by_itself_is_invalid_and_never_a_pass(slope: float) -> None:
    found = judge(hold(lambda t: 21 + slope * t, last=300, warm=STEADY), MEASURED)
    assert found.verdict == "invalid"
    assert codes(found) & {"inflow", "pumped-up"}


def test_a_rise_that_the_warming_explains_is_no_inflow() -> None:
    # Sealed oil in steel warming by 1 mK/s: 850·0.000665/0.607 = 0.931 MPa/K.
    rises = hold(lambda t: 21 + 0.000931 * t, warm=lambda t: 22 + 0.001 * t, last=900)
    found = judge(rises, MEASURED)
    assert found.verdict != "invalid"
    assert abs(found.leak_rate) < 0.01


def test_cooling_is_told_from_a_leak_by_its_temperature() -> None:
    cools = hold(lambda t: 21 - 0.000931 * t, warm=lambda t: 22 - 0.001 * t, last=900)
    with_thermometer = judge(cools, MEASURED)
    assert abs(with_thermometer.leak_rate) < 0.01
    blind = judge(hold(lambda t: 21 - 0.000931 * t, warm=None, last=900), MEASURED)
    assert blind.leak_rate == pytest.approx(0.0339, rel=0.01)
    assert not blind.temperature_corrected
    assert "no-temperature" in codes(blind)


@pytest.mark.parametrize("missing", [0, 30, 60])
def test_one_missing_temperature_does_not_throw_away_the_verdict(missing: int) -> None:
    samples = list(hold(lambda t: 21 - 0.0001 * t))
    samples[missing] = replace(samples[missing], temperature=None)
    found = judge(tuple(samples))
    assert (found.verdict, found.temperature_corrected) == ("pass", True)


def test_a_few_temperatures_at_the_start_do_not_speak_for_the_whole() -> None:
    samples = [s if i < 20 else replace(s, temperature=None) for i, s in enumerate(hold(lambda t: 21.0))]
    assert not judge(tuple(samples)).temperature_corrected
