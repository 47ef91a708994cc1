"""What a sheet will ask of a job before there is one: its tasks by stage, with the first choice of every question."""

from __future__ import annotations

from collections import Counter
from datetime import UTC, datetime

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.jobs.case import Case, Tables
from ironkettle.core.jobs.resolved import resolve
from ironkettle.core.jobs.state import State
from ironkettle.core.jobs.tasks import circle_in, tasks_of
from ironkettle.core.sheets.document.answers import first_answers
from ironkettle.core.sheets.document.sheet import Sheet

_ANY_TIME = datetime(2000, 1, 1, tzinfo=UTC)


def preview(sheet: Sheet, tables: Tables) -> dict[str, int]:
    """How many tasks each stage of a job has. [-]"""
    return dict(Counter(task.stage.value for task in tasks_of(_unworked(sheet, tables))))


def work_faults(sheet: Sheet, tables: Tables) -> list[FieldFault]:
    """What makes a sound sheet impossible to work: tasks that wait for each other in a circle."""
    circle = circle_in(_unworked(sheet, tables))
    if not circle:
        return []
    return [FieldFault("steps", f"tasks wait for each other: {' → '.join(circle)}")]


def _unworked(sheet: Sheet, tables: Tables) -> Case:
    return Case(resolve(sheet, first_answers(sheet, {})), State(), tables, _ANY_TIME)
