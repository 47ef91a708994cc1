"""The hand-over of a job: half a minute for the next pair of hands."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict

from ironkettle.api.base.deps import DbSession, JobShop
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE
from ironkettle.api.base.schemas import NameText
from ironkettle.api.jobs.found_view import EarlierOut, LeakOut, PhotoOut
from ironkettle.api.jobs.named import case_for, named_job
from ironkettle.api.jobs.view import JobSummary, job_view
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.core.jobs import tasks_of
from ironkettle.core.jobs.handover import hand_over

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(JobPolicy.read)]


class LineOut(BaseModel):
    model_config = ConfigDict(from_attributes=True)

    words: str
    who: str | None
    when: datetime | None
    caution: bool


class HandOverOut(BaseModel):
    """``off``: what lies in the tray; ``lay``: how elements were found; ``open_ends``: tasks skipped, and notes left."""

    job: JobSummary
    sheet_name: str
    next: str | None
    why: str | None
    off: list[LineOut]
    lay: list[LineOut]
    decided: list[LineOut]
    waits: list[LineOut]
    assumed: list[LineOut]
    open_ends: list[LineOut]
    photos: list[PhotoOut]
    leaks: list[LeakOut]
    earlier: list[EarlierOut]


@router.get("/{reference}/handover", summary="Hand-over of a job in half a minute", responses=NOT_THERE | CONFLICT)
def handed_over(reference: NameText, session: DbSession, caller: Reader, shop: JobShop) -> HandOverOut:
    job = named_job(session, reference)
    case = case_for(session, job, shop, caller)
    tasks = tasks_of(case)
    summary, view = hand_over(case, tasks), job_view(session, job, case, tasks)

    def lines(name: str) -> list[LineOut]:
        return [LineOut.model_validate(line) for line in getattr(summary, name)]

    return HandOverOut(
        job=view.job,
        sheet_name=view.sheet_name,
        next=summary.next,
        why=summary.why,
        off=lines("off"),
        lay=lines("lay"),
        decided=lines("decided"),
        waits=lines("waits"),
        assumed=lines("assumed"),
        open_ends=lines("open_ends"),
        photos=view.photos,
        leaks=view.leaks,
        earlier=view.earlier,
    )
