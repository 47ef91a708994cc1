"""What was found on a unit: how its elements lie now, which ways a leak takes through what is wrong, what failed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.find import FOUND, reversed_words
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.sealing.failures import Cause
from ironkettle.core.sheets.drawing.leaks import paths_through


@dataclass(frozen=True, slots=True)
class Drawn:
    """How an element lies in the drawing now: found or fitted, which zone it faces, whether that is wrong."""

    element: str
    state: Literal["unknown", "found", "missing", "fitted"]
    faces: str | None = None
    wrong: bool = False


@dataclass(frozen=True, slots=True)
class Leak:
    """The way a leak takes where an element was missing or the wrong way round."""

    words: str
    stations: tuple[str, ...]


def drawn_elements(case: Case) -> tuple[Drawn, ...]:
    """How each element lies now."""
    return tuple(_drawn(case, key) for key in case.resolved.elements)


def _drawn(case: Case, key: str) -> Drawn:
    must = case.resolved.oriented[key].faces
    seen, fitted = case.state.get(FOUND, key), case.state.get(FITTED, key)
    if fitted is not None:
        return Drawn(key, "fitted", fitted.faces)
    if seen is None:
        return Drawn(key, "unknown")
    if not seen.present:
        return Drawn(key, "missing", wrong=True)
    return Drawn(key, "found", seen.faced, wrong=must is not None and seen.faced not in {None, must})


def leaks_of(case: Case) -> Iterator[Leak]:
    """The ways through the stations whose elements were found wrong and are not made good yet."""
    wrong = {case.resolved.elements[one.element].station.key for one in drawn_elements(case) if one.wrong}
    names = case.resolved.zone_names
    for station in case.resolved.sheet.stations:
        if station.key in wrong:
            for path in paths_through(case.resolved.sheet, station.key):
                words = f"a way from {names[path.source]} to {names[path.zone]} through {station.name}"
                yield Leak(words, tuple(path.stations))


def causes_of(case: Case) -> tuple[str, ...]:
    """What failed: as it is seen by itself, and as was decided."""
    seen = reversed_words(case)
    decided = [one for one in decided_causes(case) if not (one.key is Cause.REVERSED and one.element in seen)]
    return (*seen.values(), *(f"{one.name}: {one.cause}" for one in decided))
