"""Openings, counts and events by hand, and what a single reading cannot do."""

from __future__ import annotations

import pytest

from ironkettle.core.machine.tests import TRIALS, Instrument
from ironkettle.core.machine.tests.counting import rate_of
from tests.core.machine.tests.outcomes import codes, interval, run


def test_openings_by_hand() -> None:
    """283, 283, 284, 282, 283 bar: mean 283, s = √(2/4) = 0.7071; t(4) = 2.7764, so ± 2.7764·0.7071/√5 = 0.8780 bar.

    On a gauge of 0.1 bar steps and 0.5 % another 0.05 + 1.415 bar.
    """
    told = ["283 bar", "283 bar", "284 bar", "282 bar", "283 bar"]
    outcome = run("opening_pressure", {"value": "280 bar +10/-0"}, {"openings": told}, Instrument(0.01, 0.5))
    assert outcome.value("mean") == pytest.approx(28.3)
    low, high = interval(outcome, "mean")
    assert (28.3 - low, high - 28.3) == (pytest.approx(0.2343, abs=1e-4), pytest.approx(0.2343, abs=1e-4))
    assert outcome.value("spread") == pytest.approx(0.2)
    # 2 of 283 bar.
    assert outcome.value("repeatability") == pytest.approx(0.70671, abs=1e-5)
    assert interval(outcome, "spread") == (pytest.approx(0.19), pytest.approx(0.21))
    assert outcome.verdict == "pass"
    assert outcome.findings == ()
    # The same seen on a gauge of 1.6 % may as well be 279.5: not decided.
    assert (
        run("opening_pressure", {"value": "280 bar +10/-0"}, {"openings": told}, Instrument(0.01, 1.6)).verdict
        == "undecided"
    )


def test_one_opening_outside_fails_by_itself_and_one_far_off_is_told() -> None:
    told = ["18.0 bar", "18.1 bar", "18.0 bar", "18.1 bar", "16.9 bar"]
    outcome = run("opening_pressure", {"value": "18 bar ±1"}, {"openings": told})
    assert outcome.verdict == "fail"
    assert {"one-outside", "far-off"} <= codes(outcome)
    climbing = ["17.6 bar", "17.8 bar", "18.0 bar", "18.2 bar"]
    assert "climbs" in codes(run("opening_pressure", {"value": "18 bar ±1"}, {"openings": climbing}))
    assert "climbs" not in codes(run("opening_pressure", {"value": "18 bar ±1"}, {"openings": ["18 bar"] * 4}))


def test_a_spread_too_wide_fails_though_the_mean_is_right() -> None:
    outcome = run(
        "opening_pressure",
        {"value": "18 bar ±2", "spread": "1 bar"},
        {"openings": ["17.0 bar", "19.0 bar", "18.0 bar", "18.0 bar"]},
    )
    assert outcome.verdict == "fail"
    # Written to whole bars the two may be 1 bar apart as well as 3.
    rounded = run(
        "opening_pressure",
        {"value": "18 bar ±3", "spread": "1 bar"},
        {"openings": ["17 bar", "19 bar", "18 bar", "18 bar"]},
    )
    assert rounded.verdict == "undecided"
    assert next(result.verdict for result in outcome.results if result.key == "mean") == "pass"


def test_reseat_is_held_from_below() -> None:
    figures = {"value": "18 bar ±1", "reseat": "16 bar"}
    good = run("opening_pressure", figures, {"openings": ["18 bar"] * 3, "reseats": ["16.5 bar"] * 3})
    bad = run("opening_pressure", figures, {"openings": ["18 bar"] * 3, "reseats": ["15.5 bar"] * 3})
    assert (good.verdict, bad.verdict) == ("pass", "fail")


