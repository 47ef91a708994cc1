"""What puts the cause of a failure right, done: by hand or word, or by the fitting of a new element."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.cause import CAUSES, elements_asked
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.step import STEP
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task
from ironkettle.core.sealing.catalogue import BACKUPS
from ironkettle.core.sealing.failures import Cause, Correction
from ironkettle.core.sheets.document.parts import Read

_STAGE = {
    "inspect": Stage.INSPECT, "kit": Stage.KIT, "rebuild": Stage.REBUILD, "fit": Stage.REBUILD, "release": Stage.RELEASE,
}  # fmt: skip
_FIT = "fit"


_BACKUP_CORRECTIONS = frozenset({"fit_backup", "backup_low_side"})


class CorrectionMade(Payload):
    kind: Literal["correction_made"] = "correction_made"
    element: ItemKey
    correction: ItemKey
    note: Note = ""


CORRECTED: Book[tuple[str, str], CorrectionMade] = Book("corrected")


def _check(case: Case, payload: CorrectionMade) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    decided = case.state.get(CAUSES, payload.element)
    if decided is None:
        raise RefusedError("no-cause", "decide on the cause first")
    known("correction", payload.correction, decided.corrections, "correction that was decided on")


def _decided(case: Case, element: str) -> list[Correction]:
    decided = case.state.get(CAUSES, element)
    return [case.tables.failures.corrections[key] for key in decided.corrections] if decided else []


def _by_fitting(case: Case, element: str, correction: Correction) -> list[str]:
    """The elements whose fitting is the correction; none where it is done by hand or word."""
    if correction.when != _FIT:
        return []
    if correction.key in _BACKUP_CORRECTIONS:
        seat = case.resolved.elements[element].seat
        return [neighbour.key for neighbour in seat.elements if neighbour.kind in BACKUPS and neighbour.same_as is None]
    return [element]


def _is_made(case: Case, element: str, correction: Correction) -> bool:
    fitted = _by_fitting(case, element, correction)
    if fitted:
        return all(case.state.has(FITTED, key) for key in fitted)
    return case.state.has(CORRECTED, (element, correction.key))


def _tasks(case: Case) -> Iterator[Draft]:
    for at in elements_asked(case):
        for correction in _decided(case, at.key):
            yield _correction(case, at, correction)


def _correction(case: Case, at: ElementAt, correction: Correction) -> Draft:
    fitted = _by_fitting(case, at.key, correction)
    task = Task(
        f"correct:{at.key}:{correction.key}",
        _STAGE[correction.when],
        STEP,
        at.key,
        correction.text,
        {"kind": "correction_made", "element": at.key, "correction": correction.key},
        why=f"so that the new {at.spec.name} lives",
        place=at.station.key,
        asks=(Ask("note", Read.TEXT, "What was done", optional=True),),
    )
    after = {f"cause:{at.key}": "", **{f"fit:{key}": "" for key in fitted}}
    closes = next((step.key for step in case.resolved.sheet.steps if at.station.key in step.closes), None)
    done = _is_made(case, at.key, correction)
    before = (
        {} if fitted or task.stage is Stage.RELEASE else {f"fit:{at.key}": "first correct what made the old one fail"}
    )
    return Draft(
        task, done, step=closes if _STAGE[correction.when] is Stage.REBUILD else None, after=after, before=before
    )


@dataclass(frozen=True, slots=True)
class DecidedCause:
    """A decided cause as others read it: the element, the cause by key, by name and for a customer, what was put right."""

    element: str
    name: str
    key: Cause
    cause: str
    customer: str
    corrected: tuple[str, ...]


def decided_causes(case: Case) -> tuple[DecidedCause, ...]:
    """The causes decided on in a job, in the order of the sheet's elements."""
    found = []
    for key, at in case.resolved.elements.items():
        decided = case.state.get(CAUSES, key)
        if decided is None:
            continue
        facts = case.tables.failures.causes[decided.cause]
        made = tuple(decision.text for decision in _decided(case, key) if _is_made(case, key, decision))
        found.append(DecidedCause(key, at.spec.name, facts.cause, facts.name, facts.customer, made))
    return tuple(found)


def _words(resolved: Resolved, payload: CorrectionMade) -> str:
    at = resolved.elements.get(payload.element)
    name = at.spec.name if at else payload.element
    return f"{name}, corrected: {payload.correction.replace('_', ' ')}{f', {payload.note}' if payload.note else ''}"


KIND = EntryKind(
    payload=CorrectionMade,
    check=_check,
    apply=keep(CORRECTED, lambda payload: (payload.element, payload.correction)),
    words=_words,
    tasks=_tasks,
    completes="correct:{element}:{correction}",
)
