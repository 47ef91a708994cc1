"""The slope of readings that settle, ripple and come in steps."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.pressure.trend import NOISE_MEMORY_S, trend_of


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


def test_noise_counts_once_in_twenty_seconds_however_often_it_is_read() -> None:
    """By hand, apart from the rule: n readings of ±1 alternating about a flat line have a deviation of 1.

    The error of a slope over N independent readings spread like these is s/(σ_t·√N), N = 60/20 + 1 = 4,
    and 3.5 of it is the half-width.
    """
    for every in (1.0, 2.0):
        t = times(int(60 / every) + 1, every)
        y = np.where(np.arange(len(t)) % 2 == 0, 1.0, -1.0)
        s = np.sqrt(((y - np.polyval(np.polyfit(t, y, 2), t)) ** 2).sum() / (len(t) - 3))
        assert trend_of(t, y, 1e-9).half == pytest.approx(3.5 * s / (t.std() * np.sqrt(4)), rel=1e-6)
    assert NOISE_MEMORY_S == 20.0


def test_readings_far_apart_each_count() -> None:
    t = times(6, 60.0)
    y = np.array([0.0, 0.3, -0.2, 0.1, -0.3, 0.2])
    s = np.sqrt(((y - np.polyval(np.polyfit(t, y, 2), t)) ** 2).sum() / 3)
    # Six readings a minute apart: all six count, not 300/20 + 1.
    assert trend_of(t, y, 1e-9).half == pytest.approx(3.5 * s / (t.std() * np.sqrt(6)), rel=1e-6)


def test_a_steady_bend_is_no_noise() -> None:
    t = times(31)
    bent = trend_of(t, 0.001 * t**2, 0.01)
    assert bent.half == pytest.approx(1.5 * 0.01 / 60, rel=1e-3)


def test_three_readings_have_their_steps_alone() -> None:
    assert trend_of(times(3), np.array([0.0, 5.0, 0.0]), 0.1).half == pytest.approx(1.5 * 0.1 / 4)
