"""Limits as sheets write them."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import Dimension
from ironkettle.core.machine.parts import Limit, read_limit

LENGTH = Dimension.LENGTH


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [
        ("at most 0.05 mm", None, 0.05),
        ("≤ 2 mm", None, 2.0),
        ("at least 12 mm", 12.0, None),
        ("from 3 mm", 3.0, None),
        ("1 mm to 4 mm", 1.0, 4.0),
        ("1 to 4 mm", 1.0, 4.0),
        ("between 0.5 in and 1 in", 12.7, 25.4),
        ("28 mm +0/-0.052", 27.948, 28.0),
        ("10 mm ±0.2", 9.8, 10.2),
        ("5 mm", 5.0, 5.0),
    ],
)
def test_every_way_to_write_a_limit(text: str, low: float | None, high: float | None) -> None:
    limit = read_limit(text, "limit", LENGTH)
    assert limit.low == (None if low is None else pytest.approx(low))
    assert limit.high == (None if high is None else pytest.approx(high))
    assert limit.text == text


def test_plain_numbers_have_no_unit() -> None:
    assert read_limit("at most 3", "limit", None) == Limit(None, 3.0, "at most 3")
    assert read_limit("7", "limit", None) == Limit(7.0, 7.0, "7")
    assert read_limit("2 to 5", "limit", None) == Limit(2.0, 5.0, "2 to 5")


@pytest.mark.parametrize("text", ["", "at most", "at most 5", "4 mm to 1 mm", "at most 5 bar", "some", "1 to mm"])
def test_what_is_no_limit_is_refused(text: str) -> None:
    with pytest.raises(RuleError):
        read_limit(text, "limit", LENGTH)


def test_both_ends_hold_and_a_rounding_is_no_fault() -> None:
    limit = read_limit("1 mm to 4 mm", "limit", LENGTH)
    assert [limit.holds(value) for value in (0.99, 1.0, 2.5, 4.0, 4.01)] == [False, True, True, True, False]
    # 0.1 + 0.2 is not 0.3 in binary.
    assert read_limit("at most 0.3 mm", "limit", LENGTH).holds(0.1 + 0.2)
    assert not read_limit("at most 0.3 mm", "limit", LENGTH).holds(0.30001)
    assert read_limit("at least 3 mm", "limit", LENGTH).holds(1e6)
    assert not read_limit("at least 3 mm", "limit", LENGTH).holds(2.9)
    assert not read_limit("at most 3 mm", "limit", LENGTH).holds(3.1)


def test_equal_ends_are_a_limit_and_the_slack_is_a_millionth() -> None:
    assert read_limit("2 mm to 2 mm", "limit", LENGTH) == Limit(2.0, 2.0, "2 mm to 2 mm")
    top = read_limit("at most 100 mm", "limit", LENGTH)
    assert top.holds(100.00009)
    assert not top.holds(100.00012)
    floor = read_limit("at least 100 mm", "limit", LENGTH)
    assert floor.holds(99.99991)
    assert not floor.holds(99.99988)
    # The larger of the two ends gives the slack, and a limit of nought has none.
    assert read_limit("-100 to 1", "limit", None).holds(1.00009)
    assert read_limit("at most 0", "limit", None).holds(0.0)
    assert not read_limit("at most 0", "limit", None).holds(1e-9)


def test_a_millionth_of_the_limit_is_rounding_and_more_is_not() -> None:
    limit = read_limit("at most 100 mm", "limit", Dimension.LENGTH)
    assert limit.holds(100.0000999)
    assert not limit.holds(100.000105)
