"""What stands beside the log because it was made from it, held against the log: for the check command."""

from __future__ import annotations

import io
from collections.abc import Iterator
from uuid import UUID

from PIL import Image, ImageChops, ImageStat
from sqlalchemy import select
from sqlalchemy.orm import Session

from ironkettle.core.jobs import State
from ironkettle.core.jobs.kinds.ending import ENDING_WORD, closed_by, ending_of
from ironkettle.core.jobs.kinds.full_job import quick_service_in
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.photo import PHOTOS
from ironkettle.core.jobs.runs import plain
from ironkettle.core.machine.stand import RecordingPlan
from ironkettle.photos import made_small
from ironkettle.store.jobs.cases import basis_differs, folded, run_samples
from ironkettle.store.jobs.photos import PhotoRow
from ironkettle.store.jobs.recordings import chunks_of_recording, recordings_of, samples_of_chunks
from ironkettle.store.jobs.rows import JobRow, SampleRow, log_rows

# A thumbnail made again from its photo differs by rounding only; levels of 255.
_THUMB_LEVELS = 8.0


def derived_differs(session: Session, job: JobRow) -> list[str]:
    """Everything beside a job's log that does not say what its log says, in words."""
    state = folded(session, job)
    found = [f"{basis_differ} is not what its intake sealed" for basis_differ in basis_differs(session, job, state)]
    found += [f"the list shows another {name} than its log" for name in _columns(job, state)]
    found += _moved_samples(session, job)
    found += _photos(session, job, state)
    found += _recordings(session, job)
    return found


def _columns(job: JobRow, state: State) -> Iterator[str]:
    taken_in = intake_of(state)
    intake = None if taken_in is None else taken_in.value
    ended = ending_of(state)
    should = {"released": closed_by(state) is not None, "ended": "" if ended is None else ENDING_WORD[ended.how]}
    should |= {"quick_service": quick_service_in(state) or "", "entry_count": state.count}
    if intake is not None:
        for name in ("unit", "serial", "customer", "complaint", "promised"):
            should[name] = getattr(intake, name)
    yield from (name.replace("_", " ") for name, value in should.items() if getattr(job, name) != value)


def _moved_samples(session: Session, job: JobRow) -> Iterator[str]:
    """Samples that stand under another run or job than the entry they came with."""
    runs = {row.id: str(getattr(row.read().entry.payload, "run", row.id)) for row in log_rows(session, job.id)}
    kept = session.execute(
        select(SampleRow.entry_id, SampleRow.run, SampleRow.job_id).where(SampleRow.entry_id.in_(runs))
    )
    moved = {entry for entry, run, job_id in kept if run != runs[entry] or job_id != job.id}
    yield from (f"samples of entry {entry} stand under another run" for entry in sorted(moved, key=str))


def _photos(session: Session, job: JobRow, state: State) -> Iterator[str]:
    known = {UUID(str(photo.value.photo)): photo.value.sha256 for photo in state.book(PHOTOS).values()}
    for row in session.scalars(select(PhotoRow).where(PhotoRow.job_id == job.id)):
        if row.id in known and row.sha256 != known[row.id]:
            yield f"photo {row.id} is listed with another hash than was sealed"
        if not _is_thumb_of(row.thumb, row.image):
            yield f"the small picture of photo {row.id} shows something else"


def _is_thumb_of(thumb: bytes, image: bytes) -> bool:
    try:
        kept, made = (Image.open(io.BytesIO(picture)).convert("RGB") for picture in (thumb, made_small(image).thumb))
    except (OSError, ValueError):
        return False
    if kept.size != made.size:
        return False
    return max(ImageStat.Stat(ImageChops.difference(kept, made)).rms) <= _THUMB_LEVELS


def _recordings(session: Session, job: JobRow) -> Iterator[str]:
    """Recordings whose chunks say something else than the log took over of them."""
    for run, row in recordings_of(session, job.id).items():
        chunks = [chunk for chunk in chunks_of_recording(session, row.run) if chunk.place < row.in_log]
        recorded = plain(samples_of_chunks(RecordingPlan.model_validate(row.plan), chunks))
        if recorded != run_samples(session, job.id, run):
            yield f"recording {run[:8]} shows other readings than its log sealed"
