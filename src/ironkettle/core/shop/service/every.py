"""How often something is due: after hours, counts, a time on the calendar, or when something is seen."""

from __future__ import annotations

import calendar
import re
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from ironkettle.core.base.errors import fault

_FITS = ("6 h", "4,000 strokes", "12 months", "when it drips")
_NUMBER = re.compile(r"^(\d{1,3}(?:,\d{3})+|\d+)(\.\d+)?\s+(.+)$")
_HOURS = frozenset({"h", "hour", "hours", "h of running", "hours of running"})
# Of one of these words, how many months or how many days.
_MONTHS = {"month": 1, "months": 1, "year": 12, "years": 12}
_DAYS = {"day": 1, "days": 1, "week": 7, "weeks": 7}
_MOST = 1e12
_LONGEST_YEARS = 100


class EveryKind(StrEnum):
    HOURS = "hours"
    COUNT = "count"
    DATE = "date"
    CONDITION = "condition"


@dataclass(frozen=True, slots=True)
class Every:
    """``amount`` of ``counter`` (h, swings …) for hours and counts; for a date ``months`` and ``days``; ``text`` as written."""

    text: str
    kind: EveryKind
    amount: float = 0.0
    counter: str = ""
    months: int = 0
    days: int = 0

    def after(self, done: date) -> date | None:
        """The day it is due again after a day it was done, any; None where no day can be told from the calendar.

        The last day of a month stays its last: 31 January and a month is 28 or 29 February, 29 February and a year is
        28 February. Source: Gregorian calendar.
        """
        if self.kind is not EveryKind.DATE:
            return None
        try:
            return _plus_months(done, self.months) + timedelta(days=self.days)
        except (OverflowError, ValueError):
            return date.max


def _plus_months(day: date, months: int) -> date:
    years, month = divmod(day.month - 1 + months, 12)
    year = day.year + years
    return date(year, month + 1, min(day.day, calendar.monthrange(year, month + 1)[1]))


def read_every(text: str, field: str = "every") -> Every:
    """How often, as a technician writes it.

    ``12 months``, ``6 h``, ``4,000 swings``, ``2 shifts``, or ``when`` and what is seen. Parameters: text : any; amounts
    above 0, up to a hundred years. Raises RuleError for what cannot be read as one of them. Source: the trade's usual words.
    """
    said = " ".join(text.split())
    if said.lower().startswith("when ") and len(said) > len("when "):
        return Every(said, EveryKind.CONDITION, counter=said)
    found = _NUMBER.match(said)
    if found is None:
        raise fault(field, f"“{said[:80]}” does not say how often", *_FITS)
    amount = float(found[1].replace(",", "") + (found[2] or ""))
    word = found[3].lower()
    if not 0 < amount <= _MOST:
        raise fault(field, f"“{said[:80]}” is never or too far off", *_FITS)
    if word in _MONTHS or word in _DAYS:
        return _date(said, amount, word, field)
    if word in _HOURS:
        return Every(said, EveryKind.HOURS, amount, "h")
    if not re.match(r"^[^\W\d]", word):
        raise fault(field, f"“{said[:80]}” does not say of what", *_FITS)
    return Every(said, EveryKind.COUNT, amount, word if word.endswith("s") else f"{word}s")


def _date(said: str, amount: float, word: str, field: str) -> Every:
    if amount != int(amount):
        raise fault(field, f"“{said[:80]}”: whole {word} are counted on the calendar", *_FITS)
    months, days = int(amount) * _MONTHS.get(word, 0), int(amount) * _DAYS.get(word, 0)
    if months > 12 * _LONGEST_YEARS or days > 366 * _LONGEST_YEARS:
        raise fault(field, f"“{said[:80]}” is more than {_LONGEST_YEARS} years", *_FITS)
    return Every(said, EveryKind.DATE, months=months, days=days)
