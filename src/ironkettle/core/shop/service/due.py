"""What is due when: whichever comes first of hours, counts, a date and what is seen."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from enum import StrEnum

from ironkettle.core.base.dates import shown_day
from ironkettle.core.shop.service.counters import CounterRead, Total, ran_by, rate_of, totals
from ironkettle.core.shop.service.every import Every, EveryKind

SOON_DAYS = 14
# A counter read longer ago, of which no use is known, tells nothing of today. [days]
STALE_DAYS = 60
# From this share of a count on it is due soon.
_SOON_SHARE = 0.9


class Standing(StrEnum):
    OVERDUE = "overdue"
    SOON = "soon"
    LATER = "later"
    UNKNOWN = "unknown"


STANDING_WORD = {
    Standing.OVERDUE: "overdue", Standing.SOON: "due soon", Standing.LATER: "later",
    Standing.UNKNOWN: "no reading",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reach:
    """How one of the ways stands: ``by`` the day it comes (for a count at the present use), ``left`` and ``words``.

    ``unknown_from``: the day from which it no reading any more, unless a counter is read.
    """

    every: str
    standing: Standing
    by: date | None
    left: float | None
    words: str
    unknown_from: date | None = None


@dataclass(frozen=True, slots=True)
class Due:
    """``by``: the first day one of them comes; None where none can be told."""

    standing: Standing
    by: date | None
    reaches: tuple[Reach, ...]

    @property
    def unknown_from(self) -> date | None:
        """The first day from which one of the ways no reading, unless a counter is read."""
        return min((reach.unknown_from for reach in self.reaches if reach.unknown_from is not None), default=None)


@dataclass(frozen=True, slots=True)
class Past:
    """When it was done last, and whether that is only since when the unit is known here."""

    at: datetime
    first_known: bool = False


def due_of(every: Sequence[Every], past: Past, readings: Mapping[str, Sequence[CounterRead]], now: datetime) -> Due:
    """How an interval stands now: the worst of its ways, and the first day.

    Parameters: every : what it is due after; past : when it was done last; readings : by counter, in any order; now : any.
    Source: whichever comes first; a count's day is what is left over what runs a day.
    """
    reaches = tuple(_reach(rule, past, readings.get(rule.counter, ()), now) for rule in every)
    days = [reach.by for reach in reaches if reach.by is not None]
    order = (Standing.OVERDUE, Standing.SOON, Standing.UNKNOWN, Standing.LATER)
    worst = min((reach.standing for reach in reaches), key=order.index, default=Standing.UNKNOWN)
    return Due(worst, min(days, default=None), reaches)


def _reach(every: Every, past: Past, readings: Sequence[CounterRead], now: datetime) -> Reach:
    if every.kind is EveryKind.DATE:
        return _by_date(every, past, now)
    if every.kind is EveryKind.CONDITION:
        seen = [reading for reading in readings if reading.at > past.at and reading.value > 0]
        if seen:
            words = f"{every.text}: seen on {shown_day(seen[-1].at)}"
            return Reach(every.text, Standing.OVERDUE, seen[-1].at.date(), None, words)
        return Reach(every.text, Standing.LATER, None, None, f"{every.text}: not seen")
    return _by_count(every, past, totals(readings), now)


def _by_date(every: Every, past: Past, now: datetime) -> Reach:
    by = every.after(past.at.date())
    assert by is not None
    days = (by - now.date()).days
    since = "registered" if past.first_known else "last"
    said = f"Every {every.text}, {since} {shown_day(past.at)}: "
    if days < 0:
        return Reach(every.text, Standing.OVERDUE, by, days, f"{said}{-days} day{'s' if days < -1 else ''} overdue")
    words = f"{said}{'today' if days == 0 else f'in {days} day' + ('s' if days > 1 else '')}"
    return Reach(every.text, Standing.SOON if days <= SOON_DAYS else Standing.LATER, by, days, words)


def _by_count(every: Every, past: Past, found: Sequence[Total], now: datetime) -> Reach:
    if not found:
        words = f"Every {every.text}: no counter reading; enter one"
        return Reach(every.text, Standing.UNKNOWN, None, None, words, now.date())
    start = ran_by(found, past.at)
    guessed = start is None
    used = found[-1].ran - (start or 0.0)
    left = every.amount - used
    rate = rate_of(found, now)
    # What ran since the last reading is not known; at the present use it is this much.
    idle = 0.0 if rate is None else rate * (now - found[-1].at).total_seconds() / 86_400
    since = "since it was registered" if past.first_known else "since it was done"
    since = "since the first reading" if guessed else since
    said = f"Every {every.text}: {_plain(used)} {every.counter} {since}, read on {shown_day(found[-1].at)}"
    if left <= 0:
        return Reach(
            every.text, Standing.OVERDUE, found[-1].at.date(), left, f"{said}; {_plain(-left)} {every.counter} overdue"
        )
    stale = None if rate is not None else found[-1].at + timedelta(days=STALE_DAYS)
    if stale is not None and now > stale:
        words = f"{said}; that is too long ago: read the counter"
        return Reach(every.text, Standing.UNKNOWN, None, left, words, stale.date())
    by = _day_of(found[-1].at, left, rate)
    standing = Standing.LATER
    if used + idle >= _SOON_SHARE * every.amount or (by is not None and (by - now.date()).days <= SOON_DAYS):
        standing = Standing.SOON
    if by is not None and by < now.date():
        said = f"{said}; at the present rate it is overdue by now: read the counter"
    elif by is not None:
        said = f"{said}; {_plain(left)} {every.counter} left, at the present rate until {shown_day(by)}"
    else:
        said = f"{said}; {_plain(left)} {every.counter} left"
    return Reach(every.text, standing, by, left, said, None if stale is None else stale.date())


def _day_of(read: datetime, left: float, rate: float | None) -> date | None:
    if rate is None:
        return None
    days = left / rate
    return None if days > 36_600 else (read + timedelta(days=math.floor(days))).date()


def _plain(value: float) -> str:
    return f"{value:,.1f}".removesuffix(".0")


def next_words(every: Sequence[Every], done: date) -> str:
    """When it is next due after a day it was done, in words: the day, and what may come before it."""
    days = [day for every_part in every if (day := every_part.after(done)) is not None]
    rest = [rule.text for rule in every if rule.kind is not EveryKind.DATE]
    parts = [f"by {min(days)}"] if days else []
    parts += [text if text.startswith("when ") else f"after {text}" for text in rest]
    return " or ".join(parts) + (", whichever comes first" if len(parts) > 1 else "")
