"""What a job on a sister unit gives a copy of it."""

from __future__ import annotations

from ironkettle.core.jobs.case import Carried
from ironkettle.core.jobs.kinds.question import answers_in
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.state import State


def carried_from(number: int, state: State) -> Carried:
    """What another job's state gives a copy of it. ``number``: of that job, from 1. [-]"""
    return Carried(
        number,
        {key: marked.value.size for key, marked in state.book(SIZES).items()},
        answers_in(state),
        {
            (marked.value.group, marked.value.phase): marked.value.wrench
            for marked in state.book(TIGHTENED).values()
            if marked.value.wrench
        },
    )
