"""The payload of a task as it stands before anybody has answered, and what that would put on the record."""

from __future__ import annotations

import copy

from pydantic import ValidationError

from ironkettle.core.base.json import Json, JsonObject, json_list, json_object
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.registry import payload_words, read_payload
from ironkettle.core.jobs.task import Status, Task


def put(payload: JsonObject, path: str, value: Json) -> None:
    """Set a dotted path; numbers index lists, which grow as far as needed."""
    *way, last = path.split(".")
    at: JsonObject | list[Json] = payload
    for name, following in zip(way, [*way, last][1:], strict=True):
        inner: Json = at[int(name)] if isinstance(at, list) else at.setdefault(name, [] if following.isdigit() else {})
        at = json_list(inner) if isinstance(inner, list) else json_object(inner)
    if isinstance(at, list):
        at.extend([None] * (int(last) + 1 - len(at)))
        at[int(last)] = value
    else:
        at[last] = value


def as_proposed(task: Task) -> JsonObject:
    """The entry of a task with what is proposed in its fields, and nothing in the others."""
    payload = copy.deepcopy(dict(task.entry))
    for ask in task.asks:
        if ask.proposed is not None:
            put(payload, ask.field, ask.proposed)
    return payload


def records_of(case: Case, task: Task) -> tuple[str, ...]:
    """What the entry of a task puts on the record as proposed, word for word as the log has it; none while a field waits for its answer, nor for what is done."""
    if task.status in {Status.DONE, Status.SKIPPED} or any(
        not ask.optional and ask.proposed is None for ask in task.asks
    ):
        return ()
    try:
        return (payload_words(case.resolved, read_payload(as_proposed(task))),)
    except ValidationError:
        return ()
