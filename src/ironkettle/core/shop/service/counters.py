"""Counters read now and then: what ran since, over counters that were changed and readings that were wrong."""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from enum import StrEnum

from ironkettle.core.base.dates import shown_day
from ironkettle.core.base.errors import fault

_RECENT = timedelta(days=731)
_LEAST_SPAN = timedelta(hours=12)
_MOST = 1e12
# No counter of a shop's was read before it kept its records here. [UTC]
_EARLIEST = datetime(2000, 1, 1, tzinfo=UTC)


class Lower(StrEnum):
    """Why a counter reads less than before."""

    NEW_COUNTER = "new_counter"
    """The counter was replaced or reset: its earlier total is kept."""
    MISTAKE = "mistake"
    """The earlier reading was wrong: it is left out."""


@dataclass(frozen=True, slots=True)
class CounterRead:
    """One reading, at a time, in the unit of the counter; ``lower`` where it says why it is below the one before."""

    at: datetime
    value: float
    lower: Lower | None = None


@dataclass(frozen=True, slots=True)
class Total:
    """What had run in all at a time, from the first reading on; ``shown`` is what the counter stood at."""

    at: datetime
    ran: float
    shown: float


_GROUPED = re.compile(r"^\d{1,3}(?:,\d{3}){2,}(?:\.\d+)?$|^\d{1,3}(?:,\d{3})+\.\d+$")
_EITHER = re.compile(r"^\d{1,3}[.,]\d{3}$")
_PLAIN = re.compile(r"^\d+(?:[.,]\d+)?$")


def read_count(text: str, field: str = "value") -> float:
    """What a counter stands at, as typed: ``1250``, ``1250.5``, ``1250,5``, ``1,250,000``. [counts]

    Parameters: text : any, from 0 up to 1e12. Raises RuleError for what is no number, out of range, or may be two: 1,250 is
    1250 to one and 1.25 to another. Source: decimal point and comma, thousands in groups.
    """
    said = text.strip().replace(" ", "").replace("\u202f", "").replace("\xa0", "")
    if _EITHER.match(said):
        whole = re.sub(r"[.,]", "", said)
        raise fault(field, f"“{said}” may be {whole} or {said.replace(',', '.')}", whole, f"{said.replace(',', '.')}0")
    if _GROUPED.match(said):
        value = float(said.replace(",", ""))
    elif _PLAIN.match(said):
        value = float(said.replace(",", "."))
    else:
        raise fault(field, f"“{text.strip()[:40]}” is not a counter reading", "1250", "1250.5")
    if value > _MOST:
        raise fault(field, f"{said[:40]} is not a possible counter reading", "up to 1e12")
    return value


def totals(readings: Sequence[CounterRead]) -> tuple[Total, ...]:
    """What ran in all at each reading that counts, in order of time. Readings in any order of time.

    A new counter goes on where the old one stood; readings above one that says they were a mistake are left out.
    Source: sum of what each counter ran.
    """
    found: list[Total] = []
    begins = 0
    for reading in sorted(readings, key=lambda read: read.at):
        before = found[-1] if found else None
        if before is None:
            found.append(Total(reading.at, 0.0, reading.value))
        elif reading.lower is Lower.NEW_COUNTER:
            # Whatever the new one shows at first was not run by this unit.
            begins = len(found)
            found.append(Total(reading.at, before.ran, reading.value))
        else:
            if reading.lower is Lower.MISTAKE:
                kept = [t for place, t in enumerate(found) if place < begins or t.shown <= reading.value]
                found = kept
                before = found[-1] if found else None
            ran = 0.0 if before is None else before.ran + max(reading.value - before.shown, 0.0)
            found.append(Total(reading.at, ran, reading.value))
    return tuple(found)


def ran_by(found: Sequence[Total], at: datetime) -> float | None:
    """What had run in all at a time, any, as last read before it; None where nothing was read by then. [counts]"""
    place = bisect_right([reading.at for reading in found], at)
    return found[place - 1].ran if place else None


def rate_of(found: Sequence[Total], now: datetime) -> float | None:
    """What runs a day, from the readings of the last two years. [counts a day]

    None from fewer than two readings half a day apart, or where nothing ran. Source: difference over time.
    """
    recent = [reading for reading in found if now - reading.at <= _RECENT]
    if len(recent) < 2 or recent[-1].at - recent[0].at < _LEAST_SPAN:
        return None
    days = (recent[-1].at - recent[0].at).total_seconds() / 86_400
    ran = recent[-1].ran - recent[0].ran
    return ran / days if ran > 0 else None


def check_reading(before: Sequence[CounterRead], new: CounterRead, now: datetime, counter: str) -> None:
    """Whether a reading can stand beside those before it.

    Raises RuleError for one below the last that does not say why, above one that came later, in the future, before the
    year 2000, or out of range (from 0 up to 1e12).
    """
    if not 0 <= new.value <= _MOST:
        raise fault("value", f"{new.value:g} {counter} is not a possible counter reading", "0 or more")
    if new.at > now + timedelta(minutes=10):
        raise fault("at", "this is in the future", "now or earlier")
    if new.at < _EARLIEST:
        raise fault("at", "this is before any counter was read here", f"{shown_day(_EARLIEST)} or later")
    found = totals(before)
    earlier = [reading for reading in found if reading.at <= new.at]
    later = [reading for reading in found if reading.at > new.at]
    if earlier and new.value < earlier[-1].shown and new.lower is None:
        last = earlier[-1]
        text = f"{new.value:g} {counter} is below the {last.shown:g} of {shown_day(last.at)}: a counter does not run backwards"
        raise fault("value", text, f"{last.shown:g} or more", "or say: a new counter, or the one before was a mistake")
    if later and new.value > later[0].shown and not any(reading.lower for reading in before if reading.at > new.at):
        text = (
            f"{new.value:g} {counter} is above the {later[0].shown:g} of {shown_day(later[0].at)}, which was read later"
        )
        raise fault("value", text, f"up to {later[0].shown:g}")
