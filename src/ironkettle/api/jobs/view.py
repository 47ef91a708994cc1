"""The answer to "how does this job stand": its tasks, what was recorded, its runs, and what a certificate would say."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import now
from ironkettle.api.base.schemas import FindingOut, findings_out
from ironkettle.api.jobs.found_view import (
    DrawnOut,
    EarlierOut,
    LeakOut,
    LyingOut,
    PhotoOut,
    PointAtOut,
    SuspectOut,
    earlier_of,
    photos_out,
)
from ironkettle.api.jobs.task_view import TaskOut, name_of, recorded_by_task, task_out
from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.jobs import (
    STAGE_WORD,
    Case,
    Run,
    Stage,
    Task,
    check_may_write,
    compose_statement,
    kit_of,
    payload_words,
    signature_of,
)
from ironkettle.core.jobs.away import parts_away
from ironkettle.core.jobs.figure_tests import in_words
from ironkettle.core.jobs.found import causes_of, drawn_elements, leaks_of
from ironkettle.core.jobs.kinds.full_job import condemned
from ironkettle.core.jobs.kinds.leak import suspects
from ironkettle.core.jobs.kinds.release import Released
from ironkettle.core.jobs.kinds.strike import UNDONE
from ironkettle.core.jobs.points_drawn import points_drawn
from ironkettle.core.jobs.running import running
from ironkettle.core.jobs.runs import GaugeUsed, Judgement
from ironkettle.core.jobs.stages import Panel, stages_of
from ironkettle.core.jobs.test_forms import find_form
from ironkettle.core.jobs.tray import in_tray
from ironkettle.core.sheets.document.approval import words_of
from ironkettle.core.shop.people import AUTHORITY_WORD, Authority
from ironkettle.store.jobs.recordings import RecordingRow, recordings_of
from ironkettle.store.jobs.rows import JobRow, closing_row, log_rows, sheet_of
from ironkettle.store.sheets.rows import standing_in
from ironkettle.store.shop.letterhead import letterhead_of
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.units import UnitRow, label_text


class StageOut(BaseModel):
    """A stage that has tasks in this job. ``open`` says that something in it can be done now.

    ``tools``: tools and consumables of what is still to be done in it, to be laid out first; ``current``: the key of the task that is worked
    in it; ``panels``: what stands beside it.
    """

    model_config = ConfigDict(from_attributes=True)

    key: Stage
    word: str
    done: int
    total: int
    status: Literal["done", "open", "later"]
    tools: list[str]
    panels: list[Panel]
    current: str | None


class RunRecordingOut(BaseModel):
    """How the server's recording of a run stands, as the record has it; ``said``: what was wrong on the way."""

    state: str
    said: list[str]


class RunOut(BaseModel):
    """A run of a test without its samples."""

    run: str
    test: str
    when: str
    who: str
    started_at: datetime
    source: str
    hold: int | None
    gauge: GaugeUsed | None
    count: int
    held_s: float
    closed: bool
    abandoned: bool
    note: str
    readings: str | None
    planned_hold_s: float | None
    judgement: Judgement | None
    recording: RunRecordingOut | None


class TimerOut(BaseModel):
    key: str
    until: datetime
    what: str


class MeanwhileOut(BaseModel):
    who: str
    words: str


_WAITS_WORD = {"part": "a part", "timer": "a timer", "signature": "the signature"}


