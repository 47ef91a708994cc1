"""What a hold may say: looks, planned time, settling, recovery, pumping, and any trace at all."""

from __future__ import annotations

import math
import random
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.pressure import (
    Sample,
    TestVolume,
)
from tests.core.machine.pressure.judged import LIMIT, MEASURED, codes, first_verdict, judge
from tests.core.machine.pressure.rig import AIR, SOFT, VOLUME, hold, leaking
from tests.laws import tried


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
        ((Sample(0, 21), Sample(1, 21), Sample(2, -0.2)), "below a full vacuum"),
    ],
)
def test_samples_that_are_no_hold(samples: tuple[Sample, ...], words: str) -> None:
    with pytest.raises(RuleError, match=words):
        judge(samples)


def test_a_limit_of_nothing_is_refused() -> None:
    with pytest.raises(RuleError, match="above zero"):
        judge(hold(lambda t: 21.0), limit=0.0)


@tried(60)
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


@tried(40)
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


def test_before_the_shortest_hold_the_rest_of_it_is_asked_for() -> None:
    """A leak that a stated modulus leaves in doubt for ever: after ten seconds nobody knows that, and the run goes on."""
    fall = leaking(0.8 * LIMIT)
    early = judge(hold(fall, last=10, every=1.0))
    assert (early.verdict, early.hold_needed) == ("undecided", pytest.approx(50.0))
    late = judge(hold(fall, last=300, every=5.0))
    assert (late.verdict, late.hold_needed) == ("undecided", None)
