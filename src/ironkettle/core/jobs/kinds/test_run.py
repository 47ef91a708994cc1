"""A test run told in one entry: a hold with its trace, a test of another kind with what was read."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import Field, JsonValue, field_validator, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import unit_slip
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.figure_tests import in_words
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Reason
from ironkettle.core.jobs.kinds.begin import CUT_SHORT, check_lasted, cut_words, lasting
from ironkettle.core.jobs.kinds.photo import PHOTOS
from ironkettle.core.jobs.kinds.step import being_stripped
from ironkettle.core.jobs.proven import closed_seq, counting_run, remarks_on_tests, tests_against, worked_since
from ironkettle.core.jobs.proving import MOST_SAMPLES, When, may_run
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace, SampleRead
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Mark, Payload, Run, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.jobs.test_forms import FiguresScreen, HoldScreen, TestForm, form_of, form_of_spec
from ironkettle.core.sheets.document.fields import Written
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import TestSpec


def _screen(case: Case, task: Task) -> Screen:
    return form_of(case, task.subject).screen(task)


_TASK = TaskKind("test", "Record the result", rank=8, rides=True, screen=_screen)
# Room for a few thousand readings as they are written.
MOST_RECORD = 500_000


class TestRun(Payload):
    """A run told in one. A hold has its gauge and its samples; the other kinds their ``record``, as the kind has it.

    ``collected``: what ran into the measuring glass at the open port, where the sheet puts one there; ``cut_short``: why its time
    was not waited out.
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
    cut_short: Reason | None = None

    @model_validator(mode="before")
    @classmethod
    def _as_it_was_told_before(cls, figures: object) -> object:
        """Entries of an earlier version had the sign and the word beside the record."""
        if not isinstance(figures, dict) or not ({"seen", "value"} & figures.keys()):
            return figures
        kept = {key: figure for key, figure in figures.items() if key not in {"seen", "value"}}
        if figures.get("seen") is None or figures.get("record") is not None:
            return kept
        return {**kept, "record": {"seen": figures["seen"], "value": figures.get("value")}}

    @field_validator("record")
    @classmethod
    def _is_small(cls, record: dict[str, JsonValue] | None) -> dict[str, JsonValue] | None:
        if record is not None and len(json.dumps(record, default=str)) > MOST_RECORD:
            raise ValueError(f"is longer than {MOST_RECORD} characters")
        return record


def _check(case: Case, payload: TestRun) -> None:
    spec = may_run(case, payload.test, payload.when)
    form = form_of_spec(case, spec)
    form.check(payload)
    _check_units(payload, spec)
    if _lacks_photo(case, spec, payload.when) and not payload.note and form.judge(payload).verdict == "pass":
        raise fault("note", f"nothing is attached to {spec.name}: attach the photo, or say why there is none")
    _check_time(case, payload, form)


# Asked while what the sheet wants attached is not.
_WHY_NONE = Ask("note", Read.TEXT, "Nothing is attached yet: attach the photo, or why is there none?")


def _lacks_photo(case: Case, spec: TestSpec, when: str) -> bool:
    about = task_key(spec.key, when)
    return spec.photo and not any(marked.value.about == about for marked in case.state.book(PHOTOS).values())


def _check_units(payload: TestRun, spec: TestSpec) -> None:
    """Raises RuleError for a figure whose unit looks mistaken, unless a note says that it is so."""
    if payload.note:
        return
    expected = [text for _, text in _texts(spec.model_dump(mode="json", exclude={"how", "caution"}))]
    for path, text in _texts(payload.record or {}, "record"):
        odd = unit_slip(text, expected)
        if odd is not None:
            raise fault(path, f"{odd} Write it in its unit, or confirm it in the note")


def _texts(value: JsonValue, path: str = "") -> Iterator[tuple[str, str]]:
    """Every text in a document, with its path."""
    if isinstance(value, str):
        yield path, value
    elif isinstance(value, dict | list):
        for key, inner in value.items() if isinstance(value, dict) else enumerate(value):
            yield from _texts(inner, f"{path}.{key}")


def _check_time(case: Case, payload: TestRun, form: TestForm) -> None:
    """Raises RefusedError for a pass before the time it takes: a leak is a leak at once."""
    key = task_key(payload.test, payload.when)
    found = lasting(case, key, form.lasts if (own := form.lasted(payload)) is None else own)
    if found is None:
        if payload.cut_short is not None:
            raise fault("cut_short", "this takes no time that could be cut short; leave this out")
    elif form.judge(payload).verdict == "pass":
        check_lasted(case, found, payload.cut_short)


