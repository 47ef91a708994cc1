"""Which spaces of the unit are under pressure at a task, for its drawing."""

from __future__ import annotations

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.proving import spec_of
from ironkettle.core.jobs.task import Stage, Status, Task
from ironkettle.core.jobs.tasks import tasks_of
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.positions import base_key

_TEST = "test"
# Here the unit stands as it is at work.
_AT_WORK = frozenset({Stage.AS_FOUND, Stage.SET, Stage.TEST})
_BEHIND = frozenset({Status.DONE, Status.SKIPPED})


def pressed_at(case: Case, task: Task) -> frozenset[str] | None:
    """The zones under pressure at a task, by key; None for all of them, as in service.

    A test presses the zones that it names; all others are vented. The unit stands as in service until it is made safe, also after it was
    pressed again; where it is looked at under load; and where a pressure is set or read. Else nothing of it is under pressure.
    """
    if task.kind.key == _TEST:
        wanted = {base_key(zone) for zone in spec_of(case, task.subject).all_zones}
        return frozenset(zone.key for zone in case.resolved.sheet.zones if base_key(zone.key) in wanted)
    at_work = task.stage in _AT_WORK or any(ask.read is Read.PRESSURE for ask in task.asks)
    return None if at_work or not _made_safe(case) else frozenset()


def _made_safe(case: Case) -> bool:
    return all(task.status in _BEHIND for task in tasks_of(case) if task.stage is Stage.SAFE)
