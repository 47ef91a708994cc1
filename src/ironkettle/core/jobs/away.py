"""What is away from the unit, for its drawing: what came off, and what goes along with it, as a gland that is drawn out on its rod."""

from __future__ import annotations

from collections.abc import Set

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.step import STEP, STEPS, parts_off
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.task import Status, Task
from ironkettle.core.sheets.document.work import StepSpec

_TO_DO = frozenset({Status.NEXT, Status.OPEN})


def away_after(case: Case, task: Task) -> frozenset[str] | None:
    """The parts that are not on the unit once the step of a task is done; None where it moves none, and where it cannot be done now."""
    step = case.resolved.steps.get(task.subject) if task.kind is STEP else None
    if step is None or task.status not in _TO_DO:
        return None
    after = parts_away(case, step)
    return None if after == parts_away(case) else after


def parts_away(case: Case, step: StepSpec | None = None) -> frozenset[str]:
    """The parts that are not on the unit now; with a step those that will not be once it is done."""
    off, opened = set(parts_off(case)), _opened(case)
    if step is not None:
        off = (off | (set(step.takes_off) & set(case.resolved.parts))) - set(step.puts_on)
        opened = (opened | set(step.opens)) - set(step.closes)
    return frozenset(off | _carried(case, off, opened))


def _opened(case: Case) -> set[str]:
    """The stations that were opened and are closed by no step that stands."""
    opened: set[str] = set()
    closed: set[str] = set()
    for step in case.resolved.sheet.steps:
        marked = case.state.book(STEPS).get(step.key)
        if marked is not None:
            opened |= set(step.opens)
            if not undone(case, "steps", step.key, marked.mark):
                closed |= set(step.closes)
    return opened - closed


def _carried(case: Case, off: Set[str], opened: Set[str]) -> set[str]:
    """The parts that hang on what is off: a station between them is closed, and each that holds them to the unit is open.

    Only what comes off at a step of its own can: a housing never goes along with what was in it.
    """
    loose = {part for step in case.resolved.sheet.steps for part in step.takes_off} - off
    found: set[str] = set()
    grown = True
    while grown:
        away = off | found
        new = {part for part in loose - found if _hangs(case, part, away, opened)}
        grown, found = bool(new), found | new
    return found


def _hangs(case: Case, part: str, away: Set[str], opened: Set[str]) -> bool:
    sides = [
        (station.key, station.counterface if station.carrier == part else station.carrier)
        for station in case.resolved.sheet.stations
        if part in {station.carrier, station.counterface}
    ]
    held = any(other in away and key not in opened for key, other in sides)
    return held and all(key in opened for key, other in sides if other not in away)
