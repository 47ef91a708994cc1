"""The slope of readings that settle, ripple and come in steps."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.pressure.trend import NOISE_MEMORY_S, student, trend_of


def times(count: int, every: float = 2.0) -> np.ndarray:
    return every * np.arange(count, dtype=float)


@given(slope=st.floats(-1, 1), start=st.floats(-50, 50), count=st.integers(3, 60), every=st.floats(0.5, 60))
def test_a_straight_line_is_found_and_only_the_steps_are_in_doubt(
    slope: float, start: float, count: int, every: float
) -> None:
    t = times(count, every)
    found = trend_of(t, start + slope * t, 0.01)
    assert found.slope == pytest.approx(slope, abs=1e-6)
    assert found.mean == pytest.approx(start + slope * t.mean(), abs=1e-6)
    assert found.span == pytest.approx(t[-1])
    # 1.5 steps over the span.
    assert found.half == pytest.approx(0.015 / t[-1], rel=0.01, abs=1e-6)


def test_equal_readings_carry_a_step_over_the_whole_span_and_no_less() -> None:
    found = trend_of(times(31), np.full(31, 21.0), 0.1)
    assert (found.slope, found.half) == (pytest.approx(0.0), pytest.approx(1.5 * 0.1 / 60))


def test_noise_that_ripples_slowly_counts_once_in_twenty_seconds_however_often_it_is_read() -> None:
    """By hand, apart from the rule: the error of a slope over N independent readings spread like these is s/(σ_t·√N),
    N = 400/20 + 1 = 21, and the half-width is Student's t at 18 degrees and the tail of 3.5 deviations."""
    for every in (1.0, 2.0):
        t = times(int(400 / every) + 1, every)
        y = np.sin(2 * np.pi * t / 40)
        s = np.sqrt(((y - np.polyval(np.polyfit(t, y, 2), t)) ** 2).sum() / (len(t) - 3))
        assert trend_of(t, y, 1e-9).half == pytest.approx(student(18.0) * s / (t.std() * np.sqrt(21)), rel=2e-3)
    assert NOISE_MEMORY_S == 20.0


def test_noise_that_scatters_freely_counts_more_often() -> None:
    chance = np.random.default_rng(3)
    t = times(301)
    free = trend_of(t, chance.normal(0, 1, 301), 1e-9)
    # 31 would count if it rippled slowly; a perfect knowledge of the noise would give 3.5/(σ_t·√301).
    assert 3.5 / (t.std() * np.sqrt(301)) < free.half < 3.5 / (t.std() * np.sqrt(80))


def test_few_readings_are_known_to_be_few() -> None:
    t = times(6, 60.0)
    y = np.array([0.0, 0.3, -0.2, 0.1, -0.3, 0.2])
    s = np.sqrt(((y - np.polyval(np.polyfit(t, y, 2), t)) ** 2).sum() / 3)
    # Six readings a minute apart all count, less three for the parabola: t at 3 degrees and 2.326e-4 is 16.73.
    assert trend_of(t, y, 1e-9).half == pytest.approx(student(3.0) * s / (t.std() * np.sqrt(6)), rel=1e-6)


@pytest.mark.parametrize(
    ("freedom", "quantile"),
    # Student's t with 1 and 2 degrees has a closed form: tan(π(½ − p)) and (1 − 2p)·√(2/(4p(1 − p))), p = 2.326e-4.
    [
        (1.0, np.tan(np.pi * (0.5 - 2.3263e-4))),
        (2.0, (1 - 2 * 2.3263e-4) * np.sqrt(2 / (4 * 2.3263e-4 * (1 - 2.3263e-4)))),
        (1e7, 3.5),
    ],
)
def test_students_t_at_its_closed_forms(freedom: float, quantile: float) -> None:
    assert student(freedom) == pytest.approx(quantile, rel=1e-4)


def test_a_steady_bend_is_no_noise() -> None:
    t = times(31)
    bent = trend_of(t, 0.001 * t**2, 0.01)
    assert bent.half == pytest.approx(1.5 * 0.01 / 60, rel=1e-3)


def test_three_readings_have_their_steps_alone() -> None:
    assert trend_of(times(3), np.array([0.0, 5.0, 0.0]), 0.1).half == pytest.approx(1.5 * 0.1 / 4)


def test_students_t_leaves_the_tail_of_three_and_a_half_deviations() -> None:
    """The density (1 + x²/ν)^(−(ν+1)/2), summed by hand from the quantile on; 2.3263e-4 is the normal tail of 3.5."""
    x = np.linspace(student(18.0), 400.0, 2_000_001)
    whole = np.linspace(-400.0, 400.0, 4_000_001)
    density = [(1 + part**2 / 18) ** (-19 / 2) for part in (x, whole)]
    tail = np.trapezoid(density[0], x) / np.trapezoid(density[1], whole)
    assert tail == pytest.approx(2.3263e-4, rel=1e-3)
