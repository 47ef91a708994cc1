"""Jobs and their logs: append under a lock, seal, keep the summary in the same transaction."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any
from uuid import UUID

from pydantic import TypeAdapter
from sqlalchemy import ForeignKey, ForeignKeyConstraint, Identity, UniqueConstraint, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.buildsheets import BuildSheet
from ironkettle.core.errors import RefusedError
from ironkettle.core.jobs import (
    FIRST_LINK,
    Author,
    Bench,
    BrokenLink,
    Entry,
    Payload,
    Sealed,
    check_chain,
    check_entry,
    job_state,
    link_of,
    next_stage,
    stage_reports,
)
from ironkettle.store.base import Base
from ironkettle.store.sheets import load_sheet

_PAYLOAD: TypeAdapter[Payload] = TypeAdapter(Payload)


class JobRow(Base):
    """Summary columns follow the log; the log is the truth."""

    __tablename__ = "jobs"
    __table_args__ = (
        ForeignKeyConstraint(["sheet_key", "sheet_version"], ["sheets.key", "sheets.version"]),
        UniqueConstraint("number"),
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
    stages_done: Mapped[int] = mapped_column(default=0)
    entry_count: Mapped[int] = mapped_column(default=0)
    head: Mapped[str] = mapped_column(default=FIRST_LINK)
    opened_at: Mapped[datetime]
    touched_at: Mapped[datetime] = mapped_column(index=True)
    touched_by: Mapped[str] = mapped_column(default="")


class EntryRow(Base):
    """One entry; the table takes no update and no delete (a trigger refuses them)."""

    __tablename__ = "entries"
    __table_args__ = (UniqueConstraint("job_id", "seq"),)

    id: Mapped[UUID] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"))
    seq: Mapped[int]
    kind: Mapped[str]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    bench_time: Mapped[datetime]
    server_time: Mapped[datetime]
    payload: Mapped[dict[str, Any]]
    previous: Mapped[str]
    hash: Mapped[str]

    def entry(self) -> Entry:
        payload = _PAYLOAD.validate_python(self.payload)
        return Entry(
            id=self.id,
            seq=self.seq,
            who=self.who,
            bench_time=self.bench_time,
            server_time=self.server_time,
            payload=payload,
        )


@dataclass(frozen=True, slots=True)
class NewEntry:
    """An entry as a client sends it: its own id, its own clock."""

    id: UUID
    bench_time: datetime
    payload: Payload


def list_jobs(session: Session) -> list[JobRow]:
    """All jobs, those still open first, the last touched on top."""
    return list(session.scalars(select(JobRow).order_by(JobRow.released, JobRow.touched_at.desc())))


def find_job(session: Session, job_id: UUID) -> JobRow | None:
    return session.get(JobRow, job_id)


def sheet_of(session: Session, job: JobRow) -> BuildSheet:
    """The sheet version the job was opened on."""
    sheet = load_sheet(session, job.sheet_key, job.sheet_version)
    if sheet is None:
        raise RefusedError("sheet-missing", f"build sheet {job.sheet_key} version {job.sheet_version} is not there")
    return sheet


def log_rows(session: Session, job_id: UUID, after: int = 0) -> list[EntryRow]:
    query = select(EntryRow).where(EntryRow.job_id == job_id, EntryRow.seq > after).order_by(EntryRow.seq)
    return list(session.scalars(query))


def log_of(session: Session, job_id: UUID) -> list[Entry]:
    return [row.entry() for row in log_rows(session, job_id)]


def open_job(session: Session, job_id: UUID, sheet: BuildSheet, now: datetime) -> JobRow:
    """A new job on a sheet; the same id again gives the job that is there."""
    present = session.get(JobRow, job_id)
    if present is not None:
        if (present.sheet_key, present.sheet_version) != (sheet.key, sheet.version):
            raise RefusedError("job-exists", "a job with this id is open on another build sheet")
        return present
    job = JobRow(id=job_id, sheet_key=sheet.key, sheet_version=sheet.version, opened_at=now, touched_at=now)
    session.add(job)
    session.flush()
    return job


def append_entry(
    session: Session, job_id: UUID, new: NewEntry, author: Author, bench: Bench, now: datetime
) -> EntryRow:
    """Add one entry to a job's log under a lock on the job; the server sets the order.

    A repeated id with the same contents gives the entry that is there and changes nothing.
    Raises RuleError or RefusedError when the rules do not allow it; nothing is written then.
    """
    job = session.get_one(JobRow, job_id, with_for_update=True, populate_existing=True)
    present = session.get(EntryRow, new.id)
    if present is not None:
        same = present.job_id == job_id and present.who == author.key
        if not same or present.entry().payload != new.payload:
            raise RefusedError("entry-exists", "an entry with this id exists with other contents")
        return present
    sheet = sheet_of(session, job)
    log = log_of(session, job_id)
    check_entry(sheet, log, new.payload, author, bench)
    entry = Entry(
        id=new.id,
        seq=job.entry_count + 1,
        who=author.key,
        bench_time=new.bench_time.astimezone(UTC),
        server_time=now.astimezone(UTC),
        payload=new.payload,
    )
    row = EntryRow(
        id=entry.id,
        job_id=job_id,
        seq=entry.seq,
        kind=new.payload.kind,
        who=entry.who,
        bench_time=entry.bench_time,
        server_time=entry.server_time,
        payload=new.payload.model_dump(mode="json"),
        previous=job.head,
        hash=link_of(job.head, job_id, entry),
    )
    session.add(row)
    _summarise(job, sheet, [*log, entry], author, bench, row.hash, now)
    session.flush()
    return row


def _summarise(
    job: JobRow, sheet: BuildSheet, log: list[Entry], author: Author, bench: Bench, head: str, now: datetime
) -> None:
    state = job_state(sheet, log)
    reports = stage_reports(sheet, state, bench.fluids)
    stage = next_stage(reports)
    needs = next((report.needs for report in reports if report.stage is stage), ())
    if state.intake is not None:
        intake = state.intake.value
        job.unit, job.serial, job.customer, job.complaint = (
            intake.unit,
            intake.serial,
            intake.customer,
            intake.complaint,
        )
    job.stage, job.next_need = stage.value, needs[0].text if needs else ""
    job.released = state.released is not None
    job.stages_done = sum(report.status != "open" for report in reports)
    job.entry_count, job.head = len(log), head
    job.touched_at, job.touched_by = now, author.name


def check_log(session: Session, job: JobRow) -> list[BrokenLink]:
    """Every place where the job's chain does not hold."""
    sealed = [Sealed(row.entry(), row.previous, row.hash) for row in log_rows(session, job.id)]
    return check_chain(job.id, sealed, job.head)
