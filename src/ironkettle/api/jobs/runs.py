"""The runs of a job's tests: what was read, and what it comes to."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, JobShop
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.jobs.named import case_for, job_of
from ironkettle.api.machine.pressure_tests import AnalysisOut
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.core.jobs.test_forms import find_form
from ironkettle.core.machine.pressure import Sample, thinned, trace_csv
from ironkettle.store.jobs.cases import run_samples
from ironkettle.store.jobs.recordings import unsealed_samples

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)

# Points of a trace that a screen is sent at most.
MOST_DRAWN = 1500

Reader = Annotated[Caller, allow(JobPolicy.read)]


class PointOut(BaseModel):
    t_s: float
    pressure_mpa: float


class RunTraceOut(BaseModel):
    """The trace of a run, and what it comes to so far; none while it is too short to judge.

    ``count``: its samples; ``points``: thinned to be drawn, every low and high among them.
    """

    count: int
    points: list[PointOut]
    analysis: AnalysisOut | None


@router.get("/{job_id}/runs/{run}", summary="The samples of a test run, and what they come to", responses=NOT_THERE)
def run_trace(job_id: UUID, run: UUID, session: DbSession, caller: Reader, shop: JobShop) -> RunTraceOut:
    found = job_of(session, job_id)
    case = case_for(session, found, shop, caller)
    kept_run = case.state.runs.get(str(run))
    if kept_run is None:
        raise NotThereError("run", run)
    read = _read_so_far(session, job_id, run)
    form = find_form(case, kept_run.test)
    analysis = None if form is None else form.analysis(kept_run, read)
    drawn_ = thinned([reading.t for reading in read], [reading.pressure for reading in read], MOST_DRAWN)
    return RunTraceOut(
        count=len(read),
        points=[PointOut(t_s=t, pressure_mpa=pressure) for t, pressure in drawn_],
        analysis=None if analysis is None else AnalysisOut.of(analysis),
    )


def _read_so_far(session: Session, job_id: UUID, run: UUID) -> tuple[Sample, ...]:
    """The samples of a run in the log, and those that are being recorded behind them."""
    return (*run_samples(session, job_id, str(run)), *unsealed_samples(session, run))


@router.get(
    "/{job_id}/runs/{run}/trace.csv", summary="The samples of a test run as CSV", response_class=Response,
    responses=NOT_THERE,
)  # fmt: skip
def run_csv(job_id: UUID, run: UUID, session: DbSession, caller: Reader, shop: JobShop) -> Response:
    if str(run) not in case_for(session, job_of(session, job_id), shop, caller).state.runs:
        raise NotThereError("run", run)
    read = _read_so_far(session, job_id, run)
    text = trace_csv(read)
    headers = {"Content-Disposition": f'attachment; filename="run-{str(run)[:8]}.csv"'}
    return Response(text, media_type="text/csv; charset=utf-8", headers=headers)
