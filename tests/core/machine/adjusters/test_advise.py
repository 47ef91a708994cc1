"""The next turn towards a target, worked out by hand, and what must never be suggested."""

from __future__ import annotations

import random
from collections.abc import Callable

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.adjusters import Advice, Reading, Sense, Target, advise
from tests.laws import tried

UP, DOWN = Sense.CLOCKWISE_RAISES, Sense.CLOCKWISE_LOWERS


def after(target: Target, *readings: tuple[float, float]) -> Advice:
    return advise(target, [Reading(turns, value) for turns, value in readings])


def codes(found: Advice) -> set[str]:
    return {finding.code for finding in found.findings}


# 350 bar, give or take 5.
SPRING = Target(350, 5, 5, UP)


def test_the_line_through_two_readings_gives_the_turn() -> None:
    found = after(SPRING, (0, 312), (0.25, 331))
    # 19 bar in a quarter turn is 76 bar a turn; 19 bar are missing, a quarter turn more.
    assert found.rate == pytest.approx(76)
    assert found.next_turns == pytest.approx(0.25)
    assert found.expected == pytest.approx(350)
    assert not found.done
    assert found.findings == ()


def test_one_reading_out_of_line_does_not_bend_it() -> None:
    # 76 bar a turn at four places, and a slip of the eye of 30 bar at a fifth.
    found = after(SPRING, (0, 274), (0.25, 293), (0.5, 342), (0.75, 331))
    assert found.rate == pytest.approx(76, rel=0.35)
    straight = after(SPRING, (0, 274), (0.25, 293), (0.5, 312), (0.625, 351.5 - 30), (0.75, 331))
    assert straight.rate == pytest.approx(76, rel=0.05)


def test_one_reading_tells_no_rate_and_gets_a_small_turn_the_right_way() -> None:
    found = after(SPRING, (0, 312))
    assert (found.next_turns, found.expected, found.rate) == (0.125, None, None)
    assert codes(found) == {"trial"}
    assert after(Target(350, 5, 5, DOWN), (0, 312)).next_turns == -0.125
    assert after(SPRING, (0, 380)).next_turns == -0.125
    # Read twice at one place it is one position.
    assert after(SPRING, (0, 312), (0.001, 313)).rate is None


@pytest.mark.parametrize(("value", "done"), [(344.9, False), (345, True), (350, True), (355, True), (355.1, False)])
def test_within_its_tolerance_it_is_done_ends_included(value: float, done: bool) -> None:
    found = after(SPRING, (0, 312), (0.25, 331), (0.5, value))
    assert found.done is done
    if done:
        assert found.next_turns == 0
        assert "after locking" in found.findings[-1].message


def test_an_overshot_target_is_come_up_to_again() -> None:
    over = after(SPRING, (0, 312), (0.25, 331), (0.75, 369))
    # Back to 345 less 3 % of 350: 334.5 bar, 34.5 bar down at 76 a turn.
    assert over.expected == pytest.approx(334.5)
    assert over.next_turns == pytest.approx(-34.5 / 76)
    assert "overshot" in codes(over)
    # Stopped at the target on the way down it is not done: it was come to from above.
    down = after(SPRING, (0, 312), (0.25, 331), (0.75, 369), (0.5, 350))
    assert not down.done
    assert down.next_turns < 0
    # From below again it is.
    assert after(SPRING, (0, 312), (0.75, 369), (0.25, 331), (0.5, 350)).done


def test_backed_off_by_half_of_what_was_advised_counts_where_the_floor_is_near() -> None:
    """Floor 8, target 10 ±1: it is backed off to 9, half of the way between floor and target, which is the low end itself; so half
    of the way from 10 to 9 is far enough, by the module's own rule."""
    near = Target(10, 1, 1, UP, floor=8)
    up_again = ((0, 8.2), (0.5, 12), (0.3, 9.4), (0.35, 9.8))
    assert after(near, *up_again).done
    assert not after(near, (0, 8.2), (0.5, 12), (0.3, 9.6), (0.35, 9.8)).done


