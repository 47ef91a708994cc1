"""Gaps, frozen channels and what temperature explains, on traces made by hand: each figure is worked out beside it."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ironkettle.core.machine.pressure import Gauge
from ironkettle.core.machine.pressure.touched import Swing, frozen, gaps_of, thermometer_step

GAUGE = Gauge(25.0, 0.01, 0.5)
# Falls by 0.004 MPa a second; read each 2 s, with a gap from 20 s to 60 s.
BEFORE, AFTER = np.arange(0.0, 21.0, 2.0), np.arange(60.0, 81.0, 2.0)
NO_SWING = Swing(0.0, 0.0, 0.0, 0.0, 0.0)


def fallen(t: np.ndarray, jump: float = 0.0, slope: float = -0.004) -> np.ndarray:
    """Readings of a fall that goes on evenly, but for a jump within the gap. [MPa]"""
    return 18.0 + slope * t + np.where(t > 40, jump, 0.0)


def only_gap(read: np.ndarray):  # type: ignore[no-untyped-def]
    found = gaps_of(np.concatenate([BEFORE, AFTER]), read, GAUGE)
    assert len(found) == 1
    return found[0]


def test_a_gap_across_which_the_fall_goes_on_is_only_a_gap() -> None:
    gap = only_gap(fallen(np.concatenate([BEFORE, AFTER])))
    assert (gap.start, gap.end, gap.place) == (20.0, 60.0, 11)
    assert not gap.pumped
    assert not gap.differs


@pytest.mark.parametrize("jump", [-0.5, 0.15])
def test_what_fell_or_rose_within_the_gap_differs_where_both_slopes_are_one(jump: float) -> None:
    """0.15 in 40 s is 0.00375 /s, beyond two steps of 0.01 in that time (0.0005 /s) and what eleven readings leave in doubt."""
    gap = only_gap(fallen(np.concatenate([BEFORE, AFTER]), jump))
    assert gap.differs
    # It never stood higher than before by two steps: the fall of 40 s takes 0.16 of what was pumped.
    assert not gap.pumped


def test_a_gap_after_which_it_stands_higher_was_pumped() -> None:
    """From 17.92 to 17.76 without a hand; with 0.4 it stands 0.24 higher, more than two steps of 0.01."""
    assert only_gap(fallen(np.concatenate([BEFORE, AFTER]), 0.4)).pumped


@pytest.mark.parametrize(("side", "differs"), [(2, False), (3, True)])
def test_three_readings_on_a_side_tell_a_slope(side: int, differs: bool) -> None:
    t = np.concatenate([BEFORE, AFTER[:side]])
    gap = gaps_of(t, fallen(t, -0.5), GAUGE)[0]
    assert gap.differs is differs


def test_a_gap_is_longer_than_three_usual_distances_and_than_ten_seconds() -> None:
    quick = np.array([0.0, 2.0, 4.0, 14.0, 16.0, 18.0])
    assert gaps_of(quick, fallen(quick), GAUGE) == ()
    assert len(gaps_of(quick + np.where(quick > 10, 0.1, 0.0), fallen(quick), GAUGE)) == 1
    slow = np.array([0.0, 60.0, 120.0, 300.0, 360.0, 420.0])
    assert gaps_of(slow, fallen(slow), GAUGE) == ()
    assert len(gaps_of(slow + np.where(slow > 200, 1.0, 0.0), fallen(slow), GAUGE)) == 1
    assert gaps_of(np.array([0.0]), np.array([18.0]), GAUGE) == ()


def lively(before: int, same: int, every: float) -> tuple[np.ndarray, np.ndarray]:
    """A channel that moves a step up and down at each of so many readings, then shows the same so many times."""
    read = np.concatenate([17.0 + 0.01 * (np.arange(before) % 2), np.full(same, 17.0)])
    return np.arange(len(read)) * every, read


@pytest.mark.parametrize(
    ("before", "same", "every", "stands"),
    [
        (40, 60, 1.0, True),
        # Fewer than forty the same, or in less than twenty seconds: a run of chance.
        (40, 30, 1.0, False),
        (40, 60, 0.2, False),
        # Fewer than ten readings that lived tell nothing of how it lives.
        (8, 60, 1.0, False),
    ],
)
def test_a_channel_that_lived_and_stops_is_frozen(before: int, same: int, every: float, stands: bool) -> None:
    t, read = lively(before, same, every)
    assert frozen(t, read, np.full(len(t), np.nan), GAUGE, NO_SWING) is stands


def test_a_slow_fall_that_moves_a_step_now_and_then_is_not_frozen() -> None:
    """A step each 60 readings: it stood still long before as well."""
    t = np.arange(600.0)
    read = 18.0 - 0.01 * np.floor(t / 60)
    assert not frozen(t, read, np.full(600, np.nan), GAUGE, NO_SWING)


def test_a_channel_that_never_moves_is_frozen_where_the_least_drift_of_any_shop_moves_it() -> None:
    """0.02 K/min for 150 s is 0.05 K; at 1 MPa/K that is five steps of 0.01, at 0.19 MPa/K not one."""
    t, still = np.arange(0.0, 151.0, 2.0), np.full(76, 18.0)
    nan = np.full(76, np.nan)
    assert frozen(t, still, nan, GAUGE, Swing(1.0, 1.0, 0.01, 2.0, 60.0))
    assert not frozen(t, still, nan, GAUGE, Swing(1.0, 0.19, 0.01, 2.0, 60.0))
    # A kelvin that was read moves it by 0.19.
    warmed = np.linspace(20.0, 21.0, 76)
    assert frozen(t, still, warmed, GAUGE, Swing(1.0, 0.19, 0.01, 2.0, 60.0))
    # Four readings are too few to say so of any channel.
    assert not frozen(t[:4] * 20, still[:4], nan[:4], GAUGE, Swing(1.0, 1.0, 0.01, 2.0, 60.0))
    assert frozen(t[:5] * 20, still[:5], nan[:5], GAUGE, Swing(1.0, 1.0, 0.01, 2.0, 60.0))


def test_what_an_unread_temperature_explains_is_the_drift_allowed_up_to_its_most() -> None:
    """2 MPa/K, 0.001 K/s, at most 0.05 K: 0.02 after 10 s, 0.1 from 50 s on; a typed guess at every row tells no more."""
    swing = Swing(2.0, 1.0, 0.001, 0.05, 60.0)
    t = np.arange(0.0, 101.0, 10.0)
    for temperature in (np.full(11, np.nan), np.full(11, 22.0)):
        assert swing.explains_since_start(t, temperature) == pytest.approx(2 * np.minimum(0.001 * t, 0.05))
        assert swing.explains(t, temperature, 1) == pytest.approx(np.full(10, 0.02))


def test_what_a_temperature_that_was_read_explains() -> None:
    """Warmed by 0.1 K each 10 s, step 0.1: it may have gone three times (1.0 − 0.1) / 100 s = 0.027 K/s at first, so with a lag of
    2 s the ten seconds explain 0.1 + 0.1 + 0.054 K, which is less than 0.27 K; at 2 MPa/K 0.508 MPa."""
    swing = Swing(2.0, 1.0, 0.001, 0.05, 2.0)
    t = np.arange(0.0, 101.0, 10.0)
    warmed = 22.0 + 0.01 * t
    assert swing.explains(t, warmed, 1) == pytest.approx(np.full(10, 2 * 0.254))
    # What recovers after it was let down is added.
    recovering = Swing(2.0, 1.0, 0.001, 0.05, 2.0, recovery=0.3)
    assert recovering.explains(t, warmed, 1) == pytest.approx(np.full(10, 2 * 0.254 + 0.3))


def test_the_step_of_a_thermometer_is_the_smallest_difference_it_showed() -> None:
    assert thermometer_step(np.array([22.0, 22.5, 22.2])) == pytest.approx(0.2)
    # One that never moves is as coarse as a whole degree.
    assert thermometer_step(np.array([22.0, 22.0])) == 1.0
    assert math.isclose(thermometer_step(np.array([22.0, 24.0])), 2.0)
