"""Jobs as rows: their summaries, their sealed entries, snapshots and samples."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any
from uuid import UUID

from sqlalchemy import (
    ForeignKey,
    ForeignKeyConstraint,
    Identity,
    Index,
    Select,
    SmallInteger,
    Text,
    UniqueConstraint,
    select,
    text,
)
from sqlalchemy.exc import DataError
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.base.errors import DamagedEntryError, RefusedError
from ironkettle.core.jobs import FIRST_LINK, Opened, Sealed, State, read_sealed
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.store.base import Base
from ironkettle.store.sheets.rows import SheetRow, load_sheet


class JobRow(Base):
    """Summary columns follow the log; the log is the truth. ``settings``: what the shop's rules were on the day it was opened,
    where they differ from the shipped ones."""

    __tablename__ = "jobs"
    __table_args__ = (
        ForeignKeyConstraint(["sheet_key", "sheet_version"], ["sheets.key", "sheets.version"]),
        UniqueConstraint("number"),
        Index("ix_jobs_serial", "serial"),
        Index("ix_jobs_released", "released"),
        Index("ix_jobs_words", "words", postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"}),
        Index("ix_jobs_open_stage", "stage", postgresql_where=text("released IS false")),
        Index("ix_jobs_open_promised", "promised", postgresql_where=text("released IS false")),
        Index(
            "ix_jobs_open",
            text("touched_at DESC"),
            "id",
            postgresql_where=text("released IS false"),
            postgresql_include=["waits", "timer_until", "promised"],
        ),
        Index("ix_jobs_released_touched_at", "released", text("touched_at DESC"), "id"),
    )

    id: Mapped[UUID] = mapped_column(primary_key=True)
    number: Mapped[int] = mapped_column(Identity(start=1001))
    sheet_key: Mapped[str]
    sheet_version: Mapped[int]
    unit: Mapped[str] = mapped_column(default="")
    serial: Mapped[str] = mapped_column(default="")
    customer: Mapped[str] = mapped_column(default="")
    complaint: Mapped[str] = mapped_column(default="")
    stage: Mapped[str] = mapped_column(default="intake")
    next_need: Mapped[str] = mapped_column(default="")
    released: Mapped[bool] = mapped_column(default=False)
    tasks_done: Mapped[int] = mapped_column(default=0)
    tasks_total: Mapped[int] = mapped_column(default=0)
    timer_until: Mapped[datetime | None] = mapped_column(default=None)
    timer_for: Mapped[str] = mapped_column(default="")
    ended: Mapped[str] = mapped_column(default="")
    copied_from: Mapped[UUID | None] = mapped_column(ForeignKey("jobs.id"), default=None)
    settings: Mapped[dict[str, Any]] = mapped_column(default=dict)
    short: Mapped[list[dict[str, Any]]] = mapped_column(default=list)
    causes: Mapped[list[dict[str, Any]]] = mapped_column(default=list)
    unit_id: Mapped[UUID | None] = mapped_column(ForeignKey("units.id"), index=True, default=None)
    # The interval whose quick service it is; empty for a full job.
    quick_service: Mapped[str] = mapped_column(default="")
    family: Mapped[str] = mapped_column(index=True, default="")
    # What nobody can do anything about now: a timer, a part that has to come; empty where there is work.
    waits: Mapped[str] = mapped_column(default="")
    promised: Mapped[date | None] = mapped_column(default=None)
    # What a search looks at, in one text.
    words: Mapped[str] = mapped_column(Text, default="")
    entry_count: Mapped[int] = mapped_column(default=0)
    head: Mapped[str] = mapped_column(default=FIRST_LINK)
    opened_at: Mapped[datetime]
    touched_at: Mapped[datetime] = mapped_column(index=True)
    touched_by: Mapped[str] = mapped_column(index=True, default="")


class EntryRow(Base):
    """One entry; the table takes no update and no delete (a trigger refuses them).

    ``sealed`` is the text that was hashed and the only truth; the columns beside it are for finding.
    """

    __tablename__ = "entries"
    __table_args__ = (UniqueConstraint("job_id", "seq"),)

    id: Mapped[UUID] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"))
    seq: Mapped[int]
    kind: Mapped[str]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    bench_time: Mapped[datetime]
    server_time: Mapped[datetime]
    sealed: Mapped[str]
    seal_format: Mapped[int] = mapped_column(SmallInteger)
    hash: Mapped[str]

    def read(self, kits: dict[str, str] | None = None) -> Opened:
        """What stands in the sealed text. Raises DamagedLogError when it cannot be read."""
        try:
            return read_sealed(self.sealed, self.seal_format, kits)
        except DamagedEntryError as error:
            raise DamagedLogError(self.job_id, self.seq, str(error)) from None

    def link(self) -> Sealed:
        columns = {name: getattr(self, name) for name in ("id", "seq", "kind", "who", "bench_time", "server_time")}
        return Sealed(self.sealed, self.seal_format, self.hash, self.seq, columns)


class SnapshotRow(Base):
    """The state of a job after one of its last entries, as its log folded to then; ``head`` is that entry's link."""

    __tablename__ = "snapshots"

    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"), primary_key=True)
    format: Mapped[int] = mapped_column(SmallInteger)
    head: Mapped[str]
    state: Mapped[dict[str, Any]] = mapped_column(deferred=True)


