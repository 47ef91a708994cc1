"""The choices of the shop that the work rested on."""

from __future__ import annotations

from reportlab.platypus import Flowable

from ironkettle.core.jobs import Case, Status, tasks_of
from ironkettle.core.jobs.kinds.ending import ending_of
from ironkettle.core.jobs.practice import practices_in
from ironkettle.reports.pieces import paragraph, title
from ironkettle.reports.style import FAINT


def practice_section(case: Case) -> list[Flowable]:
    """Each choice of the shop in force on the day the job was opened, a line each."""
    tasks = tasks_of(case)
    if ending_of(case.state) is not None:
        tasks = tuple(task for task in tasks if task.status is Status.DONE)
    held = practices_in(case, tasks)
    if not held:
        return []
    return [title("Practice options of the shop"), *(paragraph(option.line, 7.5, colour=FAINT) for option in held)]
