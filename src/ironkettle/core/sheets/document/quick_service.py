"""The part of a sheet that quick service needs: the steps of one interval, and what those read, run and tighten."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.sheets.document.parts import PartSpec
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.supplies import Kit
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.shop.service import Every, EveryKind, read_every


def interval_of(sheet: Sheet, key: str) -> Interval:
    """An interval of a sheet by its key. Raises RuleError where there is none that has steps of its own."""
    for interval in sheet.intervals:
        if interval.name == key and interval.steps:
            return interval
    fits = [interval.name for interval in sheet.intervals if interval.steps]
    raise fault("interval", f"this unit has no quick service “{key}”", *fits)


def every_of(interval: Interval) -> tuple[Every, ...]:
    """How often an interval is due. What an older sheet wrote that cannot be read is taken as something to be seen."""
    found = []
    for text in interval.every:
        try:
            found.append(read_every(text))
        except RuleError:
            found.append(Every(text, EveryKind.CONDITION, counter=text))
    return tuple(found)


def counters_of(sheet: Sheet) -> tuple[str, ...]:
    """What the counters of a unit count, by its intervals: h, swings …"""
    read = [item for interval in sheet.intervals for item in every_of(interval)]
    return tuple(
        dict.fromkeys(reading.counter for reading in read if reading.kind in {EveryKind.HOURS, EveryKind.COUNT})
    )


def conditions_of(sheet: Sheet) -> tuple[str, ...]:
    """What makes something due on a unit when it is seen, as its intervals say it."""
    read = [item for interval in sheet.intervals for item in every_of(interval)]
    return tuple(dict.fromkeys(reading.counter for reading in read if reading.kind is EveryKind.CONDITION))


def quick_service_sheet(sheet: Sheet, interval: Interval) -> Sheet:
    """The sheet with only what the quick service of an interval does; what it does not touch asks nothing."""
    steps = [step for step in sheet.steps if step.key in interval.steps]
    keys = {step.key for step in steps}
    opened = {station for step in steps for station in (*step.opens, *step.closes)}
    read = {(name.part, name.point) for step in steps for name in step.reads}
    run = {test for step in steps for test in step.runs}
    turned = {group for step in steps for group in (*step.loosens, *step.tightens)}
    adjusted = {setting for step in steps for setting in step.sets}
    elements = {element.key for station, _, element in sheet.elements if station.key in opened}
    return sheet.model_copy(
        update={
            "questions": [
                question for question in sheet.questions if question.seen_at is None or question.seen_at in keys
            ],
            "parts": [_with_points(part, read) for part in sheet.parts],
            "stations": [item for item in sheet.stations if item.key in opened or not item.seats[0].elements],
            "steps": [
                step.model_copy(update={"after": None if step.after is None else [a for a in step.after if a in keys]})
                for step in steps
            ],
            "kits": [kept for kit in sheet.kits if (kept := _of_these(kit, elements)).lines],
            "fasteners": [fastener for fastener in sheet.fasteners if fastener.key in turned],
            "settings": [item for item in sheet.settings if item.key in adjusted],
            "tests": [
                item.model_copy(update={"when": "as_left", "after": [a for a in item.after if a in keys]})
                for item in sheet.tests
                if item.key in run
            ],
            "observations": [],
        }
    )


def _with_points(part: PartSpec, read: set[tuple[str, str]]) -> PartSpec:
    return part.model_copy(update={"points": [point for point in part.points if (part.key, point.key) in read]})


def _of_these(kit: Kit, elements: set[str]) -> Kit:
    return kit.model_copy(update={"lines": [line for line in kit.lines if elements & set(line.all_elements)]})
