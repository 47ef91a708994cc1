"""Figures of photos: the bench list and a job's answer with twenty photos on each of a thousand jobs, against none."""

from __future__ import annotations

import hashlib
import uuid
from collections.abc import Iterator
from datetime import UTC, datetime

from sqlalchemy import Engine, text

from ironkettle.benchmarks.jobs import Bench, Figure
from ironkettle.benchmarks.timing import median_time
from ironkettle.core.jobs import read_payload
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.bench_list import Sought, list_jobs
from ironkettle.store.jobs.photos import PhotoRow, add_photo

JOBS, PHOTOS = 1000, 20
_CONTENT = bytes(range(256)) * 32
# Jobs like the one that was opened, and a photo of 8 kB for each of them so many times.
_MANY_JOBS = """
INSERT INTO jobs (id, sheet_key, sheet_version, unit, serial, customer, complaint, stage, next_need, released, tasks_done,
                  tasks_total, timer_for, entry_count, head, opened_at, touched_at, touched_by, short, causes, settings, ended,
                  quick_service, family, waits, words)
SELECT gen_random_uuid(), sheet_key, sheet_version, unit, 'FN-B' || n, customer, complaint, stage, next_need, released,
       tasks_done, tasks_total, timer_for, entry_count, head, opened_at, touched_at, touched_by, short, causes, settings, ended,
       quick_service, family, waits, words
FROM jobs, generate_series(1, :count) n WHERE id = :job
"""
_MANY_PHOTOS = """
INSERT INTO photos (id, job_id, who, taken_at, sha256, width, height, image, thumb)
SELECT gen_random_uuid(), jobs.id, 'tamsin', now(), '', 1600, 1200, :content, :content
FROM jobs, generate_series(1, :count) WHERE serial LIKE 'FN-B%'
"""


def figures(url: str) -> Iterator[Figure]:
    """Each as its time with photos beside the same without, on a database with the demo in it."""
    engine = make_engine(url, patient=True)
    bench = Bench(engine)
    bare, shown = bench.job(PHOTOS + 2), bench.job(2)
    _execute(engine, _MANY_JOBS, job=bare, count=JOBS)
    listed, answered = median_time(lambda: _page(engine), 15), median_time(lambda: bench.answer(bare), 15)
    _execute(engine, _MANY_PHOTOS, count=PHOTOS, content=_CONTENT)
    for _ in range(PHOTOS):
        _told(engine, bench, shown)
    yield (
        f"bench list of {JOBS:,} jobs with {PHOTOS} photos each / none",
        median_time(lambda: _page(engine), 15),
        listed,
    )
    yield f"answer of a job with {PHOTOS} photos / notes", median_time(lambda: bench.answer(shown), 15), answered
    engine.dispose()


def _execute(engine: Engine, statement: str, **values: object) -> None:
    with engine.begin() as connection:
        connection.execute(text(statement), values)


def _page(engine: Engine) -> int:
    with session_of(engine) as session:
        return len(list_jobs(session, Sought(), datetime.now(UTC)).jobs)


def _told(engine: Engine, bench: Bench, job: uuid.UUID) -> None:
    photo = uuid.uuid4()
    with session_of(engine) as session:
        row = PhotoRow(
            id=photo,
            job_id=job,
            who="tamsin",
            taken_at=datetime.now(UTC),
            sha256=hashlib.sha256(_CONTENT).hexdigest(),
            width=1600,
            height=1200,
            image=_CONTENT,
            thumb=_CONTENT,
        )
        add_photo(session, row)
    bench.add(job, read_payload({"kind": "photo_taken", "photo": str(photo), "words": "as it came off"}))
