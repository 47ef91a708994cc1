"""Jobs: the bench list, opening, tasks, the log, appending, the seal, the certificate."""

from __future__ import annotations

from hashlib import sha256
from typing import Annotated, Any, Literal
from uuid import UUID

from fastapi import APIRouter, Header, Query, Request, Response
from pydantic import AwareDatetime, BaseModel, Field, ValidationError
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, JobShop, now
from ironkettle.api.base.identity import allow, prove_signature
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.jobs.log_view import EntryOut, log_view
from ironkettle.api.jobs.task_view import AskOut
from ironkettle.api.jobs.view import (
    EntryOnlyOut,
    EntryWithViewOut,
    JobSummary,
    JobView,
    NamedOut,
    job_state,
    job_view,
    meanwhile,
    tasks_out,
    told_at_release,
)
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.api.sheets.routes import find_sheet, job_picture
from ironkettle.api.shop.people import Secret
from ironkettle.core.base.errors import NotAllowedError, fault
from ironkettle.core.base.text import Plain, spelled_out
from ironkettle.core.jobs import (
    STAGE_WORD,
    AnyPayload,
    Case,
    compose_statement,
    needs_signature,
    payload_words,
    read_payload,
    tasks_of,
)
from ironkettle.core.jobs.editable import asked_of
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.intake import IntakeRecorded
from ironkettle.core.jobs.kinds.photo import PHOTOS
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.drawing import Picture
from ironkettle.reports.label import label_svg
from ironkettle.store.jobs.bench_list import Group, Promised, Sought, Which, list_jobs
from ironkettle.store.jobs.cases import case_of, run_samples, state_of
from ironkettle.store.jobs.logs import NewEntry, append_entry, check_log
from ironkettle.store.jobs.photos import find_photo
from ironkettle.store.jobs.rows import JobRow, Page, find_job, job_numbered, open_job
from ironkettle.store.sheets.rows import latest_sheets
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.settings import settings_in_force
from ironkettle.store.shop.tables import Shop
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)


Reader = Annotated[Caller, allow(JobPolicy.read)]
Opener = Annotated[Caller, allow(JobPolicy.open)]
Writer = Annotated[Caller, allow(JobPolicy.append)]


class _Sent(Body):
    """What every entry comes with. ``who`` is whom the device took it from, if it says: another than the one
    signed in is refused. ``sent_at`` is the device's clock when it was sent."""

    who: NameText | None = Field(default=None, examples=["bede"])
    bench_time: AwareDatetime
    sent_at: AwareDatetime | None = None


class NewJobBody(_Sent):
    """Opens a job; ids come from the client, so sending it twice opens it once. The sheet's newest version, or one named.

    ``copied_from``: the job of a sister unit, whose sizes, answers and tools are proposed; nothing of it is recorded as done.
    """

    id: UUID
    entry_id: UUID
    sheet_key: NameText
    sheet_version: int | None = Field(default=None, ge=1, le=100_000)
    copied_from: UUID | None = None
    intake: IntakeRecorded


class EntryBody(_Sent):
    """``pin`` stands beside a payload that signs (a release, a reopening, skipping a task).

    ``seen``: how many entries the sender knew of; what others recorded since is told in the answer.
    """

    id: UUID
    payload: AnyPayload
    pin: Secret | None = None
    seen: int | None = Field(default=None, ge=0, le=2_000_000_000)


class DescribeBody(Body):
    """An entry a device holds, as it was refused or is to be sent."""

    payload: dict[str, Any] = Field(max_length=40)


class DiscardBody(Body):
    """An entry a device held and somebody gave up, with the reason."""

    entry: UUID
    payload: dict[str, Any] = Field(max_length=40)
    refused: str = Field(max_length=2000)
    reason: Reason


class JobsOut(BaseModel):
    """A page of jobs; ``next`` is what to ask the following page with, none at the end.

    ``total``: of all pages; ``least``: words find more than that.
    """

    jobs: list[JobSummary]
    next: str | None
    total: int
    least: bool


class JobChoicesOut(BaseModel):
    stages: list[NamedOut]
    families: list[str]
    people: list[str]


class EntryFieldOut(BaseModel):
    """A field of an entry that may be put right, and what stands in it."""

    ask: AskOut
    value: Any