class JobSummary(BaseModel):
    """``released``: closed; ``ended``: how, in words, where it was not by a release; ``overdue``: promised for a day that has passed."""

    id: UUID
    number: int
    sheet_key: str
    sheet_version: int
    unit: str
    serial: str
    customer: str
    complaint: str
    stage: str
    stage_word: str
    next_need: str
    released: bool
    ended: str
    tasks_done: int
    tasks_total: int
    timer_until: datetime | None
    timer_for: str
    quick_service: str
    waits: str
    waits_word: str
    promised: date | None
    overdue: bool
    age: str
    entry_count: int
    opened_at: datetime
    touched_at: datetime
    touched_by: str

    @classmethod
    def of(cls, job: JobRow) -> JobSummary:
        known = {stage.value: word for stage, word in STAGE_WORD.items()}
        today = now().date()
        worked_out = {
            "stage_word": known.get(job.stage, job.stage),
            "waits_word": _WAITS_WORD.get(job.waits, ""),
            "overdue": not job.released and job.promised is not None and job.promised < today,
            "age": f"{(today - job.opened_at.date()).days} d",
        }
        kept = {name: getattr(job, name) for name in cls.model_fields if name not in worked_out}
        return cls.model_validate(kept | worked_out)


class SigningOut(BaseModel):
    """Whether the one who looks may release this unit, and why not; what the certificate's letterhead lacks still."""

    may_release: bool
    why_not: str | None
    authority: str
    letterhead_missing: list[str]


class QuickServiceOut(BaseModel):
    """The quick service a job is: what is done, how often, the parts it found to be replaced, and why it would be made a full job."""

    interval: str
    words: str
    condemned: list[str]
    reason: str


class NamedOut(BaseModel):
    key: str
    name: str


class JobState(BaseModel):
    """What of a job its entries change, without its tasks. ``statement``: what the certificate states, the claim first; as signed, or
    as it would be signed now.
    """

    job: JobSummary
    head: str
    quick_service: QuickServiceOut | None
    stages: list[StageOut]
    causes: list[str]
    photos: list[PhotoOut]
    findings: list[FindingOut]
    drawn: list[DrawnOut]
    parts_off: list[str]
    tray: list[LyingOut]
    leaks: list[LeakOut]
    suspects: list[SuspectOut]
    points: list[PointAtOut]
    runs: list[RunOut]
    timers: list[TimerOut]
    signing: SigningOut
    statement: list[str]
    server_time: datetime


class JobView(JobState):
    """How a job stands. ``copied_from``: the number of the sister unit's job whose sizes and tools are proposed. ``draft_sheet``:
    nobody has approved the sheet that the job is worked from.
    """

    copied_from: int | None
    sheet_name: str
    unit_label: str | None
    views: list[NamedOut]
    earlier: list[EarlierOut]
    draft_sheet: bool
    undo_reason: str
    tasks: list[TaskOut]


class EntryOnlyOut(BaseModel):
    """What became of a job by an entry. ``seq``: the entry's place in the log; ``meanwhile``: what others recorded since the sender last looked."""

    seq: int
    state: JobState
    tasks: list[TaskOut]
    meanwhile: list[MeanwhileOut]


class EntryWithViewOut(JobView):
    """The same, as the whole view of the job."""

    seq: int
    meanwhile: list[MeanwhileOut]


def job_state(session: Session, job: JobRow, case: Case, tasks: Sequence[Task]) -> JobState:
    """What of a job its entries change, for the author of the case."""
    names = names_of(session)
    recordings = recordings_of(session, job.id)
    return JobState(
        job=JobSummary.of(job),
        head=job.head,
        quick_service=_quick_service(case),
        stages=[StageOut.model_validate(stage) for stage in stages_of(tasks)],
        causes=list(causes_of(case)),
        photos=photos_out(case.state, names),
        findings=findings_out(case.resolved.orientation.findings),
        drawn=[DrawnOut.model_validate(drawn_element) for drawn_element in drawn_elements(case)],
        parts_off=sorted(parts_away(case)),
        tray=[LyingOut.model_validate(lying) for lying in in_tray(case)],
        leaks=[LeakOut.model_validate(leak) for leak in leaks_of(case)],
        suspects=[SuspectOut.model_validate(suspect) for suspect in suspects(case)],
        points=[PointAtOut.model_validate(point) for point in points_drawn(case)],
        runs=[_run(case, run, names, recordings.get(run.key)) for run in case.state.runs.values()],
        timers=[TimerOut(key=runner.key, until=runner.until, what=runner.what) for runner in running(case)],
        signing=_signing(session, job, case),
        statement=_statement(session, job, case, tasks),
        server_time=case.now,
    )


