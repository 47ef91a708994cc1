"""The log of a job: append under a lock, seal, keep snapshot and summary in the same transaction."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from hashlib import sha256
from typing import Any
from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs import (
    SAMPLES_BESIDE,
    SEAL_FORMAT,
    BrokenLink,
    Case,
    Entry,
    Payload,
    State,
    Status,
    Task,
    TokenUsed,
    check_bench_time,
    check_chain,
    check_entry,
    check_may_write,
    fold,
    kit_of,
    link_of,
    needs_signature,
    next_task,
    seal_text,
    signature_of,
    tasks_of,
)
from ironkettle.core.jobs.drawn_stock import taken
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.ending import ENDING_WORD, closed_by, ending_of
from ironkettle.core.jobs.kinds.full_job import quick_service_in
from ironkettle.core.jobs.kinds.intake import IntakeRecorded, intake_of
from ironkettle.core.jobs.kinds.order import short_of
from ironkettle.core.jobs.kinds.photo import PhotoTaken
from ironkettle.core.jobs.kinds.release import Released
from ironkettle.core.jobs.kinds.strike import EntryStruck
from ironkettle.core.jobs.kinds.test_close import TestClosed
from ironkettle.core.jobs.kinds.test_run import TestRun
from ironkettle.core.jobs.registry import apply_entry, as_sent, complete, judgement_of, kind_of
from ironkettle.core.jobs.running import running
from ironkettle.core.jobs.runs import SampleRead, chunks_of, plain
from ironkettle.core.jobs.snapshot import SNAPSHOT_FORMAT, to_snapshot
from ironkettle.core.jobs.statement import statement_of
from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.core.shop.people import Author, Signature
from ironkettle.store.jobs.bench_list import words_of_job
from ironkettle.store.jobs.cases import REMEMBERED, basis_of, case_of, folded, log_of, run_samples, state_of
from ironkettle.store.jobs.photos import find_photo, photos_of
from ironkettle.store.jobs.rows import EntryRow, JobRow, SampleRow, SnapshotRow, log_rows, sheet_of
from ironkettle.store.jobs.traces import keep_marks, marks_of, used_by
from ironkettle.store.sheets.rows import standing_in
from ironkettle.store.shop.letterhead import letterhead_of
from ironkettle.store.shop.stock import draw
from ironkettle.store.shop.tables import Shop
from ironkettle.store.shop.units import keep_unit, readings_before

# So many entries at most are read on top of a snapshot.
SNAPSHOT_EVERY = 20


@dataclass(frozen=True, slots=True)
class NewEntry:
    """An entry as a client sends it: its own id, its own clock, and what that clock read when it was sent.

    ``token``: the script's token it was sent with.
    """

    id: UUID
    bench_time: datetime
    payload: Payload
    sent_at: datetime | None = None
    token: TokenUsed | None = None

    def clock_ahead_s(self, now: datetime) -> float | None:
        """By how much the device's clock is ahead of ours, as far as it told. [s]"""
        sent = self.bench_time if self.sent_at is None and needs_signature(self.payload) else self.sent_at
        return None if sent is None else round((sent - now).total_seconds(), 1) + 0.0


@dataclass(frozen=True, slots=True)
class Appended:
    """An entry that was added, and how the job stands with it."""

    row: EntryRow
    case: Case
    tasks: tuple[Task, ...]


def append_entry(session: Session, job_id: UUID, new: NewEntry, author: Author, shop: Shop, now: datetime) -> Appended:
    """Add one entry to a job's log under a lock on the job; the server sets the order.

    A repeated id with the same contents gives the entry that is there and changes nothing. A signing
    entry stands on what the author holds now; that it is the author was proved before.
    Raises RuleError, RefusedError or NotAllowedError when the rules do not allow it; nothing is written then.
    """
    check_bench_time(new.bench_time, now)
    job = session.get_one(JobRow, job_id, with_for_update=True, populate_existing=True)
    present = session.get(EntryRow, new.id)
    state = state_of(session, job)
    case = case_of(session, job, state, shop, author, now)
    if present is not None:
        _check_same(session, job, present, new, author)
        return Appended(present, case, tasks_of(case))
    check_may_write(author, new.payload)
    case = replace(case, **_beside(session, job, state, new))
    check_entry(case, new.payload)
    payload = complete(case, new.payload)
    chunks = chunks_of(_samples_in(payload))
    statement = statement_of(case, payload)
    entry = Entry(
        id=new.id,
        seq=job.entry_count + 1,
        who=author.key,
        who_name=author.name,
        bench_time=new.bench_time.astimezone(UTC),
        server_time=now.astimezone(UTC),
        clock_ahead_s=new.clock_ahead_s(now),
        signature=_signature(session, job, payload, author, now),
        judgement=judgement_of(case, payload),
        told=statement,
        chunks=tuple(seal for seal, _ in chunks),
        basis=basis_of(session, job) if isinstance(payload, IntakeRecorded) else None,
        token=new.token,
        letterhead=None if statement is None else _letterhead(session),
        payload=_bare(payload),
    )
    row = _sealed(session, job, entry, [text for _, text in chunks])
    if isinstance(payload, EntryStruck):
        session.flush()
        state = folded(session, job)
    else:
        apply_entry(state, entry.payload, entry.mark)
    job.entry_count, job.head = entry.seq, row.hash
    _keep_trace(session, job, state, entry, payload, case)
    job.touched_at, job.touched_by = now, author.name
    if isinstance(payload, Released):
        draw(session, job.id, job.number, taken(case), author.key, now)
    return Appended(row, *keep_up(session, job, state, shop, author, now, unit=kind_of(payload).about_unit))


