"""The stages of a job: how far each is, what is worked in it now, what is laid out for it, which panels stand beside it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ironkettle.core.jobs.task import STAGE_WORD, Stage, Status, Task


class Panel(StrEnum):
    """What may stand beside the task: what was found wrong, the suspects for a leak, earlier jobs on the unit, the part tray."""

    WRONG = "wrong"
    SUSPECTS = "suspects"
    EARLIER = "earlier"
    TRAY = "tray"


_PANELS = {
    Stage.AS_FOUND: (Panel.SUSPECTS, Panel.EARLIER),
    Stage.SAFE: (Panel.SUSPECTS,),
    Stage.STRIP: (Panel.TRAY, Panel.WRONG, Panel.SUSPECTS, Panel.EARLIER),
    Stage.INSPECT: (Panel.TRAY, Panel.WRONG, Panel.SUSPECTS, Panel.EARLIER),
    Stage.REBUILD: (Panel.TRAY,),
    Stage.RELEASE: (Panel.WRONG,),
}
_OVER = frozenset({Status.DONE, Status.SKIPPED})
_WORKABLE = frozenset({Status.NEXT, Status.OPEN, Status.WAITING})


@dataclass(frozen=True, slots=True)
class StageState:
    """A stage that has tasks in this job. ``open`` says that something in it can be done now.

    ``tools``: tools and consumables of what is still to be done in it, to be laid out first. ``current``: the task that is worked in it:
    the next one of the job, else the first that can be done, else the first that waits for others; None where all is over.
    """

    key: Stage
    word: str
    done: int
    total: int
    status: Literal["done", "open", "later"]
    tools: tuple[str, ...]
    panels: tuple[Panel, ...]
    current: str | None


def stages_of(tasks: Sequence[Task]) -> tuple[StageState, ...]:
    """The stages of a job in their order; those without a task are left out."""
    own = {stage: [task for task in tasks if task.stage is stage] for stage in Stage}
    return tuple(_state(stage, found) for stage, found in own.items() if found)


def _state(stage: Stage, tasks: Sequence[Task]) -> StageState:
    done = sum(task.status in _OVER for task in tasks)
    workable = any(task.status in _WORKABLE for task in tasks)
    ahead = [tool for task in tasks if task.status not in _OVER for tool in task.tools]
    return StageState(
        stage,
        STAGE_WORD[stage],
        done,
        len(tasks),
        "done" if done == len(tasks) else "open" if workable else "later",
        tuple(dict.fromkeys(ahead)),
        _PANELS.get(stage, ()),
        _current(tasks),
    )


def _current(tasks: Sequence[Task]) -> str | None:
    for wanted in ({Status.NEXT}, _WORKABLE, {Status.BLOCKED}):
        for task in tasks:
            if task.status in wanted:
                return task.key
    return None
