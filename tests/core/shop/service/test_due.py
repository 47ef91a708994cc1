"""Counters and what is due: sums by hand, whichever comes first, and what cannot be told."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.service import (
    CounterRead,
    Lower,
    Past,
    Standing,
    check_reading,
    due_of,
    next_words,
    ran_by,
    rate_of,
    read_count,
    read_every,
    totals,
)

NOW = datetime(2026, 11, 26, 12, 0, tzinfo=UTC)


def ago(days: float) -> datetime:
    return NOW - timedelta(days=days)


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1250", 1250),
        ("1250.5", 1250.5),
        ("1250,5", 1250.5),
        ("1,250,000", 1.25e6),
        ("1,250.5", 1250.5),
        (" 1 250 ", 1250),
        ("0", 0),
    ],
)
def test_a_counter_is_read_as_it_is_typed(text: str, value: float) -> None:
    assert read_count(text) == value


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("1,250", "may be 1250 or 1.250"),
        ("1.250", "may be 1250"),
        ("-3", "is not a counter reading"),
        ("nan", "is not a counter reading"),
        ("1e3", "is not a counter reading"),
        ("", "is not a counter reading"),
        ("9" * 14, "not a possible counter reading"),
    ],
)
def test_what_may_be_two_numbers_or_none_is_asked_back(text: str, words: str) -> None:
    with pytest.raises(RuleError, match=words):
        read_count(text)


def read(*pairs: tuple[float, float]) -> list[CounterRead]:
    return [CounterRead(ago(days), value) for days, value in pairs]


def test_what_ran_is_the_difference_over_a_changed_counter_and_a_mistake() -> None:
    """100 → 160 ran 60; a new counter begins at 5 and comes to 25: 20 more; 900 was a mistake for 30: 5 more."""
    readings = [
        *read((50, 100), (40, 160)),
        CounterRead(ago(30), 5, Lower.NEW_COUNTER),
        *read((20, 25), (10, 900)),
        CounterRead(ago(9), 30, Lower.MISTAKE),
    ]
    assert [(total.ran, total.shown) for total in totals(reversed(readings))] == [
        (0, 100),
        (60, 160),
        (60, 5),
        (80, 25),
        (85, 30),
    ]  # type: ignore[arg-type]
    found = totals(readings)
    assert ran_by(found, ago(60)) is None
    assert ran_by(found, ago(35)) == 60
    assert ran_by(found, NOW) == 85


def test_a_mistake_reaches_no_further_back_than_the_counter() -> None:
    readings = [
        *read((30, 500)),
        CounterRead(ago(20), 2, Lower.NEW_COUNTER),
        *read((10, 80)),
        CounterRead(ago(5), 4, Lower.MISTAKE),
    ]
    assert [(total.ran, total.shown) for total in totals(readings)] == [(0, 500), (0, 2), (2, 4)]


def test_a_first_reading_that_was_a_mistake_leaves_nothing_run() -> None:
    readings = [*read((5, 900)), CounterRead(ago(4), 30, Lower.MISTAKE), *read((3, 31))]
    assert [(total.ran, total.shown) for total in totals(readings)] == [(0, 30), (1, 31)]


def test_what_runs_a_day_is_that_of_the_first_and_last_that_count() -> None:
    """Of 0, 100, 160, 400 the first is too old: 300 in 400 days."""
    found = totals(read((900, 0), (700, 100), (400, 160), (300, 400)))
    assert rate_of(found, NOW) == pytest.approx(0.75)
    # A few counts in a year are a use too.
    assert rate_of(totals(read((400, 0), (0, 0.5))), NOW) == pytest.approx(0.00125)


def test_what_runs_a_day_is_told_from_two_readings_apart() -> None:
    assert rate_of(totals(read((20, 100), (10, 160))), NOW) == pytest.approx(6.0)
    assert rate_of(totals(read((20, 100))), NOW) is None
    assert rate_of(totals(read((0.3, 100), (0.1, 160))), NOW) is None
    assert rate_of(totals(read((20, 100), (10, 100))), NOW) is None
    # Older than two years they tell nothing of today.
    assert rate_of(totals(read((900, 100), (740, 160))), NOW) is None
    assert rate_of(totals(read((700, 100), (400, 160))), NOW) == pytest.approx(0.2)


def test_a_counter_read_long_ago_once_tells_nothing_of_today() -> None:
    assert one("250 h", 100, read((61, 0)))[0] is Standing.UNKNOWN
    assert "too long ago" in one("250 h", 100, read((61, 0)))[2]
    assert one("250 h", 100, read((59, 0)))[0] is Standing.LATER


def test_the_day_from_which_nothing_can_be_told_is_known_before() -> None:
    """A lone reading of 10 days ago tells something until 60 days after it: 50 days ahead. Two readings always do."""

    def until(text: str, *readings: CounterRead) -> date | None:
        every = read_every(text)
        return due_of([every, read_every("12 months")], Past(ago(100)), {every.counter: readings}, NOW).unknown_from

    assert until("250 h", *read((10, 0))) == (NOW + timedelta(days=50)).date()
    assert until("250 h", *read((61, 0))) == (NOW - timedelta(days=1)).date()
    assert until("250 h") == NOW.date()
    assert until("250 h", *read((10, 0), (1, 20))) is None
    assert until("when it drips") is None


@pytest.mark.parametrize(
    ("new", "field", "words"),
    [
        (CounterRead(NOW, 159), "value", "does not run backwards"),
        (CounterRead(NOW, -1), "value", "not a possible counter reading"),
        (CounterRead(NOW + timedelta(hours=1), 200), "at", "in the future"),
        (CounterRead(datetime(1, 1, 1, tzinfo=UTC), 5), "at", "before any counter was read here"),
        (CounterRead(ago(15), 161), "value", "which was read later"),
    ],
)
def test_a_reading_that_cannot_be_is_refused(new: CounterRead, field: str, words: str) -> None:
    with pytest.raises(RuleError, match=words) as caught:
        check_reading(read((20, 100), (10, 160)), new, NOW, "h")
    assert caught.value.faults[0].field == field


def test_a_reading_is_held_against_those_next_to_it() -> None:
    before = read((30, 50), (20, 100), (10, 160), (5, 170))
    for new, words in (
        (CounterRead(NOW, 165), "is below the 170 of 21 Nov 2026"),
        (CounterRead(ago(15), 99), "is below the 100 of 6 Nov 2026"),
        (CounterRead(ago(15), 161), "is above the 160 of 16 Nov 2026"),
        (CounterRead(ago(40), 51), "is above the 50 of 27 Oct 2026"),
    ):
        with pytest.raises(RuleError, match=words):
            check_reading(before, new, NOW, "h")
    # The same figure twice is an idle machine.
    check_reading(before, CounterRead(ago(15), 160), NOW, "h")
    check_reading(before, CounterRead(ago(15), 100), NOW, "h")
    # A device's clock may be ten minutes ahead, and no more.
    check_reading(before, CounterRead(NOW + timedelta(minutes=9), 171), NOW, "h")
    with pytest.raises(RuleError, match="in the future"):
        check_reading(before, CounterRead(NOW + timedelta(minutes=11), 171), NOW, "h")
    # Beside a counter that was changed later, the order of figures says nothing.
    changed = [*before, CounterRead(ago(1), 3, Lower.NEW_COUNTER)]
    check_reading(changed, CounterRead(ago(2), 175), NOW, "h")


def test_days_are_told_as_they_are_said() -> None:
    assert one("12 months", 364)[2].endswith("in 1 day")
    assert one("12 months", 363)[2].endswith("in 2 days")
    assert one("12 months", 367)[2].endswith("2 days overdue")


def test_a_reading_between_two_or_with_its_reason_is_taken() -> None:
    before = read((20, 100), (10, 160))
    for new in (CounterRead(ago(15), 130), CounterRead(NOW, 160), CounterRead(NOW, 3, Lower.NEW_COUNTER)):
        check_reading(before, new, NOW, "h")
    check_reading([], CounterRead(NOW, 0), NOW, "h")


def one(text: str, done: float, readings: list[CounterRead] | None = None, counter: str = "h"):  # type: ignore[no-untyped-def]
    due = due_of([read_every(text)], Past(ago(done)), {counter: readings or []}, NOW)
    return due.standing, due.by, due.reaches[0].words


def test_a_date_is_over_the_day_after_it() -> None:
    """26 November less 365 days is 26 November 2025; a year on is today."""
    assert one("12 months", 365)[:2] == (Standing.SOON, date(2026, 11, 26))
    assert "today" in one("12 months", 365)[2]
    standing, by, words = one("12 months", 366)
    assert (standing, by) == (Standing.OVERDUE, date(2026, 11, 25))
    assert words.endswith("1 day overdue")
    # Fourteen days ahead it is due soon, fifteen it is not yet.
    assert one("12 months", 351)[0] is Standing.SOON
    assert one("12 months", 350)[0] is Standing.LATER


def test_hours_are_due_by_what_ran_since_it_was_done() -> None:
    """Done at 100 h; 30 h a day; 6 h are over, 400 h come 300/30 = 10 days after the last reading."""
    readings = read((10, 100), (0, 400))
    standing, by, words = one("250 h", 10, readings)
    assert (standing, by) == (Standing.OVERDUE, NOW.date())
    assert "300 h since it was done" in words
    assert "50 h overdue" in words
    standing, by, words = one("600 h", 10, readings)
    assert (standing, by) == (Standing.SOON, date(2026, 12, 6))
    assert "300 h left, at the present rate until 6 Dec 2026" in words
    assert one("2,000 h", 10, readings)[:2] == (Standing.LATER, date(2027, 1, 21))


def test_a_count_that_by_now_is_over_at_the_present_use_asks_for_a_reading() -> None:
    """10 a day until ten days ago, 95 of 100 used then: 195 by now."""
    standing, by, words = one("100 swings", 30, [CounterRead(ago(30), 0), CounterRead(ago(20.5), 95)], "swings")
    assert (standing, by) == (Standing.SOON, date(2026, 11, 6))
    assert "read the counter" in words


def test_without_a_counter_it_cannot_be_told() -> None:
    assert one("250 h", 10)[:2] == (Standing.UNKNOWN, None)
    assert "no counter reading" in one("250 h", 10)[2]
    # The first reading came after it was done: what ran before is not known, and it says so.
    standing, _, words = one("250 h", 10, read((5, 100), (0, 120)))
    assert standing is Standing.LATER
    assert "20 h since the first reading" in words


def test_nine_tenths_of_a_count_are_due_soon_without_a_rate() -> None:
    assert one("100 shifts", 3, [CounterRead(ago(3), 0), CounterRead(ago(2.9), 90)], "shifts")[0] is Standing.SOON
    assert one("100 shifts", 3, [CounterRead(ago(3), 0), CounterRead(ago(2.9), 89)], "shifts")[0] is Standing.LATER


def test_what_is_seen_is_due_until_it_is_done_again() -> None:
    seen = [CounterRead(ago(5), 1)]
    standing, by, words = one("when it drips", 10, seen, "when it drips")
    assert (standing, by) == (Standing.OVERDUE, date(2026, 11, 21))
    assert "seen on 21 Nov 2026" in words
    assert one("when it drips", 4, seen, "when it drips")[:2] == (Standing.LATER, None)


def test_whichever_comes_first_counts() -> None:
    every = [read_every("12 months"), read_every("250 h"), read_every("when it drips")]
    due = due_of(every, Past(ago(100)), {"h": read((100, 0), (0, 200))}, NOW)
    assert (due.standing, due.by) == (Standing.LATER, date(2026, 12, 21))
    assert due_of(every, Past(ago(400)), {"h": []}, NOW).standing is Standing.OVERDUE
    # What can be told does not hide what cannot.
    assert due_of(every, Past(ago(100)), {"h": []}, NOW).standing is Standing.UNKNOWN


def test_a_unit_never_done_here_counts_from_when_it_is_known() -> None:
    due = due_of([read_every("12 months")], Past(ago(400), first_known=True), {}, NOW)
    assert due.standing is Standing.OVERDUE
    assert "registered 22 Oct 2025" in due.reaches[0].words
    ran = due_of([read_every("6 h")], Past(ago(50), first_known=True), {"h": read((50, 10), (1, 15))}, NOW)
    assert "5 h since it was registered" in ran.reaches[0].words


def test_the_next_service_in_words() -> None:
    every = [read_every(text) for text in ("12 months", "4,000 swings", "6 months", "when it drips")]
    assert (
        next_words(every, date(2024, 2, 29))
        == "by 2024-08-29 or after 4,000 swings or when it drips, whichever comes first"
    )
    assert next_words(every[1:2], date(2024, 2, 29)) == "after 4,000 swings"
    assert next_words(every[:1], date(2024, 2, 29)) == "by 2025-02-28"


@given(st.lists(st.tuples(st.integers(0, 1000), st.integers(0, 10_000), st.sampled_from([None, *Lower])), max_size=30))
def test_what_ran_never_falls(told: list[tuple[int, int, Lower | None]]) -> None:
    found = totals([CounterRead(ago(1000 - at), value, lower) for at, value, lower in told])
    assert all(a.ran <= b.ran for a, b in pairwise(found))
    assert all(one.ran >= 0 for one in found)
