"""The answer to "how does this job stand": state, stages, verdicts, and the log in brief."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Generic, Literal, TypeVar
from uuid import UUID

from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.api.deps import bench
from ironkettle.api.pressure_tests import AnalysisOut
from ironkettle.api.schemas import FindingOut, findings_out
from ironkettle.core.buildsheets import BuildSheet, orientation_of
from ironkettle.core.jobs import (
    Entry,
    JobState,
    Marked,
    Stage,
    TestRun,
    analysis_of,
    job_state,
    next_stage,
    stage_reports,
)
from ironkettle.core.jobs import entries as e
from ironkettle.store.jobs import JobRow, log_of, sheet_of
from ironkettle.store.people import all_people

P = TypeVar("P")


class Recorded(BaseModel, Generic[P]):
    """A recorded fact: what, by whom, when, under which entry."""

    entry: UUID
    who: str
    when: datetime
    value: P


class NeedOut(BaseModel):
    text: str
    subject: str


class StageOut(BaseModel):
    stage: Stage
    status: Literal["done", "open", "skipped"]
    done: int
    total: int
    needs: list[NeedOut]


class RunOut(BaseModel):
    run: UUID
    test: str
    who: str
    started_at: datetime
    source: str
    gauge: e.GaugeUsed
    samples: list[e.SampleRead]
    closed: bool
    note: str
    analysis: AnalysisOut | None


class LogLine(BaseModel):
    id: UUID
    seq: int
    kind: str
    who: str
    when: datetime
    struck: str | None


class JobSummary(BaseModel):
    id: UUID
    number: int
    sheet_key: str
    sheet_version: int
    unit: str
    serial: str
    customer: str
    complaint: str
    stage: Stage
    next_need: str
    released: bool
    stages_done: int
    entry_count: int
    opened_at: datetime
    touched_at: datetime
    touched_by: str

    @classmethod
    def of(cls, job: JobRow) -> JobSummary:
        return cls(**{name: getattr(job, name) for name in cls.model_fields})


class JobView(BaseModel):
    job: JobSummary
    head: str
    stages: list[StageOut]
    findings: list[FindingOut]
    intake: Recorded[e.IntakeRecorded] | None
    steps: dict[str, Recorded[e.StepDone]]
    observations: list[Recorded[e.ObservationNoted]]
    found: dict[str, Recorded[e.ElementFound]]
    rings: dict[str, Recorded[e.RingChosen]]
    kit: dict[str, Recorded[e.KitCounted]]
    fitted: dict[str, Recorded[e.ElementFitted]]
    readings: list[Recorded[e.FastenerTightened]]
    runs: list[RunOut]
    skipped: dict[str, Recorded[e.StageSkipped]]
    notes: list[Recorded[e.NoteMade]]
    released: Recorded[e.Released] | None
    log: list[LogLine]


def job_view(session: Session, job: JobRow) -> JobView:
    """Everything a screen needs of a job, from its sheet and its log."""
    sheet = sheet_of(session, job)
    log = log_of(session, job.id)
    state = job_state(sheet, log)
    names = {person.key: person.name for person in all_people(session)}
    reports = stage_reports(sheet, state, bench().fluids)
    summary = JobSummary.of(job).model_copy(update={"stage": next_stage(reports)})
    return JobView(
        job=summary,
        head=job.head,
        stages=[
            StageOut(
                stage=r.stage,
                status=r.status,
                done=r.done,
                total=r.total,
                needs=[NeedOut(text=n.text, subject=n.subject) for n in r.needs],
            )
            for r in reports
        ],
        findings=findings_out(orientation_of(sheet, state.faced_as_found()).findings),
        intake=None if state.intake is None else _recorded(state.intake, names),
        steps=_book(state.steps, names),
        observations=_list(state.observations.values(), names),
        found=_book(state.found, names),
        rings=_book(state.rings, names),
        kit=_book(state.kit, names),
        fitted=_book(state.fitted, names),
        readings=_list(state.readings.values(), names),
        runs=[_run(run, sheet, names) for run in state.runs.values()],
        skipped=_book({stage.value: marked for stage, marked in state.skipped.items()}, names),
        notes=_list(state.notes, names),
        released=None if state.released is None else _recorded(state.released, names),
        log=_log_lines(log, state, names),
    )


def _recorded(marked: Marked[P], names: Mapping[str, str]) -> Recorded[P]:
    mark = marked.mark
    return Recorded(entry=mark.entry, who=names.get(mark.who, mark.who), when=mark.when, value=marked.value)


def _book(book: Mapping[str, Marked[P]], names: Mapping[str, str]) -> dict[str, Recorded[P]]:
    return {key: _recorded(marked, names) for key, marked in book.items()}


def _list(marks: Iterable[Marked[P]], names: Mapping[str, str]) -> list[Recorded[P]]:
    return [_recorded(marked, names) for marked in marks]


def _run(run: TestRun, sheet: BuildSheet, names: Mapping[str, str]) -> RunOut:
    started = run.started.value
    test = sheet.test(started.test)
    analysis = analysis_of(run, test, bench().fluids) if test else None
    return RunOut(
        run=started.run,
        test=started.test,
        who=names.get(run.started.mark.who, run.started.mark.who),
        started_at=run.started.mark.when,
        source=started.source,
        gauge=started.gauge,
        samples=run.samples,
        closed=run.closed is not None,
        note=run.note,
        analysis=None if analysis is None else AnalysisOut.of(analysis),
    )


def _log_lines(log: list[Entry], state: JobState, names: Mapping[str, str]) -> list[LogLine]:
    return [
        LogLine(
            id=entry.id,
            seq=entry.seq,
            kind=entry.payload.kind,
            who=names.get(entry.who, entry.who),
            when=entry.bench_time,
            struck=state.struck[entry.id].value.reason if entry.id in state.struck else None,
        )
        for entry in log
    ]
