"""The stand's own numbers: what is wanted, when it was taken, what was missed."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.stand import Beat, RecordedChannel, RecordingPlan

# Five a second of a stand that takes fifty.
EVERY_S = 0.02


def test_every_tenth_of_fifty_a_second_is_wanted_of_five() -> None:
    beat = Beat(5.0, EVERY_S)
    assert beat.stride == 10
    assert Beat(50.0, EVERY_S).stride == 1
    assert Beat(50.0, 1.0).stride == 1
    assert list(beat.wanted(417)) == [417]
    beat.take(0.0, 417)
    assert list(beat.wanted(426)) == []
    assert list(beat.wanted(447)) == [427, 437, 447]
    # Another numbering: the stand was started again.
    assert list(beat.wanted(3)) == [3]


@pytest.mark.parametrize(
    ("numbers", "missed"),
    [
        ([10, 20, 30], 0),
        # Read a little early or late: none is missing.
        ([10, 19, 31, 40], 0),
        ([10, 40], 2),
        ([10, 20, 25_020], 2499),
        ([10, 10], 0),
    ],
)
def test_what_is_missing_is_counted_from_the_numbers(numbers: list[int], missed: int) -> None:
    beat = Beat(5.0, EVERY_S)
    for number in numbers:
        beat.take(number * EVERY_S, number)
    assert (beat.missed, beat.taken) == (missed, len(numbers))


def test_without_numbers_or_with_new_ones_the_servers_clock_counts() -> None:
    beat = Beat(5.0)
    for at in (0.0, 0.2, 0.42, 1.4):
        beat.take(at, None)
    # From 0.42 to 1.4 s four of five were due between.
    assert beat.missed == 4
    again = Beat(5.0, EVERY_S)
    again.take(0.0, 9000)
    again.take(1.0, 4)
    assert again.missed == 4
    assert again.says == "4 of 6 readings of the stand were missed"
    assert Beat(5.0).says is None


@given(st.lists(st.floats(0, 0.9), min_size=3, max_size=40))
def test_an_answer_long_on_its_way_moves_no_reading(late: list[float]) -> None:
    """Whatever the answers took, the readings stand as far apart as the stand took them, once one came at once."""
    beat = Beat(5.0, EVERY_S)
    beat.heard(0, 100.0)
    beat.take(beat.when(0), 0)
    for turn, delay in enumerate(late[:18], start=1):
        number = 10 * turn
        beat.heard(number, 100.0 + number * EVERY_S + delay)
        at = beat.when(number)
        assert at == pytest.approx(100.0 + number * EVERY_S, abs=1e-6)
        beat.take(at, number)


def test_readings_stay_in_order_when_a_quicker_answer_sets_the_clocks_anew() -> None:
    beat = Beat(5.0, EVERY_S)
    beat.heard(0, 3.0)
    beat.take(beat.when(0), 0)
    beat.heard(10, 0.2)
    assert beat.when(10) == pytest.approx(3.001)


def test_a_stand_started_again_is_set_against_the_clock_anew() -> None:
    beat = Beat(5.0, EVERY_S)
    beat.heard(5000, 100.0)
    beat.take(beat.when(5000), 5000)
    beat.heard(1, 130.0)
    assert beat.when(1) == pytest.approx(130.0)


def test_the_rows_of_a_recording_tell_what_was_missed() -> None:
    plan = RecordingPlan(
        channels=(
            RecordedChannel(key="pressure", name="Pressure", unit="MPa"),
            RecordedChannel(key="reading", name="Number of the reading", unit=""),
        ),
        pressure="pressure", rate_hz=5.0, number="reading", every_s=EVERY_S,
    )  # fmt: skip
    beat = Beat.of(plan, [(0.0, 18.0, 100.0), (0.2, 18.0, 110.0), (0.8, 18.0, 140.0)])
    assert (beat.taken, beat.missed, beat.last) == (3, 2, 140)
    # A recording made before its stand told a number.
    older = plan.model_copy(update={"number": None, "every_s": None})
    assert Beat.of(older, [(0.0, 18.0, math.nan), (0.6, 18.0, math.nan)]).missed == 2


def test_a_number_that_stands_still_is_noticed_by_the_stands_own_pace() -> None:
    beat = Beat(5.0, EVERY_S)
    assert beat.still_since(1000.0) is None
    beat.heard(7, 10.0)
    beat.heard(7, 14.9)
    assert beat.still_since(14.9) is None
    beat.heard(7, 15.0)
    assert beat.still_since(15.0) == 10.0
    beat.heard(8, 15.1)
    assert beat.still_since(16.0) is None
    # One that takes a reading each ten seconds is given three of them.
    slow = Beat(5.0, 10.0)
    slow.heard(7, 10.0)
    assert slow.still_since(39.9) is None
    assert slow.still_since(40.0) == 10.0
