"""Jobs: the bench list, opening, how one stands, its drawing."""

from __future__ import annotations

from hashlib import sha256
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Header, Query, Response
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, JobShop, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE
from ironkettle.api.base.schemas import NameText
from ironkettle.api.jobs.found_view import EarlierOut, earlier_out
from ironkettle.api.jobs.named import Reader, Sent, case_for, job_of, named_job, refuse_another_persons
from ironkettle.api.jobs.view import (
    JobSummary,
    JobView,
    NamedOut,
    job_view,
)
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.api.sheets.routes import find_sheet, job_picture
from ironkettle.core.base.errors import fault
from ironkettle.core.base.text import Plain
from ironkettle.core.jobs import (
    STAGE_WORD,
    tasks_of,
)
from ironkettle.core.jobs.kinds.intake import IntakeRecorded
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.drawing import Picture
from ironkettle.store.jobs.bench_list import Only, Sort, Sought, Which, count_open, list_jobs
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.jobs.rows import open_job
from ironkettle.store.sheets.rows import latest_sheets
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.settings import settings_in_force
from ironkettle.store.shop.units import jobs_of_unit, units_of_serial

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)


Opener = Annotated[Caller, allow(JobPolicy.open)]


class NewJobBody(Sent):
    """Opens a job; ids come from the client, so sending it twice opens it once. The sheet's newest version, or one named.

    ``copied_from``: the job of a sister unit, whose sizes, answers and tools are proposed; nothing of it is recorded as done.
    """

    id: UUID
    entry_id: UUID
    sheet_key: NameText
    sheet_version: int | None = Field(default=None, ge=1, le=100_000)
    copied_from: UUID | None = None
    intake: IntakeRecorded


class BenchCounts(BaseModel):
    open: int
    mine: int
    parts: int
    timer: int
    to_sign: int
    overdue: int
    week: int


class JobsOut(BaseModel):
    """A page of jobs; ``next`` is what to ask the following page with, none at the end.

    ``total``: of all pages; ``least``: words find more than that. ``counts``: how many open jobs each filter would leave.
    """

    jobs: list[JobSummary]
    next: str | None
    total: int
    least: bool
    counts: BenchCounts


class JobChoicesOut(BaseModel):
    stages: list[NamedOut]
    families: list[str]
    people: list[str]


@router.get("", summary="The jobs on the bench, open ones first")
def jobs(
    session: DbSession,
    caller: Reader,
    state: Which = "all",
    q: Annotated[str, Query(max_length=200), Plain] = "",
    limit: Annotated[int, Query(ge=1, le=200)] = 50,
    after: Annotated[str | None, Query(max_length=400)] = None,
    only: Only | None = None,
    sort: Sort = "touched",
    stage: Annotated[str, Query(max_length=40), Plain] = "",
    family: Annotated[str, Query(max_length=200), Plain] = "",
    who: Annotated[str, Query(max_length=80), Plain] = "",
) -> JobsOut:
    """``only``: of the open ones those that you worked on last, that wait for a part, whose timer runs, that wait for a signature, that are
    promised and past, or promised within a week."""
    sought = Sought(state, q, only, stage, family, who, caller.author.name)
    page = list_jobs(session, sought, now(), limit, after, sort)
    listed = [JobSummary.of(job) for job in page.jobs]
    counts = BenchCounts(**count_open(session, sought, now()))
    return JobsOut(jobs=listed, next=page.next, total=page.total, least=page.least, counts=counts)


@router.get("/choices", summary="What the bench list can be filtered by")
def choices(session: DbSession, caller: Reader) -> JobChoicesOut:
    families = sorted({row.family for row in latest_sheets(session)})
    stages = [NamedOut(key=stage.value, name=word[0].upper() + word[1:]) for stage, word in STAGE_WORD.items()]
    return JobChoicesOut(stages=stages, families=families, people=sorted(names_of(session).values()))


# So many of a unit's last repairs are told when it is taken in.
LAST_JOBS = 3