def task_key(test: str, when: str) -> str:
    """The key of the task that a run of a test completes."""
    return f"test:{test}:{when}"


def _judge(case: Case, payload: TestRun) -> Judgement:
    return form_of(case, payload.test).judge(payload)


def _apply(state: State, payload: TestRun, mark: Mark) -> None:
    run = Run(
        str(mark.entry), payload.test, payload.when, mark, payload.gauge, compliance=payload.compliance, closed=mark,
        record=payload.record, note=payload.note, cut_short=payload.cut_short,
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
                after = {**after, **_ready(case), **_before_the_machine(case, spec)}
            passed = _passed(case, spec, at_a_step=step is not None)
            yield Draft(_task(case, spec, "as_left"), passed, step=step.key if step else None, after=after)


def _before_the_machine(case: Case, spec: TestSpec) -> dict[str, str]:
    """What is proved on stand and bench before the machine carries a load on the unit."""
    if spec.place != "machine":
        return {}
    before = [test for test in case.resolved.sheet.tests if test.place != "machine" and test.when != "as_found"]
    return {task_key(test.key, "as_left"): "prove it on the bench before it goes on the machine" for test in before}


def _ready(case: Case) -> dict[str, str]:
    """Everything that is tightened and set stands before a test of the finished unit."""
    steps = [step for step in case.resolved.sheet.steps if step.stage == "rebuild"]
    return {f"step:{step.key}": "the unit is apart" for step in steps if step.puts_on or step.closes}


def _passed(case: Case, spec: TestSpec, *, at_a_step: bool) -> bool:
    run = counting_run(case.state, spec.key)
    if run is None or run.judgement is None or run.judgement.verdict != "pass":
        return False
    return at_a_step or not worked_since(case, closed_seq(run))


def _task(case: Case, spec: TestSpec, when: When) -> Task:
    form, key = form_of_spec(case, spec), task_key(spec.key, when)
    found = lasting(case, key, form.lasts)
    entry: JsonObject = {"kind": "test_run", "test": spec.key, "when": when, **form.proposed()}
    as_found = when == "as_found"
    return Task(
        key,
        Stage.AS_FOUND if as_found else Stage.TEST,
        _TASK,
        spec.key,
        f"{spec.name}{', as found' if as_found else ''}",
        entry,
        why=spec.how,
        caution=spec.caution,
        place=next(iter(spec.all_zones), None),
        hold=f"State: {spec.state}" if spec.state else None,
        asks=(*form.asks(), *([_WHY_NONE] if _lacks_photo(case, spec, when) else []), *([CUT_SHORT] if found else [])),
        photo=spec.photo,
        lasts=found.seconds if found else None,
        until=found.until if found else None,
        practice=None if as_found else case.tables.settings.practice["place"],
    )


def test_name(resolved: Resolved, test: str, when: str) -> str:
    """The name of a test, and when it is run."""
    spec = next((other for other in resolved.sheet.tests if other.key == test), None)
    return f"{spec.name if spec else test}, {'as found' if when == 'as_found' else 'as left'}"


def _words(resolved: Resolved, payload: TestRun) -> str:
    name = test_name(resolved, payload.test, payload.when)
    if payload.record is None and payload.gauge:
        glass = f", {payload.collected} in the measuring glass" if payload.collected else ""
        return f"{name}: held on {payload.gauge.name}{glass}"
    short = f"; cut short: {payload.cut_short}" if payload.cut_short else ""
    return f"{name}: {in_words(payload.record or {})}{short}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    yield from tests_against(case, tasks)
    for spec in case.resolved.sheet.tests:
        counts = counting_run(case.state, spec.key)
        if counts is not None and _lacks_photo(case, spec, "as_left"):
            yield f"{spec.name}: nothing is attached; {counts.note}."
    for spec in case.resolved.sheet.tests:
        as_found = [run for run in case.state.runs_of(spec.key, "as_found") if run.counts]
        for run in (*as_found[-1:], counting_run(case.state, spec.key)):
            if run is not None and run.cut_short is not None and run.closed is not None:
                found = lasting(case, task_key(spec.key, run.when), form_of_spec(case, spec).lasts)
                name = test_name(case.resolved, spec.key, run.when)
                yield f"{name}: {cut_words(case, found, run.cut_short, run.closed)}."


KIND = EntryKind(
    payload=TestRun,
    check=_check,
    apply=_apply,
    words=_words,
    tasks=_drafts,
    completes="test:{test}:{when}",
    judge=_judge,
    screens=(HoldScreen, FiguresScreen),
    against=_against,
    remarks=remarks_on_tests,
)