def test_a_floor_is_passed_by_no_single_reading() -> None:
    """The mean of 1.4, 1.5, 1.25, 1.5 inH2O is 1.41, above the floor of 1.3; one reading is not."""
    told = ["1.4 inH2O", "1.5 inH2O", "1.25 inH2O", "1.5 inH2O"]
    outcome = run("effort", {"value": "1.4 inH2O ±0.4", "floor": "1.3 inH2O"}, {"readings": told})
    assert outcome.verdict == "fail"
    assert "reading 3" in next(finding.message for finding in outcome.findings if finding.code == "below-floor")
    hard = run("effort", {"value": "1.4 inH2O ±0.4", "ceiling": "1.6 inH2O"}, {"readings": ["1.7 inH2O"] * 3})
    assert (hard.verdict, "above-ceiling" in codes(hard)) == ("fail", True)
    # A floor without a tolerance: as far above as it lies below, so 1.3 to 1.5.
    much = run("effort", {"value": "1.4 inH2O", "floor": "1.3 inH2O"}, {"readings": ["5 inH2O"] * 3})
    assert (much.verdict, "no-tolerance" in codes(much)) == ("fail", True)


def test_counts_by_hand() -> None:
    """Few: nothing in the 6 min that are planned is up to 3.689 events (Garwood, 97.5 %), 0.6148 a minute. Many: Student's of the spans.

    20, 22, 18, 20 a minute: mean 20, s = √(8/3) = 1.6330, t(3) = 3.1824, ± 3.1824·1.6330/2 = 2.5985.
    """
    none = run("count", {"what": "drops", "limit": "at most 2 /min"}, {"counts": [{"t_s": 360, "count": 0}]})
    assert interval(none, "rate") == (0.0, pytest.approx(0.614815, abs=1e-4))
    assert none.verdict == "pass"
    # Looked at before, by the interval that holds at every look: −ln 2 − ln(½ + 3) + ln 0.02 = −5.858 = −3·λ.
    early = run("count", {"what": "drops", "limit": "at most 2 /min"}, {"counts": [{"t_s": 180, "count": 0}]})
    assert interval(early, "rate") == (0.0, pytest.approx(5.858 / 3, abs=1e-3))
    assert (
        run("count", {"what": "drops", "limit": "at most 1 /min"}, {"counts": [{"t_s": 180, "count": 0}]}).verdict
        == "undecided"
    )
    many = [(60.0 * n, 60.0 * (n + 1), count) for n, count in enumerate((20, 22, 18, 20))]
    assert rate_of(many)[1] == (pytest.approx(17.4015, abs=1e-3), pytest.approx(22.5985, abs=1e-3))
    # Strokes that come quite evenly: one more or less in the whole time.
    even = [{"t_s": 60 * n, "count": 30} for n in (1, 2, 3)]
    assert interval(run("count", {"what": "strokes", "limit": "27 to 33 /min"}, {"counts": even}), "rate") == (
        pytest.approx(30 - 1 / 3), pytest.approx(30 + 1 / 3)
    )  # fmt: skip


def test_a_packing_that_settles_is_judged_after_it_settled() -> None:
    counts = [{"t_s": 60 * n, "count": max(5, 40 - 2 * n)} for n in range(1, 41)]
    outcome = run("count", {"what": "drops", "limit": "at most 10 /min", "settle": "20 min"}, {"counts": counts})
    assert outcome.verdict == "pass"
    # 40 − 2·15 = 10 in the minute that begins at 14 min.
    assert outcome.value("settled_from") == 14 * 60
    early = run("count", {"what": "drops", "limit": "at most 10 /min", "settle": "20 min"}, {"counts": counts[:18]})
    assert (early.verdict, "not-settled" in codes(early)) == ("undecided", True)
    worse = [{"t_s": 60 * n, "count": 2 + n // 4} for n in range(1, 25)]
    growing = run("count", {"what": "drops", "limit": "at most 10 /min"}, {"counts": worse})
    assert (growing.verdict, "grows" in codes(growing)) == ("undecided", True)


def test_spans_are_told_in_seconds_within_the_first_minute() -> None:
    criteria = {"what": "strokes", "limit": "30 to 36 /min", "settle": "1 min"}
    trial = TRIALS["count"]
    labels = [one.label for one in trial.wanted(trial.criteria_of(criteria))]
    assert labels[:5] == [
        f"Strokes, {span}" for span in ("0 to 15 s", "15 to 30 s", "30 to 45 s", "45 to 60 s", "1 to 2 min")
    ]


def test_events_by_their_times_are_the_counts_of_their_minutes() -> None:
    events = [0.5 + 6 * n for n in range(50)]
    told = run("count", {"what": "drops", "limit": "at most 20 /min"}, {"events_s": events, "end_s": 300})
    assert told.value("rate") == pytest.approx(10)
    assert told.verdict == "pass"
