"""A whole stage skipped, as jobs were once worked: read from their logs, taken no more."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.skip import GROUND_WORD, Ground, is_skipped
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.jobs.task import Status, Task


class StageSkipped(Payload):
    kind: Literal["stage_skipped"] = "stage_skipped"
    stage: str = Field(min_length=1, max_length=20)
    reason: Reason
    grounds: Ground | None = None


SKIPPED_STAGES: Book[str, StageSkipped] = Book("skipped_stages")
# Tightening was once a stage of its own.
_TIGHTENING = "tighten"


def stage_is_skipped(state: State, task: Task) -> bool:
    """Whether the whole stage of a task was skipped."""
    stage = _TIGHTENING if task.kind.key == _TIGHTENING else task.stage.value
    return state.has(SKIPPED_STAGES, stage)


def _check(case: Case, payload: StageSkipped) -> None:
    raise fault("stage", "a stage is not skipped as a whole any more; skip one task at a time")


def _because(payload: StageSkipped) -> str:
    ground = f"{GROUND_WORD[payload.grounds]}; " if payload.grounds else ""
    return f"{ground}{payload.reason}"


def _words(resolved: Resolved, payload: StageSkipped) -> str:
    return f"went on without finishing {payload.stage}: {_because(payload)}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for stage, marked in case.state.book(SKIPPED_STAGES).items():
        if any(task.status is Status.SKIPPED and not is_skipped(case.state, task.key) for task in tasks):
            yield f"Went on without finishing {stage}: {_because(marked.value)}."


KIND = EntryKind(
    payload=StageSkipped,
    check=_check,
    apply=keep(SKIPPED_STAGES, lambda payload: payload.stage),
    words=_words,
    against=_against,
)
