"""A test run: a pressure hold judged from its trace, a test of another kind told in words with its sign.

A hold is told in one entry, or recorded as it comes: begun, its samples in parts, closed with its verdict.
"""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Any, Literal
from uuid import UUID

from pydantic import Field, field_validator, model_validator

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.jobs.gauging import check_gauge, check_listed, check_reach, gauge_for, gauge_that_tells
from ironkettle.core.jobs.judging import analysis_of, judged, limit_of, planned_hold
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.proven import counting_run, worked_since
from ironkettle.core.jobs.kinds.step import being_stripped, refuse_if_apart
from ironkettle.core.jobs.log import Case, Mark, Payload, Run, State
from ironkettle.core.jobs.model import Ask, Chapter, Draft, Kind, Move
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace, SampleRead, plain
from ironkettle.core.jobs.trialling import in_words, judged_of
from ironkettle.core.jobs.witness import check_collected, with_glass
from ironkettle.core.machine.pressure import (
    LEAST_READINGS,
)
from ironkettle.core.sheets.document.fields import Written
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import TestSpec

When = Literal["as_found", "as_left"]
MOST_SAMPLES = 20_000
MOST_SAID = 40
# Room for a few thousand readings as they are written.
MOST_RECORD = 500_000
_SHORTEST_WORD = 4


class TestRun(Payload):
    """A run told in one. A hold has its gauge and its samples; the other kinds their ``record``, as the kind has it.

    ``collected``: what ran into the measuring glass at the open port, where the sheet puts one there.
    """

    __test__ = False
    kind: Literal["test_run"] = "test_run"
    test: ItemKey
    when: When
    gauge: GaugeUsed | None = None
    samples: list[SampleRead] = Field(default_factory=list, max_length=MOST_SAMPLES)
    compliance: MeasuredInPlace | None = None
    collected: Written | None = None
    record: dict[str, Any] | None = None
    note: Note = ""

    @model_validator(mode="before")
    @classmethod
    def _as_it_was_told_before(cls, told: Any) -> Any:
        """Entries of an earlier version had the sign and the word beside the record."""
        if not isinstance(told, dict) or not ({"seen", "value"} & told.keys()):
            return told
        kept = {key: one for key, one in told.items() if key not in {"seen", "value"}}
        if told.get("seen") is None or told.get("record") is not None:
            return kept
        return {**kept, "record": {"seen": told["seen"], "value": told.get("value")}}

    @field_validator("record")
    @classmethod
    def _is_small(cls, record: dict[str, Any] | None) -> dict[str, Any] | None:
        if record is not None and len(json.dumps(record, default=str)) > MOST_RECORD:
            raise ValueError(f"is longer than {MOST_RECORD} characters")
        return record


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


PAYLOADS = (TestRun, TestStarted, TestSamples, TestClosed)


def _spec(case: Case, key: str) -> TestSpec:
    tests = {one.key: one for one in case.resolved.sheet.tests}
    known("test", key, tests, "test")
    return tests[key]


def check(case: Case, payload: Payload) -> None:
    if isinstance(payload, TestRun):
        _check_told(case, payload)
    elif isinstance(payload, TestStarted):
        spec = _may_run(case, payload.test, payload.when)
        if spec.key in case.resolved.told:
            raise fault("test", f"{spec.name} is told in one: {case.resolved.told[spec.key].says}")
        if str(payload.run) in case.state.runs:
            raise RefusedError("run-exists", "this run was started already")
        check_gauge(case, spec, payload.gauge)
        planned_hold(case, spec, payload.gauge, payload.compliance)
    elif isinstance(payload, TestSamples):
        _check_samples(_open_run(case, payload.run), payload)
    elif isinstance(payload, TestClosed):
        _check_closing(case, _open_run(case, payload.run), payload)


def _may_run(case: Case, test: str, when: When) -> TestSpec:
    spec = _spec(case, test)
    if spec.when not in {when, "both"}:
        raise fault("when", f"{spec.name} is run {'as found' if spec.when == 'as_found' else 'as left'}", spec.when)
    if when == "as_left":
        # One that a step runs is run where it stands, before what is put on after it.
        if not any(spec.key in step.runs for step in case.resolved.sheet.steps):
            refuse_if_apart(case)
    elif being_stripped(case):
        raise RefusedError("apart", "the unit is being stripped; what it was like before can be tested no more")
    return spec


