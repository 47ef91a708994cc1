"""A sheet resolved once for the answers given so far: what counts, positions spelled out, facing and order known."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from ironkettle.core.jobs.figure_tests import FigureTest, figure_test_of
from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sealing.facing import Orientation, OrientedElement
from ironkettle.core.sheets.document.answers import answered, depending
from ironkettle.core.sheets.document.beforehand import with_first_work
from ironkettle.core.sheets.document.facts import orientation_of
from ironkettle.core.sheets.document.fastening import FastenerGroup
from ironkettle.core.sheets.document.parts import PartSpec
from ironkettle.core.sheets.document.places import ElementSpec, SeatSpec, StationSpec
from ironkettle.core.sheets.document.positions import expanded
from ironkettle.core.sheets.document.quick_service import interval_of, quick_service_sheet
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.supplies import KitLine
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.sheets.drawing.leaks import LeakPath, leak_paths
from ironkettle.core.sheets.soundness.order import dependencies


@dataclass(frozen=True)
class ElementAt:
    """An element with the station and seat it belongs to."""

    station: StationSpec
    seat: SeatSpec
    spec: ElementSpec

    @property
    def key(self) -> str:
        return self.spec.key

    @property
    def one_use(self) -> bool:
        return KINDS[self.spec.kind].one_use if self.spec.one_use is None else self.spec.one_use


@dataclass(frozen=True)
class Resolved:
    """``whole``: the sheet as written; ``sheet``: what counts now, with positions spelled out.

    ``drawn``: what its drawing is made from. ``quick_service``: the interval it is narrowed to, in a quick service.
    """

    whole: Sheet
    answers: Mapping[str, str]
    sheet: Sheet
    drawn: Sheet
    open_questions: tuple[str, ...] = field(default=())
    quick_service: Interval | None = None

    @cached_property
    def elements(self) -> dict[str, ElementAt]:
        """Every element that is counted and fitted, further edges of one left out."""
        return {
            element.key: ElementAt(station, seat, element)
            for station, seat, element in self.sheet.elements
            if element.same_as is None
        }

    @cached_property
    def leaks(self) -> dict[str, tuple[LeakPath, ...]]:
        """By zone, the ways that a leak seen there may have come."""
        return {zone.key: leak_paths(self.sheet, zone.key) for zone in self.sheet.zones}

    @cached_property
    def stations(self) -> dict[str, StationSpec]:
        return {station.key: station for station in self.sheet.stations}

    @cached_property
    def steps(self) -> dict[str, StepSpec]:
        return {step.key: step for step in self.sheet.steps}

    @cached_property
    def parts(self) -> dict[str, PartSpec]:
        return {part.key: part for part in self.sheet.parts}

    @cached_property
    def groups(self) -> dict[str, FastenerGroup]:
        return {group.key: group for group in self.sheet.fasteners}

    @cached_property
    def kit_lines(self) -> dict[str, KitLine]:
        return {line.key: line for kit in self.sheet.kits for line in kit.lines}

    @cached_property
    def zone_names(self) -> dict[str, str]:
        return {zone.key: zone.name for zone in self.sheet.zones}

    @cached_property
    def orientation(self) -> Orientation:
        return orientation_of(self.sheet)

    @cached_property
    def oriented(self) -> dict[str, OrientedElement]:
        return {element.key: element for station in self.orientation.stations for element in station.elements}

    @cached_property
    def fitting_order(self) -> dict[str, tuple[str, ...]]:
        return {station.key: station.fitting_order for station in self.orientation.stations}

    @cached_property
    def figure_tests(self) -> dict[str, FigureTest]:
        """The tests that are told in figures, by their key."""
        read = {spec.key: figure_test_of(self.sheet, spec) for spec in self.sheet.tests}
        return {key: figures for key, figures in read.items() if figures is not None}

    @cached_property
    def before(self) -> dict[str, dict[str, str]]:
        """For each step, the steps that come first and why."""
        return dependencies(self.sheet)

    def lines_of(self, element: str) -> list[KitLine]:
        return [line for line in self.kit_lines.values() if element in line.all_elements]


def resolve(sheet: Sheet, answers: Mapping[str, str], quick_service: str | None = None) -> Resolved:
    """The sheet for these answers; what waits for an open question is left out and its question named.

    With ``quick_service`` only what the quick service of that interval does. Raises RuleError where the sheet has no such interval.
    """
    known = {question.key for question in sheet.questions}
    given = {question: choice for question, choice in answers.items() if question in known}
    drawn = with_first_work(expanded(answered(sheet, given)))
    if quick_service is None:
        waiting = tuple(dict.fromkeys(question for _, question in depending(sheet, given)))
        return Resolved(sheet, given, drawn, drawn, waiting)
    interval = interval_of(sheet, quick_service)
    narrow = quick_service_sheet(sheet, interval)
    waiting = tuple(dict.fromkeys(question for _, question in depending(narrow, given)))
    return Resolved(narrow, given, with_first_work(expanded(answered(narrow, given))), drawn, waiting, interval)
