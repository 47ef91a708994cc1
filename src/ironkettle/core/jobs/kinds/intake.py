"""The intake: the first entry of every job, and its corrections."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.base.errors import RefusedError, RuleError, fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.base.text import Figure
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Marked, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sheets.document.facts import rating_of
from ironkettle.core.sheets.document.fields import Pressure
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.quick_service import counters_of, interval_of
from ironkettle.core.shop.service import CounterRead, Lower, check_reading, read_count

OBSERVE = TaskKind("observe", "Record observation")


def _counted(value: object) -> object:
    """What was typed, read as a counter shows it."""
    if not isinstance(value, str):
        return value
    try:
        return read_count(value)
    except RuleError as error:
        raise ValueError(error.faults[0].message) from None


class CounterShown(Payload):
    """A counter of the unit, by what it counts, and what it stands at; left out where it was not read.

    ``lower``: why it stands below what was read before.
    """

    counter: Short
    value: Annotated[Figure | None, BeforeValidator(_counted, json_schema_input_type=float | str | None)] = Field(
        default=None, ge=0, le=1e12
    )
    lower: Lower | None = None


class IntakeRecorded(Payload):
    """The first entry of every job; a later one corrects it.

    ``promised``: the day it was promised for. ``quick_service``: the interval whose quick service it is; ``counters``: what the unit's counters stand at.
    """

    kind: Literal["intake_recorded"] = "intake_recorded"
    unit: Short
    serial: Short
    customer: Short
    complaint: Note = Field(min_length=1)
    fluid: Short
    pressure: Pressure
    hours: Short | None = None
    promised: date | None = None
    quick_service: ItemKey | None = None
    counters: list[CounterShown] = Field(default_factory=list, max_length=12)


INTAKE: Book[str, IntakeRecorded] = Book("intake")
_ONLY = "intake"


def intake_of(state: State) -> Marked[IntakeRecorded] | None:
    """The intake as it stands; None before it is recorded."""
    return state.book(INTAKE).get(_ONLY)


def _check(case: Case, payload: IntakeRecorded) -> None:
    rating = rating_of(case.resolved.sheet)
    if read_gauge_pressure(payload.pressure, "pressure") > rating + 1e-9:
        text = f"{payload.pressure} is above the rating of this unit"
        raise fault("pressure", text, f"up to {rating * 10:g} bar")
    _check_quick_service(case, payload)


def _check_quick_service(case: Case, payload: IntakeRecorded) -> None:
    before = case.state.get(INTAKE, "intake")
    if before is not None and before.quick_service != payload.quick_service:
        raise RefusedError(
            "service-stays",
            "a job stays the service or the full job it was opened as; a service can be made a full job",
        )
    if payload.quick_service is not None:
        interval_of(case.resolved.whole, payload.quick_service)
    known_counters = counters_of(case.resolved.whole)
    if payload.promised is not None and before is None and payload.promised < case.now.date():
        raise fault("promised", f"{payload.promised} is past", "today or later")
    for index, reading in enumerate(payload.counters):
        known(f"counters.{index}.counter", reading.counter, known_counters, "counter")
        if reading.value is not None:
            read = CounterRead(case.happened or case.now, reading.value, reading.lower)
            try:
                check_reading(case.counters.get(reading.counter, ()), read, case.now, reading.counter)
            except RuleError as error:
                raise RuleError([found.under(f"counters.{index}") for found in error.faults]) from None


def _tasks(case: Case) -> Iterator[Draft]:
    intake = Task(
        "intake",
        Stage.INTAKE,
        OBSERVE,
        "intake",
        "Take the unit in",
        _intake_entry(case),
        asks=_intake_asks(counters_of(case.resolved.whole)),
    )
    yield Draft(intake, intake_of(case.state) is not None)


def _intake_entry(case: Case) -> JsonObject:
    before = case.state.get(INTAKE, "intake")
    entry: JsonObject = {"kind": "intake_recorded"}
    if counters := counters_of(case.resolved.whole):
        entry["counters"] = [{"counter": counter} for counter in counters]
    if before is not None and before.quick_service:
        entry["quick_service"] = before.quick_service
    return entry


def _intake_asks(counters: tuple[str, ...]) -> tuple[Ask, ...]:
    return (
        Ask("unit", Read.TEXT, "Unit"),
        Ask("serial", Read.TEXT, "Serial"),
        Ask("customer", Read.TEXT, "Customer"),
        Ask("complaint", Read.TEXT, "Complaint"),
        Ask("fluid", Read.TEXT, "Fluid"),
        Ask("pressure", Read.PRESSURE, "Working pressure", unit="bar", limit=(0.0, 1000.0)),
        Ask("hours", Read.TEXT, "Since last service", optional=True),
        Ask("promised", Read.TEXT, "Promised for (YYYY-MM-DD)", optional=True),
        *(
            Ask(f"counters.{place}.value", Read.NUMBER, f"Counter [{reading}]", limit=(0.0, 1e12), optional=True)
            for place, reading in enumerate(counters)
        ),
    )


def _words(resolved: Resolved, payload: IntakeRecorded) -> str:
    return f"taken in: {payload.unit}, serial {payload.serial}, {payload.pressure}, {payload.fluid}"


def _hand_over(case: Case) -> Iterator[Line]:
    intake = intake_of(case.state)
    if intake is not None:
        words = f"As told at intake, not looked at: fluid “{intake.value.fluid}”, pressure {intake.value.pressure}"
        yield Line.by(Section.ASSUMED, words, intake.mark)


KIND = EntryKind(
    payload=IntakeRecorded,
    check=_check,
    apply=keep(INTAKE, lambda payload: _ONLY),
    words=_words,
    tasks=_tasks,
    completes="intake",
    about_unit=True,
    opens=True,
    hand_over=_hand_over,
)
