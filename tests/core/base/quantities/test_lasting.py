"""Durations that a text states. The cases are English; no standard."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import seconds_words, stated_seconds


@pytest.mark.parametrize(
    ("text", "seconds"),
    [
        ("no drip in 10 min", 600),
        ("stops within 2 min of the float lifting, no drip in 10 min", 600),
        ("strikes within 5 s of turning on the air, evenly, for a minute", 60),
        ("a ten-minute look", 600),
        ("dry for at least 90 s", 90),
        ("nothing in half an hour", 1800),
        ("Drop of the supply gauge in 5 minutes", 300),
        ("mm in 10 min", 600),
        ("after 30 seconds, for 2 minutes", 120),
        ("holds over 1.5 h", 5400),
        ("for an hour", 3600),
    ],
)
def test_the_longest_time_that_is_stated(text: str, seconds: float) -> None:
    assert stated_seconds(text) == seconds


@pytest.mark.parametrize(
    "text",
    [
        "stops within 2 min",
        "fills up to in 40 mm",
        "10 ml/min",
        "in a bath",
        "pin, seat and spring in as they lay",
        "for as long as it takes",
        "over ten strokes",
        "at 20 bar",
        "for 2 min/m",
        "",
    ],
)
def test_what_is_no_time_to_wait_out(text: str) -> None:
    assert stated_seconds(text) is None


@pytest.mark.parametrize(
    ("seconds", "words"),
    [
        (5, "5 s"),
        (60, "1 min"),
        (90, "90 s"),
        (119, "119 s"),
        (120, "2 min"),
        (600, "10 min"),
        (3600, "1 h"),
        (5400, "90 min"),
        (7200, "2 h"),
    ],
)
def test_a_time_is_said_as_it_is_said(seconds: float, words: str) -> None:
    assert seconds_words(seconds) == words
    assert seconds_words(5.25) == "5.2 s"
    assert seconds_words(5.31) == "5.3 s"


@given(st.integers(1, 100_000))
def test_what_is_said_is_read_again(seconds: int) -> None:
    read = stated_seconds(f"dry for {seconds_words(seconds)}")
    # Said to a tenth of its unit.
    assert read is not None
    assert abs(read - seconds) <= 0.05 * max(3600 * (seconds >= 7200), 60 * (seconds >= 120), 1) + 1e-6
