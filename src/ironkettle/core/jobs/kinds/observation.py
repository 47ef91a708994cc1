"""What is looked at as found, and again as left."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Short, known
from ironkettle.core.jobs.kinds.intake import OBSERVE
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task
from ironkettle.core.sheets.document.parts import Read


class Observed(Payload):
    """What was seen. As found is never overwritten by a second look: the first stays beside it."""

    kind: Literal["observation_noted"] = "observation_noted"
    observation: ItemKey
    when: Literal["as_found", "as_left"]
    value: Short


OBSERVED: Book[tuple[str, str], Observed] = Book("observed")


def _check(case: Case, payload: Observed) -> None:
    known("observation", payload.observation, [one.key for one in case.resolved.sheet.observations], "observation")


def _tasks(case: Case) -> Iterator[Draft]:
    sheet = case.resolved.sheet
    rebuilt = {f"step:{step.key}": "" for step in sheet.steps if step.stage == "rebuild"}
    for spec in sheet.observations:
        for when, stage in (("as_found", Stage.AS_FOUND), ("as_left", Stage.TEST)):
            label = spec.ask or f"{spec.name}{f' [{spec.unit}]' if spec.unit else ''}"
            task = Task(
                f"observe:{spec.key}:{when}",
                stage,
                OBSERVE,
                spec.key,
                f"{spec.name}, {'as found' if when == 'as_found' else 'as left'}",
                {"kind": "observation_noted", "observation": spec.key, "when": when},
                asks=(Ask("value", Read.TEXT, label, unit=spec.unit),),
            )
            after = {} if when == "as_found" else rebuilt
            yield Draft(task, case.state.has(OBSERVED, (spec.key, when)), after=after)


def _words(resolved: Resolved, payload: Observed) -> str:
    spec = next((one for one in resolved.sheet.observations if one.key == payload.observation), None)
    name, unit = (spec.name, f" {spec.unit}" if spec.unit else "") if spec else (payload.observation, "")
    return f"{name} {'as found' if payload.when == 'as_found' else 'as left'}: {payload.value}{unit}"


KIND = EntryKind(
    payload=Observed,
    check=_check,
    apply=keep(OBSERVED, lambda one: (one.observation, one.when)),
    words=_words,
    tasks=_tasks,
    completes="observe:{observation}:{when}",
)
