"""A run begins; its samples follow as they come."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey
from ironkettle.core.jobs.kinds.test_run import test_name
from ironkettle.core.jobs.proving import When, may_run
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import GaugeUsed, MeasuredInPlace
from ironkettle.core.jobs.state import Mark, Payload, Run, State
from ironkettle.core.jobs.test_forms import form_of_spec


class TestStarted(Payload):
    """A run begins; its samples follow as they come. ``compliance`` takes the place of the sheet's volume and modulus."""

    __test__ = False
    kind: Literal["test_started"] = "test_started"
    test: ItemKey
    run: UUID
    gauge: GaugeUsed
    source: Literal["typed", "csv", "stand"]
    when: When = "as_left"
    compliance: MeasuredInPlace | None = None


def _check(case: Case, payload: TestStarted) -> None:
    spec = may_run(case, payload.test, payload.when)
    form_of_spec(case, spec).check_start(payload.gauge, payload.compliance)
    if str(payload.run) in case.state.runs:
        raise RefusedError("run-exists", "this run was already started")


def _apply(state: State, payload: TestStarted, mark: Mark) -> None:
    run = Run(str(payload.run), payload.test, payload.when, mark, payload.gauge, payload.source, payload.compliance)
    state.runs[run.key] = run


def _words(resolved: Resolved, payload: TestStarted) -> str:
    measured = payload.compliance
    compliance = f"; measured in place: {measured.volume} let out dropped {measured.drop}" if measured else ""
    return f"{test_name(resolved, payload.test, payload.when)}: started with {payload.gauge.name}{compliance}"


KIND = EntryKind(payload=TestStarted, check=_check, apply=_apply, words=_words, completes="test:{test}:{when}")
