"""The bench list: jobs by state and words, a page at a time, those still open first, the last touched on top."""

from __future__ import annotations

import base64
import binascii
import json
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any, Literal, get_args
from uuid import UUID

from sqlalchemy import ColumnElement, SQLColumnExpression, and_, false, func, or_, select
from sqlalchemy.orm import Session

from ironkettle.core.base.errors import fault
from ironkettle.store.jobs.rows import JobRow

Which = Literal["open", "released", "all"]
Only = Literal["mine", "parts", "timer", "to_sign", "overdue", "week"]
Sort = Literal["touched", "promised", "opened", "unit"]
MOST_COUNTED = 1000
_NEVER = date(9999, 12, 31)
# What is left out of a serial where somebody writes it in another way.
_SIGNS = re.compile(r"[-/. ]")


@dataclass(frozen=True, slots=True)
class Page:
    """``next``: what to ask the page after this one with; None at the end. ``total``: of all pages; where ``least``, that many
    at least: of what words find no more are counted."""

    jobs: list[JobRow]
    next: str | None
    total: int
    least: bool = False


@dataclass(frozen=True, slots=True)
class Sought:
    """Which jobs are wanted. ``only``: of the open ones those last worked on by ``me``, those that wait for a part, whose timer runs,
    that wait for a signature, promised and past, or promised within a week.
    """

    which: Which = "all"
    words: str = ""
    only: Only | None = None
    stage: str = ""
    family: str = ""
    who: str = ""
    me: str = ""


@dataclass(frozen=True, slots=True)
class _Order:
    """By what a list is sorted: the value of a row, whether the largest comes first, and how a cursor writes it."""

    by: SQLColumnExpression[Any]
    of: Callable[[JobRow], Any]
    read: Callable[[str], Any]
    largest_first: bool = False


_ORDERS: dict[Sort, _Order] = {
    "touched": _Order(JobRow.touched_at, lambda job: job.touched_at, datetime.fromisoformat, largest_first=True),
    "promised": _Order(func.coalesce(JobRow.promised, _NEVER), lambda job: job.promised or _NEVER, date.fromisoformat),
    "opened": _Order(JobRow.opened_at, lambda job: job.opened_at, datetime.fromisoformat),
    "unit": _Order(JobRow.unit, lambda job: job.unit, str),
}


def list_jobs(
    session: Session, sought: Sought, now: datetime, limit: int = 50, after: str | None = None, sort: Sort = "touched"
) -> Page:
    """One page of jobs. Every word must stand in unit, serial, customer, complaint or sheet, or be the number.

    Raises RuleError for a cursor that is none.
    """
    order = _ORDERS[sort]
    wanted = [*_looked_for(sought), *_only(sought, now)]
    total, least = _count(session, wanted, capped=bool(sought.words))
    by = order.by.desc() if order.largest_first else order.by
    query = select(JobRow).where(*wanted).order_by(JobRow.released, by, JobRow.id)
    if after is not None:
        query = query.where(_behind(after, order))
    found = list(session.scalars(query.limit(limit + 1)))
    following = _cursor(found[limit - 1], order) if len(found) > limit else None
    return Page(found[:limit], following, total, least)


def count_open(session: Session, sought: Sought, now: datetime) -> dict[str, int]:
    """How many open jobs each filter leaves of those that are looked for: all of them as ``open``, then by the name of the filter."""
    filters = {name: and_(*_only(replace(sought, only=name), now)) for name in get_args(Only)}
    columns = [func.count().filter(condition).label(name) for name, condition in filters.items()]
    looked_for = _looked_for(replace(sought, which="open"))
    row = session.execute(select(func.count().label("open"), *columns).select_from(JobRow).where(*looked_for)).one()
    return dict(row._mapping)


