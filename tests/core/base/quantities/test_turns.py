"""Turns as a hand makes them: by definition of a turn."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import turns_of, written_turns


@pytest.mark.parametrize(
    ("turns", "written"),
    [(1 / 6, "1/6"), (0.1667, "1/6"), (0.8333, "5/6"), (1.75, "1 3/4"), (2, "2"), (0, "0"), (0.999, "1"), (0.4, "0.4"), (0.1667 + 0.004, "0.171")],
)  # fmt: skip
def test_shares_that_a_hand_knows_are_written_as_such(turns: float, written: str) -> None:
    assert written_turns(turns) == written


@given(st.integers(0, 12), st.sampled_from([2, 3, 4, 6, 8]), st.integers(0, 8))
def test_what_is_written_is_what_was_meant(whole: int, of: int, part: int) -> None:
    turns = whole + Fraction(part % of, of)
    written = written_turns(float(turns))
    assert sum(Fraction(one) for one in written.split()) == turns
    if " " not in written:
        assert turns_of(written) == pytest.approx(float(turns))
