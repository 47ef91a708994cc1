"""A sheet as the answers to its questions leave it: what is out drops, and so does what refers to it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from itertools import product
from typing import Any, TypeVar

from ironkettle.core.base.errors import fault
from ironkettle.core.sheets.document.fields import Item
from ironkettle.core.sheets.document.parts import PointName, QuestionSpec
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.supplies import Kit, KitLine
from ironkettle.core.sheets.document.work import StepSpec

Answers = Mapping[str, str]
AnItem = TypeVar("AnItem", bound=Item)

# What a step does to things that may be out; one that did only such things goes with them.
_ACTS = ("loosens", "relieves", "takes_off", "opens", "puts_on", "closes", "tightens", "sets", "runs", "meets")


def counts(item: Item, answers: Answers) -> bool | None:
    """Whether an item counts: yes, no, or None while a question it depends on is open."""
    open_ = False
    for question, choices in item.only.items():
        if question not in answers:
            open_ = True
        elif answers[question] not in choices:
            return False
    return None if open_ else True


def first_answers(sheet: Sheet, answers: Answers) -> dict[str, str]:
    """These answers, and the first choice that the sheet serves for every question that is still open."""
    return {question.key: served(question)[0] for question in sheet.questions} | dict(answers)


def served(question: QuestionSpec) -> list[str]:
    """The choices of a question that the sheet serves; all of them where it would serve none."""
    kept = [choice.key for choice in question.choices if not choice.refuses]
    return kept or [choice.key for choice in question.choices]


def geometry_answers(sheet: Sheet, most: int) -> list[dict[str, str]]:
    """Every combination of answers that can change what is drawn. [at most ``most``]

    Raises RuleError when there are more.
    ``most``: from 1.
    """
    asked: set[str] = set()
    for items in (
        sheet.zones,
        sheet.parts,
        sheet.stations,
        [s for _, s in sheet.seats],
        [e for *_, e in sheet.elements],
    ):
        for item in items:
            asked |= set(item.only)
    questions = [question for question in sheet.questions if question.key in asked]
    total = 1
    for question in questions:
        total *= len(served(question))
    if total > most:
        raise fault("questions", f"{total} combinations of answers change the drawing; at most {most} are proved")
    combined = product(*([(question.key, choice) for choice in served(question)] for question in questions))
    return [dict(pairs) for pairs in combined]


def answered(sheet: Sheet, answers: Answers) -> Sheet:
    """The sheet with only what counts for these answers; what waits for an open question is out too.

    What refers to an item that is out drops with it; an ``after`` through it passes to what stood before it.
    """
    kept = _Kept(sheet, answers)
    return sheet.model_copy(
        update={
            "questions": [q for q in sheet.questions if counts(q, answers)],
            "zones": kept.zones,
            "parts": kept.parts,
            "stations": kept.stations,
            "steps": kept.steps(),
            "ladders": [
                ladder for ladder in sheet.ladders if counts(ladder, answers) and ladder.part in kept.part_keys
            ],
            "kits": kept.kits(),
            "fasteners": kept.fasteners,
            "settings": kept.settings,
            "tests": kept.tests,
            "positions": [kept.position(position) for position in sheet.positions if counts(position, answers)],
            "observations": [observation for observation in sheet.observations if counts(observation, answers)],
            "intervals": [
                interval
                for interval in sheet.intervals
                if counts(interval, answers) and interval.of in {"unit", *kept.part_keys}
            ],
            "disposal": [waste for waste in sheet.disposal if counts(waste, answers)],
        }
    )


class _Kept:
    """What of a sheet counts, found in the order in which one thing refers to another."""

    def __init__(self, sheet: Sheet, answers: Answers) -> None:
        self.sheet, self.answers = sheet, answers
        self.zones = self._in(sheet.zones)
        self.zone_keys = {zone.key for zone in self.zones}
        self.parts = [part.model_copy(update={"points": self._in(part.points)}) for part in self._in(sheet.parts)]
        self.part_keys = {part.key for part in self.parts}
        self.stations = [kept for station in self._in(sheet.stations) if (kept := self._station(station)) is not None]
        self.station_keys = {station.key for station in self.stations}
        self.element_keys = {e.key for s in self.stations for seat in s.seats for e in seat.elements}
        self.stations = [self._without_copies(station) for station in self.stations]
        groups = [group for group in self._in(sheet.fasteners) if group.part is None or group.part in self.part_keys]
        tests = [test for test in self._in(sheet.tests) if set(test.all_zones) <= self.zone_keys]
        self.settings = self._in(sheet.settings)
        self.known = {
            *self.zone_keys, *self.part_keys, *self.station_keys, *self.element_keys,
            *(item.key for item in groups), *(setting.key for setting in self.settings), *(item.key for item in tests),
        }  # fmt: skip
        self.acts = {step.key: act for step in self._in(sheet.steps) if (act := self._acts(step)) is not None}
        self.step_keys = set(self.acts)
        self.known |= self.step_keys
        self.fasteners = [
            group.model_copy(
                update={"phases": [p for p in self._in(group.phases) if p.at is None or p.at in self.step_keys]}
            )
            for group in groups
        ]
        self.tests = [
            test.model_copy(update={"after": [key for key in test.after if key in self.step_keys]}) for test in tests
        ]

    def _in(self, items: Iterable[AnItem]) -> list[AnItem]:
        return [item for item in items if counts(item, self.answers)]

    def _station(self, station: Any) -> Any:
        refers = [key for key in (station.carrier, station.counterface) if key is not None]
        if not set(station.between) <= self.zone_keys or not set(refers) <= self.part_keys:
            return None
        seats = []
        for seat in self._in(station.seats):
            elements = [e for e in self._in(seat.elements) if e.part is None or e.part in self.part_keys]
            if elements or not seat.elements:
                seats.append(seat.model_copy(update={"elements": elements}))
        return station.model_copy(update={"seats": seats}) if seats else None

    def _without_copies(self, station: Any) -> Any:
        """Without further edges of elements that are out."""
        seats = [
            seat.model_copy(
                update={"elements": [e for e in seat.elements if e.same_as is None or e.same_as in self.element_keys]}
            )
            for seat in station.seats
        ]
        return station.model_copy(update={"seats": seats})

    def _acts(self, step: StepSpec) -> dict[str, Any] | None:
        """What the step still does; None for one that did only things that are out."""
        made = {each.mark.key for each in self._in(self.sheet.steps) if each.mark}
        update: dict[str, Any] = {}
        for name in _ACTS:
            known = made if name == "meets" else self.known
            update[name] = [key for key in getattr(step, name) if key in known]
        update["reads"] = [read for read in step.reads if self._has_point(read)]
        did = any(getattr(step, name) for name in update)
        return update if any(update.values()) or not did else None

    def steps(self) -> list[StepSpec]:
        kept = []
        for step in self.sheet.steps:
            if step.key in self.acts:
                ahead = [name for name in step.ahead_of if name in self.part_keys]
                kept.append(
                    step.model_copy(update={**self.acts[step.key], "after": self._after(step), "ahead_of": ahead})
                )
        return kept

    def _has_point(self, name: PointName) -> bool:
        return any(part.key == name.part and any(p.key == name.point for p in part.points) for part in self.parts)

    def _after(self, step: StepSpec) -> list[str] | None:
        """What it comes after; through a step that is out, what that one came after."""
        if step.after is None:
            return None
        places = {each.key: place for place, each in enumerate(self.sheet.steps)}
        found: list[str] = []
        waiting, seen = list(step.after), set[str]()
        while waiting:
            key = waiting.pop(0)
            if key in seen or key not in places:
                continue
            seen.add(key)
            if key in self.step_keys:
                found.append(key)
                continue
            before = self.sheet.steps[places[key]]
            waiting += before.after if before.after is not None else self._listed_before(places[key])
        return list(dict.fromkeys(found))

    def _listed_before(self, place: int) -> list[str]:
        return [self.sheet.steps[place - 1].key] if place else []

    def kits(self) -> list[Kit]:
        kits = [kit.model_copy(update={"lines": self._lines(kit)}) for kit in self._in(self.sheet.kits)]
        return [kit for kit in kits if kit.lines]

    def _lines(self, kit: Kit) -> list[KitLine]:
        lines = []
        for line in self._in(kit.lines):
            update: dict[str, Any] = {
                "element": [key for key in line.element if key in self.element_keys],
                "elements": [element for element in line.elements if element in self.element_keys],
                "part": [key for key in line.part if key in self.part_keys],
                "parts": [part for part in line.parts if part in self.part_keys],
                "fastener": [key for key in line.fastener if any(g.key == key for g in self.fasteners)],
            }
            named = any(getattr(line, name) for name in update)
            if not named or any(update.values()):
                lines.append(line.model_copy(update=update))
        return lines

    def position(self, spec: Any) -> Any:
        names = ("zones", "parts", "stations", "steps", "fasteners", "settings", "tests")
        return spec.model_copy(
            update={name: [key for key in getattr(spec, name) if key in self.known] for name in names}
        )


def depending(sheet: Sheet, answers: Answers) -> list[tuple[Item, str]]:
    """Items that wait for an open question, with the question."""
    found = []
    lists: tuple[Callable[[], Iterable[Item]], ...] = (
        lambda: sheet.zones, lambda: sheet.parts, lambda: sheet.stations, lambda: [s for _, s in sheet.seats],
        lambda: [e for *_, e in sheet.elements], lambda: sheet.steps, lambda: sheet.fasteners, lambda: sheet.settings,
        lambda: sheet.tests, lambda: [line for kit in sheet.kits for line in kit.lines],
    )  # fmt: skip
    for items in lists:
        for item in items():
            if counts(item, answers) is None:
                found.append((item, next(question for question in item.only if question not in answers)))
    return found
