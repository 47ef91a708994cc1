"""Hand-over of a job in half a minute: what is off and how it lay, what is decided and by whom, what waits for what, what is next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import Line, Section
from ironkettle.core.jobs.registry import kinds
from ironkettle.core.jobs.task import Task
from ironkettle.core.jobs.tasks import next_task


@dataclass(frozen=True, slots=True)
class HandOver:
    """``off``: what lies in the tray; ``lay``: how elements were found; ``decided``, ``assumed`` and not known, ``waits``, ``open_ends`` in words."""

    next: str | None
    why: str | None
    off: tuple[Line, ...]
    lay: tuple[Line, ...]
    decided: tuple[Line, ...]
    assumed: tuple[Line, ...]
    waits: tuple[Line, ...]
    open_ends: tuple[Line, ...]


def hand_over(case: Case, tasks: Sequence[Task]) -> HandOver:
    """What the next pair of hands has to know, in the order they ask for it: what each kind of entry has to say."""
    following = next_task(tasks)
    lines = [line for kind in kinds() for line in kind.hand_over(case)]
    parts = {section: tuple(line for line in lines if line.section is section) for section in Section}
    return HandOver(
        following.text if following else None,
        following.why if following else None,
        parts[Section.OFF],
        parts[Section.LAY],
        parts[Section.DECIDED],
        parts[Section.ASSUMED],
        parts[Section.WAITS],
        parts[Section.OPEN_ENDS],
    )
