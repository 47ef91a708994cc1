"""The intake, and what is looked at as found and again as left."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.base.errors import RefusedError, RuleError, fault
from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.base.text import Figure
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.log import Case, Mark, Payload, State
from ironkettle.core.jobs.model import Ask, Chapter, Draft, Kind, Move
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.sheets.document.care import counters_of, interval_of
from ironkettle.core.sheets.document.facts import rating_of
from ironkettle.core.sheets.document.fields import Pressure
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.shop.service import CounterRead, Lower, check_reading, read_count


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

    ``promised``: the day it was promised for. ``care``: the interval whose quick care it is; ``counters``: what the unit's counters stand at.
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
    care: ItemKey | None = None
    counters: list[CounterShown] = Field(default_factory=list, max_length=12)


class Observed(Payload):
    """What was seen. As found is never overwritten by a second look: the first stays beside it."""

    kind: Literal["observation_noted"] = "observation_noted"
    observation: ItemKey
    when: Literal["as_found", "as_left"]
    value: Short


PAYLOADS = (IntakeRecorded, Observed)


def check(case: Case, payload: IntakeRecorded | Observed) -> None:
    if isinstance(payload, IntakeRecorded):
        rating = rating_of(case.resolved.sheet)
        if read_gauge_pressure(payload.pressure, "pressure") > rating + 1e-9:
            text = f"{payload.pressure} is above the rating of this unit"
            raise fault("pressure", text, f"up to {rating * 10:g} bar")
        _check_care(case, payload)
        return
    known("observation", payload.observation, [one.key for one in case.resolved.sheet.observations], "observation")


def _check_care(case: Case, payload: IntakeRecorded) -> None:
    before = case.state.get("intake", "intake")
    if before is not None and before.care != payload.care:
        raise RefusedError(
            "care-stays", "a job stays the care or the full job it was opened as; a care can be made full"
        )
    if payload.care is not None:
        interval_of(case.resolved.whole, payload.care)
    known_counters = counters_of(case.resolved.whole)
    if payload.promised is not None and before is None and payload.promised < case.now.date():
        raise fault("promised", f"{payload.promised} is past", "today or later")
    for index, one in enumerate(payload.counters):
        known(f"counters.{index}.counter", one.counter, known_counters, "counter")
        if one.value is not None:
            read = CounterRead(case.happened or case.now, one.value, one.lower)
            try:
                check_reading(case.counters.get(one.counter, ()), read, case.now, one.counter)
            except RuleError as error:
                raise RuleError([found.under(f"counters.{index}") for found in error.faults]) from None


def apply(state: State, payload: IntakeRecorded | Observed, mark: Mark) -> None:
    if isinstance(payload, IntakeRecorded):
        state.note("intake", "intake", payload, mark)
    else:
        state.note("observed", (payload.observation, payload.when), payload, mark)


def drafts(case: Case) -> Iterator[Draft]:
    sheet = case.resolved.sheet
    intake = Move(
        "intake",
        Chapter.INTAKE,
        Kind.OBSERVE,
        "intake",
        "Take the unit in",
        _intake_entry(case),
        asks=_intake_asks(counters_of(case.resolved.whole)),
    )
    yield Draft(intake, case.state.has("intake", "intake"))
    rebuilt = {f"step:{step.key}": "" for step in sheet.steps if step.stage == "rebuild"}
    for spec in sheet.observations:
        for when, chapter in (("as_found", Chapter.AS_FOUND), ("as_left", Chapter.TEST)):
            label = spec.ask or f"{spec.name}{f' [{spec.unit}]' if spec.unit else ''}"
            move = Move(
                f"observe:{spec.key}:{when}",
                chapter,
                Kind.OBSERVE,
                spec.key,
                f"{spec.name}, {'as found' if when == 'as_found' else 'as left'}",
                {"kind": "observation_noted", "observation": spec.key, "when": when},
                asks=(Ask("value", Read.TEXT, label, unit=spec.unit),),
            )
            after = {} if when == "as_found" else rebuilt
            yield Draft(move, case.state.has("observed", (spec.key, when)), after=after)


def _intake_entry(case: Case) -> dict[str, Any]:
    before = case.state.get("intake", "intake")
    entry: dict[str, Any] = {"kind": "intake_recorded"}
    if counters := counters_of(case.resolved.whole):
        entry["counters"] = [{"counter": one} for one in counters]
    if before is not None and before.care:
        entry["care"] = before.care
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
        Ask("promised", Read.TEXT, "Promised for, as 2027-03-31", optional=True),
        *(
            Ask(f"counters.{place}.value", Read.NUMBER, f"Counter [{one}]", limit=(0.0, 1e12), optional=True)
            for place, one in enumerate(counters)
        ),
    )


def words(resolved: Resolved, payload: IntakeRecorded | Observed) -> str:
    if isinstance(payload, IntakeRecorded):
        return f"taken in: {payload.unit}, serial {payload.serial}, {payload.pressure}, {payload.fluid}"
    spec = next((one for one in resolved.sheet.observations if one.key == payload.observation), None)
    name, unit = (spec.name, f" {spec.unit}" if spec.unit else "") if spec else (payload.observation, "")
    return f"{name} {'as found' if payload.when == 'as_found' else 'as left'}: {payload.value}{unit}"
