"""What the kinds of a test run share: the test of the sheet, whether it may be run now, and its trace."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal
from uuid import UUID

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.base import known
from ironkettle.core.jobs.kinds.step import being_stripped, refuse_if_apart
from ironkettle.core.jobs.runs import SampleRead
from ironkettle.core.jobs.state import Run
from ironkettle.core.jobs.task import Stage, Task
from ironkettle.core.sheets.document.trials import HoldTest, TestSpec

When = Literal["as_found", "as_left"]


MOST_SAMPLES = 20_000


SHORTEST_WORD = 4


def spec_of(case: Case, key: str) -> TestSpec:
    """The test of that key. Raises RuleError for a key the sheet does not have."""
    tests = {test.key: test for test in case.resolved.sheet.tests}
    known("test", key, tests, "test")
    return tests[key]


def hold_of(case: Case, key: str) -> HoldTest:
    """A pressure hold of the sheet. Raises RuleError for another key, and for a test of another kind."""
    spec = spec_of(case, key)
    if not isinstance(spec, HoldTest):
        raise fault("test", f"{spec.name} is no pressure hold: it is recorded in one entry")
    return spec


def may_run(case: Case, test: str, when: When) -> TestSpec:
    """The test, if it may be run now. Raises RuleError where it is not run then, RefusedError where the unit is apart."""
    spec = spec_of(case, test)
    if spec.when not in {when, "both"}:
        raise fault("when", f"{spec.name} is run {'as found' if spec.when == 'as_found' else 'as left'}", spec.when)
    if when == "as_left":
        # One that a step runs is run where it stands, before what is put on after it.
        if not any(spec.key in step.runs for step in case.resolved.sheet.steps):
            refuse_if_apart(case)
    elif being_stripped(case):
        raise RefusedError("blocked", "the unit is being stripped; it can no longer be tested as found")
    return spec


def when_of(task: Task) -> When:
    """Whether a task tests the unit as found or as left."""
    return "as_found" if task.stage is Stage.AS_FOUND else "as_left"


def refuse_used_trace(case: Case) -> None:
    """Raises RefusedError for a trace that another run of this shop sealed."""
    if case.trace_of is not None:
        where = "this job" if case.trace_of == case.number else f"job {case.trace_of}"
        text = f"these readings were already recorded in another test of {where}; each test needs its own readings. Hold again and read"
        raise RefusedError("trace-used", text)


def check_forward(samples: Sequence[SampleRead], last: float) -> None:
    """Whether times run forward, each above the one before and the first above ``last``. [s] Raises RuleError naming the sample."""
    for index, sample in enumerate(samples):
        if sample.t_s <= last:
            text = f"time {sample.t_s:g} s does not come after {last:g} s"
            raise fault(f"samples.{index}.t_s", text, "times running forward")
        last = sample.t_s


def open_run(case: Case, key: UUID) -> Run:
    """The run of that key while it is open. Raises RuleError where there is none, RefusedError where it is closed."""
    run = case.state.runs.get(str(key))
    if run is None:
        raise fault("run", "no such test run in this job")
    if run.closed is not None:
        raise RefusedError("run-closed", "this run is closed; start a new one")
    return run