def _check_told(case: Case, payload: TestRun) -> None:
    spec = _may_run(case, payload.test, payload.when)
    told = case.resolved.told.get(spec.key)
    if told is not None:
        if payload.record is None:
            raise fault("record", f"what was read? {told.says}")
        if payload.samples:
            raise fault("samples", f"{spec.name} is not told by a trace")
        if payload.gauge is not None:
            check_listed(case, payload.gauge)
        told.outcome(payload.record, payload.gauge)
        return
    if payload.record is not None:
        raise fault("record", f"{spec.name} is told by its trace: give its readings as samples")
    if payload.gauge is None:
        raise fault("gauge", "on which gauge was it read?")
    check_gauge(case, spec, payload.gauge)
    _forward(payload.samples, -1.0)
    check_reach(payload.samples, payload.gauge)
    if len(payload.samples) < 2:
        raise fault("samples", "a hold needs its readings")
    check_collected(spec, payload.collected)
    _unused(case)


def _unused(case: Case) -> None:
    """Raises RefusedError for a trace that another run of this shop sealed."""
    if case.trace_of is not None:
        where = "this job" if case.trace_of == case.number else f"job {case.trace_of}"
        text = f"these readings were sealed already by another test of {where}; one trace proves one test. Hold again and read"
        raise RefusedError("trace-used", text)


def _forward(samples: Sequence[SampleRead], last: float) -> None:
    for index, sample in enumerate(samples):
        if sample.t_s <= last:
            text = f"time {sample.t_s:g} s does not come after {last:g} s"
            raise fault(f"samples.{index}.t_s", text, "times running forward")
        last = sample.t_s


def _open_run(case: Case, key: UUID) -> Run:
    run = case.state.runs.get(str(key))
    if run is None:
        raise fault("run", "no such test run in this job")
    if run.closed is not None:
        raise RefusedError("run-closed", "this run is closed; start a new one")
    return run


def _check_samples(run: Run, payload: TestSamples) -> None:
    if not payload.samples:
        raise fault("samples", "no readings came")
    if run.source == "stand" and payload.hold is None:
        raise fault("hold", "say on which hold of the stand these were read")
    if run.hold is not None and payload.hold != run.hold:
        text = "the stand holds something else now than when this run began (was it started again?); start a new run"
        raise RefusedError("other-hold", text)
    _forward(payload.samples, run.last_s)
    if run.gauge is not None:
        check_reach(payload.samples, run.gauge)


def _check_closing(case: Case, run: Run, payload: TestClosed) -> None:
    if payload.abandoned:
        if len(payload.note) < _SHORTEST_WORD:
            raise fault("note", "say in a word why the run is abandoned", "the hose burst")
        return
    spec = _spec(case, run.test)
    _unused(case)
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
        raise RefusedError("too-short", f"{text}. Go on holding, or give the run up with a word")


def judgement_of(case: Case, payload: Payload) -> Judgement | None:
    """What the run comes to that this entry tells or closes; None for an entry that closes none."""
    if isinstance(payload, TestRun):
        spec = _spec(case, payload.test)
        told = case.resolved.told.get(spec.key)
        if told is None:
            found = judged(spec, analysis_of(case, spec, payload, plain(payload.samples)))
            return with_glass(found, spec, payload.collected, limit_of(case, spec), found.hold_s)
        return judged_of(told, told.outcome(payload.record or {}, payload.gauge))
    if isinstance(payload, TestClosed) and not payload.abandoned:
        run = case.state.runs[str(payload.run)]
        spec = _spec(case, run.test)
        run = replace(run, compliance=payload.compliance or run.compliance)
        found = judged(spec, analysis_of(case, spec, run, case.recorded))
        return with_glass(found, spec, payload.collected, limit_of(case, spec), run.last_s - run.first_s)
    return None


def apply(state: State, payload: Payload, mark: Mark) -> None:
    if isinstance(payload, TestRun):
        run = Run(
            str(mark.entry), payload.test, payload.when, mark, payload.gauge, compliance=payload.compliance, closed=mark,
            record=payload.record, note=payload.note,
        )  # fmt: skip
        run.take(mark.chunks)
        state.runs[run.key] = run
    elif isinstance(payload, TestStarted):
        run = Run(str(payload.run), payload.test, payload.when, mark, payload.gauge, payload.source, payload.compliance)
        state.runs[run.key] = run
    elif isinstance(payload, TestSamples) and (present := state.runs.get(str(payload.run))):
        present.take(mark.chunks)
        present.hold = present.hold or payload.hold
        present.said = [*present.said, *payload.said]
    elif isinstance(payload, TestClosed) and (present := state.runs.get(str(payload.run))):
        present.closed, present.note, present.abandoned = mark, payload.note, payload.abandoned
        present.compliance = payload.compliance or present.compliance