def _letterhead(session: Session) -> Letterhead | None:
    """The head of the shop's papers as it stands; None while nobody has filled it in."""
    letterhead = letterhead_of(session)
    return None if letterhead == Letterhead() else letterhead


def _keep_trace(session: Session, job: JobRow, state: State, entry: Entry, payload: Payload, case: Case) -> None:
    """Keep by what the trace of a run is known again that this entry closed."""
    if isinstance(payload, TestClosed) and not payload.abandoned:
        run = state.runs[str(payload.run)]
        keep_marks(session, job, run.key, run.test, run.when, marks_of(case.recorded, run.source))
    elif isinstance(payload, TestRun) and payload.samples:
        marks = marks_of(plain(payload.samples), "typed")
        keep_marks(session, job, str(entry.id), payload.test, payload.when, marks)


def keep_marks_of(session: Session, job: JobRow, state: State) -> None:
    """The same for every run of a job, for jobs from before traces were known again."""
    for key, run in state.runs.items():
        if run.counts and run.count:
            marks = marks_of(run_samples(session, job.id, key), run.source)
            keep_marks(session, job, key, run.test, run.when, marks)


def _signature(session: Session, job: JobRow, payload: Payload, author: Author, now: datetime) -> Signature | None:
    if not needs_signature(payload):
        return None
    return signature_of(standing_in(session, job.sheet_key, job.sheet_version, job.serial), payload, author, now)


def keep_up(
    session: Session, job: JobRow, state: State, shop: Shop, author: Author | None, now: datetime, *, unit: bool = True
) -> tuple[Case, tuple[Task, ...]]:
    """Write the summary of a job for a state, what its unit has of it and, as often as wanted, its snapshot; give what they were made from."""
    case = case_of(session, job, state, shop, author, now)
    tasks = tasks_of(case)
    _summarise(job, case, tasks)
    if unit:
        keep_unit(session, job, case, now)
    row = session.get(SnapshotRow, job.id)
    if row is None:
        row = SnapshotRow(job_id=job.id, format=0)
        session.add(row)
    if row.format != SNAPSHOT_FORMAT or state.count % SNAPSHOT_EVERY == 0:
        row.format, row.head, row.state = SNAPSHOT_FORMAT, job.head, to_snapshot(state)
    session.flush()
    REMEMBERED.keep(job, state)
    return case, tasks


def _check_same(session: Session, job: JobRow, present: EntryRow, new: NewEntry, author: Author) -> None:
    same = present.job_id == job.id and present.who == author.key
    if same:
        entry = present.read(kit_of(sheet_of(session, job))).entry
        sent = tuple(seal for seal, _ in chunks_of(_samples_in(new.payload)))
        same = as_sent(entry.payload) == as_sent(_bare(new.payload)) and entry.chunks == sent
    if not same:
        raise RefusedError("entry-exists", "an entry with this id already exists with other contents")


def _beside(session: Session, job: JobRow, state: State, new: NewEntry) -> dict[str, Any]:
    """What a rule needs to see of the log beside the state: the samples of a run to close, the entry to strike out."""
    payload = new.payload
    if isinstance(payload, IntakeRecorded) and payload.counters:
        return {"counters": readings_before(session, job, payload.serial), "happened": new.bench_time}
    if isinstance(payload, TestClosed):
        recorded = run_samples(session, job.id, str(payload.run))
        run = state.runs.get(str(payload.run))
        if run is None or payload.abandoned:
            return {"recorded": recorded}
        marks = marks_of(recorded, run.source)
        return {"recorded": recorded, "trace_of": used_by(session, job, run.key, run.test, run.when, marks)}
    if isinstance(payload, TestRun) and payload.samples:
        marks = marks_of(plain(payload.samples), "typed")
        return {"trace_of": used_by(session, job, str(new.id), payload.test, payload.when, marks)}
    if isinstance(payload, PhotoTaken):
        return {"photos": {key: row.sha256 for key, row in photos_of(session, job.id).items()}}
    if isinstance(payload, EntryStruck):
        row = session.get(EntryRow, payload.entry)
        if row is not None and row.job_id == job.id:
            return {"target": (row.who, row.read(kit_of(sheet_of(session, job))).entry.payload)}
    return {}


def _samples_in(payload: Payload) -> Sequence[SampleRead]:
    found: Sequence[SampleRead] = getattr(payload, "samples", ())
    return found


def _bare(payload: Payload) -> Payload:
    """The payload as it is sealed: its samples are kept beside it."""
    return payload.model_copy(update={"samples": []}) if _samples_in(payload) else payload