def tasks_out(session: Session, case: Case, tasks: Sequence[Task]) -> list[TaskOut]:
    """The tasks of a job, each with what was recorded for it."""
    recorded = recorded_by_task(case, names_of(session))
    return [task_out(case, task, recorded.get(task.key)) for task in tasks]


def job_view(session: Session, job: JobRow, case: Case, tasks: Sequence[Task]) -> JobView:
    """Everything a screen needs of a job, for the author of the case."""
    return JobView(
        **dict(job_state(session, job, case, tasks)),
        copied_from=case.carried.number if case.carried else None,
        sheet_name=case.resolved.whole.name,
        unit_label=None if job.unit_id is None else label_text(session, session.get_one(UnitRow, job.unit_id)),
        views=[NamedOut(key=view.key, name=view.name) for view in case.resolved.whole.views],
        earlier=earlier_of(session, job, case),
        draft_sheet=case.draft,
        undo_reason=UNDONE,
        tasks=tasks_out(session, case, tasks),
    )


def _run(case: Case, run: Run, names: Mapping[str, str], made: RecordingRow | None) -> RunOut:
    form = find_form(case, run.test)
    return RunOut(
        run=run.key,
        test=run.test,
        when=run.when,
        who=name_of(run.mark, names),
        started_at=run.mark.when,
        source=run.source,
        hold=run.hold,
        gauge=run.gauge,
        count=run.count,
        held_s=run.last_s - run.first_s if run.count else 0.0,
        closed=run.closed is not None,
        abandoned=run.abandoned,
        note=run.note,
        readings=None if run.record is None else in_words(run.record),
        planned_hold_s=None if form is None else form.planned_hold(run),
        judgement=run.judgement,
        recording=None
        if made is None
        else RunRecordingOut(state=made.state, said=[event["says"] for event in made.said]),
    )


def _quick_service(case: Case) -> QuickServiceOut | None:
    quick_service = case.resolved.quick_service
    if quick_service is None:
        return None
    words = f"{quick_service.what}, due every {' or '.join(quick_service.every)}"
    bad = list(condemned(case))
    reason = f"To be replaced: {', '.join(bad)}" if bad else "More work is needed than this service"
    return QuickServiceOut(interval=quick_service.name, words=words, condemned=bad, reason=reason)


def _signing(session: Session, job: JobRow, case: Case) -> SigningOut:
    standing, why_not = standing_in(session, job.sheet_key, job.sheet_version, job.serial), None
    assert case.author is not None
    try:
        check_may_write(case.author, Released())
        signature_of(standing, Released(), case.author, case.now)
    except NotAllowedError as error:
        why_not = str(error)
    return SigningOut(
        may_release=why_not is None,
        why_not=why_not,
        authority=words_of(standing.guards) or AUTHORITY_WORD[Authority.NONE],
        letterhead_missing=list(letterhead_of(session).missing),
    )


def _statement(session: Session, job: JobRow, case: Case, tasks: Sequence[Task]) -> list[str]:
    closing = closing_row(session, job, case.state)
    return list((closing and closing.read().entry.told) or compose_statement(case, tasks))


def meanwhile(session: Session, job: JobRow, case: Case, seen: int | None) -> list[MeanwhileOut]:
    """What others recorded after the entries that the author of the case had seen; nothing where it is not said how many."""
    if seen is None or case.state.count <= seen:
        return []
    assert case.author is not None
    kits = kit_of(sheet_of(session, job))
    entries = [row.read(kits).entry for row in log_rows(session, job.id, after=seen)]
    return [
        MeanwhileOut(who=entry.who_name or entry.who, words=payload_words(case.resolved, entry.payload))
        for entry in entries
        if entry.who != case.author.key
    ][:20]