class KnownUnitOut(BaseModel):
    sheet_key: str
    name: str
    serial: str
    customer: str
    open_jobs: list[JobSummary]
    earlier: list[EarlierOut]


@router.get("/known", summary="What is known of a serial before its unit is taken in")
def known(
    session: DbSession, caller: Reader, serial: Annotated[str, Query(min_length=1, max_length=120), Plain]
) -> list[KnownUnitOut]:
    return [
        KnownUnitOut(
            sheet_key=unit.sheet_key,
            name=unit.name,
            serial=unit.serial,
            customer=unit.customer,
            open_jobs=[JobSummary.of(job) for job in jobs_of_unit(session, unit.id, released=False)],
            earlier=[
                earlier_out(job)
                for job in jobs_of_unit(session, unit.id, LAST_JOBS, released=True, quick_services=False)
            ],
        )
        for unit in units_of_serial(session, serial)
    ]


@router.post("", summary="Open a job on a build sheet", responses=NOT_THERE | CONFLICT)
def open_new(body: NewJobBody, session: DbSession, caller: Opener, shop: JobShop) -> JobView:
    refuse_another_persons(body, caller)
    sheet = find_sheet(session, body.sheet_key, body.sheet_version)
    source = _source(session, body, sheet)
    job = open_job(session, body.id, sheet, settings_in_force(session), now())
    # Sent twice it is opened once: what it is a copy of is settled by its first entry.
    if job.entry_count == 0:
        job.copied_from = source
    entry = NewEntry(body.entry_id, body.bench_time, body.intake, body.sent_at, caller.token)
    done = append_entry(session, job.id, entry, caller.author, shop, now())
    return job_view(session, job, done.case, done.tasks)


def _source(session: Session, body: NewJobBody, sheet: Sheet) -> UUID | None:
    """The job a new one is a copy of. Raises RuleError where sheets differ, or where it is not said which version counts."""
    if body.copied_from is None:
        return None
    if body.copied_from == body.id:
        raise fault("copied_from", "a job cannot be a copy of itself", "another job")
    source = job_of(session, body.copied_from)
    if source.sheet_key != sheet.key:
        raise fault("sheet_key", f"job {source.number} was worked on {source.sheet_key}", source.sheet_key)
    if body.sheet_version is None and source.sheet_version != sheet.version:
        text = f"job {source.number} was worked on version {source.sheet_version}, and the sheet is at {sheet.version} by now"
        raise fault("sheet_version", f"{text}; say which version to use", str(source.sheet_version), str(sheet.version))
    return source.id


_UNCHANGED: dict[int | str, dict[str, Any]] = {
    304: {"description": "As it was under the ETag that If-None-Match names", "content": {}}
}


@router.get(
    "/{reference}",
    summary="How a job stands, by its number or id",
    responses=NOT_THERE | CONFLICT | _UNCHANGED,
    response_model=JobView,
)
def job(
    reference: NameText,
    session: DbSession,
    caller: Reader,
    shop: JobShop,
    if_none_match: Annotated[str, Header(max_length=400)] = "",
) -> Response:
    """With an ETag over all of it but the server's time; 304 where nothing else changed."""
    found = named_job(session, reference)
    case = case_for(session, found, shop, caller)
    view = job_view(session, found, case, tasks_of(case))
    said = view.model_dump_json(exclude={"server_time"}).encode()
    headers = {"ETag": f'W/"{sha256(said).hexdigest()[:32]}"'}
    if headers["ETag"] in if_none_match:
        return Response(status_code=304, headers=headers)
    return Response(view.model_dump_json(), media_type="application/json", headers=headers)


@router.get("/{job_id}/picture", summary="The drawing of the unit as its questions are answered", responses=NOT_THERE)
def drawn(
    job_id: UUID,
    session: DbSession,
    caller: Reader,
    shop: JobShop,
    view: Annotated[str | None, Query(max_length=60)] = None,
) -> Picture:
    found = job_of(session, job_id)
    return job_picture(case_for(session, found, shop, caller).resolved, view)
