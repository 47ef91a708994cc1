"""Why an element failed, decided by a person over the ranked causes; and what puts it right, as moves of this job."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.circumstances import circumstances_of, failed
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.log import Case, Mark, Payload, State
from ironkettle.core.jobs.model import Ask, Chapter, Choice, Draft, Kind, Move
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.sealing.catalogue import BACKUPS
from ironkettle.core.sealing.failures import Cause, Correction, Diagnosed, diagnose
from ironkettle.core.sheets.document.parts import Read

# Below this share a cause is against what is seen, and wants its reason in writing. [-]
_AGAINST_ALL = 0.05
_SHORTEST_REASON = 5
_TOLD = 3
_CHAPTER = {
    "inspect": Chapter.INSPECT, "kit": Chapter.KIT, "rebuild": Chapter.REBUILD, "fit": Chapter.REBUILD,
    "release": Chapter.RELEASE,
}  # fmt: skip
_FIT = "fit"
_BACKUP_CORRECTIONS = frozenset({"fit_backup", "backup_low_side"})


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


class CorrectionMade(Payload):
    kind: Literal["correction_made"] = "correction_made"
    element: ItemKey
    correction: ItemKey
    note: Note = ""


PAYLOADS = (CauseDecided, CorrectionMade)


def check(case: Case, payload: CauseDecided | CorrectionMade) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    if isinstance(payload, CorrectionMade):
        decided = case.state.get("causes", payload.element)
        if decided is None:
            raise RefusedError("no-cause", "decide on the cause first")
        known("correction", payload.correction, decided.corrections, "correction that was decided on")
        return
    if not case.state.has("found", payload.element):
        raise RefusedError("not-found", "record how it came off first")
    offered = {one.key for one in case.tables.failures.causes[payload.cause].corrections}
    for index, key in enumerate(payload.corrections):
        known(f"corrections.{index}", key, offered, "correction of this cause")
    ranked = _ranked(case, payload.element)
    share = next(one.share for one in ranked if one.cause is payload.cause)
    if share < _AGAINST_ALL and len(payload.reason) < _SHORTEST_REASON:
        likeliest = ranked[0]
        text = (
            f"by what is seen and known this is {_pct(share)}, “{likeliest.name}” is {_pct(likeliest.share)}; say why"
        )
        raise fault("reason", text, "a reason in writing")
    if not payload.corrections and len(payload.reason) < _SHORTEST_REASON:
        raise fault("corrections", "say what puts it right, or in the reason why nothing does", *sorted(offered))


def complete(case: Case, payload: CauseDecided) -> CauseDecided:
    """With the share and the evidence as the server works them out; whatever was sent of them is not taken."""
    one = next(one for one in _ranked(case, payload.element) if one.cause is payload.cause)
    told = [*one.speaks_for, *(f"against: {text}" for text in one.speaks_against)]
    return payload.model_copy(update={"named": one.name, "share": round(one.share, 4), "evidence": told[:24]})


def as_sent(payload: CauseDecided) -> CauseDecided:
    return payload.model_copy(update={"named": None, "share": None, "evidence": []})


def apply(state: State, payload: CauseDecided | CorrectionMade, mark: Mark) -> None:
    if isinstance(payload, CauseDecided):
        state.note("causes", payload.element, payload, mark)
    else:
        state.note("corrected", (payload.element, payload.correction), payload, mark)


def _ranked(case: Case, element: str) -> tuple[Diagnosed, ...]:
    return diagnose(circumstances_of(case, case.resolved.elements[element]), case.tables.failures)


def drafts(case: Case) -> Iterator[Draft]:
    asked = {at.key: at for at in failed(case)}
    for key in dict.fromkeys([*asked, *case.state.book("causes")]):
        at = case.resolved.elements.get(key)
        if at is None:
            continue
        station = case.resolved.stations[at.station.key]
        step = next((one.key for one in case.resolved.sheet.steps if station.key in one.opens), None)
        beside = [e.key for seat in station.seats for e in seat.elements if e.same_as is None]
        after = {f"find:{one}": "what lay beside it is recorded first" for one in beside}
        decided = case.state.get("causes", key)
        yield Draft(_move(case, at), decided is not None, step=step, after=after)
        for correction in _decided(case, key):
            yield _correction(case, at, correction)


def _decided(case: Case, element: str) -> list[Correction]:
    decided = case.state.get("causes", element)
    return [case.tables.failures.corrections[key] for key in decided.corrections] if decided else []


def before_fitting(case: Case, element: str) -> dict[str, str]:
    """The corrections that come before an element goes in."""
    return {
        f"correct:{element}:{one.key}": "what made the old one fail is put right first"
        for one in _decided(case, element)
        if _CHAPTER[one.when] in {Chapter.INSPECT, Chapter.KIT, Chapter.REBUILD} and not _by_fitting(case, element, one)
    }


def _by_fitting(case: Case, element: str, correction: Correction) -> list[str]:
    """The elements whose fitting is the correction; none where it is done by hand or word."""
    if correction.when != _FIT:
        return []
    if correction.key in _BACKUP_CORRECTIONS:
        seat = case.resolved.elements[element].seat
        return [one.key for one in seat.elements if one.kind in BACKUPS and one.same_as is None]
    return [element]


def _is_made(case: Case, element: str, correction: Correction) -> bool:
    fitted = _by_fitting(case, element, correction)
    if fitted:
        return all(case.state.has("fitted", key) for key in fitted)
    return case.state.has("corrected", (element, correction.key))


def _correction(case: Case, at: ElementAt, correction: Correction) -> Draft:
    fitted = _by_fitting(case, at.key, correction)
    move = Move(
        f"correct:{at.key}:{correction.key}",
        _CHAPTER[correction.when],
        Kind.STEP,
        at.key,
        correction.text,
        {"kind": "correction_made", "element": at.key, "correction": correction.key},
        why=f"so that the new {at.spec.name} lives",
        place=at.station.key,
        asks=(Ask("note", Read.TEXT, "What was done", optional=True),),
    )
    after = {f"cause:{at.key}": "", **{f"fit:{key}": "" for key in fitted}}
    closes = next((one.key for one in case.resolved.sheet.steps if at.station.key in one.closes), None)
    done = _is_made(case, at.key, correction)
    return Draft(move, done, step=closes if _CHAPTER[correction.when] is Chapter.REBUILD else None, after=after)


def _move(case: Case, at: ElementAt) -> Move:
    ranked = _ranked(case, at.key)
    first = ranked[0]
    corrections = tuple(
        Choice(one.key, one.text, only={"cause": cause.cause.value}) for cause in ranked for one in cause.corrections
    )
    return Move(
        f"cause:{at.key}",
        Chapter.INSPECT,
        Kind.CAUSE,
        at.key,
        f"Why did the {at.spec.name} fail?",
        {"kind": "cause_decided", "element": at.key},
        why="a new seal lives as long as the old one where the cause stays",
        place=at.station.key,
        asks=(
            Ask(
                "cause",
                Read.CHOICE,
                "Cause",
                tuple(Choice(one.cause.value, one.name, _evidence(one)) for one in ranked),
            ),
            Ask("corrections", Read.LOOK, "What puts it right", corrections, proposed=[first.corrections[0].key]),
            Ask("reason", Read.TEXT, "Why, in your words", optional=True),
        ),
    )


def _pct(share: float) -> str:
    return "under 1 %" if share < 0.01 else f"{100 * share:.0f} %"


def _evidence(one: Diagnosed) -> str:
    against = f"; against: {'; '.join(one.speaks_against[:_TOLD])}" if one.speaks_against else ""
    told = "; ".join(one.speaks_for[:_TOLD]) or "nothing seen speaks for it"
    return f"{_pct(one.share)}: {told}{against}"


@dataclass(frozen=True, slots=True)
class Told:
    """A decided cause as others read it: the element, the cause by key, by name and for a customer, what was put right."""

    element: str
    name: str
    key: Cause
    cause: str
    customer: str
    corrected: tuple[str, ...]


def told_causes(case: Case) -> tuple[Told, ...]:
    """The causes decided on in a job, in the order of the sheet's elements."""
    found = []
    for key, at in case.resolved.elements.items():
        decided = case.state.get("causes", key)
        if decided is None:
            continue
        facts = case.tables.failures.causes[decided.cause]
        made = tuple(one.text for one in _decided(case, key) if _is_made(case, key, one))
        found.append(Told(key, at.spec.name, facts.cause, facts.name, facts.customer, made))
    return tuple(found)


def words(resolved: Resolved, payload: CauseDecided | CorrectionMade) -> str:
    at = resolved.elements.get(payload.element)
    name = at.spec.name if at else payload.element
    if isinstance(payload, CorrectionMade):
        return f"{name}, put right: {payload.correction.replace('_', ' ')}{f', {payload.note}' if payload.note else ''}"
    share = "" if payload.share is None else f" ({_pct(payload.share)} by what was seen and known)"
    because = f"; {payload.reason}" if payload.reason else ""
    return f"{name}: cause {payload.named or payload.cause.value}{share}{because}"
