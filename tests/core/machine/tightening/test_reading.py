"""Whether a torque that was read is tight."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.tightening import Layout, TorqueRange, allowed_reading, told_of_reading, turns_of

RANGE = TorqueRange(21, 25)
TURNS = turns_of(Layout.RECTANGLE, 4, [60, 100])


def test_the_last_passes_want_the_range_itself() -> None:
    for turn in TURNS[1:]:
        allowed = allowed_reading(RANGE, turn, 4)
        assert (allowed.low, allowed.high, allowed.final) == (21, 25, True)


def test_an_early_pass_wants_its_share_and_never_full_torque() -> None:
    # 60 % of 21 less 15 %, and of 25 and 15 % more: 10.71 to 17.25.
    allowed = allowed_reading(RANGE, TURNS[0], 4)
    assert (allowed.low, allowed.high, allowed.final) == (pytest.approx(10.71), pytest.approx(17.25), False)
    # 90 %: 25·0.9·1.15 = 25.9 would be full torque; it ends 1 % under the range.
    nearly = turns_of(Layout.RECTANGLE, 4, [90, 100])[0]
    assert allowed_reading(RANGE, nearly, 4).high == pytest.approx(20.79)


@pytest.mark.parametrize(("accuracy", "low", "high"), [(4, 192, 208), (3, 194, 206), (None, 190, 210)])
def test_a_bare_target_takes_the_wrenchs_accuracy_or_five_per_cent(
    accuracy: float | None, low: float, high: float
) -> None:
    allowed = allowed_reading(TorqueRange(200, 200), turns_of(Layout.SINGLE, 1, [100])[0], accuracy)
    assert (allowed.low, allowed.high) == pytest.approx((low, high))
    assert told_of_reading(200, allowed) is None
    assert "not tight" in str(told_of_reading(70, allowed))


@pytest.mark.parametrize(
    ("value", "words"),
    [
        (20.9, "not tight: 21.0 N·m to 25.0 N·m"),
        (21, None),
        (25, None),
        (25.1, "too tight: 21.0 N·m to 25.0 N·m is asked for. Undo it"),
    ],
)
def test_what_is_said_of_a_reading(value: float, words: str | None) -> None:
    told = told_of_reading(value, allowed_reading(RANGE, TURNS[-1], 4))
    assert (told is None) if words is None else words in str(told)


def test_it_is_said_in_the_unit_it_was_read_in() -> None:
    # 21 N·m / 1.35582 = 15.49 lbf·ft; 25 are 18.44.
    told = told_of_reading(14, allowed_reading(RANGE, TURNS[-1], 4), "lbf·ft")
    assert "15.5 lbf·ft to 18.4 lbf·ft" in str(told)


def test_full_torque_in_the_first_pass_means_beginning_again() -> None:
    told = told_of_reading(23, allowed_reading(RANGE, TURNS[0], 4))
    assert "too tight for this pass" in str(told)
    assert "begin again with the first pass" in str(told)


@given(low=st.floats(1, 500), width=st.floats(0, 0.5), pct=st.floats(10, 95), accuracy=st.floats(1, 6))
def test_what_ends_a_pass_early_never_ends_it_whole(low: float, width: float, pct: float, accuracy: float) -> None:
    torque = TorqueRange(low, low * (1 + width))
    early, last = turns_of(Layout.CIRCLE, 3, [pct, 100])[:2]
    first, final = allowed_reading(torque, early, accuracy), allowed_reading(torque, last, accuracy)
    assert first.high < final.low
    # The share of the middle always counts, up to where it would be full torque.
    aim = min(torque.middle * pct / 100, first.high)
    assert told_of_reading(aim, first) is None or first.low > first.high