def drafts(case: Case) -> Iterator[Draft]:
    sheet = case.resolved.sheet
    safe = {f"step:{step.key}": "make it safe first" for step in sheet.steps if step.stage == "safe"}
    runs = {key: step for step in sheet.steps for key in step.runs}
    rebuilt = {f"step:{step.key}": "" for step in sheet.steps if step.stage == "rebuild"}
    for spec in sheet.tests:
        if spec.when in {"as_found", "both"}:
            # On the machine before it is made safe, on the stand or bench after it.
            after = {} if spec.place == "machine" else safe
            done = any(run.counts for run in case.state.runs_of(spec.key, "as_found"))
            yield Draft(_move(case, spec, "as_found"), done, skipped=not done and being_stripped(case), after=after)
        if spec.when in {"as_left", "both"}:
            step = runs.get(spec.key)
            after = {f"step:{step.key}": ""} if step else {f"step:{key}": "" for key in spec.after} or rebuilt
            if not step:
                after = {**after, **_ready(case)}
            passed = _passed(case, spec, at_a_step=step is not None)
            yield Draft(_move(case, spec, "as_left"), passed, step=step.key if step else None, after=after)


def _ready(case: Case) -> dict[str, str]:
    """Everything that is tightened and set stands before a test of the finished unit."""
    steps = [step for step in case.resolved.sheet.steps if step.stage == "rebuild"]
    return {f"step:{step.key}": "the unit is apart" for step in steps if step.puts_on or step.closes}


def _passed(case: Case, spec: TestSpec, *, at_a_step: bool) -> bool:
    run = counting_run(case.state, spec.key)
    if run is None or run.judgement is None or run.judgement.verdict != "pass":
        return False
    return at_a_step or not worked_since(case, run)


def _move(case: Case, spec: TestSpec, when: When) -> Move:
    entry: dict[str, Any] = {"kind": "test_run", "test": spec.key, "when": when}
    asks: tuple[Ask, ...]
    told = case.resolved.told.get(spec.key)
    if told is not None:
        gauge = gauge_that_tells(case, told)
        entry["gauge"] = None if gauge is None else gauge.model_dump(mode="json")
        entry["record"] = told.blank
        asks = told.asks
    else:
        used = gauge_for(case, spec)
        entry["gauge"] = used.model_dump(mode="json")
        held = planned_hold(case, spec, used)
        pressure = read_gauge_pressure(spec.pressure or "", "pressure")
        needs = {
            "pressure_mpa": pressure,
            "seconds": round(1.1 * held + 20, 1),
            "every_s": round(max(held / 60, 2.0), 1),
        }
        asks = (Ask("samples", Read.TRACE, f"Hold {spec.pressure}", needs=needs, hint=spec.leak_limit),)
        if spec.glass is not None:
            # Half of what a leak at the limit would run in that time.
            most = round(limit_of(case, spec) * needs["seconds"] / 60 / 2, 3)
            asks = (
                *asks,
                Ask(
                    "collected",
                    Read.VOLUME,
                    f"Into the measuring glass at the {spec.glass}",
                    unit="ml",
                    limit=(0.0, most),
                ),
            )
    as_found = when == "as_found"
    return Move(
        f"test:{spec.key}:{when}",
        Chapter.AS_FOUND if as_found else Chapter.TEST,
        Kind.TEST,
        spec.key,
        f"{spec.name}{', as found' if as_found else ''}",
        entry,
        why=spec.how,
        caution=spec.caution,
        place=next(iter(spec.all_zones), None),
        hold=f"State: {spec.state}" if spec.state else None,
        asks=asks,
    )


def words(resolved: Resolved, payload: Payload) -> str:
    if isinstance(payload, TestClosed):
        glass = f"; {payload.collected} in the measuring glass" if payload.collected else ""
        step = payload.compliance
        glass += f"; measured in place: {step.volume} let out dropped {step.drop}" if step else ""
        return f"test run {'abandoned' if payload.abandoned else 'closed'}{f': {payload.note}' if payload.note else ''}{glass}"
    if isinstance(payload, TestSamples):
        return f"readings recorded{''.join(f'; {one}' for one in payload.said)}"
    assert isinstance(payload, TestRun | TestStarted)
    spec = next((one for one in resolved.sheet.tests if one.key == payload.test), None)
    name = f"{spec.name if spec else payload.test}, {'as found' if payload.when == 'as_found' else 'as left'}"
    if isinstance(payload, TestStarted):
        measured = payload.compliance
        beside = f"; measured in place: {measured.volume} let out dropped {measured.drop}" if measured else ""
        return f"{name}: started with {payload.gauge.name}{beside}"
    if payload.record is None and payload.gauge:
        glass = f", {payload.collected} in the measuring glass" if payload.collected else ""
        return f"{name}: held on {payload.gauge.name}{glass}"
    return f"{name}: {in_words(payload.record or {})}"
