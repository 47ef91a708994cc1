"""The bench list: jobs by state and words, a page at a time, those still open first, the last touched on top."""

from __future__ import annotations

import base64
import binascii
import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from sqlalchemy import ColumnElement, and_, false, func, not_, or_, select
from sqlalchemy.orm import Session

from ironkettle.core.base.errors import fault
from ironkettle.store.jobs.rows import JobRow

Which = Literal["open", "released", "all"]
Group = Literal["today", "waiting", "rest"]
Promised = Literal["past", "week"]
MOST_COUNTED = 1000


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
    """Which jobs are wanted. ``group``: today's (promised for today or before, or worked on today), those that wait for a
    timer or a part, or the rest of the open ones. ``due``: promised and past, or within a week.
    """

    which: Which = "all"
    words: str = ""
    group: Group | None = None
    stage: str = ""
    family: str = ""
    who: str = ""
    due: Promised | None = None


def list_jobs(session: Session, sought: Sought, now: datetime, limit: int = 50, after: str | None = None) -> Page:
    """One page of jobs. Every word must stand in unit, serial, customer, complaint or sheet, or be the number.

    Raises RuleError for a cursor that is none.
    """
    wanted = [*_state(sought.which), *(_holds(word) for word in sought.words.split()), *_filters(sought, now)]
    total, least = _count(session, wanted, capped=bool(sought.words))
    query = select(JobRow).where(*wanted).order_by(JobRow.released, JobRow.touched_at.desc(), JobRow.id)
    if after is not None:
        query = query.where(_behind(after))
    found = list(session.scalars(query.limit(limit + 1)))
    following = _cursor(found[limit - 1]) if len(found) > limit else None
    return Page(found[:limit], following, total, least)


def _count(session: Session, wanted: Sequence[ColumnElement[bool]], *, capped: bool) -> tuple[int, bool]:
    """How many there are, and whether that is only the least: words that fit half the shop are not counted to the end."""
    counted = select(JobRow.id).where(*wanted)
    if not capped:
        return session.scalar(select(func.count()).select_from(JobRow).where(*wanted)) or 0, False
    total = session.scalar(select(func.count()).select_from(counted.limit(MOST_COUNTED + 1).subquery())) or 0
    return min(total, MOST_COUNTED), total > MOST_COUNTED


def _filters(sought: Sought, now: datetime) -> Iterator[ColumnElement[bool]]:
    if sought.stage:
        yield JobRow.stage == sought.stage
    if sought.family:
        yield JobRow.family == sought.family
    if sought.who:
        yield JobRow.touched_by == sought.who
    if sought.due == "past":
        yield and_(JobRow.released.is_(False), JobRow.promised < now.date())
    elif sought.due == "week":
        yield and_(JobRow.released.is_(False), JobRow.promised <= now.date() + timedelta(days=7))
    if sought.group is None:
        return
    yield JobRow.released.is_(False)
    waits = or_(JobRow.waits == "part", and_(JobRow.waits == "timer", JobRow.timer_until > now))
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    if sought.group == "waiting":
        yield waits
        return
    # A timer that is out has no time any more: it is no waiting.
    yield not_(func.coalesce(waits, False))
    if sought.group == "today":
        yield or_(JobRow.touched_at >= midnight, JobRow.promised <= now.date())
    else:
        yield JobRow.touched_at < midnight
        yield or_(JobRow.promised.is_(None), JobRow.promised > now.date())


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
    within = JobRow.words.ilike(f"%{_literal(word)}%")
    number = word.isascii() and word.isdigit() and len(word) < 10
    return or_(JobRow.number == int(word), within) if number else within


def _literal(word: str) -> str:
    """A word as it is, with nothing in it that stands for something else."""
    return word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")


def _cursor(job: JobRow) -> str:
    text = json.dumps([job.released, job.touched_at.isoformat(), str(job.id)])
    return base64.urlsafe_b64encode(text.encode()).decode()


def _behind(cursor: str) -> ColumnElement[bool]:
    try:
        released, touched, key = json.loads(base64.urlsafe_b64decode(cursor.encode()))
        moment, job_id = datetime.fromisoformat(touched), UUID(key)
    except (ValueError, TypeError, AttributeError, binascii.Error):
        raise fault("after", "this is not a place in the list", "the value of next from the page before") from None
    same = JobRow.released.is_(bool(released))
    later = or_(JobRow.touched_at < moment, and_(JobRow.touched_at == moment, JobRow.id > job_id))
    further = and_(same, later)
    return further if released else or_(JobRow.released.is_(True), further)
