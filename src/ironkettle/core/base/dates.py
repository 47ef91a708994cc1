"""Days and moments as they are shown: ``29 Nov 2026``, the same in every language of the machine."""

from __future__ import annotations

from datetime import UTC, date, datetime, tzinfo

_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def shown_day(day: date) -> str:
    """A day as it is shown.

    >>> shown_day(date(2026, 11, 9))
    '9 Nov 2026'
    """
    return f"{day.day} {_MONTHS[day.month - 1]} {day.year}"


def shown_moment(moment: datetime, zone: tzinfo = UTC) -> str:
    """A moment as the record shows it, in UTC or in a zone with its offset.

    >>> shown_moment(datetime(2026, 11, 9, 8, 5, tzinfo=UTC))
    '9 Nov 2026, 08:05 UTC'
    >>> from datetime import timedelta, timezone
    >>> shown_moment(datetime(2026, 11, 9, 8, 5, tzinfo=UTC), timezone(timedelta(hours=1)))
    '9 Nov 2026, 09:05 UTC+01:00'
    """
    moment = moment.astimezone(zone)
    offset = moment.strftime("%z")
    apart = f"{offset[:3]}:{offset[3:5]}" if moment.utcoffset() else ""
    return f"{shown_day(moment)}, {moment:%H:%M} UTC{apart}"