def _count(session: Session, wanted: Sequence[ColumnElement[bool]], *, capped: bool) -> tuple[int, bool]:
    """How many there are, and whether that is only the least: words that fit half the shop are not counted to the end."""
    counted = select(JobRow.id).where(*wanted)
    if not capped:
        return session.scalar(select(func.count()).select_from(JobRow).where(*wanted)) or 0, False
    total = session.scalar(select(func.count()).select_from(counted.limit(MOST_COUNTED + 1).subquery())) or 0
    return min(total, MOST_COUNTED), total > MOST_COUNTED


def _looked_for(sought: Sought) -> list[ColumnElement[bool]]:
    wanted = [*_state(sought.which), *(_holds(word) for word in sought.words.split())]
    if sought.stage:
        wanted.append(JobRow.stage == sought.stage)
    if sought.family:
        wanted.append(JobRow.family == sought.family)
    if sought.who:
        wanted.append(JobRow.touched_by == sought.who)
    return wanted


def _only(sought: Sought, now: datetime) -> list[ColumnElement[bool]]:
    if sought.only is None:
        return []
    day = now.date()
    kept: dict[Only, ColumnElement[bool]] = {
        "mine": JobRow.touched_by == sought.me,
        "parts": JobRow.waits == "part",
        # A timer that is out has no time any more: it is no waiting.
        "timer": JobRow.timer_until > now,
        "to_sign": JobRow.waits == "signature",
        "overdue": JobRow.promised < day,
        "week": JobRow.promised.between(day, day + timedelta(days=7)),
    }
    return [JobRow.released.is_(False), kept[sought.only]]


def short_jobs(session: Session) -> list[JobRow]:
    """Open jobs that something is missing for, the oldest first."""
    return list(session.scalars(select(JobRow).where(JobRow.short != []).order_by(JobRow.number)))


def _state(which: Which) -> list[ColumnElement[bool]]:
    return [] if which == "all" else [JobRow.released.is_(which == "released")]


def _holds(word: str) -> ColumnElement[bool]:
    if not any(char.isalnum() for char in word):
        # Signs alone name no job, and no index finds them.
        return false()
    # Not icontains: its lower() would go past the trigram index.
    within: list[ColumnElement[bool]] = [JobRow.words.ilike(f"%{_literal(word)}%")]
    if (plain := squeezed(word)) != word:
        within.append(JobRow.words.ilike(f"%{_literal(plain)}%"))
    if word.isascii() and word.isdigit() and len(word) < 10:
        within.append(JobRow.number == int(word))
    return or_(*within)


def words_of_job(job: JobRow, sheet_name: str) -> str:
    """What a search looks at: what the list shows of a job, the name of its sheet, and its serial without the signs in it."""
    plain = squeezed(job.serial)
    serial = job.serial if plain == job.serial else f"{job.serial} {plain}"
    return " ".join((job.unit, serial, job.customer, job.complaint, job.sheet_key, sheet_name))


def squeezed(word: str) -> str:
    """A serial without what stands between its letters and figures: FN-0416 is found as FN0416."""
    return _SIGNS.sub("", word)


def _literal(word: str) -> str:
    """A word as it is, with nothing in it that stands for something else."""
    return word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")


def _cursor(job: JobRow, order: _Order) -> str:
    value = order.of(job)
    text = json.dumps([job.released, value if isinstance(value, str) else value.isoformat(), str(job.id)])
    return base64.urlsafe_b64encode(text.encode()).decode()


def _behind(cursor: str, order: _Order) -> ColumnElement[bool]:
    try:
        released, written, key = json.loads(base64.urlsafe_b64decode(cursor.encode()))
        value, job_id = order.read(written), UUID(key)
    except (ValueError, TypeError, AttributeError, binascii.Error):
        raise fault("after", "this is not a place in the list", "the value of next from the page before") from None
    same = JobRow.released.is_(bool(released))
    further_on = order.by < value if order.largest_first else order.by > value
    further = and_(same, or_(further_on, and_(order.by == value, JobRow.id > job_id)))
    return further if released else or_(JobRow.released.is_(True), further)
