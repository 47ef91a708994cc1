"""A move passed over with a written reason; one whose reason is a danger only on a ground, the danger named. Strikings, notes."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from typing import Literal
from uuid import UUID

from pydantic import Field

from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.jobs.kinds.base import Note, Reason
from ironkettle.core.jobs.log import Case, Mark, Marked, Payload, State
from ironkettle.core.jobs.model import Draft, Kind, Move, Status
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.shop.people import Role


class Ground(StrEnum):
    """On what ground something is left out that is there against a danger."""

    SEEN_SAFE = "seen_safe"
    SAFE_ELSEWHERE = "safe_elsewhere"
    NEVER_LIVE = "never_live"


GROUND_WORD = {
    Ground.SEEN_SAFE: "it came isolated, drained and cold, as seen",
    Ground.SAFE_ELSEWHERE: "it was made safe and tagged elsewhere",
    Ground.NEVER_LIVE: "it was never under pressure",
}


class MoveSkipped(Payload):
    kind: Literal["move_skipped"] = "move_skipped"
    move: str = Field(min_length=1, max_length=160)
    reason: Reason
    grounds: Ground | None = None


class ChapterSkipped(Payload):
    """A whole chapter passed over, as jobs were once worked; read from their logs, taken no more."""

    kind: Literal["stage_skipped"] = "stage_skipped"
    stage: str = Field(min_length=1, max_length=20)
    reason: Reason
    grounds: Ground | None = None


class NoteMade(Payload):
    kind: Literal["note_made"] = "note_made"
    text: Note = Field(min_length=1)


class EntryStruck(Payload):
    """An earlier entry was a mistake; it stays in the log and counts no more."""

    kind: Literal["entry_struck"] = "entry_struck"
    entry: UUID
    reason: Reason


PAYLOADS = (MoveSkipped, ChapterSkipped, NoteMade, EntryStruck)
# What nobody passes over: without them there is no job, or no one who answers for it.
_NEVER = ("intake", "sign", "account")


def check(case: Case, payload: Payload) -> None:
    if isinstance(payload, MoveSkipped):
        _check_skip(case, payload)
    elif isinstance(payload, ChapterSkipped):
        raise fault("stage", "a chapter is not passed over whole any more; pass over a move at a time")
    elif isinstance(payload, EntryStruck):
        _check_strike(case, payload)


def _check_skip(case: Case, payload: MoveSkipped) -> None:
    if payload.move in _NEVER:
        raise fault("move", "this cannot be passed over")
    danger = danger_of(case, payload.move)
    if danger is not None and payload.grounds is None:
        raise fault(
            "grounds", f"passed over only on one of these grounds; what can hurt: {danger[:300]}", *GROUND_WORD.values()
        )
    if payload.move.startswith("timer:"):
        raise RefusedError("timer-stands", "a timer is cut short with its own reason, not passed over")


def is_passable(move: Move) -> bool:
    """Whether a move can be passed over with a reason as it stands."""
    over = move.status in {Status.DONE, Status.SKIPPED, Status.DEPENDS}
    return not over and move.key not in _NEVER and move.kind is not Kind.TIMER


def danger_of(case: Case, move: str) -> str | None:
    """What can hurt where a step is left out: its caution, or its words for a step of making safe; None for others."""
    kind, _, key = move.partition(":")
    step = case.resolved.steps.get(key) if kind == "step" else None
    if step is None:
        return None
    return step.caution or (step.text if step.stage == "safe" else None)


# What stays in a log for good: signatures, and strikings themselves.
_STAYS = frozenset({"released", "job_ended", "reopened", "entry_struck"})


def _check_strike(case: Case, payload: EntryStruck) -> None:
    if case.target is None:
        raise fault("entry", "no such entry in this job")
    owner, target = case.target
    if case.author is not None and owner != case.author.key and case.author.role is not Role.LEAD:
        raise NotAllowedError("not-yours", "only the one who made an entry, or the lead, strikes it out")
    if payload.entry in case.state.struck:
        raise RefusedError("struck-already", "this entry is struck out already")
    if target.kind in _STAYS:  # type: ignore[attr-defined]
        raise RefusedError("not-strikable", "releases, reopenings and strikings stay; write a new entry instead")
    intake = case.state.book("intake").get("intake")
    if intake is not None and intake.mark.entry == payload.entry:
        raise RefusedError("last-intake", "record the corrected intake first, then strike the one before it")


def is_strikable(case: Case, entry: UUID, owner: str, payload: Payload) -> bool:
    """Whether the author of the case may strike this entry out as the job stands."""
    try:
        _check_strike(replace(case, target=(owner, payload)), EntryStruck(entry=entry, reason="as looked at"))
    except (RefusedError, NotAllowedError):
        return False
    return case.state.closed is None


def needs_lead(state: State) -> bool:
    """Whether only a lead may sign: something that is there against a danger was passed over."""
    books = (state.books.get("skipped", {}), state.books.get("skipped_chapters", {}))
    return any(marked.value.grounds is not None for book in books for marked in book.values())


def apply(state: State, payload: Payload, mark: Mark) -> None:
    if isinstance(payload, MoveSkipped):
        state.note("skipped", payload.move, payload, mark)
    elif isinstance(payload, ChapterSkipped):
        state.note("skipped_chapters", payload.stage, payload, mark)
    elif isinstance(payload, NoteMade):
        state.note("notes", mark.seq, payload, mark)
    elif isinstance(payload, EntryStruck):
        state.struck[payload.entry] = Marked(payload, mark)


def drafts(case: Case) -> Iterator[Draft]:
    yield from ()


def words(resolved: Resolved, payload: Payload) -> str:
    if isinstance(payload, MoveSkipped):
        ground = f"{GROUND_WORD[payload.grounds]}; " if payload.grounds else ""
        kind, _, key = payload.move.partition(":")
        step = resolved.steps.get(key) if kind == "step" else None
        return f"passed over, {step.text if step else payload.move.replace(':', ' ')}: {ground}{payload.reason}"
    if isinstance(payload, ChapterSkipped):
        ground = f"{GROUND_WORD[payload.grounds]}; " if payload.grounds else ""
        return f"went on without finishing {payload.stage}: {ground}{payload.reason}"
    if isinstance(payload, NoteMade):
        return f"note: {payload.text}"
    return f"an entry struck out: {payload.reason}" if isinstance(payload, EntryStruck) else ""
