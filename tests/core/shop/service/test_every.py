"""How often, as it is written; days against the calendar, counted by hand."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.service import EveryKind, read_every


@pytest.mark.parametrize(
    ("text", "kind", "amount", "counter"),
    [
        ("6 h", EveryKind.HOURS, 6, "h"),
        ("1,200 hours", EveryKind.HOURS, 1200, "h"),
        ("0.5 h of running", EveryKind.HOURS, 0.5, "h"),
        ("4,000 swings", EveryKind.COUNT, 4000, "swings"),
        ("1 shift", EveryKind.COUNT, 1, "shifts"),
        ("2,000,000 cycles", EveryKind.COUNT, 2e6, "cycles"),
        ("when it drips", EveryKind.CONDITION, 0, "when it drips"),
    ],
)
def test_it_is_read_as_the_trade_writes_it(text: str, kind: EveryKind, amount: float, counter: str) -> None:
    read = read_every(text)
    assert (read.kind, read.amount, read.counter, read.text) == (kind, amount, counter, text)
    assert read.after(date(2026, 1, 1)) is None


@pytest.mark.parametrize(
    ("text", "done", "due"),
    [
        ("12 months", date(2026, 11, 26), date(2027, 11, 26)),
        ("1 year", date(2024, 2, 29), date(2025, 2, 28)),
        ("4 years", date(2024, 2, 29), date(2028, 2, 29)),
        ("1 month", date(2026, 1, 31), date(2026, 2, 28)),
        ("1 month", date(2028, 1, 31), date(2028, 2, 29)),
        ("13 months", date(2026, 12, 31), date(2028, 1, 31)),
        ("2 weeks", date(2026, 12, 25), date(2027, 1, 8)),
        ("90 days", date(2026, 11, 26), date(2027, 2, 24)),
    ],
)
def test_days_are_those_of_the_calendar(text: str, done: date, due: date) -> None:
    assert read_every(text).after(done) == due


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "does not say how often"), ("often", "does not say how often"), ("6", "does not say how often"),
        ("0 h", "never or too far off"), ("0 months", "never or too far off"), ("1e9 h", "does not say how often"),
        ("1.5 months", "whole months"), ("101 years", "more than 100 years"), ("6 %", "does not say of what"),
        ("when ", "does not say how often"), ("12,00 h", "does not say how often"), ("9999999999999 h", "too far off"),
    ],
)  # fmt: skip
def test_what_says_nothing_is_refused(text: str, words: str) -> None:
    with pytest.raises(RuleError, match=words):
        read_every(text)


@given(st.dates(date(2000, 1, 1), date(2100, 1, 1)), st.integers(1, 1200))
def test_months_go_forward_and_keep_their_day_where_there_is_one(day: date, months: int) -> None:
    due = read_every(f"{months} months").after(day)
    assert due is not None
    assert (due.year - day.year) * 12 + due.month - day.month == months
    assert due.day == day.day or (due.day < day.day and due.day >= 28)


def test_a_hundred_years_are_the_most_in_days_too() -> None:
    """A hundred years of 366 days are 36,600."""
    assert read_every("36600 days").days == 36_600
    with pytest.raises(RuleError, match="more than 100 years"):
        read_every("36601 days")


def test_at_the_end_of_the_calendar_it_is_the_last_day() -> None:
    assert read_every("100 years").after(date(9950, 6, 1)) == date.max


def test_a_refusal_repeats_no_more_than_eighty_letters() -> None:
    with pytest.raises(RuleError) as caught:
        read_every("x" * 500)
    assert caught.value.faults[0].message.count("x") == 80