class DescribedOut(BaseModel):
    """An entry in words, and which of its fields can be corrected."""

    words: str
    fields: list[EntryFieldOut]


class BrokenLinkOut(BaseModel):
    seq: int
    reason: str


class SealOut(BaseModel):
    holds: bool
    entries: int
    head: str
    broken: list[BrokenLinkOut] = Field(default_factory=list)


def job_of(session: Session, job_id: UUID) -> JobRow:
    """The job of that id. Raises NotThereError when there is none."""
    job = find_job(session, job_id)
    if job is None:
        raise NotThereError("job", job_id)
    return job


def named_job(session: Session, reference: str) -> JobRow:
    """A job by its number or its id. Raises NotThereError when there is none."""
    if reference.isascii() and reference.isdigit() and len(reference) < 10:
        job = job_numbered(session, int(reference))
    else:
        try:
            job = find_job(session, UUID(reference))
        except ValueError:
            job = None
    if job is None:
        raise NotThereError("job", reference)
    return job


def _own(body: _Sent, caller: Caller) -> None:
    """An entry made by one person is never recorded under another's name."""
    if body.who is not None and body.who != caller.key:
        raise NotAllowedError(
            "other-person",
            f"this was made by {body.who}, and {caller.author.name} is signed in; {body.who} must send it",
        )


def case_for(session: Session, job: JobRow, shop: Shop, caller: Caller) -> Case:
    """How a job stands, for the one who asks."""
    return case_of(session, job, state_of(session, job), shop, caller.author, now())


@router.get("", summary="The jobs on the bench, open ones first")
def jobs(
    session: DbSession,
    caller: Reader,
    state: Which = "all",
    q: Annotated[str, Query(max_length=200), Plain] = "",
    limit: Annotated[int, Query(ge=1, le=200)] = 50,
    after: Annotated[str | None, Query(max_length=400)] = None,
    group: Group | None = None,
    stage: Annotated[str, Query(max_length=40), Plain] = "",
    family: Annotated[str, Query(max_length=200), Plain] = "",
    who: Annotated[str, Query(max_length=80), Plain] = "",
    due: Promised | None = None,
) -> JobsOut:
    """``group``: today's, what waits for a timer or a part, or the rest; ``due``: promised and past, or within a week."""
    sought = Sought(state, q, group, stage, family, who, due)
    page = list_jobs(session, sought, now(), limit, after)
    return JobsOut(jobs=[JobSummary.of(job) for job in page.jobs], next=page.next, total=page.total, least=page.least)


@router.get("/choices", summary="What the bench list can be filtered by")
def choices(session: DbSession, caller: Reader) -> JobChoicesOut:
    families = sorted({row.family for row in latest_sheets(session)})
    stages = [NamedOut(key=stage.value, name=word[0].upper() + word[1:]) for stage, word in STAGE_WORD.items()]
    return JobChoicesOut(stages=stages, families=families, people=sorted(names_of(session).values()))


@router.post("", summary="Open a job on a build sheet", responses=NOT_THERE | CONFLICT)
def open_new(body: NewJobBody, session: DbSession, caller: Opener, shop: JobShop) -> JobView:
    _own(body, caller)
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


@router.get("/{job_id}/log", summary="The log, a page at a time", responses=NOT_THERE | CONFLICT)
def log(
    job_id: UUID,
    session: DbSession,
    caller: Reader,
    shop: JobShop,
    after: int = Query(default=0, ge=0, le=2_000_000_000),
    before: Annotated[int | None, Query(ge=1, le=2_000_000_000)] = None,
    last: bool = False,
    limit: Annotated[int, Query(ge=1, le=1000)] = 500,
) -> list[EntryOut]:
    """In order, at most ``limit``: the first of those after one and before another, or with ``last`` the last of them."""
    found = job_of(session, job_id)
    return log_view(session, found, case_for(session, found, shop, caller), Page(after, before, limit, last=last))


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


