"""What is looked at as found, and again as left."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Reason, Written, known, measured, value_of
from ironkettle.core.jobs.kinds.begin import CUT_SHORT, check_lasted, cut_words, lasting, look_lasts
from ironkettle.core.jobs.kinds.intake import OBSERVE
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task
from ironkettle.core.sheets.document.facts import dimension_of
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import Observation


class Observed(Payload):
    """What was seen. As found is never overwritten by a second look: the first stays beside it."""

    kind: Literal["observation_noted"] = "observation_noted"
    observation: ItemKey
    when: Literal["as_found", "as_left"]
    value: Written
    cut_short: Reason | None = None


# What is counted or read by eye is never more, either way. No published source.
_MOST = 10_000
OBSERVED: Book[tuple[str, str], Observed] = Book("observed")


def _check(case: Case, payload: Observed) -> None:
    listed = {observation.key: observation for observation in case.resolved.sheet.observations}
    known("observation", payload.observation, listed, "observation")
    spec = listed[payload.observation]
    read = _read_of(spec)
    if read is not Read.TEXT and abs(value_of(payload.value, read, "value")) > _MOST:
        raise fault("value", f"{payload.value} is out of range: {spec.ask or spec.name}", f"-{_MOST} to {_MOST}")
    found = lasting(case, _key(payload.observation, payload.when), look_lasts(spec))
    if found is not None:
        check_lasted(case, found, payload.cut_short)
    elif payload.cut_short is not None:
        raise fault("cut_short", "this takes no time that could be cut short; leave this out")


def _read_of(spec: Observation) -> Read:
    """What is read where something is looked at: what the sheet says is measured, else a number where it has a unit, else words."""
    if spec.read is not None and (spec.read is Read.NUMBER or dimension_of(spec.read) is not None):
        return spec.read
    return Read.NUMBER if spec.unit else Read.TEXT


def _key(observation: str, when: str) -> str:
    return f"observe:{observation}:{when}"


def _tasks(case: Case) -> Iterator[Draft]:
    sheet = case.resolved.sheet
    rebuilt = {f"step:{step.key}": "" for step in sheet.steps if step.stage == "rebuild"}
    for spec in sheet.observations:
        for when, stage in (("as_found", Stage.AS_FOUND), ("as_left", Stage.TEST)):
            label = spec.ask or f"{spec.name}{f' [{spec.unit}]' if spec.unit else ''}"
            key = _key(spec.key, when)
            found = lasting(case, key, look_lasts(spec))
            read = _read_of(spec)
            unit, limit, _ = measured(read, None, "value")
            # A unit that is as it should be drips, sinks and overfills by nothing.
            right = 0 if read is Read.NUMBER else None
            ask = Ask("value", read, label, unit=spec.unit or unit, limit=limit, right=right)
            task = Task(
                key,
                stage,
                OBSERVE,
                spec.key,
                f"{spec.name}, {'as found' if when == 'as_found' else 'as left'}",
                {"kind": "observation_noted", "observation": spec.key, "when": when},
                asks=(ask, CUT_SHORT) if found else (ask,),
                lasts=found.seconds if found else None,
                until=found.until if found else None,
            )
            after = {} if when == "as_found" else rebuilt
            yield Draft(task, case.state.has(OBSERVED, (spec.key, when)), after=after)


def _words(resolved: Resolved, payload: Observed) -> str:
    spec = next(
        (observation for observation in resolved.sheet.observations if observation.key == payload.observation), None
    )
    name, unit = (spec.name, f" {spec.unit}" if spec.unit else "") if spec else (payload.observation, "")
    short = f"; cut short: {payload.cut_short}" if payload.cut_short else ""
    return f"{name} {'as found' if payload.when == 'as_found' else 'as left'}: {payload.value}{unit}{short}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for spec in case.resolved.sheet.observations:
        for (key, when), seen in case.state.book(OBSERVED).items():
            if key == spec.key and seen.value.cut_short is not None:
                found = lasting(case, _key(key, when), look_lasts(spec))
                yield f"{spec.name}, {'as found' if when == 'as_found' else 'as left'}: {cut_words(case, found, seen.value.cut_short, seen.mark)}."


KIND = EntryKind(
    payload=Observed,
    check=_check,
    apply=keep(OBSERVED, lambda payload: (payload.observation, payload.when)),
    words=_words,
    tasks=_tasks,
    completes="observe:{observation}:{when}",
    against=_against,
)