def test_a_floor_is_said_and_never_gone_through() -> None:
    # Effort to open 1.4 inH2O, never below 1.3: at 1.1 it is unstable, and gets the turn to make.
    effort = Target(1.4, 0.05, 0.05, UP, floor=1.3)
    low = after(effort, (0, 1.0), (0.25, 1.1))
    # Up there is nothing it must not pass. 0.1 in a quarter turn: three quarters more.
    assert codes(low) == {"below-floor"}
    assert low.next_turns == pytest.approx(0.75)
    assert low.expected == pytest.approx(1.4)
    over = after(effort, (0, 1.2), (0.25, 1.6))
    # Backed off half of the room above the floor at most, and on two readings not even that.
    assert over.expected is not None
    assert over.expected >= 1.3
    strict = after(Target(1.4, 0.05, 0.05, UP, floor=1.35), (0, 1.2), (0.25, 1.6))
    # 1.6 a turn was read, four times that it may be: 0.9 · 0.25/6.4 of a turn down, 0.05625.
    assert strict.expected == pytest.approx(1.6 - 0.05625)
    assert {"floor", "careful", "short-of-end"} <= codes(strict)
    # What is inside the tolerance and under the floor is not done.
    assert not after(Target(1.4, 0.2, 0.05, UP, floor=1.35), (0, 1.0), (0.5, 1.3)).done


def test_a_ceiling_is_said() -> None:
    found = after(Target(350, 5, 5, UP, ceiling=360), (0, 331), (0.5, 369))
    assert "above-ceiling" in codes(found)
    assert not after(Target(350, 5, 20, UP, ceiling=352), (0, 331), (0.3, 354)).done


def test_an_adjuster_that_does_not_answer_or_answers_backwards_gets_no_turn() -> None:
    dead = after(SPRING, (0, 312), (0.5, 312))
    assert (dead.next_turns, codes(dead)) == (0.0, {"no-answer"})
    back = after(SPRING, (0, 331), (0.25, 312))
    assert (back.next_turns, codes(back)) == (0.0, {"wrong-sense"})
    assert "it fell, and should have risen" in back.findings[0].message
    assert after(Target(350, 5, 5, DOWN), (0, 331), (0.25, 312)).next_turns == pytest.approx(-38 / 76)


def test_no_further_than_the_readings_carry_or_the_thread_goes() -> None:
    # 2 bar in 0.02 turns would ask for 1.9 turns more; four times 0.02 is as far as it carries.
    near = after(Target(350, 5, 5, UP), (0, 158), (0.02, 160))
    assert near.next_turns == pytest.approx(0.08)
    assert "part-way" in codes(near)
    far = after(Target(350, 5, 5, UP), (0, 100), (1, 120))
    assert far.next_turns == 1.0
    end = after(Target(350, 5, 5, UP, travel=(-2, 0.3)), (0, 312), (0.25, 331))
    assert end.next_turns == pytest.approx(0.05)
    assert "end-of-thread" in codes(end)


def test_readings_on_no_line_call_for_small_turns() -> None:
    assert "uneven" in codes(after(SPRING, (0, 200), (0.25, 210), (0.5, 300)))
    assert "uneven" not in codes(after(SPRING, (0, 274), (0.25, 293), (0.5, 313)))


@pytest.mark.parametrize(
    ("changes", "field"),
    [({"floor": 360.0}, "floor"), ({"ceiling": 340.0}, "ceiling"), ({"minus": -1.0}, "tolerance")],
)
def test_a_target_against_itself_is_refused(changes: dict[str, float], field: str) -> None:
    with pytest.raises(RuleError) as refused:
        Target(**{"value": 350.0, "minus": 5.0, "plus": 5.0, "sense": UP, **changes})  # type: ignore[arg-type]
    assert refused.value.faults[0].field == field
    with pytest.raises(RuleError):
        advise(SPRING, [])


READINGS = st.lists(
    st.tuples(st.floats(-5, 5), st.floats(0, 1000)).map(lambda pair: Reading(*pair)), min_size=1, max_size=8
)


