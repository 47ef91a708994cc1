"""The state of a job: one pure function of its build sheet and its log."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Generic, TypeVar
from uuid import UUID

from ironkettle.core.buildsheets import BuildSheet
from ironkettle.core.jobs import entries as e
from ironkettle.core.jobs.entries import Entry, Stage

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Mark:
    """Who did it, when at the bench, and under which entry it stands."""

    entry: UUID
    who: str
    when: datetime


@dataclass(frozen=True, slots=True)
class Marked(Generic[T]):
    """A recorded fact with who and when."""

    value: T
    mark: Mark


@dataclass(slots=True)
class TestRun:
    """One run of a test; samples in the order they came."""

    __test__ = False
    started: Marked[e.TestStarted]
    samples: list[e.SampleRead] = field(default_factory=list)
    closed: Mark | None = None
    note: str = ""


@dataclass(slots=True)
class JobState:
    """What is known of a job now. As found is never overwritten by as left."""

    intake: Marked[e.IntakeRecorded] | None = None
    steps: dict[str, Marked[e.StepDone]] = field(default_factory=dict)
    observations: dict[tuple[str, str], Marked[e.ObservationNoted]] = field(default_factory=dict)
    found: dict[str, Marked[e.ElementFound]] = field(default_factory=dict)
    rings: dict[str, Marked[e.RingChosen]] = field(default_factory=dict)
    kit: dict[str, Marked[e.KitCounted]] = field(default_factory=dict)
    fitted: dict[str, Marked[e.ElementFitted]] = field(default_factory=dict)
    readings: dict[tuple[str, int, int], Marked[e.FastenerTightened]] = field(default_factory=dict)
    runs: dict[UUID, TestRun] = field(default_factory=dict)
    skipped: dict[Stage, Marked[e.StageSkipped]] = field(default_factory=dict)
    notes: list[Marked[e.NoteMade]] = field(default_factory=list)
    released: Marked[e.Released] | None = None
    reopened: list[Marked[e.Reopened]] = field(default_factory=list)
    struck: dict[UUID, Marked[e.EntryStruck]] = field(default_factory=dict)
    count: int = 0

    def faced_as_found(self) -> dict[str, str]:
        """Element to the zone it faced at strip-down, for those where it was recorded."""
        return {key: found.value.faced for key, found in self.found.items() if found.value.faced}

    def runs_of(self, test: str) -> list[TestRun]:
        return [run for run in self.runs.values() if run.started.value.test == test]


def job_state(sheet: BuildSheet, log: Iterable[Entry]) -> JobState:
    """Fold the log into the state. Struck-out entries count no more, whatever came between.

    The sheet is part of the signature because the state means nothing without it: entries name its
    steps, elements and tests, and are checked against it before they are taken.
    """
    entries = list(log)
    state = JobState(count=len(entries))
    for entry in entries:
        if isinstance(entry.payload, e.EntryStruck):
            state.struck[entry.payload.entry] = Marked(entry.payload, _mark(entry))
    for entry in entries:
        if entry.id not in state.struck:
            apply = _APPLY.get(type(entry.payload))
            if apply is not None:
                apply(state, entry.payload, _mark(entry))
    return state


def _mark(entry: Entry) -> Mark:
    return Mark(entry.id, entry.who, entry.bench_time)


def _samples(state: JobState, payload: e.TestSamples, mark: Mark) -> None:
    run = state.runs.get(payload.run)
    if run is not None:
        run.samples.extend(payload.samples)


def _closed(state: JobState, payload: e.TestClosed, mark: Mark) -> None:
    run = state.runs.get(payload.run)
    if run is not None:
        run.closed, run.note = mark, payload.note


def _reopened(state: JobState, payload: e.Reopened, mark: Mark) -> None:
    state.released = None
    state.reopened.append(Marked(payload, mark))


def _keyed(book: str, key: Callable[[Any], Any]) -> Callable[[JobState, Any, Mark], None]:
    def apply(state: JobState, payload: Any, mark: Mark) -> None:
        getattr(state, book)[key(payload)] = Marked(payload, mark)

    return apply


def _single(name: str) -> Callable[[JobState, Any, Mark], None]:
    def apply(state: JobState, payload: Any, mark: Mark) -> None:
        setattr(state, name, Marked(payload, mark))

    return apply


_APPLY: dict[type, Callable[[JobState, Any, Mark], None]] = {
    e.IntakeRecorded: _single("intake"),
    e.StepDone: _keyed("steps", lambda p: p.step),
    e.ObservationNoted: _keyed("observations", lambda p: (p.observation, p.when)),
    e.ElementFound: _keyed("found", lambda p: p.element),
    e.RingChosen: _keyed("rings", lambda p: p.element),
    e.KitCounted: _keyed("kit", lambda p: p.line),
    e.ElementFitted: _keyed("fitted", lambda p: p.element),
    e.FastenerTightened: _keyed("readings", lambda p: (p.group, p.round, p.number)),
    e.TestStarted: lambda state, p, mark: state.runs.__setitem__(p.run, TestRun(Marked(p, mark))),
    e.TestSamples: _samples,
    e.TestClosed: _closed,
    e.StageSkipped: _keyed("skipped", lambda p: p.stage),
    e.NoteMade: lambda state, p, mark: state.notes.append(Marked(p, mark)),
    e.Released: _single("released"),
    e.Reopened: _reopened,
}
