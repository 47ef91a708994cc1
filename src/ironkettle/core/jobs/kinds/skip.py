"""A task skipped with a written reason; one whose reason is a danger only on a ground, the danger named."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from enum import StrEnum
from typing import Literal

from pydantic import AliasChoices, Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.jobs.task import Status, Task
from ironkettle.core.sheets.document.parts import Read


class Ground(StrEnum):
    """On what ground something is left out that is there against a danger."""

    SEEN_SAFE = "seen_safe"
    SAFE_ELSEWHERE = "safe_elsewhere"
    NEVER_LIVE = "never_live"


GROUND_WORD = {
    Ground.SEEN_SAFE: "it was seen isolated, drained and cold on arrival",
    Ground.SAFE_ELSEWHERE: "it was made safe and tagged elsewhere",
    Ground.NEVER_LIVE: "it was never under pressure",
}


class TaskSkipped(Payload):
    """``task``: the key of the task that is skipped; older logs call it a move."""

    kind: Literal["task_skipped"] = "task_skipped"
    task: str = Field(min_length=1, max_length=160, validation_alias=AliasChoices("task", "move"))
    reason: Reason
    grounds: Ground | None = None


SKIPPED: Book[str, TaskSkipped] = Book("skipped")
# What nobody skips: without them there is no job, or no one who answers for it.
_NEVER = ("intake", "sign", "account")


def is_skipped(state: State, task: str) -> bool:
    """Whether somebody went on without a task; what rests on it goes on too."""
    return state.has(SKIPPED, task)


def _check(case: Case, payload: TaskSkipped) -> None:
    if payload.task in _NEVER:
        raise fault("task", "this cannot be skipped")
    danger = danger_of(case, payload.task)
    if danger is not None and payload.grounds is None:
        raise fault(
            "grounds",
            f"this can only be skipped for one of these reasons; the danger: {danger[:300]}",
            *GROUND_WORD.values(),
        )
    if payload.task.startswith("timer:"):
        raise RefusedError("timer-stands", "a timer is cut short with its own reason, not skipped")


def may_be_skipped(task: Task) -> bool:
    """Whether a task can be skipped with a reason as it stands."""
    over = task.status in {Status.DONE, Status.SKIPPED, Status.DEPENDS}
    return not over and task.key not in _NEVER and task.kind.skippable


def danger_of(case: Case, task: str) -> str | None:
    """What can hurt where a step is left out: its caution, or its words for a step of making safe; None for others."""
    kind, _, key = task.partition(":")
    step = case.resolved.steps.get(key) if kind == "step" else None
    if step is None:
        return None
    return step.caution or (step.text if step.stage == "safe" else None)


def because(skipped: TaskSkipped) -> str:
    """Why a task was skipped: the ground, and the reason."""
    ground = f"{GROUND_WORD[skipped.grounds]}; " if skipped.grounds else ""
    return f"{ground}{skipped.reason}"


def _words(resolved: Resolved, payload: TaskSkipped) -> str:
    kind, _, key = payload.task.partition(":")
    step = resolved.steps.get(key) if kind == "step" else None
    return f"skipped, {step.text if step else payload.task.replace(':', ' ')}: {because(payload)}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    skipped = case.state.book(SKIPPED)
    for task in tasks:
        marked = skipped.get(task.key)
        if task.status is Status.SKIPPED and marked is not None:
            yield f"Skipped: {task.text}. {because(marked.value)}."


def _hand_over(case: Case) -> Iterator[Line]:
    for marked in case.state.book(SKIPPED).values():
        words = f"Skipped, {marked.value.task.replace(':', ' ')}: {marked.value.reason}"
        yield Line.by(Section.OPEN_ENDS, words, marked.mark, caution=True)


KIND = EntryKind(
    payload=TaskSkipped,
    former=("move_skipped",),
    check=_check,
    apply=keep(SKIPPED, lambda payload: payload.task),
    words=_words,
    signed=True,
    loose_asks=(Ask("reason", Read.TEXT, "Reason"),),
    against=_against,
    hand_over=_hand_over,
)
