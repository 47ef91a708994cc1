"""The intake, and what is looked at as found and again as left."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.buildsheets.facts import rating_of
from ironkettle.core.buildsheets.fields import Pressure
from ironkettle.core.buildsheets.parts import Read
from ironkettle.core.errors import fault
from ironkettle.core.moves.log import Case, Mark, Payload, State
from ironkettle.core.moves.model import Ask, Chapter, Draft, Kind, Move
from ironkettle.core.moves.resolved import Resolved
from ironkettle.core.moves.slices.base import ItemKey, Note, Short, known
from ironkettle.core.quantities import read_gauge_pressure


class IntakeRecorded(Payload):
    """The first entry of every job; a later one corrects it."""

    kind: Literal["intake_recorded"] = "intake_recorded"
    unit: Short
    serial: Short
    customer: Short
    complaint: Note = Field(min_length=1)
    fluid: Short
    pressure: Pressure
    hours: Short | None = None


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
        return
    known("observation", payload.observation, [one.key for one in case.resolved.sheet.observations], "observation")


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
        {"kind": "intake_recorded"},
        asks=_intake_asks(),
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


def _intake_asks() -> tuple[Ask, ...]:
    return (
        Ask("unit", Read.TEXT, "Unit"),
        Ask("serial", Read.TEXT, "Serial"),
        Ask("customer", Read.TEXT, "Customer"),
        Ask("complaint", Read.TEXT, "Complaint"),
        Ask("fluid", Read.TEXT, "Fluid"),
        Ask("pressure", Read.PRESSURE, "Working pressure", unit="bar", limit=(0.0, 1000.0)),
        Ask("hours", Read.TEXT, "Since last service", optional=True),
    )


def words(resolved: Resolved, payload: IntakeRecorded | Observed) -> str:
    if isinstance(payload, IntakeRecorded):
        return f"taken in: {payload.unit}, serial {payload.serial}, {payload.pressure}, {payload.fluid}"
    spec = next((one for one in resolved.sheet.observations if one.key == payload.observation), None)
    name, unit = (spec.name, f" {spec.unit}" if spec.unit else "") if spec else (payload.observation, "")
    return f"{name} {'as found' if payload.when == 'as_found' else 'as left'}: {payload.value}{unit}"
