"""Figures of a job on a real database: an entry more on a long log, and the answer of a job with half a million samples."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from datetime import UTC, datetime

from sqlalchemy import Engine

from ironkettle.api.jobs.view import EntryOnlyOut, job_state, job_view, meanwhile, tasks_out
from ironkettle.benchmarks.timing import median_time
from ironkettle.core.jobs import Payload, next_task, read_payload, tasks_of
from ironkettle.core.shop.people import Author, Authorisation, Authority, Role
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.demo.walker import filled
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.cases import case_of, state_of
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.jobs.rows import JobRow, open_job
from ironkettle.store.sheets.rows import load_sheet
from ironkettle.store.shop.tables import shop_of

Figure = tuple[str, float, float]
SHORT_LOG, LONG_LOG, SAMPLES = 20, 1000, 500_000
_PORTION = 20_000
_SHEET = "swing-bridge-ram"


def figures(url: str) -> Iterator[Figure]:
    """Each as its time beside a floor taken in the same run, on a database with the demo in it."""
    engine = make_engine(url)
    bench = Bench(engine)
    short, long = bench.job(SHORT_LOG), bench.job(LONG_LOG)
    few = median_time(lambda: bench.note(short), 15)
    yield (
        f"an entry more after {LONG_LOG:,} entries / after {SHORT_LOG}",
        median_time(lambda: bench.note(long), 15),
        few,
    )
    answered = median_time(lambda: bench.posted(short), 15)
    yield (
        f"an entry with its answer after {LONG_LOG:,} entries / after {SHORT_LOG}",
        median_time(lambda: bench.posted(long), 15),
        answered,
    )
    yield "an entry with its answer / the entry alone", answered, few
    bare, sampled = bench.tested(2), bench.tested(SAMPLES)
    answer = median_time(lambda: bench.answer(bare), 15)
    yield f"answer of a job with {SAMPLES:,} samples / without", median_time(lambda: bench.answer(sampled), 15), answer
    engine.dispose()


class Bench:
    """Opens jobs on the demo's ram and adds to them, as its lead."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        until = datetime(2099, 12, 31, tzinfo=UTC).date()
        self._author = Author("tamsin", "Tamsin Orrell", Role.LEAD, (Authorisation(Authority.LIFTING, until),))

    def job(self, entries: int) -> uuid.UUID:
        """A job with so many entries: taken in, the rest notes and looks."""
        job = self._opened()
        looked = {"kind": "observation_noted", "observation": "rod-leak", "when": "as_found", "value": "12"}
        for number in range(entries - 1):
            document = looked if number % 2 else {"kind": "note_made", "text": "turned, cleaned, looked at"}
            self.add(job, read_payload(document))
        return job

    def tested(self, samples: int) -> uuid.UUID:
        """A job walked to its first hold, with a run of so many samples."""
        job = self._opened()
        with session_of(self._engine) as session:
            shop = shop_of(session)
        while True:
            with session_of(self._engine) as session:
                row = session.get_one(JobRow, job)
                tasks = tasks_of(case_of(session, row, state_of(session, row), shop, self._author, datetime.now(UTC)))
            task = next_task(tasks)
            assert task is not None
            if task.kind.key == "test":
                break
            # A lead may close what takes time before it has run.
            short = {} if task.lasts is None else {"cut_short": "nobody waits for a benchmark"}
            self.add(job, read_payload(filled(task, **short)))
        run = str(uuid.uuid4())
        test = {
            "kind": "test_started",
            "test": task.subject,
            "run": run,
            "gauge": task.entry["gauge"],
            "source": "typed",
        }
        self.add(job, read_payload(test))
        for start in range(0, samples, _PORTION):
            read = [
                {"t_s": float(t), "pressure_mpa": 18.0, "temperature_c": 24.0}
                for t in range(start, min(start + _PORTION, samples))
            ]
            self.add(job, read_payload({"kind": "test_samples", "run": run, "samples": read}))
        return job

    def note(self, job: uuid.UUID) -> None:
        self.add(job, read_payload({"kind": "note_made", "text": "one more"}))

    def posted(self, job: uuid.UUID) -> str:
        """An entry, and the answer with what it changed."""
        now, payload = datetime.now(UTC), read_payload({"kind": "note_made", "text": "one more"})
        with session_of(self._engine) as session:
            entry = NewEntry(uuid.uuid4(), now, payload)
            done = append_entry(session, job, entry, self._author, shop_of(session), now)
            state = job_state(session, session.get_one(JobRow, job), done.case, done.tasks)
            tasks = tasks_out(session, done.case, done.tasks)
            since = meanwhile(session, session.get_one(JobRow, job), done.case, None)
            return EntryOnlyOut(seq=done.row.seq, state=state, tasks=tasks, meanwhile=since).model_dump_json()

    def answer(self, job: uuid.UUID) -> str:
        with session_of(self._engine) as session:
            row = session.get_one(JobRow, job)
            case = case_of(session, row, state_of(session, row), shop_of(session), self._author, datetime.now(UTC))
            return job_view(session, row, case, tasks_of(case)).model_dump_json()

    def _opened(self) -> uuid.UUID:
        job = uuid.uuid4()
        with session_of(self._engine) as session:
            sheet = load_sheet(session, _SHEET)
            assert sheet is not None
            open_job(session, job, sheet, ShopSettings({}), datetime.now(UTC))
        intake = {
            "kind": "intake_recorded", "unit": "Bench ram", "serial": "FN-0000", "customer": "bench", "complaint": "none",
            "fluid": "mineral oil ISO VG 46", "pressure": "180 bar",
        }  # fmt: skip
        self.add(job, read_payload(intake))
        return job

    def add(self, job: uuid.UUID, payload: Payload) -> None:
        now = datetime.now(UTC)
        with session_of(self._engine) as session:
            append_entry(session, job, NewEntry(uuid.uuid4(), now, payload), self._author, shop_of(session), now)
