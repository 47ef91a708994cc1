"""What is known of the traces that runs of this shop sealed, so that one trace proves one test."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from sqlalchemy import ForeignKey, Index, func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.machine.pressure import Sample, piece_marks, whole_mark
from ironkettle.store.base import Base
from ironkettle.store.jobs.rows import JobRow

# A trace is another one's when so large a share of its pieces is.
_SAME_SHARE = 0.3
# A trace that was typed or sent by a script is known by the whole of it: a few readings may well be alike.
_BY_PIECES = frozenset({"csv", "stand"})


class TraceMarkRow(Base):
    """A mark of a trace that a run sealed."""

    __tablename__ = "trace_marks"
    __table_args__ = (Index("ix_trace_marks_run", "run"),)

    mark: Mapped[str] = mapped_column(primary_key=True)
    run: Mapped[str] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"))
    test: Mapped[str]
    when: Mapped[str]


def marks_of(samples: Sequence[Sample], source: str) -> tuple[str, ...]:
    """The marks a trace is kept and looked for by."""
    return (whole_mark(samples), *(piece_marks(samples) if source in _BY_PIECES else ()))


def keep_marks(session: Session, job: JobRow, run: str, test: str, when: str, marks: Sequence[str]) -> None:
    """Keep the marks of a run; kept twice they are there once."""
    rows = [{"mark": mark, "run": run, "job_id": job.id, "test": test, "when": when} for mark in marks]
    if rows:
        session.execute(insert(TraceMarkRow).on_conflict_do_nothing(), rows)


def used_by(session: Session, job: JobRow, run: str, test: str, when: str, marks: Sequence[str]) -> int | None:
    """The number of the job whose run sealed this trace for another test; None where no run did.

    The same test of the same job may be told again by it, when the run before was a slip.
    """
    other = (TraceMarkRow.run != run) & ~(
        (TraceMarkRow.job_id == job.id) & (TraceMarkRow.test == test) & (TraceMarkRow.when == when)
    )
    whole, pieces = marks[:1], marks[1:]
    query = select(JobRow.number).join(TraceMarkRow, TraceMarkRow.job_id == JobRow.id).where(other)
    found = session.scalars(query.where(TraceMarkRow.mark.in_(whole)).limit(1)).one_or_none()
    if found is not None or not pieces:
        return found
    most = (
        select(JobRow.number)
        .join(TraceMarkRow, TraceMarkRow.job_id == JobRow.id)
        .where(other, TraceMarkRow.mark.in_(pieces))
        .group_by(TraceMarkRow.run, JobRow.number)
        .having(func.count() >= max(1, _SAME_SHARE * len(pieces)))
        .order_by(func.count().desc())
        .limit(1)
    )
    return session.scalars(most).one_or_none()
