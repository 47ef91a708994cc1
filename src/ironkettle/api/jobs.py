"""Jobs: the bench list, opening, the state, the log, appending, the seal, the certificate."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from fastapi import APIRouter, Query, Response
from pydantic import AwareDatetime, BaseModel, Field
from sqlalchemy.orm import Session

from ironkettle.api.deps import DbSession, author_of, bench, now
from ironkettle.api.job_view import JobSummary, JobView, job_view
from ironkettle.api.problems import CONFLICT, ERROR_RESPONSES, NOT_THERE, NotThereError
from ironkettle.api.schemas import Body, NameText
from ironkettle.api.sheets import find_sheet
from ironkettle.core.jobs import Payload
from ironkettle.core.jobs.entries import IntakeRecorded
from ironkettle.reports.certificate import certificate_pdf
from ironkettle.reports.label import label_svg
from ironkettle.store.jobs import (
    JobRow,
    NewEntry,
    append_entry,
    check_log,
    find_job,
    list_jobs,
    log_of,
    log_rows,
    open_job,
    sheet_of,
)
from ironkettle.store.people import all_people

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES)


class NewJobBody(Body):
    """Opens a job; ids come from the client, so sending it twice opens it once."""

    id: UUID
    entry_id: UUID
    sheet_key: NameText
    who: NameText
    bench_time: AwareDatetime
    intake: IntakeRecorded


class EntryBody(Body):
    id: UUID
    who: NameText
    bench_time: AwareDatetime
    payload: Payload


class EntryOut(BaseModel):
    """An entry as it stands in the log, with its seal."""

    id: UUID
    seq: int
    who: str
    bench_time: datetime
    server_time: datetime
    payload: dict[str, Any]
    previous: str
    hash: str


class BrokenLinkOut(BaseModel):
    seq: int
    reason: str


class SealOut(BaseModel):
    holds: bool
    entries: int
    head: str
    broken: list[BrokenLinkOut] = Field(default_factory=list)


def _job(session: Session, job_id: UUID) -> JobRow:
    job = find_job(session, job_id)
    if job is None:
        raise NotThereError("job", job_id)
    return job


@router.get("", summary="The jobs on the bench, open ones first")
def jobs(session: DbSession) -> list[JobSummary]:
    return [JobSummary.of(job) for job in list_jobs(session)]


@router.post("", summary="Open a job on a build sheet", responses=NOT_THERE | CONFLICT)
def open_new(body: NewJobBody, session: DbSession) -> JobView:
    author = author_of(session, body.who)
    sheet = find_sheet(session, body.sheet_key)
    job = open_job(session, body.id, sheet, now())
    append_entry(session, job.id, NewEntry(body.entry_id, body.bench_time, body.intake), author, bench(), now())
    return job_view(session, job)


@router.get("/{job_id}", summary="How a job stands", responses=NOT_THERE)
def job(job_id: UUID, session: DbSession) -> JobView:
    return job_view(session, _job(session, job_id))


@router.get("/{job_id}/log", summary="The log, all of it or what came after an entry", responses=NOT_THERE)
def log(job_id: UUID, session: DbSession, after: int = Query(default=0, ge=0, le=2_000_000_000)) -> list[EntryOut]:
    _job(session, job_id)
    return [
        EntryOut(**{name: getattr(row, name) for name in EntryOut.model_fields})
        for row in log_rows(session, job_id, after)
    ]


@router.post("/{job_id}/entries", summary="Append an entry", responses=NOT_THERE | CONFLICT)
def append(job_id: UUID, body: EntryBody, session: DbSession) -> JobView:
    author = author_of(session, body.who)
    job = _job(session, job_id)
    append_entry(session, job_id, NewEntry(body.id, body.bench_time, body.payload), author, bench(), now())
    return job_view(session, job)


@router.get("/{job_id}/seal", summary="Check the hash chain of the log", responses=NOT_THERE)
def seal(job_id: UUID, session: DbSession) -> SealOut:
    job = _job(session, job_id)
    broken = check_log(session, job)
    return SealOut(
        holds=not broken,
        entries=job.entry_count,
        head=job.head,
        broken=[BrokenLinkOut(seq=link.seq, reason=link.reason) for link in broken],
    )


@router.get(
    "/{job_id}/certificate.pdf", summary="The certificate; marked as a draft before release", responses=NOT_THERE
)
def certificate(job_id: UUID, session: DbSession) -> Response:
    job = _job(session, job_id)
    names = {person.key: person.name for person in all_people(session)}
    content = certificate_pdf(job.number, job.head, sheet_of(session, job), log_of(session, job_id), bench(), names)
    name = f"certificate-{job.number}.pdf"
    return Response(
        content, media_type="application/pdf", headers={"Content-Disposition": f'inline; filename="{name}"'}
    )


@router.get("/{job_id}/label.svg", summary="A label with the job's number and seal as a QR code", responses=NOT_THERE)
def label(job_id: UUID, session: DbSession) -> Response:
    job = _job(session, job_id)
    return Response(label_svg(job.number, job.serial, job.head), media_type="image/svg+xml")
