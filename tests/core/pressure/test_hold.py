"""The verdict on a hold: what passes, what fails, what cannot be told, and what is no hold at all."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ironkettle.core.errors import RuleError
from ironkettle.core.pressure import (
    Analysis,
    Compliance,
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
    analyse_hold,
)
from ironkettle.core.pressure.hold import warming_ends
from ironkettle.core.pressure.trend import Trend
from tests.core.pressure.rig import AIR, AIR_GAUGE, GAUGE, SOFT, VOLUME, WATER, exponential, hold, leaking

# A thermometer that reads and hardly moves.
STEADY = lambda t: 22.0 + 0.1 * (int(t) // 20 % 2)  # noqa: E731
MEASURED = replace(VOLUME, compliance=Compliance(2.0, 2.0 / SOFT))
LIMIT = 0.5


def judge(samples: tuple[Sample, ...], volume: TestVolume = VOLUME, **options: Any) -> Analysis:
    settings_: dict[str, Any] = {"gauge": GAUGE, "limit": LIMIT, "wanted": 21.0, **options}
    return analyse_hold(samples, volume, settings_.pop("gauge"), settings_.pop("limit"), **settings_)


def first_verdict(samples: tuple[Sample, ...], volume: TestVolume = VOLUME, **options: Any) -> Analysis:
    """Looked at with every reading that comes, closed at the first verdict, as an impatient operator does."""
    found = None
    for count in range(3, len(samples) + 1):
        found = judge(samples[:count], volume, **options)
        if found.verdict in {"pass", "fail", "invalid"}:
            return found
    assert found is not None
    return found


def codes(found: Analysis) -> set[str]:
    return {finding.code for finding in found.findings}


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
    assert first_verdict(hold(exponential(tau), last=3600)).verdict != "pass"


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


def test_looking_often_does_not_help_a_leak_over_the_limit() -> None:
    """1.05 limits with ripple of half a step: an hour of looking at every reading, closed at the first pass."""
    passed = 0
    for seed in range(20):
        chance = random.Random(seed)
        samples = hold(lambda t, c=chance: leaking(0.525)(t) + c.gauss(0, 0.005), last=200)
        passed += first_verdict(samples, MEASURED).verdict == "pass"
    assert passed == 0


@pytest.mark.parametrize(("share", "verdict"), [(0.2, "pass"), (0.5, "pass"), (0.97, "undecided"), (1.6, "fail")])
def test_with_a_measured_compliance(share: float, verdict: str) -> None:
    found = first_verdict(hold(leaking(share * LIMIT), last=110), MEASURED)
    assert found.verdict == verdict


def test_no_pass_before_a_minute_nine_readings_and_the_planned_hold() -> None:
    tight = hold(lambda t: 21.0, last=58)
    assert judge(tight).verdict == "undecided"
    assert judge(hold(lambda t: 21.0, last=60)).verdict == "pass"
    # Whole, three quarters and half are compared, and the last half needs five readings: nine in all.
    few = hold(lambda t: 21.0, last=210, every=30)
    assert (len(few), judge(few).verdict) == (8, "undecided")
    assert "few-readings" in codes(judge(few))
    assert judge(hold(lambda t: 21.0, last=240, every=30)).verdict == "pass"
    planned = judge(hold(lambda t: 21.0, last=120), planned_hold=300.0)
    assert (planned.verdict, planned.hold_needed) == ("undecided", pytest.approx(180.0, rel=0.01))
    assert "short-hold" in codes(planned)
    # A fail needs no planned hold.
    assert judge(hold(leaking(3.0), last=20), planned_hold=300.0).verdict == "fail"


def test_a_fall_that_grows_never_passes() -> None:
    # Slow at first, three times as fast in the second half, yet below the limit on the whole.
    grows = hold(lambda t: 21 - 0.0008 * t - 0.0016 * max(0.0, t - 150), last=300)
    found = judge(grows, MEASURED)
    assert found.leak_rate < LIMIT
    assert found.verdict == "undecided"
    assert "fall-grows" in codes(found)
    slows = hold(lambda t: 21 - 0.0008 * t - 0.0016 * min(150.0, t), last=300)
    assert judge(slows, MEASURED).verdict == "pass"


def test_settling_softens_a_fail_and_never_a_pass() -> None:
    # 0.8 % settling with 30 s: 0.168 MPa in the first minute is 0.1 ml/min and more, none at the end.
    settles = hold(lambda t: 21 * (1 - 0.008 * (1 - math.exp(-t / 30))), last=120)
    assert judge(settles, MEASURED, limit=0.04).verdict != "fail"
    # The same fall without an end to it is a leak.
    goes_on = hold(leaking(60 * SOFT * 21 * 0.008 / 60), last=60)
    assert judge(goes_on, MEASURED, limit=0.04).verdict != "pass"


def test_a_volume_that_recovers_after_being_let_down_may_hide_a_leak() -> None:
    samples = hold(leaking(0.3), last=62)
    assert judge(samples, MEASURED).verdict == "pass"
    # 1 % of 21 MPa over a minute is 0.13 ml/min more.
    assert judge(samples, MEASURED, let_down=True).verdict == "undecided"
    assert judge(samples, MEASURED, let_down=True).interval[1] > judge(samples, MEASURED).interval[1] + 0.12


def test_pumping_in_the_middle_is_invalid() -> None:
    saw = hold(lambda t: 21 - 0.004 * (t % 60), last=300)
    found = judge(saw)
    assert (found.verdict, "pumped-up" in codes(found)) == ("invalid", True)


def test_a_pressure_above_the_wanted_one_is_not_scaled_down() -> None:
    high = judge(hold(leaking(0.3, start=23.0), last=120), MEASURED)
    just = judge(hold(leaking(0.3, start=21.0), last=120), MEASURED)
    assert high.interval[1] == pytest.approx(just.interval[1], rel=0.05)


def test_what_the_modulus_rests_on_is_told() -> None:
    assert "stated-modulus" in codes(judge(hold(lambda t: 21.0)))
    nominal = judge(hold(lambda t: 21.0), replace(VOLUME, bulk_modulus_gpa=None))
    assert "nominal-modulus" in codes(nominal)
    assert "0.2" in next(f.message for f in nominal.findings if f.code == "nominal-modulus")
    assert not codes(judge(hold(lambda t: 21.0), MEASURED)) & {"stated-modulus", "nominal-modulus"}


def test_how_much_longer_is_told_where_holding_will_decide_it() -> None:
    # Steps of gauge and thermometer: 3·(0.01·0.64 + 0.1·0.65)·60/0.02 = 641 s.
    found = judge(hold(lambda t: 21.0, last=40), MEASURED, limit=0.02)
    assert found.verdict == "undecided"
    assert found.hold_needed is not None
    longer = judge(hold(lambda t: 21.0, last=40 + found.hold_needed + 4), MEASURED, limit=0.02)
    assert longer.verdict == "pass"
    # At the very limit the volume's own doubt never goes.
    assert judge(hold(leaking(0.5), last=60), VOLUME).hold_needed is None


@pytest.mark.parametrize(
    ("samples", "words"),
    [
        ((Sample(0, 21), Sample(1, 21)), "at least 3"),
        ((Sample(0, 21), Sample(2, 21), Sample(1, 21)), "does not come after"),
        ((Sample(0, 21), Sample(1, 21), Sample(2, -0.2)), "below vacuum"),
    ],
)
def test_samples_that_are_no_hold(samples: tuple[Sample, ...], words: str) -> None:
    with pytest.raises(RuleError, match=words):
        judge(samples)


def test_a_limit_of_nothing_is_refused() -> None:
    with pytest.raises(RuleError, match="above zero"):
        judge(hold(lambda t: 21.0), limit=0.0)


@settings(max_examples=80)
@given(
    rate=st.floats(0.0, 3.0),
    modulus=st.floats(0.6, 1.0),
    start=st.floats(20.8, 22.0),
    last=st.sampled_from([40.0, 90.0, 300.0]),
    every=st.sampled_from([1.0, 2.0, 10.0]),
)
def test_whatever_is_true_within_the_stated_doubt_the_verdict_does_not_lie(
    rate: float, modulus: float, start: float, last: float, every: float
) -> None:
    fall = leaking(rate, start=start, soft=SOFT / modulus)
    samples = hold(lambda t: max(fall(t), 0.0), last=last, every=every)
    found = judge(samples)
    assert not (found.verdict == "pass" and rate > LIMIT * 1.0001)
    assert not (found.verdict == "fail" and rate < LIMIT * 0.9999)
    assert found.verdict != "invalid"


@settings(max_examples=40)
@given(data=st.data())
def test_any_trace_at_all_is_judged_or_refused_in_words(data: st.DataObject) -> None:
    pressures = data.draw(st.lists(st.floats(-0.1, 40), min_size=3, max_size=30))
    warm = data.draw(
        st.lists(st.one_of(st.none(), st.floats(-20, 90)), min_size=len(pressures), max_size=len(pressures))
    )
    gaps = data.draw(st.lists(st.floats(0.1, 1e4), min_size=len(pressures), max_size=len(pressures)))
    t, samples = 0.0, []
    for p, w, gap in zip(pressures, warm, gaps, strict=True):
        t += gap
        samples.append(Sample(t, p, w))
    wanted = data.draw(st.one_of(st.none(), st.floats(0.01, 40)))
    found = judge(tuple(samples), data.draw(st.sampled_from([VOLUME, MEASURED, TestVolume(500, AIR)])), wanted=wanted)
    assert found.verdict in {"pass", "fail", "undecided", "invalid"}
    assert all(math.isfinite(x) for x in (found.leak_rate, *found.interval, found.stored_energy))
    assert found.interval[0] <= found.interval[1]


def test_what_is_told_of_a_fall_out_of_the_band_is_that_fall() -> None:
    # Still at 21 MPa, then down by 9 MPa, far out of the band: 0.6071 · (9 − 0.01 − 0.21)/180 · 60 = 1.78 ml/min at
    # the nominal modulus, and at the stiffest, 0.6071 · 0.95 · 0.995/1.05, still 1.6, less a drift of 0.1 K/min.
    samples = hold(lambda t: 21.0 if t < 180 else 12.0, last=180.0, every=60.0)
    found = judge(samples)
    assert found.verdict == "fail"
    assert found.interval[0] > LIMIT
    assert found.interval[0] <= found.leak_rate <= found.interval[1]


def test_with_too_few_readings_in_the_band_the_middle_of_the_bounds_is_told() -> None:
    found = judge(hold(lambda t: 21.0 if t < 60 else 12.0, last=180.0, every=60.0))
    assert found.leak_rate == pytest.approx(sum(found.interval) / 2)
    assert found.leak_rate > 0
