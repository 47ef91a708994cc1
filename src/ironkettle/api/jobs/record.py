"""The record of a job: the log, appending to it, its seal, the certificate and the label."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, Field, ValidationError

from ironkettle.api.base.deps import DbSession, JobShop, now
from ironkettle.api.base.identity import allow, prove_signature
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE
from ironkettle.api.base.schemas import Body
from ironkettle.api.jobs.log_view import EntryOut, log_view
from ironkettle.api.jobs.named import Reader, Sent, case_for, job_of, refuse_another_persons
from ironkettle.api.jobs.task_view import AskOut
from ironkettle.api.jobs.view import (
    EntryOnlyOut,
    EntryWithViewOut,
    job_state,
    job_view,
    meanwhile,
    tasks_out,
)
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.api.shop.people import Secret
from ironkettle.core.base.errors import fault
from ironkettle.core.base.text import spelled_out
from ironkettle.core.jobs import (
    AnyPayload,
    needs_signature,
    payload_words,
    read_payload,
)
from ironkettle.core.jobs.editable import asked_of
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.store.jobs.logs import NewEntry, append_entry, check_log
from ironkettle.store.jobs.rows import Page, find_job
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)


Writer = Annotated[Caller, allow(JobPolicy.append)]


class EntryBody(Sent):
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


class EntryFieldOut(BaseModel):
    """A field of an entry that may be put right, and what stands in it."""

    ask: AskOut
    value: Any


class DescribedOut(BaseModel):
    """An entry in words as the log would have it, and which of its fields can be corrected; ``whole``: whether nothing is missing in it."""

    words: str
    whole: bool
    fields: list[EntryFieldOut]


class BrokenLinkOut(BaseModel):
    seq: int
    reason: str


class SealOut(BaseModel):
    holds: bool
    entries: int
    head: str
    broken: list[BrokenLinkOut] = Field(default_factory=list)


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
    refuse_another_persons(body, caller)
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
    whole = True
    try:
        words = payload_words(case.resolved, read_payload(body.payload))
    except ValidationError:
        words, whole = str(body.payload.get("kind", "an entry")).replace("_", " ")[:80], False
    questions = asked_of(case, body.payload)
    return DescribedOut(
        words=words, whole=whole, fields=[EntryFieldOut(ask=AskOut.of(ask), value=value) for ask, value in questions]
    )


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
