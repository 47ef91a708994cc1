"""Which run of a test counts, whether the unit is still what it was proven as, and what a certificate states of its tests."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ironkettle.core.jobs.calibration import past_calibration
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.setting import SETTINGS
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.kinds.take_apart import apart_since
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.state import Run, State
from ironkettle.core.jobs.task import Task


def counting_run(state: State, test: str) -> Run | None:
    """The run that counts for a test of the finished unit: the last one closed with a verdict."""
    closed = [run for run in state.runs_of(test, "as_left") if run.counts]
    return closed[-1] if closed else None


def worked_since(case: Case, seq: int) -> bool:
    """Whether the unit was worked on after an entry: what passed before that was another unit. ``seq``: the entry's place in the log [counted from 1]."""
    if apart_since(case, seq):
        return True
    rebuild = {step.key for step in case.resolved.sheet.steps if step.stage in {"strip", "rebuild"}}
    steps = [marked for key, marked in case.state.book(STEPS).items() if key in rebuild]
    marks = [marked.mark for marked in steps]
    marks += [mark for book in (FITTED, TIGHTENED, SETTINGS) for mark in case.state.marks(book)]
    return any(mark.seq > seq for mark in marks)


def closed_seq(run: Run) -> int:
    """The place in the log of the entry that closed a run [counted from 1]. Raises ValueError for one that is open."""
    if run.closed is None:
        raise ValueError("this run is open")
    return run.closed.seq


_VERDICT = {
    "fail": "failed",
    "undecided": "could not be decided",
    "invalid": "was not held as required",
}


def verdict_on(case: Case, test: str) -> str:
    """What a test of the finished unit came to: its verdict, *not run*, or *worked on since*."""
    run = counting_run(case.state, test)
    if run is None or run.judgement is None:
        return "not run"
    bound = any(test in step.runs for step in case.resolved.sheet.steps)
    return "worked on since" if not bound and worked_since(case, closed_seq(run)) else run.judgement.verdict


def tests_against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    """Tests that were not run, did not pass, or passed before the unit was worked on; gauges that were not known or out of date."""
    for test in case.resolved.sheet.tests:
        if test.when == "as_found":
            continue
        verdict = verdict_on(case, test.key)
        runs, counts = _closed(case, test.key), counting_run(case.state, test.key)
        if counts is None:
            yield f"{test.name}: not run."
        elif verdict == "worked on since":
            yield f"{test.name}: passed, and the unit was worked on after it."
        elif verdict != "pass":
            yield f"{test.name}, run {runs.index(counts.key) + 1}: {_VERDICT[verdict]}."
    gauges = [(run.gauge, run.mark.when.date()) for run in case.state.runs.values() if run.gauge is not None]
    yield from past_calibration(gauges)
    for test in case.resolved.sheet.tests:
        run, figures = counting_run(case.state, test.key), case.resolved.figure_tests.get(test.key)
        if run is not None and run.gauge is None and figures is not None and figures.reads_pressure:
            yield f"{test.name} was not read on a gauge of the shop's list: its error is not known."


def _closed(case: Case, test: str) -> list[str]:
    return [run.key for run in case.state.runs_of(test, "as_left") if run.closed is not None]


def remarks_on_tests(case: Case) -> Iterator[str]:
    """Runs that were abandoned, or did not pass and were run again."""
    for test in case.resolved.sheet.tests:
        counts = counting_run(case.state, test.key)
        closed = [done for done in case.state.runs_of(test.key, "as_left") if done.closed is not None]
        for number, run in enumerate(closed, start=1):
            if run.abandoned:
                yield f"{test.name}, run {number}: abandoned, {run.note}."
            elif run is not counts and run.judgement is not None and run.judgement.verdict != "pass":
                yield f"{test.name}, run {number}: {_VERDICT[run.judgement.verdict]}; it was run again."
