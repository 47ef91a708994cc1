"""The choices of the house that the work rested on."""

from __future__ import annotations

from reportlab.platypus import Flowable

from ironkettle.core.jobs.chart import moves_of
from ironkettle.core.jobs.log import Case
from ironkettle.core.jobs.model import Status
from ironkettle.core.jobs.schools import schools_in
from ironkettle.reports.pieces import paragraph, title
from ironkettle.reports.style import FAINT


def schools_section(case: Case) -> list[Flowable]:
    """Each choice of the house in force on the day the job was opened, with the other ways in a line."""
    moves = moves_of(case)
    if case.state.has("ended", "ended"):
        moves = tuple(move for move in moves if move.status is Status.DONE)
    held = schools_in(case, moves)
    if not held:
        return []
    return [title("Choices of the house"), *(paragraph(one.told, 7.5, colour=FAINT) for one in held)]
