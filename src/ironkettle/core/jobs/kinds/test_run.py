"""A test run told in one entry: a hold with its trace, a test of another kind with what was read."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Literal

from pydantic import Field, JsonValue, field_validator, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import OFFERED, find_unit, show
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.figure_tests import in_words, judged_of
from ironkettle.core.jobs.gauging import check_gauge, check_listed, check_reach, gauge_for, gauge_that_tells
from ironkettle.core.jobs.judging import analysis_of, judged, limit_of, planned_hold
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note
from ironkettle.core.jobs.kinds.step import being_stripped
from ironkettle.core.jobs.proven import counting_run, tests_against, tests_beside, worked_since
from ironkettle.core.jobs.proving import MOST_SAMPLES, When, check_forward, may_run, refuse_used_trace, spec_of
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace, SampleRead, plain
from ironkettle.core.jobs.screen import AllAsShould, Screen
from ironkettle.core.jobs.state import Mark, Payload, Run, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind, all_as_should
from ironkettle.core.jobs.witness import check_collected, with_glass
from ironkettle.core.sheets.document.fields import Written
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import HoldTest, TestSpec


class HoldScreen(Screen):
    """A pressure hold. ``says``: what is held on what, in words. ``gauge``: the one proposed, and ``hold_s``, how long it must hold on it; ``glass``: the port at which a measuring
    glass stands."""

    kind: Literal["hold"] = "hold"
    test: str
    when: When
    says: str
    pressure: str
    leak_limit: str
    glass: str | None
    gauge: str
    hold_s: float


class FiguresScreen(Screen):
    """A test recorded as figures: what is wanted, how it is run, where to stand; ``on_gauge``: read on one of the shop's gauges.

    ``coarsest``: the widest step that gauge may have; ``amiss``: why its figures are recorded in words only.
    """

    kind: Literal["figures"] = "figures"
    test: str
    when: When
    word: str
    says: str
    steps: list[str]
    stand: str
    caution: str | None
    on_gauge: bool
    coarsest: str | None
    amiss: str | None
    as_should: AllAsShould | None


def _screen(case: Case, task: Task) -> Screen:
    spec, when = spec_of(case, task.subject), _when(task)
    if isinstance(spec, HoldTest):
        used = gauge_for(case, spec)
        return HoldScreen(
            test=spec.key, when=when, says=_hold_words(spec), pressure=spec.pressure, leak_limit=spec.leak_limit, glass=spec.glass,
            gauge=used.name, hold_s=planned_hold(case, spec, used),
        )  # fmt: skip
    told = case.resolved.figure_tests[spec.key]
    found = told.plan(None)
    unit = None if found.dimension is None else find_unit(OFFERED[found.dimension][0])
    return FiguresScreen(
        test=spec.key,
        when=when,
        word=told.bound.word,
        says=told.bound.says,
        steps=list(found.steps),
        stand=found.stand,
        caution=found.caution,
        on_gauge=told.reads_pressure,
        coarsest=None if found.coarsest is None or unit is None else show(found.coarsest, unit),
        amiss=told.amiss,
        as_should=all_as_should(case, task),
    )


def _when(task: Task) -> When:
    return "as_found" if task.stage is Stage.AS_FOUND else "as_left"


def _hold_words(spec: HoldTest) -> str:
    modulus = f", effective bulk modulus {spec.bulk_modulus_gpa:g} GPa" if spec.bulk_modulus_gpa else ""
    return f"{spec.pressure} on {spec.volume} of {spec.medium}{modulus}; leak at most {spec.leak_limit}"


_TASK = TaskKind("test", "Record the result", rank=8, rides=True, screen=_screen)
# Room for a few thousand readings as they are written.
MOST_RECORD = 500_000


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
    record: dict[str, JsonValue] | None = None
    note: Note = ""

    @model_validator(mode="before")
    @classmethod
    def _as_it_was_told_before(cls, told: object) -> object:
        """Entries of an earlier version had the sign and the word beside the record."""
        if not isinstance(told, dict) or not ({"seen", "value"} & told.keys()):
            return told
        kept = {key: one for key, one in told.items() if key not in {"seen", "value"}}
        if told.get("seen") is None or told.get("record") is not None:
            return kept
        return {**kept, "record": {"seen": told["seen"], "value": told.get("value")}}

    @field_validator("record")
    @classmethod
    def _is_small(cls, record: dict[str, JsonValue] | None) -> dict[str, JsonValue] | None:
        if record is not None and len(json.dumps(record, default=str)) > MOST_RECORD:
            raise ValueError(f"is longer than {MOST_RECORD} characters")
        return record


def _check(case: Case, payload: TestRun) -> None:
    spec = may_run(case, payload.test, payload.when)
    if isinstance(spec, HoldTest):
        _check_hold(case, spec, payload)
        return
    told = case.resolved.figure_tests[spec.key]
    if payload.record is None:
        raise fault("record", f"what was read? {told.bound.says}")
    if payload.samples:
        raise fault("samples", f"{spec.name} has no trace: enter its readings")
    if payload.gauge is not None:
        check_listed(case, payload.gauge)
    told.outcome(payload.record, payload.gauge)


def _check_hold(case: Case, spec: HoldTest, payload: TestRun) -> None:
    if payload.record is not None:
        raise fault("record", f"{spec.name} needs a trace: enter its readings as samples")
    if payload.gauge is None:
        raise fault("gauge", "on which gauge was it read?")
    check_gauge(case, spec, payload.gauge)
    check_forward(payload.samples, -1.0)
    check_reach(payload.samples, payload.gauge)
    if len(payload.samples) < 2:
        raise fault("samples", "a hold needs its readings")
    check_collected(spec, payload.collected)
    refuse_used_trace(case)


def _judge(case: Case, payload: TestRun) -> Judgement:
    spec = spec_of(case, payload.test)
    if isinstance(spec, HoldTest):
        found = judged(spec, analysis_of(case, spec, payload, plain(payload.samples)))
        return with_glass(found, spec, payload.collected, limit_of(case, spec), found.hold_s)
    told = case.resolved.figure_tests[spec.key]
    return judged_of(told, told.outcome(payload.record or {}, payload.gauge))


def _apply(state: State, payload: TestRun, mark: Mark) -> None:
    run = Run(
        str(mark.entry), payload.test, payload.when, mark, payload.gauge, compliance=payload.compliance, closed=mark,
        record=payload.record, note=payload.note,
    )  # fmt: skip
    run.take(mark.chunks)
    state.runs[run.key] = run


def _drafts(case: Case) -> Iterator[Draft]:
    sheet = case.resolved.sheet
    safe = {f"step:{step.key}": "make it safe first" for step in sheet.steps if step.stage == "safe"}
    runs = {key: step for step in sheet.steps for key in step.runs}
    rebuilt = {f"step:{step.key}": "" for step in sheet.steps if step.stage == "rebuild"}
    for spec in sheet.tests:
        if spec.when in {"as_found", "both"}:
            # On the machine before it is made safe, on the stand or bench after it.
            after = {} if spec.place == "machine" else safe
            done = any(run.counts for run in case.state.runs_of(spec.key, "as_found"))
            yield Draft(_task(case, spec, "as_found"), done, skipped=not done and being_stripped(case), after=after)
        if spec.when in {"as_left", "both"}:
            step = runs.get(spec.key)
            after = {f"step:{step.key}": ""} if step else {f"step:{key}": "" for key in spec.after} or rebuilt
            if not step:
                after = {**after, **_ready(case)}
            passed = _passed(case, spec, at_a_step=step is not None)
            yield Draft(_task(case, spec, "as_left"), passed, step=step.key if step else None, after=after)


def _ready(case: Case) -> dict[str, str]:
    """Everything that is tightened and set stands before a test of the finished unit."""
    steps = [step for step in case.resolved.sheet.steps if step.stage == "rebuild"]
    return {f"step:{step.key}": "the unit is apart" for step in steps if step.puts_on or step.closes}


def _passed(case: Case, spec: TestSpec, *, at_a_step: bool) -> bool:
    run = counting_run(case.state, spec.key)
    if run is None or run.judgement is None or run.judgement.verdict != "pass":
        return False
    return at_a_step or not worked_since(case, run)


def _task(case: Case, spec: TestSpec, when: When) -> Task:
    entry: JsonObject = {"kind": "test_run", "test": spec.key, "when": when}
    if isinstance(spec, HoldTest):
        used = gauge_for(case, spec)
        entry["gauge"] = used.model_dump(mode="json")
        asks = tuple(_hold_asks(case, spec, planned_hold(case, spec, used)))
    else:
        told = case.resolved.figure_tests[spec.key]
        gauge = gauge_that_tells(case, told)
        entry["gauge"] = None if gauge is None else gauge.model_dump(mode="json")
        entry["record"] = told.bound.blank
        asks = told.asks
    as_found = when == "as_found"
    return Task(
        f"test:{spec.key}:{when}",
        Stage.AS_FOUND if as_found else Stage.TEST,
        _TASK,
        spec.key,
        f"{spec.name}{', as found' if as_found else ''}",
        entry,
        why=spec.how,
        caution=spec.caution,
        place=next(iter(spec.all_zones), None),
        hold=f"State: {spec.state}" if spec.state else None,
        asks=asks,
        practice=None if as_found else case.tables.house.schools["place"],
    )


def _hold_asks(case: Case, spec: HoldTest, held: float) -> Iterator[Ask]:
    pressure = spec.pressure.value
    seconds = round(1.1 * held + 20, 1)
    needs = {"pressure_mpa": pressure, "seconds": seconds, "every_s": round(max(held / 60, 2.0), 1)}
    yield Ask("samples", Read.TRACE, f"Hold {spec.pressure}", needs=needs, hint=spec.leak_limit)
    if spec.glass is not None:
        # Half of what a leak at the limit would run in that time.
        most = round(limit_of(case, spec) * seconds / 60 / 2, 3)
        label = f"Into the measuring glass at the {spec.glass}"
        yield Ask("collected", Read.VOLUME, label, unit="ml", limit=(0.0, most))


def test_name(resolved: Resolved, test: str, when: str) -> str:
    """The name of a test, and when it is run."""
    spec = next((one for one in resolved.sheet.tests if one.key == test), None)
    return f"{spec.name if spec else test}, {'as found' if when == 'as_found' else 'as left'}"


def _words(resolved: Resolved, payload: TestRun) -> str:
    name = test_name(resolved, payload.test, payload.when)
    if payload.record is None and payload.gauge:
        glass = f", {payload.collected} in the measuring glass" if payload.collected else ""
        return f"{name}: held on {payload.gauge.name}{glass}"
    return f"{name}: {in_words(payload.record or {})}"


KIND = EntryKind(
    payload=TestRun,
    check=_check,
    apply=_apply,
    words=_words,
    tasks=_drafts,
    completes="test:{test}:{when}",
    judge=_judge,
    screens=(HoldScreen, FiguresScreen),
    against=tests_against,
    beside=tests_beside,
)
