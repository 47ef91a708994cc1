"""Torques as a wrench is set: never outside what the fastener may get."""

from __future__ import annotations

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.tightening import TorqueRange, torque_words
from tests.laws import tried


@pytest.mark.parametrize(
    ("low", "high", "words"),
    [
        (9.588, 10.81, "9.6 to 10.8 N·m"),
        (0.81, 0.99, "0.81 to 0.99 N·m"),
        (199.6, 231.4, "200 to 231 N·m"),
        (15.0, 16.5, "15 to 16.5 N·m"),
        (1038.0, 1122.0, "1040 to 1120 N·m"),
        # Nothing that a scale shows lies within: it is told as it is.
        (10.01, 10.04, "10.01 to 10.04 N·m"),
        (0.0, 0.0, "0 to 0 N·m"),
    ],
)
def test_ranges_by_hand(low: float, high: float, words: str) -> None:
    assert TorqueRange(low, high).words == words


@pytest.mark.parametrize(
    ("torque", "words"), [(0.8512, "0.851 N·m"), (9.588, "9.59 N·m"), (999.4, "999 N·m"), (1234.4, "1234 N·m")]
)
def test_single_torques_by_hand(torque: float, words: str) -> None:
    assert torque_words(torque) == words


@tried(300)
@given(st.floats(0.01, 5000), st.floats(1.0, 3.0))
def test_what_is_told_lies_within_the_range(low: float, ratio: float) -> None:
    wanted = TorqueRange(low, low * ratio)
    told = [float(figure) for figure in re.findall(r"[\d.e+-]+", wanted.words.replace(" N·m", "")) if figure != "to"]
    assert wanted.low * (1 - 1e-5) <= told[0] <= told[1] <= wanted.high * (1 + 1e-5)
