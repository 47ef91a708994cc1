"""The points of inspection where they lie in the drawing."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import figure_words, holds, points_of
from ironkettle.core.jobs.kinds.inspection import POINTS


@dataclass(frozen=True, slots=True)
class PointAt:
    """A point where it lies in the drawing: what was read there in words, and whether it holds; nothing before it is read."""

    part: str
    point: str
    view: str | None
    at: tuple[float, float]
    ask: str
    words: str
    good: bool | None


def points_drawn(case: Case) -> tuple[PointAt, ...]:
    """The points that have a place in the drawing, with what was read of them last. [mm]"""
    found = []
    for part in case.resolved.sheet.parts:
        read = case.state.get(POINTS, part.key)
        by_key = {point.point: point for point in read.points} if read else {}
        for spec in points_of(case, part):
            if spec.at is None:
                continue
            point_read = by_key.get(spec.key)
            words = (
                ""
                if point_read is None
                else figure_words(spec, point_read.values)
                or ", ".join((*point_read.values, *point_read.signs))
                or "seen"
            )
            good = None if point_read is None else holds(spec, point_read)
            found.append(PointAt(part.key, spec.key, spec.view, spec.at, spec.ask, words, good))
    return tuple(found)
