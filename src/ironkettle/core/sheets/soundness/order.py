"""The order of work of a sheet: no circle, nothing against the strip-down, nothing asked too late."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from graphlib import CycleError, TopologicalSorter
from itertools import pairwise
from typing import Self

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sheets.document.answers import answered, first_answers
from ironkettle.core.sheets.document.beforehand import step_of, with_first_work
from ironkettle.core.sheets.document.parts import Fate
from ironkettle.core.sheets.document.places import StationSpec
from ironkettle.core.sheets.document.positions import position_of
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec

STAGES = ("safe", "strip", "clean", "rebuild")


def after_of(sheet: Sheet) -> dict[str, list[str]]:
    """What each step comes after; one that does not say follows the one before it."""
    found: dict[str, list[str]] = {}
    before: str | None = None
    for step in sheet.steps:
        found[step.key] = list(step.after) if step.after is not None else ([] if before is None else [before])
        before = step.key
    return found


def off_order(sheet: Sheet) -> dict[str, int]:
    """The place in the strip-down at which each part comes off. [-]"""
    places: dict[str, int] = {}
    for step in sheet.steps:
        if step.stage in {"safe", "strip"}:
            for part in step.takes_off:
                places.setdefault(part, len(places))
    return places


@dataclass(frozen=True)
class _Apart:
    """How the strip-down takes a unit apart, and which steps bring it together again; parts in their order, the rest by place of the step."""

    off: Mapping[str, int]
    off_in: Mapping[str, int]
    opened: Mapping[str, int]
    put_on: Mapping[str, str]
    closing: Mapping[str, str]
    names: Mapping[str, str]
    stations: Mapping[str, StationSpec]

    @classmethod
    def of(cls, sheet: Sheet) -> Self:
        rebuild = [step for step in sheet.steps if step.stage == "rebuild"]
        return cls(
            off_order(sheet),
            off_in_step(sheet),
            _opened_in(sheet),
            {part: step.key for step in rebuild for part in step.puts_on},
            {station: step.key for step in rebuild for station in step.closes},
            {part.key: part.name for part in sheet.parts},
            {station.key: station for station in sheet.stations},
        )


def rebuild_waits(sheet: Sheet) -> dict[str, dict[str, str]]:
    """For each step of the rebuild, the steps that the strip-down puts before it, with the reason.

    A step that puts on a part waits for every part that came off later and that some step puts on, for
    every station that was opened with it or later, but for those fitted in place. Left out are parts it is said
    to be ahead of, with their stations.
    """
    apart = _Apart.of(sheet)
    waits: dict[str, dict[str, str]] = {step.key: {} for step in sheet.steps}
    for step in sheet.steps:
        if step.stage == "rebuild":
            for by, reason in (*_later_parts(apart, step), *_open_stations(apart, step)):
                if step_of(by) != step_of(step.key):
                    waits[step.key].setdefault(by, reason)
    return waits


def _later_parts(apart: _Apart, step: StepSpec) -> Iterator[tuple[str, str]]:
    off = apart.off
    for part in (key for key in step.puts_on if key in off):
        for other, by in apart.put_on.items():
            later = other in off and off[other] > off[part] and not side_by_side(part, other)
            if later and other not in step.ahead_of:
                yield by, f"{apart.names[other]} came off after {apart.names[part]}"


def _open_stations(apart: _Apart, step: StepSpec) -> Iterator[tuple[str, str]]:
    for part in (earlier for earlier in step.puts_on if earlier in apart.off_in):
        for key, place in apart.opened.items():
            station = apart.stations[key]
            left_out = station.fitted == "in_place" or side_by_side(part, key) or station.carrier in step.ahead_of
            later = place >= apart.off_in[part] and not _parted_before(apart, station, part, place)
            if key in apart.closing and later and not left_out:
                yield apart.closing[key], f"{station.name} was opened with {apart.names[part]} or after it"


def _parted_before(apart: _Apart, station: StationSpec, part: str, place: int) -> bool:
    """Whether a station was opened at the step that took a part off, but by a part that came off before it there."""
    own = [key for key in (station.carrier, station.counterface) if key is not None]
    parted = [apart.off[key] for key in own if apart.off_in.get(key) == place]
    return place == apart.off_in[part] and bool(parted) and min(parted) < apart.off[part]


def side_by_side(one: str, other: str) -> bool:
    """Whether two things belong to different positions of several alike: neither waits for the other."""
    mine, theirs = position_of(one), position_of(other)
    return mine is not None and theirs is not None and mine != theirs


def _opened_in(sheet: Sheet) -> dict[str, int]:
    """The place among the steps of the one that opened each station. [-]"""
    found: dict[str, int] = {}
    for place, step in enumerate(sheet.steps):
        if step.stage in {"safe", "strip"}:
            for station in step.opens:
                found.setdefault(station, place)
    return found


def off_in_step(sheet: Sheet) -> dict[str, int]:
    """The place among the steps of the one that took each part off. [-]"""
    found: dict[str, int] = {}
    for place, step in enumerate(sheet.steps):
        if step.stage in {"safe", "strip"}:
            for part in step.takes_off:
                found.setdefault(part, place)
    return found


def dependencies(sheet: Sheet) -> dict[str, dict[str, str]]:
    """For each step, the steps it comes after and why: the sheet's own order, the stages, the strip-down turned round."""
    why = {step.key: step.why or "" for step in sheet.steps}
    waits = rebuild_waits(sheet)
    found: dict[str, dict[str, str]] = {}
    stage = {step.key: STAGES.index(step.stage) for step in sheet.steps}
    for key, before in after_of(sheet).items():
        found[key] = {part: why[key] for part in before if part in stage and stage[part] <= stage[key]}
        found[key].update({part: reason for part, reason in waits[key].items() if part not in found[key]})
    return found