class SampleRow(Base):
    """A chunk of samples of a run; the entry it came with seals its text. Append-only as the log is."""

    __tablename__ = "samples"

    entry_id: Mapped[UUID] = mapped_column(ForeignKey("entries.id"), primary_key=True)
    place: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"))
    run: Mapped[str]
    text: Mapped[str] = mapped_column(Text)

    __table_args__ = (Index("ix_samples_job_id_run", "job_id", "run"),)


class DamagedLogError(Exception):
    """A job whose log cannot be read: which, and where."""

    def __init__(self, job: UUID, seq: int | None, what: str) -> None:
        self.job, self.seq = job, seq
        super().__init__(
            f"{'an entry' if seq is None else f'entry {seq}'} {what}. Other jobs are not affected; nothing was changed. Bring this one back from a backup."
        )


def find_job(session: Session, job_id: UUID) -> JobRow | None:
    return session.get(JobRow, job_id)


def job_numbered(session: Session, number: int) -> JobRow | None:
    return session.scalars(select(JobRow).where(JobRow.number == number)).one_or_none()


def earlier_jobs(session: Session, job: JobRow, limit: int = 12) -> list[JobRow]:
    """Jobs taken in before this one on the same unit, the newest first."""
    if job.unit_id is None:
        return []
    query = select(JobRow).where(JobRow.unit_id == job.unit_id, JobRow.number < job.number)
    return list(session.scalars(query.order_by(JobRow.number.desc()).limit(limit)))


def sheet_of(session: Session, job: JobRow) -> Sheet:
    """The sheet version the job was opened on."""
    sheet = load_sheet(session, job.sheet_key, job.sheet_version)
    if sheet is None:
        raise RefusedError("sheet-missing", f"build sheet {job.sheet_key} version {job.sheet_version} is not there")
    return sheet


def log_rows(session: Session, job_id: UUID, after: int = 0) -> list[EntryRow]:
    query = select(EntryRow).where(EntryRow.job_id == job_id, EntryRow.seq > after).order_by(EntryRow.seq)
    return _read_rows(session, job_id, query)


def closing_row(session: Session, job: JobRow, state: State) -> EntryRow | None:
    """The entry that closed a job, with what was stated then; None while it is open."""
    closed = closed_by(state)
    return None if closed is None else session.get(EntryRow, closed.mark.entry)


_CLOSING = ("released", "job_ended")


def signed_row(session: Session, number: int, record: str) -> tuple[JobRow, EntryRow] | None:
    """The signed end of a job whose hash begins so, even of one opened again since; None where there is none.

    ``record``: the first sixteen digits of the hash, or more [hex].
    """
    query = (
        select(JobRow, EntryRow)
        .join(EntryRow, EntryRow.job_id == JobRow.id)
        .where(JobRow.number == number, EntryRow.kind.in_(_CLOSING), EntryRow.hash.startswith(record))
    )
    found = session.execute(query).first()
    return None if found is None else (found[0], found[1])


def _read_rows(session: Session, job_id: UUID, query: Select[EntryRow]) -> list[EntryRow]:
    try:
        return list(session.scalars(query))
    except DataError as error:
        raise DamagedLogError(job_id, None, f"cannot be read: {str(error.orig).splitlines()[0]}") from None


@dataclass(frozen=True, slots=True)
class Page:
    """Some entries of a log: after one and before another, the first of them or the last, at most so many."""

    after: int
    before: int | None
    limit: int
    last: bool = False


def log_page(session: Session, job_id: UUID, page: Page) -> list[EntryRow]:
    """The entries of a page, in order."""
    query = select(EntryRow).where(EntryRow.job_id == job_id, EntryRow.seq > page.after)
    if page.before is not None:
        query = query.where(EntryRow.seq < page.before)
    query = query.order_by(EntryRow.seq.desc() if page.last else EntryRow.seq).limit(page.limit)
    return sorted(_read_rows(session, job_id, query), key=lambda row: row.seq)


def open_job(session: Session, job_id: UUID, sheet: Sheet, settings: ShopSettings, now: datetime) -> JobRow:
    """A new job on a sheet, under the shop settings of the day; the same id again gives the job that is there.

    Raises RefusedError for an id that is taken, and for a sheet that is used no more.
    """
    present = session.get(JobRow, job_id)
    if present is not None:
        if (present.sheet_key, present.sheet_version) != (sheet.key, sheet.version):
            raise RefusedError("job-exists", "a job with this id is open on another build sheet")
        return present
    kept = session.get(SheetRow, (sheet.key, sheet.version))
    if kept is not None and not kept.active:
        message = f"{sheet.name}, version {sheet.version}, was withdrawn: choose another sheet, or have the lead put it back under Workshop"
        raise RefusedError("sheet-ended", message)
    job = JobRow(id=job_id, sheet_key=sheet.key, sheet_version=sheet.version, opened_at=now, touched_at=now)
    job.settings = dict(settings.own)
    job.family = sheet.family
    session.add(job)
    session.flush()
    return job
