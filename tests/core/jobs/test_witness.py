"""The measuring glass at the open port: what its reading may mean, and that a pass waits for it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.runs import Judgement
from ironkettle.core.jobs.witness import check_collected, collected_rate, shown_with_glass, with_glass
from ironkettle.core.machine.pressure import Analysis
from ironkettle.core.sheets.document.trials import HoldTest

SPEC = HoldTest.model_validate(
    {"key": "hold", "kind": "pressure_hold", "name": "Hold", "zone": "rod_side", "pressure": "180 bar", "volume": "420 ml", "medium": "mineral oil ISO VG 46", "leak_limit": "0.5 ml/min", "glass": "cap port"}
)  # fmt: skip
DRY = SPEC.model_copy(update={"glass": None})


def judged(**changes: Any) -> Judgement:
    told = {
        "verdict": "pass",
        "limit": "0.5 ml/min",
        "wanted": "180 bar",
        "words": ["it held"],
        "low_ml_min": -0.1,
        "high_ml_min": 0.3,
    }
    return Judgement(**(told | changes))


def analysis(verdict: str) -> Analysis:
    return Analysis(0.1, (-0.1, 0.3), True, (0.0, 600.0), 17.9, 18.0, verdict, None, 50.0, ())


@pytest.mark.parametrize(
    ("collected", "rate"),
    # Over ten minutes. Read to a tenth of a millilitre at best, to half the last figure written, the glass true to 5 %.
    [("0 ml", (0.0, 0.01)), ("0.0 ml", (0.0, 0.01)), ("2.0 ml", (0.18, 0.22)), ("2 ml", (0.14, 0.26))],
)
def test_what_a_reading_of_the_glass_may_mean(collected: str, rate: tuple[float, float]) -> None:
    assert collected_rate(collected, 600) == pytest.approx(rate)


@pytest.mark.parametrize(
    ("verdict", "collected", "then"),
    [
        ("pass", "0 ml", "pass"),
        # Six tenths a minute ran out where the pressure shows three at most.
        ("pass", "6.0 ml", "undecided"),
        ("fail", "0 ml", "undecided"),
        ("undecided", "0 ml", "undecided"),
        ("invalid", "0 ml", "invalid"),
    ],
)
def test_two_witnesses_that_disagree_decide_nothing(verdict: str, collected: str, then: str) -> None:
    found = judged(verdict=verdict, **({"low_ml_min": 0.6, "high_ml_min": 0.9} if verdict == "fail" else {}))
    assert with_glass(found, SPEC, collected, 0.5, 600).verdict == then


def test_a_fail_that_the_glass_shows_too_stays_one() -> None:
    found = judged(verdict="fail", low_ml_min=0.6, high_ml_min=0.9)
    told = with_glass(found, SPEC, "7.5 ml", 0.5, 600)
    assert told.verdict == "fail"
    assert "Into the measuring glass at the cap port: 7.5 ml in 10 min" in told.words[-1]


def test_the_glass_is_asked_for_where_there_is_one_and_nowhere_else() -> None:
    with pytest.raises(RuleError, match="measuring glass at the cap port"):
        check_collected(SPEC, None)
    with pytest.raises(RuleError, match="no measuring glass"):
        check_collected(DRY, "0 ml")
    for absurd in ("-1 ml", "11 l"):
        with pytest.raises(RuleError, match=r"not a possible volume|above zero|at least"):
            check_collected(SPEC, absurd)
    check_collected(DRY, None)


def test_a_pass_is_not_shown_before_the_glass_is_read() -> None:
    shown = shown_with_glass(analysis("pass"), SPEC, None)
    assert shown.verdict == "undecided"
    assert shown.findings[0].code == "glass-unread"
    assert shown_with_glass(analysis("pass"), DRY, None).verdict == "pass"
    assert shown_with_glass(analysis("fail"), SPEC, None).verdict == "fail"


def test_a_run_that_was_judged_shows_its_judgement() -> None:
    apart = with_glass(judged(), SPEC, "6.0 ml", 0.5, 600)
    shown = shown_with_glass(analysis("pass"), SPEC, apart)
    assert shown.verdict == "undecided"
    assert "do not agree" in shown.findings[0].message
    same = analysis("pass")
    assert shown_with_glass(same, SPEC, with_glass(judged(), SPEC, "0 ml", 0.5, 600)) == replace(same)
