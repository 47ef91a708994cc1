"""A job on a bench of its own, in memory: entries added as the rules allow, tasks walked as a script would."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from functools import cache
from typing import Any

from ironkettle.core.jobs import (
    Case,
    Mark,
    OnShelf,
    Payload,
    Resolved,
    State,
    Status,
    Task,
    check_entry,
    fold,
    next_task,
    read_payload,
    resolve,
    tasks_of,
)
from ironkettle.core.jobs.filling import put
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.core.jobs.kinds.full_job import quick_service_in
from ironkettle.core.jobs.kinds.question import answers_in
from ironkettle.core.jobs.kinds.strike import EntryStruck
from ironkettle.core.jobs.kinds.test_close import TestClosed
from ironkettle.core.jobs.registry import complete, judgement_of, kinds
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed, chunks_of, plain
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.shop.people import Author, Role
from ironkettle.demo.walker import filled
from ironkettle.demo.walker import tight_trace as trace
from ironkettle.reference import shipped_tables
from tests.tiny import UNITS, sheet_of, unit

__all__ = ["BEDE", "INTAKE", "START", "TABLES", "TAMSIN", "Job", "filled", "put", "trace"]
START = datetime(2026, 11, 24, 8, 0, tzinfo=UTC)
TABLES = shipped_tables()
BEDE = Author("bede", "Bede Harrowgate", Role.TECHNICIAN, ())
TAMSIN = Author("tamsin", "Tamsin Orrell", Role.LEAD, ())
INTAKE = {
    "kind": "intake_recorded", "unit": "Test unit", "serial": "T-1", "customer": "Lock Gate Workshop",
    "complaint": "It leaks", "fluid": "mineral oil ISO VG 46", "pressure": "4 bar",
}  # fmt: skip


SHIPPED_KINDS = kinds()


class Job:
    """A job of one sheet; the clock goes on by a minute with every entry."""

    def __init__(
        self, sheet: Sheet, *, intake: bool = True, author: Author = BEDE, quick_service: str | None = None
    ) -> None:
        self.sheet, self.author = sheet, author
        self.entries: list[tuple[Payload, Mark]] = []
        self.samples: dict[str, list[Sample]] = {}
        self.wrenches: dict[str, WrenchUsed] = {}
        self.gauges: dict[str, GaugeUsed] = {}
        self.shelf: tuple[OnShelf, ...] = ()
        self.tables = TABLES
        self.now = START
        self._folded: tuple[int, State] | None = None
        self._case: tuple[tuple[Any, ...], Case] | None = None
        self._resolved: dict[tuple[str | None, frozenset[tuple[str, str]]], Resolved] = {}
        self._as_usual = intake and author is BEDE and quick_service is None
        if intake:
            self.do({**INTAKE, "pressure": sheet.service.pressure, "quick_service": quick_service})

    @property
    def state(self) -> State:
        """Folded once for the entries there are."""
        if self._folded is None or self._folded[0] != len(self.entries):
            self._folded = (len(self.entries), fold(self.entries))
        return self._folded[1]

    @property
    def resolved(self) -> Resolved:
        return self._resolve(self.state)

    def _resolve(self, state: State) -> Resolved:
        """Resolved once for the answers given so far."""
        answers = answers_in(state)
        key = (quick_service_in(state), frozenset(answers.items()))
        if key not in self._resolved:
            self._resolved[key] = resolve(self.sheet, answers, quick_service_in(state))
        return self._resolved[key]

    def case(self) -> Case:
        """What the rules compute from now; the same one while nothing of it has changed, as its tasks are worked out once."""
        facts = (len(self.entries), self.tables, self.now, self.author, {**self.wrenches}, {**self.gauges}, self.shelf)
        if self._case is None or self._case[0] != facts:
            state = self.state
            self._case = facts, Case(self._resolve(state), state, *facts[1:])
        return self._case[1]

    def tasks(self) -> tuple[Task, ...]:
        return tasks_of(self.case())

    def task(self, key: str) -> Task:
        return next(task for task in self.tasks() if task.key == key)

    def keys(self, status: Status) -> list[str]:
        return [task.key for task in self.tasks() if task.status is status]

    def next(self) -> Task | None:
        return next_task(self.tasks())

    def do(self, document: dict[str, Any]) -> uuid.UUID:
        """Add an entry. Raises as the rules do."""
        payload, case = read_payload(document), self.case()
        if isinstance(payload, EntryStruck):
            owner = next(((mark.who, one) for one, mark in self.entries if mark.entry == payload.entry), None)
            case = replace(case, target=owner)
        if isinstance(payload, TestClosed):
            case = replace(case, recorded=tuple(self.samples.get(str(payload.run), ())))
        check_entry(case, payload)
        self.now += timedelta(minutes=1)
        read = list(getattr(payload, "samples", ()))
        entry = uuid.uuid4()
        self.samples.setdefault(str(getattr(payload, "run", entry)), []).extend(plain(read))
        mark = Mark(
            entry, len(self.entries) + 1, self.author.key, self.now, judgement=judgement_of(case, payload),
            chunks=tuple(seal for seal, _ in chunks_of(read)), noted=self.now,
        )  # fmt: skip
        kept = complete(case, payload)
        self.entries.append((kept.model_copy(update={"samples": []}) if read else kept, mark))
        return mark.entry

    def take(self, task: Task, **given: Any) -> uuid.UUID:
        """Do a task as a careful hand does, which waits out what takes time; the lead cuts a timer that nobody else may."""
        author, self.author = self.author, TAMSIN if task.kind.key == "timer" else self.author
        try:
            if task.lasts is not None:
                self.do(begin_entry(task.key))
                self.now += timedelta(seconds=task.lasts)
            return self.do(filled(task, **given))
        finally:
            self.author = author

    def walk(self, until: Callable[[Task], bool] = lambda task: False, most: int = 400) -> int:
        """Fill the asks of the next task and post it, again and again, until it is released or a task is reached."""
        done = self._follow(until) if self._is_new() else 0
        if done is None:
            return len(self.entries) - 1
        for count in range(done, most):
            task = self.next()
            if task is None or until(task):
                return count
            self.take(task)
        raise AssertionError(f"not released after {most} entries; next is {self.next()}")

    def _is_new(self) -> bool:
        """Whether it is a shipped unit just taken in, at a bench without tools: what a careful hand does with it is known."""
        bare = not (self.wrenches or self.gauges or self.shelf) and self.tables is TABLES and self.author is BEDE
        usual = self._as_usual and kinds() == SHIPPED_KINDS
        return usual and bare and len(self.entries) == 1 and self.sheet == shipped(self.sheet.key)

    def _follow(self, until: Callable[[Task], bool]) -> int | None:
        """The walk that was made once for this sheet, up to a task; None where it ends there, else how many of its entries are made."""
        for moment in walked(self.sheet.key):
            self.entries, self.now = list(moment.entries), moment.now
            self.samples = {run: list(samples) for run, samples in moment.samples.items()}
            if moment.task is None or until(moment.task):
                return None
        return len(self.entries) - 1


@dataclass(frozen=True)
class Moment:
    """A job as it stood in a walk, and the task that was next."""

    task: Task | None
    entries: tuple[tuple[Payload, Mark], ...]
    samples: dict[str, tuple[Sample, ...]]
    now: datetime


@cache
def shipped(key: str) -> Sheet | None:
    """A shipped sheet as it is; None for one that is made up."""
    return sheet_of(unit(key)) if (UNITS / f"{key}.yaml").exists() else None


@cache
def walked(key: str) -> tuple[Moment, ...]:
    """A shipped unit walked once, to its release: most tests want a job at some point of it."""
    sheet = shipped(key)
    assert sheet is not None
    job, moments = Job(sheet), []
    job._as_usual = False

    def stands(task: Task | None) -> bool:
        samples = {run: tuple(made) for run, made in job.samples.items()}
        moments.append(Moment(task, tuple(job.entries), samples, job.now))
        return False

    job.walk(until=stands)
    stands(None)
    return tuple(moments)
