"""Routines without a figure, on adjusters made up here whose bottom, edge and touch are known."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.adjusters import (
    Advice,
    Direction,
    Seen,
    advise_contact,
    advise_edge,
    advise_preset,
    turn_words,
)

DIRECTIONS = st.sampled_from(["clockwise", "counter_clockwise"])


def follow(
    advise: Callable[[list[Seen]], Advice], sign: Callable[[float], bool], start: float, most: int = 80
) -> float:
    """Turns as it is told until it is done; where it stands then. [turns]"""
    at, seen = start, []
    for _ in range(most):
        seen.append(Seen(at, sign(at)))
        advice = advise(seen)
        if advice.done:
            return at
        assert advice.next_turns != 0, advice
        at += advice.next_turns
    raise AssertionError(f"not done: {seen[-3:]}")


@given(bottom=DIRECTIONS, start=st.floats(0, 3), turns=st.floats(0.25, 5))
def test_a_preset_ends_so_many_turns_from_its_bottom(bottom: Direction, start: float, turns: float) -> None:
    """The bottom stands at 0: past it the adjuster does not turn, so a position there is the bottom."""
    way = 1 if bottom == "clockwise" else -1
    end = follow(lambda seen: advise_preset(bottom, turns, 0.05, seen), lambda at: way * at >= -1e-9, -way * start)
    assert abs(end) == pytest.approx(turns, abs=0.05 + 1 / 8)


@given(opening=DIRECTIONS, edge=st.floats(-2, 2), start=st.floats(-1, 1), plus=st.floats(0, 90))
def test_an_edge_is_found_and_closed_past_as_far_as_it_must_be(
    opening: Direction, edge: float, start: float, plus: float
) -> None:
    way = 1 if opening == "clockwise" else -1
    # Nothing further than a turn open: else it takes many looks to close it.
    begin = edge + way * (start if start < 0 else start / 4)
    end = follow(lambda seen: advise_edge(opening, plus, 5, seen), lambda at: way * at > way * edge, begin)
    closed = way * (edge - end) * 360
    assert closed == pytest.approx(plus, abs=5 + 5 + 1)


@given(towards=DIRECTIONS, touch=st.floats(-2, 2), start=st.floats(-1, 1))
def test_a_contact_just_touches(towards: Direction, touch: float, start: float) -> None:
    way = 1 if towards == "clockwise" else -1
    end = follow(lambda seen: advise_contact(towards, seen), lambda at: way * at >= way * touch, touch + start)
    assert -1e-9 <= way * (end - touch) <= 1 / 36 + 1e-9


def test_nothing_is_said_of_nothing() -> None:
    for advise in (
        lambda: advise_preset("clockwise", 1, 0.1, []),
        lambda: advise_edge("clockwise", 25, 5, []),
        lambda: advise_contact("clockwise", []),
    ):
        with pytest.raises(RuleError, match="say where the adjuster stands first"):
            advise()


def test_a_sign_that_comes_and_goes_stops_the_routine() -> None:
    """It hissed at 0.2 and, opened further, no more: either the sign or the reading is wrong."""
    advice = advise_edge("clockwise", 25, 5, [Seen(0, False), Seen(0.2, True), Seen(0.3, False)])
    assert (advice.done, advice.next_turns, advice.findings[0].code) == (False, 0, "unsteady")


def test_past_the_bottom_it_is_bottomed_again() -> None:
    advice = advise_preset("clockwise", 2, 0.1, [Seen(0, True), Seen(0.5, False)])
    assert advice.findings[0].code == "past-bottom"
    assert advice.next_turns == pytest.approx(-2.5)


def test_turns_in_words() -> None:
    assert turn_words(0.25) == "90° clockwise (0.25 turn)"
    assert turn_words(-1.75) == "630° counter-clockwise (1.75 turns)"
    assert turn_words(0.0) == "leave it where it is"
