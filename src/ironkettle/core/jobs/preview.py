"""What a sheet will ask of a job before there is one: its moves by chapter, with the first choice of every question."""

from __future__ import annotations

from collections import Counter
from datetime import UTC, datetime

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.jobs.chart import circle_in, moves_of
from ironkettle.core.jobs.log import Case, State, Tables
from ironkettle.core.jobs.resolved import resolve
from ironkettle.core.sheets.document.answers import first_answers
from ironkettle.core.sheets.document.sheet import Sheet

_ANY_TIME = datetime(2000, 1, 1, tzinfo=UTC)


def preview(sheet: Sheet, tables: Tables) -> dict[str, int]:
    """How many moves each chapter of a job has. [-]"""
    return dict(Counter(move.stage.value for move in moves_of(_unworked(sheet, tables))))


def work_faults(sheet: Sheet, tables: Tables) -> list[FieldFault]:
    """What makes a sound sheet impossible to work: moves that wait for each other in a circle."""
    circle = circle_in(_unworked(sheet, tables))
    if not circle:
        return []
    return [FieldFault("steps", f"moves wait for each other: {' → '.join(circle)}")]


def _unworked(sheet: Sheet, tables: Tables) -> Case:
    return Case(resolve(sheet, first_answers(sheet, {})), State(), tables, _ANY_TIME)
