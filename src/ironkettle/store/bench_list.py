"""The bench list: jobs by state and words, a page at a time, those still open first, the last touched on top."""

from __future__ import annotations

import base64
import binascii
import json
from dataclasses import dataclass
from datetime import datetime
from typing import Literal
from uuid import UUID

from sqlalchemy import ColumnElement, String, and_, cast, func, or_, select
from sqlalchemy.orm import Session

from ironkettle.core.errors import fault
from ironkettle.store.jobs import JobRow

Which = Literal["open", "released", "all"]


@dataclass(frozen=True, slots=True)
class Page:
    """``next``: what to ask the page after this one with; None at the end. ``total``: of all pages."""

    jobs: list[JobRow]
    next: str | None
    total: int


def list_jobs(
    session: Session, which: Which = "all", words: str = "", limit: int = 50, after: str | None = None
) -> Page:
    """One page of jobs. Every word must stand in unit, serial, customer, complaint, sheet or number.

    Raises RuleError for a cursor that is none.
    """
    wanted = [*_state(which), *(_holds(word) for word in words.split())]
    total = session.scalar(select(func.count()).select_from(JobRow).where(*wanted)) or 0
    query = select(JobRow).where(*wanted).order_by(JobRow.released, JobRow.touched_at.desc(), JobRow.id)
    if after is not None:
        query = query.where(_behind(after))
    found = list(session.scalars(query.limit(limit + 1)))
    following = _cursor(found[limit - 1]) if len(found) > limit else None
    return Page(found[:limit], following, total)


def short_jobs(session: Session) -> list[JobRow]:
    """Open jobs that something is missing for, the oldest first."""
    return list(session.scalars(select(JobRow).where(JobRow.short != []).order_by(JobRow.number)))


def _state(which: Which) -> list[ColumnElement[bool]]:
    return [] if which == "all" else [JobRow.released.is_(which == "released")]


def _holds(word: str) -> ColumnElement[bool]:
    columns = (JobRow.unit, JobRow.serial, JobRow.customer, JobRow.complaint, JobRow.sheet_key)
    number = cast(JobRow.number, String) == word
    return or_(number, *(column.icontains(word, autoescape=True) for column in columns))


def _cursor(job: JobRow) -> str:
    text = json.dumps([job.released, job.touched_at.isoformat(), str(job.id)])
    return base64.urlsafe_b64encode(text.encode()).decode()


def _behind(cursor: str) -> ColumnElement[bool]:
    try:
        released, touched, key = json.loads(base64.urlsafe_b64decode(cursor.encode()))
        moment, job_id = datetime.fromisoformat(touched), UUID(key)
    except (ValueError, TypeError, AttributeError, binascii.Error):
        raise fault("after", "this is no place in the list", "what came as next") from None
    same = JobRow.released.is_(bool(released))
    later = or_(JobRow.touched_at < moment, and_(JobRow.touched_at == moment, JobRow.id > job_id))
    further = and_(same, later)
    return further if released else or_(JobRow.released.is_(True), further)
