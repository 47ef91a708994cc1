"""How a job stands: its state, and what its rules compute from, held against what its intake sealed."""

from __future__ import annotations

from collections import OrderedDict
from datetime import datetime
from threading import Lock
from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs import SAMPLES_BESIDE, Carried, Case, Entry, JobBasis, State, fold, kit_of, samples_within
from ironkettle.core.jobs.copying import carried_from
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.kinds.full_job import quick_service_in
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.question import answers_in
from ironkettle.core.jobs.kinds.strike import EntryStruck
from ironkettle.core.jobs.registry import apply_entry
from ironkettle.core.jobs.runs import read_chunk
from ironkettle.core.jobs.snapshot import SNAPSHOT_FORMAT, from_snapshot
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.shop.people import Author
from ironkettle.core.shop.settings import ShopSettings, under_their_names
from ironkettle.store.jobs.rows import EntryRow, JobRow, SampleRow, SnapshotRow, log_rows, sheet_of
from ironkettle.store.sheets.rows import document_hash, is_draft, resolved_sheet, sheet_hash
from ironkettle.store.shop.tables import Shop, tables_of


def log_of(session: Session, job: JobRow) -> list[Entry]:
    """Every entry of a job, those of older formats read as what they are called now."""
    kits = kit_of(sheet_of(session, job))
    return [row.read(kits).entry for row in log_rows(session, job.id)]


def folded(session: Session, job: JobRow) -> State:
    """The state of a job from its whole log."""
    return fold((entry.payload, entry.mark) for entry in log_of(session, job))


class _Remembered:
    """States of the jobs looked at last, under the link of their last entry: the same link is always of the same log."""

    def __init__(self, most: int) -> None:
        self._most, self._states, self._lock = most, OrderedDict[tuple[UUID, str], State](), Lock()

    def get(self, job: JobRow) -> State | None:
        with self._lock:
            found = self._states.get((job.id, job.head))
            if found is not None:
                self._states.move_to_end((job.id, job.head))
        return None if found is None else found.copy()

    def keep(self, job: JobRow, state: State) -> None:
        with self._lock:
            self._states[(job.id, job.head)] = state.copy()
            self._states.move_to_end((job.id, job.head))
            if len(self._states) > self._most:
                self._states.popitem(last=False)


REMEMBERED = _Remembered(200)


def state_of(session: Session, job: JobRow) -> State:
    """The state of a job: as remembered, else from the snapshot beside it and the entries since, else from the whole log."""
    found = REMEMBERED.get(job)
    if found is None:
        found = _from_snapshot(session, job) or folded(session, job)
        REMEMBERED.keep(job, found)
    return found


def _from_snapshot(session: Session, job: JobRow) -> State | None:
    """The state from the snapshot and what was recorded since; None where it is of another log, or something was struck out since."""
    row = session.get(SnapshotRow, job.id)
    if row is None or row.format != SNAPSHOT_FORMAT:
        return None
    state = from_snapshot(row.state)
    rows = log_rows(session, job.id, after=state.count - 1)
    if not rows or rows[0].hash != row.head:
        return None
    kits = kit_of(sheet_of(session, job))
    for entry in [other.read(kits).entry for other in rows[1:]]:
        if isinstance(entry.payload, EntryStruck):
            return None
        apply_entry(state, entry.payload, entry.mark)
    return state


def case_of(session: Session, job: JobRow, state: State, shop: Shop, author: Author | None, now: datetime) -> Case:
    """What the rules of a job compute from."""
    check_basis(session, job, state)
    resolved = resolved_sheet(session, job.sheet_key, job.sheet_version, answers_in(state), quick_service_in(state))
    tables = tables_of(ShopSettings(under_their_names(job.settings)))
    carried = _carried(session, job)
    # A closed job looks for nothing on the shelf any more.
    shelf = () if closed_by(state) is not None else shop.shelf
    return Case(
        resolved,
        state,
        tables,
        now,
        author,
        shop.wrenches,
        shop.gauges,
        shelf,
        carried=carried,
        number=job.number,
        draft=is_draft(session, job.sheet_key, job.sheet_version),
        lubricants=shop.lubricants,
    )


def basis_of(session: Session, job: JobRow) -> JobBasis:
    """What a job is worked from, as the database holds it now."""
    return JobBasis(
        sheet=sheet_hash(session, job.sheet_key, job.sheet_version),
        settings=document_hash(job.settings),
        number=job.number,
    )


def check_basis(session: Session, job: JobRow, state: State) -> None:
    """Raises RefusedError where sheet, shop settings or number are not those that the job's intake sealed."""
    differs = basis_differs(session, job, state)
    if differs:
        text = f"{' and '.join(differs)} of job {job.number} is not what its intake sealed; run ./kettle verify and restore a backup"
        raise RefusedError("basis-changed", text)


def basis_differs(session: Session, job: JobRow, state: State) -> list[str]:
    """What of a job's basis is not as its intake sealed it; nothing for a job from before that was sealed."""
    intake = intake_of(state)
    sealed = None if intake is None else intake.mark.basis
    if sealed is None:
        return []
    now = basis_of(session, job)
    words = {"sheet": "the build sheet", "settings": "the shop settings", "number": "the number"}
    return [word for name, word in words.items() if getattr(sealed, name) != getattr(now, name)]


def _carried(session: Session, job: JobRow) -> Carried | None:
    """What a copy takes over; nothing any more once it is closed."""
    source = None if job.copied_from is None or job.released else session.get(JobRow, job.copied_from)
    return None if source is None else carried_from(source.number, state_of(session, source))


def run_samples(session: Session, job_id: UUID, run: str) -> tuple[Sample, ...]:
    """The samples of a run in the order they came. [s, MPa, °C]"""
    chunks = session.execute(
        select(EntryRow.seq, SampleRow.place, SampleRow.text)
        .join(EntryRow, EntryRow.id == SampleRow.entry_id)
        .where(SampleRow.job_id == job_id, SampleRow.run == run)
        .order_by(EntryRow.seq, SampleRow.place)
    ).all()
    if chunks:
        return tuple(sample for *_, text in chunks for sample in read_chunk(text))
    # Runs of the first two formats have their samples in the sealed text.
    rows = [row for row in log_rows(session, job_id) if row.kind == "test_samples" and row.seal_format < SAMPLES_BESIDE]
    opened = [row.read() for row in rows]
    return tuple(s for entry in opened if entry.payload["run"] == run for s in samples_within(entry.document))
