"""Which job is meant, who sent what is to be recorded in it, and how it stands."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import AwareDatetime, Field
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.jobs import (
    Case,
)
from ironkettle.store.jobs.cases import case_of, state_of
from ironkettle.store.jobs.rows import JobRow, find_job, job_numbered
from ironkettle.store.shop.tables import Shop

Reader = Annotated[Caller, allow(JobPolicy.read)]


class Sent(Body):
    """What every entry comes with. ``who`` is whom the device took it from, if it says: another than the one
    signed in is refused. ``sent_at`` is the device's clock when it was sent."""

    who: NameText | None = Field(default=None, examples=["bede"])
    bench_time: AwareDatetime
    sent_at: AwareDatetime | None = None


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


def refuse_another_persons(body: Sent, caller: Caller) -> None:
    """An entry made by one person is never recorded under another's name."""
    if body.who is not None and body.who != caller.key:
        raise NotAllowedError(
            "other-person",
            f"this was made by {body.who}, and {caller.author.name} is signed in; {body.who} must send it",
        )


def case_for(session: Session, job: JobRow, shop: Shop, caller: Caller) -> Case:
    """How a job stands, for the one who asks."""
    return case_of(session, job, state_of(session, job), shop, caller.author, now())