@tried(60)
@given(READINGS, st.floats(1, 900), st.floats(0, 50), st.floats(0, 100), st.sampled_from(list(Sense)))
def test_nothing_is_ever_suggested_through_a_floor_or_past_the_thread(
    readings: list[Reading], value: float, tolerance: float, under: float, sense: Sense
) -> None:
    target = Target(value, tolerance, tolerance, sense, floor=value - under, travel=(-6.0, 6.0))
    found = advise(target, readings)
    here = readings[-1]
    assert -6.0 - 1e-6 <= here.turns + found.next_turns <= 6.0 + 1e-6
    assert abs(found.next_turns) <= 1.0 + 1e-9
    if found.expected is not None and here.value >= value - under:
        assert found.expected >= value - under - 1e-6
    if found.done:
        assert target.low - 1e-6 <= here.value <= target.high + 1e-6


@tried(60)
@example(rate=121.0, start=340.0, value=350.0, minus=0.0, plus=5.0, under=0.0)
@example(rate=50.0, start=-20.0, value=0.0, minus=0.0, plus=4.0, under=None)
@given(
    rate=st.floats(20, 200),
    start=st.floats(-300, 700),
    value=st.sampled_from([0.0, 20.0, 350.0]),
    minus=st.sampled_from([0.0, 1.0, 5.0]),
    plus=st.sampled_from([1.0, 5.0]),
    under=st.sampled_from([None, 0.0, 0.5, 2.0, 50.0]),
)
def test_it_never_stands_still_before_it_is_done(
    rate: float, start: float, value: float, minus: float, plus: float, under: float | None
) -> None:
    """A spring that answers evenly: every advice is a turn or *done*, whatever the tolerance and however near the floor."""
    target = Target(value, minus, plus, UP, floor=None if under is None else value - under)
    place, readings = 0.0, [Reading(0.0, start)]
    for _ in range(60):
        found = advise(target, readings)
        if found.done:
            break
        assert found.next_turns != 0, found
        place += found.next_turns
        readings.append(Reading(place, start + rate * place))
    assert found.done, readings


@tried(60)
@example(rate=121.0, noise=0.0, start=340.0)
@given(rate=st.floats(20, 200), noise=st.floats(0, 0.02), start=st.floats(150, 340))
def test_followed_turn_by_turn_it_arrives_from_below(rate: float, noise: float, start: float) -> None:
    """A spring that answers evenly, read with a small error, is at its target in the end."""
    place, readings = 0.0, [Reading(0.0, start)]
    for count in range(30):
        found = advise(SPRING, readings)
        if found.done:
            break
        place += found.next_turns
        wobble = 1 + noise * (1 if count % 2 else -1) / 4
        readings.append(Reading(place, start + rate * place * wobble))
    assert found.done, readings


def springs() -> dict[str, Callable[[float], float]]:
    """What an adjuster does that a line through its readings does not: it stiffens, it has backlash, it sticks."""
    return {
        "stiffens": lambda turns: 300 + 40 * turns + 60 * max(turns, 0.0) ** 2,
        "stiffens late": lambda turns: 300 + 30 * turns + 60 * max(turns - 0.8, 0.0) ** 2,
        "backlash": lambda turns: 300 + 76 * max(turns - 0.2, 0.0),
        "line": lambda turns: 300 + 76 * turns,
    }


@pytest.mark.parametrize("kind", springs())
@pytest.mark.parametrize("room", [4.0, 10.0, 40.0])
@pytest.mark.parametrize("noise", [0.0, 0.5])
def test_no_advised_turn_reaches_the_ceiling(kind: str, room: float, noise: float) -> None:
    spring, chance = springs()[kind], random.Random(3)
    target = Target(350, 3, 3, UP, ceiling=350 + room)
    readings = [Reading(0.0, spring(0.0))]
    for _ in range(60):
        advice = advise(target, readings)
        if advice.done:
            break
        turns = readings[-1].turns + advice.next_turns
        readings.append(Reading(turns, spring(turns) + chance.gauss(0, noise)))
        assert spring(turns) < 350 + room
    assert advice.done or any(finding.code == "no-answer" for finding in advice.findings)


def test_why_it_is_careful_is_said() -> None:
    few = advise(Target(350, 3, 3, UP, ceiling=360), [Reading(0, 300), Reading(0.25, 319)])
    assert few.next_turns == pytest.approx(0.25 * 0.9 * 41 / 76 / 1.0 / 0.25 / 4, rel=1e-6)
    assert "fewer than three readings" in next(finding.message for finding in few.findings if finding.code == "careful")