@router.post("/{job_id}/entries", summary="Append an entry", responses=NOT_THERE | CONFLICT)
def append(
    job_id: UUID,
    body: EntryBody,
    request: Request,
    session: DbSession,
    caller: Writer,
    shop: JobShop,
    view: Literal["full"] | None = None,
) -> EntryOnlyOut | EntryWithViewOut:
    """Answers with what the entry changed; with ``view=full`` as the whole view of the job."""
    _own(body, caller)
    job = job_of(session, job_id)
    if needs_signature(body.payload):
        if body.pin is None:
            raise fault("pin", "this needs a signature: enter your PIN", "your PIN or password")
        prove_signature(request, caller, body.pin)
    entry = NewEntry(body.id, body.bench_time, body.payload, body.sent_at, caller.token)
    done = append_entry(session, job_id, entry, caller.author, shop, now())
    since = meanwhile(session, job, done.case, body.seen)
    if view == "full":
        whole = job_view(session, job, done.case, done.tasks)
        return EntryWithViewOut(**dict(whole), seq=done.row.seq, meanwhile=since)
    state = job_state(session, job, done.case, done.tasks)
    return EntryOnlyOut(seq=done.row.seq, state=state, tasks=tasks_out(session, done.case, done.tasks), meanwhile=since)


@router.post(
    "/{job_id}/describe", summary="An entry in words, and which of its fields can be corrected", responses=NOT_THERE
)
def describe(job_id: UUID, body: DescribeBody, session: DbSession, caller: Reader, shop: JobShop) -> DescribedOut:
    case = case_for(session, job_of(session, job_id), shop, caller)
    try:
        words = payload_words(case.resolved, read_payload(body.payload))
    except ValidationError:
        words = str(body.payload.get("kind", "an entry")).replace("_", " ")[:80]
    asked = asked_of(case, body.payload)
    return DescribedOut(words=words, fields=[EntryFieldOut(ask=AskOut.of(ask), value=value) for ask, value in asked])


@router.post("/{job_id}/discarded", status_code=204, summary="Note that a device gave up an entry it held")
def discard(job_id: UUID, body: DiscardBody, session: DbSession, caller: Writer) -> None:
    job = find_job(session, job_id)
    subject = f"job {job.number}" if job else f"job {job_id}"
    before = {"entry": str(body.entry), "payload": spelled_out(body.payload), "refused": spelled_out(body.refused)}
    leave_trail(
        session, caller.key, now(), "entry", subject, "discarded on the device", before, {"reason": body.reason}
    )


@router.get("/{job_id}/seal", summary="Check the hash chain of the log", responses=NOT_THERE)
def seal(job_id: UUID, session: DbSession, caller: Reader) -> SealOut:
    job = job_of(session, job_id)
    broken = check_log(session, job)
    return SealOut(
        holds=not broken,
        entries=job.entry_count,
        head=job.head,
        broken=[BrokenLinkOut(seq=link.seq, reason=link.reason) for link in broken],
    )


@router.get(
    "/{job_id}/certificate.pdf",
    summary="The certificate; marked as a draft before release",
    responses=NOT_THERE | CONFLICT,
)
def certificate(job_id: UUID, session: DbSession, caller: Reader, shop: JobShop) -> Response:
    # Late, because the PDF library is heavy and a start does not need it.
    from ironkettle.reports.certificate import Certified, certificate_pdf

    job = job_of(session, job_id)
    case = case_for(session, job, shop, caller)
    told = told_at_release(session, job, case) or compose_statement(case, tasks_of(case))
    traces = {key: run_samples(session, job_id, key) for key, run in case.state.runs.items() if run.count}
    chosen = [one.value.photo for one in case.state.book(PHOTOS).values() if one.value.on_certificate]
    pictures = {str(key): row.image for key in chosen if (row := find_photo(session, key)) is not None}
    content = certificate_pdf(Certified(job.number, job.head, case, told, names_of(session), traces, pictures))
    name = f"certificate-{job.number}.pdf"
    return Response(
        content, media_type="application/pdf", headers={"Content-Disposition": f'inline; filename="{name}"'}
    )


@router.get("/{job_id}/label.svg", summary="A label with the job's number and seal as a QR code", responses=NOT_THERE)
def label(job_id: UUID, session: DbSession, caller: Reader) -> Response:
    job = job_of(session, job_id)
    return Response(label_svg(job.number, job.serial, job.head), media_type="image/svg+xml")
