"""Which run of a test counts, and whether the unit is still what it was proven as."""

from __future__ import annotations

from ironkettle.core.jobs.kinds.again import apart_since
from ironkettle.core.jobs.log import Case, Run, State


def counting_run(state: State, test: str) -> Run | None:
    """The run that counts for a test of the finished unit: the last one closed with a verdict."""
    closed = [run for run in state.runs_of(test, "as_left") if run.counts]
    return closed[-1] if closed else None


def worked_since(case: Case, run: Run) -> bool:
    """Whether the unit was worked on after a run was closed: then it was another unit that passed."""
    assert run.closed is not None
    if apart_since(case, run.closed):
        return True
    seq = run.closed.seq
    rebuild = {step.key for step in case.resolved.sheet.steps if step.stage in {"strip", "rebuild"}}
    steps = [marked for key, marked in case.state.book("steps").items() if key in rebuild]
    others = [marked for book in ("fitted", "tightened", "settings") for marked in case.state.book(book).values()]
    return any(marked.mark.seq > seq for marked in (*steps, *others))
