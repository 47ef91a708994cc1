"""Why an element failed, decided by a person over the ranked causes."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.circumstances import circumstances_of, failed
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.kinds.inspection import reading_steps
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sealing.failures import Cause, Diagnosed, diagnose
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.places import StationSpec

# Below this share a cause is against what is seen, and wants its reason in writing. [-]
_AGAINST_ALL = 0.05


_SHORTEST_REASON = 5


_TOLD = 3
_TASK = TaskKind("cause", "Record the cause", rank=3)


class CauseDecided(Payload):
    """``named``: the cause in words; ``share`` of it among all [-] and ``evidence``: set by the server from what the log
    holds."""

    kind: Literal["cause_decided"] = "cause_decided"
    element: ItemKey
    cause: Cause
    corrections: list[ItemKey] = Field(default_factory=list, max_length=12)
    reason: Note = ""
    named: Short | None = None
    share: float | None = Field(default=None, ge=0, le=1)
    evidence: list[str] = Field(default_factory=list, max_length=24)


CAUSES: Book[str, CauseDecided] = Book("causes")


def _check(case: Case, payload: CauseDecided) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    if not case.state.has(FOUND, payload.element):
        raise RefusedError("not-found", "first record how it was found")
    offered = {correction.key for correction in case.tables.failures.causes[payload.cause].corrections}
    for index, key in enumerate(payload.corrections):
        known(f"corrections.{index}", key, offered, "correction of this cause")
    ranked = _ranked(case, payload.element)
    share = next(candidate.share for candidate in ranked if candidate.cause is payload.cause)
    if share < _AGAINST_ALL and len(payload.reason) < _SHORTEST_REASON:
        likeliest = ranked[0]
        text = (
            f"by what is seen and known this is {_pct(share)}, “{likeliest.name}” is {_pct(likeliest.share)}; say why"
        )
        raise fault("reason", text, "a reason in writing")
    if not payload.corrections and len(payload.reason) < _SHORTEST_REASON:
        raise fault("corrections", "say what corrects it, or give the reason why nothing can", *sorted(offered))


def complete(case: Case, payload: CauseDecided) -> CauseDecided:
    """With the share and the evidence as the server works them out; whatever was sent of them is not taken."""
    diagnosed = next(candidate for candidate in _ranked(case, payload.element) if candidate.cause is payload.cause)
    evidence = [*diagnosed.speaks_for, *(f"against: {text}" for text in diagnosed.speaks_against)]
    return payload.model_copy(
        update={"named": diagnosed.name, "share": round(diagnosed.share, 4), "evidence": evidence[:24]}
    )


def _as_sent(payload: CauseDecided) -> CauseDecided:
    return payload.model_copy(update={"named": None, "share": None, "evidence": []})


def _ranked(case: Case, element: str) -> tuple[Diagnosed, ...]:
    return diagnose(circumstances_of(case, case.resolved.elements[element]), case.tables.failures)


def elements_asked(case: Case) -> list[ElementAt]:
    """The elements of this job that have a cause or ask for one."""
    failures = {at.key: at for at in failed(case)}
    keys = dict.fromkeys([*failures, *case.state.book(CAUSES)])
    return [case.resolved.elements[key] for key in keys if key in case.resolved.elements]


def _tasks(case: Case) -> Iterator[Draft]:
    for at in elements_asked(case):
        station = case.resolved.stations[at.station.key]
        step = next((other.key for other in case.resolved.sheet.steps if station.key in other.opens), None)
        neighbours = [e.key for seat in station.seats for e in seat.elements if e.same_as is None]
        after = {f"find:{neighbour}": "first record what lay next to it" for neighbour in neighbours}
        after.update(_surfaces(case, station))
        yield Draft(_task(case, at), case.state.has(CAUSES, at.key), step=step, after=after)


def _surfaces(case: Case, station: StationSpec) -> dict[str, str]:
    """The tasks that read the surfaces a seal lay against, where they are read before the unit is put together."""
    stages = {step.key: step.stage for step in case.resolved.sheet.steps}
    read = [part for part in (station.carrier, station.counterface) if part is not None]
    early = [part for part in read if all(stages[step] in {"strip", "clean"} for step in reading_steps(case, part))]
    return {f"measure:{part}": "first wash and read the surfaces it ran on" for part in early}


def _task(case: Case, at: ElementAt) -> Task:
    ranked = _ranked(case, at.key)
    first = ranked[0]
    corrections = tuple(
        Choice(correction.key, correction.text, only={"cause": cause.cause.value})
        for cause in ranked
        for correction in cause.corrections
    )
    return Task(
        f"cause:{at.key}",
        Stage.INSPECT,
        _TASK,
        at.key,
        f"Why did the {at.spec.name} fail?",
        {"kind": "cause_decided", "element": at.key},
        why="with the same cause, a new seal lasts no longer than the old one",
        place=at.station.key,
        asks=(
            Ask(
                "cause",
                Read.CHOICE,
                "Cause",
                tuple(Choice(candidate.cause.value, candidate.name, _evidence(candidate)) for candidate in ranked),
            ),
            Ask("corrections", Read.LOOK, "Correction", corrections, right=[first.corrections[0].key]),
            Ask("reason", Read.TEXT, "Reason", optional=True),
        ),
    )


def _pct(share: float) -> str:
    return "under 1 %" if share < 0.01 else f"{100 * share:.0f} %"


def _evidence(diagnosed: Diagnosed) -> str:
    against = f"; against: {'; '.join(diagnosed.speaks_against[:_TOLD])}" if diagnosed.speaks_against else ""
    evidence = "; ".join(diagnosed.speaks_for[:_TOLD]) or "no sign supports it"
    return f"{_pct(diagnosed.share)}: {evidence}{against}"


def _words(resolved: Resolved, payload: CauseDecided) -> str:
    at = resolved.elements.get(payload.element)
    name = at.spec.name if at else payload.element
    share = "" if payload.share is None else f" ({_pct(payload.share)} by the evidence)"
    because = f"; {payload.reason}" if payload.reason else ""
    return f"{name}: cause {payload.named or payload.cause.value}{share}{because}"


def _hand_over(case: Case) -> Iterator[Line]:
    for key, marked in case.state.book(CAUSES).items():
        at = case.resolved.elements.get(key)
        if at is not None:
            words = f"{at.spec.name} failed: {marked.value.named or marked.value.cause.value}"
            yield Line.by(Section.DECIDED, words, marked.mark)


KIND = EntryKind(
    payload=CauseDecided,
    check=_check,
    apply=keep(CAUSES, lambda payload: payload.element),
    words=_words,
    tasks=_tasks,
    completes="cause:{element}",
    complete=complete,
    as_sent=_as_sent,
    hand_over=_hand_over,
)