def order_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Circles, steps after what a later stage does, an order of rebuild that the strip-down forbids, questions too late."""
    places = {step.key: place for place, step in enumerate(sheet.steps)}
    for place, step in enumerate(sheet.steps):
        for at, before in enumerate(step.after or ()):
            other = next((key for key in sheet.steps if key.key == before), None)
            if other is not None and STAGES.index(other.stage) > STAGES.index(step.stage):
                yield FieldFault(f"steps.{place}.after.{at}", f"{before} belongs to a later stage")
    yield from _circle(sheet, places)
    yield from _open_ends(sheet, places)
    yield from _late_questions(sheet, places)


def _circle(sheet: Sheet, places: Mapping[str, int]) -> Iterator[FieldFault]:
    reduced = with_first_work(answered(sheet, first_answers(sheet, {})))
    own = {key: [key for key in before if step_of(key) in places] for key, before in after_of(reduced).items()}
    circle = _circle_in(own)
    if circle:
        yield FieldFault(
            f"steps.{places[step_of(circle[0])]}.after", f"waits for itself in a circle: {' → '.join(circle)}"
        )
        return
    needed = dependencies(reduced)
    circle = _circle_in({key: list(before) for key, before in needed.items()})
    if circle:
        reasons = [
            f"{later} after {earlier}: {needed[later][earlier] or 'the sheet says so'}"
            for earlier, later in pairwise(circle)
            if earlier in needed.get(later, {})
        ]
        yield FieldFault(f"steps.{places[step_of(circle[0])]}", f"the order contradicts itself: {'; '.join(reasons)}")


def _circle_in(graph: Mapping[str, list[str]]) -> list[str]:
    try:
        TopologicalSorter(graph).prepare()
    except CycleError as error:
        return [str(key) for key in error.args[1]]
    return []


def _open_ends(sheet: Sheet, places: Mapping[str, int]) -> Iterator[FieldFault]:
    closed = {station for step in sheet.steps for station in step.closes}
    opened: dict[str, str] = {}
    off: dict[str, str] = {}
    left = {part.key for part in sheet.parts if part.fate is Fate.LEAVE}
    for place, step in enumerate(sheet.steps):
        for at, station in enumerate(step.opens):
            if station in opened and not step.only:
                yield FieldFault(f"steps.{place}.opens.{at}", f"{station} was opened at {opened[station]} already")
            opened[station] = step.key
            if station not in closed:
                yield FieldFault(f"steps.{place}.opens.{at}", f"{station} is opened and never closed")
        for at, part in enumerate(step.takes_off):
            if part in left:
                yield FieldFault(f"steps.{place}.takes_off.{at}", f"{part} is to be left on")
            if part in off and not step.only:
                yield FieldFault(f"steps.{place}.takes_off.{at}", f"{part} came off at {off[part]} already")
            off[part] = step.key
        if step.timer and not step.timer.what_for:
            yield FieldFault(f"steps.{place}.timer.for", "say what it waits for", ("the packing set to fill with oil",))


def _late_questions(sheet: Sheet, places: Mapping[str, int]) -> Iterator[FieldFault]:
    """A question has to be seen before what depends on it."""
    seen_at = {
        question.key: places[question.seen_at]
        for question in sheet.questions
        if question.seen_at is not None and question.seen_at in places
    }
    for place, step in enumerate(sheet.steps):
        for question in step.only:
            if seen_at.get(question, -1) >= place:
                text = f"{question} is asked at {sheet.steps[seen_at[question]].key}, which is not before this step"
                yield FieldFault(f"steps.{place}.only", text)
    opened = {station: place for place, step in reversed(list(enumerate(sheet.steps))) for station in step.opens}
    for index, station in enumerate(sheet.stations):
        for question in station.only:
            if station.key in opened and seen_at.get(question, -1) > opened[station.key]:
                text = f"{question} is asked at {sheet.steps[seen_at[question]].key}, after this station is opened"
                yield FieldFault(f"stations.{index}.only", text)
