"""What was found on a unit: how its elements lie now, which ways a leak takes through what is wrong, what failed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.find import FOUND, reversed_words
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.skip import is_skipped
from ironkettle.core.jobs.kinds.step import is_done
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.sealing.failures import Cause
from ironkettle.core.sheets.drawing.leaks import paths_through


@dataclass(frozen=True, slots=True)
class Drawn:
    """How an element lies in the drawing now: found, off since the strip-down is done, or fitted; which zone it faces, or faced when it came
    off, and whether that is wrong."""

    element: str
    state: Literal["unknown", "found", "off", "missing", "fitted"]
    faces: str | None = None
    wrong: bool = False


@dataclass(frozen=True, slots=True)
class Leak:
    """The way a leak takes where an element was missing or the wrong way round."""

    words: str
    stations: tuple[str, ...]


def drawn_elements(case: Case) -> tuple[Drawn, ...]:
    """How each element lies now."""
    stripped = _is_stripped(case)
    return tuple(_drawn(case, key, stripped=stripped) for key in case.resolved.elements)


def _is_stripped(case: Case) -> bool:
    """Whether the strip-down is behind, and all that came off in it told: from then on a place is empty until it is filled."""
    steps = [step for step in case.resolved.sheet.steps if step.stage == "strip"]
    opened = {station for step in steps for station in step.opens}
    elements = [key for key, at in case.resolved.elements.items() if at.station.key in opened]
    return (
        bool(steps)
        and all(is_done(case, step) or is_skipped(case.state, f"step:{step.key}") for step in steps)
        and all(case.state.has(FOUND, key) or is_skipped(case.state, f"find:{key}") for key in elements)
    )


def _drawn(case: Case, key: str, *, stripped: bool) -> Drawn:
    must = case.resolved.oriented[key].faces
    seen, fitted = case.state.get(FOUND, key), case.state.book(FITTED).get(key)
    if fitted is not None and not undone(case, "elements", key, fitted.mark):
        return Drawn(key, "fitted", fitted.value.faces)
    if seen is None:
        return Drawn(key, "unknown")
    if not seen.present:
        return Drawn(key, "missing", wrong=True)
    return Drawn(
        key, "off" if stripped else "found", seen.faced, wrong=must is not None and seen.faced not in {None, must}
    )


def leaks_of(case: Case) -> Iterator[Leak]:
    """The ways through the stations whose elements were found wrong and are not made good yet."""
    wrong = {
        case.resolved.elements[drawn_element.element].station.key
        for drawn_element in drawn_elements(case)
        if drawn_element.wrong
    }
    names = case.resolved.zone_names
    for station in case.resolved.sheet.stations:
        if station.key in wrong:
            for path in paths_through(case.resolved.sheet, station.key):
                words = f"a way from {names[path.source]} to {names[path.zone]} through {station.name}"
                yield Leak(words, tuple(path.stations))


def causes_of(case: Case) -> tuple[str, ...]:
    """What failed: as it is seen by itself, and as was decided."""
    seen = reversed_words(case)
    decided = [
        decided_cause
        for decided_cause in decided_causes(case)
        if not (decided_cause.key is Cause.REVERSED and decided_cause.element in seen)
    ]
    return (*seen.values(), *(f"{decision.name}: {decision.cause}" for decision in decided))
