"""Days and moments as they are shown: ``29 Nov 2026``, the same in every language of the machine."""

from __future__ import annotations

from datetime import UTC, date, datetime

_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def shown_day(day: date) -> str:
    """A day as it is shown.

    >>> shown_day(date(2026, 11, 9))
    '9 Nov 2026'
    """
    return f"{day.day} {_MONTHS[day.month - 1]} {day.year}"


def shown_moment(moment: datetime) -> str:
    """A moment as the record shows it, in UTC.

    >>> shown_moment(datetime(2026, 11, 9, 8, 5, tzinfo=UTC))
    '9 Nov 2026, 08:05 UTC'
    """
    moment = moment.astimezone(UTC)
    return f"{shown_day(moment)}, {moment:%H:%M} UTC"
