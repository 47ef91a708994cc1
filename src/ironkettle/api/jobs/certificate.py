"""The papers of a job: its certificate, the customer's report, its label, and the check that anybody may ask for."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Path, Query, Response
from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, JobShop
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, NOT_THERE
from ironkettle.api.jobs.named import Reader, case_for, job_of
from ironkettle.api.policies import Caller
from ironkettle.core.base.dates import shown_day
from ironkettle.core.jobs import compose_statement, link_of, tasks_of
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.kinds.photo import PHOTOS
from ironkettle.core.jobs.kinds.release import release_of
from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.reports.certified import check_text
from ironkettle.reports.customer import CustomerReport, customer_mail, customer_report
from ironkettle.reports.label import JobLabel, job_label_svg
from ironkettle.store.jobs.cases import run_samples
from ironkettle.store.jobs.photos import find_photo
from ironkettle.store.jobs.rows import closing_row, log_rows, signed_row
from ironkettle.store.shop.letterhead import letterhead_of
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.tables import Shop

if TYPE_CHECKING:
    from ironkettle.reports.certificate import Certified

router = APIRouter(tags=["jobs"], responses=ERROR_RESPONSES)
_JOB = "/api/jobs/{job_id}"


def _certified(session: Session, job_id: UUID, shop: Shop, caller: Caller) -> Certified:
    # Late, because the PDF library is heavy and a start does not need it.
    from ironkettle.reports.certificate import Certified

    job = job_of(session, job_id)
    case = case_for(session, job, shop, caller)
    row = closing_row(session, job, case.state)
    closing = None if row is None else row.read().entry
    chosen = [photo.value.photo for photo in case.state.book(PHOTOS).values() if photo.value.on_certificate]
    return Certified(
        number=job.number,
        head=job.head if row is None else row.hash,
        case=case,
        statement=(closing and closing.told) or compose_statement(case, tasks_of(case)),
        names=names_of(session),
        traces={key: run_samples(session, job_id, key) for key, run in case.state.runs.items() if run.count},
        pictures={str(key): photo.image for key in chosen if (photo := find_photo(session, key)) is not None},
        log=[(entry.payload, entry.mark) for entry in (row.read().entry for row in log_rows(session, job.id))],
        letterhead=letterhead_of(session) if closing is None else closing.letterhead or Letterhead(),
    )


@router.get(
    f"{_JOB}/certificate.pdf",
    summary="The certificate; marked as a draft before release",
    responses=NOT_THERE | CONFLICT,
)
def certificate(job_id: UUID, session: DbSession, caller: Reader, shop: JobShop) -> Response:
    from ironkettle.reports.certificate import certificate_pdf

    report = _certified(session, job_id, shop, caller)
    name = f"certificate-{report.number}.pdf"
    return Response(
        certificate_pdf(report),
        media_type="application/pdf",
        headers={"Content-Disposition": f'inline; filename="{name}"'},
    )


@router.get(
    f"{_JOB}/report.json", summary="The certificate's page for the customer as data", responses=NOT_THERE | CONFLICT
)
def report_data(job_id: UUID, session: DbSession, caller: Reader, shop: JobShop) -> CustomerReport:
    return customer_report(_certified(session, job_id, shop, caller))


@router.get(
    f"{_JOB}/report.eml",
    summary="An e-mail to the customer, not sent yet, with the certificate and its data",
    responses=NOT_THERE | CONFLICT,
)
def report_mail(job_id: UUID, session: DbSession, caller: Reader, shop: JobShop) -> Response:
    from ironkettle.reports.certificate import certificate_pdf

    report = _certified(session, job_id, shop, caller)
    name = f"report-{report.number}.eml"
    return Response(
        customer_mail(report, certificate_pdf(report)),
        media_type="message/rfc822",
        headers={"Content-Disposition": f'attachment; filename="{name}"'},
    )


@router.get(f"{_JOB}/label.svg", summary="A label for the unit, with a QR code of its job", responses=NOT_THERE)
def label(job_id: UUID, session: DbSession, caller: Reader, shop: JobShop) -> Response:
    job = job_of(session, job_id)
    state = case_for(session, job, shop, caller).state
    closed, released, row = closed_by(state), release_of(state), closing_row(session, job, state)
    letterhead = letterhead_of(session)
    said = JobLabel(
        number=job.number,
        unit=job.unit,
        serial=job.serial,
        day="" if closed is None else shown_day(closed.mark.when.astimezone(letterhead.clock).date()),
        due=(released.value.next_service or "") if released else "",
        check=check_text(letterhead, job.number, job.head if row is None else row.hash),
    )
    return Response(job_label_svg(said), media_type="image/svg+xml")


class CertificateCheckOut(BaseModel):
    """``state``: whether such a certificate was signed here, and whether it still stands."""

    state: Literal["stands", "reopened", "unknown"]
    words: str
    signed_by: str | None
    signed_at: datetime | None


@router.get("/api/certificates/{number}", summary="Whether a certificate was signed here and still stands")
def check(
    number: Annotated[int, Path(ge=1, le=2**31 - 1)],
    record: Annotated[str, Query(pattern="^[0-9a-f]{16,64}$", min_length=16, max_length=64)],
    session: DbSession,
) -> CertificateCheckOut:
    found = signed_row(session, number, record)
    if found is None:
        text = f"No certificate of job {number} with this record was signed here."
        return CertificateCheckOut(state="unknown", words=text, signed_by=None, signed_at=None)
    job, row = found
    mark = row.read().entry.mark
    stands = job.head == row.hash and link_of(row.sealed) == row.hash
    words = (
        "This certificate was signed here, and the job has not been changed since."
        if stands
        else "This certificate was signed here, but the job was changed since: ask the shop for the newest one."
    )
    return CertificateCheckOut(
        state="stands" if stands else "reopened",
        words=words,
        signed_by=mark.author(names_of(session)),
        signed_at=mark.when,
    )