def _sealed(session: Session, job: JobRow, entry: Entry, texts: Sequence[str]) -> EntryRow:
    text = seal_text(job.head, job.id, entry)
    row = EntryRow(
        id=entry.id,
        job_id=job.id,
        seq=entry.seq,
        kind=entry.kind,
        who=entry.who,
        bench_time=entry.bench_time,
        server_time=entry.server_time,
        sealed=text,
        seal_format=SEAL_FORMAT,
        hash=link_of(text),
    )
    session.add(row)
    session.flush()
    run = str(getattr(entry.payload, "run", entry.id))
    session.add_all(
        SampleRow(entry_id=entry.id, place=place, job_id=job.id, run=run, text=words)
        for place, words in enumerate(texts)
    )
    return row


def _summarise(job: JobRow, case: Case, tasks: Sequence[Task]) -> None:
    state = case.state
    taken_in = intake_of(state)
    if taken_in is not None:
        intake = taken_in.value
        job.unit, job.serial, job.customer, job.complaint = (
            intake.unit, intake.serial, intake.customer, intake.complaint,
        )  # fmt: skip
        job.promised = intake.promised
        job.words = words_of_job(job, case.resolved.whole.name)
    job.quick_service = quick_service_in(state) or ""
    following = next_task(tuple(tasks))
    job.released = closed_by(state) is not None
    ended = ending_of(state)
    job.ended = "" if ended is None else ENDING_WORD[ended.how]
    job.stage = following.stage.value if following and not job.released else "release"
    job.next_need = following.text if following and not job.released else ""
    job.waits = "" if job.released or following is None else following.kind.waits
    job.tasks_done = sum(task.status in {Status.DONE, Status.SKIPPED} for task in tasks)
    job.tasks_total = len(tasks)
    first = min(running(case), key=lambda timer: timer.until, default=None)
    job.timer_until, job.timer_for = (first.until, first.what) if first else (None, "")
    job.causes = [
        {
            "element": decided_cause.element,
            "name": decided_cause.name,
            "key": decided_cause.key.value,
            "cause": decided_cause.cause,
        }
        for decided_cause in decided_causes(case)
    ]
    job.short = [] if job.released else [asdict(missing) for missing in short_of(case)]


def check_log(session: Session, job: JobRow) -> list[BrokenLink]:
    """Every place where the job's chain does not hold, its samples among it."""
    rows = log_rows(session, job.id)
    broken = check_chain(job.id, (row.link() for row in rows), job.head)
    known = {link.seq for link in broken}
    texts: dict[UUID, list[str]] = {}
    for entry_id, text in session.execute(
        select(SampleRow.entry_id, SampleRow.text).where(SampleRow.job_id == job.id).order_by(SampleRow.place)
    ):
        texts.setdefault(entry_id, []).append(text)
    for row in rows:
        if row.seq not in known and row.seal_format >= SAMPLES_BESIDE:
            sealed = [chunk.sha256 for chunk in row.read().entry.chunks]
            if sealed != [link_of(text) for text in texts.get(row.id, [])]:
                broken.append(BrokenLink(row.seq, "has other samples than were sealed with it"))
    return [*broken, *_other_photos(session, job, rows, known)]


def _other_photos(session: Session, job: JobRow, rows: Sequence[EntryRow], known: set[int]) -> list[BrokenLink]:
    """Entries whose photo is gone or is another than was sealed."""
    earlier = [(row, row.read().entry.payload) for row in rows if row.kind == "photo_taken" and row.seq not in known]
    broken = []
    for row, payload in earlier:
        assert isinstance(payload, PhotoTaken)
        kept = find_photo(session, payload.photo)
        if kept is None or kept.job_id != job.id or sha256(kept.image).hexdigest() != payload.sha256:
            broken.append(BrokenLink(row.seq, "has another photo than was sealed with it"))
    return broken


def snapshot_differs(session: Session, job: JobRow) -> bool:
    """Whether the snapshot beside a job says something else than its log folded to at that entry, or is of no entry of it."""
    row = session.get(SnapshotRow, job.id)
    if row is None or row.format != SNAPSHOT_FORMAT:
        return False
    links = [log_row.hash for log_row in log_rows(session, job.id)]
    if row.head not in links:
        return True
    known = log_of(session, job)[: links.index(row.head) + 1]
    return row.state != to_snapshot(fold((entry.payload, entry.mark) for entry in known))


def drop_snapshot(session: Session, job: JobRow) -> None:
    """Take the snapshot of a job away; it is read from its log until the next entry."""
    row = session.get(SnapshotRow, job.id)
    if row is not None:
        session.delete(row)
        session.flush()


def jobs_without_snapshot(session: Session) -> list[JobRow]:
    """Jobs whose snapshot is missing or of another format: they are built anew from their logs."""
    query = select(JobRow).outerjoin(SnapshotRow, SnapshotRow.job_id == JobRow.id)
    query = query.where((SnapshotRow.job_id.is_(None)) | (SnapshotRow.format != SNAPSHOT_FORMAT))
    return list(session.scalars(query.where(JobRow.entry_count > 0)))
