"""A run ends: with its verdict, or abandoned with a word why."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal
from uuid import UUID

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.judging import analysis_of, judged, limit_of, planned_hold
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import Note
from ironkettle.core.jobs.proving import SHORTEST_WORD, hold_of, open_run, refuse_used_trace
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import Judgement, MeasuredInPlace
from ironkettle.core.jobs.state import Mark, Payload, Run, State
from ironkettle.core.jobs.witness import check_collected, with_glass
from ironkettle.core.machine.pressure import LEAST_READINGS
from ironkettle.core.sheets.document.fields import Written
from ironkettle.core.sheets.document.parts import Read


class TestClosed(Payload):
    """A run ends: with its verdict, or ``abandoned`` with a word why.

    ``collected``: what ran into the measuring glass meanwhile; ``compliance``: the step done after the hold, where the result
    depends on it.
    """

    __test__ = False
    kind: Literal["test_closed"] = "test_closed"
    run: UUID
    note: Note = ""
    abandoned: bool = False
    collected: Written | None = None
    compliance: MeasuredInPlace | None = None


def _check(case: Case, payload: TestClosed) -> None:
    _check_closing(case, open_run(case, payload.run), payload)


def _check_closing(case: Case, run: Run, payload: TestClosed) -> None:
    if payload.abandoned:
        if len(payload.note) < SHORTEST_WORD:
            raise fault("note", "say why the run is abandoned", "the hose burst")
        return
    spec = hold_of(case, run.test)
    refuse_used_trace(case)
    check_collected(spec, payload.collected)
    run = replace(run, compliance=payload.compliance or run.compliance)
    found = analysis_of(case, spec, run, case.recorded)
    held = run.last_s - run.first_s if run.count else 0.0
    assert run.gauge is not None
    wanted = planned_hold(case, spec, run.gauge, run.compliance)
    if found is not None and found.verdict in {"pass", "fail", "invalid"}:
        return
    if run.count < LEAST_READINGS or held < wanted:
        text = f"{run.count} readings over {held:.0f} s; {LEAST_READINGS} over {wanted:.0f} s are needed"
        raise RefusedError("too-short", f"{text}. Keep holding, or abandon the run with a reason")


def _judge(case: Case, payload: TestClosed) -> Judgement | None:
    if payload.abandoned:
        return None
    run = case.state.runs[str(payload.run)]
    spec = hold_of(case, run.test)
    run = replace(run, compliance=payload.compliance or run.compliance)
    found = judged(spec, analysis_of(case, spec, run, case.recorded))
    return with_glass(found, spec, payload.collected, limit_of(case, spec), run.last_s - run.first_s)


def _apply(state: State, payload: TestClosed, mark: Mark) -> None:
    run = state.runs.get(str(payload.run))
    if run is not None:
        run.closed, run.note, run.abandoned = mark, payload.note, payload.abandoned
        run.compliance = payload.compliance or run.compliance


def _words(resolved: Resolved, payload: TestClosed) -> str:
    glass = f"; {payload.collected} in the measuring glass" if payload.collected else ""
    step = payload.compliance
    glass += f"; measured in place: {step.volume} let out dropped {step.drop}" if step else ""
    return (
        f"test run {'abandoned' if payload.abandoned else 'closed'}{f': {payload.note}' if payload.note else ''}{glass}"
    )


KIND = EntryKind(
    payload=TestClosed,
    check=_check,
    apply=_apply,
    words=_words,
    judge=_judge,
    loose_asks=(Ask("note", Read.TEXT, "Note"),),
)
