"""Samples of a running test, as they come."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.gauging import check_reach
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import Note
from ironkettle.core.jobs.proving import MOST_SAMPLES, check_forward, open_run
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import SampleRead
from ironkettle.core.jobs.state import Mark, Payload, Run, State

MOST_SAID = 40


class TestSamples(Payload):
    """Samples of a running test, times running forward over all of them; all of a run are of one hold of the stand.

    ``said``: what was wrong with the stand while they were read.
    """

    __test__ = False
    kind: Literal["test_samples"] = "test_samples"
    run: UUID
    samples: list[SampleRead] = Field(default_factory=list, max_length=MOST_SAMPLES)
    hold: int | None = Field(default=None, ge=1, le=2**31 - 1)
    said: list[Note] = Field(default_factory=list, max_length=MOST_SAID)


def _check(case: Case, payload: TestSamples) -> None:
    _check_samples(open_run(case, payload.run), payload)


def _check_samples(run: Run, payload: TestSamples) -> None:
    if not payload.samples:
        raise fault("samples", "no readings were sent")
    if run.source == "stand" and payload.hold is None:
        raise fault("hold", "say on which hold of the stand these were read")
    if run.hold is not None and payload.hold != run.hold:
        text = "the stand is on another hold than when this run began (was it restarted?); start a new run"
        raise RefusedError("other-hold", text)
    check_forward(payload.samples, run.last_s)
    if run.gauge is not None:
        check_reach(payload.samples, run.gauge)


def _apply(state: State, payload: TestSamples, mark: Mark) -> None:
    run = state.runs.get(str(payload.run))
    if run is not None:
        run.take(mark.chunks)
        run.hold = run.hold or payload.hold
        run.said = [*run.said, *payload.said]


def _words(resolved: Resolved, payload: TestSamples) -> str:
    return f"readings recorded{''.join(f'; {event}' for event in payload.said)}"


KIND = EntryKind(payload=TestSamples, check=_check, apply=_apply, words=_words)
